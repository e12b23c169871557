/** What is selected on the Floor and in the panels, and the tab that shows it. */

export type Wall = 'backUpMm' | 'behindMm' | 'sideMm';

export type Selected =
  | { readonly kind: 'camera' }
  | { readonly kind: 'person' | 'thing' | 'background'; readonly id: string }
  | { readonly kind: 'wall'; readonly id: Wall };

export const idOf = (item: Selected): string => (item.kind === 'camera' ? '' : item.id);

export const tabs = [
  'fixes',
  'lineUp',
  'technique',
  'light',
  'checks',
  'people',
  'background',
  'intent',
  'camera'
] as const;
export type Tab = (typeof tabs)[number];

export class Selection {
  /** The one the panels show last. */
  items = $state.raw<readonly Selected[]>([{ kind: 'camera' }]);
  tab = $state<Tab>('people');

  get last(): Selected {
    return this.items[this.items.length - 1] ?? { kind: 'camera' };
  }

  has(kind: Selected['kind'], id: string): boolean {
    return this.items.some((item) => item.kind === kind && idOf(item) === id);
  }

  /** Selects one alone, or (with `also`) adds it to the selection or takes it out. */
  select(selected: Selected, also = false): void {
    const rest = this.items.filter((item) => item.kind !== selected.kind || idOf(item) !== idOf(selected));
    const taken = rest.length < this.items.length;
    const moving = (item: Selected) => item.kind === 'person' || item.kind === 'thing';
    if (!also || !moving(selected)) this.items = [selected];
    else if (taken && rest.length > 0) this.items = rest;
    else this.items = [...rest.filter(moving), selected];
    this.#showTab(selected);
  }

  /** Selects several at once. */
  selectAll(items: readonly Selected[]): void {
    const [first] = items;
    if (!first) return;
    this.items = items;
    this.#showTab(first);
  }

  #showTab(selected: Selected): void {
    if (selected.kind === 'person' || selected.kind === 'thing') this.tab = 'people';
    else if (selected.kind === 'wall') this.tab = 'camera';
    else this.tab = selected.kind;
  }
}
