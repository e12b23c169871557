/**
 * Every number of a plan against a second reading of the model: the textbook formulas written out once more, the odds by
 * plain summation with a general-purpose statistics package, the target by trying every one.
 */
import fc from 'fast-check';
import jstat from 'jstat';
import { expect, it } from 'vitest';
import { looseLenses, looseBodies } from '../testing/kit';
import { runs } from '../testing/runs';
import { defaultHabits, type Habits } from '../habits/habits';
import { builtInKit } from '../kit/builtInKit';
import { defaultFlash, defaultLight, newBackground, newPerson, newSetup, newThing } from '../setup/defaults';
import type { Person, Setup } from '../setup/schema';
import type { Subject } from '../setup/scene';
import type { Plan, StopPlan } from './plan';
import { planSetup } from './planSetup';
import type { Vector } from '../maths/vector';
import type { Kit } from '../kit/schema';

/** What has been measured of every lens on a good point, µm. */
const ownBiasUm = 6;
/** And how far the smallest stop moves it. */
const ownShift = { fNumber: 32, um: 9 };

/** No figure like its default, so that each is seen to count. */
const habits: Habits = {
  ...defaultHabits,
  own: looseBodies.flatMap((body) =>
    looseLenses.map((lens) => ({
      bodyId: body.id,
      lensId: lens.id,
      method: 'crossPoint' as const,
      recomposed: false,
      biasUm: ownBiasUm,
      spreadUm: 8,
      frames: 30,
      learnedAt: null,
      focalLengthMm: null,
      stopShift: [ownShift]
    }))
  ),
  focusSpreadUm: { crossPoint: 12, ordinaryPoint: 27 },
  focusShare: { magnifier: 0.3, magnifierOnTripod: 0.15, byEye: 0.8 },
  lowLightFromEv: 6,
  lowLightFactor: 1.7,
  holdMm: { standing: 9, braced: 6, kneeling: 5, monopod: 2, tripod: 1 },
  swayGrowsForS: 1.5,
  swayMm: { standing: 6, seated: 4, embracing: 2, child: 14, pet: 17, heldThing: 3 },
  restlessFactor: 1.8,
  livelyFactor: 4,
  stabiliserLossStops: 1,
  blinkEveryS: 5,
  blinkS: 0.2,
  shakeShare: { standing: 0.9, braced: 0.6, kneeling: 0.4, monopod: 0.3, tripod: 0.1 },
  continuousLagS: 0.07,
  continuousFactor: 1.3,
  lagSpreadS: 0.04,
  magnifiedS: 2,
  turnS: 0.6
};

const anyPerson = fc
  .record({
    depthMm: fc.integer({ min: -300, max: 700 }),
    lateralMm: fc.integer({ min: -900, max: 900 }),
    headYawDeg: fc.integer({ min: -80, max: 80 }),
    sharp: fc.constantFrom('nearEye', 'bothEyes', 'eyesToNose'),
    importance: fc.constantFrom('must', 'must', 'should', 'maySoft'),
    being: fc.constantFrom('adult', 'adult', 'child', 'baby', 'pet'),
    posture: fc.constantFrom('standing', 'seated', 'embracing'),
    swayMm: fc.constantFrom(null, null, 11),
    towardsMmPerS: fc.constantFrom(0, 0, 0, 60),
    acrossMmPerS: fc.constantFrom(0, 0, 0, 90),
    mood: fc.constantFrom('still', 'still', 'restless', 'lively')
  } as const)
  .map((changes) => newPerson('p', 'P', changes));

