/**
 * QUEST (Watson and Pelli, QUEST: a Bayesian adaptive psychometric method, Perception & Psychophysics 33, 1983): after each answer, how likely
 * each threshold is; the next trial is put where the threshold is believed to lie. Here the slope is open too, and averaged over.
 */

/** What one is asked between, and how rarely one errs by inattention. */
export interface QuestAsked {
  /** Right by guessing, as a share: half where there are two answers. */
  readonly guess: number;
  /** Logarithm (base 10) of the threshold one expects, and its deviation. */
  readonly expected: number;
  readonly sd: number;
}

export interface Trial {
  /** Logarithm (base 10) of what was shown. */
  readonly at: number;
  readonly right: boolean;
}

/** Wrong though plainly seen, as a share (Watson and Pelli take one in a hundred). */
const lapses = 0.01;
/** The threshold is where so many answers are right. */
export const thresholdShare = 0.75;
/** Slopes of Weibull's function; 3.5 is Watson and Pelli's. */
const slopes = [1.5, 2, 2.5, 3, 3.5, 4, 5] as const;
const grid = { halfSds: 3.5, count: 81 } as const;

/** How many answers are right at a level, as a share: Weibull's function, three quarters at the threshold. */
export function rightAt(level: number, threshold: number, slope: number, guess: number): number {
  const seen = (thresholdShare - guess) / (1 - guess - lapses);
  return guess + (1 - guess - lapses) * (1 - Math.exp(Math.log(1 - seen) * 10 ** (slope * (level - threshold))));
}

export interface QuestResult {
  /** Logarithm of the threshold and of the interval that holds nine of ten. */
  readonly threshold: number;
  readonly low: number;
  readonly high: number;
  /** Where to ask next. */
  readonly next: number;
}

/** What is believed after some answers. */
export interface Belief {
  readonly asked: QuestAsked;
  readonly places: readonly number[];
  /** Logarithm of how likely each threshold (row) with each slope (column) is, up to a constant. */
  readonly logs: Float64Array;
}

/** Before the first answer. @throws RangeError when guessing is as good as the threshold */
export function questStart(asked: QuestAsked): Belief {
  const { guess, expected, sd } = asked;
  if (guess >= thresholdShare) throw new RangeError('Guessing must be right less often than the threshold.');
  const places = Array.from(
    { length: grid.count },
    (_, index) => expected + sd * grid.halfSds * ((2 * index) / (grid.count - 1) - 1)
  );
  const logs = Float64Array.from(places.flatMap((place) => slopes.map(() => -(((place - expected) / sd) ** 2) / 2)));
  return { asked, places, logs };
}

/** After one more. */
export function questAfter({ asked, places, logs }: Belief, { at, right }: Trial): Belief {
  const next = Float64Array.from(logs, (log, index) => {
    const place = places[Math.floor(index / slopes.length)] ?? 0;
    const share = rightAt(at, place, slopes[index % slopes.length] ?? 3.5, asked.guess);
    return log + Math.log(right ? share : 1 - share);
  });
  return { asked, places, logs: next };
}

export function questResult({ asked, places, logs }: Belief): QuestResult {
  const most = logs.reduce((best, log) => Math.max(best, log), -Infinity);
  const weights = places.map((_, place) =>
    slopes.reduce((sum, _slope, slope) => sum + Math.exp((logs[place * slopes.length + slope] ?? -Infinity) - most), 0)
  );
  const all = weights.reduce((sum, weight) => sum + weight, 0);
  const mean = weights.reduce((sum, weight, index) => sum + weight * (places[index] ?? 0), 0) / all;
  const step = (places[1] ?? 0) - (places[0] ?? 0);
  const quantile = (share: number): number => {
    let below = 0;
    for (const [index, weight] of weights.entries()) {
      if (below + weight >= share * all) return (places[index] ?? 0) + step * ((share * all - below) / weight - 0.5);
      below += weight;
    }
    return places[places.length - 1] ?? asked.expected;
  };
  return { threshold: mean, low: quantile(0.05), high: quantile(0.95), next: mean };
}

/** All answers at once. */
export const quest = (trials: readonly Trial[], asked: QuestAsked): QuestResult =>
  questResult(trials.reduce(questAfter, questStart(asked)));
