/** What photographers know to come out, and calls they would not have shaken their heads at. */
import { describe, expect, it } from 'vitest';
import { defaultHabits, type Habits } from '../habits/habits';
import { builtInKit } from '../kit/builtInKit';
import { newBody, newLens } from '../kit/defaults';
import { bodyStarts } from '../kit/startingPoints';
import { demoJobs } from '../job/demo';
import { seededRandom } from '../testing/random';
import { runs } from '../testing/runs';
import { arrange } from '../setup/arrangements';
import { newBackground, newPerson, newSetup, newThing } from '../setup/defaults';
import { setupFrom, templates } from '../setup/templates';
import { callSentence, conflictSentences, framesToShoot, reasonSentence } from '../words/call';
import { whyTarget } from '../words/why';
import { tryCandidate } from './places';
import { canExpose } from './exposable';
import { lineUp } from './lineUp';
import type { Plan, StopPlan } from './plan';
import { planSetup, stopsOf } from './planSetup';
import { findRemedies } from './remedies/findRemedies';
import { prepare } from './planSetup';
import { alignToFocus } from '../setup/align';
import { viewpoint } from '../setup/scene';
import type { Body, Kit } from '../kit/schema';
import type { Camera, Person, Setup } from '../setup/schema';

const inputOf = (setup: Setup, kit: Kit = builtInKit) => ({
  setup,
  kit,
  stopStep: 'third' as const,
  habits: defaultHabits
});
function plan(setup: Setup, kit: Kit = builtInKit): Plan {
  const result = planSetup(inputOf(setup, kit));
  if (result.kind !== 'plan') throw new Error(result.reason.code);
  return result;
}
function setupWith(
  changes: Partial<Setup>,
  camera: Partial<Camera> = {},
  intent: Partial<Setup['intent']> = {}
): Setup {
  const base = newSetup('s', 'S', { backgrounds: [], ...changes });
  return { ...base, camera: { ...base.camera, ...camera }, intent: { ...base.intent, ...intent } };
}
const from = (distanceMm: number) => ({ placement: { kind: 'distance', distanceMm } }) as const;
function at(result: Plan, label: string): StopPlan {
  const entry = result.stops.find((item) => item.stop.label === label);
  if (!entry) throw new Error(`no f/${label}`);
  return entry;
}
const called = (result: Plan) => {
  const entry = result.stops[result.selected];
  if (!entry) throw new Error('no stop');
  return entry;
};
const firstHolding = (result: Plan) => result.stops.findIndex((entry) => entry.facesHold);

describe('trade facts (common practice, no source)', () => {
  it('a face turned 45° close to a fast 85: f/1.2 loses the far eye, f/2.8 is not quite enough, f/4 usually holds it', () => {
    const fast: Kit = {
      ...builtInKit,
      lenses: [newLens('fast', '85 f/1.2', { shortestMm: 85, longestMm: 85, widestFNumber: 1.2 })]
    };
    const turned = plan(
      setupWith({ people: [newPerson('a', 'Ada', { headYawDeg: 45 })] }, { lensId: 'fast', ...from(1800) }),
      fast
    );
    expect(at(turned, '1.2').worst).toMatchObject({ role: 'farEye' });
    expect(at(turned, '1.2').worst.ratio).toBeGreaterThan(2);
    expect(at(turned, '2.8').worst.ratio).toBeGreaterThan(1);
    expect(at(turned, '2.8').worst.ratio).toBeLessThan(1.6);
    expect(at(turned, '4').worst.ratio).toBeLessThan(1);
    expect(at(turned, '4').odds).toBeGreaterThan(0.5);
  });

  it('f/5.6 holds several rows with at least 95%, and a wider call says so', () => {
    const people = arrange(
      Array.from({ length: 15 }, (_, i) => newPerson(`p${i}`, `P${i}`)),
      { kind: 'rows', count: 15, rows: 3, spacingMm: 560, rowDepthMm: 800, riserMm: 180, staggered: true }
    );
    const rows = plan(
      setupWith(
        { people, backgrounds: [newBackground('wall', 'wall', { depthMm: 2600, detailMm: 300 })] },
        {
          lensId: 'lens-50',
          focalLengthMm: 50,
          placement: { kind: 'group', framing: 'fullLength', marginShare: 0.08 },
          pitchDeg: -6
        },
        { picture: 'group', style: 'lensBest', oddsWanted: 0.95 }
      )
    );
    expect(at(rows, '5.6').odds).toBeGreaterThan(0.95);
    // A wall that no stop hides pulls nobody wide open: the lens's best stop is taken.
    expect(rows.letGo).toEqual(['wall']);
    expect(called(rows).stop.fNumber).toBeGreaterThan(2.8);
    expect(conflictSentences(rows)?.settled).toMatch(/keeps the faces sharp\.$/);
  });
});

