import { describe, expect, it } from 'vitest';
import { shiftedFocus } from '../optics/thinLens';
import { seededNormal, seededRandom } from '../testing/random';
import { arrangedFor, drills } from './kinds';
import { type KitLimits } from './kinds/kind';
import { drillIds, type DrillId } from './kinds/ids';
import { expectedIn, lookAtMarks, layoutOf, type MarkedFrame } from './series/fiducials';
import { anotherDrill } from './anotherDrill';
import { matchFrames } from './series/match';
import { bestPlane, planesOf, readSeries, type DrillFrame, type FrameRead, type PlaneAt } from './series/series';
import { marksShot, type StandingMark } from './series/simulate';
import { diagonalVerdict } from './kinds/diagonal';
import { edgesVerdict } from './kinds/edges';
import { ladderVerdict } from './kinds/stopLadder';

const kit: KitLimits = { focalLengthMm: 50, widestFNumber: 1.8, smallestFNumber: 16, closestMm: 400, discMm: 0.03 };
const pixelMm = 0.024;

interface Shot {
  readonly planeMm: number;
  readonly fNumber: number;
  readonly lens?: string;
}

/** Frames of things in line as the camera writes them, in the order they were taken. */
function series(things: readonly StandingMark[], shots: readonly Shot[], width = 640): DrillFrame[] {
  const lens = { focalLengthMm: 50, pixelMm, width, height: 220 };
  const pictures = shots.map(({ planeMm, fNumber }, at) =>
    marksShot({ lens, fNumber, planeMm, marks: things }, seededRandom(at))
  );
  const first = pictures.map((picture) => lookAtMarks(picture) as MarkedFrame);
  const all = layoutOf(first);
  return pictures.map((picture, at) => ({
    id: `f${at}`,
    name: `DRILL_${at}.JPG`,
    takenMs: 1000 * at,
    fNumber: shots[at]?.fNumber ?? 0,
    focalLengthMm: 50,
    shutterS: null,
    lens: shots[at]?.lens ?? '50 mm',
    width,
    height: 220,
    pixelMm,
    marked: lookAtMarks(picture, expectedIn(all, first[at] as MarkedFrame)) as MarkedFrame
  }));
}

describe('arrangements', () => {
  it('are made for the kit in hand, with a step for each frame', () => {
    const ladder = arrangedFor('stopLadder', kit);
    expect(ladder?.distanceMm).toBe(1200);
    // Full stops from f/1.8 to f/16, focused on the first and on the second.
    expect(ladder?.steps.map(({ focusOn }) => focusOn)).toEqual([
      ...Array<number>(8).fill(0),
      ...Array<number>(8).fill(1)
    ]);
    expect(arrangedFor('diagonal', kit)?.steps).toHaveLength(3);
    // Each of the three once straight, then four edges twice, turned and leaning.
    expect(arrangedFor('edges', kit)?.steps).toHaveLength(19);
    expect(arrangedFor('judge', kit)).toBeNull();
    // A lens that focuses no nearer than 1.5 m stands further away.
    expect(arrangedFor('diagonal', { ...kit, closestMm: 1500 })?.distanceMm).toBe(1950);
    expect(drills.map(({ id }) => id)).toEqual([...drillIds]);
    // Three straight, then five at once and after each wait.
    const waits = arrangedFor('sway', kit)?.steps.map(({ waitS }) => waitS);
    expect(waits).toEqual([null, null, null, ...[0, 1, 3, 6].flatMap((waitS) => Array<number>(5).fill(waitS))]);
    // 1/(4f) to 4/f; on to a second where something holds the picture still.
    const times = (stabilised: boolean) => [
      ...new Set(arrangedFor('steady', { ...kit, stabilised })?.steps.map(({ shutterS }) => shutterS))
    ];
    expect(times(false)).toEqual([1 / 200, 1 / 100, 1 / 50, 1 / 25, 2 / 25]);
    expect(times(true).slice(-3)).toEqual([0.16, 0.32, 0.64]);
  });
});

