import { describe, expect, it } from 'vitest';
import { focusFromSensor, imageDistance } from '../optics/thinLens';
import { stopsBetween } from '../optics/stops';
import { defaultCamera } from '../setup/defaults';
import { bagSchema, inBag, lensesWithoutBody } from './bags';
import { onBody, withKitOnOffer } from '../setup/chooseKit';
import { newBody, newLens, usualClosestMm } from './defaults';
import { bodyOf, focalLengthProblem, goTogether, kitUsed, lensOf } from './find';
import { canMount, fits, mountings, mountsOf, waysOn } from './fits';
import { croppedBody, mountedLens } from './mounted';
import { adapterSchema, bodySchema, kitSchema, lensSchema, type Adapter, type Kit } from './schema';

const adapter = (id: string, changes: Partial<Adapter>): Adapter => ({
  id,
  name: id,
  lensMount: 'slr',
  bodyMount: 'short',
  factor: 1,
  stopsLost: 0,
  retired: false,
  ...changes
});
const ring = adapter('ring', {});
const converter = adapter('two', { lensMount: 'short', factor: 2, stopsLost: 2 });
const body = newBody('body', 'Body', { mount: 'short' });
const old = newLens('old', 'Old 50', { mount: 'slr', shortestMm: 50, widestFNumber: 1.4 });
const long = newLens('long', 'Long', { mount: 'short', shortestMm: 300, widestFNumber: 2.8, closestFocusMm: 2000 });
const variable = newLens('zoom', 'Zoom', {
  mount: 'short',
  shortestMm: 24,
  longestMm: 105,
  widestFNumber: 3.5,
  widestAtLong: 5.6,
  smallestFNumber: 22,
  smallestAtLong: 36,
  weakEnds: 'long'
});
const kit: Kit = { bodies: [body], lenses: [old, long, variable], adapters: [ring, converter] };
const camera = { ...defaultCamera, bodyId: 'body', lensId: 'long', focalLengthMm: 300 };

describe('what goes on what', () => {
  it('is the same mount, or one nobody has named, or a chain of what is between', () => {
    expect(fits(body, long)).toBe(true);
    expect(fits(body, old)).toBe(false);
    expect(fits(body, { mount: '' })).toBe(true);
    expect(fits({ mount: '', alsoTakes: [] }, old)).toBe(true);
    expect(fits({ mount: 'short', alsoTakes: ['slr'] }, old)).toBe(true);
    expect(fits(body, old, [ring])).toBe(true);
    expect(fits(body, old, [ring, converter])).toBe(true);
    expect(fits(body, old, [converter, ring])).toBe(false);
    expect(canMount(body, old, [])).toBe(false);
  });

  it('is joined by nothing that nobody has described: such a ring joins no mounts, a converter leaves them', () => {
    const blank = adapter('blank', { lensMount: '', bodyMount: '' });
    const anyConverter = adapter('any', { lensMount: '', bodyMount: '', factor: 1.4, stopsLost: 1 });
    expect(fits(body, old, [blank])).toBe(false);
    expect(fits(body, old, [anyConverter])).toBe(false);
    expect(fits(body, long, [anyConverter])).toBe(true);
    expect(fits(body, old, [ring, anyConverter])).toBe(true);
  });

  it('is offered by the way that changes least first, and never by what is retired', () => {
    expect(waysOn(body, long, kit.adapters).map((way) => way.map((item) => item.id))).toEqual([[], ['two']]);
    expect(waysOn(body, old, kit.adapters).map((way) => way.map((item) => item.id))).toEqual([
      ['ring'],
      ['ring', 'two']
    ]);
    expect(waysOn(body, old, [{ ...ring, retired: true }])).toEqual([]);
    expect(mountings(kit, body).map((item) => [item.lens.id, item.adapterIds])).toEqual([
      ['old', ['ring']],
      ['long', []],
      ['zoom', []]
    ]);
    const retired = { ...kit, lenses: [{ ...long, retired: true }] };
    expect(mountings(retired, body)).toEqual([]);
    expect(mountsOf(kit)).toEqual(['short', 'slr']);
  });
});