describe('an unstabilised body', () => {
  it.each(templates)('gives the template %s a stop', (template) => {
    const setup = setupFrom({ template }, 't');
    const bare = plan({ ...setup, camera: { ...setup.camera, bodyId: 'body-full-slr' } });
    expect(bare.conflict?.kind).not.toBe('facesUnreachable');
    expect(called(bare).causes.shake).toBeLessThanOrEqual(defaultHabits.shakeAtMost + 1e-6);
  });

  it('names shake when the ISO limit leaves the shutter too slow, and a flash mends it', () => {
    const dark = setupWith(
      { people: [newPerson('a', 'Ada')], light: { ...newSetup('x', 'X').light, level: { kind: 'ev', ev100: -2 } } },
      { bodyId: 'body-full-slr', lensId: 'lens-135', focalLengthMm: 135, ...from(4000) },
      { viewing: { kind: 'pixels', pixels: 3 } }
    );
    const result = plan(dark);
    expect(result.conflict).toMatchObject({ kind: 'facesUnreachable', because: 'shake' });
    expect(conflictSentences(result)?.wishes).toMatch(/camera shake/);
    expect(findRemedies(inputOf(dark)).map((remedy) => remedy.kind)).toContain('flash');
  });
});

describe('a dance', () => {
  const dancing = (ev100: number, across = 250) =>
    setupWith(
      {
        people: [newPerson('a', 'Ada', { acrossMmPerS: across, mood: 'lively', sharp: 'nearEye' })],
        light: { ...newSetup('x', 'X').light, level: { kind: 'ev', ev100 } }
      },
      { ...from(3500), focusMode: 'continuous' },
      { picture: 'moving', oddsWanted: 0.6 }
    );

  it('takes the ISO for a shutter of 1/500 or shorter', () => {
    const result = plan(dancing(6));
    expect(called(result).light.shutterS).toBeLessThanOrEqual(1 / 500 + 1e-9);
    expect(called(result).light.iso ?? 0).toBeGreaterThan(400);
    expect(called(result).movement?.ratio ?? 1).toBeLessThanOrEqual(0.5);
  });

  it('in the dark is named for its movement, never for a depth one face does not have', () => {
    const result = plan(dancing(1, 1200));
    expect(result.conflict).toMatchObject({ because: 'movement', bound: { subjectId: 'a' } });
    expect(conflictSentences(result)?.wishes).toMatch(/Ada will show motion blur/);
    expect(findRemedies(inputOf(dancing(1, 1200))).map((remedy) => remedy.kind)).toContain('flash');
    const close = plan(
      setupWith({ people: [newPerson('a', 'Ada', { headYawDeg: 60 })] }, from(880), {
        oddsWanted: 0.99,
        viewing: { kind: 'pixels', pixels: 1.5 }
      })
    );
    expect(conflictSentences(close)?.wishes ?? '').not.toMatch(/nearest face to the furthest/);
  });
});