describe('where a plane lies among marks', () => {
  it('is told from how blurred each is, the side with it', () => {
    const frame = { focalLengthMm: 50, fNumber: 1.8, pixelMm };
    const disc = (plane: number, z: number) => ((50 * 50) / (1.8 * (plane - 50)) / pixelMm) * (Math.abs(z - plane) / z);
    for (const plane of [1150, 1210, 1290, 1400, 1600]) {
      const seen = [1200, 1350, 1500].map((depthMm) => ({ depthMm, discPx: disc(plane, depthMm) }));
      expect(bestPlane(seen, frame)?.mm).toBeCloseTo(plane, -1);
    }
    expect(bestPlane([{ depthMm: 1200, discPx: 0 }], frame)).toBeNull();
  });
});

describe('the planes of a series', () => {
  it('are told though some marks are never quite sharp: what their sharpest frame has is reckoned with', () => {
    const optics = { focalLengthMm: 50, fNumber: 1.8, pixelMm };
    const depths = [1130, 1200, 1270];
    const truth = [1200, 1206, 1222, 1240, 1188, 1215];
    const disc = (plane: number, z: number) => ((50 * 50) / (1.8 * (plane - 50)) / pixelMm) * (Math.abs(z - plane) / z);
    const sharpest = new Map(
      depths.map((z, index) => {
        const all = truth.map((plane) => disc(plane, z));
        return [index, all.indexOf(Math.min(...all))] as const;
      })
    );
    const normal = seededNormal(5);
    const frames = truth.map((plane) => ({
      optics,
      marks: depths.map((depthMm, index) => {
        const least = disc(truth[sharpest.get(index) ?? 0] ?? 0, depthMm);
        const more = Math.sqrt(Math.max(0, disc(plane, depthMm) ** 2 - least ** 2));
        return { index, depthMm, discPx: Math.max(0, more + 0.15 * normal()) };
      })
    }));
    const errors = (planes: readonly (PlaneAt | null)[]) =>
      planes.map((plane, at) => Math.abs((plane?.mm ?? 0) - (truth[at] ?? 0)));
    const mean = (values: readonly number[]) => values.reduce((sum, value) => sum + value, 0) / values.length;
    const told = errors(planesOf(frames, sharpest));
    // As if each were quite sharp somewhere: off by a third more.
    expect(mean(errors(frames.map(({ marks }) => bestPlane(marks, optics))))).toBeGreaterThan(1.33 * mean(told));
  });
});

