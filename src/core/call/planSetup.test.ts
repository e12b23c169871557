import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { looseLenses, looseBodies } from '../testing/kit';
import { runs } from '../testing/runs';
import { bestFocusBetween } from '../optics/blur';
import { callSentence, conflictSentences, noPlanWords, printWords, reasonSentence } from '../words/call';
import { builtInKit } from '../kit/builtInKit';
import { newBackground, newPerson, newSetup, newThing } from '../setup/defaults';
import { demoJobs } from '../job/demo';
import { inPrint } from '../testing/demo';
import type { Background, Person, Setup } from '../setup/schema';
import type { Plan, StopPlan } from './plan';
import { planSetup } from './planSetup';
import { defaultHabits } from '../habits/habits';

function plan(setup: Setup, stopStep: 'full' | 'half' | 'third' = 'half'): Plan {
  const result = planSetup({ setup, kit: builtInKit, stopStep, habits: defaultHabits });
  if (result.kind !== 'plan') throw new Error(`no plan: ${result.reason.code}`);
  return result;
}

function setupWith(changes: Partial<Setup>, camera: Partial<Setup['camera']> = {}): Setup {
  const base = newSetup('s', 'S', changes);
  return { ...base, camera: { ...base.camera, ...camera } };
}

const demo = (name: string) => {
  const setup = demoJobs()[0].setups.find((item) => item.name === name);
  if (!setup) throw new Error(name);
  return setup;
};

const anyPerson: fc.Arbitrary<Person> = fc
  .record({
    depthMm: fc.integer({ min: -400, max: 1500 }),
    lateralMm: fc.integer({ min: -1500, max: 1500 }),
    headYawDeg: fc.integer({ min: -180, max: 180 }),
    headPitchDeg: fc.integer({ min: -40, max: 40 }),
    sharp: fc.constantFrom('nearEye', 'bothEyes', 'eyesToNose', 'wholeHead'),
    importance: fc.constantFrom('must', 'should', 'maySoft'),
    being: fc.constantFrom('adult', 'child', 'pet')
  } as const)
  .map((changes) => newPerson('p', 'P', changes));

const anyBackground: fc.Arbitrary<Background> = fc
  .record({
    depthMm: fc.integer({ min: -1200, max: 30_000 }),
    detailMm: fc.integer({ min: 2, max: 300 }),
    wish: fc.constantFrom('soft', 'hide', 'hint', 'keep', 'free')
  } as const)
  .map((changes) => newBackground('b', 'B', changes));

const anySetup: fc.Arbitrary<Setup> = fc
  .record({
    people: fc.array(anyPerson, { minLength: 1, maxLength: 6 }),
    backgrounds: fc.array(anyBackground, { maxLength: 3 }),
    lens: fc.constantFrom(...looseLenses),
    body: fc.constantFrom(...looseBodies),
    distanceMm: fc.integer({ min: 1200, max: 12_000 }),
    focusSurface: fc.constantFrom('flat' as const, 'curved' as const),
    style: fc.constantFrom('openAsFacesAllow' as const, 'lensBest' as const, 'deepAndSafe' as const),
    viewing: fc.constantFrom<Setup['intent']['viewing']>(
      { kind: 'traditional' },
      { kind: 'close' },
      { kind: 'pixels', pixels: 2 }
    )
  })
  .map(({ people, backgrounds, lens, body, distanceMm, focusSurface, style, viewing }) => {
    const base = newSetup('s', 'S');
    return {
      ...base,
      people: people.map((person, index) => ({ ...person, id: `p${index}`, name: `P${index}` })),
      backgrounds: backgrounds.map((background, index) => ({ ...background, id: `b${index}` })),
      camera: {
        ...base.camera,
        lensId: lens.id,
        bodyId: body.id,
        focalLengthMm: lens.shortestMm,
        focusSurface,
        placement: { kind: 'distance' as const, distanceMm }
      },
      intent: { ...base.intent, style, viewing }
    };
  });