describe('a small sensor', () => {
  it('has a call: its lens draws finer in proportion to the format', () => {
    const phone = bodyStarts.find((item) => item.make('p').kind === 'phone')?.make('phone');
    if (!phone) throw new Error('no phone');
    const kit: Kit = {
      bodies: [phone, newBody('full', 'full frame')],
      lenses: [
        newLens('wide', 'main camera', {
          shortestMm: 6.9,
          longestMm: 6.9,
          widestFNumber: 1.8,
          smallestFNumber: 1.8,
          closestFocusMm: 150
        }),
        newLens('normal', '26', { shortestMm: 26, longestMm: 26, widestFNumber: 1.8 })
      ],
      adapters: []
    };
    const lens = (bodyId: string, lensId: string, focalLengthMm: number) =>
      plan(setupWith({}, { bodyId, lensId, focalLengthMm, ...from(1500) }), kit);
    const small = lens('phone', 'wide', 6.9);
    expect(small.window).not.toBeNull();
    const full = lens('full', 'normal', 26);
    const share = Math.hypot(phone.sensor.widthMm, phone.sensor.heightMm) / Math.hypot(36, 24);
    const lensBlur = (result: Plan) => (result.stops[0]?.causes.lens ?? 0) * result.circleOfConfusionMm;
    expect(lensBlur(small) / lensBlur(full)).toBeCloseTo(share, 6);
  });
});

describe('a lens measured in its corners', () => {
  const table = (...lp: readonly number[]) =>
    [1.8, 2.8, 4, 5.6, 8].map((N, at) => ({ fNumber: N, lpPerMm: lp[at] ?? 40 }));
  const kit = (corner: boolean): Kit => ({
    ...builtInKit,
    lenses: [
      newLens('fifty', '50', {
        shortestMm: 50,
        longestMm: 50,
        widestFNumber: 1.8,
        measured: table(40, 60, 70, 65, 55),
        ...(corner && { measuredCorner: table(9, 14, 25, 50, 48) })
      })
    ]
  });
  const people = [newPerson('a', 'Ada'), newPerson('b', 'Bea', { lateralMm: 850 })];
  const planned = (corner: boolean, changes: Partial<Setup['intent']> = {}, who: readonly Person[] = people) =>
    plan(setupWith({ people: [...who] }, { lensId: 'fifty', focalLengthMm: 50, ...from(3000) }, changes), kit(corner));

  it('is closed further where a face stands near the edge, and that face and the lens are named', () => {
    const [plain, edge] = [planned(false), planned(true)];
    expect(firstHolding(edge)).toBeGreaterThan(firstHolding(plain));
    expect(edge.lower).toEqual({ kind: 'lensEdge', subjectId: 'b' });
    expect(reasonSentence(edge)).toMatch(/Wider: the lens is too soft out where Bea stands/);
    const ratio = (result: Plan, who: number) => at(result, '2.8').sharpness[who]?.[0]?.ratio ?? 0;
    expect(ratio(edge, 1)).toBeGreaterThan(2 * ratio(edge, 0));
    expect(ratio(edge, 0)).toBeCloseTo(ratio(plain, 0), 2);
  });

  it('has its best stop where it is best to that face, and in the centre where nobody stands aside', () => {
    const best = (corner: boolean, who: readonly Person[]) =>
      called(planned(corner, { style: 'lensBest', oddsWanted: 0.1 }, who)).stop.label;
    expect(best(false, people)).toBe('4');
    expect(best(true, people)).toBe('5.6');
    expect(best(true, people.slice(0, 1))).toBe('4');
  });
});

describe('a lens whose plane moves as it is stopped down', () => {
  const own = (um: number): Habits['own'][number] => ({
    bodyId: 'full-frame',
    lensId: 'lens-85',
    method: 'crossPoint',
    recomposed: false,
    biasUm: 0,
    spreadUm: 12,
    frames: 20,
    learnedAt: null,
    focalLengthMm: null,
    stopShift: [{ fNumber: 2.8, um }]
  });
  it('has its plane where it falls at each stop, and worse odds there; wide open nothing changes', () => {
    const setup = setupWith({}, { lensId: 'lens-85', focalLengthMm: 85, ...from(2000) });
    const bodyId = setup.camera.bodyId;
    const planned = (um: number) => {
      const habits = { ...defaultHabits, own: [{ ...own(um), bodyId }] };
      const result = planSetup({ ...inputOf(setup), habits });
      if (result.kind !== 'plan') throw new Error(result.reason.code);
      return result;
    };
    const [still, moving] = [planned(0), planned(45)];
    const widest = still.stops[0]?.stop.label ?? '';
    expect(at(moving, widest).planeMm).toBeCloseTo(at(still, widest).planeMm, 9);
    // 45 µm behind at 2 m: by Newton about 45 µm over the square of the magnification, 0.0444².
    expect(at(moving, '2.8').planeMm - at(still, '2.8').planeMm).toBeCloseTo(0.045 / 0.0444 ** 2, -0.5);
    expect(at(moving, '2.8').shiftUm).toBe(45);
    expect(at(moving, '2.8').odds).toBeLessThan(at(still, '2.8').odds);
  });
});

