import { describe, expect, it } from 'vitest';
import { ev100 } from '../optics/exposure';
import { builtInKit } from '../kit/builtInKit';
import { defaultLight, newPerson, newSetup } from '../setup/defaults';
import type { Body } from '../kit/schema';
import type { Camera, Light, Person, Setup } from '../setup/schema';
import { lightAtStop, lightLevel, shutterFloor } from './light';
import { planSetup } from './planSetup';
import { defaultHabits } from '../habits/habits';

const [main, second] = builtInKit.bodies as [Body, Body];

function setupWith(
  light: Partial<Light>,
  camera: Partial<Camera> = {},
  people: Person[] = [newPerson('a', 'A')]
): Setup {
  const base = newSetup('s', 'S', { people, light: { ...defaultLight, ...light } });
  return { ...base, camera: { ...base.camera, ...camera } };
}

const at = (setup: Setup, N: number, body = main) =>
  lightAtStop(setup, body, lightLevel(setup), shutterFloor(setup, body), N);

describe('shutter floor', () => {
  it('is the strictest rule that applies, named (common practice, no source)', () => {
    expect(shutterFloor(setupWith({}), main)).toEqual({ rule: 'focalLength', shutterS: 1 / 85 });
    const three = ['a', 'b', 'c'].map((id) => newPerson(id, id));
    expect(shutterFloor(setupWith({}, {}, three), main)).toEqual({ rule: 'group', shutterS: 1 / 125 });
    const child = newPerson('c', 'C', { being: 'child' });
    expect(shutterFloor(setupWith({}, {}, [...three, child]), main)).toEqual({ rule: 'child', shutterS: 1 / 400 });
    const walking = newPerson('w', 'W', { towardsMmPerS: 1200 });
    expect(shutterFloor(setupWith({}, {}, [walking]), main).rule).toBe('moving');
    expect(shutterFloor(setupWith({}, { stance: 'tripod' }), main).rule).toBe('tripod');
  });

  it('has the child’s rule for children and pets, not for a baby, and the group’s from three people on', () => {
    const rule = (...beings: Person['being'][]) =>
      shutterFloor(
        setupWith(
          {},
          {},
          beings.map((being, index) => newPerson(`p${index}`, 'P', { being }))
        ),
        main
      ).rule;
    expect(rule('child')).toBe('child');
    expect(rule('adult', 'pet')).toBe('child');
    expect(rule('baby')).toBe('focalLength');
    expect(rule('adult', 'adult')).toBe('focalLength');
    expect(rule('adult', 'adult', 'adult')).toBe('group');
  });

  it('has the moving rule for who crosses the picture and who goes away as for who comes', () => {
    const rule = (changes: Partial<Person>) => shutterFloor(setupWith({}, {}, [newPerson('w', 'W', changes)]), main);
    expect(rule({ acrossMmPerS: 300 })).toEqual({ rule: 'moving', shutterS: 1 / 250 });
    expect(rule({ towardsMmPerS: -300 }).rule).toBe('moving');
  });

  it('on a tripod is 1/15 s, unless somebody in the picture asks for less', () => {
    expect(shutterFloor(setupWith({}, { stance: 'tripod' }), main)).toEqual({ rule: 'tripod', shutterS: 1 / 15 });
    const child = newPerson('c', 'C', { being: 'child' });
    expect(shutterFloor(setupWith({}, { stance: 'tripod' }, [child]), main).rule).toBe('child');
  });

  it('counts the crop: a 50 on APS-C wants 1/75 s, and half that time under the stricter rule', () => {
    const fifty = setupWith({}, { focalLengthMm: 50 });
    expect(1 / shutterFloor(fifty, second).shutterS).toBeCloseTo(50 * 1.534, 0);
    const strict = setupWith({ floors: { ...defaultLight.floors, perFocalLength: 2 } }, { focalLengthMm: 50 });
    expect(1 / shutterFloor(strict, main).shutterS).toBeCloseTo(100, 9);
  });
});

