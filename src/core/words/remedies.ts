/** A remedy in the photographer's words. */
import type { Combination, Outcome, Remedy, RemedyPart } from '../call/remedies/remedy';
import { oddsWords, possessive } from './call';
import { formatLength, type LengthUnit } from '../units/length';
import { formatIso, formatShutter } from './light';

export interface RemedyWords {
  /** What to do: "Step back 40 cm". */
  readonly what: string;
  /** What it gives: "f/2.8–f/4 works". */
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
const ladderCaution = 'Ladder: firm ground, someone holding it, the venue’s permission.';

/** "1 stop", "0.8 stops". */
const stopsWords = (stops: number): string => {
  const rounded = stops.toFixed(1).replace(/\.0$/, '');
  return `${rounded} ${rounded === '1' ? 'stop' : 'stops'}`;
};

/** Several remedies done together: "Step back 40 cm and turn Ines’s face 8° towards the lens". */
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
  const range = opens.first === opens.last ? `f/${opens.first} works` : `f/${opens.first}–f/${opens.last} works`;
  const nearer =
    partial &&
    (partial.stopsNearer > 0
      ? `helps by ${stopsWords(partial.stopsNearer)}, not enough alone (f/${opens.stop})`
      : `not enough alone: ${oddsWords(opens.odds)} instead of ${oddsWords(partial.oddsBefore)} at f/${opens.stop}`);
  const light = `${formatShutter(opens.shutterS)}${opens.iso === null ? '' : `, ISO ${formatIso(opens.iso)}`}`;
  const shows =
    framing === null
      ? ''
      : `; frames ${formatLength(framing.toMm, unit)} top to bottom instead of ${formatLength(framing.fromMm, unit)}`;
  return { effect: `${nearer ?? range} at ${light}${shows}`, caution: caution === 'ladder' ? ladderCaution : '' };
}

// eslint-disable-next-line complexity -- a table: one case a remedy, each a sentence
function what({ kind, amount, subject }: RemedyPart, unit: LengthUnit): string {
  const length = formatLength(amount, unit);
  const angle = `${Math.ceil(amount)}°`;
  switch (kind) {
    case 'nearEyeAlone':
      return `Settle for ${possessive(subject)} near eye only`;
    case 'shorterShutter':
      return 'Use the faster shutter this setup needs';
    case 'flash':
      return 'Add flash';
    case 'bringForward':
      return `Bring ${subject} ${length} forward`;
    case 'movePoint':
      return 'Move the AF point instead of recomposing';
    case 'continuousFocus':
      return 'Switch to continuous AF';
    case 'focusMethod':
      return subject === 'magnifier' ? 'Focus manually, magnified' : 'Use a cross-type point';
    case 'steadier':
      return stances[subject] ?? 'Steady yourself';
    case 'turnFace':
      return `Turn ${possessive(subject)} face ${angle} towards the lens`;
    case 'turnFaces':
      return `Turn faces up to ${angle} towards the lens`;
    case 'stepBack':
      return `Step back ${length}`;
    case 'stepCloser':
      return `Step ${length} closer`;
    case 'moveOffBackground':
      return `Move everyone ${length} away from the background, and step back as far`;
    case 'pullTogether':
      return `Bring the rows ${length} closer together`;
    case 'bringThing':
      return `Bring the ${subject.replace(/^the /i, '')} ${length} closer to the faces`;
    case 'shapeRow':
      return subject === 'flat'
        ? `Straighten the rows by up to ${length}`
        : subject === 'in'
          ? `Bring the ends in by up to ${length}`
          : `Move the ends of the row back by up to ${length}`;
    case 'turnRow':
      return `Turn the row ${angle}`;
    case 'squareCamera':
      return `Move ${angle} round until you are square to the row`;
    case 'raiseCamera':
      return `Raise the camera by ${length} and tilt down`;
    case 'changeLens':
      return `Use the ${subject} from ${length}`;
    case 'widerFromHere':
      return `Stay here and use the ${subject}, uncropped`;
    case 'twoFrames':
      return 'Focus-stack two frames, one near, one far';
    case 'stitch':
      return `Stitch ${subject}`;
  }
}
