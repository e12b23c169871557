import { describe, expect, it } from 'vitest';
import { planSetup } from '$core/call/planSetup';
import { defaultHabits } from '$core/habits/habits';
import { builtInKit } from '$core/kit/builtInKit';
import { newBackground, newPerson, newSetup } from '$core/setup/defaults';
import { demoSetup } from '$core/testing/demo';
import { viewpoint } from '$core/setup/scene';
import type { Body } from '$core/kit/schema';
import { figures } from '../finder/figures';
import { ladderRows } from '../ladder/rows';
import {
  axisTicks,
  depthAtPx,
  floorScale,
  framePath,
  panned,
  planePath,
  sideScale,
  toPx,
  zonePath
} from '../../drawing/geometry';
import { snapDeg, snapDepth, snapDistance, snapMm } from './nudge';

const body = builtInKit.bodies[0] as Body;

describe('the Floor’s scale', () => {
  const setup = newSetup('s', 'S', {
    people: [newPerson('a', 'A', { lateralMm: -1500 }), newPerson('b', 'B', { lateralMm: 1500, depthMm: 800 })],
    backgrounds: [newBackground('far', 'Hills', { depthMm: 500_000 })]
  });
  const view = viewpoint(setup, body);
  const scale = floorScale(setup, view.distance, 560, 250);

  it('keeps everybody on it, true to scale both ways, whatever stands far behind', () => {
    for (const person of setup.people) {
      const at = toPx(scale, person.depthMm, person.lateralMm);
      expect(at.x).toBeGreaterThan(0);
      expect(at.x).toBeLessThan(560);
      expect(at.y).toBeGreaterThan(20);
      expect(at.y).toBeLessThan(235);
    }
    const one = toPx(scale, 0, 0);
    expect(toPx(scale, 1000, 0).x - one.x).toBeCloseTo(toPx(scale, 0, 1000).y - one.y, 9);
  });

  it('zooming and panning keep what it says of depth', () => {
    const zoomed = panned(scale, { k: 1, x: 0, y: 0 }, { k: 3, x: -120, y: 40 });
    const at = toPx(scale, 700, 300);
    expect(toPx(zoomed, 700, 300).x).toBeCloseTo(at.x * 3 - 120, 9);
    expect(toPx(zoomed, 700, 300).y).toBeCloseTo(at.y * 3 + 40, 9);
    expect(depthAtPx(zoomed, toPx(zoomed, 700, 0).x)).toBeCloseTo(700, 9);
  });

  it('from the side shows everybody from the sole to the crown, heights upwards', () => {
    const side = sideScale(setup, view.distance, 560, 250);
    const sole = toPx(side, 0, 0).y;
    const crown = toPx(side, 0, 1700).y;
    expect(crown).toBeGreaterThan(20);
    expect(crown).toBeLessThan(sole);
    expect(sole).toBeLessThan(235);
  });

  it('counts its ticks from the lens', () => {
    const ticks = axisTicks(scale, view.distance, 'metric');
    expect(ticks[0]).toEqual({ x: toPx(scale, -view.distance, 0).x, label: '0 m' });
    expect(axisTicks(scale, view.distance, 'feet')[1]?.label).toMatch(/^\d+′$/);
  });

  it('draws a straight plane for a flat surface of focus and an arc for a curved one', () => {
    const placed = { scale, view };
    expect(planePath(placed, 2000).split('L')).toHaveLength(2);
    const curved = { scale, view: { ...view, surface: 'curved' as const } };
    expect(planePath(curved, 2000).split('L').length).toBeGreaterThan(20);
    expect(zonePath(placed, 1900, Infinity)).not.toMatch(/NaN|Infinity/);
    const plan = planSetup({ setup, kit: builtInKit, stopStep: 'half', habits: defaultHabits });
    if (plan.kind === 'plan') expect(framePath(placed, setup, body, plan)).toMatch(/^M.*Z$/);
  });
});

