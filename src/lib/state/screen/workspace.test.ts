import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { mountingOf } from '$core/kit/fits';
import type { Setup } from '$core/setup/schema';
import type { SetupRow } from '$lib/state/job/openJob.svelte';
import { openApp, until } from '$lib/testing/app';
import type { App } from '$lib/state/app.svelte';
import { Workspace } from './workspace.svelte';

let app: App;
let close: () => Promise<void>;

beforeEach(async () => {
  ({ app, close } = await openApp());
});
afterEach(() => close());

const open = (name: string): Workspace => {
  const found = app.open.rows.find((item) => item.setup.name === name);
  if (!found) throw new Error(name);
  return new Workspace(app, () => app.open.row(found.id) as SetupRow);
};
const placeOf = (setup: Setup, id: string) => {
  const found = [...setup.people, ...setup.things].find((item) => item.id === id);
  return { depth: found?.depthMm ?? NaN, lateral: found?.lateralMm ?? NaN };
};

describe('selecting', () => {
  it('begins with the first person, and with the fixes where wishes conflict', () => {
    const calm = open('Under the palms');
    expect(calm.selection.last).toEqual({ kind: 'person', id: calm.setup.people[0]?.id });
    expect(calm.tab).toBe('people');
    expect(open('West door, the 50').tab).toBe('fixes');
  });

  it('adds to what is selected and takes out again, people and things only, never the last', () => {
    const workspace = open('Rings');
    const [first, second] = workspace.setup.people;
    const thing = workspace.setup.things[0];
    if (!first || !second || !thing) throw new Error('Rings changed');
    workspace.selection.select({ kind: 'person', id: first.id });
    workspace.selection.select({ kind: 'thing', id: thing.id }, true);
    workspace.selection.select({ kind: 'person', id: second.id }, true);
    expect(workspace.selection.items).toHaveLength(3);
    expect(workspace.chosenPeople.map((person) => person.id)).toEqual([first.id, second.id]);
    workspace.selection.select({ kind: 'person', id: second.id }, true);
    workspace.selection.select({ kind: 'thing', id: thing.id }, true);
    workspace.selection.select({ kind: 'person', id: first.id }, true);
    expect(workspace.selection.items).toEqual([{ kind: 'person', id: first.id }]);
    workspace.selection.select({ kind: 'camera' }, true);
    expect(workspace.selection.items).toEqual([{ kind: 'camera' }]);
    expect(workspace.tab).toBe('camera');
    workspace.selection.select({ kind: 'wall', id: 'sideMm' });
    expect(workspace.tab).toBe('camera');
    workspace.selection.select({ kind: 'background', id: workspace.setup.backgrounds[0]?.id ?? '' });
    expect(workspace.tab).toBe('background');
  });
});

describe('moving', () => {
  it('moves everything selected from where it was, however often the pointer moves, as one step of undo', async () => {
    const workspace = open('Under the palms');
    const [ines, tobiah] = workspace.setup.people.map((person) => person.id) as [string, string];
    const from = workspace.setup;
    workspace.selection.selectAll([
      { kind: 'person', id: ines },
      { kind: 'person', id: tobiah }
    ]);
    for (const step of [30, 80, 140]) expect(workspace.moveSelected(from, step, -step, 'drag')).toBe(true);
    app.store.history.endGesture();
    for (const id of [ines, tobiah]) {
      expect(placeOf(workspace.setup, id)).toEqual({
        depth: placeOf(from, id).depth + 140,
        lateral: placeOf(from, id).lateral - 140
      });
    }
    await app.step('undo');
    await until(() => expect(workspace.setup.people).toEqual(from.people));
  });

  it('from the side raises people onto steps, and never puts a thing under the floor', () => {
    const workspace = open('Rings');
    const from = workspace.setup;
    const [person] = from.people;
    const [thing] = from.things;
    if (!person || !thing) throw new Error('Rings changed');
    workspace.selection.selectAll([
      { kind: 'person', id: person.id },
      { kind: 'thing', id: thing.id }
    ]);
    workspace.raiseSelected(from, 0, 180, 'drag');
    expect(workspace.setup.people[0]?.floorMm).toBe(person.floorMm + 180);
    expect(workspace.setup.things[0]?.heightMm).toBe(thing.heightMm + 180);
    expect(workspace.setup.people[1]).toEqual(from.people[1]);
    workspace.raiseSelected(from, 0, -thing.heightMm - 500, 'drag');
    expect(workspace.setup.things[0]?.heightMm).toBe(0);
  });

  it('turns the camera by steps of a twentieth of a degree and no further than 80°', () => {
    const workspace = open('West door');
    const from = workspace.setup.camera;
    workspace.turnCamera(from, 1.234, -500, 'reframe');
    expect(workspace.setup.camera.yawDeg).toBeCloseTo(Math.round((from.yawDeg + 1.234) * 20) / 20, 9);
    expect(workspace.setup.camera.pitchDeg).toBe(-80);
  });

  it('replaces people by changed copies and leaves the others alone', () => {
    const workspace = open('Under the palms');
    const [first, second] = workspace.setup.people;
    if (!first || !second) throw new Error('Under the palms changed');
    workspace.replacePeople('Squared', [{ ...second, depthMm: 777 }]);
    expect(workspace.setup.people[0]).toEqual(first);
    expect(workspace.setup.people[1]).toEqual({ ...second, depthMm: 777 });
  });
});

