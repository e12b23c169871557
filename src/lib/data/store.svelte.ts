/**
 * The document store: edits over rows of any tables, taken back and done again. It knows nothing of what the rows are
 * about; descriptors tell it what it needs.
 */
import type Dexie from 'dexie';
import { issueField, issueReason } from '$core/formats/issues';
import { merge, same } from '$core/plain/merge';
import { changeIssue } from '$core/schema/changed';
import { AtHand } from './atHand.svelte';
import { commit, joined, reversed, type Committed } from './commit';
import { Draft } from './draft';
import { History, type HistoryStep } from './history.svelte';
import type { MemoryTable } from './memory.svelte';
import { peersOf, type Peers, type RowKey } from './peers';
import { rowKey, type Change, type Descriptors, type Row, type TableName, type Values } from './rows';
import { Writer, type SaveState } from './writer';

interface StoreOptions<T extends Values> {
  readonly database: Dexie;
  readonly descriptors: Descriptors<T>;
  readonly now: () => number;
  /** Keeps edits the store has not confirmed; an empty list forgets them. */
  readonly keep: (unconfirmed: readonly Change[]) => void;
  /** The store was found emptied, by whoever clears what the browser keeps. */
  readonly onCleared: () => void;
}

export interface EditOptions {
  /** Edits that share a gesture are one step of undo. */
  readonly gesture?: string | null;
  /** Still being typed: shown, and stored only when it is followed by an edit that is not. */
  readonly hold?: boolean;
  /** Whether it can be taken back. */
  readonly history?: boolean;
}

/** How an edit is meant, for whoever passes it on; a text is a gesture, null is done. */
export type EditManner = EditOptions | string | null;

export type EditResult =
  | { readonly ok: true; readonly step: number | null }
  | { readonly ok: false; readonly field: string; readonly reason: string };

export type StepResult =
  | { readonly kind: 'done'; readonly step: HistoryStep; readonly partly: boolean }
  | { readonly kind: 'failed'; readonly step: HistoryStep; readonly error: unknown };

interface Held {
  readonly label: string;
  readonly changes: readonly Change[];
  readonly history: boolean;
}

export class Store<T extends Values> {
  readonly history = new History();
  readonly atHand: AtHand<T>;
  saving = $state.raw<SaveState>({ kind: 'saved', at: null });
  /** Edits to what another tab has erased; kept until it is brought back. */
  homeless = $state.raw<readonly Change[]>([]);
  readonly #database: Dexie;
  readonly #writer: Writer;
  readonly #peers: Peers;
  readonly #onCleared: () => void;
  #recovering = false;
  #held: Held | null = null;
  #steps: Promise<StepResult | null> = Promise.resolve(null);

