/** What the Setup screen knows about the one setup it shows. */
import { createContext } from 'svelte';
import type { NoPlan, Plan, StopPlan } from '$core/call/plan';
import { viewpoint, type Viewpoint } from '$core/setup/scene';
import type { Background, Body, Lens, Person, Setup, Thing } from '$core/setup/schema';
import type { LengthUnit } from '$core/words/length';
import type { SetupRow } from '$lib/data';
import type { StopStep } from '$core/optics/stops';
import type { App } from './app.svelte';
import { FixSearch } from './fixes.svelte';
import type { Question } from './planner';

export type Selection =
  | { readonly kind: 'camera' }
  | { readonly kind: 'person' | 'thing' | 'background'; readonly id: string }
  | { readonly kind: 'wall'; readonly id: Wall };

export const walls = ['backUpMm', 'behindMm', 'sideMm'] as const;
export type Wall = (typeof walls)[number];

export const idOf = (selection: Selection): string => (selection.kind === 'camera' ? '' : selection.id);

export const tabs = ['fixes', 'lineUp', 'people', 'background', 'intent', 'camera', 'light'] as const;
export type Tab = (typeof tabs)[number];

export class Workspace {
  readonly app: App;
  readonly #row: () => SetupRow;
  /** What is selected, the one the inspector shows last. */
  selected = $state.raw<readonly Selection[]>([{ kind: 'camera' }]);
  tab = $state<Tab>('people');
  /** A setup being considered, drawn on the Floor beside the real one. */
  preview = $state.raw<Setup | null>(null);
  readonly fixes: FixSearch;

  constructor(app: App, row: () => SetupRow) {
    this.app = app;
    this.#row = row;
    this.fixes = new FixSearch(() => this.#question);
    const first = row().setup.people[0];
    if (first) this.selected = [{ kind: 'person', id: first.id }];
    if (this.plan?.conflict) this.tab = 'fixes';
  }

  get stopStep(): StopStep {
    return this.app.job(this.row.jobId)?.stopStep ?? 'half';
  }
  /** What workers are asked about. */
  get #question(): Question {
    return { setup: this.setup, kit: this.app.kit, stopStep: this.stopStep };
  }
  get question(): Question {
    return this.#question;
  }
  get selection(): Selection {
    return this.selected[this.selected.length - 1] ?? { kind: 'camera' };
  }
  isSelected(kind: Selection['kind'], id: string): boolean {
    return this.selected.some((item) => item.kind === kind && idOf(item) === id);
  }
  /** The people selected, in the order of the setup. */
  get chosenPeople(): readonly Person[] {
    return this.setup.people.filter((person) => this.isSelected('person', person.id));
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
    return this.body ? viewpoint(this.setup, this.body) : null;
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

  /** Selects one alone, or (with `also`) adds it to the selection or takes it out. */
  select(selection: Selection, also = false): void {
    const rest = this.selected.filter((item) => item.kind !== selection.kind || idOf(item) !== idOf(selection));
    const taken = rest.length < this.selected.length;
    const moving = (item: Selection) => item.kind === 'person' || item.kind === 'thing';
    if (!also || !moving(selection)) this.selected = [selection];
    else if (taken && rest.length > 0) this.selected = rest;
    else this.selected = [...rest.filter(moving), selection];
    this.#showTab(selection);
  }

  /** Selects several at once. */
  selectAll(selections: readonly Selection[]): void {
    const [first] = selections;
    if (!first) return;
    this.selected = selections;
    this.#showTab(first);
  }

  #showTab(selection: Selection): void {
    if (selection.kind === 'person' || selection.kind === 'thing') this.tab = 'people';
    else if (selection.kind !== 'wall') this.tab = selection.kind;
    else this.tab = 'camera';
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

  /** Moves everything movable that is selected by so much from where it was, as one step of undo. */
  moveSelected(from: Setup, depthMm: number, lateralMm: number, gesture: string): boolean {
    return this.edit(
      this.selected.length > 1 ? `${this.selected.length} moved` : 'Moved',
      (draft) => {
        for (const list of ['people', 'things'] as const) {
          for (const item of draft[list]) {
            const start = from[list].find((other) => other.id === item.id);
            if (!start || !this.isSelected(list === 'people' ? 'person' : 'thing', item.id)) continue;
            item.depthMm = start.depthMm + depthMm;
            item.lateralMm = start.lateralMm + lateralMm;
          }
        }
      },
      gesture
    );
  }

  /** In the side view: depth, and the step people stand on or the height of a thing. */
  raiseSelected(from: Setup, depthMm: number, upMm: number, gesture: string): boolean {
    return this.edit(
      'Moved',
      (draft) => {
        for (const person of draft.people) {
          const start = from.people.find((other) => other.id === person.id);
          if (!start || !this.isSelected('person', person.id)) continue;
          person.depthMm = start.depthMm + depthMm;
          person.floorMm = start.floorMm + upMm;
        }
        for (const thing of draft.things) {
          const start = from.things.find((other) => other.id === thing.id);
          if (!start || !this.isSelected('thing', thing.id)) continue;
          thing.depthMm = start.depthMm + depthMm;
          thing.heightMm = Math.max(0, start.heightMm + upMm);
        }
      },
      gesture
    );
  }

  /** Replaces several people by changed copies of themselves. */
  replacePeople(label: string, changed: readonly Person[], gesture: string | null = null): boolean {
    const after = (person: Person): Person => changed.find((item) => item.id === person.id) ?? person;
    return this.edit(label, (draft) => void (draft.people = draft.people.map(after)), gesture);
  }

  /** Takes over a whole changed setup: a fix, a lens at the same framing. Says so, with undo. */
  takeOver(label: string, changed: Setup): void {
    this.preview = null;
    const { id, name, notes } = this.setup;
    if (this.edit(label, (draft) => void Object.assign(draft, changed, { id, name, notes }))) {
      this.app.say(`${label}: done.`, 'done', true);
    }
  }

  /** Puts the focus on an eye or a thing. */
  focusOn(target: Setup['intent']['target']): void {
    this.edit('Focus target', (draft) => void (draft.intent.target = target));
  }

  /** Turns the camera by so many degrees, as one step of undo for a gesture. */
  turnCamera(from: Setup['camera'], yawDeg: number, pitchDeg: number, gesture: string): boolean {
    const clamp = (degrees: number) => Math.max(-80, Math.min(80, Math.round(degrees * 20) / 20));
    return this.edit(
      'Reframed',
      (draft) => {
        draft.camera.yawDeg = clamp(from.yawDeg + yawDeg);
        draft.camera.pitchDeg = clamp(from.pitchDeg + pitchDeg);
      },
      gesture
    );
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