describe('nudges and snaps', () => {
  it('rest on the grid unless fine work is asked for', () => {
    expect([snapMm(1234, false), snapMm(1234.4, true)]).toEqual([1240, 1234]);
    expect([snapDeg(43, false), snapDeg(43.4, true), snapDeg(270, false), snapDeg(-190, true)]).toEqual([
      45, 43, -90, 170
    ]);
  });

  it('a dragged face is caught by a row near to it, else by a round distance from the lens', () => {
    const drag = { rows: [0, 800], distanceMm: 5230, pxPerMm: 0.06, fine: false };
    expect(snapDepth(760, drag)).toEqual({ depthMm: 800, rowMm: 800 });
    expect(snapDepth(400, drag)).toEqual({ depthMm: 370, rowMm: null });
    expect(snapDepth(760, { ...drag, fine: true })).toEqual({ depthMm: 760, rowMm: null });
    // Zoomed in, the steps are finer.
    expect(snapDistance(5230, 0.06, false)).toBe(5200);
    expect(snapDistance(5234, 1, false)).toBe(5250);
  });
});

describe('what the other views draw', () => {
  const demo = (name: string) => {
    const setup = demoSetup(name);
    const plan = planSetup({ setup, kit: builtInKit, stopStep: 'half', habits: defaultHabits });
    if (plan.kind !== 'plan') throw new Error(name);
    return { setup, plan };
  };

  it('the Ladder has a row for each eye of a few, and one, the worst, for each of many', () => {
    const few = ladderRows(demo('Under the palms').plan);
    expect(few.map((row) => `${row.name} ${row.detail}`)).toEqual([
      'Ines near eye',
      'Ines far eye',
      'Tobiah near eye',
      'Tobiah far eye'
    ]);
    expect(few.every((row) => row.open === null)).toBe(true);
    const { plan } = demo('Family on the steps');
    const folded = ladderRows(plan);
    expect(folded.map((row) => row.detail)).toEqual(['5 faces', '5 faces', '4 faces']);
    const all = ladderRows(plan, 'byRow', new Set(folded.map((row) => row.turns)));
    const people = all.filter((row) => row.level === 1);
    expect(people).toHaveLength(14);
    people.forEach((row) => {
      const index = plan.subjects.findIndex((subject) => subject.id === row.turns);
      const ratios = plan.stops[plan.selected]?.sharpness[index]?.map((point) => point.ratio) ?? [];
      expect(row.cells[plan.selected]?.ratio).toBeCloseTo(Math.max(...ratios), 9);
    });
    // A folded row says what the worst of its faces says, at every stop.
    plan.stops.forEach((_, stop) => {
      const worst = Math.max(...people.map((row) => row.cells[stop]?.ratio ?? 0));
      expect(Math.max(...folded.map((row) => row.cells[stop]?.ratio ?? 0))).toBeCloseTo(worst, 9);
    });
    expect(folded.filter((row) => row.limits)).toHaveLength(1);
  });

  it('sorted by risk, the face nearest to going soft comes first and the safest are folded away', () => {
    const { plan } = demo('Family on the steps');
    const ranked = ladderRows(plan, 'byRisk');
    const risk = ranked.slice(0, -1).map((row) => row.cells[plan.selected]?.ratio ?? 0);
    expect(risk).toEqual([...risk].sort((a, b) => b - a));
    expect(ranked[ranked.length - 1]).toMatchObject({ name: 'Less at risk', detail: '6 faces', open: false });
    const one = plan.subjects[0]?.id ?? '';
    const opened = ladderRows(plan, 'byRow', new Set(['row-0', one])).filter((row) => row.turns === one);
    expect(opened.length).toBe(plan.subjects[0]?.points.length);
  });

  it('the outline draws furthest first, blurs by the model, and marks the one target', () => {
    const { setup, plan } = demo('Under the palms');
    const { shapes, aspect } = figures(setup, plan, body, viewpoint(setup, body));
    expect(aspect).toBeCloseTo(1.5, 9);
    const depths = shapes.map((shape) => shape.depth);
    expect(depths).toEqual([...depths].sort((a, b) => b - a));
    const arch = shapes.find((shape) => shape.name === 'iron arch');
    const entry = plan.stops[plan.selected];
    // The share of the frame's height the core reports, on a frame half as wide again as high.
    expect((arch?.blur ?? 0) * 1.5).toBeCloseTo(entry?.backgrounds[1]?.shareOfFrameHeight ?? 0, 9);
    const targets = shapes.flatMap((shape) => (shape.kind === 'person' ? shape.eyes.filter((eye) => eye.target) : []));
    expect(targets).toHaveLength(1);
  });
});
