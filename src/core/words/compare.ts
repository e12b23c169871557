/** Frames beside each other, in words. */
import type { FaceJudged, FrameJudged } from '../frames/eyes';
import type { Pair } from '../frames/choose';
import type { Frame } from '../frames/schema';
import { listOfNames, spoken } from './call';
import { frameNumber, frameRemark } from './frames';

type NameOf = (personId: string) => string;

/** Smaller differences are none, stops. */
const noticed = 0.17;

/** "a stop", "1.3 stops". */
function stopsWords(stops: number): string {
  const rounded = Math.round(Math.abs(stops) * 3) / 3;
  return rounded === 1 ? 'a stop' : `${Number(rounded.toFixed(1))} stops`;
}

/**
 * What is different in a frame from another: "a stop narrower, 2 stops faster"; and how much softer somebody is, as the stops one would
 * have to close the lens for the same. Empty where nothing is.
 */
export function differenceWords(
  of: Pick<Frame, 'fNumber' | 'shutterS' | 'iso'>,
  from: Pick<Frame, 'fNumber' | 'shutterS' | 'iso'>,
  discs: readonly [number | null, number | null] = [null, null]
): string {
  const part = (a: number | null, b: number | null, [more, less]: readonly [string, string], each: number) => {
    if (a === null || b === null) return [];
    const stops = each * Math.log2(a / b);
    return Math.abs(stops) < noticed ? [] : [`${stopsWords(stops)} ${stops > 0 ? more : less}`];
  };
  const told = discs.every((disc) => disc !== null && disc > leastDiscPx);
  return [
    ...part(of.fNumber, from.fNumber, ['narrower', 'wider'], 2),
    ...part(of.shutterS, from.shutterS, ['slower', 'faster'], 1),
    ...part(of.iso, from.iso, ['more ISO', 'less ISO'], 1),
    // The disc of defocus halves when the lens is closed by two stops.
    ...(told ? part(discs[0], discs[1], ['softer', 'sharper'], 2) : [])
  ].join(', ');
}

/** Discs under this are none that could be compared, pixels (docs/model.md, section 12). */
const leastDiscPx = 1.5;

/** "No frame has everyone. 203 and 207 together do: take Wren from 207." */
export function pairWords({ first, second, fromSecond }: Pair, name: NameOf): string {
  const who = listOfNames(fromSecond.map((id) => spoken(name(id))));
  const [a, b] = [frameNumber(first.frame), frameNumber(second.frame)];
  return `No frame has everyone. ${a} and ${b} together do: take ${who} from ${b}.`;
}

/** Why a frame is the best of its burst: what the next one lacks. */
export function bestWords(best: FrameJudged, next: FrameJudged, name: NameOf): string {
  const worse = next.missed.length + next.absent.length > best.missed.length + best.absent.length;
  return worse
    ? `best of the burst: in ${frameNumber(next.frame)} ${frameRemark(next, name)}`
    : `best of the burst: sharper than ${frameNumber(next.frame)}`;
}

/** "Wren is sharp with eyes open in 9 of 12 frames: 203, 205 and 207 are the sharpest." */
export function throughWords(
  name: string,
  seen: readonly { readonly frame: Frame; readonly face: FaceJudged }[]
): string {
  const good = seen.filter(({ face }) => face.judged === 'sharp' && !face.closed);
  const of = seen.length === 1 ? 'one frame' : `${seen.length} frames`;
  if (good.length === 0)
    return `${name} isn’t sharp with eyes open in ${seen.length === 1 ? 'the one frame' : `any of ${of}`}.`;
  const best = [...good].sort((a, b) => (a.face.ratio ?? 0) - (b.face.ratio ?? 0)).slice(0, 3);
  const numbers = listOfNames(best.map(({ frame }) => frameNumber(frame)));
  if (good.length === seen.length)
    return `${name} is sharp with eyes open in ${seen.length === 1 ? 'the one frame' : `all ${of}`}.`;
  const which = good.length <= 3 ? ` only: ${numbers}` : `; sharpest in ${numbers}`;
  return `${name} is sharp with eyes open in ${good.length} of ${of}${which}.`;
}