describe('a lens whose field bends', () => {
  const kit: Kit = {
    ...builtInKit,
    lenses: [newLens('wide', '35', { shortestMm: 35, longestMm: 35, widestFNumber: 1.4, fieldPerM: 0.3 })]
  };
  const row = [-1100, 0, 1100].map((lateralMm, index) => newPerson(`p${index}`, `P${index}`, { lateralMm }));
  const planned = (focusSurface: Camera['focusSurface'], people: readonly Person[] = row, of = kit) =>
    plan(setupWith({ people: [...people] }, { lensId: 'wide', focalLengthMm: 35, focusSurface, ...from(3000) }), of);
  const softest = (result: Plan) => Math.max(...at(result, '2.8').sharpness.map((points) => points[0]?.ratio ?? 0));

  it('leaves the ends of a straight row soft, and has them brought in', () => {
    expect(softest(planned('measured'))).toBeGreaterThan(1.3 * softest(planned('flat')));
    const setup = setupWith(
      { people: row },
      { lensId: 'wide', focalLengthMm: 35, focusSurface: 'measured', ...from(3000) }
    );
    const view = viewpoint(setup, kit.bodies[0] as Body, 1, 0.3);
    const brought = alignToFocus(row, view, 3000);
    // By hand: 1/z = 1/3000 + 0.3e-3 (1100/z)^2, z = 2578.
    expect(brought.map(({ depthMm }) => depthMm)).toEqual([expect.closeTo(-422, -0.7), 0, expect.closeTo(-422, -0.7)]);
    expect(softest(planned('measured', brought))).toBeLessThan(softest(planned('flat')) + 0.05);
  });

  it('is taken as flat where it was not measured', () => {
    const without: Kit = { ...kit, lenses: kit.lenses.map(({ fieldPerM: _, ...lens }) => lens) };
    expect(planned('measured', row, without).stops).toEqual(planned('flat', row, without).stops);
  });
});

describe('what is shown', () => {
  it('is not sharp where nobody keeps up: 135 mm, 1.2 m/s, single focusing', () => {
    const walking = plan(
      setupWith(
        { people: [newPerson('a', 'Ada', { towardsMmPerS: 1200 })] },
        { lensId: 'lens-135', focalLengthMm: 135, ...from(5000), secondsToShutter: 0.3 }
      )
    );
    const [widest] = walking.stops;
    expect(widest?.odds).toBeLessThan(0.01);
    expect(widest?.sharpness[0]?.[0]?.ratio).toBeGreaterThan(3);
    expect(widest?.worst.ratio).toBeGreaterThan(3);
    // Drawn where she stood, the plane lies behind her by as much as she has come.
    expect((widest?.drawnFocusMm ?? 0) - (widest?.planeMm ?? 0)).toBeCloseTo(360, 6);
  });

  it('names the eye the plane is put on, however the face stands in the picture', () => {
    // Far aside, a face looking straight ahead: its outer eye is further from the lens, and yet at the same depth.
    const aside = plan(
      setupWith(
        { people: [newPerson('a', 'Ada', { lateralMm: 700, headYawDeg: -8 })] },
        { lensId: 'lens-35', focalLengthMm: 35, ...from(2000) }
      )
    );
    for (const entry of aside.stops) {
      const points = aside.subjects[0]?.points ?? [];
      const depthOf = (role: string) => points.find((point) => point.role === role)?.depth ?? NaN;
      expect(depthOf('nearEye')).toBeLessThanOrEqual(depthOf('farEye'));
      if (entry.target.role === 'nearEye') expect(entry.target.focusDistanceMm).toBe(depthOf('nearEye'));
    }
  });
});

