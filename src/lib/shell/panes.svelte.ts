/** The parts of the Setup screen that come after the call: fetched once the call is painted, and then kept. */
import type Finder from '$lib/finder/Finder.svelte';
import type EyeStrip from '$lib/finder/EyeStrip.svelte';
import type Floor from '$lib/floor/Floor.svelte';
import type CameraBar from '$lib/inspector/CameraBar.svelte';
import type BestFix from '$lib/call/BestFix.svelte';
import type CallWhy from '$lib/call/CallWhy.svelte';
import type OtherWays from '$lib/call/OtherWays.svelte';
import type StrayingNote from '$lib/call/StrayingNote.svelte';
import type Inspector from '$lib/inspector/Inspector.svelte';
import type Strip from '$lib/strip/Strip.svelte';

interface Panes {
  readonly Finder: typeof Finder;
  readonly EyeStrip: typeof EyeStrip;
  readonly Floor: typeof Floor;
  readonly CameraBar: typeof CameraBar;
  readonly Inspector: typeof Inspector;
  readonly Strip: typeof Strip;
  readonly BestFix: typeof BestFix;
  readonly CallWhy: typeof CallWhy;
  readonly OtherWays: typeof OtherWays;
  readonly StrayingNote: typeof StrayingNote;
}

const painted = () => new Promise<void>((resolve) => requestAnimationFrame(() => setTimeout(resolve)));

async function fetched(): Promise<Panes> {
  const [finder, eyeStrip, floor, cameraBar, inspector, strip, bestFix, callWhy, otherWays, strayingNote] =
    await Promise.all([
      import('$lib/finder/Finder.svelte'),
      import('$lib/finder/EyeStrip.svelte'),
      import('$lib/floor/Floor.svelte'),
      import('$lib/inspector/CameraBar.svelte'),
      import('$lib/inspector/Inspector.svelte'),
      import('$lib/strip/Strip.svelte'),
      import('$lib/call/BestFix.svelte'),
      import('$lib/call/CallWhy.svelte'),
      import('$lib/call/OtherWays.svelte'),
      import('$lib/call/StrayingNote.svelte')
    ]);
  return {
    Finder: finder.default,
    EyeStrip: eyeStrip.default,
    Floor: floor.default,
    CameraBar: cameraBar.default,
    Inspector: inspector.default,
    Strip: strip.default,
    BestFix: bestFix.default,
    CallWhy: callWhy.default,
    OtherWays: otherWays.default,
    StrayingNote: strayingNote.default
  };
}

class WorkspacePanes {
  all = $state.raw<Panes | null>(null);
  /** Why they could not be fetched. */
  failure = $state('');

  async load(): Promise<void> {
    if (this.all) return;
    this.failure = '';
    await painted();
    try {
      this.all = await fetched();
    } catch (error) {
      this.failure = error instanceof Error ? error.message : String(error);
    }
  }

  /** A page never asks again for a module that once failed: it is loaded anew, once its address answers. */
  async again(): Promise<void> {
    await this.load();
    if (this.all) return;
    const answers = await fetch(location.href, { method: 'HEAD', cache: 'no-store' }).catch(() => null);
    if (answers?.ok) location.reload();
  }
}

/** One for the page: going from setup to setup shows them at once. */
export const panes = new WorkspacePanes();
