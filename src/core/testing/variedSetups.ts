/** Setups of every sort the schema knows, by one seed: no two alike, nothing left at its default for long. */
import { defaultHabits, type Habits, type OwnFocus } from '../habits/habits';
import { builtInKit } from '../kit/builtInKit';
import { pointSizes, type Kit } from '../kit/schema';
import { defaultFlash, defaultLight, newBackground, newPerson, newSetup, newThing } from '../setup/defaults';
import { focusAreas, knownLights, stances, apertureStyles, type Person, type Setup } from '../setup/schema';
import { shapeNames } from '../setup/shapes';
import { looseBodies, looseLenses } from './kit';
import { seededRandom } from './random';

export interface Varied {
  readonly setup: Setup;
  readonly kit: Kit;
  readonly habits: Habits;
}

function chance(seed: number, calm: boolean) {
  const random = seededRandom(seed);
  const between = (least: number, most: number) => Math.round(least + random() * (most - least));
  const oneOf = <T>(...all: readonly T[]): T => all[Math.floor(random() * all.length)] as T;
  const times = <T>(count: number, make: (index: number) => T): T[] => Array.from({ length: count }, (_, i) => make(i));
  /** What is as usual in a calm one. */
  const usually = <T>(usual: T, other: T): T => (calm ? usual : other);
  return { usually, between, oneOf, times, seldom: () => random() < (calm ? 0.06 : 0.2), often: () => random() < 0.6 };
}
type Chance = ReturnType<typeof chance>;

function group({ between, oneOf, often, seldom, times, usually }: Chance): Person[] {
  const rows = often();
  return times(oneOf(1, 1, 2, 2, 3, 5, 7), (i) => {
    const being = seldom() ? oneOf('child' as const, 'baby' as const, 'pet' as const) : 'adult';
    return newPerson(`p${i}`, `P${i}`, {
      being,
      depthMm: rows ? (i % 2) * 500 : between(-300, 700),
      lateralMm: rows ? (i - 2) * 260 : between(-700, 700),
      floorMm: rows ? (i % 2) * 180 : 0,
      headYawDeg: oneOf(0, between(-70, 70)),
      posture: oneOf('standing', 'standing', 'seated', 'embracing'),
      sharp: oneOf('nearEye', 'bothEyes', 'eyesToNose', 'wholeHead'),
      importance: oneOf('must', 'must', 'must', 'should', 'maySoft'),
      swayMm: seldom() ? between(1, 20) : null,
      towardsMmPerS: seldom() ? between(-900, 1200) : 0,
      acrossMmPerS: seldom() ? between(20, 400) : 0,
      mood: usually('still', oneOf('still', 'still', 'still', 'restless', 'lively'))
    });
  });
}

