/** What the Setup screen knows about the one setup it shows. */
import { createContext } from 'svelte';
import type { NoPlan, Plan, StopPlan } from '$core/call/plan';
import type { PlanInput } from '$core/call/planInput';
import type { Mounting } from '$core/kit/fits';
import type { Body, Lens } from '$core/kit/schema';
import type { Stop, StopStep } from '$core/optics/stops';
import { answered } from '$core/setup/answer';
import { moveChosen, raiseChosen, takeLens, turnCamera } from '$core/setup/moves';
import { viewpoint, type Viewpoint } from '$core/setup/scene';
import type { FrameArea } from '$core/setup/lineOfSight';
import type { Background, Camera, Person, Setup, Thing } from '$core/setup/schema';
import type { LengthUnit } from '$core/units/length';
import type { EditManner } from '$lib/data';
import type { App } from '$lib/state/app.svelte';
import { FixSearch } from './fixes.svelte';
import type { JustMade } from './justMade.svelte';
import type { SetupRow } from '$lib/state/job/openJob.svelte';
import type { PlannedSetup } from '$lib/state/job/plans.svelte';
import { Selection, type Selected, type Tab } from './selection.svelte';

/** What is drawn of a way of focusing, or of a rule, while somebody points at it. */
export interface Looked {
  /** Where autofocus looks, in shares of the picture. */
  readonly area: FrameArea | null;
  /** Where the plane of focus would come to lie, mm from the lens, and how likely. */
  readonly planes: readonly { readonly depth: number; readonly chance: number }[];
  /** Places on the floor: where somebody walking is at each frame, mm behind the subject line. */
  readonly steps?: readonly { readonly depthMm: number; readonly lateralMm: number }[];
  /** The setup done so, for its picture; null where the picture stays. */
  readonly setup: Setup | null;
  /** What it is, for the caption. */
  readonly name: string;
}

/** Something worked out from one state of the setup. */
interface Answer {
  readonly asked: Setup;
  readonly setup: Setup;
}

export class Workspace {
  readonly app: App;
  readonly #row: () => SetupRow;
  readonly selection = new Selection();
  /** A setup being considered, drawn on the Floor beside the real one. */
  preview = $state.raw<Setup | null>(null);
  /** Another way of taking it that is pointed at: its area in the Finder, its planes on the Floor, its picture. */
  looked = $state.raw<Looked | null>(null);
  readonly fixes: FixSearch;
  /** What is asked of a setup that was just made. */
  justMade = $state.raw<JustMade | null>(null);

  constructor(app: App, row: () => SetupRow) {
    this.app = app;
    this.#row = row;
    this.fixes = new FixSearch(() => this.question);
    const first = row().setup.people[0];
    if (first) this.selection.items = [{ kind: 'person', id: first.id }];
    if (this.plan?.conflict) this.selection.tab = 'fixes';
  }

  get row(): SetupRow {
    return this.#row();
  }
  get setup(): Setup {
    return this.#row().setup;
  }
  get unit(): LengthUnit {
    return this.app.settings.now.unit;
  }
  get stopStep(): StopStep {
    return this.question.stopStep;
  }
  /** What workers are asked about. */
  get question(): PlanInput {
    return this.app.open.input(this.setup);
  }
  get planned(): PlannedSetup {
    return this.app.open.planned(this.setup);
  }
  get result(): Plan | NoPlan {
    return this.planned.plan;
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
    return this.planned.body;
  }
  get lens(): Lens | undefined {
    return this.planned.lens;
  }
  get view(): Viewpoint | null {
    return this.body ? viewpoint(this.setup, this.body, this.lens?.pupilMagnification, this.lens?.fieldPerM) : null;
  }
  /** Lens to subject line, mm. */
  get distanceMm(): number {
    return this.view?.distance ?? 0;
  }

  get tab(): Tab {
    return this.selection.tab;
  }
  set tab(tab: Tab) {
    this.selection.tab = tab;
  }
  isSelected(kind: Selected['kind'], id: string): boolean {
    return this.selection.has(kind, id);
  }
  /** The people selected, in the order of the setup. */
  get chosenPeople(): readonly Person[] {
    return this.setup.people.filter((person) => this.isSelected('person', person.id));
  }
  get person(): Person | undefined {
    const { last } = this.selection;
    return last.kind === 'person' ? this.setup.people.find((item) => item.id === last.id) : undefined;
  }

  /** Changes the setup. False, with a message, when that is not possible. */
  edit(label: string, recipe: (draft: Setup) => void, how: EditManner = null): boolean {
    return this.#edited(label, recipe, how) !== false;
  }