describe('to the edges', () => {
  const arranged = arrangedFor('edges', kit);
  const steps = arranged?.steps ?? [];
  /** A frame that puts the mark at its step's place, its plane so far behind it. */
  const frameOf = (step: (typeof steps)[number], offsetMm: number, at: number): FrameRead => {
    const [width, height] = step.upright ? [800, 1200] : [1200, 800];
    const to = { middle: [0, 0], left: [-0.7, 0], right: [0.7, 0], top: [0, -0.7], bottom: [0, 0.7] }[step.place];
    const mark = {
      index: 1,
      sidePx: 50,
      depthMm: 1300,
      x: (width / 2) * (1 + (to[0] ?? 0)),
      y: (height / 2) * (1 + (to[1] ?? 0))
    };
    const others = [0, 2].map((index) => ({ ...mark, index, depthMm: 1300 + 70 * (index - 1) }));
    const mm = 1300 + offsetMm;
    return {
      id: step.id,
      name: step.id,
      takenMs: at,
      fNumber: step.fNumber,
      focalLengthMm: 50,
      shutterS: null,
      lens: '50 mm',
      width,
      height,
      pixelMm: 0.03,
      marked: { marks: [] },
      discs: [],
      nearest: 1,
      marks: [mark, ...others],
      plane: { mm, low: mm - 5, high: mm + 5 }
    };
  };
  const turnOf = (step: (typeof steps)[number]) => {
    // By hand: focused at 1300 in the middle, turned about 120 mm behind the pupil until it lies 0.7 of half the picture off.
    const half =
      step.place === 'middle'
        ? 0
        : ((step.place === 'left' || step.place === 'right') !== step.upright ? 18 : 12) * 0.7;
    const v = 1 / (1 / 50 - 1 / 1300);
    const aside = (half * 1300) / v;
    return step.turning === null ? 0 : Math.hypot(aside, 1300 + 120) - (1300 + 120);
  };

  it('knows frames by where the mark lies and how the camera was held, and tells the lean from the turn', () => {
    const normal = seededNormal(6);
    const taken = steps.map((step, at) =>
      step.focusOn !== 1
        ? frameOf(step, 70 * (step.focusOn - 1), at)
        : frameOf(step, 6 + turnOf(step) + (step.turning === 'lean' ? 25 + 4 * normal() : 2 * normal()), at)
    );
    const match = matchFrames(steps, [...taken].reverse());
    expect(match.steps.map(({ step, frame }) => frame?.id === step.id)).toEqual(steps.map(() => true));
    const verdict = edgesVerdict(match, 120);
    expect(verdict.missing).toBe(0);
    expect(verdict.straightMm).toBeCloseTo(6, -1);
    expect(Math.abs(verdict.turnOffMm ?? 99)).toBeLessThan(4);
    expect(verdict.leaned?.times).toBe(8);
    expect(verdict.leaned?.lean.low).toBeLessThan(25);
    expect(verdict.leaned?.lean.high).toBeGreaterThan(20);
    for (const { step, turnMm } of verdict.steps) expect(turnMm).toBeCloseTo(turnOf(step), 3);
  });

  it('knows its frames when they are brought to another drill, and keeps still where they may be either', () => {
    const all = steps.map((step, at) => frameOf(step, step.focusOn === 1 ? turnOf(step) : 70 * (step.focusOn - 1), at));
    const broughtTo = (drill: DrillId, frames: readonly FrameRead[]) =>
      anotherDrill(drill, matchFrames(arrangedFor(drill, kit)?.steps ?? [], frames), frames, kit);
    expect(broughtTo('diagonal', all)).toBe('edges');
    expect(broughtTo('stopLadder', all)).toBe('edges');
    expect(broughtTo('edges', all)).toBeNull();
    // Three straight ones begin it as they do the diagonal.
    expect(broughtTo('diagonal', all.slice(0, 3))).toBeNull();
    expect(broughtTo('edges', all.slice(0, 3))).toBeNull();
    // Of no drill: at a stop none asks for.
    expect(
      broughtTo(
        'diagonal',
        all.map((frame) => ({ ...frame, fNumber: 30 }))
      )
    ).toBeNull();
  });

  it('says nothing of leaning where it was not tried often enough', () => {
    const some = steps
      .filter(({ turning }) => turning !== 'lean')
      .map((step, at) => frameOf(step, step.focusOn === 1 ? 5 : 70 * (step.focusOn - 1), at));
    const verdict = edgesVerdict(matchFrames(steps, some), 120);
    expect(verdict.leaned).toBeNull();
    expect(verdict.missing).toBe(8);
  });
});

describe('three on a diagonal', () => {
  const arranged = arrangedFor('diagonal', kit);
  const things = (arranged?.things ?? []).map(({ index, lateralMm, depthMm }) => ({
    index,
    x: lateralMm,
    y: 0,
    z: 1200 + depthMm
  }));
  const steps = arranged?.steps ?? [];
  const N = steps[0]?.fNumber ?? 1.8;
  const z = (index: number) => things[index]?.z ?? 0;

  it('matches frames that came in any order, a retake and one of another lens, and says how far each was off', () => {
    const offsets = [14, -20, 8];
    const shots: Shot[] = [
      { planeMm: z(2) + (offsets[2] ?? 0), fNumber: N },
      { planeMm: z(0) - 40, fNumber: N },
      { planeMm: z(0) + (offsets[0] ?? 0), fNumber: N },
      { planeMm: z(1), fNumber: N, lens: 'Another' },
      { planeMm: z(1) + (offsets[1] ?? 0), fNumber: N }
    ];
    const match = matchFrames(steps, readSeries(series(things, shots)));
    expect(match.steps.map(({ frame }) => frame?.id)).toEqual(['f2', 'f4', 'f0']);
    expect(match.steps[0]?.spare.map(({ id }) => id)).toEqual(['f1']);
    expect(match.left.map(({ frame, why }) => [frame.id, why])).toEqual([['f3', 'otherLens']]);
    const verdict = diagonalVerdict(match);
    expect(verdict.right).toBe(3);
    expect(verdict.missing).toEqual([]);
    verdict.steps.forEach(({ offsetMm }, at) =>
      expect(Math.abs((offsetMm ?? 99) - (offsets[at] ?? 0))).toBeLessThan(12)
    );
    // Put elsewhere by hand, it is judged there.
    const put = matchFrames(steps, readSeries(series(things, shots)), { f1: 'focus0', f0: '' });
    expect(put.steps.map(({ frame }) => frame?.id ?? null)).toEqual(['f1', 'f4', null]);
  });

  it('says that one is still to do where another was focused on twice', () => {
    const shots: Shot[] = [z(0), z(1), z(1) + 15].map((planeMm) => ({ planeMm, fNumber: N }));
    const match = matchFrames(steps, readSeries(series(things, shots)));
    expect(match.steps.map(({ frame }) => frame !== null)).toEqual([true, true, false]);
    expect(match.steps[1]?.spare).toHaveLength(1);
    expect(diagonalVerdict(match).missing).toEqual([2]);
  });
});

