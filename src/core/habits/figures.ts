/** Every figure of the habits as somebody may change it: what it is called, in which unit, and where it plausibly lies. */
import { z } from 'zod';
import { boundsOf } from '../schema/values';
import { habitsSchema, type Habits } from './habits';

export interface HabitFigure {
  /** From the habits down to the figure. */
  readonly path: readonly [keyof Habits, ...string[]];
  readonly label: string;
  /** Written behind the figure; empty for a plain number. */
  readonly unit: 'µm' | 'mm' | 's' | 'stops' | 'EV' | 'm/s' | '×' | '%' | '';
  /** The stored value times this is what is shown. */
  readonly shownTimes: number;
  /** Where it plausibly lies, as shown, from memory. */
  readonly plausible: readonly [number, number];
  readonly step: number;
}

export interface HabitGroup {
  readonly title: string;
  readonly figures: readonly HabitFigure[];
}

const figure = (
  path: HabitFigure['path'],
  label: string,
  unit: HabitFigure['unit'],
  plausible: readonly [number, number],
  step: number,
  shownTimes = 1
): HabitFigure => ({ path, label, unit, shownTimes, plausible, step });

/** All of them, in the order a photographer would ask. */
export const habitGroups: readonly HabitGroup[] = [
  {
    title: 'Where focus lands',
    figures: [
      figure(['focusSpreadUm', 'crossPoint'], 'Autofocus, good point', 'µm', [6, 20], 1),
      figure(['focusSpreadUm', 'ordinaryPoint'], 'Autofocus, lesser point', 'µm', [12, 40], 1),
      figure(['focusShare', 'magnifier'], 'Magnified, by hand', '×', [0.15, 0.4], 0.05),
      figure(['focusShare', 'magnifierOnTripod'], 'Magnified, on a tripod', '×', [0.05, 0.2], 0.01),
      figure(['focusShare', 'byEye'], 'By eye', '×', [1, 2], 0.1),
      figure(['magnifiedS'], 'Magnified takes longer by', 's', [1, 4], 0.5),
      figure(['lowLightFromEv'], 'AF gets worse below', 'EV', [0, 4], 1),
      figure(['lowLightFactor'], 'At its limit wider by', '×', [1.5, 5], 0.5),
      figure(['scaleShare'], 'By the distance scale', '%', [4, 12], 1, 100),
      figure(['continuousFactor'], 'Continuous, wider by', '×', [1, 1.5], 0.05),
      figure(['continuousLagS'], 'Continuous focus lags', 's', [0.01, 0.1], 0.01),
      figure(['lagSpreadS'], 'Its lag varies by', 's', [0.01, 0.06], 0.01),
      figure(['automaticLagS'], 'Switching by itself lags', 's', [0.1, 0.4], 0.05)
    ]
  },
  {
    title: 'Your own sway after one second',
    figures: [
      figure(['holdMm', 'standing'], 'Standing', 'mm', [3, 8], 0.5),
      figure(['holdMm', 'braced'], 'Braced', 'mm', [2, 6], 0.5),
      figure(['holdMm', 'kneeling'], 'Kneeling', 'mm', [2, 5], 0.5),
      figure(['holdMm', 'monopod'], 'Monopod', 'mm', [1, 4], 0.5),
      figure(['holdMm', 'tripod'], 'Tripod', 'mm', [0.1, 1], 0.1),
      figure(['turnS'], 'Recomposing takes longer by', 's', [0.3, 1], 0.1),
      figure(['leanMm'], 'Leaning after focusing', 'mm', [20, 30], 5),
      figure(['leanSpreadMm'], 'Spread of that', 'mm', [5, 20], 1),
      figure(['reactionS'], 'Your reaction time', 's', [0.18, 0.3], 0.01),
      figure(['reactionSpreadS'], 'Reaction time varies by', 's', [0.03, 0.1], 0.01)
    ]
  },
  {
    title: 'Subject sway after one second',
    figures: [
      figure(['swayMm', 'standing'], 'Standing', 'mm', [2.8, 4.5], 0.5),
      figure(['swayMm', 'seated'], 'Seated', 'mm', [1, 3], 0.5),
      figure(['swayMm', 'embracing'], 'Embracing', 'mm', [1.5, 4], 0.5),
      figure(['swayMm', 'child'], 'Child', 'mm', [10, 20], 1),
      figure(['swayMm', 'pet'], 'Pet', 'mm', [10, 30], 1),
      figure(['swayMm', 'heldThing'], 'Object in a hand', 'mm', [4, 7], 0.5),
      figure(['restlessFactor'], 'Talking, more by', '×', [1.5, 4], 0.5),
      figure(['livelyFactor'], 'Playing, more by', '×', [5, 25], 1),
      figure(['swayGrowsForS'], 'Grows for', 's', [2, 5], 0.5),
      figure(['walkingMmPerS'], 'Walks at', 'm/s', [0.8, 1.6], 0.1, 0.001)
    ]
  },
  {
    title: 'Shake at 1/focal length, of the disc allowed',
    figures: [
      figure(['shakeShare', 'standing'], 'Standing', '%', [50, 80], 5, 100),
      figure(['shakeShare', 'braced'], 'Braced', '%', [30, 60], 5, 100),
      figure(['shakeShare', 'kneeling'], 'Kneeling', '%', [30, 60], 5, 100),
      figure(['shakeShare', 'monopod'], 'Monopod', '%', [10, 30], 5, 100),
      figure(['shakeShare', 'tripod'], 'Tripod', '%', [0, 5], 1, 100),
      figure(['shakeAtMost'], 'ISO rises from', '%', [30, 60], 5, 100),
      figure(['stabiliserLossStops'], 'Stabiliser, less by', 'stops', [1, 2], 0.5)
    ]
  },
  {
    title: 'Turning after focusing, pivot behind the lens',
    figures: [
      figure(['pivotMm', 'wrists'], 'Wrists', 'mm', [80, 160], 10),
      figure(['pivotMm', 'shoulders'], 'Shoulders', 'mm', [200, 300], 10),
      figure(['pivotMm', 'waist'], 'Waist', 'mm', [500, 700], 10)
    ]
  },
  {
    title: 'Blinks',
    figures: [
      figure(['blinkEveryS'], 'One every', 's', [3, 10], 0.5),
      figure(['blinkS'], 'Lasting', 's', [0.15, 0.4], 0.05)
    ]
  }
];

