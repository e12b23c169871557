/** The record by body, lens and way of focusing: where each puts its plane, and whether that may stand in the habits. */
import { group } from 'd3-array';
import { sameKit, type OwnKey } from '../call/scatter';
import type { Habits, OwnFocus } from '../habits/habits';
import { shiftedFocus } from '../optics/thinLens';
import {
  learn,
  learnSway,
  ofOneFocusing,
  type Estimate,
  type ObservationGroup,
  type LearnedFocus,
  type Observation,
  type Prior
} from './learn';
import { learnMovement, learnSways, type PersonSway, type PersonPlacement } from './persons';
import type { Recorded } from './schema';

/** What may be asked of the record. */
export interface RecordAsked {
  /** Now, ms since 1970: frames count less the older they are. */
  readonly nowMs: number;
  /** After so many days a frame counts half; null: always whole. */
  readonly halfLifeDays: number | null;
}

/** What one expects before the first frame is worth so many (from memory). */
export const priorFrames = 8;
/** The bias of body and lens one expects, over the spread one expects (from memory). */
const biasShare = 1.2;
const leastUm = 0.5;
const dayMs = 86_400_000;

export interface KitGroup {
  readonly key: string;
  readonly bodyId: string;
  readonly body: string;
  readonly lensId: string;
  readonly lens: string;
  readonly method: Recorded['method'];
  readonly recomposed: boolean;
  readonly frames: readonly Recorded[];
  /** Those that say where the plane fell, and came with all others of their setup. */
  readonly used: readonly Recorded[];
  /** Focusings they are, by their weight. */
  readonly learned: LearnedFocus;
  readonly prior: Prior;
}

/** What a frame says of the focus; null where it says nothing, or may not. */
const observed = (frame: Recorded): Observation | null =>
  frame.error && frame.complete && !frame.landedElsewhere ? { parts: frame.error, swayUm: frame.swayUm } : null;

const weightOf = ({ takenMs }: Recorded, { nowMs, halfLifeDays }: RecordAsked): number =>
  halfLifeDays === null || takenMs === null ? 1 : 0.5 ** (Math.max(0, nowMs - takenMs) / dayMs / halfLifeDays);

/** One observation a focusing. */
function observationsOf(frames: readonly Recorded[], asked: RecordAsked): Observation[] {
  const apart = group(
    frames.filter((frame) => observed(frame) !== null),
    ({ id, focusing }) => focusing ?? id
  );
  return [...apart.values()].map((together) => {
    const all = together.flatMap((frame) => {
      const seen = observed(frame);
      return seen ? [{ ...seen, weight: weightOf(frame, asked) }] : [];
    });
    return ofOneFocusing(all);
  });
}

function priorOf(frames: readonly Recorded[]): Prior {
  const usual = frames.reduce((sum, { usualUm }) => sum + usualUm, 0) / frames.length;
  const spreadUm = Math.max(leastUm, usual);
  return { spreadUm, biasUm: biasShare * spreadUm, frames: priorFrames };
}

const keyOf = ({ bodyId, lensId, method, recomposed }: Recorded): string =>
  JSON.stringify([bodyId, lensId, method, recomposed]);

/** The largest first. */
export function kitGroups(frames: readonly Recorded[], asked: RecordAsked): KitGroup[] {
  return [...group(frames, keyOf)]
    .flatMap(([key, own]): KitGroup[] => {
      // The latest names stand for all.
      const last = own[own.length - 1];
      if (!last) return [];
      const { bodyId, body, lensId, lens, method, recomposed } = last;
      const prior = priorOf(own);
      const learned = learn(observationsOf(own, asked), prior);
      const used = own.filter((frame) => observed(frame) !== null);
      return [{ key, bodyId, body, lensId, lens, method, recomposed, frames: own, used, learned, prior }];
    })
    .sort((a, b) => b.used.length - a.used.length || b.frames.length - a.frames.length || (a.key < b.key ? -1 : 1));
}

export interface StanceSway {
  readonly stance: Recorded['stance'];
  /** Focusings it rests on. */
  readonly frames: number;
  /** By how much the planned sway is to be multiplied. */
  readonly factor: Estimate;
}

/** Sway over what the habits have, by stance: those with frames that say something. */
export function swayByStance(frames: readonly Recorded[], asked: RecordAsked): StanceSway[] {
  return [...group(frames, ({ stance }) => stance)].flatMap(([stance, own]) => {
    const groups = [...group(own, keyOf).values()].map((same): ObservationGroup => {
      return { observations: observationsOf(same, asked), prior: priorOf(same) };
    });
    const count = groups.reduce((sum, { observations }) => sum + observations.length, 0);
    return count === 0 ? [] : [{ stance, frames: count, factor: learnSway(groups) }];
  });
}

