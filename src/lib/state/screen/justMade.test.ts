import { afterEach, beforeEach, expect, it } from 'vitest';
import { openApp, until } from '$lib/testing/app';
import type { App } from '$lib/state/app.svelte';
import { JustMade } from './justMade.svelte';
import type { SetupRow } from '$lib/state/job/openJob.svelte';
import { Workspace } from './workspace.svelte';

let app: App;
let close: () => Promise<void>;
beforeEach(async () => {
  ({ app, close } = await openApp());
});
afterEach(() => close());

function made(template: 'largeGroup' | 'onePerson') {
  const id = app.setups.add({ template });
  if (id === null) throw new Error('not made');
  const workspace = new Workspace(app, () => app.open.row(id) as SetupRow);
  return { workspace, asked: new JustMade(workspace, template) };
}

it('asks how many and makes the picture anew: who stands there stays, who comes is new', () => {
  const { workspace, asked } = made('largeGroup');
  const before = workspace.setup.people.map((person) => person.id);
  const { name } = workspace.setup;
  expect(asked.now?.second).toBe(14);
  asked.answer('20 people', { second: 20 });
  expect(workspace.setup.people).toHaveLength(20);
  expect(workspace.setup.people.slice(0, 14).map((person) => person.id)).toEqual(before);
  expect(new Set(workspace.setup.people.map((person) => person.name)).size).toBe(20);
  expect(workspace.setup.name).toBe(name);
  expect(asked.now?.second).toBe(20);
  asked.answer('What the background does', { wish: 'hide' });
  expect(asked.now).toMatchObject({ second: 20, wish: 'hide' });
  expect(workspace.setup.people).toHaveLength(20);
  expect(workspace.setup.backgrounds.map((item) => item.wish)).toEqual(['hide']);
});

it('finds the earlier answers after undo, and stops asking once anything else was changed', async () => {
  const { workspace, asked } = made('onePerson');
  asked.answer('Framing', { second: 'fullLength' });
  expect(workspace.setup.camera.placement).toEqual({ kind: 'framing', framing: 'fullLength' });
  await until(() => app.store.history.canUndo);
  await app.step('undo');
  expect(asked.now?.second).toBe('headAndShoulders');
  workspace.edit('Turned', (draft) => {
    for (const person of draft.people) person.headYawDeg = 44;
  });
  expect(asked.now).toBeNull();
  const { setup } = workspace;
  asked.answer('Framing', { second: 'halfLength' });
  expect(workspace.setup).toBe(setup);
});
