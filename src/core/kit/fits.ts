/** What can be put on what: mounts, and the adapters and converters that join them. */
import { adaptersBetween, type CameraKit } from './cameraKit';
import { factorOf, mountedLens } from './mounted';
import type { Adapter, Body, Kit, Lens } from './schema';

/** The mount of a lens that is part of its body, as of a phone: it joins nothing but itself. */
export const builtInMount = 'built in';

/** Two mounts join when they are the same, or when one of them has not been said. */
const joins = (a: string, b: string): boolean =>
  a === b || (a !== builtInMount && b !== builtInMount && (a === '' || b === ''));

/** What of a body says which lenses go on it. */
type Mounts = Pick<Body, 'mount' | 'alsoTakes'>;

/** A converter changes the focal length, a ring only the mount. */
const isConverter = ({ factor }: Pick<Adapter, 'factor'>): boolean => factor !== 1;

/**
 * Whether the lens, with just this between, goes on the body. A side of an adapter that nobody has named is as what stands
 * before it: a converter leaves the mount, and a ring not yet described joins nothing.
 */
export function fits(body: Mounts, lens: Pick<Lens, 'mount'>, between: readonly Adapter[] = []): boolean {
  let mount = lens.mount;
  for (const adapter of between) {
    if (!joins(mount, adapter.lensMount)) return false;
    mount = adapter.bodyMount === '' ? mount : adapter.bodyMount;
  }
  return joins(mount, body.mount) || body.alsoTakes.includes(mount);
}

/** Every way to put the lens on the body, what changes least first: directly, by a ring, by a converter, by two. */
export function waysOn(body: Mounts, lens: Pick<Lens, 'mount'>, adapters: readonly Adapter[]): Adapter[][] {
  const offered = adapters.filter((adapter) => !adapter.retired);
  const singles = offered.map((adapter) => [adapter]);
  // At most two: limits.maxBetween.
  const pairs = offered.flatMap((first) => offered.flatMap((second) => (first === second ? [] : [[first, second]])));
  const converters = (chain: readonly Adapter[]) => chain.filter(isConverter).length;
  return [[], ...singles, ...pairs]
    .filter((chain) => fits(body, lens, chain))
    .sort((a, b) => converters(a) - converters(b) || a.length - b.length);
}

/** Whether there is any way, with the adapters of this kit. */
export function canMount(body: Mounts, lens: Pick<Lens, 'mount'>, adapters: readonly Adapter[]): boolean {
  return waysOn(body, lens, adapters).length > 0;
}

/** Mounts the kit knows, in alphabetical order. */
export function mountsOf({ bodies, lenses, adapters }: Kit): string[] {
  const named = [...bodies, ...lenses].map((item) => item.mount);
  const joined = adapters.flatMap(({ lensMount, bodyMount }) => [lensMount, bodyMount]);
  return [...new Set([...named, ...joined])].filter((mount) => mount !== '').sort((a, b) => a.localeCompare(b));
}

/** A lens of the kit as it can be put on a body, with what it takes. */
export interface Mounting {
  readonly lens: Lens;
  readonly adapterIds: string[];
  /** As the body sees it, at its shortest. */
  readonly seen: Lens;
}

/** What a lens becomes with what is between. */
export function mountingOf(lens: Lens, between: readonly Adapter[]): Mounting {
  return {
    lens,
    adapterIds: between.map((adapter) => adapter.id),
    seen: mountedLens(lens, between, lens.shortestMm * factorOf(between))
  };
}

/** Every lens on offer that goes on the body, each by the way that changes least. */
export function mountings({ lenses, adapters }: Kit, body: Mounts): Mounting[] {
  return lenses.flatMap((lens) => {
    const way = lens.retired ? undefined : waysOn(body, lens, adapters)[0];
    return way ? [mountingOf(lens, way)] : [];
  });
}

/** The same for a camera: its own lens first, as it is used, whatever else is on offer. */
export function mountingsFor(kit: Kit, body: Mounts, holds: Pick<CameraKit, 'lensId' | 'adapterIds'>): Mounting[] {
  const inUse = kit.lenses.find((lens) => lens.id === holds.lensId);
  const between = adaptersBetween(kit, holds);
  const others = mountings(kit, body).filter(({ lens }) => lens.id !== holds.lensId);
  return inUse && between ? [mountingOf(inUse, between), ...others] : others;
}