describe('the stop ladder', () => {
  it('finds the first stop that holds all, and a lens that keeps to theory', () => {
    const arranged = arrangedFor('stopLadder', kit);
    const things = (arranged?.things ?? []).map(({ index, lateralMm, depthMm }) => ({
      index,
      x: lateralMm,
      y: 0,
      z: 1200 + depthMm
    }));
    // Five stops of the second series: the plane on the second thing, 12 µm behind it on the sensor.
    const steps = (arranged?.steps ?? [])
      .filter(({ focusOn }) => focusOn === 1)
      .filter((_, at) => at % 2 === 0 || at === 7);
    const plane = shiftedFocus(50, things[1]?.z ?? 0, 0.012);
    const shots = steps.map(({ fNumber }) => ({ planeMm: plane, fNumber }));
    const verdict = ladderVerdict(matchFrames(steps, readSeries(series(things, shots, 860))), 0.03 * 1.35);
    const [row] = verdict.rows;
    expect(row?.expected).not.toBeNull();
    expect(row?.holds).not.toBeNull();
    expect(verdict.missing).toBe(0);
    expect(Math.abs(verdict.departs ?? 9)).toBeLessThan(0.2);
  });

  it('says from which stop on diffraction costs, or noise', () => {
    const steps = (arrangedFor('stopLadder', kit)?.steps ?? []).filter(({ focusOn }) => focusOn === 0).slice(2, 6);
    const lens = { focalLengthMm: 50, pixelMm, width: 400, height: 220 };
    const marks = [0, 1].map((index) => ({ index, x: 95 * (index - 0.5), y: 0, z: 1200 }));
    /** The same at four stops, the last two otherwise. */
    const told = (last: { readonly ownPx?: number; readonly noise?: number }, taken = [0, 1, 2, 3]) => {
      const all = steps.map(({ fNumber }, at): DrillFrame => ({
        id: `f${at}`,
        name: `f${at}`,
        takenMs: at,
        fNumber,
        focalLengthMm: 50,
        shutterS: null,
        lens: '50 mm',
        width: 400,
        height: 220,
        pixelMm,
        marked: lookAtMarks(
          marksShot({ lens, fNumber, planeMm: 1200, marks, ...(at > 1 ? last : {}) }, seededRandom(at))
        ) as MarkedFrame
      }));
      const frames = taken.flatMap((at) => all[at] ?? []);
      return ladderVerdict(matchFrames(steps, readSeries(frames)), 0.03).costsFrom;
    };
    expect(told({})).toBeNull();
    expect(told({ ownPx: 1.1 })).toEqual({ fNumber: steps[2]?.fNumber, by: 'diffraction' });
    // A stop that was not taken costs nothing.
    expect(told({}, [0, 1, 3])).toBeNull();
    expect(told({ noise: 0.08 })).toEqual({ fNumber: steps[2]?.fNumber, by: 'noise' });
  });
});
