/** The frames of one setup as they are judged: by its viewing standard, its people, and what is usual for them. */
import type { ExpectedFace } from '$core/frames/expected';
import { allowedPx, judgeFrame, usualEyes, type FrameJudged } from '$core/frames/eyes';
import { bursts } from '$core/frames/match';
import type { Frame } from '$core/frames/schema';
import { circleOfConfusion } from '$core/optics/criterion';
import { pictureSize } from '$core/setup/framing';
import type { App } from '$lib/state/app.svelte';
import type { SetupRow } from '$lib/state/job/openJob.svelte';

/** What addresses and choices call frames of no setup. */
export const noSetup = 'none';

/** Without a plan: a full frame (36 × 24 mm). */
const fullFrame = { widthMm: 36, heightMm: 24, pixelsWide: 6000 } as const;

export interface Column {
  readonly personId: string;
  readonly name: string;
}

export interface Judging {
  /** Null for frames of no setup. */
  readonly row: SetupRow | null;
  readonly expected: readonly ExpectedFace[];
  /** Who and what must be sharp: those expected; pets and things where somebody has pointed at them. */
  readonly columns: readonly Column[];
  readonly allowed: (frame: Frame) => number;
  /** In the order of the clock. */
  readonly judged: readonly FrameJudged[];
  /** How many times the camera was pointed. */
  readonly bursts: readonly (readonly Frame[])[];
}

export function judging(app: App, setupId: string | null): Judging {
  const row = (setupId === null ? undefined : app.open.row(setupId)) ?? null;
  const planned = row ? app.open.planned(row.setup) : null;
  const [discMm, widthMm] =
    row && planned?.plan.kind === 'plan' && planned.body
      ? [planned.plan.circleOfConfusionMm, pictureSize(planned.body, row.setup.camera).width]
      : [circleOfConfusion(app.settings.now.viewing, fullFrame), fullFrame.widthMm];
  const expected = row ? app.frames.expected(row) : [];
  const must = new Set(row?.setup.people.filter(({ importance }) => importance !== 'maySoft').map(({ id }) => id));
  const frames = (app.frames.bySetup.get(row?.id ?? null) ?? []).map(({ frame }) => frame);
  const usual = usualEyes(frames);
  const seen = new Set(expected.flatMap(({ personId }) => (must.has(personId) ? [personId] : [])));
  const pointedAt = new Set(
    frames.flatMap(({ faces }) => faces.flatMap((face) => (face.pointed && face.personId) || []))
  );
  const others = [...(row?.setup.people ?? []), ...(row?.setup.things ?? [])].flatMap((one): Column[] =>
    one.importance !== 'maySoft' && pointedAt.has(one.id) && !seen.has(one.id)
      ? [{ personId: one.id, name: one.name }]
      : []
  );
  const columns: Column[] = [...expected.filter(({ personId }) => seen.has(personId)), ...others];
  const allowed = (frame: Frame) => allowedPx(frame, discMm, widthMm);
  return {
    row,
    expected,
    columns,
    allowed,
    // What was pointed at counts in the frames in which it was; nobody finds it in the others.
    judged: frames.map((frame) => {
      const here = others.filter(({ personId }) => frame.faces.some((face) => face.personId === personId));
      return judgeFrame(frame, allowed(frame), new Set([...seen, ...here.map(({ personId }) => personId)]), usual);
    }),
    bursts: bursts(frames)
  };
}

/** What people of the open job, and things of its setups, are called. */
export const nameIn =
  (app: App) =>
  (subjectId: string): string =>
    app.open.people.find(({ id }) => id === subjectId)?.name ??
    app.open.rows.flatMap(({ setup }) => setup.things).find(({ id }) => id === subjectId)?.name ??
    'somebody';
