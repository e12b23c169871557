/** What a picture that comes in becomes: of which setup it is, whose faces it shows, what its sidecar says. Fetched when pictures come. */
import { isSidecarOf, readSidecar } from '$core/formats/sidecar';
import { assignFaces } from '$core/frames/assign';
import { orientationOf } from '$core/frames/orientation';
import { eyesPx } from '$core/frames/eyes';
import type { ExpectedFace } from '$core/frames/expected';
import { withSaid } from '$core/frames/facts';
import { matchSetup, type SetupWindow } from '$core/frames/match';
import { pointedFace, withPointed } from '$core/frames/pointed';
import type { Frame, FrameFace } from '$core/frames/schema';
import { minuteOf } from '$core/setup/schedule';
import type { ReadFace, ReadFrame } from '../../../photos/measurePhoto';
import type { SetupRow } from '$lib/state/job/openJob.svelte';

export { isSidecarOf, pointedFace, withPointed, withSaid };

export interface FrameImportRequest {
  readonly id: string;
  readonly file: File;
  readonly setupId: string | null;
  /** Whether somebody has said of which setup it is. */
  readonly setupByHand: boolean;
  readonly newId: () => string;
}

/** A face as it was read: nobody's yet. */
export function faceOf(
  { box, left, right, yawDeg, pitchDeg, rollDeg, lids, contrast, score, eyes }: ReadFace,
  id: string
): FrameFace {
  return {
    id,
    personId: null,
    box,
    left,
    right,
    yawDeg,
    pitchDeg,
    rollDeg,
    lids,
    contrast,
    score: Math.min(1, Math.max(0, score)),
    byHand: false,
    eyes
  };
}

/** A frame as it was read; its faces are nobody's yet. */
export function frameOf(
  { facts, ...read }: ReadFrame,
  { id, file, setupId, setupByHand, newId }: FrameImportRequest
): Frame {
  const faces = read.faces.map((face) => faceOf(face, newId()));
  return {
    id,
    setupId,
    setupByHand,
    complete: null,
    file: {
      name: file.name.slice(0, 255) || 'picture',
      bytes: read.bytes,
      hash: read.hash,
      modifiedAt: file.lastModified
    },
    widthPx: read.width,
    heightPx: read.height,
    preview: read.preview,
    ...(read.enlarged && { enlarged: true }),
    body: [facts.make, facts.model].filter((part) => part !== null).join(' ') || null,
    serial: facts.serial,
    lens: facts.lens,
    focalLengthMm: facts.focalLengthMm,
    fNumber: facts.fNumber,
    shutterS: facts.shutterS,
    iso: facts.iso,
    clockMs: facts.clockMs,
    distanceMm: facts.distanceMm,
    rating: facts.rating,
    label: facts.label,
    keywords: [...facts.keywords],
    faces,
    sharpest: read.sharpest,
    choice: null,
    reason: null
  };
}

/** Gives faces the names of those expected, but for those somebody has named. */
export function named(frame: Frame, expected: readonly ExpectedFace[]): Frame {
  const byHand = new Set(frame.faces.flatMap((face) => (face.byHand && face.personId ? [face.personId] : [])));
  const free = frame.faces.filter((face) => !face.byHand);
  const w = frame.widthPx;
  const seen = free.map(({ left, right }) => ({
    x: (left.x + right.x) / 2 / w,
    y: (left.y + right.y) / 2 / w,
    eyes: eyesPx({ left, right }) / w
  }));
  const others = expected.filter(({ personId }) => !byHand.has(personId));
  const orientation = orientationOf(free, seen, others);
  // Names swapped left for right would be worse than none.
  const whose = orientation === null ? assignFaces(seen, others) : [];
  const names = new Map(free.map((face, index) => [face.id, whose[index] ?? null]));
  const { orientation: _, ...rest } = frame;
  return {
    ...rest,
    ...(orientation !== null && { orientation }),
    faces: frame.faces.map((face) => (face.byHand ? face : { ...face, personId: names.get(face.id) ?? null }))
  };
}

/** Of which setup a picture is, by its time (corrected), its lens and the number of faces; null where none fits. */
export function matched(
  { clockMs, focalLengthMm, faces }: Pick<Frame, 'clockMs' | 'focalLengthMm' | 'faces'>,
  setups: readonly { readonly row: SetupRow; readonly expected: number }[],
  date: string | null
): string | null {
  const windows = setups.map(({ row, expected }): SetupWindow => {
    const { startsAt, minutes } = row.setup.schedule;
    const from =
      date !== null && startsAt !== null ? Date.parse(`${date}T00:00:00Z`) + minuteOf(startsAt) * 60_000 : null;
    return {
      setupId: row.id,
      fromMs: from,
      toMs: from === null ? null : from + minutes * 60_000,
      focalLengthMm: row.setup.camera.focalLengthMm,
      faces: expected
    };
  });
  return matchSetup({ clockMs, focalLengthMm, faces: faces.length }, windows);
}

/** A frame with the rating and the label its sidecar gives it; one that cannot be read gives none. */
export function withSidecar(frame: Frame, sidecar: string | null): Frame {
  const said = sidecar === null ? null : readSidecar(sidecar);
  if (!said) return frame;
  const rating = said.rating === undefined ? frame.rating : Math.max(-1, Math.min(5, Math.round(said.rating)));
  return { ...frame, rating, label: said.label?.slice(0, 400) ?? frame.label };
}
