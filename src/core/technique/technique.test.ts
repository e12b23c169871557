import { describe, expect, it } from 'vitest';
import { defaultHabits } from '../habits/habits';
import { demoJobs } from '../job/demo';
import { builtInKit } from '../kit/builtInKit';
import type { Kit } from '../kit/schema';
import { lensStops, type Stop } from '../optics/stops';
import { newBackground, newPerson, newSetup, newThing } from '../setup/defaults';
import type { Camera, Person, Setup } from '../setup/schema';
import { demoSetup, inPrint } from '../testing/demo';
import { planSetup } from '../call/planSetup';
import type { Plan } from '../call/plan';
import { oddsOverTime } from './hold';
import { muzzlesOf, phoneFacts, subjectWays } from './specialCases';
import { pointAdvice } from './point';
import { waysToReach } from './reach';
import { recomposing } from './recomposing';
import { judgedRules, type RuleKind } from './rules';
import { stitchFramesFor, stitching } from './stitching';
import { techniqueOf } from './technique';
import { trapFor } from './trap';
import { waysToFocus, type WayKind } from './ways';

const inputOf = (setup: Setup, kit: Kit = builtInKit) =>
  ({ setup, kit, stopStep: 'third', habits: defaultHabits }) as const;

/** A stop of the 85 f/1.4. */
function stopAt(label: string): Stop {
  const stop = lensStops(1.4, 16, 'third').find((item) => item.label === label);
  if (!stop) throw new Error(`no f/${label}`);
  return stop;
}

function setupOf(people: readonly Person[], camera: Partial<Camera> = {}, changes: Partial<Setup> = {}): Setup {
  const base = newSetup('s', 'S', { people: [...people], backgrounds: [], ...changes });
  return {
    ...base,
    camera: { ...base.camera, heightMm: 1572, placement: { kind: 'distance', distanceMm: 2500 }, ...camera }
  };
}

function planned(setup: Setup, kit: Kit = builtInKit): Plan {
  const plan = planSetup(inputOf(setup, kit));
  if (plan.kind === 'noPlan') throw new Error(plan.reason.code);
  return plan;
}

const ada = newPerson('ada', 'Ada');