describe('the call', () => {
  it('opens as far as the faces allow and says what binds at either end', () => {
    const result = plan(demo('West door'));
    expect(callSentence(result, 'metric')).toBe('f/2.8 on Ines’s near eye, from 1.5 m.');
    expect(result.upper).toEqual({ kind: 'background', backgroundId: 'ferns' });
    expect(result.lower).toEqual({ kind: 'odds', subjectId: 'ines' });
    expect(reasonSentence(result)).toBe(
      'Only f/2.8 works. Wider: Ines drops under your 90%. Narrower: ferns come back.'
    );
    expect(printWords(result)).toBe('In print f/1.4 would do.');
    const print = plan(inPrint(demo('West door')));
    expect(print.lower).toEqual({ kind: 'lens' });
    expect(reasonSentence(print)).toMatch(
      /^f\/1\.4–f\/[\d.]+ works\. f\/1\.4 is wide open\. Narrower: ferns come back\.$/
    );
  });

  it('settles a conflict for the faces and names both wishes', () => {
    const result = plan(demo('West door, the 50'));
    expect(result.window).toBeNull();
    expect(result.conflict).toMatchObject({ kind: 'facesAgainstBackground', backgroundId: 'ferns' });
    expect(result.stops[result.recommended]?.facesHold).toBe(true);
    expect(conflictSentences(result)?.wishes).toMatch(
      /^The faces need f\/.*, but ferns would only blur away at f\/[\d.]+\.$/
    );
  });

  it('holds three rows of fourteen near the harmonic mean of the nearest and furthest eye', () => {
    const result = plan(demo('Family on the steps'));
    const entry = result.stops[result.selected];
    const depths = result.subjects.flatMap((subject) => [subject.nearest, subject.furthest]);
    const best = bestFocusBetween(Math.min(...depths), Math.max(...depths));
    expect(Math.abs((entry?.target.focusDistanceMm ?? 0) - best)).toBeLessThan(250);
    expect(entry?.odds).toBeGreaterThan(0.9);
  });

  it('follows the style inside the window', () => {
    const family = inPrint(demo('Family on the steps'));
    const f = (style: Setup['intent']['style']) => {
      const result = plan({ ...family, intent: { ...family.intent, style } });
      return result.stops[result.recommended]?.stop.fNumber ?? 0;
    };
    expect(f('openAsFacesAllow')).toBeLessThan(f('lensBest'));
    expect(f('openAsFacesAllow')).toBeLessThan(f('deepAndSafe'));
  });

  it('opens wider when one face may be soft, and tries for those that should be sharp', () => {
    const row = (importance: Person['importance']) =>
      setupWith({
        people: [newPerson('a', 'A'), newPerson('b', 'B', { depthMm: 250, importance })],
        backgrounds: []
      });
    const N = (importance: Person['importance']) => {
      const result = plan(row(importance));
      return result.stops[result.recommended]?.stop.fNumber ?? 0;
    };
    expect(N('maySoft')).toBeLessThan(N('must'));
    expect(N('should')).toBeGreaterThan(N('maySoft'));
  });

  it('uses the stop and the eye the photographer chose, and keeps recommending its own', () => {
    const base = demo('Under the palms');
    const result = plan({
      ...base,
      intent: {
        ...base.intent,
        stop: { kind: 'chosen', fNumber: 8 },
        target: { kind: 'eye', personId: 'ines', eye: 'leftEye' }
      }
    });
    expect(result.stops[result.selected]?.stop.label).toBe('8');
    expect(result.selected).not.toBe(result.recommended);
    expect(result.stops[result.selected]?.target).toMatchObject({ subjectId: 'ines', feature: 'leftEye' });
  });

  it('focuses at the distance, on the thing or on the far eye the photographer chose, at every stop', () => {
    const base = setupWith({
      people: [newPerson('a', 'A', { headYawDeg: 40 }), newPerson('b', 'B', { lateralMm: 400, depthMm: 500 })],
      things: [newThing('t', 'T', { heightMm: 1450, depthMm: -100, lateralMm: -200, importance: 'maySoft' })],
      backgrounds: []
    });
    const asked: [Setup['intent']['target'], Partial<StopPlan['target']>][] = [
      [
        { kind: 'distance', distanceMm: 2345 },
        { subjectId: null, focusDistanceMm: 2345 }
      ],
      [{ kind: 'thing', thingId: 't' }, { subjectId: 't' }],
      [
        { kind: 'eye', personId: 'a', eye: 'leftEye' },
        { subjectId: 'a', feature: 'leftEye', role: 'farEye' }
      ]
    ];
    for (const [target, found] of asked) {
      const result = plan({ ...base, intent: { ...base.intent, target } });
      expect(result.stops.length).toBeGreaterThan(10);
      for (const entry of result.stops) expect(entry.target).toMatchObject(found);
    }
  });

  it('takes a far eye chosen by hand even where only the near one must be sharp', () => {
    const door = demo('West door');
    const result = plan({
      ...door,
      intent: { ...door.intent, target: { kind: 'eye', personId: 'ines', eye: 'leftEye' } }
    });
    expect(result.stops[result.selected]?.target).toMatchObject({ feature: 'leftEye', role: 'farEye' });
  });

  it('holds rings and people by their own depths', () => {
    const rings = newThing('rings', 'Rings', { depthMm: -400, heightMm: 1450 });
    const both = plan(setupWith({ things: [rings], backgrounds: [] }));
    const ringsOnly = plan(
      setupWith({ things: [rings], people: [newPerson('a', 'A', { importance: 'maySoft' })], backgrounds: [] })
    );
    const N = (result: Plan) => result.stops[result.recommended]?.stop.fNumber ?? 0;
    expect(N(ringsOnly)).toBeLessThan(N(both));
    expect(callSentence(ringsOnly, 'metric')).toMatch(/on Rings’s near side/);
  });

  it('says when a background cannot be had at any stop, and when two backgrounds disagree', () => {
    const near = newBackground('near', 'ivy', { depthMm: 60, detailMm: 30 });
    expect(plan(setupWith({ backgrounds: [near] })).conflict).toEqual({
      kind: 'backgroundUnreachable',
      backgroundId: 'near'
    });
    const hidden = newBackground('hidden', 'ferns', { depthMm: 3000, detailMm: 30 });
    const kept = newBackground('kept', 'arch', { depthMm: 200, detailMm: 3, wish: 'keep' });
    expect(plan(setupWith({ backgrounds: [hidden, kept] })).conflict?.kind).toBe('backgroundAgainstBackground');
  });

  it('tells depth, odds and criterion apart when no stop holds the faces', () => {
    const deep = [newPerson('a', 'A'), newPerson('b', 'B', { depthMm: 3000 })];
    expect(plan(setupWith({ people: deep, backgrounds: [] })).conflict).toMatchObject({ because: 'depth' });
    const strict = setupWith({ backgrounds: [] });
    const pixels = { ...strict, intent: { ...strict.intent, viewing: { kind: 'pixels' as const, pixels: 0.6 } } };
    expect(plan(pixels).conflict).toMatchObject({ kind: 'facesUnreachable', because: 'criterion' });
    const child = newPerson('c', 'C', { being: 'child', mood: 'lively' });
    const restless = setupWith(
      { people: [child], backgrounds: [] },
      { placement: { kind: 'distance', distanceMm: 950 }, lensId: 'lens-50', focalLengthMm: 50 }
    );
    const sure = { ...restless, intent: { ...restless.intent, oddsWanted: 0.99 } };
    expect(plan(sure).conflict).toMatchObject({ kind: 'facesUnreachable', because: 'odds' });
  });

  it('measures how far past the wall the photographer would stand', () => {
    expect(
      plan(setupWith({ place: { scenery: 'plain', backUpMm: 2000, behindMm: null, sideMm: null } })).beyondRoomMm
    ).toBeCloseTo(210, 6);
    expect(
      plan(setupWith({ place: { scenery: 'plain', backUpMm: 3000, behindMm: null, sideMm: null } })).beyondRoomMm
    ).toBe(0);
  });
});

