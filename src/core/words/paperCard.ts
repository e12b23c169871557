/** A field card, and a line of the printed list, as words alone. */
import type { NoPlan, Plan } from '../call/plan';
import type { Kit } from '../kit/schema';
import type { Setup } from '../setup/schema';
import { clockOf } from '../setup/schedule';
import { backgroundSentence, conflictSentences, noPlanWords, targetWords } from './call';
import { cardLines } from './card';
import { differentWords } from './field';
import type { LengthUnit } from '../units/length';

export interface CardWords {
  readonly number: number;
  readonly name: string;
  /** "14:35, 10 min, West door". */
  readonly when: string;
  /** "f/2.8"; empty where there is no plan. */
  readonly stop: string;
  /** Whose eye; or why there is no plan. */
  readonly target: string;
  readonly lines: readonly { readonly name: string; readonly value: string; readonly more: string }[];
  readonly sentences: readonly string[];
  /** What must not be overlooked: wishes that cannot all be granted, what turned out different. */
  readonly warnings: readonly string[];
  readonly notes: string;
}

export interface CardOf {
  readonly setup: Setup;
  readonly result: Plan | NoPlan;
  /** Exposure compensation to dial in, stops. */
  readonly compensation: number;
  readonly kit: Kit;
  readonly unit: LengthUnit;
  readonly number: number;
  readonly placeName: string;
  /** Minutes after midnight; null where no time is said. */
  readonly startsAt: number | null;
}

export function cardWords({ setup, result, compensation, kit, unit, number, placeName, startsAt }: CardOf): CardWords {
  const when = [
    startsAt === null ? '' : clockOf(startsAt),
    startsAt === null ? '' : `${setup.schedule.minutes} min`,
    placeName
  ]
    .filter((part) => part !== '')
    .join(', ');
  const head = { number, name: setup.name, when, notes: setup.notes };
  const different = differentWords(setup, kit, setup.taken.different, unit);
  const asShot = different === 'as planned' ? [] : [`As shot: ${different}.`];
  const entry = result.kind === 'plan' ? result.stops[result.selected] : undefined;
  if (result.kind === 'noPlan' || !entry) {
    const words = result.kind === 'noPlan' ? noPlanWords(result.reason, unit) : { title: '', advice: '' };
    return { ...head, stop: '', target: words.title, lines: [], sentences: [words.advice], warnings: asShot };
  }
  const conflict = conflictSentences(result);
  return {
    ...head,
    stop: `f/${entry.stop.label}`,
    target: targetWords(result, entry, unit),
    lines: cardLines(result, entry, unit, { setup, compensation }),
    sentences: result.backgrounds.map((_, position) => backgroundSentence(result, position, entry, unit)),
    warnings: [...(conflict ? [conflict.wishes] : []), ...asShot]
  };
}

export interface ListLine {
  readonly number: number;
  readonly time: string;
  readonly minutes: string;
  readonly name: string;
  readonly place: string;
  /** "f/2.8 · Ines’s near eye". */
  readonly call: string;
  readonly lens: string;
  readonly mustHave: boolean;
  readonly done: boolean;
}

export function listLine({ setup, result, kit, unit, number, placeName, startsAt }: CardOf): ListLine {
  const entry = result.kind === 'plan' ? result.stops[result.selected] : undefined;
  const lens = kit.lenses.find((item) => item.id === setup.camera.lensId)?.name ?? '';
  return {
    number,
    time: startsAt === null ? '' : clockOf(startsAt),
    minutes: String(setup.schedule.minutes),
    name: setup.name,
    place: placeName,
    call:
      result.kind === 'plan' && entry
        ? `f/${entry.stop.label} · ${targetWords(result, entry, unit)}`
        : result.kind === 'noPlan'
          ? noPlanWords(result.reason, unit).title
          : '',
    lens,
    mustHave: setup.schedule.priority === 'must',
    done: setup.taken.doneAt !== null
  };
}
