import { describe, expect, it } from 'vitest';
import { markedIso } from '../optics/cameraSteps';
import { ev100, extensionStops } from '../optics/exposure';
import { magnification } from '../optics/thinLens';
import { builtInKit } from '../kit/builtInKit';
import { defaultFlash, defaultLight, newPerson, newSetup } from '../setup/defaults';
import type { Body } from '../kit/schema';
import type { Camera, Light, Person, Setup } from '../setup/schema';
import { lightAtStop, onSteps, lightLevel, shutterFloor, type LightConditions } from './light';
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

/** By hand without a stabiliser, from so far that the lens is hardly drawn out. */
const floorOf = (setup: Setup, body: Body, m = 0.03) => shutterFloor(setup, body, 1, m);
const at = (setup: Setup, N: number, body = main, more: Partial<LightConditions> = {}) =>
  lightAtStop(
    {
      setup,
      body,
      level: lightLevel(setup),
      floor: floorOf(setup, body),
      wanted: null,
      extensionStops: 0,
      ...more
    },
    N
  );

describe('shutter floor', () => {
  it('is the strictest rule that applies, named (common practice, no source)', () => {
    expect(floorOf(setupWith({}), main)).toEqual({ rule: 'focalLength', shutterS: 1 / 85 });
    const three = ['a', 'b', 'c'].map((id) => newPerson(id, id));
    expect(floorOf(setupWith({}, {}, three), main)).toEqual({ rule: 'group', shutterS: 1 / 125 });
    const child = newPerson('c', 'C', { being: 'child', mood: 'restless' });
    expect(floorOf(setupWith({}, {}, [...three, child]), main)).toEqual({ rule: 'child', shutterS: 1 / 400 });
    const walking = newPerson('w', 'W', { towardsMmPerS: 1200 });
    expect(floorOf(setupWith({}, {}, [walking]), main).rule).toBe('moving');
    // A tripod holds the camera, not the people.
    expect(floorOf(setupWith({}, { stance: 'tripod' }), main)).toEqual({ rule: 'people', shutterS: 1 / 60 });
    expect(floorOf(setupWith({}, { stance: 'tripod' }, []), main).rule).toBe('tripod');
  });

  it('has the child’s rule for children, babies and pets, and the group’s from three people on', () => {
    const rule = (...beings: Person['being'][]) =>
      floorOf(
        setupWith(
          {},
          {},
          beings.map((being, index) => newPerson(`p${index}`, 'P', { being }))
        ),
        main
      ).rule;
    expect(rule('child')).toBe('child');
    expect(rule('adult', 'pet')).toBe('child');
    expect(rule('baby')).toBe('child');
    expect(rule('adult', 'adult')).toBe('focalLength');
    expect(rule('adult', 'adult', 'adult')).toBe('group');
  });

  it('has the moving rule for who crosses the picture and who goes away as for who comes', () => {
    const rule = (changes: Partial<Person>) => floorOf(setupWith({}, {}, [newPerson('w', 'W', changes)]), main);
    expect(rule({ acrossMmPerS: 300 })).toEqual({ rule: 'moving', shutterS: 1 / 250 });
    expect(rule({ towardsMmPerS: -300 }).rule).toBe('moving');
  });

  it('on a tripod is 1/15 s, unless somebody in the picture asks for less', () => {
    expect(floorOf(setupWith({}, { stance: 'tripod' }, []), main)).toEqual({ rule: 'tripod', shutterS: 1 / 15 });
    expect(floorOf(setupWith({}, { stance: 'tripod' }), main)).toEqual({ rule: 'people', shutterS: 1 / 60 });
    const child = newPerson('c', 'C', { being: 'child' });
    expect(floorOf(setupWith({}, { stance: 'tripod' }, [child]), main).rule).toBe('child');
  });

  it('is 1/60 for people posed, 1/125 for who talks or fidgets, 1/500 for who plays or dances, whatever the lens', () => {
    const of = (mood: Person['mood']) =>
      floorOf(setupWith({}, { focalLengthMm: 24 }, [newPerson('p', 'P', { mood })]), main);
    expect(of('still')).toEqual({ rule: 'people', shutterS: 1 / 60 });
    expect(of('restless')).toEqual({ rule: 'restless', shutterS: 1 / 125 });
    expect(of('lively')).toEqual({ rule: 'lively', shutterS: 1 / 500 });
  });

  it('spares a child that is posed: 1/125, and 1/400 once it fidgets', () => {
    const of = (mood: Person['mood']) =>
      floorOf(setupWith({}, { focalLengthMm: 35 }, [newPerson('c', 'C', { being: 'child', mood })]), main).shutterS;
    expect([of('still'), of('restless'), of('lively')]).toEqual([1 / 125, 1 / 400, 1 / 500]);
  });

  it('grows shorter where they are drawn large: a ring on a hand at 1:9 sways as a head does', () => {
    const at = (m: number) => floorOf(setupWith({}, { focalLengthMm: 35 }), main, m);
    expect(at(1 / 20)).toEqual({ rule: 'people', shutterS: 1 / 60 });
    expect(at(1 / 9)).toEqual({ rule: 'close', shutterS: expect.closeTo(9 / 20 / 60, 6) as number });
  });

  it('by focal length is the same with a stabiliser for those who do not trust it', () => {
    const long = setupWith({}, { focalLengthMm: 200 });
    const strict = { ...long, light: { ...long.light, floors: { ...long.light.floors, stabiliserCounts: false } } };
    expect(shutterFloor(long, main, 8, 0.03).rule).toBe('people');
    expect(shutterFloor(strict, main, 8, 0.03)).toEqual({ rule: 'focalLength', shutterS: 1 / 200 });
  });

  it('lets a steadier hand or a stabiliser hold longer', () => {
    const long = setupWith({}, { focalLengthMm: 400 });
    expect(shutterFloor(long, main, 1, 0.03).shutterS).toBeCloseTo(1 / 400, 12);
    expect(shutterFloor(long, main, 4, 0.03)).toEqual({ rule: 'focalLength', shutterS: 1 / 100 });
    expect(shutterFloor(long, main, 64, 0.03).rule).toBe('people');
  });

  it('counts the crop: a 50 on APS-C wants 1/75 s, and half that time under the stricter rule', () => {
    const fifty = setupWith({}, { focalLengthMm: 50 });
    expect(1 / floorOf(fifty, second).shutterS).toBeCloseTo(50 * 1.534, 0);
    const strict = setupWith({ floors: { ...defaultLight.floors, perFocalLength: 2 } }, { focalLengthMm: 50 });
    expect(1 / floorOf(strict, main).shutterS).toBeCloseTo(100, 9);
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
    const flash = { ...defaultFlash, distanceMm: 2500 };
    const church = at(setupWith({ level: { kind: 'estimated', as: 'church' }, flash }), 8);
    expect(church.flash?.power).toBeCloseTo(0.25, 9);
    expect(church.flash?.ambientUnderStops ?? 0).toBeGreaterThan(2);
    expect(church.missingStops).toBe(0);
    const sunny = at(setupWith({ level: { kind: 'estimated', as: 'sun' }, flash }), 2);
    expect(sunny.shutterS).toBe(main.syncS);
    // f/2 at 1/200 s, ISO 100 is EV 9.6; the sun is 15: a filter of 5.4 stops is missing.
    expect(sunny.tooBrightStops).toBeCloseTo(15 - Math.log2(4 * 200), 6);
    const weak = at(setupWith({ flash: { ...defaultFlash, guideNumberM: 5, distanceMm: 20_000 } }), 16);
    expect(weak.missingStops).toBeGreaterThan(0);
    expect(weak.iso).toBe(main.isoLimit);
  });
});

