/**
 * What every field that is typed into does: what is typed stays as it is typed; a valid value is previewed; Enter, Tab
 * or leaving takes it; Escape puts back what was; an invalid one is kept with what is wrong with it. What has not been
 * taken is kept as a draft.
 */
import { createContext, untrack } from 'svelte';
import type { EditManner } from '$lib/data';
import { getApp } from '$lib/state/app.svelte';

export type Read<T> = { readonly ok: true; readonly value: T } | { readonly ok: false; readonly message: string };

interface FieldOptions<T> {
  /** The field among the others of its scope. */
  readonly name: () => string;
  readonly value: () => T;
  readonly format: (value: T) => string;
  readonly read: (text: string) => Read<T>;
  /** Takes a value; false, or why in a sentence, when it is refused. */
  readonly onchange: (value: T, how: EditManner) => unknown;
  /** The value one press of an arrow key away. */
  readonly step?: (value: T, direction: 1 | -1) => T;
}

/** What the fields below belong to, so that a draft comes back where it was typed: a setup, a person. Empty: no drafts. */
export const [getFieldScope, setFieldScope] = createContext<() => string>();

export class FormField<T> {
  readonly id: string;
  /** What is being typed; null when the field shows its value. */
  typed = $state<string | null>(null);
  problem = $state('');
  focused = $state(false);
  readonly #options: FieldOptions<T>;
  readonly #app = getApp();
  readonly #scope: () => string;
  /** The value when typing began, while something else is previewed. */
  #before: { readonly value: T } | null = null;

  readonly shown = $derived.by(() => this.typed ?? this.#options.format(this.#options.value()));
  /** Typed before, and never taken. */
  readonly isDraft = $derived(this.typed !== null && !this.focused && this.problem === '');

  constructor(id: string, options: FieldOptions<T>) {
    this.id = id;
    this.#options = options;
    let scope: (() => string) | undefined;
    try {
      scope = getFieldScope();
    } catch {
      scope = undefined;
    }
    this.#scope = scope ?? (() => '');
    // Another person or setup in the same field: its own draft, if it has one.
    $effect.pre(() => {
      const key = this.#key;
      untrack(() => {
        this.typed = key === null ? null : this.#app.drafts.get(key);
        this.problem = '';
      });
      // Gone without having been left: what was previewed was not meant; the draft keeps it.
      return () => untrack(() => this.#abandon());
    });
  }

  readonly #key: string | null = $derived.by(() => {
    const scope = this.#scope();
    return scope === '' ? null : `${scope}/${this.#options.name()}`;
  });

  #abandon(): void {
    if (!this.#before) return;
    this.#before = null;
    this.#app.store.dropHeld();
  }

  #forget(): void {
    this.typed = null;
    this.problem = '';
    this.#before = null;
    if (this.#key !== null) this.#app.drafts.drop(this.#key);
  }

  input(text: string): void {
    this.typed = text;
    if (this.#key !== null) this.#app.drafts.keep(this.#key, text);
    const read = this.#options.read(text);
    if (!read.ok) {
      this.#restore();
      return;
    }
    this.problem = '';
    this.#before ??= { value: this.#options.value() };
    this.#options.onchange(read.value, { hold: true });
  }

  /** Whatever was previewed is as it was. */
  #restore(): void {
    if (!this.#before) return;
    this.#options.onchange(this.#before.value, { hold: true });
    this.#app.store.dropHeld();
    this.#before = null;
  }

  /** Takes what is typed. */
  commit(): void {
    if (this.typed === null) return;
    const read = this.#options.read(this.typed);
    if (!read.ok) {
      this.#restore();
      this.problem = read.message;
      return;
    }
    const { format } = this.#options;
    const before = this.#before ? this.#before.value : this.#options.value();
    if (format(read.value) === format(before)) this.#restore();
    else {
      const refused = this.#options.onchange(read.value, null);
      if (refused === false || typeof refused === 'string') {
        this.#restore();
        this.problem = refused === false ? 'This is not possible here.' : refused;
        return;
      }
    }
    this.#forget();
  }

  onfocus = (): void => {
    this.focused = true;
  };

  onblur = (): void => {
    this.focused = false;
    this.commit();
    this.#app.store.history.endGesture();
  };

  oninput = (event: Event): void => {
    this.input((event.currentTarget as HTMLInputElement).value);
  };

  onkeydown = (event: KeyboardEvent): void => {
    const { step, value, onchange } = this.#options;
    if (event.key === 'Enter') this.commit();
    if (event.key === 'Escape' && this.typed !== null) {
      // The key is for what is typed, not for the dialog round it.
      event.stopPropagation();
      event.preventDefault();
      this.#restore();
      this.#forget();
    }
    if ((event.key === 'ArrowUp' || event.key === 'ArrowDown') && step) {
      event.preventDefault();
      this.commit();
      if (this.problem !== '') return;
      const now = value();
      const next = step(now, event.key === 'ArrowUp' ? 1 : -1);
      if (next !== now) onchange(next, `${this.id}-step`);
    }
  };
}