const anySetup = fc
  .record({
    people: fc.array(anyPerson, { minLength: 1, maxLength: 4 }),
    thing: fc.boolean(),
    wish: fc.constantFrom('hide', 'hint', 'keep', 'free'),
    behindMm: fc.integer({ min: 100, max: 20_000 }),
    lens: fc.constantFrom(...looseLenses),
    body: fc.constantFrom(...looseBodies),
    distanceMm: fc.integer({ min: 1500, max: 5000 }),
    stance: fc.constantFrom('standing', 'braced', 'kneeling', 'monopod', 'tripod'),
    focusMethod: fc.constantFrom('crossPoint', 'ordinaryPoint', 'magnifier', 'byEye'),
    focusMode: fc.constantFrom('single', 'continuous'),
    secondsToShutter: fc.constantFrom(0.3, 1, 4),
    ev100: fc.constantFrom(null, 3, 4, 5, 11),
    flash: fc.boolean(),
    pupil: fc.constantFrom(1, 0.7, 1.3),
    recompose: fc.constantFrom('none', 'none', 'wrists', 'waist')
  } as const)
  .map((any): { setup: Setup; kit: Kit } => {
    const base = newSetup('s', 'S');
    const { stance, focusMethod, focusMode, secondsToShutter, ev100 } = any;
    const setup: Setup = {
      ...base,
      people: any.people.map((person, index) => ({ ...person, id: `p${index}` })),
      things: any.thing ? [newThing('t', 'T', { depthMm: -150, deepMm: 60 })] : [],
      backgrounds: [newBackground('b', 'B', { depthMm: any.behindMm, wish: any.wish, detailMm: 30 })],
      light: {
        ...defaultLight,
        level: ev100 === null ? { kind: 'unknown' } : { kind: 'ev', ev100 },
        flash: any.flash ? { ...defaultFlash, distanceMm: 2500 } : null
      },
      camera: {
        ...base.camera,
        stance,
        focusMethod,
        focusMode,
        secondsToShutter,
        recompose: any.recompose,
        lensId: any.lens.id,
        bodyId: any.body.id,
        focalLengthMm: any.lens.shortestMm,
        placement: { kind: 'distance', distanceMm: any.distanceMm }
      }
    };
    const lenses = builtInKit.lenses.map((lens) => ({ ...lens, pupilMagnification: any.pupil }));
    return { setup, kit: { ...builtInKit, lenses } };
  });

const wideOpenDisc = { crisp: 0.01, ordinary: 0.016, weakWideOpen: 0.04 };

/** Who decides: those who must be sharp, else those who should, else everybody. */
function decisiveOf(subjects: readonly Subject[]): readonly Subject[] {
  const must = subjects.filter((item) => item.importance === 'must');
  const should = subjects.filter((item) => item.importance === 'should');
  return must.length > 0 ? must : should.length > 0 ? should : subjects;
}