  constructor({ database, descriptors, now, keep, onCleared }: StoreOptions<T>) {
    this.#database = database;
    this.#onCleared = onCleared;
    this.#writer = new Writer({
      commit: (changes, prefer) => commit(database, descriptors, changes, { now: now(), prefer }),
      onCommitted: (committed) => this.#committed(committed),
      onState: (state) => void (this.saving = state),
      keep: (changes) => keep(joined(changes, this.homeless)),
      now
    });
    this.atHand = new AtHand(database, descriptors, () => this.#writer.unstored);
    this.#peers = peersOf(database.name, (keys) => this.atHand.refresh(keys));
  }

  table<N extends TableName<T>>(name: N): MemoryTable<T[N]> {
    return this.atHand.table(name);
  }

  /** Has the rows of an owner at hand. @throws what the database throws */
  async open(owner: string | null): Promise<void> {
    this.keepHeld();
    await this.#writer.flush();
    await this.atHand.open(owner);
  }

  /**
   * Changes rows of any tables together: at once on the screen, then in the store. An edit that would make one invalid is
   * refused with the reason, and nothing is changed.
   */
  edit(label: string, recipe: (draft: Draft<T>) => void, options: EditOptions = {}): EditResult {
    const { gesture = null, hold = false, history = true } = options;
    if (!hold) this.keepHeld();
    const draft = new Draft<T>((table, id) => this.atHand.memory(table).get(id));
    recipe(draft);
    const { changes } = draft;
    if (changes.length === 0) return { ok: true, step: null };
    for (const { table, before, after } of changes) {
      const issue = after && changeIssue(this.atHand.descriptor(table).schema, before?.value ?? null, after.value);
      if (issue) return { ok: false, field: issueField(issue), reason: issueReason(issue) };
    }
    this.atHand.show(changes);
    if (hold) {
      this.#held = { label, history, changes: joined(this.#held?.changes ?? [], changes) };
      this.#writer.hold(this.#held.changes);
      return { ok: true, step: null };
    }
    const step = history ? this.history.add(label, changes, gesture) : null;
    this.#writer.put(changes);
    return { ok: true, step };
  }

  /** What is being typed is meant. */
  keepHeld(): void {
    const held = this.#held;
    if (!held) return;
    this.#held = null;
    this.#writer.hold([]);
    const changes = held.changes.filter(({ before, after }) => !same(before, after));
    if (changes.length === 0) return;
    if (held.history) this.history.add(held.label, changes, null);
    this.#writer.put(changes);
  }

  /** What is being typed is not meant: everything is as it was. */
  dropHeld(): void {
    const held = this.#held;
    if (!held) return;
    this.#held = null;
    this.#writer.hold([]);
    this.atHand.show(held.changes.map((change) => ({ ...change, after: this.#without(change) })));
  }

  /** A row as it is now, without one change. */
  #without({ table, id, before, after }: Change): Row | null {
    const now = this.atHand.memory(table).get(id);
    return before && after && now ? merge(after, before, now) : before;
  }

  /** Keys of rows that need not be stored and may yet be: shown and waiting, or brought by undo and redo. */
  get awaited(): ReadonlySet<string> {
    return new Set([...this.#writer.unstored.map(rowKey), ...this.history.keys]);
  }

  /** True when, in the end, everything is stored. */
  flush(): Promise<boolean> {
    return this.#writer.flush();
  }

  /** Stores a change set at once, as one step; nothing is shown of it before. @throws when it cannot be stored */
  async apply(label: string, changes: readonly Change[]): Promise<number> {
    this.keepHeld();
    return this.#writer.now(changes, 'mine', () => this.history.add(label, changes, null));
  }

  /** Takes up what an earlier tab left: it yields to whatever has been stored since. */
  async takeUp(changes: readonly Change[]): Promise<void> {
    await this.#writer.now(changes, 'stored', () => undefined);
  }

  /**
   * Shows what earlier tabs left and the store would not take, and stores it once it does.
   *
   * @param runs changes of a tab each, the latest first
   */
  async adopt(runs: readonly (readonly Change[])[]): Promise<void> {
    const rows = new Map<string, Change>();
    for (const { table, id, before, after } of [...runs].reverse().flat()) {
      const key = rowKey({ table, id });
      const known = rows.get(key);
      const stored = known ? known.before : ((await this.#database.table<Row, string>(table).get(id)) ?? null);
      const current = known ? known.after : stored;
      const merged = before && after && current ? merge(before, after, current) : after;
      rows.set(key, { table, id, before: stored, after: merged });
    }
    const changes = [...rows.values()];
    this.atHand.show(changes);
    this.#writer.put(changes);
  }

  undo = () => this.#inTurn('back', () => this.history.lastDone);
  redo = () => this.#inTurn('forth', () => this.history.lastUndone);
  /** Takes back one named step, wherever it stands; what was done since in the same place stays. */
  takeBack = (id: number) => this.#inTurn('back', () => this.history.find(id));

  /**
   * One step at a time: the next begins where the one before has arrived. What is being typed is meant, and a step itself:
   * the first to be taken back, and with it nothing is left to be done again.
   */
  #inTurn(direction: 'back' | 'forth', which: () => HistoryStep | undefined): Promise<StepResult | null> {
    return (this.#steps = this.#steps.then(() => {
      this.keepHeld();
      return this.#step(which(), direction);
    }));
  }

  async #step(step: HistoryStep | undefined, direction: 'back' | 'forth'): Promise<StepResult | null> {
    if (!step) return null;
    this.history.endGesture();
    const changes = direction === 'back' ? reversed(step.changes) : step.changes;
    try {
      const { stored } = await this.#writer.now(changes, 'stored', (committed) => {
        if (direction === 'back') this.history.undone(step);
        else this.history.redone(step);
        return committed;
      });
      const rowOf = ({ table, id }: Change) => stored.find((item) => item.table === table && item.id === id)?.row;
      return { kind: 'done', step, partly: !changes.every((change) => isReached(change, rowOf(change) ?? null)) };
    } catch (error) {
      return { kind: 'failed', step, error };
    }
  }

  /**
   * Whether the store was emptied under an open page: of all that stands alone and is at hand, nothing is there but what
   * was written since. Something always is: settings at least.
   */
  async isCleared(written: Committed['stored'] = []): Promise<boolean> {
    const isWritten = (table: string, id: string) =>
      written.some((row) => row.table === table && row.id === id && row.row !== null);
    const pending = this.#writer.unstored;
    let known = 0;
    for (const table of this.atHand.standingAlone) {
      const ids = await this.#database.table<Row, string>(table).toCollection().primaryKeys();
      if (ids.some((id) => !isWritten(table, id))) return false;
      const isNew = (id: string) => pending.some((item) => item.table === table && item.id === id && !item.before);
      known += this.atHand.memory(table).list.filter(({ id }) => !isWritten(table, id) && !isNew(id)).length;
    }
    return known > 0;
  }

  /**
   * Stores again what is at hand, after the store was emptied: all that stands alone, and the owner whose rows are at hand
   * with those. Other owners are gone with what was theirs.
   *
   * @returns the rows of owners that are gone
   * @throws what the database throws
   */
  async storeAgain(): Promise<readonly Row[]> {
    if (this.#recovering) return [];
    this.#recovering = true;
    try {
      this.keepHeld();
      const { changes, gone } = this.atHand.remains;
      await this.#writer.now(changes, 'stored', () => undefined);
      this.homeless = [];
      for (const { table, row } of gone) this.atHand.memory(table).set([[row.id, null]]);
      return gone.map(({ row }) => row);
    } finally {
      this.#recovering = false;
    }
  }

  #committed({ stored, homeless, missing }: Committed): void {
    if (missing && !this.#recovering) void this.#suspect(stored);
    if (homeless.length > 0) this.homeless = joined(this.homeless, homeless);
    this.atHand.receive(stored);
    this.#peers.tell(stored.map(({ table, id }) => ({ table, id })));
  }

  async #suspect(stored: Committed['stored']): Promise<void> {
    if (await this.isCleared(stored).catch(() => false)) this.#onCleared();
  }

  /** Brings the owner at hand back, whom another tab has erased, with all that is at hand and every edit since. */
  async bringBack(owners: readonly Change[]): Promise<void> {
    await this.#writer.now([...owners, ...this.atHand.ownedRows], 'stored', () => undefined);
    const { homeless } = this;
    this.homeless = [];
    if (homeless.length > 0) this.#writer.put(homeless);
  }

  /** Rows that were erased past all edits: they are gone here and elsewhere. */
  erased(keys: readonly RowKey[]): void {
    this.atHand.receive(keys.map((key) => ({ ...key, row: null })));
    this.#peers.tell(keys);
  }

  /** Everything shown that the store has not confirmed, but for what is being typed. */
  get unconfirmed(): readonly Change[] {
    return joined(this.#writer.unconfirmed, this.homeless);
  }

  stop(): void {
    this.#writer.stop();
    this.#peers.stop();
  }
}

/** Whether a row is as a change would have it: doing it again would change nothing. */
function isReached({ before, after }: Change, row: Row | null): boolean {
  if (!after || !row) return after === row;
  return same(before ? merge(before.value, after.value, row.value) : after.value, row.value);
}