  /** The step of undo it made, null for none; false when it was refused. */
  #edited(label: string, recipe: (draft: Setup) => void, how: EditManner): number | null | false {
    const options = typeof how === 'string' ? { gesture: how } : (how ?? {});
    const result = this.app.open.edit(this.row.id, label, recipe, options);
    if (result.ok) return result.step;
    if (!options.hold) this.app.messages.problem(`${label}: ${result.reason}`);
    return false;
  }

  editCamera(label: string, recipe: (draft: Camera) => void, how: EditManner = null): boolean {
    return this.edit(label, (draft) => recipe(draft.camera), how);
  }

  editPerson(id: string, label: string, recipe: (draft: Person) => void, how: EditManner = null): boolean {
    return this.edit(label, (draft) => change(draft.people, id, recipe), how);
  }

  editThing(id: string, label: string, recipe: (draft: Thing) => void, how: EditManner = null): boolean {
    return this.edit(label, (draft) => change(draft.things, id, recipe), how);
  }

  editBackground(id: string, label: string, recipe: (draft: Background) => void, how: EditManner = null): boolean {
    return this.edit(label, (draft) => change(draft.backgrounds, id, recipe), how);
  }

  /** Takes something away and says so, with undo of just that. */
  remove(label: string, recipe: (draft: Setup) => void): void {
    const step = this.#edited(label, recipe, null);
    if (step !== false) this.app.messages.done(`${label}.`, step);
  }

  endGesture(): void {
    this.app.store.history.endGesture();
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
    const { length } = this.selection.items;
    const chosen = (kind: 'person' | 'thing', id: string) => this.isSelected(kind, id);
    const label = length > 1 ? `${length} moved` : 'Moved';
    return this.edit(label, (draft) => moveChosen(draft, from, chosen, depthMm, lateralMm), gesture);
  }

  /** In the side view: depth, and the step people stand on or the height of a thing. */
  raiseSelected(from: Setup, depthMm: number, upMm: number, gesture: string): boolean {
    const chosen = (kind: 'person' | 'thing', id: string) => this.isSelected(kind, id);
    return this.edit('Moved', (draft) => raiseChosen(draft, from, chosen, depthMm, upMm), gesture);
  }

  /** Replaces several people by changed copies of themselves. */
  replacePeople(label: string, changed: readonly Person[], how: EditManner = null): boolean {
    const after = (person: Person): Person => changed.find((item) => item.id === person.id) ?? person;
    return this.edit(label, (draft) => void (draft.people = draft.people.map(after)), how);
  }

  /** Does what an answer says to the setup as it is now; refused when it has changed so that the answer no longer fits. */
  takeOver(label: string, { asked, setup }: Answer): void {
    this.preview = null;
    this.looked = null;
    const changed = answered(asked, setup, this.setup);
    if (!changed) {
      const advice = 'Look at what is worked out for it now.';
      this.app.messages.problem(`${label}: the setup has changed since this was worked out. ${advice}`);
      return;
    }
    const step = this.#edited(label, (draft) => void Object.assign(draft, changed), null);
    if (step !== false) this.app.messages.done(`${label}: done.`, step);
  }

  /** Puts the focus on an eye or a thing. */
  focusOn(target: Setup['intent']['target']): void {
    this.edit('Focus target', (draft) => void (draft.intent.target = target));
  }

  /** Shows what another way of taking it would give, at a stop: by default the one in use, whatever the call would then be. */
  lookAt(name: string, setup: Setup, planesMm: readonly number[], at: Stop | undefined = this.entry?.stop): void {
    const held: Setup = at
      ? { ...setup, intent: { ...setup.intent, stop: { kind: 'chosen', fNumber: Number(at.label) } } }
      : setup;
    this.looked = { area: null, planes: planesMm.map((depth) => ({ depth, chance: 1 })), setup: held, name };
  }
  lookAway(): void {
    this.looked = null;
  }

  /** Turns the camera by so many degrees, as one step of undo for a gesture. */
  turnCamera(from: Setup['camera'], yawDeg: number, pitchDeg: number, gesture: string): boolean {
    return this.edit('Reframed', (draft) => turnCamera(draft.camera, from, yawDeg, pitchDeg), gesture);
  }

  followStyle(): void {
    this.edit('The call’s stop', (draft) => void (draft.intent.stop = { kind: 'byStyle' }));
  }

  /** Looked at closely, or as a standard print. */
  lookAs(kind: 'close' | 'traditional'): void {
    this.edit('Viewing', (draft) => void (draft.intent.viewing = { kind }));
  }

  stand(distanceMm: number, how: EditManner = null): boolean {
    return this.edit('Distance', (draft) => void (draft.camera.placement = { kind: 'distance', distanceMm }), how);
  }

  useLens(mounting: Mounting): void {
    this.edit(mounting.seen.name, (draft) => takeLens(draft.camera, mounting));
  }
}

function change<T extends { id: string }>(items: T[], id: string, recipe: (item: T) => void): void {
  const item = items.find((candidate) => candidate.id === id);
  if (item) recipe(item);
}

export const [getWorkspace, setWorkspace] = createContext<Workspace>();
