/** What came of drills, as it is stored. */
import type { DrillId } from '$core/drills/kinds/ids';
import type { DrillResult } from '$core/drills/schema';
import { newRow } from '$lib/data';
import type { App } from '$lib/state/app.svelte';

/** The latest first. */
export const resultsOf = (app: App, drill?: DrillId): DrillResult[] =>
  app.store
    .table('drills')
    .list.map(({ value }) => value)
    .filter((one): one is DrillResult => one.kind === 'result' && (drill === undefined || one.drill === drill))
    .sort((a, b) => b.madeAt - a.madeAt);

export const ticksOf = (app: App, drill: DrillId): readonly string[] => {
  const row = app.store.table('drills').get(drill)?.value;
  return row?.kind === 'ticks' ? row.ticked : [];
};

export function tick(app: App, drill: DrillId, task: string, on: boolean): void {
  const before = ticksOf(app, drill);
  const ticked = on ? [...before.filter((one) => one !== task), task] : before.filter((one) => one !== task);
  app.store.edit(
    'drill step',
    (draft) => draft.put('drills', newRow(drill, { kind: 'ticks', id: drill, ticked }, { position: 0 })),
    { history: false }
  );
}

/** What was asked, how one stood and what it says of one's hands only where that matters. */
type Kept = Omit<DrillResult, 'kind' | 'id' | 'madeAt' | 'asked' | 'stance' | 'learned'> &
  Partial<Pick<DrillResult, 'asked' | 'stance' | 'learned'>>;

/** Keeps one time. @returns its id */
export function keepResult(app: App, title: string, result: Kept): string {
  const [id, now] = [app.newId(), app.now()];
  const value: DrillResult = { kind: 'result', id, madeAt: now, asked: null, stance: null, learned: [], ...result };
  app.store.edit(`${title} done`, (draft) => draft.put('drills', newRow(id, value, { position: now })), {
    history: false
  });
  app.messages.done(`Kept: ${title}.`);
  return id;
}
