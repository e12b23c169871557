import { describe, expect, it } from 'vitest';
import { planSetup } from '$core/call/planSetup';
import { builtInKit } from '$core/setup/builtInKit';
import { newBackground, newPerson, newSetup } from '$core/setup/defaults';
import { demoJob } from '$core/setup/demo';
import { viewpoint } from '$core/setup/scene';
import type { Body } from '$core/setup/schema';
import { figures } from '../finder/figures';
import { ladderRows } from '../ladder/rows';
import { axisTicks, floorScale, framePath, planePath, toPx, zonePath } from './geometry';
import { snapDeg, snapMm } from './nudge';

const body = builtInKit.bodies[0] as Body;

describe('the Floor’s scale', () => {
  const setup = newSetup('s', 'S', {
    people: [newPerson('a', 'A', { lateralMm: -1500 }), newPerson('b', 'B', { lateralMm: 1500, depthMm: 800 })],
    backgrounds: [newBackground('far', 'Hills', { depthMm: 500_000 })]
  });
  const view = viewpoint(setup.camera, body);
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
    const plan = planSetup({ setup, kit: builtInKit, stopStep: 'half' });
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
});

describe('what the other views draw', () => {
  const demo = (name: string) => {
    const setup = demoJob().setups.find((item) => item.name === name) ?? newSetup('none', 'none');
    const plan = planSetup({ setup, kit: builtInKit, stopStep: 'half' });
    if (plan.kind !== 'plan') throw new Error(name);
    return { setup, plan };
  };

  it('the Ladder has a row for each eye of a few, and one, the worst, for each of many', () => {
    const few = ladderRows(demo('Under the palms').plan);
    expect(few.map((row) => `${row.name} ${row.role}`)).toEqual([
      'Ines nearEye',
      'Ines farEye',
      'Tobiah nearEye',
      'Tobiah farEye'
    ]);
    const { plan } = demo('Family on the steps');
    const many = ladderRows(plan);
    expect(many).toHaveLength(14);
    many.forEach((row, index) => {
      const ratios = plan.stops[plan.selected]?.sharpness[index]?.map((point) => point.ratio) ?? [];
      expect(row.cells[plan.selected]?.ratio).toBeCloseTo(Math.max(...ratios), 9);
    });
  });

  it('the outline draws furthest first, blurs by the model, and marks the one target', () => {
    const { setup, plan } = demo('Under the palms');
    const { shapes, aspect } = figures(setup, plan, body, viewpoint(setup.camera, body));
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