export interface PersonFigures {
  readonly jobId: string;
  readonly person: string;
  readonly name: string;
  /** Null where they were alone, or too seldom where it can be told. */
  readonly sway: PersonSway | null;
  /** How often they moved across of how many frames, and the speed; null where they never did. */
  readonly movement: { readonly moved: number; readonly of: number; readonly speed: Estimate } | null;
}

/** How each person of each job sways and moves. Nobody of whom too little is known. */
export function personFigures(frames: readonly Recorded[], asked: RecordAsked): PersonFigures[] {
  return [...group(frames, ({ jobId }) => jobId)].flatMap(([jobId, all]): PersonFigures[] => {
    // Chosen frames make everybody keep still.
    const own = all.filter(({ complete }) => complete);
    const told = own.flatMap((frame) =>
      frame.people.map((person) => ({ frame, ...person, weight: weightOf(frame, asked) }))
    );
    const sways = learnSways(
      told.flatMap(({ frame, id, placed, weight }): PersonPlacement[] =>
        placed ? [{ ...placed, person: id, setup: frame.setupId, focusing: frame.focusing ?? frame.id, weight }] : []
      )
    );
    return [...group(told, ({ id }) => id)].flatMap(([person, seen]): PersonFigures[] => {
      const movements = seen.flatMap(({ movement, weight }) => (movement ? [{ ...movement, weight }] : []));
      const moved = movements.filter(({ mmPerS }) => mmPerS !== null).length;
      const sway = sways.find((one) => one.person === person && one.frames >= leastFocusings) ?? null;
      const movement = moved === 0 ? null : { moved, of: movements.length, speed: learnMovement(movements) };
      if (!sway && !movement) return [];
      return [{ jobId, person, name: seen[seen.length - 1]?.name ?? '', sway, movement }];
    });
  });
}

/** So many focusings must stand behind a figure before it may replace the usual one (chosen: then it weighs as much as the prior). */
export const leastFocusings = priorFrames;

/** What has been learned, as habits hold it. */
export function ownFocusOf(
  { bodyId, lensId, method, recomposed, learned }: OwnKey & { readonly learned: LearnedFocus },
  nowMs: number
): OwnFocus {
  const [biasUm, spreadUm] = [learned.bias.value, learned.sd.value].map((um) => Number(um.toFixed(2)));
  return {
    bodyId,
    lensId,
    method,
    recomposed,
    focalLengthMm: null,
    stopShift: [],
    biasUm: biasUm ?? 0,
    spreadUm: Math.max(0.1, spreadUm ?? 0),
    frames: learned.frames,
    learnedAt: nowMs
  };
}

/** Focal lengths nearer together than this share are one: files round them. */
export const sameFocal = 0.02;

/** Whether a figure stands in place of another: that of a whole zoom for that of an end too, and the other way round. */
const replaces = (figure: OwnFocus, item: OwnFocus): boolean =>
  sameKit(figure, item) &&
  (figure.focalLengthMm === null ||
    item.focalLengthMm === null ||
    Math.abs(figure.focalLengthMm / item.focalLengthMm - 1) <= sameFocal);

/** Habits with figures in place of what they said of the same kit before; what stopping down moves stays until it is measured anew. */
export const withOwnFocus = (habits: Habits, figures: readonly OwnFocus[]): Habits => {
  const kept = (figure: OwnFocus): OwnFocus['stopShift'] =>
    figure.stopShift.length > 0
      ? figure.stopShift
      : (habits.own.find((item) => replaces(figure, item) && item.stopShift.length > 0)?.stopShift ?? []);
  return {
    ...habits,
    own: [
      ...habits.own.filter((item) => !figures.some((one) => replaces(one, item))),
      ...figures.map((figure) => ({ ...figure, stopShift: kept(figure) }))
    ]
  };
};

/** Habits with what these groups say in place of what they said before. */
export const withOwn = (habits: Habits, groups: readonly KitGroup[], nowMs: number): Habits =>
  withOwnFocus(
    habits,
    groups.filter(({ learned }) => learned.frames >= leastFocusings).map((one) => ownFocusOf(one, nowMs))
  );

/** What an error on the sensor (µm) is at a distance from the lens, mm, pupils alike; positive behind. Infinity beyond the farthest. */
export const atDistanceMm = (um: number, focalLengthMm: number, distanceMm: number): number =>
  shiftedFocus(focalLengthMm, distanceMm, um / 1000) - distanceMm;