describe('ways of focusing', () => {
  const ways = (setup: Setup, label = '2') => waysToFocus(inputOf(setup), stopAt(label));
  const kinds = (setup: Setup) => ways(setup).map(({ kind }) => kind);
  const of = (setup: Setup, kind: WayKind, label?: string) => {
    const way = ways(setup, label).find((item) => item.kind === kind);
    if (!way) throw new Error(`no ${kind}`);
    return way;
  };

  it('come best first, one of them in use; what the camera is set to is among them', () => {
    for (const { setups } of demoJobs()) {
      for (const setup of setups.slice(0, 8)) {
        const plan = planned(setup);
        const entry = plan.stops[plan.selected];
        if (!entry) throw new Error('no stop');
        const found = waysToFocus(inputOf(setup), entry.stop);
        // Turning after focusing has to gain three in a hundred to come first.
        const odds = found.map((way) => Math.round(way.odds * 100) - (way.kind === 'turn' && !way.inUse ? 3 : 0));
        expect(odds, setup.name).toEqual([...odds].sort((a, b) => b - a));
        const inUse = found.filter((way) => way.inUse);
        expect(inUse, setup.name).toHaveLength(1);
        // The table and the call say the same of the same.
        expect(inUse[0]?.odds, setup.name).toBeCloseTo(entry.odds, 9);
      }
    }
  });

  it('count what focusing by hand takes: by eye half are lost wide open, magnified one sways meanwhile', () => {
    const wide = setupOf([ada], {
      placement: { kind: 'framing', framing: 'headAndShoulders' }
    });
    const close: Setup = { ...wide, intent: { ...wide.intent, viewing: { kind: 'close' } } };
    const of = (kind: WayKind, setup = close) =>
      waysToFocus(inputOf(setup), stopAt('1.4')).find((way) => way.kind === kind);
    expect(of('byEye')?.odds).toBeLessThan(0.5);
    const magnified = of('magnifier');
    expect(magnified?.odds).toBeLessThan(of('onePoint')?.odds ?? 0);
    // On a tripod, of a face that does not move, it is what magnifying is good for.
    const rested = { ...ada, swayMm: 0 };
    const still = { ...close, people: [rested], camera: { ...close.camera, stance: 'tripod' as const } };
    expect(of('magnifier', still)?.odds).toBeGreaterThan(Math.max(0.95, magnified?.odds ?? 1));
  });

  it('are those the body has: an SLR finds no eyes, a phone is tapped, the smallest point only where there is one', () => {
    expect(kinds(setupOf([ada]))).toContain('eyeDetection');
    expect(kinds(setupOf([ada]))).toContain('pinpoint');
    const slr = kinds(setupOf([ada], { bodyId: 'body-full-slr' }));
    expect(slr).not.toContain('eyeDetection');
    expect(slr).not.toContain('pinpoint');
    const phone = setupOf([ada], { bodyId: 'body-phone', lensId: 'lens-phone', focalLengthMm: 6.8 });
    const stop = planned(phone).stops[0]?.stop;
    const onPhone = stop ? waysToFocus(inputOf(phone), stop).map(({ kind }) => kind) : [];
    expect(onPhone).toContain('tap');
    expect(onPhone).not.toContain('zone');
  });

  it('add up: what is sharp, by what was landed on, is the odds; what is not, the rest', () => {
    for (const way of ways(demoSetup('Under the palms'))) {
      const sum = (of: 'sharp' | 'missed') => way.parts.reduce((total, part) => total + part[of], 0);
      // Planes that lie together are one for the odds.
      expect(sum('sharp')).toBeCloseTo(way.odds, 2);
      expect(sum('sharp') + sum('missed')).toBeCloseTo(1, 6);
    }
  });

  it('continuous is a little worse than single on what stands still, and all the better on what walks (common practice)', () => {
    expect(of(setupOf([ada]), 'continuous').odds).toBeLessThanOrEqual(of(setupOf([ada]), 'onePoint').odds);
    const walking = setupOf([{ ...ada, towardsMmPerS: 1200 }], {
      focusMode: 'continuous',
      placement: { kind: 'distance', distanceMm: 6000 }
    });
    expect(of(walking, 'continuous', '2.8').odds).toBeGreaterThan(of(walking, 'onePoint', '2.8').odds + 0.3);
  });

  it('one press takes one: its setup, planned, has just those odds', () => {
    const setup = demoSetup('Family on the steps');
    const stop = planned(setup).stops[planned(setup).selected]?.stop;
    if (!stop) throw new Error('no stop');
    for (const way of waysToFocus(inputOf(setup), stop)) {
      const plan = planned(way.setup);
      const there = plan.stops.find((entry) => entry.stop.label === stop.label);
      expect(there?.odds, way.kind).toBeCloseTo(way.odds, 9);
    }
  });
});

describe('the point against the face', () => {
  it('is as large there as the body makes it: its share of the long edge at the distance', () => {
    // Small is 2% of 36 mm: at 2.5 m with an 85, times (2500 − 85)/85.
    const advice = pointAdvice(inputOf(setupOf([ada])), stopAt('2'));
    const small = advice?.sizes.find(({ size }) => size === 'small');
    expect(small?.edgeMm).toBeCloseTo((0.72 * (2500 - 85)) / 85, 0);
  });

  it('says how far the named point lies from the eye: within half a step of the grid, less on the finer one', () => {
    const off = (fineGrid: boolean) => {
      const advice = pointAdvice(inputOf(setupOf([ada], { fineGrid })), stopAt('2'));
      if (!advice) throw new Error('no point');
      return Math.hypot(advice.offMm.right, advice.offMm.up);
    };
    const step = (0.92 * 36) / 12;
    const atFace = (mm: number) => (mm * (2500 - 85)) / 85;
    expect(off(false)).toBeLessThanOrEqual(atFace(step) / Math.SQRT2);
    expect(off(true)).toBeLessThanOrEqual(atFace(step / 2) / Math.SQRT2);
  });

  it('put anywhere lies on the eye', () => {
    const [main] = builtInKit.bodies;
    if (!main) throw new Error('no body');
    const free = { ...main, focusGrid: { ...main.focusGrid, anywhere: true } };
    const kit = { ...builtInKit, bodies: [free] };
    const advice = pointAdvice(inputOf(setupOf([ada]), kit), stopAt('2'));
    expect(advice?.offMm.right).toBeCloseTo(0, 6);
    expect(advice?.offMm.up).toBeCloseTo(0, 6);
  });

  it('covers more the larger it is, and what stands behind a head too', () => {
    const setup = setupOf([ada], {}, { backgrounds: [newBackground('wall', 'wall', { surface: 'brick' })] });
    const advice = pointAdvice(inputOf({ ...setup, camera: { ...setup.camera, pointSize: 'large' } }), stopAt('2'));
    const fits = advice?.sizes ?? [];
    for (const [index, fit] of fits.entries()) {
      const before = fits[index - 1];
      if (before) expect(fit.furthestMm).toBeGreaterThanOrEqual(before.furthestMm - 1);
    }
    expect(fits[0]?.others).toEqual([]);
    expect(fits.at(-1)?.others.length).toBeGreaterThan(2);
  });
});

