/** What was measured before, and what is asked of every picture. */
import type { BenchTest } from '$core/bench/schema';
import type { Body, Lens } from '$core/kit/schema';
import type { App } from '$lib/state/app.svelte';
import type { Lacks } from '../../workers/bench.worker';
import type { Item } from './series.svelte';

type Of<K extends BenchTest['kind']> = Extract<BenchTest, { kind: K }>;

/** Tests of one kind, the latest first. */
export const testsOf = <K extends BenchTest['kind']>(app: App, kind: K, isWanted: (test: Of<K>) => boolean): Of<K>[] =>
  app.store
    .table('benchTests')
    .list.map(({ value }) => value)
    .filter((one): one is Of<K> => one.kind === kind && isWanted(one as Of<K>))
    .sort((a, b) => b.madeAt - a.madeAt);

/** What the kit says, where the file does not. @param scale what a millimetre of the printed sheet measures, mm */
export const askedOf = ({ sensor }: Body, lens: Lens, scale = 1) => ({
  sensorMm: Math.max(sensor.widthMm, sensor.heightMm),
  focalLengthMm: lens.shortestMm === lens.longestMm ? lens.longestMm : null,
  fNumber: null,
  scale
});

type Read = { readonly kind: 'unread'; readonly lacks: Lacks | null } | { readonly kind: 'problem' | 'measured' };

/** Pictures whose files do not say something that may be typed. */
export const lackingIn = (items: readonly Item<Read>[]) =>
  items.flatMap(({ id, name, read }) =>
    read.kind === 'unread' && read.lacks !== null ? [{ id, name, lacks: read.lacks }] : []
  );
