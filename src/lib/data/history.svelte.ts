/** What can be taken back and done again, over all tables. Steps move only when the store has confirmed them. */
import { same } from '$core/plain/merge';
import { joined } from './commit';
import { rowKey, type Change } from './rows';

export interface HistoryStep {
  readonly id: number;
  /** What was done: "Head turn". */
  readonly label: string;
  readonly changes: readonly Change[];
  /** Edits of one drag or one run of keys share a gesture and one step. */
  readonly gesture: string | null;
}

const longest = 200;

export class History {
  #undo = $state.raw<readonly HistoryStep[]>([]);
  #redo = $state.raw<readonly HistoryStep[]>([]);
  readonly canUndo = $derived(this.#undo.length > 0);
  readonly canRedo = $derived(this.#redo.length > 0);
  #count = 0;

  /** Adds a step, or makes it part of the one before when they share a gesture. Returns the step's number. */
  add(label: string, changes: readonly Change[], gesture: string | null): number {
    const top = this.#undo[this.#undo.length - 1];
    this.#redo = [];
    if (gesture === null || top?.gesture !== gesture) {
      const id = ++this.#count;
      this.#undo = [...this.#undo, { id, label, changes, gesture }].slice(-longest);
      return id;
    }
    const together = joined(top.changes, changes);
    // A gesture that ends where it began has not been.
    const nothing = together.every(({ before, after }) => same(before?.value, after?.value));
    this.#undo = [...this.#undo.slice(0, -1), ...(nothing ? [] : [{ ...top, label, changes: together }])];
    return top.id;
  }

  /** Ends a drag or a run of keys: the next edit is a step of its own. */
  endGesture(): void {
    const top = this.#undo[this.#undo.length - 1];
    if (top?.gesture) this.#undo = [...this.#undo.slice(0, -1), { ...top, gesture: null }];
  }

  /** Keys of every row a step may bring back. */
  get keys(): ReadonlySet<string> {
    return new Set([...this.#undo, ...this.#redo].flatMap(({ changes }) => changes.map(rowKey)));
  }

  get lastDone(): HistoryStep | undefined {
    return this.#undo[this.#undo.length - 1];
  }

  get lastUndone(): HistoryStep | undefined {
    return this.#redo[this.#redo.length - 1];
  }

  find(id: number): HistoryStep | undefined {
    return this.#undo.find((step) => step.id === id);
  }

  /** A step that was taken back, wherever it stood. */
  undone(step: HistoryStep): void {
    this.#undo = this.#undo.filter((item) => item.id !== step.id);
    this.#redo = [...this.#redo, { ...step, gesture: null }];
  }

  redone(step: HistoryStep): void {
    this.#redo = this.#redo.filter((item) => item.id !== step.id);
    this.#undo = [...this.#undo, { ...step, gesture: null }];
  }
}