describe('moving the point or recomposing', () => {
  const aside = setupOf([{ ...ada, lateralMm: 350 }]);

  it('costs R (1 − cos θ) behind, nearly the same whichever pivot (closed form)', () => {
    const found = recomposing(inputOf(aside), stopAt('1.4'));
    if (!found) throw new Error('nothing to turn');
    const eye = Math.hypot(350 - 31.5, 2500);
    expect(found.turnDeg).toBeCloseTo((Math.atan2(350 - 31.5, 2500) * 180) / Math.PI, 0);
    for (const { pivot, shiftMm } of found.byPivot) {
      const r = { wrists: 120, shoulders: 250, waist: 600 }[pivot];
      // The target at (x, z): hypot(x, z + r) − (z + r).
      const x = Math.sqrt(eye ** 2 - 2500 ** 2);
      expect(shiftMm, pivot).toBeCloseTo(Math.hypot(x, 2500 + r) - (2500 + r), 0);
    }
    const shifts = found.byPivot.map(({ shiftMm }) => shiftMm);
    expect(Math.max(...shifts) / Math.min(...shifts)).toBeLessThan(1.25);
    // Leaning is the danger.
    expect(found.leaning.shiftMm).toBeGreaterThan(Math.max(...shifts) + 20);
    expect(found.leaning.odds).toBeLessThan(found.byPivot[0]?.odds ?? 0);
  });

  it('is safe from some stop on, sooner for the wrists than for leaning', () => {
    const at = (label: string) => recomposing(inputOf(aside), stopAt(label));
    expect(Number(at('2')?.leaningSafeFrom)).toBeGreaterThan(Number(at('2')?.safeFrom));
  });

  it('refocuses, let go, on what is then in the middle', () => {
    const wall = newBackground('wall', 'wall', { surface: 'brick', depthMm: 3000 });
    const found = recomposing(inputOf({ ...aside, backgrounds: [wall] }), stopAt('2'));
    expect(found?.refocus).toMatchObject({ kind: 'background', id: 'wall' });
  });
});

describe('an eye out of reach', () => {
  // Points over half of the frame's width only.
  const far = setupOf([{ ...ada, lateralMm: 330 }], { bodyId: 'body-full-slr' });

  it('is reached by framing otherwise, by a crop from further back, by turning, by hand; none loses somebody before another', () => {
    const ways = waysToReach(inputOf(far), stopAt('2'));
    expect(ways.map(({ kind }) => kind).sort()).toEqual(['byHand', 'crop', 'reframe', 'turn']);
    const crop = ways.find(({ kind }) => kind === 'crop');
    const share = Math.sqrt(crop?.pixels ?? 0);
    // From d/share away the wanted picture fills that share of the frame.
    expect(crop?.backMm).toBeCloseTo(2500 / share - 2500, 3);
    for (const way of ways) expect(way.odds).toBeGreaterThan(0);
    for (const { kind, setup } of ways) {
      const target = planned(setup).stops[2]?.target;
      if (kind === 'crop' || kind === 'reframe') expect(target?.point, kind).not.toBeNull();
    }
  });

  it('is nothing to speak of where a point lies on it', () => {
    expect(waysToReach(inputOf(setupOf([ada])), stopAt('2'))).toEqual([]);
  });
});

