/** The open job as a day: its setups in order, what that costs, and changes of order and time. */
import { betterOrder, withTimes } from '$core/day/order';
import { timetable, type DayItem, type Timetable } from '$core/day/timetable';
import type { JobSetup } from '$core/job/schema';
import type { Schedule, TakenRecord, TakenVerdict } from '$core/setup/schedule';
import type { EditManner } from '$lib/data';
import type { Services } from './services';

const itemOf = ({ id, name, camera, placeId, schedule }: JobSetup): DayItem => ({
  id,
  name,
  bodyId: camera.bodyId,
  lensId: camera.lensId,
  placeId,
  schedule
});

export class Day {
  readonly #parts: Services;
  readonly items: readonly DayItem[] = $derived.by(() =>
    this.#parts.store.table('setups').list.map((row) => itemOf(row.value))
  );
  /** The lens on each body at the start, where the job's bag says so. */
  readonly held: ReadonlyMap<string, string | null> = $derived.by(
    () => new Map(this.#parts.open.bag?.bodies.map(({ bodyId, lensId }) => [bodyId, lensId]) ?? [])
  );
  readonly table: Timetable = $derived(timetable(this.items, this.held));
  readonly better = $derived(betterOrder(this.items, this.held));

  constructor(parts: Services) {
    this.#parts = parts;
  }

  /** What the day would be in another order of these ids; times stay with the day where that is possible. */
  inOrder(ids: readonly string[]): readonly DayItem[] {
    const byId = new Map(this.items.map((item) => [item.id, item]));
    const order = ids.flatMap((id) => byId.get(id) ?? []);
    if (order.length !== this.items.length) return this.items;
    return withTimes(this.items, order) ?? order;
  }

  /** Puts the setups into this order, as one step. */
  reorder(ids: readonly string[], label = 'Order of the day'): void {
    const { store } = this.#parts;
    const order = this.inOrder(ids);
    const places = store.table('setups').list.map((row) => row.position);
    const result = store.edit(label, (draft) => {
      order.forEach((item, index) => {
        const row = draft.row('setups', item.id);
        const position = places[index];
        if (!row || position === undefined) return;
        const { startsAt } = item.schedule;
        const value =
          startsAt === row.value.schedule.startsAt
            ? row.value
            : { ...row.value, schedule: { ...row.value.schedule, startsAt } };
        draft.put('setups', { ...row, position, value });
      });
    });
    if (result.ok && result.step !== null) this.#parts.messages.done(`${label}.`, result.step);
  }

  /** Changes when some setups are taken. Returns whether that is possible. */
  schedule(ids: readonly string[], label: string, changes: Partial<Schedule>, how: EditManner = null): boolean {
    return this.#change(ids, label, (setup) => ({ ...setup, schedule: { ...setup.schedule, ...changes } }), how);
  }

  /** What became of a setup on the day. */
  taken(ids: readonly string[], label: string, changes: Partial<TakenRecord>, how: EditManner = null): boolean {
    return this.#change(ids, label, (setup) => ({ ...setup, taken: { ...setup.taken, ...changes } }), how);
  }

  /** Ticks a setup done, or not done again. */
  tick(id: string, done: boolean): void {
    this.taken([id], done ? 'Done' : 'Not done', done ? { doneAt: this.#now } : { doneAt: null, verdict: null });
  }

  /** How it came out; whatever is judged is done. The same again takes it back. */
  judge(id: string, verdict: TakenVerdict): void {
    this.#change([id], 'How it is', (setup) => {
      const { taken } = setup;
      const doneAt = taken.doneAt ?? this.#now;
      return { ...setup, taken: { ...taken, doneAt, verdict: taken.verdict === verdict ? null : verdict } };
    });
  }

  get #now(): string {
    return new Date(this.#parts.now()).toISOString();
  }

  #change(
    ids: readonly string[],
    label: string,
    recipe: (setup: JobSetup) => JobSetup,
    how: EditManner = null
  ): boolean {
    const options = typeof how === 'string' ? { gesture: how } : (how ?? {});
    const result = this.#parts.store.edit(
      label,
      (draft) => ids.forEach((id) => draft.change('setups', id, recipe)),
      options
    );
    return result.ok;
  }
}