describe('a lens on a body', () => {
  it('stays the very same when nothing is between', () => {
    expect(lensOf(kit, camera)).toBe(long);
    expect(mountedLens(long, [], 300)).toBe(long);
  });

  it('is as much longer and darker as the converter makes it', () => {
    const seen = lensOf(kit, { ...camera, adapterIds: ['two'], focalLengthMm: 600 });
    // A 2× converter costs two stops: 300 f/2.8 becomes 600 f/5.6 (optics: the pupil stays, the focal length doubles).
    expect(seen).toMatchObject({ shortestMm: 600, longestMm: 600, widestFNumber: 5.6, closestFocusMm: 2000 });
    expect(seen?.name).toBe('Long + two');
    expect(lensOf(kit, { ...camera, adapterIds: ['two'], focalLengthMm: 600 })).toBe(seen);
    expect(lensOf(kit, { ...camera, adapterIds: ['gone'] })).toBeUndefined();
  });

  it('has what was measured of it enlarged with its picture', () => {
    const measured = { ...long, measured: [{ fNumber: 2.8, lpPerMm: 60 }] };
    expect(mountedLens(measured, [converter], 600).measured).toEqual([{ fNumber: 5.6, lpPerMm: 30 }]);
    const corners = { ...measured, measuredCorner: [{ fNumber: 2.8, lpPerMm: 30 }] };
    expect(mountedLens(corners, [converter], 600).measuredCorner).toEqual([{ fNumber: 5.6, lpPerMm: 15 }]);
  });

  it('closes down along its range, on marks a camera shows', () => {
    const widest = (focalLengthMm: number) => lensOf(kit, { ...camera, lensId: 'zoom', focalLengthMm })?.widestFNumber;
    expect([24, 105].map(widest)).toEqual([3.5, 5.6]);
    const marks = [24, 30, 40, 50, 70, 85, 105].map((f) => widest(f) ?? 0);
    expect(marks).toEqual([...marks].sort((a, b) => a - b));
    // Half way along in equal ratios, √(24 × 105) ≈ 50 mm: half way in stops between f/3.5 and f/5.6.
    expect(Math.abs(stopsBetween(4.45, widest(50.2) ?? 0))).toBeLessThanOrEqual(1 / 6 + 0.02);
    expect(lensOf(kit, { ...camera, lensId: 'zoom', focalLengthMm: 105 })?.smallestFNumber).toBe(36);
  });

  it('is worse at its weak end', () => {
    const character = (focalLengthMm: number) => mountedLens(variable, [], focalLengthMm).character;
    expect([24, 50, 100, 105].map(character)).toEqual(['ordinary', 'ordinary', 'weakWideOpen', 'weakWideOpen']);
    expect(mountedLens({ ...variable, weakEnds: 'both' }, [], 24).character).toBe('weakWideOpen');
  });

  it('has the focal lengths it has with what is between', () => {
    expect(focalLengthProblem(mountedLens(long, [converter], 600), 600)).toBeNull();
    expect(focalLengthProblem(mountedLens(long, [converter], 600), 300)).toContain('no 300 mm');
    expect(goTogether(kit, camera)).toBe(true);
    expect(goTogether(kit, { ...camera, lensId: 'old' })).toBe(false);
    expect(goTogether(kit, { ...camera, lensId: 'old', adapterIds: ['ring'] })).toBe(true);
  });
});

describe('a crop mode', () => {
  const cropping = newBody('c', 'C', { cropModes: [{ name: 'APS-C', factor: 1.5 }] });

  it('leaves that part of the sensor, with the focus points on it', () => {
    const cut = croppedBody(cropping, 'APS-C');
    expect(cut.sensor).toEqual({ widthMm: 24, heightMm: 16, pixelsWide: 4000 });
    expect(cut.focusGrid.widthShare).toBe(1);
    expect(
      croppedBody({ ...cropping, focusGrid: { ...cropping.focusGrid, widthShare: 0.4 } }, 'APS-C').focusGrid.widthShare
    ).toBeCloseTo(0.6, 12);
    expect(croppedBody(cropping, 'none')).toBe(cropping);
    const found = bodyOf({ ...kit, bodies: [cropping] }, { bodyId: 'c', cropMode: 'APS-C' });
    expect(found?.sensor.widthMm).toBe(24);
    expect(bodyOf({ ...kit, bodies: [cropping] }, { bodyId: 'c', cropMode: 'APS-C' })).toBe(found);
  });
});

