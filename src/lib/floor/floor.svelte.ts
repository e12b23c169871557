/** What the parts of the Floor share: the scale, which side it is seen from, and what is being pointed at. */
import { createContext } from 'svelte';
import { blurDiscDiameter } from '$core/optics/blur';
import { rowsByDepth } from '$core/people/rows';
import type { Setup } from '$core/setup/schema';
import { type Workspace } from '$lib/state/screen/workspace.svelte';
import { idOf, type Selected } from '$lib/state/screen/selection.svelte';
import {
  depthAtPx,
  floorScale,
  panned,
  sideScale,
  type FloorScale,
  type FloorSide,
  type Pan
} from '../../drawing/geometry';
import type { MoveHandlers } from './movable';
import { snapDepth, snapMm, type Nudge } from './nudge';

/** A background beyond the Floor is shown this far from its edge, px. */
export const backgroundEdgePx = 14;

const unmoved: Pan = { k: 1, x: 0, y: 0 };

export class FloorState {
  readonly workspace: Workspace;
  width = $state(560);
  height = $state(240);
  side = $state<FloorSide>('above');
  pan = $state.raw<Pan>(unmoved);
  /** The row something dragged has been caught by, depth behind the subject line. */
  caughtRowMm = $state<number | null>(null);
  /** What the pointer is over or drags: a line of text. */
  pointed = $state('');
  /** The fit the scale stands on while something is dragged or the view is zoomed. */
  #held = $state.raw<FloorScale | null>(null);

  constructor(workspace: Workspace) {
    this.workspace = workspace;
  }

  #fit = $derived.by(() => {
    const { setup, distanceMm } = this.workspace;
    const scale = this.side === 'above' ? floorScale : sideScale;
    return scale(setup, distanceMm, Math.max(200, this.width), Math.max(80, this.height));
  });
  scale = $derived(panned(this.#held ?? this.#fit, unmoved, this.pan));
  placed = $derived.by(() => (this.workspace.view ? { scale: this.scale, view: this.workspace.view } : null));

  get zoomed(): boolean {
    return this.pan.k !== 1 || this.pan.x !== 0 || this.pan.y !== 0;
  }

  setPan(pan: Pan): void {
    this.#held ??= this.#fit;
    this.pan = pan;
    if (!this.zoomed) this.#held = null;
  }

  turnTo(side: FloorSide): void {
    this.side = side;
    this.#held = null;
  }

  hold(): void {
    this.#held ??= this.#fit;
  }

  release(): void {
    if (!this.zoomed) this.#held = null;
    this.caughtRowMm = null;
    this.pointed = '';
    this.workspace.endGesture();
  }

  /** Distance from the lens at a px, mm. */
  distanceAt(x: number): number {
    return depthAtPx(this.scale, x) + this.workspace.distanceMm;
  }

  /** Blur at a place on the depth axis over the blur allowed; null where the lens cannot be reckoned with. */
  blurRatioAt(x: number): number | null {
    const { plan, entry } = this.workspace;
    const z = this.distanceAt(x);
    if (!plan || !entry || z <= plan.focalLengthMm * 2) return null;
    const c = blurDiscDiameter(plan.focalLengthMm, entry.stop.fNumber, entry.planeMm, z, plan.pupilMagnification);
    return c / plan.circleOfConfusionMm;
  }

  /** Depths of the rows of everybody who is not being moved, mm behind the subject line. */
  #rows(setup: Setup): number[] {
    const { workspace } = this;
    const still = setup.people.filter((person) => !workspace.isSelected('person', person.id));
    return rowsByDepth(still, (person) => person.depthMm).map(
      (row) => row.reduce((sum, person) => sum + person.depthMm, 0) / row.length
    );
  }

  /** Drags a person or thing, with everything else that is selected. */
  moving(selected: Selected, describe: () => string): MoveHandlers {
    const { workspace } = this;
    let from = workspace.setup;
    let held: { depthMm: number; lateralMm: number } | undefined;
    const id = idOf(selected);
    return {
      start: (also) => {
        if (also || !workspace.isSelected(selected.kind, id)) workspace.selection.select(selected, also);
        this.hold();
        from = workspace.setup;
        held = [...from.people, ...from.things].find((item) => item.id === id);
      },
      move: (dx, dy, fine) => {
        if (!held) return;
        const { pxPerMm } = this.scale;
        const snap = snapDepth(held.depthMm + dx / pxPerMm, {
          rows: this.#rows(from),
          distanceMm: workspace.distanceMm,
          pxPerMm,
          fine
        });
        this.caughtRowMm = snap.rowMm;
        const depth = snap.depthMm - held.depthMm;
        if (this.side === 'above') {
          const lateral = snapMm(held.lateralMm + dy / pxPerMm, fine) - held.lateralMm;
          workspace.moveSelected(from, depth, lateral, `drag-${id}`);
        } else {
          workspace.raiseSelected(from, depth, snapMm(-dy / pxPerMm, fine), `drag-${id}`);
        }
        this.pointed = describe();
      },
      end: () => this.release()
    };
  }

  /** Moves everything selected by a key. */
  nudged(selected: Selected, by: Nudge): void {
    const { workspace } = this;
    const id = idOf(selected);
    if (!workspace.isSelected(selected.kind, id)) workspace.selection.select(selected);
    const gesture = `keys-${id}-move`;
    if (this.side === 'above') workspace.moveSelected(workspace.setup, by.depthMm, by.lateralMm, gesture);
    else workspace.raiseSelected(workspace.setup, by.depthMm, -by.lateralMm, gesture);
  }
}

export const [getFloor, setFloor] = createContext<FloorState>();
