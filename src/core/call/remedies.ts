/**
 * Remedies for a picture no stop can give: each the least change of one kind that opens the window, all else equal, and
 * only what the place allows; ranked by effort. A remedy carries the setup with it applied, and that setup, planned
 * again, has a window.
 */
import { degrees, radians } from '../geometry/vector';
import { distanceForFraming, framedSize } from '../optics/thinLens';
import type { StopStep } from '../optics/stops';
import { rowLine, rowsByDepth } from '../people/rows';
import { aimAtPeople } from '../setup/aim';
import { frameSize, pictureSize } from '../setup/framing';
import { turnFromLens, viewpoint } from '../setup/scene';
import type { Body, Camera, Kit, Lens, Person, Setup } from '../setup/schema';
import { opensWindow } from './evaluateStop';
import { usefulFocalLengths } from './lineUp';
import type { Bound, Plan } from './plan';
import { planSetup, stopsOf } from './planSetup';
import { prepare } from './situation';
import { focusShare, holdAtOneSecond } from './spread';

export const remedyKinds = [
  'movePoint',
  'continuousFocus',
  'focusMethod',
  'steadier',
  'turnFace',
  'turnFaces',
  'stepBack',
  'stepCloser',
  'moveOffBackground',
  'pullTogether',
  'shapeRow',
  'turnRow',
  'squareCamera',
  'raiseCamera',
  'changeLens',
  'twoFrames',
  'stitch'
] as const;
export type RemedyKind = (typeof remedyKinds)[number];

export interface Remedy {
  readonly kind: RemedyKind;
  /** How much: mm, degrees or a share, by kind; 0 for a plain switch. */
  readonly amount: number;
  readonly unit: 'mm' | 'deg' | 'share' | 'none';
  /** What it is about: a person's name, a stance, a lens; empty for none. */
  readonly subject: string;
  /** Rough minutes of trouble on location, for ranking (from memory). */
  readonly effort: number;
  readonly caution: 'ladder' | null;
  /** The setup with the remedy applied. */
  readonly setup: Setup;
  /** What planning it again gives. */
  readonly opens: { readonly stop: string; readonly first: string; readonly last: string; readonly odds: number };
}

export interface RemedyInput {
  readonly setup: Setup;
  readonly kit: Kit;
  readonly stopStep: StopStep;
}

/** A change by a varying amount. */
interface Family {
  readonly kind: RemedyKind;
  readonly unit: Remedy['unit'];
  readonly subject?: string;
  readonly caution?: Remedy['caution'];
  /** Largest amount the place and the people allow. */
  readonly most: number;
  /** Amounts are rounded up to this. */
  readonly step: number;
  readonly effort: (amount: number) => number;
  readonly apply: (amount: number) => Setup;
}

/** Steps of the first, coarse look along a family, and halvings after it. */
const coarseSteps = 8;
const halvings = 7;

/** Every remedy that opens the window, least effort first. Empty when the window is open or nothing can be planned. */
export function findRemedies({ setup, kit, stopStep }: RemedyInput): Remedy[] {
  const plan = planSetup({ setup, kit, stopStep });
  const body = kit.bodies.find((item) => item.id === setup.camera.bodyId);
  const lens = kit.lenses.find((item) => item.id === setup.camera.lensId);
  if (plan.kind === 'noPlan' || plan.conflict === null || !body || !lens) return [];

  const opens = (changed: Setup): boolean => {
    const prepared = prepare(changed, kit);
    if (prepared.kind === 'noPlan') return false;
    const { situation } = prepared;
    const room = changed.place.backUpMm;
    if (room !== null && situation.view.distance > room + 1e-6) return false;
    return opensWindow(situation, stopsOf(situation.lens, stopStep));
  };
  const asPlan = (changed: Setup): Remedy['opens'] | undefined => {
    const solved = planSetup({ setup: changed, kit, stopStep });
    if (solved.kind === 'noPlan' || !solved.window) return undefined;
    const picked = solved.stops[solved.recommended];
    const label = (index: number) => solved.stops[index]?.stop.label ?? '';
    return {
      stop: label(solved.recommended),
      first: label(solved.window.first),
      last: label(solved.window.last),
      odds: picked?.odds ?? 0
    };
  };

  // The remedy speaks for the call, so a stop chosen by hand makes way for it.
  const free: Setup = { ...setup, intent: { ...setup.intent, stop: { kind: 'byStyle' } } };
  const context: Context = { setup: free, plan, body, lens, kit, distance: plan.distanceMm };
  const found: Remedy[] = [];
  for (const family of families(context)) {
    const amount = leastAmount(family, opens);
    if (amount === undefined) continue;
    const changed = family.apply(amount);
    const result = asPlan(changed);
    if (!result) continue;
    found.push({
      kind: family.kind,
      amount,
      unit: family.unit,
      subject: family.subject ?? '',
      effort: family.effort(amount),
      caution: family.caution ?? null,
      setup: changed,
      opens: result
    });
  }
  for (const choice of choices(context)) {
    const works = choice.options.find((option) => opens(option.setup));
    const result = works && asPlan(works.setup);
    if (!works || !result) continue;
    const { subject, effort, amount = 0 } = works;
    found.push({
      kind: choice.kind,
      amount,
      unit: choice.unit,
      subject,
      effort,
      caution: null,
      setup: works.setup,
      opens: result
    });
  }
  return found.sort((a, b) => a.effort - b.effort);
}

