/** What is asked beside the call, of setups of every sort: it agrees with the call, and is nothing where there is none. */
import { describe, expect, it } from 'vitest';
import { defaultHabits } from '../habits/habits';
import { newBackground, newPerson, newSetup, newThing } from '../setup/defaults';
import { builtInKit } from '../kit/builtInKit';
import type { Person, Setup } from '../setup/schema';
import { variedSetups } from '../testing/variedSetups';
import { alternatives } from './alternatives';
import { backgroundAtStop } from './background';
import { contrastIn } from './contrast';
import { asFocusTarget } from './focusTarget';
import { framesFor } from './frames';
import { lineUp } from './lineUp';
import type { PlanInput } from './planInput';
import { planSetup } from './planSetup';
import { combineRemedies, findCombinations } from './remedies/combine';
import { findRemedies } from './remedies/findRemedies';
import { distanceSensitivity } from './sensitivity';
import { whatIfSteadier } from './whatIf';

const calm = variedSetups(40, true).map((item): PlanInput => ({ ...item, stopStep: 'full' }));
const withCamera = (input: PlanInput, camera: Partial<PlanInput['setup']['camera']>): PlanInput => ({
  ...input,
  setup: { ...input.setup, camera: { ...input.setup.camera, ...camera } }
});

describe('where nothing can be planned', () => {
  const [some] = calm;
  if (!some) throw new Error('no setup');
  const nothing: readonly (readonly [string, PlanInput])[] = [
    ['the lens is gone', withCamera(some, { lensId: 'gone' })],
    ['the body is gone', withCamera(some, { bodyId: 'gone' })],
    ['nobody is there', { ...some, setup: { ...some.setup, people: [], things: [] } }],
    ['the lens cannot focus so near', withCamera(some, { placement: { kind: 'distance', distanceMm: 60 } })]
  ];
  it.each(nothing)('because %s, nothing else is answered', (_, input) => {
    expect(planSetup(input).kind).toBe('noPlan');
    expect(alternatives(input)).toEqual({ targets: [], between: null, viewings: [], styles: [] });
    expect(distanceSensitivity(input)).toBeNull();
    expect(whatIfSteadier(input)).toEqual([]);
    expect(findRemedies(input)).toEqual([]);
    expect(findCombinations(input)).toEqual([]);
    const part = { kind: 'stepBack', amount: 100, unit: 'mm', subject: '' } as const;
    expect(combineRemedies(input, [part])).toBeUndefined();
  });

  it('with another lens there may be something', () => {
    const gone = withCamera(some, { bodyId: 'gone' });
    expect(lineUp(gone)).toEqual([]);
  });
});

describe('another way of looking', () => {
  it('is what the call would be, looked at so; the one in use is left out', () => {
    for (const input of calm.slice(0, 12)) {
      const { intent } = input.setup;
      const free = { ...intent, target: { kind: 'best' }, stop: { kind: 'byStyle' } } as const;
      const { viewings } = alternatives(input);
      expect(viewings.map(({ viewing }) => viewing)).not.toContain(intent.viewing.kind);
      for (const { viewing, stop, facesHold } of viewings) {
        const plan = planSetup({
          ...input,
          setup: { ...input.setup, intent: { ...free, viewing: { kind: viewing } } }
        });
        const entry = plan.kind === 'plan' ? plan.stops[plan.recommended] : undefined;
        expect([stop, facesHold]).toEqual([entry?.stop.label, entry?.facesHold]);
      }
    }
  });
});

