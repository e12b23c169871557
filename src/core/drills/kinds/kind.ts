/**
 * What a drill is. Everything about one stands in a file of its own in this folder: what it is for, how it is laid out, what
 * its frames say, in numbers and in words. `index.ts` lists them; screens, the phone, the record and the two weeks read that.
 */
import type { Habits } from '../../habits/habits';
import type { Body } from '../../kit/schema';
import type { Camera } from '../../setup/schema';
import type { LengthUnit } from '../../units/length';
import type { JudgeMode } from '../desk/judgeModes';
import type { LearnedFromDrill } from '../series/learned';
import type { SeriesMatch } from '../series/match';
import type { Arranged, DrillStep } from '../series/steps';

/** What soft frames were lost to, as the record tells it. */
export const weaknesses = ['elsewhere', 'turning', 'waiting', 'moving', 'focus', 'depth'] as const;
export type Weakness = (typeof weaknesses)[number];

export interface KitLimits {
  readonly focalLengthMm: number;
  /** Nominal marks. */
  readonly widestFNumber: number;
  readonly smallestFNumber: number;
  /** From the pupil, mm. */
  readonly closestMm: number;
  /** Disc that still looks sharp, mm. */
  readonly discMm: number;
  /** Something holds the picture still: longer times are asked for. */
  readonly stabilised?: boolean;
}

export interface Task {
  readonly id: string;
  readonly text: string;
  /** A step of it, by its id: what its frame must look like says what is meant. */
  readonly step?: string;
}

export interface DrillSaid {
  readonly title: string;
  readonly detail: string;
  /** One thing to do next. */
  readonly next: string;
}

/** What a series is judged by. */
export interface JudgedBy {
  readonly unit: LengthUnit;
  readonly habits: Habits;
  readonly body: Body;
  readonly focalLengthMm: number;
  readonly stance: Camera['stance'];
  /** What holds the picture still, stops. */
  readonly stabiliserStops: number;
  /** Disc that still looks sharp, mm. */
  readonly discMm: number;
  readonly arranged: Arranged;
}

/** A thing in a frame: how blurred it came out, and how it should have. */
export interface ThingRead {
  readonly index: number;
  /** mm on the sensor; null where it was not measured. */
  readonly discMm: number | null;
  readonly expectedMm: number;
}

/** What came of a series; lists are in the order of the steps. */
export interface DrillOutcome {
  readonly said: DrillSaid;
  /** What progress is read by, and where that lies nine times in ten; null where it is not told. */
  readonly figure: number | null;
  readonly low: number | null;
  readonly high: number | null;
  /** What it says of one's own hands. */
  readonly learned: readonly LearnedFromDrill[];
  /** How far the plane lay behind what was focused on, mm. */
  readonly offsetsMm?: readonly (number | null)[];
  /** What turning should have moved, mm. */
  readonly turnsMm?: readonly (number | null)[];
  readonly things?: readonly (readonly ThingRead[])[];
  readonly notes?: readonly string[];
  /** All steps are done, and are worth a sheet that shows them side by side. */
  readonly together?: boolean;
}

/** A drill that is done with a camera: marks on objects, frames brought in. */
export interface FrameDrill {
  readonly arrange: (kit: KitLimits) => Arranged;
  readonly tasks: (arranged: Arranged, unit: LengthUnit) => Task[];
  /** "focus on the second, f/5.6". */
  readonly stepName: (step: DrillStep, unit: LengthUnit) => string;
  readonly judge: (match: SeriesMatch, by: JudgedBy) => DrillOutcome;
  /** It is taken from several distances: each is read by itself. */
  readonly byDistance?: true;
  /** One is measured oneself, as one stands. */
  readonly ownStance?: true;
  /** Each stop is a step: files that do not say theirs are asked one by one. */
  readonly eachStop?: true;
  /** What is drawn of it before a frame is taken: the objects, the whole picture as they go to its edges, or a face. */
  readonly shows: 'objects' | 'picture' | 'face';
  /** Tracks, or marks from further away, are measured: the simulated camera draws finer. */
  readonly fine?: true;
  /** Putting what was learned into the plan: what the button says, and what has come of it. */
  readonly use?: { readonly button: string; readonly done: (stance: Camera['stance']) => string };
}

export interface Drill<Id extends string = string> {
  readonly id: Id;
  readonly title: string;
  /** In one sentence. */
  readonly purpose: string;
  readonly minutes: number;
  readonly needs: readonly string[];
  /** The weaknesses it helps against, and whether it is the first drill for it. */
  readonly practises: Readonly<Partial<Record<Weakness, 'first' | 'second'>>>;
  /** What progress is read by, in words: "22 mm off". @param asked what was asked where one judges by eye */
  readonly figureText: (figure: number, unit: LengthUnit, asked: JudgeMode | null) => string;
  /** Absent where it is done at the desk, on a screen of its own. */
  readonly frames?: FrameDrill;
}

/** Keeps the drill's own name as its type. */
export const defineDrill = <const Id extends string>(drill: Drill<Id>): Drill<Id> => drill;