/** The one of a seed, 1 or more. */
export function variedSetup(seed: number, calm: boolean): Varied {
  const by = chance(seed, calm);
  const { between, oneOf, often, seldom, times, usually } = by;
  const lens = oneOf(...looseLenses);
  const body = oneOf(...looseBodies);
  const people = group(by);
  const base = newSetup(`s${seed}`, `Setup ${seed}`);
  const distanceMm = usually(between(1200, 3500), between(1400, 7000));
  const focusMethod = usually<OwnFocus['method']>(
    'crossPoint',
    oneOf('crossPoint', 'crossPoint', 'crossPoint', 'ordinaryPoint', 'magnifier', 'byEye', 'scale')
  );
  const recompose = oneOf('none', 'none', 'none', 'wrists', 'waist', 'leaning');
  const setup: Setup = {
    ...base,
    people,
    things: times(oneOf(0, 0, 0, 1, 2), (i) =>
      newThing(`t${i}`, `T${i}`, {
        depthMm: between(-500, 300),
        lateralMm: between(-400, 400),
        deepMm: between(10, 90),
        held: often(),
        importance: oneOf('must', 'should', 'maySoft')
      })
    ),
    backgrounds: times(oneOf(0, 1, 1, 2), (i) =>
      newBackground(`b${i}`, `B${i}`, {
        depthMm: seldom() ? -between(400, 1200) : between(300, 15_000),
        detailMm: between(8, 300),
        wish: oneOf('hide', 'hide', 'hint', 'keep', 'free')
      })
    ),
    place: {
      ...base.place,
      backUpMm: often() ? null : distanceMm + between(0, 2500),
      behindMm: often() ? null : between(0, 2000),
      sideMm: often() ? null : between(200, 2500)
    },
    light: {
      ...defaultLight,
      level: oneOf<Setup['light']['level']>(
        { kind: 'unknown' },
        { kind: 'ev', ev100: between(-1, 15) },
        { kind: 'estimated', as: oneOf(...knownLights) },
        { kind: 'metered', fNumber: 4, shutterS: 1 / 60, iso: 800 }
      ),
      from: oneOf('front', 'side', 'behind'),
      filterStops: seldom() ? between(1, 5) : 0,
      flash: seldom()
        ? { ...defaultFlash, distanceMm: between(1500, 5000), use: oneOf('main', 'keepRoom', 'fill') }
        : null,
      shutterS: seldom() ? 1 / between(30, 400) : null
    },
    camera: {
      ...base.camera,
      bodyId: body.id,
      lensId: lens.id,
      focusMethod,
      recompose,
      focalLengthMm: oneOf(lens.shortestMm, lens.longestMm),
      orientation: oneOf('landscape', 'portrait'),
      placement: seldom()
        ? { kind: 'group', framing: oneOf('fullLength', 'threeQuarter'), marginShare: 0.1 }
        : { kind: 'distance', distanceMm },
      lateralMm: seldom() ? between(-600, 600) : 0,
      yawDeg: seldom() ? between(-8, 8) : 0,
      focusSurface: oneOf('flat', 'flat', 'curved', 'measured'),
      stance: oneOf(...stances),
      focusArea: usually('point', oneOf('point', ...focusAreas)),
      pointSize: oneOf(...pointSizes),
      focusMode: oneOf('single', 'single', 'continuous', 'automatic'),
      secondsToShutter: oneOf(0.3, 0.5, 1, 2.5),
      stitch: seldom() ? { columns: between(2, 4), rows: between(1, 3), overlap: 0.3 } : null
    },
    intent: {
      ...base.intent,
      style: usually('openAsFacesAllow', oneOf(...apertureStyles)),
      viewing: oneOf<Setup['intent']['viewing']>(
        { kind: 'traditional' },
        { kind: 'traditional' },
        { kind: 'seen', longEdgeMm: 900, distanceMm: between(500, 1500), acuity: oneOf('traditional', 'arcMinute') },
        { kind: 'pixels', pixels: between(2, 5) }
      ),
      oddsWanted: oneOf(0.7, 0.9, 0.9, 0.97),
      stop: seldom() ? { kind: 'chosen', fNumber: 4 } : { kind: 'byStyle' },
      target: seldom() ? { kind: 'eye', personId: 'p0', eye: 'leftEye' } : { kind: 'best' },
      shapes: seldom() ? [oneOf(...shapeNames)] : [],
      frames: seldom() ? 'two' : 'one'
    }
  };
  const own = seldom()
    ? [
        {
          bodyId: body.id,
          lensId: lens.id,
          method: focusMethod,
          recomposed: recompose !== 'none',
          biasUm: between(-25, 25),
          spreadUm: between(5, 20),
          focalLengthMm: null,
          frames: 30,
          learnedAt: null,
          stopShift: often() ? [{ fNumber: 8, um: between(-10, 20) }] : []
        }
      ]
    : [];
  const measured = seldom();
  const lenses = builtInKit.lenses.map((item) =>
    item.id === lens.id && measured
      ? {
          ...item,
          pupilMagnification: 0.8,
          fieldPerM: -0.05,
          measured: [
            { fNumber: item.widestFNumber, lpPerMm: 38 },
            { fNumber: 5.6, lpPerMm: 85 },
            { fNumber: item.smallestFNumber, lpPerMm: 60 }
          ],
          measuredCorner: [
            { fNumber: item.widestFNumber, lpPerMm: 17 },
            { fNumber: item.smallestFNumber, lpPerMm: 40 }
          ]
        }
      : item
  );
  return { setup, kit: { ...builtInKit, lenses }, habits: { ...defaultHabits, own } };
}

/** So many of them, always the same; calm ones, where one change may do, have little out of the ordinary. */
export const variedSetups = (count: number, calm = false): Varied[] =>
  Array.from({ length: count }, (_, seed) => variedSetup(seed + 1, calm));