describe('another target', () => {
  it('between two rows is focused by hand, from a wider stop than autofocus on a face', () => {
    const row = (depthMm: number, floorMm: number, from: number) =>
      [-900, -300, 300, 900].map((lateralMm, index) =>
        newPerson(`p${from + index}`, `P${from + index}`, { depthMm, floorMm, lateralMm: lateralMm + depthMm / 4 })
      );
    const base = newSetup('rows', 'Rows', { people: [...row(0, 0, 1), ...row(900, 250, 5)], backgrounds: [] });
    const camera: Setup['camera'] = {
      ...base.camera,
      lensId: 'lens-50',
      focalLengthMm: 50,
      placement: { kind: 'distance', distanceMm: 6000 },
      heightMm: 1700
    };
    const input: PlanInput = {
      setup: { ...base, camera },
      kit: builtInKit,
      stopStep: 'third',
      habits: defaultHabits
    };
    const { between, targets } = alternatives(input);
    const stop = (label: string | null | undefined) => Number(label ?? Infinity);
    expect(stop(between?.holdsFrom)).toBeLessThan(stop(targets[0]?.holdsFrom));
    expect(between?.target).toMatchObject({ subjectId: null });
    // Taken, it is what the plan says of it.
    const target = { kind: 'distance', distanceMm: Math.round(between?.target.focusDistanceMm ?? 0) } as const;
    const taken: Setup = {
      ...input.setup,
      camera: { ...camera, focusMethod: 'magnifier' },
      intent: { ...base.intent, target }
    };
    const plan = planSetup({ ...input, setup: taken });
    const holds = plan.kind === 'plan' ? plan.stops.find(({ facesHold }) => facesHold) : undefined;
    expect(holds?.stop.label).toBe(between?.holdsFrom);
    // One alone has no rows, and by hand it is among the places already.
    expect(alternatives({ ...input, setup: { ...taken, people: base.people.slice(0, 1) } }).between).toBeNull();
    expect(alternatives({ ...input, setup: taken }).between).toBeNull();
  });

  it('holds from the stop the call would name for it', () => {
    let named = 0;
    for (const input of calm) {
      const { setup } = input;
      if (setup.intent.frames === 'two' || setup.camera.stitch) continue;
      for (const { target, holdsFrom } of alternatives(input).targets) {
        if (target.feature !== 'leftEye' && target.feature !== 'rightEye') continue;
        const chosen = { ...setup, intent: { ...setup.intent, target: asFocusTarget(target, setup) } };
        const plan = planSetup({ ...input, setup: chosen });
        if (plan.kind !== 'plan') throw new Error('no plan');
        expect(holdsFrom, setup.name).toBe(plan.stops.find(({ facesHold }) => facesHold)?.stop.label ?? null);
        if (holdsFrom !== null) named += 1;
      }
    }
    expect(named).toBeGreaterThan(10);
  });
});

describe('what half of a figure would give', () => {
  const [first] = calm;
  if (!first) throw new Error('no setup');
  const swaying = (changes: Partial<Person>, camera: Partial<PlanInput['setup']['camera']> = {}): PlanInput => {
    const base = newSetup('s', 'S', { people: [newPerson('a', 'A', changes)], backgrounds: [] });
    const placement = { kind: 'distance', distanceMm: 1500 } as const;
    return { ...first, setup: { ...base, camera: { ...base.camera, placement, ...camera } }, habits: defaultHabits };
  };
  /** The stop in use, with what is asked. */
  const inUse = (input: PlanInput, index?: number) => {
    const plan = planSetup(input);
    if (plan.kind !== 'plan') throw new Error('no plan');
    const at = index ?? plan.recommended;
    return { at, odds: plan.stops[at]?.odds, picked: plan.stops[plan.recommended]?.stop.label };
  };

  it('halves a sway that is known as that of whoever sways as usual', () => {
    for (const swayMm of [24, null]) {
      const input = swaying({ swayMm, being: swayMm === null ? 'child' : 'adult' });
      const { at, odds } = inUse(input);
      const half = swaying({
        swayMm: swayMm === null ? defaultHabits.swayMm.child / 2 : 12,
        being: swayMm === null ? 'child' : 'adult'
      });
      const found = whatIfSteadier(input).find(({ kind }) => kind === 'people');
      expect(found?.oddsNow).toBe(odds);
      expect(found?.oddsThen).toBeCloseTo(inUse(half, at).odds ?? NaN, 12);
      expect(found?.stop).toBe(inUse(half).picked);
      // Nobody's sway is halved where something else is.
      const focus = whatIfSteadier(input).find(({ kind }) => kind === 'focus');
      const halfFocus = {
        ...input,
        habits: { ...defaultHabits, focusSpreadUm: { crossPoint: 5, ordinaryPoint: 10 } }
      };
      if (focus) expect(focus.oddsThen).toBeCloseTo(inUse(halfFocus, at).odds ?? NaN, 12);
    }
  });

  it('halves how far one leans, and how differently', () => {
    const input = swaying({}, { recompose: 'leaning' });
    const { at } = inUse(input);
    const { leanMm, leanSpreadMm } = defaultHabits;
    const half = { ...input, habits: { ...defaultHabits, leanMm: leanMm / 2, leanSpreadMm: leanSpreadMm / 2 } };
    const found = whatIfSteadier(input).find(({ kind }) => kind === 'lean');
    expect(found?.oddsThen).toBeCloseTo(inUse(half, at).odds ?? NaN, 12);
    expect(whatIfSteadier(swaying({})).some(({ kind }) => kind === 'lean')).toBe(false);
  });

  it('and what a distance misjudged would: the stop chosen by hand makes way for the call', () => {
    const input = swaying({ headYawDeg: 40 });
    const chosen = {
      ...input,
      setup: { ...input.setup, intent: { ...input.setup.intent, stop: { kind: 'chosen', fNumber: 16 } as const } }
    };
    expect(distanceSensitivity(chosen)).toEqual(distanceSensitivity(input));
    expect(whatIfSteadier(chosen)).toEqual(whatIfSteadier(input));
  });
});