function reference({ setup, kit }: { setup: Setup; kit: Kit }, plan: Plan, entry: StopPlan) {
  const { camera } = setup;
  const body = kit.bodies.find((item) => item.id === camera.bodyId);
  const lens = kit.lenses.find((item) => item.id === camera.lensId);
  if (!body || !lens) throw new Error('kit');
  const f = camera.focalLengthMm;
  const P = lens.pupilMagnification;
  const N = entry.stop.fNumber;
  const open = plan.stops[0]?.stop.fNumber ?? N;
  const C = (0.03 * Math.hypot(body.sensor.widthMm, body.sensor.heightMm)) / Math.hypot(36, 24);
  const { shutterS, flash } = entry.light;
  // The room's light two stops or more under the flash no longer shows.
  const frozen = flash !== null && (flash.ambientUnderStops === null || flash.ambientUnderStops >= 2);
  const person = (id: string): Person | undefined => setup.people.find((item) => item.id === id);
  const scene = setup.light.level.kind === 'ev' ? setup.light.level.ev100 : null;

  const goes = setup.people.some(
    (item) => item.towardsMmPerS !== 0 || item.acrossMmPerS !== 0 || item.mood === 'lively'
  );
  const byHand = camera.focusMethod === 'magnifier' || camera.focusMethod === 'byEye';
  const waited =
    camera.secondsToShutter +
    (camera.focusMethod === 'magnifier' ? 2 : !byHand && camera.recompose !== 'none' ? 0.6 : 0);
  const followed = camera.focusMode === 'continuous' && goes && !byHand;
  const lag = followed ? habits.continuousLagS : waited;
  const rated = body.stabiliserStops - habits.stabiliserLossStops;
  /** Behind the lens, mm. */
  const behind = (sensitive: boolean) => {
    const { focusMethod: method, stance } = camera;
    if (method === 'scale') throw new Error('not drawn');
    if (method === 'magnifier' && stance === 'tripod') return habits.focusShare.magnifierOnTripod * open * C;
    if (method === 'magnifier' || method === 'byEye') return habits.focusShare[method] * open * C;
    const limit = body.focusLimitEv;
    const dark = scene === null || scene >= 6 ? 0 : (6 - scene) / Math.max(1, 6 - limit);
    if (sensitive && method === 'crossPoint' && camera.recompose === 'none') return 0.008 * (1 + 0.7 * dark);
    const restless = camera.focusMode === 'continuous' && !goes ? habits.continuousFactor : 1;
    return restless * (C / 30) * habits.focusSpreadUm[sensitive ? method : 'ordinaryPoint'] * (1 + 0.7 * dark);
  };

  /** Focused at s on a place at (x, y, z) before the lens. */
  const at = (s: number, place: Vector | null, sensitive = true) => {
    const m = f / (s - f / P);
    const causes = {
      lens:
        (Math.hypot(body.sensor.widthMm, body.sensor.heightMm) / Math.hypot(36, 24)) *
        Math.hypot(0.007, wideOpenDisc[lens.character] / (N / open) ** 2),
      diffraction: 1.745 * 0.00055 * N * (1 + m / P),
      pixels: (1.17 * body.sensor.widthMm) / body.sensor.pixelsWide,
      shake: frozen ? 0 : (0.03 * shutterS * f * habits.shakeShare[camera.stance]) / 2 ** Math.max(0, rated)
    };
    const common = Math.hypot(causes.lens, causes.diffraction, causes.pixels, causes.shake);
    const moving = (id: string) => (frozen ? 0 : 1.17 * (person(id)?.acrossMmPerS ?? 0) * shutterS * m);
    const pivot = camera.recompose === 'wrists' ? 120 : 600;
    const turned =
      place && camera.recompose !== 'none' ? Math.hypot(place.x, place.y, place.z + pivot) - place.z - pivot : 0;
    // By Newton's form: distances from the focal points multiply to f².
    const own = sensitive && camera.focusMethod === 'crossPoint' && camera.recompose === 'none';
    const behindFocus =
      (f * f) / (s - f / P) -
      (own ? (ownBiasUm + (ownShift.um * Math.log(N / open)) / Math.log(ownShift.fNumber / open)) / 1000 : 0);
    const plane = f / P + (f * f) / behindFocus + turned;
    const defocus = (z: number) => ((f * f) / (N * (plane - f / P))) * Math.abs(1 - plane / z);
    const nearer = (id: string) => (person(id)?.towardsMmPerS ?? 0) * lag;
    const ratio = (id: string, z: number) => Math.hypot(defocus(z - nearer(id)), common, moving(id)) / C;
    const spread = {
      focusMm: behind(sensitive) / m ** 2,
      holdMm: followed ? 0 : habits.holdMm[camera.stance] * Math.sqrt(Math.min(waited, habits.swayGrowsForS))
    };
    return { m, causes, common, moving, ratio, spread, plane, nearer };
  };

  const sway = (id: string) => {
    const who = person(id);
    const seconds = Math.sqrt(Math.min(lag, habits.swayGrowsForS));
    if (!who) return habits.swayMm.heldThing * seconds;
    const still = who.swayMm ?? (who.being === 'adult' ? habits.swayMm[who.posture] : who.being === 'pet' ? 17 : 14);
    const uneven = followed ? 0.04 * Math.abs(who.towardsMmPerS) : 0;
    return Math.hypot(still * { still: 1, restless: 1.8, lively: 4 }[who.mood] * seconds, uneven);
  };

  /** Chance that all of them are sharp, summed over where the plane may land: normal on the sensor, so in 1/s. */
  const odds = (here: ReturnType<typeof at>, members: readonly Subject[]) => {
    const { spread, common, moving, plane, nearer } = here;
    const sigma = Math.hypot(spread.focusMm, spread.holdMm) / plane ** 2;
    const steps = 2000;
    let sum = 0;
    for (let i = 0; i <= steps; i++) {
      const x = -6 + (12 * i) / steps;
      const vergence = 1 / plane + sigma * x;
      const landed = 1 / vergence;
      let product = jstat.normal.pdf(x, 0, 1) * (12 / steps);
      for (const { id, nearest, furthest } of members) {
        const left = Math.sqrt(Math.max(0, C ** 2 - common ** 2 - moving(id) ** 2));
        if (left === 0) product = 0;
        // Conrad, Depth of Field in Depth (2006): near, far = s f²/(f² ± N c (s − f)), the pupil at f/P.
        const reach = N * left * (landed - f / P);
        // Set beyond infinity it reaches to infinity, and as near as the blur allows.
        const beyondInfinity = vergence <= 0;
        const k = (N * left) / f;
        const near = beyondInfinity
          ? 1 / Math.max(1e-12, (1 - k / P) * vergence + k / f)
          : (landed * f * f) / (f * f + reach);
        const far = beyondInfinity || reach >= f * f ? Infinity : (landed * f * f) / (f * f - reach);
        const own = Math.max(sway(id), 1e-6);
        const upTo = far === Infinity ? 1 : jstat.normal.cdf(far - (furthest - nearer(id)), 0, own);
        product *= Math.max(0, upTo - jstat.normal.cdf(near - (nearest - nearer(id)), 0, own));
        if (product === 0) break;
      }
      sum += product;
    }
    return sum;
  };
  const beyond = lens.closestFocusMm - 2 * f;
  const x = beyond ** 2 > 4 * f * f && beyond > 0 ? (beyond + Math.sqrt(beyond ** 2 - 4 * f * f)) / 2 : f;
  return { f, N, P, C, at, odds, closest: x + f / P };
}

