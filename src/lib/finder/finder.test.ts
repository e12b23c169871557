import { viewsRange } from '../../render/lens/pupil';
import { describe, expect, it } from 'vitest';
import { planSetup } from '$core/call/planSetup';
import { defaultHabits } from '$core/habits/habits';
import { builtInKit } from '$core/kit/builtInKit';
import { heldPoints } from '$core/setup/focusPoint';
import { newPerson, newSetup, newThing } from '$core/setup/defaults';
import { demoJobs } from '$core/job/demo';
import { demoSetup } from '$core/testing/demo';
import { featurePosition } from '$core/setup/scene';
import type { Setup } from '$core/setup/schema';
import {
  asking,
  aspectOf,
  atStop,
  eyeCrops,
  picturePixels,
  projection,
  screenDensity,
  type RenderableSetup
} from '../../render/request';
import { hitAt } from './hit';

function taken(setup: Setup): RenderableSetup {
  const plan = planSetup({ setup, kit: builtInKit, stopStep: 'half', habits: defaultHabits });
  const body = builtInKit.bodies.find((item) => item.id === setup.camera.bodyId);
  const lens = builtInKit.lenses.find((item) => item.id === setup.camera.lensId);
  if (plan.kind !== 'plan' || !body || !lens) throw new Error(setup.name);
  return { setup, plan, body, lens };
}
const tile = { width: 160, height: 58 };
const options = { slot: 'finder', priority: 1, width: 620.4, height: 413.6 } as const;

describe('what is asked of the renderer', () => {
  it('is plain data, in whole pixels, for the stop in use or another, and nothing for a stop that is not', () => {
    const its = taken(demoSetup('West door'));
    const asked = asking(its, options);
    expect(asked).toMatchObject({ slot: 'finder', width: 620, height: 414, quick: true, eyesOf: undefined });
    expect(structuredClone(asked)).toEqual(asked);
    expect(asked?.shot.lens.fNumber).toBeCloseTo(its.plan.stops[its.plan.selected]?.stop.fNumber ?? 0, 9);
    const closed = asking(atStop(its, its.plan.stops.length - 1), options);
    expect(closed?.shot.lens.fNumber).toBeGreaterThan(15);
    // Stopped down, discs are small: the fewest looks do.
    expect(closed?.views).toBe(viewsRange.least);
    expect(asking(atStop(its, 99), options)).toBeNull();
  });

  it('asks for as many pixels as the screen has, at most two each way', () => {
    expect([undefined, 0.75, 1, 1.5, 2, 3].map(screenDensity)).toEqual([1, 1, 1, 1.5, 2, 2]);
  });

  it('knows the shape of the picture and its own pixels, held either way', () => {
    const wide = taken(demoSetup('Family on the steps'));
    const tall = taken(demoSetup('West door'));
    expect(aspectOf(wide)).toBeCloseTo(3 / 2, 2);
    expect(aspectOf(tall)).toBeCloseTo(2 / 3, 2);
    const pixels = picturePixels(wide);
    expect(pixels.width).toBeCloseTo(wide.body.sensor.pixelsWide, 6);
    expect(picturePixels(tall).height).toBeCloseTo(tall.body.sensor.pixelsWide, 6);
  });
});

describe('eyes at 100%', () => {
  it('show everybody’s eyes in the order of the Ladder, with the words for how sharp they are', () => {
    const its = taken(demoSetup('Family on the steps'));
    const crops = eyeCrops(its, tile);
    const { target } = its.plan.stops[its.plan.selected] ?? {};
    const order = its.plan.subjects.map((subject) => subject.id);
    // What is focused on comes first.
    expect(crops.map((crop) => crop.subjectId)).toEqual([
      target?.subjectId,
      ...order.filter((id) => id !== target?.subjectId)
    ]);
    expect(crops.every((crop) => crop.roles.length === 2)).toBe(true);
    for (const crop of crops) {
      const index = its.plan.subjects.findIndex((subject) => subject.id === crop.subjectId);
      const points = its.plan.subjects[index]?.points ?? [];
      const ratios = points.flatMap((point, place) =>
        crop.roles.includes(point.role)
          ? (its.plan.stops[its.plan.selected]?.sharpness[index]?.[place]?.ratio ?? 0)
          : []
      );
      expect(crop.ratio).toBe(Math.max(...ratios));
    }
  });

  it('cut as many of the camera’s pixels as the tile has, about the middle of the eyes', () => {
    const its = taken(demoSetup('Family on the steps'));
    const pixels = picturePixels(its);
    for (const { cutout, at, shownAt } of eyeCrops(its, tile)) {
      expect(shownAt).toBe(1);
      expect((cutout.right - cutout.left) * pixels.width).toBeCloseTo(tile.width, 6);
      expect((cutout.bottom - cutout.top) * pixels.height).toBeCloseTo(tile.height, 6);
      expect((cutout.left + cutout.right) / 2).toBeCloseTo(at.x, 6);
    }
  });

  it('part into two where both eyes do not fit, and look into the eyes alone when near', () => {
    const its = taken(demoSetup('West door'));
    const crops = eyeCrops(its, tile);
    expect(crops.map((crop) => crop.roles)).toEqual([['nearEye'], ['farEye']]);
    expect(crops.map((crop) => crop.eyesOf)).toEqual(['ines', 'ines']);
    // At 100% there would be an iris alone: so much is shown that the lids are in it, and the scale is told.
    const pixels = picturePixels(its);
    for (const { cutout, at, shownAt } of crops) {
      expect(shownAt).toBeLessThan(0.6);
      expect((cutout.right - cutout.left) / at.scale).toBeCloseTo(44, 6);
      expect((cutout.right - cutout.left) * pixels.width * shownAt).toBeCloseTo(tile.width, 6);
    }
    const wide = eyeCrops(taken(demoSetup('Forty years')), tile);
    expect(wide.every((crop) => crop.eyesOf === undefined)).toBe(true);
  });

  it('leave out who is not in the picture, and show a thing by its near side', () => {
    const rings = eyeCrops(taken(demoSetup('Rings')), tile);
    expect(rings.find((crop) => crop.roles.includes('nearSide'))?.name).toBe('rings');
    const west = demoSetup('West door');
    const aside = newPerson('aside', 'Aside', { lateralMm: 6000 });
    const crops = eyeCrops(taken({ ...west, people: [...west.people, aside] }), tile);
    expect(crops.map((crop) => crop.subjectId)).not.toContain('aside');
  });
});