/** The least amount of a family that opens the window, rounded up to its step; undefined when none does. */
function leastAmount(family: Family, opens: (setup: Setup) => boolean): number | undefined {
  if (family.most < family.step) return undefined;
  let low = 0;
  let high: number | undefined;
  for (let i = 1; i <= coarseSteps; i++) {
    // Quadratic spacing looks closer at small changes.
    const amount = family.most * (i / coarseSteps) ** 2;
    if (opens(family.apply(amount))) {
      high = amount;
      break;
    }
    low = amount;
  }
  if (high === undefined) return undefined;
  for (let i = 0; i < halvings && high - low > family.step / 2; i++) {
    const middle: number = (low + high) / 2;
    if (opens(family.apply(middle))) high = middle;
    else low = middle;
  }
  const rounded = Math.min(family.most, Math.ceil(high / family.step - 1e-9) * family.step);
  return opens(family.apply(rounded)) ? rounded : high;
}

interface Context {
  readonly setup: Setup;
  readonly plan: Plan;
  readonly body: Body;
  readonly lens: Lens;
  readonly kit: Kit;
  readonly distance: number;
}

const withCamera = (setup: Setup, changes: Partial<Camera>): Setup => ({
  ...setup,
  camera: { ...setup.camera, ...changes }
});
const standingAt = (distanceMm: number) => ({ placement: { kind: 'distance', distanceMm } }) as const;
const movePeople = (setup: Setup, move: (person: Person) => Partial<Person>): Setup => ({
  ...setup,
  people: setup.people.map((person) => (person.importance === 'maySoft' ? person : { ...person, ...move(person) }))
});

function boundPerson(setup: Setup, bound: Bound): Person | undefined {
  const id = bound.kind === 'point' || bound.kind === 'odds' ? bound.subjectId : '';
  return setup.people.find((person) => person.id === id);
}

function families(context: Context): Family[] {
  return [...turning(context), ...stepping(context), ...offBackground(context), ...rows(context), ...raising(context)];
}