/** The camera of these setups is level and looks straight ahead. */
function beforeLens(setup: Setup, plan: Plan, { x, y, z }: Vector): Vector {
  return { x: x - setup.camera.lateralMm, y: y - setup.camera.heightMm, z: z + plan.distanceMm };
}

it('every number of a plan, and the choice of the target, agree with a second reading of the model', () => {
  let compared = 0;
  let contested = 0;
  fc.assert(
    fc.property(anySetup, (any) => {
      const { setup, kit } = any;
      const plan = planSetup({ setup, kit, stopStep: 'full', habits });
      if (plan.kind === 'noPlan') return;
      // Who is not in the picture does not decide, which is another story.
      const half = { x: plan.framedWidthMm / 2, y: plan.framedHeightMm / 2 };
      const isIn = ({ position }: Subject['points'][number]) => {
        const { x, y, z } = beforeLens(setup, plan, position);
        return Math.max(Math.abs(x) / half.x, Math.abs(y) / half.y) < (0.98 * z) / plan.distanceMm;
      };
      if (!plan.subjects.every((item) => item.points.every(isIn))) return;
      const decisive = decisiveOf(plan.subjects);
      for (const entry of [plan.stops[0], plan.stops[2], plan.stops[plan.selected]]) {
        if (!entry) throw new Error('no stop');
        compared += 1;
        const { f, N, C, at, odds, closest } = reference(any, plan, entry);
        const { focusDistanceMm: s, position, point, recomposed } = entry.target;
        // Where no point of the body reaches, the camera is turned at the wrists all the same.
        if (recomposed && !recomposed.asked) return;
        const place = position && beforeLens(setup, plan, position);
        const here = at(s, place, point?.sensitive ?? true);
        expect(entry.planeMm).toBeCloseTo(here.plane, 6);
        for (const [name, disc] of Object.entries(here.causes)) {
          expect(entry.causes[name as keyof StopPlan['causes']], name).toBeCloseTo(disc / C, 3);
        }
        expect(entry.lensRatio).toBeCloseTo(here.common / C, 3);
        expect(entry.allowanceMm).toBeCloseTo(Math.sqrt(Math.max(0, C ** 2 - here.common ** 2)), 4);
        expect(entry.scatter.focusMm).toBeCloseTo(here.spread.focusMm, 6);
        expect(entry.scatter.holdMm).toBeCloseTo(here.spread.holdMm, 9);

        plan.subjects.forEach((subject, i) =>
          subject.points.forEach((item, j) =>
            expect(entry.sharpness[i]?.[j]?.ratio).toBeCloseTo(here.ratio(subject.id, item.depth), 3)
          )
        );
        const worst = Math.max(
          ...decisive.flatMap((item) =>
            item.points.filter((other) => other.required).map((other) => here.ratio(item.id, other.depth))
          )
        );
        expect(entry.worst.ratio).toBeCloseTo(worst, 3);

        const depth = (setup.backgrounds[0]?.depthMm ?? 0) + plan.distanceMm;
        const lost = (f / N) * Math.abs(depth / here.plane - 1);
        expect(entry.backgrounds[0]?.lostDetailMm).toBeCloseTo(lost, 6);
        expect(entry.backgrounds[0]?.ratio).toBeCloseTo(here.ratio('', depth), 3);

        // The chosen place's odds; and no near eye has better ones by more than what counts as equal.
        const there = entry.landings.map(({ depth, chance }) =>
          depth < closest ? 0 : chance * odds(at(depth, place, point?.sensitive ?? true), decisive)
        );
        const landed = there.reduce((sum, item) => sum + item, 0);
        expect(entry.landings.reduce((sum, { chance }) => sum + chance, 0)).toBeCloseTo(1, 9);
        expect(entry.odds).toBeCloseTo(landed, 2);
        const own = odds(here, decisive);
        expect(entry.oddsOnTarget).toBeCloseTo(own, 2);
        const near = decisive.flatMap((item) =>
          item.points.filter(({ target, role }) => target && (role === 'nearEye' || role === 'nearSide'))
        );
        for (const eye of near.filter((item) => item.depth >= closest && !plan.hidden.includes(item.feature))) {
          const there = at(eye.depth, beforeLens(setup, plan, eye.position));
          if (odds(there, decisive) > own - 0.03 && eye.depth !== s) contested += 1;
          expect(odds(there, decisive)).toBeLessThanOrEqual(own + 0.105);
        }

        const clear = Math.abs(entry.oddsOnTarget - plan.oddsWanted) > 0.01 && Math.abs(worst - 1) > 0.01;
        if (clear) expect(entry.facesHold).toBe(worst <= 1 && own >= plan.oddsWanted);

        const eyes = decisive.filter((item) => setup.people.some(({ id, being }) => id === item.id && being !== 'pet'));
        const open = (1 - (0.2 + entry.light.shutterS) / 5) ** eyes.length;
        expect(entry.frames.eyesOpen).toBeCloseTo(open, 9);
        const chance = entry.odds * open;
        for (const [frames, wanted] of [
          [entry.frames.for95, 0.95],
          [entry.frames.for99, 0.99]
        ] as const) {
          if (frames === null) expect(1 - (1 - chance) ** 20).toBeLessThan(wanted);
          else {
            expect(1 - (1 - chance) ** frames).toBeGreaterThanOrEqual(wanted - 1e-9);
            if (frames > 1) expect(1 - (1 - chance) ** (frames - 1)).toBeLessThan(wanted);
          }
        }
      }

      // Who is most likely to be missed, alone.
      const inUse = plan.stops[plan.selected];
      if (!inUse) throw new Error('no stop');
      const { at, odds } = reference(any, plan, inUse);
      const { focusDistanceMm, position, point } = inUse.target;
      const here = at(focusDistanceMm, position && beforeLens(setup, plan, position), point?.sensitive ?? true);
      const alone = decisive.map((item) => ({ id: item.id, odds: odds(here, [item]) }));
      const least = Math.min(...alone.map((item) => item.odds));
      expect(alone.find((item) => item.id === plan.weakest.subjectId)?.odds).toBeLessThanOrEqual(least + 0.005);
      expect(plan.weakest.odds).toBeCloseTo(least, 2);
    }),
    { numRuns: runs(40) }
  );
  expect(compared).toBeGreaterThan(runs(45) - 4);
  expect(contested).toBeGreaterThan(runs(10) - 4);
});
