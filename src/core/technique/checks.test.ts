import { describe, expect, it } from 'vitest';
import { defaultHabits } from '../habits/habits';
import { builtInKit } from '../kit/builtInKit';
import type { Kit } from '../kit/schema';
import { defaultFlash, newBackground, newPerson, newSetup } from '../setup/defaults';
import { lineOfSightFrom } from '../setup/lineOfSight';
import { viewpoint } from '../setup/scene';
import type { Camera, Light, Person, Setup } from '../setup/schema';
import { croppedTo, tightestCrop } from '../setup/shapes';
import { planSetup } from '../call/planSetup';
import type { Plan } from '../call/plan';
import { checkWords, correctionWords, tickedOf } from '../words/checks';
import { flashWords } from '../words/flash';
import { checksOf, type Check } from './checks';
import { flashFacts } from './flash';
import { meterReading } from './metering';

const ada = newPerson('ada', 'Ada', { look: { ...newPerson('x', 'X').look, outfitColour: 'navy', glasses: false } });

function setupOf(
  people: readonly Person[],
  camera: Partial<Camera> = {},
  light: Partial<Light> = {},
  changes: Partial<Setup> = {}
): Setup {
  const base = newSetup('s', 'S', { people: [...people], backgrounds: [], ...changes });
  return {
    ...base,
    camera: { ...base.camera, heightMm: 1572, placement: { kind: 'distance', distanceMm: 2500 }, ...camera },
    light: { ...base.light, ...light }
  };
}

function checked(setup: Setup, kit: Kit = builtInKit): { checks: readonly Check[]; plan: Plan } {
  const input = { setup, kit, stopStep: 'third', habits: defaultHabits } as const;
  const plan = planSetup(input);
  if (plan.kind === 'noPlan') throw new Error(plan.reason.code);
  return { checks: checksOf(input, plan), plan };
}
const kinds = (setup: Setup, kit?: Kit) => checked(setup, kit).checks.map(({ kind }) => kind);
const troubled = (setup: Setup, kit?: Kit) =>
  checked(setup, kit).checks.flatMap((check) => (check.kind === 'trouble' ? [check.trouble.kind] : []));

