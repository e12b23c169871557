/** The tests of the Bench. A new one is a file in this folder, a component that draws it, and a line here; what it keeps has a schema in `core/bench/schema.ts`. */
import type { Component } from 'svelte';
import type { BenchKind, BenchKindId, BenchRead, BenchRun } from '../benchRun.svelte';
import FieldBench from '../FieldBench.svelte';
import FocusBefore from '../FocusBefore.svelte';
import FocusBench from '../FocusBench.svelte';
import FocusFrames from '../FocusFrames.svelte';
import SpotsBench from '../SpotsBench.svelte';
import StopsBench from '../StopsBench.svelte';
import { field } from './field.svelte';
import { focus } from './focus.svelte';
import { spots } from './spots.svelte';
import { stops } from './stops.svelte';

interface Drawn<Run> {
  /** What it says, and before the first picture how it is done. */
  readonly Said: Component<{ run: Run }>;
  /** Pictures looked at one by one, beside it: there each says what is wrong with it, and there is no list of those. */
  readonly Beside?: Component<{ run: Run }>;
  /** What is asked before the first picture. */
  readonly Before?: Component<{ run: Run }>;
}

type AnyRun = BenchRun<BenchKindId, BenchRead, unknown>;
export type ListedBenchKind = BenchKind<BenchKindId, BenchRead, unknown> & Drawn<AnyRun>;

/** The one place where a test's own types are put away: whatever is handed back to it came from it. */
const listed = <Id extends BenchKindId, Read extends BenchRead, Figures>(
  kind: BenchKind<Id, Read, Figures>,
  drawn: Drawn<BenchRun<Id, Read, Figures>>
): ListedBenchKind => ({ ...kind, ...drawn }) as unknown as ListedBenchKind;

const byId: Readonly<Record<BenchKindId, ListedBenchKind>> = {
  focus: listed(focus, { Said: FocusBench, Beside: FocusFrames, Before: FocusBefore }),
  stops: listed(stops, { Said: StopsBench }),
  field: listed(field, { Said: FieldBench }),
  spots: listed(spots, { Said: SpotsBench })
};

export const benchKinds: readonly ListedBenchKind[] = Object.values(byId);
export const benchKind = (id: BenchKindId): ListedBenchKind => byId[id];
