/** Frames in words: which one holds everybody, and what each of the others lacks. */
import type { FaceJudged, FrameJudged } from '../frames/eyes';
import type { Fact } from '../frames/facts';
import type { Frame, Reason } from '../frames/schema';
import { capital, listOfNames, spoken } from './call';
import { formatIso, formatShutter } from './light';

type NameOf = (personId: string) => string;

export const reasonWords: Readonly<Record<Reason, string>> = {
  softEye: 'soft eye',
  blink: 'blink',
  moved: 'moved',
  framing: 'framing',
  expression: 'expression'
};

export const factWords: Readonly<Record<Fact, string>> = {
  focalLengthMm: 'Focal length, mm',
  fNumber: 'Stop',
  shutterS: 'Shutter',
  iso: 'ISO'
};

/** "Focal length and stop are not in 5 of the files." */
export function missingWords(missing: readonly { readonly fact: Fact; readonly frames: number }[]): string {
  const most = Math.max(...missing.map(({ frames }) => frames));
  const names = missing.map(
    ({ fact }) => ({ focalLengthMm: 'focal length', fNumber: 'stop', shutterS: 'shutter', iso: 'ISO' })[fact]
  );
  const verb = names.length === 1 ? 'is' : 'are';
  return `${capital(listOfNames(names))} ${verb} not in ${most === 1 ? 'one of the files' : `${most} of the files`}.`;
}

const notToldWords = {
  small: 'too small',
  noisy: 'too noisy',
  notFull: 'not at full size',
  noEdge: 'nothing to go by',
  unlike: 'unlike an eye',
  unseen: 'not seen',
  open: 'sharp or soft: can’t tell'
} as const;

/** Why an eye cannot be told, "too small". */
export const unmeasurableText = (why: NonNullable<FaceJudged['why']>): string => notToldWords[why];

const namesOf = (faces: readonly FaceJudged[], name: NameOf): string[] =>
  faces.map(({ personId }) => (personId === null ? 'somebody' : spoken(name(personId))));

/** The number a camera gave the file, as one speaks of it: "3" of "IMG_0003.JPG"; the whole name where it has none. */
export function frameNumber({ file }: Pick<Frame, 'file'>): string {
  const digits = /(\d+)(?:\D*)\.[^.]*$/.exec(file.name)?.[1];
  return digits === undefined ? file.name : String(Number(digits));
}

/** A direction without a sense: "across", "up and down", "down to the right". @param angle radians, 0 across, growing downwards */
export function directionWords(angle: number): string {
  const turn = ((angle % Math.PI) + Math.PI) % Math.PI;
  const eighth = Math.round((turn / Math.PI) * 4) % 4;
  return ['across', 'down to the right', 'up and down', 'down to the left'][eighth] ?? 'across';
}

const orientationWords: Readonly<Record<NonNullable<Frame['orientation']>, string>> = {
  mirrored: 'mirrored: everybody stands the other way round than planned; name the faces yourself, or flip the file',
  sideways: 'on its side: turn the file, then bring it in again'
};

/** What a frame lacks, "Corvin soft, Wren blinks"; "everyone sharp". */
export function frameRemark({ frame, faces, missed, held, absent, shake }: FrameJudged, name: NameOf): string {
  if (faces.length === 0) return 'no face found';
  if (frame.orientation) return orientationWords[frame.orientation];
  if (shake) return `camera shook: ${Math.round(shake.px)} px ${directionWords(shake.angle)}`;
  const part = (wanted: readonly FaceJudged[], word: string) =>
    wanted.length === 0 ? [] : [`${listOfNames(namesOf(wanted, name))} ${word}`];
  const moving = missed.filter(({ smear }) => smear);
  const open = missed.filter(({ closed, smear }) => !closed && !smear);
  const parts = [
    ...part(
      open.filter(({ judged }) => judged === 'soft'),
      'soft'
    ),
    ...part(
      open.filter(({ judged }) => judged === 'touchSoft'),
      'a touch soft'
    )
  ];
  for (const { personId, smear } of moving)
    if (smear)
      parts.push(
        `${personId === null ? 'Somebody' : name(personId)} moved: ${Math.round(smear.px)} px ${directionWords(smear.angle)}`
      );
  const blinking = missed.filter(({ closed }) => closed);
  if (blinking.length > 0)
    parts.push(`${listOfNames(namesOf(blinking, name))} ${blinking.length === 1 ? 'blinks' : 'blink'}`);
  if (absent.length > 0) parts.push(`${listOfNames(absent.map((id) => spoken(name(id))))} not found`);
  if (parts.length > 0) return parts.join('; ');
  const unknown = faces.filter(({ judged, personId }) => judged === 'unknown' && personId !== null);
  if (held === 0) return 'cannot be told';
  return unknown.length === 0
    ? 'everyone sharp'
    : `${listOfNames(namesOf(unknown, name))} cannot be told, all others sharp`;
}

/** "Frame 3 holds everybody." and what the next ones miss; the best there is where none does. */
export function framesTitle(ranked: readonly FrameJudged[], name: NameOf): string {
  const [best, next] = ranked;
  if (!best) return 'No frames yet.';
  const holding = ranked.filter(({ missed, held, absent }) => missed.length === 0 && absent.length === 0 && held > 0);
  const number = (item: FrameJudged) => frameNumber(item.frame);
  if (holding.length === 0)
    return `No frame holds everybody. ${number(best)} comes nearest: ${frameRemark(best, name)}.`;
  const first = holding.slice(0, 3).map(number);
  if (holding.length === ranked.length)
    return ranked.length === 1 ? `Frame ${number(best)} holds everybody.` : 'Every frame holds everybody.';
  if (holding.length > 3)
    return `${holding.length} of ${ranked.length} frames hold everybody; ${number(best)} is the sharpest.`;
  const start =
    holding.length === 1 ? `Frame ${first[0]} holds everybody.` : `Frames ${listOfNames(first)} hold everybody.`;
  const after = ranked[holding.length] ?? next;
  return after ? `${start} ${number(after)} does not: ${frameRemark(after, name)}.` : start;
}

/** "f/4 · 1/250 · ISO 640", as far as the file says. */
export function settingsLine({ fNumber, shutterS, iso }: Pick<Frame, 'fNumber' | 'shutterS' | 'iso'>): string {
  return [
    fNumber === null ? null : `f/${Number(fNumber.toFixed(1))}`,
    shutterS === null ? null : formatShutter(shutterS),
    iso === null ? null : `ISO ${formatIso(iso)}`
  ]
    .filter((part) => part !== null)
    .join(' · ');
}

/** "14:36:02". @param clockMs as if it were UTC, ms */
export const clockText = (clockMs: number | null): string =>
  clockMs === null ? '' : new Date(clockMs).toISOString().slice(11, 19);
