/**
 * Every number of a plan against a second reading of the model: the textbook formulas written out once more, the odds by
 * plain summation with a general-purpose statistics package, the target by trying every one.
 */
import fc from 'fast-check';
import jstat from 'jstat';
import { expect, it } from 'vitest';
import { runs } from '../testing/runs';
import { defaultHabits, type Habits } from '../habits/habits';
import { builtInKit } from '../kit/builtInKit';
import { defaultLight, newBackground, newPerson, newSetup, newThing } from '../setup/defaults';
import type { Person, Setup } from '../setup/schema';
import type { Subject } from '../setup/scene';
import type { Plan, StopPlan } from './plan';
import { planSetup } from './planSetup';

/** No figure like its default, so that each is seen to count. */
const habits: Habits = {
  ...defaultHabits,
  focusShare: { crossPoint: 0.2, ordinaryPoint: 0.4, magnifier: 0.3, byEye: 0.8 },
  lowLightFactor: 1.7,
  holdMm: { standing: 9, braced: 6, kneeling: 5, monopod: 2, tripod: 1 },
  swayGrowsForS: 1.5,
  swayMm: { standing: 6, seated: 4, embracing: 2, child: 14, pet: 17 },
  shakeShare: { standing: 0.9, braced: 0.6, kneeling: 0.4, monopod: 0.3, tripod: 0.1 },
  continuousLagS: 0.07
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
    acrossMmPerS: fc.constantFrom(0, 0, 0, 90)
  } as const)
  .map((changes) => newPerson('p', 'P', changes));

const anySetup = fc
  .record({
    people: fc.array(anyPerson, { minLength: 1, maxLength: 4 }),
    thing: fc.boolean(),
    wish: fc.constantFrom('hide', 'hint', 'keep', 'free'),
    behindMm: fc.integer({ min: 100, max: 20_000 }),
    lens: fc.constantFrom(...builtInKit.lenses),
    body: fc.constantFrom(...builtInKit.bodies),
    distanceMm: fc.integer({ min: 1500, max: 5000 }),
    stance: fc.constantFrom('standing', 'braced', 'kneeling', 'monopod', 'tripod'),
    focusMethod: fc.constantFrom('crossPoint', 'ordinaryPoint', 'magnifier', 'byEye'),
    focusMode: fc.constantFrom('single', 'continuous'),
    secondsToShutter: fc.constantFrom(0.3, 1, 4),
    ev100: fc.constantFrom(null, 3, 4, 5, 11),
    flash: fc.boolean()
  } as const)
  .map((any): Setup => {
    const base = newSetup('s', 'S');
    const { stance, focusMethod, focusMode, secondsToShutter, ev100 } = any;
    return {
      ...base,
      people: any.people.map((person, index) => ({ ...person, id: `p${index}` })),
      things: any.thing ? [newThing('t', 'T', { depthMm: -150, deepMm: 60 })] : [],
      backgrounds: [newBackground('b', 'B', { depthMm: any.behindMm, wish: any.wish, detailMm: 30 })],
      light: {
        ...defaultLight,
        level: ev100 === null ? { kind: 'unknown' } : { kind: 'ev', ev100 },
        flash: any.flash ? { guideNumberM: 40, distanceMm: 2500 } : null
      },
      camera: {
        ...base.camera,
        ...{ stance, focusMethod, focusMode, secondsToShutter },
        lensId: any.lens.id,
        bodyId: any.body.id,
        focalLengthMm: any.lens.shortestMm,
        placement: { kind: 'distance', distanceMm: any.distanceMm }
      }
    };
  });

const wideOpenDisc = { crisp: 0.01, ordinary: 0.016, weakWideOpen: 0.04 };

/** Who decides: those who must be sharp, else those who should, else everybody. */
function decisiveOf(subjects: readonly Subject[]): readonly Subject[] {
  const must = subjects.filter((item) => item.importance === 'must');
  const should = subjects.filter((item) => item.importance === 'should');
  return must.length > 0 ? must : should.length > 0 ? should : subjects;
}

