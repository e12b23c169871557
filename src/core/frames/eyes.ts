/** What was measured in a frame, in the words and signs of the plan. */
import { group, median, sum } from 'd3-array';
import { motionDisc, totalDisc, verdict, type SharpnessVerdict } from '../optics/sharpness';
import { chanceWithin, medianDisc, sharperEye, type MeasuredDisc } from './combine';
import type { Frame, FrameFace, EyeFigure, Reason } from './schema';

export type Judged = SharpnessVerdict | 'unknown';

export interface FaceJudged {
  readonly faceId: string;
  readonly personId: string | null;
  /** Of the sharper eye: one is enough. Null where it cannot be told. */
  readonly ratio: number | null;
  readonly discPx: number | null;
  readonly judged: Judged;
  /** Why it cannot be told. */
  readonly why: Extract<EyeFigure, { ok: false }>['reason'] | 'open' | null;
  readonly closed: boolean;
  /** They, or the camera, moved while the shutter was open: how far, pixels, and in which direction. */
  readonly smear: { readonly px: number; readonly angle: number } | null;
}

export const eyesPx = ({ left, right }: Pick<FrameFace, 'left' | 'right'>): number =>
  Math.hypot(left.x - right.x, left.y - right.y);

/** What was measured of an eye: against the same eye in its sharpest frame, where there is one. */
export function eyeOf({ personId, eyes }: Pick<FrameFace, 'personId' | 'eyes'>, side: 'left' | 'right'): EyeFigure {
  const eye = eyes[side];
  if (!eye.ok || !eye.own || eye.own.of !== personId) return eye;
  const { discPx, low, high } = eye.own;
  return { ...eye, discPx, low, high };
}

/** What is usually to be seen of somebody's eyes, each for itself. */
export interface UsualEyes {
  /** Range of the light about the irises. */
  readonly contrast: FrameFace['contrast'];
  /** Gap of the lids over the eye's width. */
  readonly lids: FrameFace['lids'];
}

/**
 * Closed eyes have both less to see and lids nearer together than is usual for that person, each in one eye at least (held against frames
 * of the simulated camera): blur takes contrast but leaves the lids, and of a turned head only one eye tells either.
 */
const closedBelow = { contrast: 0.72, lids: 0.76 } as const;
/** Frames of somebody from which what is usual can be told. */
const leastFrames = 4;

type Each = FrameFace['lids'];
/** The lesser of the two eyes, over what is usual for it. */
const lesser = (now: Each, usual: Each): number => Math.min(now.left / usual.left, now.right / usual.right);

const eachEye = (faces: readonly FrameFace[], of: (face: FrameFace) => Each): Each => ({
  left: median(faces, (face) => of(face).left) ?? 0,
  right: median(faces, (face) => of(face).right) ?? 0
});

/** What is usual for each person: the median over frames. Nobody with too few frames. */
export function usualEyes(frames: readonly Pick<Frame, 'faces'>[]): ReadonlyMap<string, UsualEyes> {
  const named = frames.flatMap(({ faces }) => faces.filter(({ personId, pointed }) => personId !== null && !pointed));
  const usual = (faces: readonly FrameFace[]): UsualEyes => ({
    contrast: eachEye(faces, ({ contrast }) => contrast),
    lids: eachEye(faces, ({ lids }) => lids)
  });
  return new Map(
    [...group(named, ({ personId }) => personId ?? '')].flatMap(([id, faces]): [string, UsualEyes][] =>
      faces.length < leastFrames ? [] : [[id, usual(faces)]]
    )
  );
}

/** Whether somebody's eyes are closed, against what is usual for them. Never said of whom too little is known. */
export function eyesClosed(
  { personId, contrast, lids, pointed }: Pick<FrameFace, 'personId' | 'contrast' | 'lids' | 'pointed'>,
  usual: ReadonlyMap<string, UsualEyes>
): boolean {
  const known = personId === null || pointed ? undefined : usual.get(personId);
  return (
    known !== undefined &&
    lesser(contrast, known.contrast) < closedBelow.contrast &&
    lesser(lids, known.lids) < closedBelow.lids
  );
}

export function judgeFace(
  face: FrameFace,
  allowedPx: number,
  usual: ReadonlyMap<string, UsualEyes> = new Map()
): FaceJudged {
  const eyes = [eyeOf(face, 'left'), eyeOf(face, 'right')].flatMap((eye) => (eye.ok ? [eye] : []));
  const closed = eyesClosed(face, usual);
  // The lashes of a closed eye are a line: what looks like a movement there is none.
  const [smear] = closed ? [] : eyes.flatMap((eye) => eye.smear ?? []).sort((a, b) => b.gain - a.gain);
  const base = { faceId: face.id, personId: face.personId, closed, smear: smear ?? null };
  if (eyes.length === 0) {
    const [first] = [face.eyes.left, face.eyes.right].flatMap((eye) =>
      eye.ok || eye.reason === 'unseen' ? [] : [eye.reason]
    );
    return { ...base, ratio: null, discPx: null, judged: 'unknown', why: first ?? null };
  }
  const chances = sharperEye(
    eyes.map((eye) => withMotion(eye, closed ? null : eye.smear)),
    face.yawDeg
  );
  const discPx = medianDisc(chances);
  const ratio = discPx / allowedPx;
  // A thing's own look is not known: its disc may be anything between.
  if (face.pointed === 'thing' && eyes.every(({ low, high }) => verdict(low / allowedPx) !== verdict(high / allowedPx)))
    return { ...base, ratio: null, discPx, judged: 'unknown', why: 'noEdge' };
  const sharp = chanceWithin(chances, allowedPx);
  if (sharp >= likelyEnough.sharp) return { ...base, ratio: Math.min(1, ratio), discPx, judged: 'sharp', why: null };
  if (1 - sharp < likelyEnough.soft) return { ...base, ratio: null, discPx, judged: 'unknown', why: 'open' };
  // Not sharp: how soft, by the likeliest.
  const soft = Math.max(ratio, justSoft);
  return { ...base, ratio: soft, discPx, judged: verdict(soft), why: null };
}