describe('choosing', () => {
  it('chooses a stop, steps no further than the lens, and follows the style again', () => {
    const workspace = open('West door');
    const recommended = workspace.plan?.recommended ?? -1;
    workspace.chooseStop(recommended + 3);
    expect(workspace.plan?.selected).toBe(recommended + 3);
    expect(workspace.plan?.recommended).toBe(recommended);
    for (let i = 0; i < 30; i++) workspace.stepStop(1);
    expect(workspace.plan?.selected).toBe((workspace.plan?.stops.length ?? 0) - 1);
    for (let i = 0; i < 30; i++) workspace.stepStop(-1);
    expect(workspace.plan?.selected).toBe(0);
    workspace.chooseStop(99);
    expect(workspace.plan?.selected).toBe(0);
    workspace.followStyle();
    expect(workspace.plan?.selected).toBe(recommended);
  });

  it('puts the focus where it is told', () => {
    const workspace = open('Under the palms');
    const [ines] = workspace.setup.people;
    if (!ines) throw new Error('Under the palms changed');
    workspace.focusOn({ kind: 'eye', personId: ines.id, eye: 'leftEye' });
    expect(workspace.entry?.target).toMatchObject({ subjectId: ines.id, feature: 'leftEye' });
    workspace.focusOn({ kind: 'distance', distanceMm: 4321 });
    expect(workspace.entry?.target).toMatchObject({ subjectId: null, focusDistanceMm: 4321 });
  });

  it('takes a zoom at the focal length nearest to what was used', () => {
    const workspace = open('West door');
    const zoom = app.open.kit.lenses.find(
      (lens) => lens.shortestMm < 85 && lens.longestMm < 85 && lens.longestMm > lens.shortestMm
    );
    if (!zoom) throw new Error('No short zoom in the kit');
    workspace.useLens(mountingOf(zoom, []));
    expect(workspace.setup.camera).toMatchObject({ lensId: zoom.id, focalLengthMm: zoom.longestMm });
    expect(workspace.lens).toBe(zoom);
  });

  it('takes a whole changed setup over but keeps its name and notes, and offers to undo it', async () => {
    const workspace = open('West door');
    const before = workspace.setup;
    const changed: Setup = {
      ...before,
      id: 'another',
      name: 'Another',
      notes: 'lost?',
      people: before.people.map((person) => ({ ...person, headYawDeg: 0 }))
    };
    workspace.preview = changed;
    workspace.takeOver('Turn Ines', { asked: before, setup: changed });
    expect(workspace.preview).toBeNull();
    expect(workspace.setup).toMatchObject({ id: before.id, name: before.name, notes: before.notes });
    expect(workspace.setup.people[0]?.headYawDeg).toBe(0);
    expect(app.messages.shown).toMatchObject({ kind: 'done', step: expect.any(Number) });
    await app.step('undo');
    await until(() => expect(workspace.setup).toEqual(before));
  });

  it('does an answer to an earlier question to the setup as it is, and never over a later edit', () => {
    const workspace = open('West door');
    const asked = workspace.setup;
    const turned = (deg: number): Setup => ({
      ...asked,
      people: asked.people.map((person) => ({ ...person, headYawDeg: deg }))
    });
    workspace.edit('Camera height', (draft) => void (draft.camera.heightMm = 1234));
    workspace.takeOver('Turn Ines', { asked, setup: turned(5) });
    expect(workspace.setup.camera.heightMm).toBe(1234);
    expect(workspace.setup.people[0]?.headYawDeg).toBe(5);
    const later = workspace.setup;
    workspace.takeOver('Turn Ines again', { asked, setup: turned(25) });
    expect(workspace.setup).toBe(later);
    expect(app.messages.shown).toMatchObject({ kind: 'problem', text: expect.stringMatching(/has changed since/) });
  });

  it('an edit that would not be valid changes nothing', () => {
    const workspace = open('West door');
    const before = workspace.setup;
    expect(workspace.stand(-1)).toBe(false);
    expect(workspace.setup).toBe(before);
    expect(app.messages.shown?.kind).toBe('problem');
  });
});