function reference(setup: Setup, plan: Plan, entry: StopPlan) {
  const { camera } = setup;
  const body = builtInKit.bodies.find((item) => item.id === camera.bodyId) ?? builtInKit.bodies[0];
  const lens = builtInKit.lenses.find((item) => item.id === camera.lensId) ?? builtInKit.lenses[0];
  if (!body || !lens) throw new Error('kit');
  const f = camera.focalLengthMm;
  const N = entry.stop.fNumber;
  const open = plan.stops[0]?.stop.fNumber ?? N;
  const C = (0.03 * Math.hypot(body.sensor.widthMm, body.sensor.heightMm)) / Math.hypot(36, 24);
  const { shutterS, flash } = entry.light;
  // The room's light two stops or more under the flash no longer shows.
  const frozen = flash !== null && (flash.ambientUnderStops === null || flash.ambientUnderStops >= 2);
  const person = (id: string): Person | undefined => setup.people.find((item) => item.id === id);
  const scene = setup.light.level.kind === 'ev' ? setup.light.level.ev100 : null;

  const at = (s: number) => {
    const m = f / (s - f);
    const causes = {
      lens: Math.hypot(0.007, wideOpenDisc[lens.character] / (N / open) ** 2),
      diffraction: 1.745 * 0.00055 * N * (1 + m),
      pixels: (1.17 * body.sensor.widthMm) / body.sensor.pixelsWide,
      shake: frozen ? 0 : (0.03 * shutterS * f * habits.shakeShare[camera.stance]) / 2 ** body.stabiliserStops
    };
    const common = Math.hypot(causes.lens, causes.diffraction, causes.pixels, causes.shake);
    const moving = (id: string) => (frozen ? 0 : 1.17 * (person(id)?.acrossMmPerS ?? 0) * shutterS * m);
    const defocus = (z: number, focus = s) => ((f * f) / (N * (s - f))) * Math.abs(1 - focus / z);
    const ratio = (id: string, z: number) => Math.hypot(defocus(z), common, moving(id)) / C;
    const spread = {
      focusMm:
        ((habits.focusShare[camera.focusMethod] * open * C) / m ** 2) *
        (scene !== null && scene <= 4 ? habits.lowLightFactor : 1),
      holdMm:
        camera.focusMode === 'continuous'
          ? 0
          : habits.holdMm[camera.stance] * Math.sqrt(Math.min(camera.secondsToShutter, habits.swayGrowsForS))
    };
    return { m, causes, common, moving, ratio, spread };
  };

  const sway = (id: string) => {
    const who = person(id);
    if (!who) return 0;
    if (who.swayMm !== null) return who.swayMm;
    if (who.being === 'pet') return habits.swayMm.pet;
    return who.being === 'adult' ? habits.swayMm[who.posture] : habits.swayMm.child;
  };

  /** Chance that all of them are sharp, summed over where the plane may land. */
  const odds = (s: number, members: readonly Subject[]) => {
    const { spread, common, moving } = at(s);
    const sigma = Math.hypot(spread.focusMm, spread.holdMm);
    const steps = 2000;
    let sum = 0;
    for (let i = 0; i <= steps; i++) {
      const x = -6 + (12 * i) / steps;
      const plane = s + sigma * x;
      let product = jstat.normal.pdf(x, 0, 1) * (12 / steps);
      for (const { id, nearest, furthest } of members) {
        const left = Math.sqrt(Math.max(0, C ** 2 - common ** 2 - moving(id) ** 2));
        if (left === 0) product = 0;
        // Conrad, Depth of Field in Depth (2006): near, far = s f²/(f² ± N c (s − f)).
        const reach = N * left * (plane - f);
        const near = (plane * f * f) / (f * f + reach);
        const far = reach >= f * f ? Infinity : (plane * f * f) / (f * f - reach);
        const lag = camera.focusMode === 'continuous' ? habits.continuousLagS : camera.secondsToShutter;
        const nearer = (person(id)?.towardsMmPerS ?? 0) * lag;
        const own = Math.max(sway(id), 1e-6);
        const upTo = far === Infinity ? 1 : jstat.normal.cdf(far - (furthest - nearer), 0, own);
        product *= Math.max(0, upTo - jstat.normal.cdf(near - (nearest - nearer), 0, own));
        if (product === 0) break;
      }
      sum += product;
    }
    return sum;
  };
  return { f, N, C, at, odds, scene, closest: Math.max(lens.closestFocusMm, f * 1.01) };
}

const importance = { must: 0, should: 1, maySoft: 2 };