const own = (from: unknown, key: string): unknown =>
  typeof from === 'object' && from !== null ? (from as Readonly<Record<string, unknown>>)[key] : undefined;

/** The least and the most a figure may be, as shown. */
export function allowed({ path, shownTimes }: HabitFigure): { readonly min: number; readonly max: number } {
  let schema: unknown = habitsSchema;
  for (const key of path) {
    const part = schema instanceof z.ZodObject ? own(schema.shape, key) : undefined;
    schema = part instanceof z.ZodDefault ? part.unwrap() : part;
  }
  if (!(schema instanceof z.ZodNumber)) throw new Error(`no figure ${path.join('.')}`);
  const { min, max } = boundsOf(schema);
  return { min: min * shownTimes, max: max * shownTimes };
}

/** A figure as it is shown. */
export function shownFigure(habits: Habits, { path, shownTimes }: HabitFigure): number {
  const value = path.reduce<unknown>(own, habits);
  return typeof value === 'number' ? Number((value * shownTimes).toPrecision(6)) : NaN;
}

/** The habits with one figure changed, given as it is shown. */
export function withFigure(habits: Habits, { path, shownTimes }: HabitFigure, shown: number): Habits {
  const set = (from: unknown, [key, ...rest]: readonly string[]): unknown =>
    key === undefined
      ? Number((shown / shownTimes).toPrecision(9))
      : { ...(from as Readonly<Record<string, unknown>>), [key]: set(own(from, key), rest) };
  return set(habits, path) as Habits;
}