describe('closest focus', () => {
  it('is written from the sensor: object and image distance together', () => {
    const s = focusFromSensor(85, 800);
    expect(s + imageDistance(85, s)).toBeCloseTo(800, 9);
    expect(s).toBeGreaterThan(170);
    expect(focusFromSensor(100, 300)).toBe(200);
  });

  it('is taken as about ten focal lengths where nobody says (from memory)', () => {
    expect(usualClosestMm(50, 50)).toBe(500);
    expect(usualClosestMm(24, 70)).toBe(410);
  });
});

describe('bags', () => {
  const bag = { id: 'b', name: 'Bag', bodies: [{ bodyId: 'body', lensId: 'long' }], lensIds: ['old'], adapterIds: [] };

  it('hold what is taken along, with what is on the bodies', () => {
    expect(bagSchema.safeParse(bag).success).toBe(true);
    const held = inBag(kit, bag);
    expect(held.lenses.map((lens) => lens.id)).toEqual(['old', 'long']);
    expect(held.adapters).toEqual([]);
    expect(lensesWithoutBody(kit, bag)).toEqual(['Old 50']);
    expect(lensesWithoutBody(kit, { ...bag, adapterIds: ['ring'] })).toEqual([]);
    const twice = { ...bag, bodies: [...bag.bodies, ...bag.bodies] };
    expect(bagSchema.safeParse(twice).success).toBe(false);
  });
});

describe('a camera for who has other kit', () => {
  it('keeps what is on offer, and else takes the nearest that goes on', () => {
    expect(withKitOnOffer(camera, kit)).toEqual(camera);
    expect(withKitOnOffer({ ...camera, lensId: 'lens-85', focalLengthMm: 85 }, kit)).toMatchObject({
      lensId: 'zoom',
      focalLengthMm: 85
    });
    expect(withKitOnOffer({ ...camera, bodyId: 'x', lensId: 'y', focalLengthMm: 400 }, kit)).toMatchObject({
      bodyId: 'body',
      lensId: 'long',
      focalLengthMm: 300
    });
    expect(withKitOnOffer(camera, { bodies: [], lenses: [], adapters: [] })).toBe(camera);
  });

  it('changes bodies with its lens if it can', () => {
    const slr = newBody('slr', 'Slr', { mount: 'slr' });
    const both = { ...kit, bodies: [body, slr] };
    expect(onBody({ ...camera, lensId: 'old', focalLengthMm: 50, adapterIds: ['ring'] }, both, 'slr')).toMatchObject({
      bodyId: 'slr',
      lensId: 'old',
      adapterIds: []
    });
    expect(onBody({ ...camera, lensId: 'long' }, both, 'slr')).toMatchObject({ lensId: 'old', focalLengthMm: 50 });
  });
});

describe('what cannot be', () => {
  it.each([
    [lensSchema, { ...old, widestFNumber: 22 }, 'smallestFNumber'],
    [lensSchema, { ...old, shortestMm: 80, longestMm: 50 }, 'longestMm'],
    [lensSchema, { ...variable, widestAtLong: 45 }, 'smallestAtLong'],
    [bodySchema, { ...body, sensor: { ...body.sensor, pixelsWide: 0 } }, 'sensor.pixelsWide'],
    [bodySchema, { ...body, focusGrid: { ...body.focusGrid, widthShare: 1.2 } }, 'focusGrid.widthShare'],
    [bodySchema, { ...body, cropModes: [1, 1].map((n) => ({ name: 'A', factor: 1.5 * n })) }, 'cropModes'],
    [adapterSchema, { ...ring, factor: 0 }, 'factor'],
    [kitSchema, { ...kit, adapters: [ring, ring] }, 'adapters']
  ])('is refused with its field', (schema, value, field) => {
    expect(schema.safeParse(value).error?.issues[0]?.path.join('.')).toBe(field);
  });

  it('takes kit written before there were mounts and adapters', () => {
    const { mount: _mount, rim: _rim, retired: _retired, ...bare } = long;
    expect(lensSchema.parse(bare)).toEqual({ ...long, mount: '' });
    expect(kitSchema.parse({ bodies: [], lenses: [] })).toEqual({ bodies: [], lenses: [], adapters: [] });
  });
});

it('only what cameras hold goes with a job', () => {
  expect(kitUsed(kit, [{ ...camera, lensId: 'old', adapterIds: ['ring'] }])).toEqual({
    bodies: [body],
    lenses: [old],
    adapters: [ring]
  });
});