it('every number of a plan, and the choice of the target, agree with a second reading of the model', () => {
  let compared = 0;
  let contested = 0;
  fc.assert(
    fc.property(anySetup, (setup) => {
      const plan = planSetup({ setup, kit: builtInKit, stopStep: 'full', habits });
      if (plan.kind === 'noPlan') return;
      const decisive = decisiveOf(plan.subjects);
      const points = decisive.flatMap((item) => item.points.filter((point) => point.required));
      for (const entry of [plan.stops[0], plan.stops[2], plan.stops[plan.selected]]) {
        if (!entry) throw new Error('no stop');
        compared += 1;
        const { f, N, C, at, odds, scene, closest } = reference(setup, plan, entry);
        const s = entry.target.focusDistanceMm;
        const here = at(s);
        for (const [name, disc] of Object.entries(here.causes)) {
          expect(entry.causes[name as keyof StopPlan['causes']], name).toBeCloseTo(disc / C, 3);
        }
        expect(entry.lensRatio).toBeCloseTo(here.common / C, 3);
        expect(entry.allowanceMm).toBeCloseTo(Math.sqrt(Math.max(0, C ** 2 - here.common ** 2)), 4);
        expect(entry.spread.focusMm).toBeCloseTo(here.spread.focusMm, 6);
        expect(entry.spread.holdMm).toBeCloseTo(here.spread.holdMm, 9);

        plan.subjects.forEach((subject, i) =>
          subject.points.forEach((point, j) =>
            expect(entry.sharpness[i]?.[j]?.ratio).toBeCloseTo(here.ratio(subject.id, point.depth), 3)
          )
        );
        const worst = Math.max(
          ...decisive.flatMap((item) =>
            item.points.filter((point) => point.required).map((point) => here.ratio(item.id, point.depth))
          )
        );
        expect(entry.worst.ratio).toBeCloseTo(worst, 3);
        const named = decisive.find((item) => item.id === entry.worst.subjectId);
        const namedPoint = named?.points.find((point) => point.role === entry.worst.role && point.required);
        expect(here.ratio(entry.worst.subjectId, namedPoint?.depth ?? 0)).toBeCloseTo(worst, 3);

        const behind = (setup.backgrounds[0]?.depthMm ?? 0) + plan.distanceMm;
        const lost = (f / N) * Math.abs(behind / s - 1);
        expect(entry.backgrounds[0]?.lostDetailMm).toBeCloseTo(lost, 6);
        expect(entry.backgrounds[0]?.ratio).toBeCloseTo(here.ratio('', behind), 3);

        // Odds: the chosen target's, and nobody's are better by more than what counts as equal.
        const eyes = decisive.flatMap((item) =>
          item.points.filter((point) => point.target).map(({ depth }) => ({ depth, rank: importance[item.importance] }))
        );
        const depths = decisive.flatMap((item) => [item.nearest, item.furthest]);
        const between = { depth: 2 / (1 / Math.min(...depths) + 1 / Math.max(...depths)), rank: 3 };
        const byHand = setup.camera.focusMethod === 'magnifier' || setup.camera.focusMethod === 'byEye';
        const all = [...eyes, ...(byHand ? [between] : [])].filter((point) => point.depth >= closest);
        expect(entry.odds).toBeCloseTo(odds(s, decisive), 2);
        const tried = all.map((point) => {
          const there = at(point.depth);
          const ratio = Math.max(
            ...decisive.flatMap((item) => [there.ratio(item.id, item.nearest), there.ratio(item.id, item.furthest)])
          );
          return { point, odds: odds(point.depth, decisive), ratio };
        });
        const most = Math.max(...tried.map((item) => item.odds));
        expect(entry.odds).toBeGreaterThanOrEqual(most - 0.02);
        // Among those as good, the least blurred; among those as sharp, the nearest of the most important.
        if (all.length > 1) {
          const asGood = tried.filter((item) => item.odds >= most - 0.01);
          const least = Math.min(...asGood.map((item) => item.ratio));
          const chosen = tried.find((item) => item.point.depth === s);
          expect(chosen?.ratio ?? 0).toBeLessThanOrEqual(least + 0.051);
          // Of more than three, only those that share the blur most evenly are looked at.
          if (all.length <= 3) {
            const asSharp = asGood.filter((item) => item.ratio <= least + 0.04);
            const rank = Math.min(...asSharp.map((item) => item.point.rank));
            expect(chosen?.point.rank ?? 9).toBeLessThanOrEqual(rank);
            const nearest = Math.min(
              ...asSharp.filter((item) => item.point.rank === rank).map((item) => item.point.depth)
            );
            if (chosen?.point.rank === rank) expect(s).toBeLessThanOrEqual(nearest);
            if (asSharp.length > 1) contested += 1;
          }
        }

        const twoDecimals = Math.abs(entry.odds - plan.oddsWanted) > 0.01 && Math.abs(worst - 1) > 0.01;
        if (twoDecimals) expect(entry.facesHold).toBe(worst <= 1 && odds(s, decisive) >= plan.oddsWanted);

        const { for95, for99, forBlinks, toShoot } = entry.frames;
        const sees = setup.people.filter((item) => item.being !== 'pet' && item.importance !== 'maySoft').length;
        expect(forBlinks).toBe(Math.max(1, Math.ceil(sees / (scene !== null && scene <= 4 ? 2 : 3))));
        for (const [frames, wanted] of [
          [for95, 0.95],
          [for99, 0.99]
        ] as const) {
          if (frames === null) expect(entry.odds).toBe(0);
          else {
            expect(1 - (1 - entry.odds) ** frames).toBeGreaterThanOrEqual(wanted - 1e-9);
            if (frames > 1) expect(1 - (1 - entry.odds) ** (frames - 1)).toBeLessThan(wanted);
          }
        }
        expect(toShoot).toBe(for95 === null ? null : Math.max(for95, forBlinks));
      }

      // Who is most likely to be missed, alone.
      const inUse = plan.stops[plan.selected];
      if (!inUse) throw new Error('no stop');
      const { odds } = reference(setup, plan, inUse);
      const alone = decisive.map((item) => ({ id: item.id, odds: odds(inUse.target.focusDistanceMm, [item]) }));
      const least = Math.min(...alone.map((item) => item.odds));
      expect(alone.find((item) => item.id === plan.weakest.subjectId)?.odds).toBeLessThanOrEqual(least + 0.005);
      expect(points.length).toBeGreaterThan(0);
    }),
    { numRuns: runs(30) }
  );
  expect(compared).toBeGreaterThan(runs(60) - 4);
  expect(contested).toBeGreaterThan(runs(10) - 4);
});
