/** What autofocus is aimed at, and how deep a background is taken: in setups of rows, objects and tilted cameras. */
import { describe, expect, it } from 'vitest';
import { defaultHabits } from '../habits/habits';
import { builtInKit } from '../kit/builtInKit';
import { radians } from '../maths/vector';
import { arrange } from '../setup/arrangements';
import { newBackground, newPerson, newSetup, newThing } from '../setup/defaults';
import { surfacesIn } from '../setup/lineOfSight';
import { eyesMidpoint } from '../setup/scene';
import type { Setup } from '../setup/schema';
import { seededRandom } from '../testing/random';
import { runs } from '../testing/runs';
import { planSituation, prepare } from './planSetup';
import type { Situation } from './situation';

const situationOf = (setup: Setup): Situation | null => {
  const prepared = prepare({ setup, kit: builtInKit, habits: defaultHabits, stopStep: 'full' });
  return prepared.kind === 'noPlan' ? null : prepared;
};

/** One to three rows, some heads turned, an object or two among them. */
function rowsAndThings(random: () => number): Setup {
  const between = (least: number, most: number) => Math.round(least + random() * (most - least));
  const rows = between(1, 3);
  const count = rows * between(2, 5);
  const base = newSetup('s', 'S');
  const people = arrange(
    Array.from({ length: count }, (_, i) => newPerson(`p${i}`, `P${i}`, { headYawDeg: between(-40, 40) })),
    {
      kind: 'rows',
      count,
      rows,
      spacingMm: between(400, 700),
      rowDepthMm: between(300, 1000),
      riserMm: between(0, 250),
      staggered: random() < 0.7
    }
  );
  return {
    ...base,
    people,
    things: Array.from({ length: between(0, 2) }, (_, i) =>
      newThing(`t${i}`, `T${i}`, {
        depthMm: between(-1500, 600),
        lateralMm: between(-800, 800),
        widthMm: between(60, 500),
        tallMm: between(60, 500),
        deepMm: between(10, 300),
        heightMm: between(700, 1700),
        importance: random() < 0.5 ? 'must' : 'maySoft'
      })
    ),
    camera: {
      ...base.camera,
      lensId: 'lens-50',
      focalLengthMm: 50,
      placement: { kind: 'distance', distanceMm: between(3000, 8000) }
    }
  };
}

describe('autofocus', () => {
  it('is aimed at no empty place and through no object: none of 500 setups of rows and objects', () => {
    const random = seededRandom(20261202);
    let asked = 0;
    const wrong: string[] = [];
    for (let i = 0; i < runs(500); i++) {
      const setup = rowsAndThings(random);
      const situation = situationOf(setup);
      if (!situation) continue;
      const plan = planSituation(situation, 'full');
      const target = plan.stops[plan.selected]?.target;
      const at = target?.position && situation.aim.at(target.position);
      asked += 1;
      if (!target?.subjectId || !target.position || !at) wrong.push(`${i}: an empty place`);
      else if (target.role === 'farSide') wrong.push(`${i}: through ${target.subjectId}`);
      else {
        if (!situation.aim.sees(target.subjectId, target.position)) wrong.push(`${i}: hidden`);
        // What the lens sees exactly there: the target's owner, or no more than the edge of a neighbour's hair.
        const box = { left: at.x - 1e-4, right: at.x + 1e-4, top: at.y - 1e-4, bottom: at.y + 1e-4 };
        const [seen] = surfacesIn(situation.lineOfSight(), box, 1, 1);
        const others = seen && seen.id !== target.subjectId && seen.part !== 'hair';
        const before = others && seen.depth < target.focusDistanceMm - 150;
        if (before) wrong.push(`${i}: through ${seen.id}`);
      }
    }
    expect(wrong).toEqual([]);
    expect(asked).toBeGreaterThan(runs(450));
  });

  it('is aimed at the front one of two rows and the middle one of three, before what lies nearer the middle of the frame', () => {
    for (const [inRows, wanted] of [
      [2, 0],
      [3, 1]
    ] as const) {
      const base = newSetup('s', 'S');
      const count = inRows * 4;
      const people = arrange(
        Array.from({ length: count }, (_, i) => newPerson(`p${i}`, `P${i}`)),
        { kind: 'rows', count, rows: inRows, spacingMm: 560, rowDepthMm: 700, riserMm: 200, staggered: true }
      );
      const situation = situationOf({
        ...base,
        people,
        // Far aside, so that the middle of the frame is nobody's row.
        camera: {
          ...base.camera,
          lensId: 'lens-50',
          focalLengthMm: 50,
          heightMm: 2000,
          placement: { kind: 'distance', distanceMm: 7000 }
        }
      });
      if (!situation) throw new Error('no plan');
      const plan = planSituation(situation, 'third');
      const id = plan.stops[plan.selected]?.target.subjectId;
      const row = people.find((person) => person.id === id)?.depthMm ?? -1;
      expect(Math.round(row / 700)).toBe(wanted);
    }
  });
});

describe('a background', () => {
  it('is as deep as where the ray through the face meets it, the camera tilted or turned: details lost within 3%', () => {
    let least = Infinity;
    let most = 0;
    for (const pitchDeg of [-40, -20, 0, 25]) {
      for (const yawDeg of [-30, 0, 20]) {
        const base = newSetup('s', 'S');
        const person = newPerson('p', 'P');
        const wallMm = 4000;
        // The camera is raised and moved aside as it is tilted and turned, so that she stays in the middle.
        const setup: Setup = {
          ...base,
          people: [person],
          backgrounds: [newBackground('wall', 'wall', { depthMm: wallMm, surface: 'brick' })],
          camera: {
            ...base.camera,
            pitchDeg,
            yawDeg,
            heightMm: eyesMidpoint(person).y - 3000 * Math.tan(radians(pitchDeg)),
            lateralMm: -3000 * Math.tan(radians(yawDeg)),
            placement: { kind: 'distance', distanceMm: 3000 }
          }
        };
        if (setup.camera.heightMm < 0) continue;
        const situation = situationOf(setup);
        if (!situation) throw new Error('no plan');
        const plan = planSituation(situation, 'full');
        const entry = plan.stops[plan.selected];
        const lens = situation.view.position;
        const face = eyesMidpoint(person);
        // The ray goes on to the wall, or to its foot; its length along the axis by the cosines of tilt and turn.
        const along = (wallMm - lens.z) / (face.z - lens.z);
        const hit = { x: lens.x + along * (face.x - lens.x), y: Math.max(0, lens.y + along * (face.y - lens.y)) };
        const [yaw, pitch] = [radians(yawDeg), radians(pitchDeg)];
        const axis = { x: Math.sin(yaw) * Math.cos(pitch), y: Math.sin(pitch), z: Math.cos(yaw) * Math.cos(pitch) };
        const depth = (hit.x - lens.x) * axis.x + (hit.y - lens.y) * axis.y + (wallMm - lens.z) * axis.z;
        const lost = (85 / (entry?.stop.fNumber ?? 1)) * (depth / (entry?.planeMm ?? 1) - 1);
        const said = entry?.backgrounds[0]?.lostDetailMm ?? 0;
        expect(Math.abs(said / lost - 1), `${pitchDeg}° ${yawDeg}°`).toBeLessThan(0.03);
        least = Math.min(least, said);
        most = Math.max(most, said);
      }
    }
    expect(most / least).toBeGreaterThan(1.2);
  });
});
