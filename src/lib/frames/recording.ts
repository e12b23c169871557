/** Keeps the record in step with the frames of the open job: numbers alone, each worked out once. */
import { areComplete, recordedOf } from '$core/record/recorded';
import type { Recorded } from '$core/record/schema';
import type { Frame } from '$core/frames/schema';
import type { App } from '$lib/state/app.svelte';
import { judging } from './judging';

/** What a frame's record was worked out from: as long as it is the same, the setup may have been changed since. */
const stampOf = ({ setupId, faces }: Frame, together: number): string =>
  JSON.stringify([setupId, together, faces.map(({ id, personId, eyes }) => [id, personId, ...sharpestOf(eyes)])]);

/** In which frames its eyes were sharpest, where they have been held against those. */
const sharpestOf = ({ left, right }: Frame['faces'][number]['eyes']): string[] =>
  [left, right].flatMap((eye) => (eye.ok && eye.own ? [eye.own.frame] : []));

/** So long the screen may wait for it at a time, ms. */
const atATimeMs = 12;

const breath = () => new Promise((resolve) => setTimeout(resolve));

let turn: Promise<unknown> = Promise.resolve();

/** Frames that are no more leave the record, as long as their job is there. One after the other. @throws what the database throws */
export function keepRecord(app: App): Promise<void> {
  const mine = turn.then(() => keep(app));
  turn = mine.catch(() => undefined);
  return mine;
}

async function keep(app: App): Promise<void> {
  const owner = app.open.id;
  const job = app.open.job;
  if (owner === null || !job) return;
  const known = await app.record.ofJob(owner);
  // What is known of a frame stays while the frame does, also where its setup is no more or cannot be planned just now.
  const there = new Set(
    app.frames.list.flatMap(({ id, frame }) => {
      const before = known.get(id);
      return before && (before.value === null || before.value.setupId === frame.setupId) ? [id] : [];
    })
  );
  const changed: { id: string; jobId: string; stamp: string; value: Recorded }[] = [];
  let since = performance.now();
  for (const [setupId, entries] of [...app.frames.bySetup]) {
    const row = setupId === null ? undefined : app.open.row(setupId);
    if (!row) continue;
    const { plan, body, lens } = app.open.planned(row.setup);
    const { allowed, expected, judged } = judging(app, setupId);
    const frames = entries.map(({ frame }) => frame);
    const told = areComplete(frames);
    for (const one of judged) {
      const { frame } = one;
      const before = known.get(frame.id);
      if (before?.value === null) continue;
      const stamp = stampOf(frame, frames.length);
      const said = { choice: frame.choice, reason: frame.reason, complete: frame.complete ?? told };
      if (before && (before.stamp === stamp || before.stamp === null)) {
        const { choice, reason, complete } = before.value;
        if (choice === said.choice && reason === said.reason && complete === said.complete) continue;
        changed.push({ id: frame.id, jobId: owner, stamp, value: { ...before.value, ...said } });
        continue;
      }
      if (plan.kind !== 'plan' || !body || !lens) continue;
      const { habits } = app.open.input(row.setup);
      const planned = { jobId: owner, setup: row.setup, plan, body, lens, habits, expected };
      const value = recordedOf(one, planned, allowed(frame), frames, said.complete);
      if (performance.now() - since > atATimeMs) {
        await breath();
        if (app.open.id !== owner) return;
        since = performance.now();
      }
      if (!value) {
        there.delete(frame.id);
        continue;
      }
      there.add(frame.id);
      // What was promised stays what was promised.
      const odds = before?.value.setupId === value.setupId ? before.value.odds : value.odds;
      changed.push({ id: frame.id, jobId: owner, stamp, value: { ...value, odds } });
    }
  }
  const gone = [...known].flatMap(([id, { stamp }]) => (stamp !== null && !there.has(id) ? [id] : []));
  if (changed.length > 0 || gone.length > 0) await app.record.change(changed, gone);
}
