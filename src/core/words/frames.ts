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
  fNumber: 'Aperture',
  shutterS: 'Shutter',
  iso: 'ISO'
};

/** "Focal length and aperture are not in 5 of the files." */
export function missingWords(missing: readonly { readonly fact: Fact; readonly frames: number }[]): string {
  const most = Math.max(...missing.map(({ frames }) => frames));
  const names = missing.map(
    ({ fact }) => ({ focalLengthMm: 'focal length', fNumber: 'aperture', shutterS: 'shutter', iso: 'ISO' })[fact]
  );
  const verb = names.length === 1 ? 'is' : 'are';
  return `${capital(listOfNames(names))} ${verb} not in ${most === 1 ? 'one of the files' : `${most} of the files`}.`;
}

const notToldWords = {
  small: 'too small',
  noisy: 'too noisy',
  notFull: 'not at full size',
  noEdge: 'nothing to measure',
  unlike: 'unlike an eye',
  unseen: 'not seen',
  open: 'sharp or soft: can’t tell'
} as const;

/** Why an eye cannot be told, "too small". */
export const unmeasurableText = (why: NonNullable<FaceJudged['why']>): string => notToldWords[why];

const namesOf = (faces: readonly FaceJudged[], name: NameOf): string[] =>
  faces.map(({ personId }) => (personId === null ? 'someone' : spoken(name(personId))));

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
  mirrored: 'mirrored: name the faces yourself or flip the file',
  sideways: 'on its side: rotate the file and import it again'
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
        `${personId === null ? 'Someone' : name(personId)} moved: ${Math.round(smear.px)} px ${directionWords(smear.angle)}`
      );
  const blinking = missed.filter(({ closed }) => closed);
  if (blinking.length > 0)
    parts.push(`${listOfNames(namesOf(blinking, name))} ${blinking.length === 1 ? 'blinks' : 'blink'}`);
  if (absent.length > 0) parts.push(`${listOfNames(absent.map((id) => spoken(name(id))))} not found`);
  if (parts.length > 0) return parts.join('; ');
  const unknown = faces.filter(({ judged, personId }) => judged === 'unknown' && personId !== null);
  if (held === 0) return 'can’t tell';
  return unknown.length === 0
    ? 'everyone sharp'
    : `can’t tell ${listOfNames(namesOf(unknown, name))}; everyone else sharp`;
}

/** "Everyone is sharp in frame 3." and what the next one lacks; the best there is where none has everyone. */
export function framesTitle(ranked: readonly FrameJudged[], name: NameOf): string {
  const [best, next] = ranked;
  if (!best) return 'No frames yet.';
  const holding = ranked.filter(({ missed, held, absent }) => missed.length === 0 && absent.length === 0 && held > 0);
  const number = (item: FrameJudged) => frameNumber(item.frame);
  if (holding.length === 0) return `No frame has everyone. ${number(best)} comes closest: ${frameRemark(best, name)}.`;
  const first = holding.slice(0, 3).map(number);
  if (holding.length === ranked.length)
    return ranked.length === 1 ? `Everyone is sharp in frame ${number(best)}.` : 'Everyone is sharp in every frame.';
  if (holding.length > 3)
    return `Everyone is sharp in ${holding.length} of ${ranked.length} frames; ${number(best)} is sharpest.`;
  const start = `Everyone is sharp in ${holding.length === 1 ? 'frame' : 'frames'} ${listOfNames(first)}.`;
  const after = ranked[holding.length] ?? next;
  return after ? `${start} In ${number(after)}: ${frameRemark(after, name)}.` : start;
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

/** Said wherever figures come from the simulated camera. */
export const trialRun = (of: 'lens' | 'hands' | 'sensor'): string => `Simulated frames: a trial run, not your ${of}.`;