describe('checks', () => {
  it('are those that apply: a plain picture has few', () => {
    expect(kinds(setupOf([ada]))).toEqual(['area', 'drive', 'lookAtFirst']);
  });

  it.each([
    ['stabiliserOff', setupOf([ada], { stance: 'tripod' })],
    ['byHand', setupOf([ada], { focusMethod: 'magnifier' })],
    ['hold', setupOf([ada], { secondsToShutter: 3 })],
    ['ladder', setupOf([ada], { heightMm: 2600, pitchDeg: -20 })],
    ['highlights', setupOf([{ ...ada, look: { ...ada.look, outfitColour: 'ivory' } }])],
    [
      'infantFlash',
      setupOf(
        [ada, newPerson('b', 'B', { being: 'baby', lateralMm: 300, importance: 'should' })],
        {},
        { flash: defaultFlash }
      )
    ],
    [
      'sun',
      setupOf(
        [ada],
        { focalLengthMm: 135, lensId: 'lens-135' },
        { from: 'behind', level: { kind: 'estimated', as: 'sun' } }
      )
    ],
    [
      'level',
      setupOf([ada], {}, {}, { backgrounds: [newBackground('c', 'columns', { surface: 'columns', wish: 'free' })] })
    ]
  ] as const)('%s where it applies, and not in a plain picture', (kind, setup) => {
    expect(kinds(setup)).toContain(kind);
    expect(kinds(setupOf([ada]))).not.toContain(kind);
  });

  it('dust from about f/16, the weak end of this zoom, the next stop where the odds are wanting', () => {
    const chosen = (fNumber: number, setup: Setup): Setup => ({
      ...setup,
      intent: { ...setup.intent, stop: { kind: 'chosen', fNumber } }
    });
    expect(kinds(chosen(16, setupOf([ada])))).toContain('dust');
    const weak = builtInKit.lenses.map((lens) =>
      lens.id === 'lens-70-200' ? { ...lens, weakEnds: 'long' as const } : lens
    );
    const at = (focalLengthMm: number) =>
      kinds(setupOf([ada], { lensId: 'lens-70-200', focalLengthMm }), { ...builtInKit, lenses: weak });
    expect(at(200)).toContain('weakEnd');
    expect(at(135)).not.toContain('weakEnd');
    const near = setupOf([{ ...ada, headYawDeg: 40 }], { placement: { kind: 'distance', distanceMm: 1200 } });
    expect(kinds(chosen(1.4, near))).toContain('retake');
  });

  it('name who an ordered shape would cut off', () => {
    const wide = [ada, newPerson('bo', 'Bo', { lateralMm: 480 })];
    const setup = setupOf(wide);
    const { checks } = checked({ ...setup, intent: { ...setup.intent, shapes: ['1:1'] } });
    expect(checks.find(({ kind }) => kind === 'crop')).toMatchObject({ shape: '1:1', lost: ['Bo'] });
  });

  it('tell two people of one name apart, and count what is ticked of what is shown', () => {
    const out = (id: string, lateralMm: number) => newPerson(id, 'Guest', { lateralMm, importance: 'should' });
    const { checks, plan } = checked(setupOf([ada, out('g1', -520), out('g2', 520)]));
    const words = checks.map((check) => checkWords(plan, check, 'metric'));
    expect(words.filter(({ what }) => what === 'Look at the edge: Guest')).toHaveLength(2);
    expect(new Set(words.map(({ key }) => key)).size).toBe(words.length);
    expect(tickedOf(words, ['area', 'stabiliserOff', 'edge g1'])).toBe(2);
  });

  it('name the drive that is set', () => {
    const { checks, plan } = checked(setupOf([ada], { drive: 'burst' }));
    const drive = checks.find(({ kind }) => kind === 'drive');
    expect(drive && checkWords(plan, drive, 'metric').what).toBe('Drive: a burst');
  });

  it('all have words, and no two of a picture the same key', () => {
    const setup = setupOf(
      [{ ...ada, look: { ...ada.look, outfitColour: 'ivory', headwear: 'veil' } }],
      { stance: 'tripod', heightMm: 2300, pitchDeg: -15, secondsToShutter: 2, focusArea: 'eyeDetection' },
      { from: 'behind', level: { kind: 'ev', ev100: 0 }, flash: defaultFlash },
      { backgrounds: [newBackground('c', 'columns', { surface: 'columns' })] }
    );
    const { checks, plan } = checked(setup);
    const words = checks.map((check) => checkWords(plan, check, 'metric'));
    expect(new Set(words.map(({ key }) => key)).size).toBe(words.length);
    for (const { what, because } of words) {
      expect(what).toMatch(/^[A-Z0-9]/);
      expect(because.length).toBeGreaterThan(5);
    }
  });
});

describe('where autofocus fails', () => {
  it('something in front, darkness, light from behind, a face that cannot be found', () => {
    const ferns = newBackground('ferns', 'ferns', { depthMm: -1200, wish: 'free' });
    const low = setupOf([newPerson('c', 'C', { statureMm: 1450, being: 'child' })], {}, {}, { backgrounds: [ferns] });
    expect(troubled(low)).toContain('inFront');
    expect(troubled(setupOf([ada], {}, { level: { kind: 'ev', ev100: 0 } }))).toContain('dark');
    expect(troubled(setupOf([ada], {}, { from: 'behind' }))).toContain('backlight');
    const veiled = setupOf([{ ...ada, look: { ...ada.look, headwear: 'veil' } }], { focusArea: 'eyeDetection' });
    expect(troubled(veiled)).toContain('noFace');
    expect(troubled(setupOf([ada]))).toEqual([]);
    // By hand nothing of it matters.
    expect(troubled(setupOf([ada], { focusMethod: 'magnifier' }, { from: 'behind' }))).toEqual([]);
  });
});

