/** What a remedy is, and what the files of this folder share. */
import type { Habits } from '../../habits/habits';
import type { Body, Kit, Lens } from '../../kit/schema';
import type { Person, Setup } from '../../setup/schema';
import type { Plan } from '../plan';

export type RemedyKind =
  | 'nearEyeAlone'
  | 'shorterShutter'
  | 'flash'
  | 'bringForward'
  | 'movePoint'
  | 'continuousFocus'
  | 'focusMethod'
  | 'steadier'
  | 'turnFace'
  | 'turnFaces'
  | 'stepBack'
  | 'stepCloser'
  | 'moveOffBackground'
  | 'pullTogether'
  | 'bringThing'
  | 'shapeRow'
  | 'turnRow'
  | 'squareCamera'
  | 'raiseCamera'
  | 'changeLens'
  | 'widerFromHere'
  | 'twoFrames'
  | 'stitch';

/** One thing to do. */
export interface RemedyPart {
  readonly kind: RemedyKind;
  /** How much: mm, degrees or a share, by kind; 0 for a plain switch. */
  readonly amount: number;
  readonly unit: 'mm' | 'deg' | 'share' | 'none';
  /** What it is about: a person's name, a stance, a lens; empty for none. */
  readonly subject: string;
}

/** What doing it leads to. */
export interface Outcome {
  /** Rough minutes of trouble on location, for ranking (from memory). */
  readonly effort: number;
  readonly caution: 'ladder' | null;
  /** The setup with the remedy applied. */
  readonly setup: Setup;
  /** What planning it again gives, and the light it takes: the shutter time, and the ISO where the light is known. */
  readonly opens: {
    readonly stop: string;
    readonly first: string;
    readonly last: string;
    readonly odds: number;
    readonly shutterS: number;
    readonly iso: number | null;
  };
  /** How much of the scene it shows from top to bottom, mm, before and after, where that changes noticeably. */
  readonly framing: { readonly fromMm: number; readonly toMm: number } | null;
  /** It does not open the window, but comes nearest to it: by better odds (`stopsNearer` 0), or by so many stops; null when it does. */
  readonly partial: { readonly oddsBefore: number; readonly stopsNearer: number } | null;
}

export interface Remedy extends RemedyPart, Outcome {}

/** Several things done together, each less than it would take alone. */
export interface Combination extends Outcome {
  readonly parts: readonly RemedyPart[];
}

/** A change by a varying amount. */
export interface Family {
  readonly kind: RemedyKind;
  readonly unit: Remedy['unit'];
  readonly subject?: string;
  readonly caution?: Remedy['caution'];
  /** Largest amount the place and the people allow. */
  readonly most: number;
  /** Amounts are rounded up to this. */
  readonly step: number;
  readonly effort: (amount: number) => number;
  readonly apply: (amount: number) => Setup;
}

/** A change that is one thing or another; options in order of effort. */
export interface RemedyChoice {
  readonly kind: RemedyKind;
  readonly unit: Remedy['unit'];
  readonly options: readonly {
    readonly setup: Setup;
    readonly subject: string;
    readonly effort: number;
    readonly amount?: number;
  }[];
}

export interface Context {
  readonly habits: Habits;
  readonly setup: Setup;
  readonly plan: Plan;
  readonly body: Body;
  readonly lens: Lens;
  readonly kit: Kit;
  readonly distance: number;
}

export const standingAt = (distanceMm: number) => ({ placement: { kind: 'distance', distanceMm } }) as const;
/** Moves everybody who is not free to be soft. */
export const movePeople = (setup: Setup, move: (person: Person) => Partial<Person>): Setup => ({
  ...setup,
  people: setup.people.map((person) => (person.importance === 'maySoft' ? person : { ...person, ...move(person) }))
});

/** An angle brought into −180 to 180 degrees. */
export const wrapDeg = (angle: number) => ((((angle + 180) % 360) + 360) % 360) - 180;

export const partOf = ({ kind, unit, subject = '' }: Family, amount: number): RemedyPart => ({
  kind,
  amount,
  unit,
  subject
});
export const costOf = (family: Family, amount: number): Pick<Outcome, 'effort' | 'caution'> => ({
  effort: family.effort(amount),
  caution: family.caution ?? null
});