/**
 * From these chances on somebody is said to be sharp, or not to be (chosen on `scripts/verdicts.ts`: eyes are far more often sharp
 * than their faces' intervals say; table in docs/model.md).
 */
const likelyEnough = { sharp: 0.4, soft: 0.75 } as const;
/** Least ratio of who is not sharp. */
const justSoft = 1.001;

/** A disc with what a movement adds to it, likeliest and least and most. */
function withMotion({ discPx, low, high }: MeasuredDisc, smear: { readonly px: number } | null): MeasuredDisc {
  const motion = smear ? motionDisc(smear.px) : 0;
  return { discPx: totalDisc(discPx, motion), low: totalDisc(low, motion), high: totalDisc(high, motion) };
}

/**
 * The disc a frame may show and still be called sharp, pixels: as much of the plan's as this frame's picture is wide, and not less than can be told at all.
 *
 * @param discMm the setup's circle of confusion on the sensor; @param sensorMm the picture's width on it
 */
export function allowedPx(frame: Pick<Frame, 'widthPx'>, discMm: number, sensorMm: number): number {
  return Math.max(leastToldPx, (discMm / sensorMm) * frame.widthPx);
}

/** Smaller discs than this cannot be told from none, pixels (docs/model.md, measured). */
const leastToldPx = 2;

export interface FrameJudged {
  readonly frame: Frame;
  readonly faces: readonly FaceJudged[];
  /** How many of those who must be are sharp with their eyes open. */
  readonly held: number;
  readonly missed: readonly FaceJudged[];
  /** Who must be sharp and was not found. */
  readonly absent: readonly string[];
  /** Most moved, and alike: the camera did. One face alone does not tell. */
  readonly shake: { readonly px: number; readonly angle: number } | null;
  /** Lower is better: misses first, then how soft the softest is. */
  readonly rank: number;
}

/** @param mustBe who must be sharp; everybody seen where nobody is named */
export function judgeFrame(
  frame: Frame,
  allowed: number,
  mustBe: ReadonlySet<string>,
  usual: ReadonlyMap<string, UsualEyes> = new Map()
): FrameJudged {
  const order = [...mustBe];
  const faces = frame.faces.map((face) => judgeFace(face, allowed, usual));
  const deciding = faces.filter(({ personId }) => mustBe.size === 0 || (personId !== null && mustBe.has(personId)));
  const place = (personId: string | null) => (personId === null ? Infinity : order.indexOf(personId));
  const inOrder = [...deciding].sort((a, b) => place(a.personId) - place(b.personId) || 0);
  const missed = inOrder.filter(({ judged, closed }) => closed || judged === 'touchSoft' || judged === 'soft');
  const seen = new Set(deciding.map(({ personId }) => personId));
  const absent = [...mustBe].filter((id) => !seen.has(id));
  const worst = Math.max(0, ...deciding.map(({ ratio }) => ratio ?? 0));
  return {
    frame,
    faces,
    held: deciding.filter((face) => face.ratio !== null && !missed.includes(face)).length,
    absent,
    missed,
    shake: shakeOf(faces),
    rank: missed.length * 100 + absent.length * 50 + Math.min(worst, 40)
  };
}

/** Directions further apart than this are two movements, radians: the fit's own grid is π/8 (measure/motion.ts). */
const alike = Math.PI / 7;
/** So many of the faces measured must share a movement that it is the camera's (chosen). */
const mostOfThem = 0.6;

/** One movement that most of the faces share. */
function shakeOf(faces: readonly FaceJudged[]): FrameJudged['shake'] {
  const measured = faces.filter(({ ratio }) => ratio !== null).length;
  const moved = faces.flatMap(({ smear }) => smear ?? []);
  // Directions have no sense: doubled, opposite ones are one.
  const doubled = Math.atan2(
    sum(moved, ({ angle }) => Math.sin(2 * angle)),
    sum(moved, ({ angle }) => Math.cos(2 * angle))
  );
  const off = (angle: number) => Math.abs(Math.atan2(Math.sin(2 * angle - doubled), Math.cos(2 * angle - doubled))) / 2;
  const together = moved.filter(({ angle }) => off(angle) < alike);
  if (together.length < 2 || together.length < mostOfThem * measured) return null;
  return { px: median(together, ({ px }) => px) ?? 0, angle: (doubled < 0 ? doubled + 2 * Math.PI : doubled) / 2 };
}

/** The reason that goes with what was measured; null when nothing speaks against it. */
export function reasonFor({ missed, shake }: FrameJudged): Reason | null {
  if (shake || missed.some(({ smear }) => smear)) return 'moved';
  if (missed.some(({ judged }) => judged === 'soft' || judged === 'touchSoft')) return 'softEye';
  return missed.some(({ closed }) => closed) ? 'blink' : null;
}