describe('rules of thumb', () => {
  const rules = (setup: Setup) => judgedRules(inputOf(setup));
  const rule = (setup: Setup, kind: RuleKind) => {
    const found = rules(setup).find((item) => item.rule === kind);
    if (!found) throw new Error(`no ${kind}`);
    return found;
  };
  const rows = (depths: readonly number[]) =>
    setupOf(
      depths.map((depthMm, index) => newPerson(`p${index}`, `P${index}`, { depthMm, lateralMm: 300 * index - 300 })),
      {
        placement: { kind: 'distance', distanceMm: 5000 }
      }
    );

  it('of two rows focus on the front one, of more on the middle one, or a third into the depth (common practice, no source)', () => {
    expect(rule(rows([0, 800]), 'frontOfTwo').target.subjectId).toBe('p0');
    expect(rule(rows([0, 800, 1600]), 'middleRow').target.subjectId).toBe('p1');
    const third = rule(rows([0, 900]), 'thirdIn').target.focusDistanceMm;
    expect(third).toBeGreaterThan(5290);
    expect(third).toBeLessThan(5310);
    expect(rule(rows([0, 900]), 'nearestFace').target.subjectId).toBe('p0');
    expect(rules(rows([0])).map((item) => item.rule)).not.toContain('frontOfTwo');
  });

  it('cost the stops from where the call holds the faces to where the rule does', () => {
    const setup = rows([0, 0, 1200, 1200]);
    const plan = planned(setup);
    const needed = plan.stops.findIndex((item) => item.facesHold);
    const labels = plan.stops.map((item) => item.stop.label);
    const [front, third] = [rule(setup, 'frontOfTwo'), rule(setup, 'thirdIn')];
    expect(front.costStops).toBeCloseTo((labels.indexOf(front.holdsFrom ?? '') - needed) / 3, 9);
    expect(front.costStops ?? 0).toBeGreaterThan(third.costStops ?? 0);
  });

  it('of the stop: wide open, two stops down, f/8, one stop for each row', () => {
    const setup = rows([0, 800]);
    expect(rule(setup, 'wideOpen').stop.label).toBe('1.4');
    expect(rule(setup, 'twoStopsDown').stop.label).toBe('2.8');
    expect(rule(setup, 'alwaysEight').stop.label).toBe('8');
    expect(rule(setup, 'stopPerRow').stop.label).toBe('2.8');
  });

  it('say what they give: taken over, the plan has those odds', () => {
    const setup = demoSetup('Family on the steps');
    for (const item of rules(setup)) {
      const plan = planned(item.setup);
      const entry = plan.stops.find(({ stop }) => stop.label === item.stop.label);
      expect(entry?.odds, item.rule).toBeCloseTo(item.odds, 2);
    }
  });
});

describe('holding, and waiting at a mark', () => {
  it('loses with time, the less the steadier the stance, and not at all for whoever is not waited for', () => {
    const hold = oddsOverTime(
      inputOf(setupOf([ada], { placement: { kind: 'distance', distanceMm: 1500 } })),
      stopAt('1.4')
    );
    const line = (stance: string) => hold?.lines.find((item) => item.stance === stance)?.odds ?? [];
    for (const stance of ['standing', 'tripod']) {
      const odds = line(stance);
      expect(odds.every((item, index) => index === 0 || item <= (odds[index - 1] ?? 0) + 1e-9)).toBe(true);
    }
    expect(line('tripod').at(-1)).toBeGreaterThan(line('standing').at(-1) ?? 1);
    expect(oddsOverTime(inputOf(setupOf([{ ...ada, towardsMmPerS: 800 }])), stopAt('2'))).toBeNull();
  });

  it('at a mark: time in the zone, frames inside and where to press follow from the pace (closed form)', () => {
    const setup = setupOf([{ ...ada, towardsMmPerS: 1200, sharp: 'nearEye' }], {
      placement: { kind: 'distance', distanceMm: 5000 }
    });
    const trap = trapFor(inputOf(setup), stopAt('2.8'));
    if (!trap) throw new Error('no trap');
    expect(trap.sharpForS).toBeCloseTo(trap.sharpForMm / 1200, 9);
    // 8 frames a second, 150 mm apart; reaction 0.22 s and release 0.06 s before.
    expect(trap.framesInside).toBeCloseTo(trap.sharpForMm / 150, 9);
    expect(trap.pressBeforeMm).toBeCloseTo(1200 * 0.28, 6);
    expect(trap.framesPerSecondNeeded).toBeCloseTo(1200 / trap.sharpForMm, 9);
    expect(trapFor(inputOf(setupOf([ada])), stopAt('2'))).toBeNull();
  });

  it('across the picture: the blur grows with the shutter time, and the time said leaves it its share', () => {
    const setup = setupOf([{ ...ada, acrossMmPerS: 400 }], { placement: { kind: 'distance', distanceMm: 4000 } });
    const slow: Setup = { ...setup, light: { ...setup.light, shutterS: 1 / 60 } };
    const across = techniqueOf(inputOf(slow))?.across;
    if (!across) throw new Error('nobody moves');
    const m = 85 / (4000 - 85);
    // 1.17 × speed × time × magnification over the disc of 0.030 mm.
    expect(across.ratio).toBeCloseTo((1.17 * 400 * (1 / 60) * m) / 0.03, 1);
    const share = across.ratio * (across.stillS / across.shutterS);
    expect(share).toBeLessThanOrEqual(defaultHabits.shakeAtMost * 1.04);
    expect(share).toBeGreaterThan(defaultHabits.shakeAtMost * 0.75);
    expect(techniqueOf(inputOf(setupOf([ada])))?.across).toBeNull();
  });

  it('refuses who would have walked into the camera', () => {
    const setup = setupOf([{ ...ada, towardsMmPerS: 6000 }], { secondsToShutter: 1 });
    expect(planSetup(inputOf(setup))).toMatchObject({ kind: 'noPlan', reason: { code: 'behindCamera', name: 'Ada' } });
  });
});

