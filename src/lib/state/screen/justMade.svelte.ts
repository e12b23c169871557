/** A setup just made from a kind of picture: what is asked of it afterwards, as long as nothing else has been changed. */
import { same } from '$core/plain/merge';
import { withKitOnOffer } from '$core/setup/chooseKit';
import { renamePeople } from '$core/job/normalise';
import { beingNames, numbered } from '$core/setup/names';
import { secondChoice, setupFrom, type Second, type Template, type TemplateChoices } from '$core/setup/templates';
import type { Setup, Wish } from '$core/setup/schema';
import type { App } from '$lib/state/app.svelte';
import type { Selection, Tab } from './selection.svelte';

/** Of the screen that shows it. */
interface SetupScreen {
  readonly app: Pick<App, 'open' | 'newId'>;
  readonly setup: Setup;
  readonly selection: Selection;
  tab: Tab;
  edit(label: string, recipe: (draft: Setup) => unknown): unknown;
}

interface Made {
  readonly setup: Setup;
  readonly second: Second['usual'];
  readonly wish: Wish;
}

export class JustMade {
  readonly template: Template;
  readonly question: Second;
  readonly #workspace: SetupScreen;
  /** Every setup it has been, so that undo finds its answers. */
  #made = $state.raw<readonly Made[]>([]);

  constructor(workspace: SetupScreen, template: Template) {
    this.#workspace = workspace;
    this.template = template;
    this.question = secondChoice[template];
    const { setup } = workspace;
    this.#made = [{ setup, second: this.question.usual, wish: setup.backgrounds[0]?.wish ?? 'free' }];
  }

  /** What has been answered so far; null once the setup has gone its own way. */
  readonly now: Made | null = $derived.by(() => {
    const { setup } = this.#workspace;
    return this.#made.findLast((made) => same(made.setup, setup)) ?? null;
  });

  /** Makes the setup anew with another answer, as one step of undo. */
  answer(label: string, answer: Pick<TemplateChoices, 'second' | 'wish'>): void {
    const { now } = this;
    if (!now) return;
    const choices = { second: now.second, wish: now.wish, ...answer };
    const workspace = this.#workspace;
    const before = workspace.setup;
    const made = setupFrom({ template: this.template, ...choices }, before.id);
    const camera = withKitOnOffer(made.camera, workspace.app.open.offered);
    const fresh = this.#peopled({ ...made, camera });
    const intent = { ...fresh.intent, viewing: before.intent.viewing };
    workspace.edit(label, (draft) =>
      Object.assign(draft, { ...fresh, intent, name: before.name, place: before.place })
    );
    workspace.selection.select({ kind: 'person', id: fresh.people[0]?.id ?? '' });
    workspace.tab = 'intent';
    this.#made = [...this.#made, { setup: workspace.setup, ...choices }];
  }

  /** Whoever stands there already stays who they are; who comes is new. */
  #peopled(setup: Setup): Setup {
    const { app, setup: before } = this.#workspace;
    const ids = new Map(setup.people.map((person, i) => [person.id, before.people[i]?.id ?? app.newId()]));
    const taken = app.open.people.map((person) => person.name);
    const people = renamePeople(setup, (id) => ids.get(id) ?? id);
    return {
      ...people,
      people: people.people.map((person, i) => {
        const name = before.people[i]?.name ?? numbered(beingNames[person.being], taken);
        taken.push(name);
        return { ...person, name };
      })
    };
  }
}