describe('light at a stop', () => {
  it('gives the scene’s exposure at every stop until a limit is reached', () => {
    const setup = setupWith({ level: { kind: 'ev', ev100: 9 } });
    for (const N of [1.4, 2, 2.8, 4, 5.6, 8, 11]) {
      const { shutterS, iso, tooBrightStops, missingStops } = at(setup, N);
      expect(ev100(N, shutterS, iso ?? 0) + missingStops - tooBrightStops).toBeCloseTo(9, 9);
    }
  });

  it('lengthens the shutter first, then raises ISO, then asks for more light', () => {
    const setup = setupWith({ level: { kind: 'ev', ev100: 9 } });
    expect(at(setup, 1.4)).toMatchObject({ iso: 100, missingStops: 0 });
    expect(at(setup, 1.4).shutterS).toBeLessThan(1 / 85);
    expect(at(setup, 8).shutterS).toBeCloseTo(1 / 85, 9);
    expect(at(setup, 8).iso).toBeGreaterThan(100);
    const dark = at(setupWith({ level: { kind: 'ev', ev100: 0 } }), 16);
    expect(dark.iso).toBe(main.isoLimit);
    expect(dark.missingStops).toBeGreaterThan(0);
  });

  it('asks for a filter in the sun wide open, and is content with one', () => {
    const sun = { level: { kind: 'estimated', as: 'sun' } } as const;
    const bright = at(setupWith(sun), 1.4);
    expect(bright.tooBrightStops).toBeCloseTo(Math.log2(2 ** 15 / (1.96 * 8000)), 6);
    expect(at(setupWith({ ...sun, filterStops: Math.ceil(bright.tooBrightStops) }), 1.4).tooBrightStops).toBe(0);
  });

  it('reads the level from a metered setting', () => {
    const metered = setupWith({ level: { kind: 'metered', fNumber: 16, shutterS: 1 / 128, iso: 100 } });
    expect(lightLevel(metered)).toBeCloseTo(15, 9);
    expect(lightLevel(setupWith({}))).toBeNull();
    expect(at(setupWith({}), 4)).toMatchObject({ iso: null, shutterS: 1 / 85 });
  });

  it('with flash keeps to the sync time, tells the power, and how far the room lies under it', () => {
    const flash = { guideNumberM: 40, distanceMm: 2500 };
    const church = at(setupWith({ level: { kind: 'estimated', as: 'church' }, flash }), 8);
    expect(church.flash?.power).toBeCloseTo(0.25, 9);
    expect(church.flash?.ambientUnderStops ?? 0).toBeGreaterThan(2);
    expect(church.missingStops).toBe(0);
    const sunny = at(setupWith({ level: { kind: 'estimated', as: 'sun' }, flash }), 2);
    expect(sunny.shutterS).toBe(main.syncS);
    // f/2 at 1/200 s, ISO 100 is EV 9.6; the sun is 15: a filter of 5.4 stops is missing.
    expect(sunny.tooBrightStops).toBeCloseTo(15 - Math.log2(4 * 200), 6);
    const weak = at(setupWith({ flash: { guideNumberM: 5, distanceMm: 20_000 } }), 16);
    expect(weak.missingStops).toBeGreaterThan(0);
    expect(weak.iso).toBe(main.isoLimit);
  });
});

describe('a filter', () => {
  // A filter of two stops lets a quarter through (definition).
  it('of two stops costs two stops of shutter, or of ISO where the shutter is at its floor', () => {
    const sun = { level: { kind: 'estimated', as: 'sun' } } as const;
    expect(at(setupWith({ ...sun, filterStops: 2 }), 8).shutterS / at(setupWith(sun), 8).shutterS).toBeCloseTo(4, 9);
    const room = { level: { kind: 'ev', ev100: 6 } } as const;
    expect((at(setupWith({ ...room, filterStops: 2 }), 4).iso ?? 0) / (at(setupWith(room), 4).iso ?? 1)).toBeCloseTo(
      4,
      9
    );
  });

  it('of two stops with flash asks four times the power, and lays the room two stops further under', () => {
    const flash = { guideNumberM: 60, distanceMm: 2000 };
    const level = { kind: 'estimated', as: 'sun' } as const;
    const bare = at(setupWith({ level, flash }), 4);
    const filtered = at(setupWith({ level, flash, filterStops: 2 }), 4);
    expect(bare.flash?.power).toBeCloseTo((4 * 2) ** 2 / 60 ** 2, 9);
    expect((filtered.flash?.power ?? 0) / (bare.flash?.power ?? 1)).toBeCloseTo(4, 9);
    expect((filtered.flash?.ambientUnderStops ?? 0) - (bare.flash?.ambientUnderStops ?? 0)).toBeCloseTo(2, 9);
    expect(bare.tooBrightStops - filtered.tooBrightStops).toBeCloseTo(2, 9);
  });
});

