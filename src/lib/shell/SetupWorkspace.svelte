<script lang="ts">
  import { onMount } from 'svelte';
  import { tinykeys } from 'tinykeys';
  import { goto } from '$app/navigation';
  import { page } from '$app/state';
  import CallPanel from '$lib/call/CallPanel.svelte';
  import NoCall from '$lib/call/NoCall.svelte';
  import EyeStrip from '$lib/finder/EyeStrip.svelte';
  import Finder from '$lib/finder/Finder.svelte';
  import Floor from '$lib/floor/Floor.svelte';
  import CameraBar from '$lib/inspector/CameraBar.svelte';
  import Inspector from '$lib/inspector/Inspector.svelte';
  import Ladder from '$lib/ladder/Ladder.svelte';
  import type { SetupRow } from '$lib/state/openJob.svelte';
  import { getApp } from '$lib/state/app.svelte';
  import { setWorkspace, Workspace } from '$lib/state/workspace.svelte';
  import { tabs } from '$lib/state/selection.svelte';
  import HelpDialog from './HelpDialog.svelte';
  import { setFieldScope } from '$lib/controls/field.svelte';
  import { isTyping, usesArrows } from './keys';

  let { id }: { id: string } = $props();
  const app = getApp();
  // The row outlives this component by a moment when the setup is removed.
  let last: SetupRow | undefined;
  const row = $derived.by(() => {
    const found = app.open.row(id) ?? last;
    if (!found) throw new Error(`No setup ${id}`);
    last = found;
    return found;
  });
  const workspace = setWorkspace(new Workspace(app, () => row));
  setFieldScope(() => id);
  // Just made: what else there is to say of it.
  if (page.url.searchParams.has('new')) workspace.tab = 'intent';
  let helpOpen = $state(false);
  let finderWidth = $state(560);
  let finderHeight = $state(360);
  let floorHeight = $state(240);
  let loupeOpen = $state(false);

  async function goBy(by: -1 | 1) {
    const rows = app.open.rows;
    const next = rows[rows.findIndex((item) => item.id === id) + by];
    if (next) await goto(`/setup/${next.id}`);
  }

  async function step(direction: 'undo' | 'redo') {
    const touched = await app.step(direction);
    if (touched && touched !== id) await goto(`/setup/${touched}`);
  }

  /** The near eye of whoever is selected; with nobody selected, the best eye again. */
  function focusHere() {
    const subject = workspace.plan?.subjects.find((item) => item.id === workspace.person?.id);
    const eye = subject?.points.find((point) => point.role === 'nearEye')?.feature;
    const aimed = subject && (eye === 'leftEye' || eye === 'rightEye');
    workspace.focusOn(aimed ? { kind: 'eye', personId: subject.id, eye } : { kind: 'best' });
  }

  onMount(() => {
    const unless = (blocked: (event: KeyboardEvent) => boolean, action: () => unknown) => (event: KeyboardEvent) => {
      if (blocked(event) || event.defaultPrevented) return;
      event.preventDefault();
      void action();
    };
    return tinykeys(window, {
      ArrowLeft: unless(usesArrows, () => workspace.stepStop(-1)),
      ArrowRight: unless(usesArrows, () => workspace.stepStop(1)),
      '[': unless(isTyping, () => goBy(-1)),
      ']': unless(isTyping, () => goBy(1)),
      f: unless(isTyping, focusHere),
      z: unless(isTyping, () => (loupeOpen = true)),
      c: unless(isTyping, () => goto(`/card/${id}`)),
      'Shift+?': unless(isTyping, () => (helpOpen = true)),
      '$mod+z': unless(isTyping, () => step('undo')),
      '$mod+Shift+z': unless(isTyping, () => step('redo')),
      '$mod+y': unless(isTyping, () => step('redo')),
      ...Object.fromEntries(
        tabs.map((tab, index) => [String(index + 1), unless(isTyping, () => (workspace.tab = tab))])
      )
    });
  });
</script>

<main
  class="grid min-w-0 flex-1 gap-x-5 gap-y-3 p-3 lg:min-h-0 lg:grid-cols-[minmax(0,560fr)_minmax(0,570fr)] lg:grid-rows-[auto_minmax(0,1fr)] lg:overflow-hidden"
>
  <!-- One scrolling column on the desk; on a narrow screen its parts stand before and after the picture. -->
  <div class="min-w-0 max-lg:contents lg:col-start-2 lg:row-span-2 lg:row-start-1 lg:overflow-y-auto lg:pr-1">
    <div class="min-w-0">
      {#if workspace.plan}
        <CallPanel plan={workspace.plan} />
        <div class="mt-3 border-t border-line pt-1"><Ladder plan={workspace.plan} /></div>
      {:else if workspace.result.kind === 'noPlan'}
        <NoCall reason={workspace.result.reason} />
      {/if}
    </div>
    <div class="min-w-0 pb-4 max-lg:order-last lg:mt-4"><Inspector /></div>
  </div>
  <div class="min-w-0 lg:col-start-1 lg:row-start-1"><CameraBar /></div>
  <div class="flex min-h-0 min-w-0 flex-col gap-2 lg:col-start-1 lg:row-start-2">
    <div
      class="relative min-h-64 flex-[1.7] bg-surround max-lg:h-80"
      bind:clientWidth={finderWidth}
      bind:clientHeight={finderHeight}
    >
      <div class="absolute inset-0 overflow-hidden contain-strict">
        {#if workspace.plan && workspace.body && workspace.lens}
          <Finder
            plan={workspace.plan}
            body={workspace.body}
            lens={workspace.lens}
            width={finderWidth}
            height={finderHeight}
            bind:loupeOpen
          />
        {:else}
          <p class="grid h-full place-items-center p-6 text-center text-ink">The picture comes with the call.</p>
        {/if}
      </div>
    </div>
    {#if workspace.plan && workspace.body && workspace.lens}
      <EyeStrip
        taken={{ setup: row.setup, plan: workspace.plan, body: workspace.body, lens: workspace.lens }}
        width={finderWidth}
      />
    {/if}
    <div class="relative min-h-52 flex-1 max-lg:h-72" bind:clientHeight={floorHeight}>
      <div class="absolute inset-0 contain-layout contain-style"><Floor height={floorHeight} /></div>
    </div>
  </div>
</main>
<HelpDialog bind:open={helpOpen} />