describe('whoever is not in the picture', () => {
  const aside = newPerson('bo', 'Bo', { lateralMm: 3000, depthMm: 900 });
  const outside = setupWith({ people: [newPerson('ada', 'Ada'), aside] }, from(2500));

  it('is named and does not decide', () => {
    const result = plan(outside);
    expect(result.outOfFrame).toEqual(['bo']);
    const alone = plan(setupWith({ people: [newPerson('ada', 'Ada')] }, from(2500)));
    expect(result.stops.map((entry) => entry.odds)).toEqual(alone.stops.map((entry) => entry.odds));
    expect(called(result).target.subjectId).toBe('ada');
  });
});

describe('a lesser place to focus on', () => {
  const couple = (depthMm: number) =>
    setupWith(
      { people: [newPerson('a', 'Ada', { lateralMm: -120 }), newPerson('b', 'Bo', { lateralMm: 120, depthMm })] },
      from(2200),
      { picture: 'couple' }
    );

  it('is taken by hand between two faces 17 cm apart; autofocus is laid on an eye, of the face in front', () => {
    const byHand = { ...couple(170), camera: { ...couple(170).camera, focusMethod: 'magnifier' as const } };
    const result = plan(byHand);
    const between = called(result);
    expect(between.target.role === null || ['temple', 'ear', 'collar'].includes(between.target.role)).toBe(true);
    expect(whyTarget(byHand, result, between, 'metric')).toMatch(/more keepers? in 10/);
    // Once it holds it goes on holding: no gap between the two.
    const held = result.stops.map((entry) => entry.facesHold);
    expect(held.slice(firstHolding(result))).not.toContain(false);
    expect(called(plan(couple(170))).target).toMatchObject({ subjectId: 'a', role: 'nearEye' });
  });

  it('is not taken for a little', () => {
    for (const depthMm of [0, 20, 40, 60]) {
      const result = plan(couple(depthMm));
      for (const entry of result.stops) expect(entry.target.role).toBe('nearEye');
    }
    const [dog] = demoJobs().flatMap((job) => job.setups.filter((setup) => setup.name === 'Gran Marguerite and Pilot'));
    if (!dog) throw new Error('no dog');
    expect(called(plan(dog)).target).toMatchObject({ subjectId: 'marguerite', role: 'nearEye' });
  });
});

describe('the choice of the target', () => {
  /** Random groups, as deep as they come. */
  function randomGroup(random: () => number): Setup {
    const count = 2 + Math.floor(random() * 9);
    const people = Array.from({ length: count }, (_, i): Person =>
      newPerson(`p${i}`, `P${i}`, {
        lateralMm: Math.round((i - (count - 1) / 2) * 330 + 120 * (random() - 0.5)),
        depthMm: Math.round(1400 * random()),
        floorMm: Math.round(300 * random()),
        headYawDeg: Math.round(70 * (random() - 0.5)),
        sharp: random() < 0.3 ? 'nearEye' : 'bothEyes',
        swayMm: random() < 0.2 ? Math.round(2 + 14 * random()) : null
      })
    );
    return setupWith(
      { people },
      {
        lensId: 'lens-50',
        focalLengthMm: 50,
        ...from(4500 + 3000 * random()),
        recompose: random() < 0.3 ? 'shoulders' : 'none'
      }
    );
  }

  it('in 500 random groups loses no more than a tie to any near eye, and opens no later', () => {
    const random = seededRandom(20261125);
    const groups = runs(500);
    for (let i = 0; i < groups; i++) {
      const setup = randomGroup(random);
      const prepared = prepare(inputOf(setup));
      if (prepared.kind === 'noPlan') throw new Error(prepared.reason.code);
      const situation = prepared;
      const [group] = situation.groups;
      const result = plan(setup);
      if (!group) throw new Error('no group');
      const ordinary = group.eyes.filter((candidate) => candidate.standing === 'ordinary');
      stopsOf(situation.lens, 'third').forEach((stop, index) => {
        const entry = result.stops[index];
        const light = situation.light(stop.fNumber);
        const every = ordinary.map((candidate) => tryCandidate(situation, group, stop.fNumber, light, candidate));
        const most = Math.max(0, ...every.map((item) => item.odds));
        expect(entry?.oddsOnTarget ?? 0, `group ${i}, f/${stop.label}`).toBeGreaterThanOrEqual(most - 0.0301);
        if (every.some((item) => item.odds >= 0.9 && item.worstRatio <= 1)) {
          expect(entry?.facesHold, `group ${i}, f/${stop.label}`).toBe(true);
        }
      });
    }
  });
});