describe('what stills blur', () => {
  const wanted = { rule: 'shake', shutterS: 1 / 250 } as const;
  const lit = (ev: number) => at(setupWith({ level: { kind: 'ev', ev100: ev } }), 4, main, { wanted });

  it('shortens the shutter and raises the ISO, up to half of its limit and no further', () => {
    // EV 8 at f/4 and 1/250 s asks for ISO 1563; EV 5 for 12 500: half of the limit of 12 800 holds the shutter.
    expect(lit(8)).toMatchObject({ shutterS: 1 / 250, floorRule: 'shake', missingStops: 0 });
    expect(lit(8).iso).toBeCloseTo((100 * 16 * 250) / 2 ** 8, 6);
    const dim = lit(5);
    expect(dim.iso).toBeCloseTo(main.isoLimit / 2, 6);
    expect(dim.shutterS).toBeCloseTo(16 / (2 ** 5 * 64), 9);
    expect(dim).toMatchObject({ floorRule: 'isoLimit', missingStops: 0 });
    // In the dark the floor holds, and the rest is said to be missing.
    expect(lit(0)).toMatchObject({ shutterS: 1 / 85, floorRule: 'focalLength' });
    expect(lit(0).missingStops).toBeGreaterThan(1);
    // With light enough the lowest ISO does it shorter still.
    expect(lit(13)).toMatchObject({ iso: 100, missingStops: 0 });
    expect(lit(13).shutterS).toBeLessThan(1 / 250);
  });

  it('is taken without asking for ISO where the light is not known', () => {
    expect(at(setupWith({}), 4, main, { wanted })).toMatchObject({ shutterS: 1 / 250, iso: null, floorRule: 'shake' });
  });

  it('gives way to a shutter set by hand, which is exposed as it is', () => {
    const byHand = at(setupWith({ level: { kind: 'ev', ev100: 8 }, shutterS: 1 / 30 }), 4, main, { wanted });
    expect(byHand).toMatchObject({ shutterS: 1 / 30, floorRule: 'chosen', tooBrightStops: 0 });
    const bright = at(setupWith({ level: { kind: 'ev', ev100: 12 }, shutterS: 1 / 30 }), 4);
    expect(bright.tooBrightStops).toBeCloseTo(12 - Math.log2(16 * 30), 9);
  });
});

