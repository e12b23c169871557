/** Remedies by a varying amount. */
import { withCamera } from '../../setup/moves';
import { degrees } from '../../maths/vector';
import { focusFromSensor } from '../../optics/thinLens';
import { turnFromLens, viewpoint } from '../../setup/scene';
import type { Person, Setup } from '../../setup/schema';
import type { Bound } from '../plan';
import { movePeople, standingAt, wrapDeg, type Context, type Family } from './remedy';
import { rowFamilies } from './rows';

/** Every family that makes sense for the setup. */
export function families(context: Context): Family[] {
  return [
    ...turning(context),
    ...stepping(context),
    ...offBackground(context),
    ...rowFamilies(context),
    ...bringing(context),
    ...raising(context)
  ];
}

function boundPerson(setup: Setup, bound: Bound): Person | undefined {
  const id = bound.kind === 'point' || bound.kind === 'odds' ? bound.subjectId : '';
  return setup.people.find((person) => person.id === id);
}

function turning({ setup, plan, body, lens }: Context): Family[] {
  const view = viewpoint(setup, body, lens.pupilMagnification);
  const turnDeg = (person: Person) => degrees(turnFromLens(view, person));
  /** Brings a face towards the lens by so many degrees, never past it. */
  const towards = (person: Person, amount: number) => {
    const turn = turnDeg(person);
    const left = Math.sign(turn) * Math.max(0, Math.abs(turn) - amount);
    const yaw = person.headYawDeg - turn + left;
    return { headYawDeg: wrapDeg(yaw) };
  };
  const deciding = setup.people.filter((person) => person.importance !== 'maySoft');
  const result: Family[] = [];
  const bound = boundPerson(setup, plan.lower);
  if (bound && Math.abs(turnDeg(bound)) > 3) {
    result.push({
      kind: 'turnFace',
      unit: 'deg',
      subject: bound.name,
      most: Math.abs(turnDeg(bound)),
      step: 1,
      effort: (amount) => 0.3 + amount / 90,
      apply: (amount) => movePeople(setup, (person) => (person.id === bound.id ? towards(person, amount) : {}))
    });
  }
  const most = Math.max(0, ...deciding.map((person) => Math.abs(turnDeg(person))));
  if (deciding.length > 1 && most > 3) {
    result.push({
      kind: 'turnFaces',
      unit: 'deg',
      most,
      step: 1,
      effort: (amount) => 0.4 + 0.1 * deciding.length + amount / 90,
      apply: (amount) => movePeople(setup, (person) => towards(person, amount))
    });
  }
  return result;
}

/** Where nobody has said how much room there is, mm; and what is kept free before whatever stands nearest (common practice). */
const unknownRoomMm = 3000;
const clearMm = 500;

function stepping({ setup, lens, distance }: Context): Family[] {
  const furthest = setup.place.backUpMm ?? distance + unknownRoomMm;
  const before = [...setup.people, ...setup.things, ...setup.backgrounds].map((item) => -item.depthMm);
  const nearest = Math.max(
    focusFromSensor(setup.camera.focalLengthMm, lens.closestFocusMm, lens.pupilMagnification) * 1.02,
    // Foreground already behind the lens is no longer in the way.
    ...before.filter((depth) => depth < distance).map((depth) => depth + clearMm)
  );
  return [
    {
      kind: 'stepBack',
      unit: 'mm',
      most: furthest - distance,
      step: 10,
      effort: (amount) => 0.3 + amount / 5000,
      apply: (amount) => withCamera(setup, standingAt(distance + amount))
    },
    {
      kind: 'stepCloser',
      unit: 'mm',
      most: distance - nearest,
      step: 10,
      effort: (amount) => 0.3 + amount / 5000,
      apply: (amount) => withCamera(setup, standingAt(distance - amount))
    }
  ];
}

/** People and camera together leave the background: everything fixed in the place falls back behind them. */
function offBackground({ setup, distance }: Context): Family[] {
  if (setup.backgrounds.length === 0) return [];
  const { backUpMm } = setup.place;
  const foreground = setup.backgrounds.filter((item) => item.depthMm < 0).map((item) => -item.depthMm);
  const room = Math.min(
    backUpMm === null ? unknownRoomMm : backUpMm - distance,
    ...foreground.map((depth) => depth - clearMm)
  );
  return [
    {
      kind: 'moveOffBackground',
      unit: 'mm',
      most: room,
      step: 10,
      effort: (amount) => 0.5 + 0.05 * setup.people.length + amount / 2500,
      apply: (amount) => ({
        ...withCamera(setup, standingAt(distance)),
        place: {
          ...setup.place,
          backUpMm: backUpMm === null ? null : backUpMm - amount,
          behindMm: setup.place.behindMm === null ? null : setup.place.behindMm + amount
        },
        backgrounds: setup.backgrounds.map((item) => ({ ...item, depthMm: item.depthMm + amount }))
      })
    }
  ];
}

/** Things that must be sharp come to the depth of the nearest face that must be, or stay a hand's breadth before it. */
function bringing({ setup }: Context): Family[] {
  const faces = setup.people.filter((person) => person.importance !== 'maySoft');
  if (faces.length === 0) return [];
  const nearest = Math.min(...faces.map((person) => person.depthMm));
  return setup.things
    .filter((thing) => thing.importance !== 'maySoft' && thing.depthMm < nearest)
    .map((thing) => ({
      kind: 'bringThing' as const,
      unit: 'mm' as const,
      subject: thing.name,
      most: nearest - thing.depthMm,
      step: 10,
      effort: (amount: number) => 0.3 + amount / 5000,
      apply: (amount: number) => ({
        ...setup,
        things: setup.things.map((item) => (item.id === thing.id ? { ...item, depthMm: item.depthMm + amount } : item))
      })
    }));
}

function raising({ setup }: Context): Family[] {
  return [
    {
      kind: 'raiseCamera',
      unit: 'mm',
      caution: 'ladder',
      most: Math.max(0, 3500 - setup.camera.heightMm),
      step: 50,
      effort: (amount) => 1.5 + amount / 1000,
      apply: (amount) => withCamera(setup, { heightMm: setup.camera.heightMm + amount })
    }
  ];
}