describe('another lens', () => {
  it('of a stitched view frames what the first one framed, not its own sensor', () => {
    const stitched = setupWith(
      {},
      { ...from(4000), orientation: 'portrait', stitch: { columns: 3, rows: 3, overlap: 0.3 } }
    );
    const line = lineUp(inputOf(stitched));
    const wide = line.find((item) => item.lensId === 'lens-24-70' && item.focalLengthMm === 24);
    // Closed form: three upright frames of an 85 cover 57.4° and show 4.28 m at 4 m; the 24's would cover 177°, taken as 150°.
    expect(wide?.distanceMm).toBeCloseTo(600, -1);
    const shown = plan(wide?.setup ?? stitched).framedHeightMm;
    expect(shown / plan(stitched).framedHeightMm).toBeCloseTo(1, 6);
  });

  it('and every remedy keep those in the picture who were in it', () => {
    const aside = setupWith(
      { people: [newPerson('a', 'Ada', { lateralMm: 250 }), newPerson('b', 'Bo', { lateralMm: 900, depthMm: 500 })] },
      { lensId: 'lens-50', focalLengthMm: 50, ...from(4000), yawDeg: 8 }
    );
    expect(plan(aside).outOfFrame).toEqual([]);
    for (const item of lineUp(inputOf(aside))) {
      if (item.reason === null) expect(plan(item.setup).outOfFrame, item.lensName).toEqual([]);
    }
  });
});