describe('the focus point that is named', () => {
  it.each(['West door', 'Under the palms', 'Family on the steps', 'Speeches', 'Rings'])(
    'of %s lies on what is ringed, within half a step of the body’s grid',
    (name) => {
      const its = taken(demoSetup(name));
      const { target } = its.plan.stops[its.plan.selected] ?? {};
      if (!target?.position || !target.point) throw new Error('no point');
      const at = projection(its)(target.position);
      const { points } = heldPoints(its.body.focusGrid, its.setup.camera.orientation);
      const stepOf = (places: number[]) => {
        const sorted = [...new Set(places)].sort((a, b) => a - b);
        return (sorted[1] ?? 1) - (sorted[0] ?? 0);
      };
      expect(points).toContainEqual(target.point);
      // The ring is where the lens draws the eye, a trifle from where it would be focused at the subject line.
      expect(Math.abs((at?.x ?? 9) - target.point.x)).toBeLessThan(stepOf(points.map((point) => point.x)) / 2 + 0.002);
      expect(Math.abs((at?.y ?? 9) - target.point.y)).toBeLessThan(stepOf(points.map((point) => point.y)) / 2 + 0.002);
      // No other point lies nearer.
      const off = (point: { x: number; y: number }) =>
        Math.max(
          Math.abs((at?.x ?? 9) - point.x) / stepOf(points.map((item) => item.x)),
          Math.abs((at?.y ?? 9) - point.y) / stepOf(points.map((item) => item.y))
        );
      expect(off(target.point)).toBeLessThan(Math.min(...points.map(off)) + 0.05);
    }
  );
});

describe('what a click in the picture hits', () => {
  const click = (its: RenderableSetup, x: number, y: number) =>
    hitAt(its.setup, its.body, projection(its), { x, y, aspect: aspectOf(its) });

  it('is the eye that is nearest to it, for everybody in the demo who is seen', () => {
    const setups = demoJobs().flatMap((job) => job.setups);
    let eyes = 0;
    for (const setup of setups.filter((item) => item.people.length < 4)) {
      const its = taken(setup);
      const project = projection(its);
      for (const person of setup.people) {
        const seen = its.plan.subjects.find((item) => item.id === person.id)?.points.map((point) => point.feature);
        for (const eye of ['leftEye', 'rightEye'] as const) {
          const at = project(featurePosition(person, eye));
          if (!at || !seen?.includes(eye) || at.x < 0 || at.x > 1 || at.y < 0 || at.y > 1) continue;
          expect(click(its, at.x, at.y), `${setup.name}, ${person.name}`).toMatchObject({
            kind: 'eye',
            personId: person.id,
            eye
          });
          eyes++;
        }
      }
    }
    expect(eyes).toBeGreaterThan(15);
  });

  it('is whoever stands in front where two heads overlap', () => {
    const front = newPerson('front', 'Front', { depthMm: 0 });
    const behind = newPerson('behind', 'Behind', { depthMm: 900, lateralMm: 20 });
    for (const people of [
      [front, behind],
      [behind, front]
    ]) {
      const its = taken(newSetup('two', 'Two', { people }));
      const at = projection(its)(featurePosition(front, 'leftEye'));
      expect(click(its, at?.x ?? 0, at?.y ?? 0)).toMatchObject({ personId: 'front' });
    }
  });

  it('is a thing held before a person, and nothing beside everybody', () => {
    const person = newPerson('one', 'One');
    const thing = newThing('bowl', 'bowl', {
      depthMm: -300,
      lateralMm: 0,
      heightMm: person.statureMm - 115,
      widthMm: 120
    });
    const its = taken(newSetup('held', 'Held', { people: [person], things: [thing] }));
    const at = projection(its)({ x: 0, y: thing.heightMm, z: -300 });
    expect(click(its, at?.x ?? 0, at?.y ?? 0)).toEqual({ kind: 'thing', thingId: 'bowl' });
    expect(click(its, 0.02, 0.02)).toBeNull();
  });
});