describe('flash', () => {
  const flash = { guideNumberM: 40, distanceMm: 2500 };

  it('keeps the shutter between the sync time and 1/60 s, shorter where a floor or the room asks for it', () => {
    expect(at(setupWith({ flash }, { focalLengthMm: 35, lensId: 'lens-35' }), 4).shutterS).toBeCloseTo(1 / 60, 9);
    expect(at(setupWith({ flash }), 4).shutterS).toBeCloseTo(1 / 85, 9);
    const child = newPerson('c', 'C', { being: 'child' });
    expect(at(setupWith({ flash }, {}, [child]), 4).shutterS).toBe(main.syncS);
    // EV 10 at f/4 and ISO 100 asks for 1/64 s; EV 11 for 1/128 s, shorter than the floor.
    const bright = setupWith({ flash, level: { kind: 'ev', ev100: 11 } });
    expect(at(bright, 4).shutterS).toBeCloseTo(1 / 128, 9);
  });

  it('is helped by ISO where its power is not enough, up to the limit', () => {
    // GN 40 lights 2.5 m at f/16; at f/32 a fourth is missing twice over.
    expect(at(setupWith({ flash }), 16)).toMatchObject({ iso: 100, missingStops: 0 });
    const weak = at(setupWith({ flash }), 32);
    expect(weak.iso).toBeCloseTo(400, 9);
    expect(weak.flash?.power).toBeCloseTo(1, 9);
    const gone = at(setupWith({ flash: { guideNumberM: 40, distanceMm: 2500 * 64 } }), 16);
    expect(gone.iso).toBe(main.isoLimit);
    // 64 times as far is 12 stops; 100 to 12 800 is 7 of them.
    expect(gone.missingStops).toBeCloseTo(5, 9);
  });

  it('without a known room says nothing of it', () => {
    const { flash: alone, tooBrightStops } = at(setupWith({ flash }), 4);
    expect(alone?.ambientUnderStops).toBeNull();
    expect(tooBrightStops).toBe(0);
  });
});

describe('movement', () => {
  const odds = (setup: Setup, N = 2.8) => {
    const plan = planSetup({ setup, kit: builtInKit, stopStep: 'full', habits: defaultHabits });
    return plan.kind === 'plan' ? (plan.stops.find((entry) => Math.abs(entry.stop.fNumber - N) < 0.1)?.odds ?? 0) : 0;
  };
  const walking = (camera: Partial<Camera>) =>
    setupWith({}, { placement: { kind: 'distance', distanceMm: 5000 }, ...camera }, [
      newPerson('w', 'W', { towardsMmPerS: 1200 })
    ]);

  it('towards the camera spoils single focusing and is followed by continuous focusing', () => {
    expect(odds(walking({ focusMode: 'single' }))).toBeLessThan(0.05);
    expect(odds(walking({ focusMode: 'continuous' }))).toBeGreaterThan(0.5);
  });

  it('across blurs by speed × time × magnification and no more when the flash stands alone', () => {
    const dancing = [newPerson('d', 'D', { acrossMmPerS: 1500 })];
    const ratio = (light: Partial<Light>) => {
      const plan = planSetup({
        setup: setupWith(light, {}, dancing),
        kit: builtInKit,
        stopStep: 'full',
        habits: defaultHabits
      });
      return plan.kind === 'plan' ? (plan.stops[4]?.worst.ratio ?? 0) : 0;
    };
    const slow = ratio({});
    // 1500 mm/s × 1/250 s × m 0.04 × 1.17 = 0.28 mm against 0.030 mm allowed.
    expect(slow).toBeGreaterThan(8);
    expect(
      ratio({ level: { kind: 'estimated', as: 'candles' }, flash: { guideNumberM: 40, distanceMm: 2500 } })
    ).toBeLessThan(1);
  });

  it('blurs a long lens without stabiliser more than one with it', () => {
    const worst = (bodyId: string) => {
      const setup = setupWith(
        {},
        { bodyId, lensId: 'lens-135', focalLengthMm: 135, placement: { kind: 'distance', distanceMm: 4000 } }
      );
      const plan = planSetup({ setup, kit: builtInKit, stopStep: 'full', habits: defaultHabits });
      return plan.kind === 'plan' ? (plan.stops[3]?.lensRatio ?? 0) : 0;
    };
    expect(worst('body-full-slr')).toBeGreaterThan(worst('body-main') + 0.3);
  });
});