describe('remedies', () => {
  const kinds = (setup: Setup) => findRemedies(inputOf(setup)).map((remedy) => remedy.kind);
  const close = newBackground('wall', 'wall', { depthMm: 900, detailMm: 60 });

  it('step no further than three metres into a place nobody has described, and leave half a metre clear', () => {
    const deep = setupWith(
      { people: [newPerson('a', 'Ada'), newPerson('b', 'Bo', { depthMm: 900, lateralMm: 350 })], backgrounds: [close] },
      from(2500)
    );
    const distanceOf = ({ placement }: Camera) => (placement.kind === 'distance' ? placement.distanceMm : NaN);
    const one = (setup: Setup, kind: string) => {
      const remedy = findRemedies(inputOf(setup)).find((item) => item.kind === kind);
      if (!remedy) throw new Error(`no ${kind}`);
      return { amount: remedy.amount, distanceMm: distanceOf(remedy.setup.camera) };
    };
    expect(one(deep, 'stepBack').distanceMm).toBeLessThanOrEqual(5500);
    const alone = setupWith({ people: [newPerson('a', 'Ada')], backgrounds: [close] }, from(4600));
    expect(one(alone, 'moveOffBackground').amount).toBe(3000);
    expect(one(alone, 'stepCloser').distanceMm).toBeGreaterThanOrEqual(500);
    // A cake 1.9 m before her, and half a metre clear of it.
    const guests = { ...alone, things: [newThing('cake', 'cake', { depthMm: -1900, importance: 'maySoft' })] };
    expect(one(guests, 'stepCloser').distanceMm).toBeGreaterThanOrEqual(2400 - 1e-6);
  });

  it('bring one of two forward instead of turning the row of them', () => {
    const two = setupWith({
      people: [newPerson('a', 'Ada', { lateralMm: -250 }), newPerson('b', 'Bo', { lateralMm: 250, depthMm: 700 })]
    });
    const found = kinds(two);
    expect(found).toContain('bringForward');
    expect(found).not.toContain('turnRow');
    expect(found).not.toContain('pullTogether');
  });

  it('do not cut people who embrace, nor stitch many frames of anybody, nor of who moves', () => {
    const pair = (changes: Partial<Person>) =>
      setupWith({
        people: [
          newPerson('a', 'Ada', { lateralMm: -90, ...changes }),
          newPerson('b', 'Bo', { lateralMm: 90, depthMm: 800, ...changes })
        ]
      });
    expect(kinds(pair({}))).toContain('twoFrames');
    expect(kinds(pair({ posture: 'embracing' }))).not.toContain('twoFrames');
    expect(kinds(pair({ mood: 'restless' }))).not.toContain('twoFrames');
    for (const setup of [pair({}), pair({ mood: 'lively' })]) {
      for (const remedy of findRemedies(inputOf(setup))) {
        const { stitch } = remedy.setup.camera;
        if (remedy.kind !== 'stitch' || !stitch) continue;
        expect(stitch.columns * stitch.rows).toBeLessThanOrEqual(12);
        expect(setup.people[0]?.mood).toBe('still');
      }
    }
  });

  it('follow whoever moves, in any direction', () => {
    const across = setupWith(
      { people: [newPerson('a', 'Ada', { mood: 'lively', swayMm: 30 })] },
      { ...from(2000), secondsToShutter: 1 }
    );
    expect(plan(across).window).toBeNull();
    expect(kinds(across)).toContain('continuousFocus');
  });

  it('where none is enough say what comes nearest', () => {
    const kit: Kit = { ...builtInKit, lenses: builtInKit.lenses.filter((lens) => lens.id === 'lens-85') };
    const hopeless = (count: number, depthMm: number, mood: Person['mood']) =>
      findRemedies(
        inputOf(
          setupWith(
            {
              people: Array.from({ length: count }, (_, i) =>
                newPerson(`p${i}`, `P${i}`, { mood, depthMm: i * depthMm, lateralMm: i * 350 - 200 })
              ),
              place: { scenery: 'plain', backUpMm: 2300, behindMm: 0, sideMm: 0 }
            },
            from(2200),
            { viewing: { kind: 'pixels', pixels: 3 }, oddsWanted: 0.95 }
          ),
          kit
        )
      );
    // Playing, two of them are likelier held side by side, though not as surely as wished.
    const [byOdds] = hopeless(2, 400, 'lively');
    expect(byOdds).toMatchObject({ kind: 'bringForward', partial: { stopsNearer: 0 } });
    expect(byOdds?.opens.odds).toBeGreaterThan((byOdds?.partial?.oddsBefore ?? 1) + 0.1);
    // Three one behind the other have no odds either way: what leaves the worst of them less blurred is offered.
    const byStops = hopeless(3, 400, 'restless');
    expect(byStops).not.toEqual([]);
    for (const { partial } of byStops) expect(partial?.stopsNearer).toBeGreaterThanOrEqual(0.7);
  });
});

describe('the demo and the templates', () => {
  const all = [
    ...demoJobs().flatMap((job) => job.setups),
    ...templates.map((template) => setupFrom({ template }, template))
  ];

  it.each(all.map((setup) => [setup.name, setup] as const))(
    '%s has a call one can expose, on an eye that is seen',
    (_, setup) => {
      const result = plan(setup);
      const entry = called(result);
      // Sharp looked at closely, or, where no stop is, in print.
      expect(entry.facesHold || (result.inPrint?.odds ?? 0) >= result.oddsWanted).toBe(true);
      expect(canExpose(entry)).toBe(true);
      expect(result.hidden).toEqual([]);
      expect(result.outOfFrame).toEqual([]);
      expect(framesToShoot(result, entry)).not.toBeNull();
      expect(callSentence(result, 'metric')).toMatch(/^f\/[\d.]+ on .*\d c?m( from .*)?\.$/);
    }
  );
});