describe('the lens drawn out', () => {
  it('loses a third of a stop with an 85 at 0.8 m (bellows factor, Ray: 2 log2(1 + m))', () => {
    const loss = extensionStops(magnification(85, 800));
    expect(loss).toBeCloseTo(0.324, 3);
    const near = at(setupWith({ level: { kind: 'ev', ev100: 6 } }), 4, main, { extensionStops: loss });
    const far = at(setupWith({ level: { kind: 'ev', ev100: 6 } }), 4);
    expect(Math.log2((near.iso ?? 1) / (far.iso ?? 1))).toBeCloseTo(loss, 9);
    // An exit pupil twice the entrance pupil loses less: N (1 + m/P).
    expect(extensionStops(0.5, 2)).toBeCloseTo(2 * Math.log2(1.25), 12);
  });

  it('is counted in the plan', () => {
    const isoSeconds = (distanceMm: number) => {
      const setup = setupWith(
        { level: { kind: 'ev', ev100: 5 } },
        { stance: 'tripod', placement: { kind: 'distance', distanceMm } }
      );
      const plan = planSetup({ setup, kit: builtInKit, stopStep: 'full', habits: defaultHabits });
      const light = plan.kind === 'plan' ? plan.stops[2]?.light : undefined;
      return (light?.iso ?? 0) * (light?.shutterS ?? 0);
    };
    const stops = 2 * Math.log2((1 + 85 / (900 - 85)) / (1 + 85 / (9000 - 85)));
    // On the camera's steps: each sensitivity within a sixth of a stop.
    expect(Math.abs(Math.log2(isoSeconds(900) / isoSeconds(9000)) - stops)).toBeLessThan(1 / 3);
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
    const flash = { ...defaultFlash, guideNumberM: 60 };
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
  const flash = { ...defaultFlash, distanceMm: 2500 };

  it('keeps the shutter between the sync time and 1/60 s, shorter where a floor or the room asks for it', () => {
    expect(at(setupWith({ flash }, { focalLengthMm: 35, lensId: 'lens-35' }), 4).shutterS).toBeCloseTo(1 / 60, 9);
    expect(at(setupWith({ flash }), 4).shutterS).toBeCloseTo(1 / 85, 9);
    const child = newPerson('c', 'C', { being: 'child', mood: 'restless' });
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
    const gone = at(setupWith({ flash: { ...defaultFlash, distanceMm: 2500 * 64 } }), 16);
    expect(gone.iso).toBe(main.isoLimit);
    // 64 times as far is 12 stops; 100 to 12 800 is 7 of them.
    expect(gone.missingStops).toBeCloseTo(5, 9);
  });

  it('is too bright where even its least power is too much, and a floor shorter than the sync time is said', () => {
    // GN 40 at 1 m and ISO 100 is right at f/40; at f/1.4 it is 816 times too much, 6.4 times at 1/128.
    const near = at(setupWith({ flash: { ...defaultFlash, distanceMm: 1000 } }), Math.SQRT2);
    expect(near.flash?.power).toBe(1 / 128);
    expect(near.tooBrightStops).toBeCloseTo(Math.log2(800 / 128), 6);
    expect(at(setupWith({ flash }), 4).floorRule).toBe('focalLength');
    const child = newPerson('c', 'C', { being: 'child', mood: 'restless' });
    expect(at(setupWith({ flash }, {}, [child]), 4)).toMatchObject({ floorRule: 'sync', floorS: 1 / 400 });
    // In the sun the sync time lets too much in; that is said too.
    expect(at(setupWith({ flash, level: { kind: 'estimated', as: 'sun' } }), 4).floorRule).toBe('sync');
  });

  it('keeps the room visible by raising the ISO until it lies one and a half stops under, as far as its power allows', () => {
    const dim = { kind: 'ev', ev100: 7 } as const;
    const alone = at(setupWith({ flash, level: dim }), 4);
    const kept = at(setupWith({ flash: { ...flash, use: 'keepRoom' }, level: dim }), 4);
    expect(kept.flash?.ambientUnderStops).toBeCloseTo(1.5, 9);
    expect(alone.flash?.ambientUnderStops ?? 0).toBeGreaterThan(3);
    // What the ISO gains the flash gives less of.
    const gain = (kept.iso ?? 0) / (alone.iso ?? 1);
    expect((alone.flash?.power ?? 0) / (kept.flash?.power ?? 1)).toBeCloseTo(gain, 6);
    const near = at(
      setupWith({ flash: { ...flash, use: 'keepRoom', distanceMm: 1500 }, level: { kind: 'ev', ev100: 1 } }),
      4
    );
    expect(near.flash?.power).toBeCloseTo(1 / 128, 9);
    expect(near.tooBrightStops).toBe(0);
  });

  it('as fill lies under the light it is exposed for, at the sync time or longer', () => {
    const shade = { kind: 'ev', ev100: 13 } as const;
    const fill = at(setupWith({ flash: { ...flash, use: 'fill', underStops: 2 }, level: shade }), 8);
    const bare = at(setupWith({ level: shade }), 8);
    expect([fill.shutterS, fill.iso]).toEqual([bare.shutterS, bare.iso]);
    // Full exposure at f/8 from 2.5 m takes a quarter of GN 40's power; two stops under, a sixteenth.
    expect(fill.flash?.power).toBeCloseTo(1 / 16, 9);
    expect(fill.flash?.ambientUnderStops).toBeCloseTo(-2, 9);
    // Four times as far away that takes sixteen times the power: full. From twice as far again it lies two stops lower.
    const further = (distanceMm: number) =>
      at(setupWith({ flash: { ...flash, use: 'fill', underStops: 2, distanceMm }, level: shade }), 8).flash;
    expect(further(10_000)).toMatchObject({ power: 1, ambientUnderStops: -2 });
    expect(further(20_000)?.power).toBe(1);
    expect(further(20_000)?.ambientUnderStops).toBeCloseTo(-4, 9);
    const sun = at(setupWith({ flash: { ...flash, use: 'fill' }, level: { kind: 'estimated', as: 'sun' } }), 2.8);
    expect(sun).toMatchObject({ shutterS: main.syncS, floorRule: 'sync' });
    expect(sun.tooBrightStops).toBeGreaterThan(4);
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
    // 1500 mm/s × 1/250 s × m 0.04 × 1.17 = 0.28 mm against 0.030 mm allowed, where no ISO pays for a shorter time.
    const dark = { level: { kind: 'estimated', as: 'candles' } } as const;
    expect(ratio(dark)).toBeGreaterThan(8);
    expect(ratio({ ...dark, flash: { ...defaultFlash, distanceMm: 2500 } })).toBeLessThan(1);
    // In the light there is enough of it: the shutter is as short as the movement asks.
    expect(ratio({ level: { kind: 'estimated', as: 'overcast' } })).toBeLessThan(1);
  });

  it('blurs a long lens without stabiliser more than one with it, where no ISO pays for a shorter time', () => {
    const worst = (bodyId: string) => {
      const setup = setupWith(
        { level: { kind: 'ev', ev100: -1 } },
        { bodyId, lensId: 'lens-135', focalLengthMm: 135, placement: { kind: 'distance', distanceMm: 4000 } }
      );
      const plan = planSetup({ setup, kit: builtInKit, stopStep: 'full', habits: defaultHabits });
      return plan.kind === 'plan' ? (plan.stops[3]?.lensRatio ?? 0) : 0;
    };
    // Both at a mark no longer than the rule's 1/135: at 1/160.
    expect(worst('body-full-slr')).toBeGreaterThan(worst('body-main') * 1.5);
  });
});

describe('the steps a camera has', () => {
  const base = {
    floorRule: 'people',
    floorS: 1 / 60,
    tooBrightStops: 0,
    missingStops: 0,
    flash: null
  } as const;

  it('are where shutter and sensitivity stand, never longer than the rule, exposed within a sixth of a stop', () => {
    for (let i = 0; i <= 60; i++) {
      const shutterS = (1 / 60) * 2 ** (-i / 12);
      const iso = 100 * 2 ** (i / 9);
      const stepped = onSteps({ ...base, shutterS, iso }, { ...main, isoLimit: 1_000_000 });
      expect(stepped.shutterS).toBeLessThanOrEqual(base.floorS * 1.0001);
      const off = Math.log2((stepped.shutterS * (stepped.iso ?? 0)) / (shutterS * iso));
      // Where the base sensitivity would have to be undercut, the rest stays.
      if (stepped.iso !== main.baseIso) expect(Math.abs(off), `${i}`).toBeLessThan(1 / 6 + 0.02);
      expect(markedIso(stepped.iso ?? 0)).toBe(stepped.iso);
    }
  });

  it('keep the sync time, and a time set by hand', () => {
    const chosen = onSteps({ ...base, floorRule: 'chosen', shutterS: 0.0107, iso: 400 }, main);
    expect(chosen.shutterS).toBe(0.0107);
    expect(onSteps({ ...base, floorRule: 'sync', shutterS: main.syncS, iso: null }, main).shutterS).toBe(main.syncS);
  });

  /** A sync time between two marks. */
  const odd = { baseIso: 100, isoLimit: 6400, syncS: 1 / 180, fastestShutterS: 1 / 4000 };
  const flashed = (power: number, ambientUnderStops: number | null, iso = 500) =>
    onSteps({ ...base, shutterS: 1 / 90, floorS: 1 / 90, iso, flash: { power, ambientUnderStops } }, odd);

  it('are left for the sync time alone, and only where it is what holds', () => {
    const shutter = (floorRule: 'sync' | 'people', shutterS: number) =>
      onSteps({ ...base, floorRule, shutterS, floorS: 1 / 60, iso: null }, odd).shutterS;
    expect(shutter('sync', odd.syncS)).toBe(odd.syncS);
    expect(shutter('people', odd.syncS)).not.toBe(odd.syncS);
    expect(shutter('sync', 1 / 90)).not.toBe(1 / 90);
  });

  it('cost the room sensitivity where it lights the picture, and a flash that lights it none', () => {
    // 1/90 becomes 1/100: a sixth of a stop.
    expect(flashed(0.5, 2)).toMatchObject({ shutterS: 1 / 100, iso: 500, flash: { power: 0.5 } });
    expect(flashed(0.5, null).iso).toBe(500);
    expect(flashed(0.5, 0, 550).iso).toBe(640);
    expect(flashed(0.5, -1, 550).iso).toBe(640);
    expect(flashed(0.5, 1, 550).iso).toBe(500);
    expect(onSteps({ ...base, shutterS: 1 / 90, floorS: 1 / 90, iso: 550 }, odd)).toMatchObject({
      iso: 640,
      flash: null
    });
  });

  it('change a flash’s power as the sensitivity changes, up to full; one that is too weak stays so', () => {
    expect(flashed(0.5, 2, 550).flash?.power).toBeCloseTo((0.5 * 550) / 500, 9);
    expect(flashed(0.95, 2, 550).flash?.power).toBe(1);
    expect(flashed(1.4, 2, 550).flash?.power).toBe(1.4);
  });

  it('say what is missing at the limit from a sixth of a stop on', () => {
    const missing = (iso: number) => onSteps({ ...base, shutterS: 1 / 60, iso }, odd).missingStops;
    expect(missing(6400)).toBe(0);
    expect(missing(6400 * 2 ** 0.16)).toBe(0);
    expect(missing(6400 * 2 ** 0.17)).toBeCloseTo(0.17, 6);
  });
});

describe('which rule is named', () => {
  const indoors = { kind: 'ev', ev100: 6 } as const;
  it('is the first of two as strict, and the wish for stillness only where it is stricter', () => {
    const { floors } = defaultLight;
    const even = setupWith({ floors: { ...floors, peopleS: 1 / 85 } });
    expect(floorOf(even, main)).toEqual({ rule: 'focalLength', shutterS: 1 / 85 });
    const still = (shutterS: number) =>
      at(setupWith({ level: indoors }), 4, main, { wanted: { rule: 'shake', shutterS } });
    expect(still(1 / 85).floorRule).toBe('focalLength');
    expect(still(1 / 100).floorRule).toBe('shake');
  });

  it('is the sync time only where that is what makes it longer', () => {
    const fill = { ...defaultFlash, use: 'fill' } as const;
    const rule = (level: Light['level'], floorS: number) =>
      at(setupWith({ level, flash: fill }), 8, main, { floor: { rule: 'people', shutterS: floorS } });
    expect(rule({ kind: 'unknown' }, 1 / 60)).toMatchObject({ floorRule: 'people', shutterS: 1 / 60 });
    expect(rule({ kind: 'unknown' }, main.syncS)).toMatchObject({ floorRule: 'people', shutterS: main.syncS });
    expect(rule({ kind: 'unknown' }, 1 / 1000)).toMatchObject({ floorRule: 'sync', shutterS: main.syncS });
    expect(rule({ kind: 'ev', ev100: 4 }, main.syncS)).toMatchObject({ floorRule: 'people', shutterS: main.syncS });
    expect(rule({ kind: 'ev', ev100: 4 }, 1 / 1000)).toMatchObject({ floorRule: 'sync', shutterS: main.syncS });
  });

  it('of a flash that lights an unknown room is never the room’s: no longer than 1/60', () => {
    const slow = { floor: { rule: 'tripod', shutterS: 1 / 15 } } as const;
    const unknown = at(setupWith({ flash: defaultFlash }), 4, main, slow);
    expect(unknown).toMatchObject({ shutterS: 1 / 60, floorRule: 'tripod', tooBrightStops: 0 });
    // A filter takes light from the room too, so it asks for no shorter time than without.
    const bright = { level: { kind: 'ev', ev100: 11 }, flash: defaultFlash } as const;
    const seconds = (filterStops: number) => at(setupWith({ ...bright, filterStops }), 5.6, main, slow).shutterS;
    expect(seconds(0)).toBeLessThan(1 / 60);
    expect(seconds(1)).toBeCloseTo(Math.min(1 / 60, seconds(0) * 2), 9);
  });

  it('exposes at the base sensitivity just as long as the rule allows, and by its name', () => {
    // f/4 at 1/60 and ISO 100 is this bright, on the line.
    const level = { kind: 'metered', fNumber: 4, shutterS: 1 / 60, iso: 100 } as const;
    const exact = at(
      setupWith({ level }),
      4,
      { ...main, baseIso: 100 },
      { floor: { rule: 'people', shutterS: 1 / 60 } }
    );
    expect(exact.iso).toBeCloseTo(100, 9);
    expect(exact.shutterS).toBeCloseTo(1 / 60, 9);
    expect(exact.tooBrightStops).toBeCloseTo(0, 9);
    expect(exact.missingStops).toBe(0);
  });
});
