/** What came of drills, as it is stored. */
import type { DrillId } from '$core/drills/ids';
import type { DrillResult } from '$core/drills/schema';
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