describe('the meter', () => {
  const reading = (person: Person, metering: Camera['metering'], changes: Partial<Setup> = {}) => {
    const setup = setupOf(
      [person],
      { placement: { kind: 'distance', distanceMm: 1500 }, heightMm: 1400, metering },
      {},
      changes
    );
    const [body] = builtInKit.bodies;
    if (!body) throw new Error('no body');
    const lineOfSight = lineOfSightFrom(setup, viewpoint(setup, body), body, 1);
    return meterReading({ setup, body, lineOfSight, at: { x: 0.5, y: 0.5 } });
  };
  const dressed = (outfitColour: Person['look']['outfitColour'], skin = 3): Person => ({
    ...ada,
    look: { ...ada.look, outfitColour, skin }
  });

  it('is misled by log2 of what it sees over middle grey: white cloth two stops, dark skin the other way', () => {
    // A spot on cloth of 75%: log2(0.75/0.18) = 2.06.
    expect(reading(dressed('ivory'), 'spot').offStops).toBeCloseTo(2.06, 1);
    expect(reading(dressed('black'), 'spot').offStops).toBeCloseTo(Math.log2(0.04 / 0.18), 1);
    const face = (skin: number) => {
      const person = dressed('navy', skin);
      const setup = setupOf([person], {
        metering: 'spot',
        placement: { kind: 'distance', distanceMm: 1000 },
        heightMm: 1540
      });
      const [body] = builtInKit.bodies;
      if (!body) throw new Error('no body');
      const lineOfSight = lineOfSightFrom(setup, viewpoint(setup, body), body, 1);
      return meterReading({ setup, body, lineOfSight, at: { x: 0.5, y: 0.5 } }).offStops;
    };
    expect(face(1)).toBeGreaterThan(0.5);
    expect(face(6)).toBeLessThan(-0.5);
  });

  it('of the whole frame is misled half as much, and more by a window than by a wall', () => {
    const behind = (surface: 'panes' | 'foliage') => ({
      backgrounds: [newBackground('b', 'b', { surface, depthMm: 2000 })]
    });
    expect(reading(ada, 'whole', behind('panes')).offStops).toBeGreaterThan(
      reading(ada, 'whole', behind('foliage')).offStops
    );
    expect(Math.abs(reading(dressed('ivory'), 'whole').offStops)).toBeLessThan(
      reading(dressed('ivory'), 'spot').offStops
    );
  });

  it('is corrected in thirds of a stop, as cameras show it', () => {
    expect(correctionWords(5 / 3)).toBe('+1 2/3');
    expect(correctionWords(-2 / 3)).toBe('−2/3');
    expect(correctionWords(1)).toBe('+1');
    expect(correctionWords(0)).toBe('0');
  });
});

describe('a flash', () => {
  it('leaves the room so many stops dark, and says what turns it black', () => {
    const setup = setupOf([ada], {}, { level: { kind: 'ev', ev100: 5 }, flash: { ...defaultFlash, distanceMm: 2500 } });
    const { plan } = checked(setup);
    const [body] = builtInKit.bodies;
    const entry = plan.stops[plan.selected];
    if (!body || !entry) throw new Error('no plan');
    const facts = flashFacts(setup, body, entry);
    const { shutterS, iso } = entry.light;
    const needed = Math.log2((entry.stop.fNumber ** 2 / shutterS) * (100 / (iso ?? 100)));
    expect(facts?.withoutStops).toBeCloseTo(needed - 5, 6);
    // Inverse square law: half as far away again needs 2 log2 1.5 stops more; a stop narrower twice the power.
    expect(facts?.furtherStops).toBeCloseTo(1.17, 2);
    expect(facts?.narrower).toBe((facts?.power ?? 0) * 2);
    if (!facts) throw new Error('no facts');
    expect(flashWords(facts, 'metric')[0]).toMatch(
      /^Flash at (full power|1\/\d+); one stop narrower .* 3\.75 m|3\.8 m/
    );
    expect(facts?.toBlackStops).toBeCloseTo(Math.max(0, 5 - (needed - 5)), 6);
    expect(flashFacts({ ...setup, light: { ...setup.light, flash: null } }, body, entry)).toBeNull();
  });
});

describe('ordered shapes', () => {
  it('leave the largest part that fits: a square of a 3 : 2 picture two thirds of it', () => {
    expect(croppedTo('1:1', { width: 36, height: 24 })).toEqual({ width: 24 / 36, height: 1 });
    expect(croppedTo('5:4', { width: 24, height: 36 }).height).toBeCloseTo(30 / 36, 9);
    expect(tightestCrop([], { width: 36, height: 24 })).toBe(1);
    expect(tightestCrop(['5:4', '1:1'], { width: 36, height: 24 })).toBeCloseTo(
      Math.hypot(24, 24) / Math.hypot(36, 24),
      9
    );
  });

  it('tighten what counts as sharp, and the call follows', () => {
    const setup = setupOf([{ ...ada, headYawDeg: 40 }], { placement: { kind: 'distance', distanceMm: 1500 } });
    const square: Setup = { ...setup, intent: { ...setup.intent, shapes: ['1:1'] } };
    const [whole, cropped] = [checked(setup).plan, checked(square).plan];
    expect(cropped.circleOfConfusionMm / whole.circleOfConfusionMm).toBeCloseTo(
      Math.hypot(24, 24) / Math.hypot(36, 24),
      9
    );
    const from = (plan: Plan) => plan.stops.findIndex(({ facesHold }) => facesHold);
    expect(from(cropped)).toBeGreaterThan(from(whole));
  });
});
