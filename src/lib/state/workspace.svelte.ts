/** What the Setup screen knows about the one setup it shows. */
import { createContext } from 'svelte';
import type { NoPlan, Plan, StopPlan } from '$core/call/plan';
import { viewpoint, type Viewpoint } from '$core/setup/scene';
import type { Background, Body, Lens, Person, Setup, Thing } from '$core/setup/schema';
import type { LengthUnit } from '$core/words/length';
import type { SetupRow } from '$lib/data';
import type { App } from './app.svelte';

export type Selection =
  { readonly kind: 'camera' } | { readonly kind: 'person' | 'thing' | 'background'; readonly id: string };

export const tabs = ['people', 'background', 'intent', 'camera'] as const;
export type Tab = (typeof tabs)[number];

export class Workspace {
  readonly app: App;
  readonly #row: () => SetupRow;
  selection = $state.raw<Selection>({ kind: 'camera' });
  tab = $state<Tab>('people');

  constructor(app: App, row: () => SetupRow) {
    this.app = app;
    this.#row = row;
    const first = row().setup.people[0];
    if (first) this.selection = { kind: 'person', id: first.id };
  }

  get row(): SetupRow {
    return this.#row();
  }
  get setup(): Setup {
    return this.#row().setup;
  }
  get unit(): LengthUnit {
    return this.app.settings.unit;
  }
  get result(): Plan | NoPlan {
    return this.app.plan(this.#row());
  }
  get plan(): Plan | null {
    const result = this.result;
    return result.kind === 'plan' ? result : null;
  }
  /** The stop in use. */
  get entry(): StopPlan | null {
    const plan = this.plan;
    return plan?.stops[plan.selected] ?? null;
  }
  get body(): Body | undefined {
    return this.app.kit.bodies.find((item) => item.id === this.setup.camera.bodyId);
  }
  get lens(): Lens | undefined {
    return this.app.kit.lenses.find((item) => item.id === this.setup.camera.lensId);
  }
  get view(): Viewpoint | null {
    return this.body ? viewpoint(this.setup.camera, this.body) : null;
  }
  /** Lens to subject line, mm. */
  get distanceMm(): number {
    return this.view?.distance ?? 0;
  }
  get person(): Person | undefined {
    const { selection } = this;
    return selection.kind === 'person' ? this.setup.people.find((item) => item.id === selection.id) : undefined;
  }

  edit(label: string, recipe: (draft: Setup) => void, gesture: string | null = null): boolean {
    return this.app.edit(this.row.id, label, recipe, gesture);
  }

  editPerson(id: string, label: string, recipe: (draft: Person) => void, gesture: string | null = null): boolean {
    return this.edit(label, (draft) => change(draft.people, id, recipe), gesture);
  }

  editThing(id: string, label: string, recipe: (draft: Thing) => void, gesture: string | null = null): boolean {
    return this.edit(label, (draft) => change(draft.things, id, recipe), gesture);
  }

  editBackground(
    id: string,
    label: string,
    recipe: (draft: Background) => void,
    gesture: string | null = null
  ): boolean {
    return this.edit(label, (draft) => change(draft.backgrounds, id, recipe), gesture);
  }

  select(selection: Selection): void {
    this.selection = selection;
    if (selection.kind === 'person' || selection.kind === 'thing') this.tab = 'people';
    else this.tab = selection.kind;
  }

  chooseStop(index: number): void {
    const stop = this.plan?.stops[index]?.stop;
    if (!stop) return;
    const chosen = { kind: 'chosen', fNumber: Number(stop.label) } as const;
    this.edit(`f/${stop.label}`, (draft) => void (draft.intent.stop = chosen), 'stop');
  }

  /** One stop wider (−1) or narrower (+1). */
  stepStop(by: -1 | 1): void {
    const { plan } = this;
    if (plan) this.chooseStop(Math.min(plan.stops.length - 1, Math.max(0, plan.selected + by)));
  }

  followStyle(): void {
    this.edit('The call’s stop', (draft) => void (draft.intent.stop = { kind: 'byStyle' }));
  }

  stand(distanceMm: number, gesture: string | null = null): boolean {
    return this.edit('Distance', (draft) => void (draft.camera.placement = { kind: 'distance', distanceMm }), gesture);
  }

  useLens(lens: Lens): void {
    const kept = this.setup.camera.focalLengthMm;
    const focalLengthMm = Math.min(lens.longestMm, Math.max(lens.shortestMm, kept));
    this.edit(lens.name, (draft) => {
      draft.camera.lensId = lens.id;
      draft.camera.focalLengthMm = focalLengthMm;
    });
  }
}

function change<T extends { id: string }>(items: T[], id: string, recipe: (item: T) => void): void {
  const item = items.find((candidate) => candidate.id === id);
  if (item) recipe(item);
}

export const [getWorkspace, setWorkspace] = createContext<Workspace>();