function turning({ setup, plan, body }: Context): Family[] {
  const view = viewpoint(setup.camera, body);
  const turnDeg = (person: Person) => degrees(turnFromLens(view, person));
  /** Brings a face towards the lens by so many degrees, never past it. */
  const towards = (person: Person, amount: number) => {
    const turn = turnDeg(person);
    const left = Math.sign(turn) * Math.max(0, Math.abs(turn) - amount);
    const yaw = person.headYawDeg - turn + left;
    return { headYawDeg: ((((yaw + 180) % 360) + 360) % 360) - 180 };
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

function stepping({ setup, lens, distance }: Context): Family[] {
  const furthest = setup.place.backUpMm ?? distance * 4;
  const nearest = Math.max(lens.closestFocusMm * 1.02, distance * 0.35);
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
  const room = Math.min(backUpMm === null ? 10_000 : backUpMm - distance, ...foreground.map((depth) => depth - 100));
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

function rows({ setup, plan, distance }: Context): Family[] {
  const deciding = setup.people.filter((person) => person.importance !== 'maySoft');
  if (deciding.length < 2) return [];
  const depths = deciding.map((person) => person.depthMm);
  const nearest = Math.min(...depths);
  const range = Math.max(...depths) - nearest;
  const trouble = 0.1 * deciding.length;
  const result: Family[] = [];
  if (range > 40) {
    result.push({
      kind: 'pullTogether',
      unit: 'mm',
      // Rows can close up to half their depth before they stand on each other's feet.
      most: range * 0.5,
      step: 10,
      effort: (amount) => 0.8 + trouble + amount / 5000,
      apply: (amount) =>
        movePeople(setup, (person) => ({ depthMm: nearest + (person.depthMm - nearest) * (1 - amount / range) }))
    });
  }

  const centre = {
    x: deciding.reduce((sum, person) => sum + person.lateralMm, 0) / deciding.length,
    z: depths.reduce((sum, depth) => sum + depth, 0) / deciding.length
  };
  const slant = Math.atan(rowLine(deciding).slope);
  const slantDeg = Math.abs(degrees(slant));
  const lateral = deciding.map((person) => person.lateralMm);
  if (slantDeg > 2 && Math.max(...lateral) - Math.min(...lateral) > 200) {
    result.push({
      kind: 'turnRow',
      unit: 'deg',
      most: slantDeg,
      step: 1,
      effort: (amount) => 0.8 + trouble + amount / 60,
      apply: (amount) => {
        const angle = radians(amount) * Math.sign(slant);
        return movePeople(setup, (person) => {
          const x = person.lateralMm - centre.x;
          const z = person.depthMm - centre.z;
          return {
            lateralMm: centre.x + x * Math.cos(angle) + z * Math.sin(angle),
            depthMm: centre.z + z * Math.cos(angle) - x * Math.sin(angle)
          };
        });
      }
    });
    const radius = distance + centre.z;
    result.push({
      kind: 'squareCamera',
      unit: 'deg',
      most:
        setup.place.sideMm === null
          ? slantDeg
          : Math.min(slantDeg, degrees(Math.asin(Math.min(1, setup.place.sideMm / radius)))),
      step: 1,
      effort: (amount) => 0.5 + amount / 45,
      apply: (amount) => {
        // Round the group on a circle, looking at its middle; the faces follow the lens.
        const angle = -radians(amount) * Math.sign(slant);
        const moved = withCamera(setup, {
          ...standingAt(radius * Math.cos(angle) - centre.z),
          lateralMm: centre.x - radius * Math.sin(angle),
          yawDeg: degrees(angle)
        });
        return movePeople(moved, (person) => ({ headYawDeg: wrapDeg(person.headYawDeg - degrees(angle)) }));
      }
    });
  }

  const shaped = shapedDepths(setup, plan, deciding, distance);
  const bend = Math.max(
    0,
    ...deciding.map((person) => Math.abs((shaped.get(person.id) ?? person.depthMm) - person.depthMm))
  );
  if (bend > 30) {
    result.push({
      kind: 'shapeRow',
      unit: 'mm',
      subject: setup.camera.focusSurface,
      most: bend,
      step: 10,
      effort: (amount) => 0.8 + trouble + amount / 5000,
      apply: (amount) =>
        movePeople(setup, (person) => {
          const to = shaped.get(person.id) ?? person.depthMm;
          return { depthMm: person.depthMm + ((to - person.depthMm) * amount) / bend };
        })
    });
  }
  return result;
}

const wrapDeg = (angle: number) => ((((angle + 180) % 360) + 360) % 360) - 180;

/** Depths that lay each row along the surface of focus: straight for a flat one, round the lens for a curved one. */
function shapedDepths(setup: Setup, plan: Plan, people: readonly Person[], distance: number): Map<string, number> {
  const shaped = new Map<string, number>();
  for (const row of rowsByDepth(people, (person) => person.depthMm)) {
    const middle = row.reduce((sum, person) => sum + person.depthMm, 0) / row.length;
    const line = rowLine(row);
    for (const person of row) {
      const x = person.lateralMm - setup.camera.lateralMm;
      const to =
        setup.camera.focusSurface === 'flat'
          ? line.at + line.slope * person.lateralMm
          : Math.sqrt(Math.max(0, (distance + middle) ** 2 - x * x)) - distance;
      shaped.set(person.id, to);
    }
  }
  return shaped;
}

function raising({ setup, body }: Context): Family[] {
  return [
    {
      kind: 'raiseCamera',
      unit: 'mm',
      caution: 'ladder',
      most: Math.max(0, 3500 - setup.camera.heightMm),
      step: 50,
      effort: (amount) => 1.5 + amount / 1000,
      apply: (amount) => {
        const raised = withCamera(setup, { heightMm: setup.camera.heightMm + amount });
        const { pitchDeg } = aimAtPeople(raised, viewpoint(raised.camera, body));
        return withCamera(raised, { pitchDeg });
      }
    }
  ];
}

/** A change that is one thing or another; options in order of effort. */
interface Choice {
  readonly kind: RemedyKind;
  readonly unit: Remedy['unit'];
  readonly options: readonly {
    readonly setup: Setup;
    readonly subject: string;
    readonly effort: number;
    readonly amount?: number;
  }[];
}

function choices(context: Context): Choice[] {
  const { setup } = context;
  const { camera, intent } = setup;
  const hold = (stance: Camera['stance']) => holdAtOneSecond[stance];
  const stanceEffort: Readonly<Record<Camera['stance'], number>> = {
    standing: 0,
    braced: 0.2,
    kneeling: 0.3,
    monopod: 1.5,
    tripod: 3
  };
  const stances = (['braced', 'kneeling', 'monopod', 'tripod'] as const).filter(
    (stance) => hold(stance) < hold(camera.stance)
  );
  const sharper = (['crossPoint'] as const).filter((method) => focusShare[method] < focusShare[camera.focusMethod]);
  const byHand = camera.focusMethod === 'magnifier' ? [] : (['magnifier'] as const);
  const methods = [...sharper, ...byHand];
  const moving = setup.people.some((person) => person.towardsMmPerS !== 0);
  return [
    {
      kind: 'movePoint',
      unit: 'none',
      options:
        camera.recompose === 'none'
          ? []
          : [{ setup: withCamera(setup, { recompose: 'none' }), subject: '', effort: 0.1 }]
    },
    {
      kind: 'continuousFocus',
      unit: 'none',
      options:
        moving && camera.focusMode === 'single'
          ? [{ setup: withCamera(setup, { focusMode: 'continuous' }), subject: '', effort: 0.1 }]
          : []
    },
    {
      kind: 'focusMethod',
      unit: 'none',
      options: methods.map((focusMethod) => ({
        setup: withCamera(setup, { focusMethod }),
        subject: focusMethod,
        effort: focusMethod === 'magnifier' ? 0.6 : 0.2
      }))
    },
    {
      kind: 'steadier',
      unit: 'none',
      options: stances.map((stance) => ({
        setup: withCamera(setup, { stance }),
        subject: stance,
        effort: stanceEffort[stance]
      }))
    },
    { kind: 'changeLens', unit: 'mm', options: otherLenses(context) },
    {
      kind: 'twoFrames',
      unit: 'none',
      options:
        intent.frames === 'one' && setup.people.length + setup.things.length > 1
          ? [{ setup: { ...setup, intent: { ...intent, frames: 'two' } }, subject: '', effort: 4 }]
          : []
    },
    { kind: 'stitch', unit: 'none', options: stitches(context) }
  ];
}

/** Every other lens at the same framing; the amount is where to stand. */
function otherLenses({ setup, kit, lens, body, distance }: Context): Choice['options'] {
  const { height } = pictureSize(body, setup.camera);
  const framed = framedSize(setup.camera.focalLengthMm, distance, height);
  return kit.lenses
    .filter((other) => other.id !== lens.id)
    .flatMap((other) =>
      usefulFocalLengths(other).map((focalLengthMm) => {
        const amount = distanceForFraming(focalLengthMm, framed, height);
        const changed = withCamera(setup, { lensId: other.id, focalLengthMm, ...standingAt(amount) });
        return {
          setup: changed,
          subject: `${other.name}${other.longestMm > other.shortestMm ? ` at ${focalLengthMm}` : ''}`,
          effort: 1 + Math.abs(amount - distance) / 4000,
          amount
        };
      })
    )
    .sort((a, b) => a.effort - b.effort);
}

const stitchOverlap = 0.3;

/** The same view from the same place with a longer lens in several frames: more opening for the same angle. */
function stitches({ setup, kit, body, distance }: Context): Choice['options'] {
  if (setup.camera.stitch) return [];
  const frame = frameSize(body, setup.camera.orientation);
  const f = setup.camera.focalLengthMm;
  const frames = (longer: number, side: number) => {
    const wanted = 2 * Math.atan(side / (2 * f));
    const each = 2 * Math.atan(side / (2 * longer));
    return Math.max(1, Math.ceil((wanted / each - 1) / (1 - stitchOverlap) + 1 - 1e-9));
  };
  return kit.lenses
    .flatMap((other) => usefulFocalLengths(other).map((focalLengthMm) => ({ other, focalLengthMm })))
    .filter(({ focalLengthMm }) => focalLengthMm > f * 1.2)
    .flatMap(({ other, focalLengthMm }) => {
      const columns = frames(focalLengthMm, frame.width);
      const rowsOfFrames = frames(focalLengthMm, frame.height);
      if (columns > 8 || rowsOfFrames > 8) return [];
      const stitch = { columns, rows: rowsOfFrames, overlap: stitchOverlap };
      const changed = withCamera(setup, { lensId: other.id, focalLengthMm, stitch, ...standingAt(distance) });
      return [
        {
          setup: changed,
          subject: `${columns} × ${rowsOfFrames} frames with the ${other.name}`,
          effort: 6 + columns * rowsOfFrames * 0.2
        }
      ];
    })
    .sort((a, b) => a.effort - b.effort);
}
