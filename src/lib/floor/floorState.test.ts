import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { blurDiscDiameter } from '$core/optics/blur';
import type { SetupRow } from '$lib/state/job/openJob.svelte';
import { Workspace } from '$lib/state/screen/workspace.svelte';
import { openApp, until } from '$lib/testing/app';
import type { App } from '$lib/state/app.svelte';
import { FloorState } from './floor.svelte';
import { toPx } from '../../drawing/geometry';

let app: App;
let close: () => Promise<void>;
let workspace: Workspace;
let floor: FloorState;

beforeEach(async () => {
  ({ app, close } = await openApp());
  const found = app.open.rows.find((item) => item.setup.name === 'Under the palms');
  if (!found) throw new Error('Under the palms is gone');
  workspace = new Workspace(app, () => app.open.row(found.id) as SetupRow);
  floor = new FloorState(workspace);
});
afterEach(() => close());

const person = (index: number) => {
  const found = workspace.setup.people[index];
  if (!found) throw new Error('nobody');
  return found;
};

describe('the Floor', () => {
  it('counts distances from the lens and says how blurred it is there', () => {
    const { plan, entry } = workspace;
    if (!plan || !entry) throw new Error('no plan');
    const x = toPx(floor.scale, 0, 0).x;
    expect(floor.distanceAt(x)).toBeCloseTo(plan.distanceMm, 6);
    const z = floor.distanceAt(x + 100);
    const disc = blurDiscDiameter(plan.focalLengthMm, entry.stop.fNumber, entry.target.focusDistanceMm, z);
    expect(floor.blurRatioAt(x + 100)).toBeCloseTo(disc / plan.circleOfConfusionMm, 9);
    const focus = toPx(floor.scale, entry.target.focusDistanceMm - plan.distanceMm, 0).x;
    expect(floor.blurRatioAt(focus)).toBeLessThan(1e-6);
    // At the lens itself, and behind it.
    expect(floor.blurRatioAt(toPx(floor.scale, -plan.distanceMm, 0).x)).toBeNull();
  });

  it('keeps its scale while something is dragged, so that it stays under the pointer, and fits again after', () => {
    const before = floor.scale;
    floor.hold();
    workspace.stand(9000);
    expect(floor.scale).toEqual(before);
    floor.release();
    expect(floor.scale.pxPerMm).toBeLessThan(before.pxPerMm);
  });

  it('zoomed, keeps what is looked at whatever changes, until it is fitted again', () => {
    floor.setPan({ k: 2, x: -100, y: -40 });
    expect(floor.zoomed).toBe(true);
    const { scale } = floor;
    workspace.stand(9000);
    floor.release();
    expect(floor.scale).toEqual(scale);
    floor.setPan({ k: 1, x: 0, y: 0 });
    expect(floor.zoomed).toBe(false);
    expect(floor.scale.pxPerMm).not.toBe(scale.pxPerMm);
  });

  it('drags a person along, catches the row of the others, and is one step of undo', async () => {
    const from = workspace.setup;
    const [mover, other] = [person(0), person(1)];
    const drag = floor.moving({ kind: 'person', id: mover.id }, () => 'moved');
    drag.start?.(false);
    const { pxPerMm } = floor.scale;
    const toRow = (other.depthMm - mover.depthMm) * pxPerMm;
    drag.move(toRow + 2, 30, false);
    expect(person(0).depthMm).toBe(other.depthMm);
    expect(floor.caughtRowMm).toBe(other.depthMm);
    expect(person(0).lateralMm).toBeGreaterThan(mover.lateralMm);
    // Held fine, nothing catches.
    drag.move(toRow + 2, 30, true);
    expect(floor.caughtRowMm).toBeNull();
    expect(person(0).depthMm).toBeCloseTo(other.depthMm + 2 / pxPerMm, -1);
    expect(floor.pointed).toBe('moved');
    drag.end?.();
    expect(floor.pointed).toBe('');
    expect(person(1)).toEqual(other);
    await app.step('undo');
    await until(() => expect(workspace.setup.people).toEqual(from.people));
  });

  it('takes everything selected along, and selects what is dragged when it was not', () => {
    const [a, b] = [person(0), person(1)];
    workspace.selection.selectAll([
      { kind: 'person', id: a.id },
      { kind: 'person', id: b.id }
    ]);
    const drag = floor.moving({ kind: 'person', id: a.id }, () => '');
    drag.start?.(false);
    drag.move(0, 40, true);
    drag.end?.();
    expect(person(0).lateralMm - a.lateralMm).toBe(person(1).lateralMm - b.lateralMm);
    workspace.selection.select({ kind: 'camera' });
    const other = floor.moving({ kind: 'person', id: b.id }, () => '');
    other.start?.(false);
    expect(workspace.selection.items).toEqual([{ kind: 'person', id: b.id }]);
    other.end?.();
  });

  it('moves by keys, to the side from above and upwards from the side', () => {
    const before = person(0);
    const by = { depthMm: 20, lateralMm: 50, turnDeg: 0, bodyTurnDeg: 0 };
    floor.nudged({ kind: 'person', id: before.id }, by);
    expect(person(0)).toMatchObject({ depthMm: before.depthMm + 20, lateralMm: before.lateralMm + 50 });
    floor.turnTo('side');
    floor.nudged({ kind: 'person', id: before.id }, { ...by, lateralMm: -50 });
    expect(person(0)).toMatchObject({ depthMm: before.depthMm + 40, floorMm: before.floorMm + 50 });
  });
});