describe('what autofocus finds to hold on to (from memory)', () => {
  const { look } = newPerson('a', 'A');
  const people = [
    newPerson('a', 'A', { look: { ...look, outfit: 'suit', hair: 'short' } }),
    newPerson('bald', 'B', { look: { ...look, outfit: 'dress', hair: 'bald' } })
  ];
  const of = (ev: number | null, from: 'front' | 'side' | 'behind' = 'front') => {
    const base = newSetup('s', 'S', {
      people,
      things: [newThing('rings', 'rings', { form: 'rings' }), newThing('box', 'box')],
      backgrounds: (['lights', 'candles', 'brick'] as const).map((surface) =>
        newBackground(surface, surface, { surface })
      )
    });
    return contrastIn({ ...base, light: { ...base.light, from } }, ev);
  };
  const ground = (id: string) => ({ kind: 'background', id, part: 'ground' }) as const;

  it('is most in eyes and rings, little in skin, nothing much where nothing was described', () => {
    const bright = of(null);
    expect(bright({ kind: 'person', id: 'a', part: 'eye' })).toBe(1);
    expect(bright({ kind: 'thing', id: 'rings', part: 'thing' })).toBe(1);
    expect(bright({ kind: 'thing', id: 'box', part: 'thing' })).toBe(0.6);
    expect(bright({ kind: 'person', id: 'a', part: 'forehead' })).toBe(0.1);
    expect(bright({ kind: 'person', id: 'a', part: 'hair' })).toBe(0.4);
    expect(bright({ kind: 'person', id: 'bald', part: 'hair' })).toBe(0.1);
    for (const part of ['body', 'thing', 'ground'] as const)
      expect(bright({ kind: 'person', id: 'bald', part })).toBe(0.25);
    expect(bright(ground('brick'))).toBe(0.7);
    expect(bright(ground('nothing'))).toBe(0.08);
  });

  it('halves for every three stops under EV 3, of all but what shines itself', () => {
    for (const met of [
      ground('brick'),
      ground('nothing'),
      { kind: 'thing', id: 'box', part: 'thing' },
      { kind: 'person', id: 'a', part: 'eye' }
    ] as const) {
      expect(of(12)(met)).toBe(of(null)(met));
      expect(of(3)(met)).toBe(of(null)(met));
      expect(of(0)(met)).toBeCloseTo(of(null)(met) / 2, 12);
      expect(of(-3)(met)).toBeCloseTo(of(null)(met) / 4, 12);
    }
    for (const id of ['lights', 'candles']) expect(of(-3)(ground(id))).toBe(1);
  });

  it('is less in faces lit from the side or from behind', () => {
    const eye = { kind: 'person', id: 'a', part: 'eye' } as const;
    expect([of(null, 'side')(eye), of(null, 'behind')(eye)]).toEqual([0.9, 0.5]);
    expect(of(null, 'behind')(ground('brick'))).toBe(0.7);
  });
});

describe('a background', () => {
  const asked = { f: 50, P: 1, N: 2, s: 2000, detailMm: 20, wish: 'hide', otherDisc: 0.01, circleOfConfusion: 0.03, frameHeightMm: 24 } as const; // prettier-ignore
  it('no further than the focal length is not there', () => {
    for (const depth of [50, -10])
      expect(backgroundAtStop({ ...asked, depth })).toEqual({
        lostDetailMm: 0,
        shareOfFrameHeight: 0,
        ratio: 0,
        met: true,
        shortfallStops: 0
      });
    expect(backgroundAtStop({ ...asked, depth: 51 }).ratio).toBeGreaterThan(1);
  });
});

describe('frames', () => {
  it('are one where the odds are as wished already, and none will do where there are none', () => {
    expect([framesFor(0.95, 0.95), framesFor(0.96, 0.95), framesFor(0.94, 0.95)]).toEqual([1, 1, 2]);
    expect(framesFor(1, 0.95)).toBe(1);
    expect(framesFor(0, 0.95)).toBe(Infinity);
  });
});