describe('flows of their own', () => {
  it('a stitched view has frames enough for the angle, the subject first, then round it', () => {
    // α (1 + (n − 1)(1 − o)) ≥ wanted.
    for (const [wanted, frame, overlap] of [
      [60, 16, 0.3],
      [16, 16, 0.3],
      [100, 24, 0.5]
    ] as const) {
      const n = stitchFramesFor(wanted, frame, overlap);
      expect(frame * (1 + (n - 1) * (1 - overlap))).toBeGreaterThanOrEqual(wanted - 1e-9);
      if (n > 1) expect(frame * (1 + (n - 2) * (1 - overlap))).toBeLessThan(wanted);
    }
    const nave = demoSetup('The whole nave');
    const [body] = builtInKit.bodies;
    if (!body) throw new Error('no body');
    const found = stitching({ body, camera: nave.camera, N: 1.4, focusMm: 5500, at: { x: 0.5, y: 0.6 } });
    if (!found) throw new Error('not stitched');
    expect(found.frames).toHaveLength(12);
    const [first, second] = found.frames;
    // The subject lies in the first; all of them together fill the picture.
    expect(first?.box.left).toBeLessThan(0.5);
    expect(first?.box.right).toBeGreaterThan(0.5 - 1e-9);
    expect(first?.box.top).toBeLessThan(0.6);
    expect(first?.box.bottom).toBeGreaterThan(0.6);
    const edges = found.frames.map(({ box }) => box);
    expect(Math.min(...edges.map(({ left }) => left))).toBeCloseTo(0, 9);
    expect(Math.max(...edges.map(({ right }) => right))).toBeCloseTo(1, 9);
    expect(Math.max(...edges.map(({ bottom }) => bottom))).toBeCloseTo(1, 9);
    expect(Math.abs((second?.column ?? 9) - (first?.column ?? 0))).toBeLessThanOrEqual(1);
    expect(new Set(found.frames.map(({ column, row }) => `${column} ${row}`)).size).toBe(12);
  });

  it('thing, person or both: each with a stop and light of its own, the deeper the narrower', () => {
    const ways = subjectWays(inputOf(demoSetup('Rings')));
    expect(ways.map(({ subject }) => subject)).toEqual(['thing', 'person', 'both']);
    expect(ways.filter(({ inUse }) => inUse).map(({ subject }) => subject)).toEqual(['thing']);
    const [thing, , both] = ways;
    expect(both?.stop.fNumber).toBeGreaterThan(thing?.stop.fNumber ?? 99);
    expect(thing?.otherBlur).toBeGreaterThan(0.01);
    expect(subjectWays(inputOf(setupOf([ada])))).toEqual([]);
    expect(subjectWays(inputOf(setupOf([], {}, { things: [newThing('t', 'T')] })))).toEqual([]);
  });

  it('a muzzle needs stops more than the eye behind it', () => {
    const [pilot] = muzzlesOf(inputOf(inPrint(demoSetup('Gran Marguerite and Pilot'))));
    expect(pilot?.name).toBe('Pilot');
    expect(pilot?.noseFrom?.fNumber).toBeGreaterThan((pilot?.eyesFrom?.fNumber ?? 99) * 2);
  });

  it('a phone is said to blur as a full-frame lens of its crop factor times the f-number', () => {
    const facts = phoneFacts(inputOf(demoSetup('Through the ferns')));
    const crop = Math.hypot(36, 24) / Math.hypot(9.8, 7.3);
    expect(facts?.equivalentN).toBeCloseTo(2 * Math.SQRT2 * crop, 6);
    expect(facts?.equivalentMm).toBeCloseTo(19.6 * crop, 6);
    expect(phoneFacts(inputOf(setupOf([ada])))).toBeNull();
  });

  it('all of it is found for every demo setup', () => {
    for (const { setups } of demoJobs()) {
      for (const setup of setups) {
        const found = techniqueOf(inputOf(setup));
        expect(found?.ways.length, setup.name).toBeGreaterThan(2);
        expect(found?.rules.length, setup.name).toBeGreaterThan(1);
      }
    }
  });
});
