/** A remedy in the photographer's words. */
import type { Combination, Outcome, Remedy, RemedyPart } from '../call/remedies/remedy';
import { oddsWords, possessive } from './call';
import { formatLength, type LengthUnit } from '../units/length';
import { formatIso, formatShutter } from './light';

export interface RemedyWords {
  /** What to do: "Move 1.1 m off the background". */
  readonly what: string;
  /** What it gives: "opens f/2.8 to f/4". */
  readonly effect: string;
  readonly caution: string;
}

const stances: Readonly<Record<string, string>> = {
  braced: 'Brace yourself',
  kneeling: 'Kneel',
  monopod: 'Use a monopod',
  tripod: 'Use a tripod'
};

/** The caution for a high viewpoint: the venue and qualified people decide. */
const ladderCaution = 'A ladder stands on firm ground, held by somebody, where the venue allows it.';

/** Several remedies done together: "Step back 40 cm and turn Ines’s face 8° to the lens". */
export function combinationWords(combination: Combination, unit: LengthUnit): RemedyWords {
  const each = combination.parts.map((part) => what(part, unit));
  const rest = each.slice(1).map((words) => words.charAt(0).toLowerCase() + words.slice(1));
  return { ...outcome(combination, unit), what: [each[0] ?? '', ...rest].join(', and ') };
}

export function remedyWords(remedy: Remedy, unit: LengthUnit): RemedyWords {
  return { ...outcome(remedy, unit), what: what(remedy, unit) };
}

/** What it gives, the light it takes, and another framing where it comes to that. */
function outcome({ opens, caution, framing, partial }: Outcome, unit: LengthUnit): Omit<RemedyWords, 'what'> {
  const range = opens.first === opens.last ? `opens f/${opens.first}` : `opens f/${opens.first} to f/${opens.last}`;
  const nearer =
    partial &&
    (partial.stopsNearer > 0
      ? `not enough alone, but ${partial.stopsNearer.toFixed(1)} stops nearer at f/${opens.stop}`
      : `not enough alone: ${oddsWords(opens.odds)} instead of ${oddsWords(partial.oddsBefore)} at f/${opens.stop}`);
  const light = `${formatShutter(opens.shutterS)}${opens.iso === null ? '' : `, ISO ${formatIso(opens.iso)}`}`;
  const shows =
    framing === null
      ? ''
      : `; shows ${formatLength(framing.toMm, unit)} from top to bottom instead of ${formatLength(framing.fromMm, unit)}`;
  return { effect: `${nearer ?? range} at ${light}${shows}`, caution: caution === 'ladder' ? ladderCaution : '' };
}

// eslint-disable-next-line complexity -- a table: one case a remedy, each a sentence
function what({ kind, amount, subject }: RemedyPart, unit: LengthUnit): string {
  const length = formatLength(amount, unit);
  const angle = `${Math.ceil(amount)}°`;
  switch (kind) {
    case 'nearEyeAlone':
      return `Settle for ${possessive(subject)} near eye alone`;
    case 'shorterShutter':
      return 'Let the shutter be as short as the picture asks';
    case 'flash':
      return 'Light it with a flash';
    case 'bringForward':
      return `Bring ${subject} ${length} forward`;
    case 'movePoint':
      return 'Move the focus point instead of recomposing';
    case 'onePoint':
      return subject === 'pinpoint'
        ? 'Set the smallest point and put it on the eye'
        : 'Put one point on the eye yourself';
    case 'continuousFocus':
      return 'Switch to continuous focusing';
    case 'focusMethod':
      return subject === 'magnifier' ? 'Focus by hand with the magnifier' : 'Use the cross-type point';
    case 'steadier':
      return stances[subject] ?? 'Steady yourself';
    case 'turnFace':
      return `Turn ${subject}’s face ${angle} to the lens`;
    case 'turnFaces':
      return `Turn the faces up to ${angle} to the lens`;
    case 'stepBack':
      return `Step back ${length}`;
    case 'stepCloser':
      return `Step ${length} closer`;
    case 'moveOffBackground':
      return `Move everyone ${length} off the background, and yourself as far back`;
    case 'pullTogether':
      return `Pull the rows together by ${length}`;
    case 'bringThing':
      return `Bring the ${subject.replace(/^the /i, '')} ${length} closer to the faces`;
    case 'shapeRow':
      return subject === 'flat'
        ? `Straighten the rows by up to ${length}`
        : subject === 'in'
          ? `Bring the ends in by up to ${length}`
          : `Let the ends back by up to ${length}`;
    case 'turnRow':
      return `Turn the row ${angle}`;
    case 'squareCamera':
      return `Walk ${angle} round, square to the row`;
    case 'raiseCamera':
      return `Raise the camera by ${length} and tilt down`;
    case 'changeLens':
      return `Take the ${subject} from ${length}`;
    case 'twoFrames':
      return 'Take two frames, focused nearer and further, and combine them';
    case 'stitch':
      return `Stitch ${subject}`;
  }
}