describe('no call', () => {
  const code = (setup: Setup) => {
    const result = planSetup({ setup, kit: builtInKit, stopStep: 'half', habits: defaultHabits });
    if (result.kind === 'plan') throw new Error('planned');
    expect(noPlanWords(result.reason, 'metric').advice).not.toBe('');
    return result.reason.code;
  };

  it('gives the reason and what to do', () => {
    expect(code(setupWith({ people: [] }))).toBe('nothingRequired');
    expect(code(setupWith({}, { bodyId: 'gone' }))).toBe('unknownBody');
    expect(code(setupWith({}, { lensId: 'gone' }))).toBe('unknownLens');
    expect(code(setupWith({ people: [newPerson('a', 'A', { depthMm: -9000 })] }))).toBe('behindCamera');
    expect(code(setupWith({}, { placement: { kind: 'distance', distanceMm: 400 } }))).toBe('tooClose');
  });
});

describe('always', () => {
  it('never loses sharp depth by stopping down, as long as lens and diffraction together blur no more', () => {
    let compared = 0;
    fc.assert(
      fc.property(anySetup, (setup) => {
        const result = planSetup({ setup, kit: builtInKit, stopStep: 'third', habits: defaultHabits });
        if (result.kind !== 'plan') return;
        result.stops.slice(1).forEach((closed, index) => {
          const open = result.stops[index];
          const samePlane = open?.planeMm === closed.planeMm;
          if (!open || !samePlane || closed.lensRatio > open.lensRatio) return;
          compared += 1;
          expect(closed.nearMm).toBeLessThanOrEqual(open.nearMm + 1e-9);
          expect(closed.farMm ?? Infinity).toBeGreaterThanOrEqual((open.farMm ?? Infinity) - 1e-9);
        });
      }),
      { numRuns: runs(100) }
    );
    expect(compared).toBeGreaterThan(runs(200) - 4);
  });

  it('keeps near ≤ focus ≤ far, grants what its window says, and is finite', () => {
    fc.assert(
      fc.property(anySetup, (setup) => {
        const result = planSetup({ setup, kit: builtInKit, stopStep: 'third', habits: defaultHabits });
        // JSON turns NaN and Infinity into null: a plan that survives it holds neither.
        expect(JSON.parse(JSON.stringify(result))).toEqual(result);
        if (result.kind !== 'plan') return;
        for (const entry of result.stops) {
          expect(entry.nearMm).toBeLessThanOrEqual(entry.planeMm + 1e-9);
          expect(entry.farMm ?? Infinity).toBeGreaterThanOrEqual(entry.planeMm - 1e-9);
          expect(entry.odds).toBeGreaterThanOrEqual(0);
          expect(entry.odds).toBeLessThanOrEqual(1);
        }
        if (result.window) {
          expect(result.recommended).toBeGreaterThanOrEqual(result.window.first);
          expect(result.recommended).toBeLessThanOrEqual(result.window.last);
          const granted = result.stops[result.recommended];
          expect(granted?.facesHold && granted.backgrounds.every((item) => item.met)).toBe(true);
        } else {
          expect(result.conflict).not.toBeNull();
          expect(conflictSentences(result)?.wishes).not.toBe('');
        }
      }),
      { numRuns: runs(150) }
    );
  });

  it('draws whoever goes away fast before the lens, however fast', () => {
    const west = demo('West door');
    for (const towardsMmPerS of [-2000, -3000, -20_000]) {
      const away = { ...west, people: west.people.map((person) => ({ ...person, towardsMmPerS })) };
      for (const { drawnFocusMm } of plan(away).stops) expect(drawnFocusMm).toBeGreaterThanOrEqual(170);
    }
  });
});
