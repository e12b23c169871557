<script lang="ts">
  import { onMount } from 'svelte';
  import { tinykeys } from 'tinykeys';
  import { goto } from '$app/navigation';
  import { page } from '$app/state';
  import CallPanel from '$lib/call/CallPanel.svelte';
  import NoCall from '$lib/call/NoCall.svelte';
  import Ladder from '$lib/ladder/Ladder.svelte';
  import type { SetupRow } from '$lib/state/job/openJob.svelte';
  import { getApp } from '$lib/state/app.svelte';
  import { setWorkspace, Workspace } from '$lib/state/screen/workspace.svelte';
  import { tabs } from '$lib/state/screen/selection.svelte';
  import Failed from '$lib/controls/Failed.svelte';
  import { setFieldScope } from '$lib/controls/field.svelte';
  import { templates } from '$core/setup/templates';
  import { JustMade } from '$lib/state/screen/justMade.svelte';
  import { isTyping, usesArrows } from './keys';
  import { panes } from './panes.svelte';

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
  const kind = templates.find((template) => template === page.url.searchParams.get('new'));
  if (kind) {
    workspace.justMade = new JustMade(workspace, kind);
    workspace.tab = 'intent';
  }
  let finderWidth = $state(560);
  let finderHeight = $state(360);
  let floorHeight = $state(240);
  let loupeOpen = $state(false);

  async function goBy(by: -1 | 1) {
    const rows = app.open.rows;
    const next = rows[rows.findIndex((item) => item.id === id) + by];
    if (next) await goto(`/setup/${next.id}`);
  }

  /** The near eye of whoever is selected; with nobody selected, the best eye again. */
  function focusHere() {
    const subject = workspace.plan?.subjects.find((item) => item.id === workspace.person?.id);
    const eye = subject?.points.find((point) => point.role === 'nearEye')?.feature;
    const aimed = subject && (eye === 'leftEye' || eye === 'rightEye');
    workspace.focusOn(aimed ? { kind: 'eye', personId: subject.id, eye } : { kind: 'best' });
  }

  onMount(() => {
    void panes.load();
    // Asked once: read again, it is a setup like any other.
    if (kind) void goto(`/setup/${id}`, { replaceState: true, noScroll: true, keepFocus: true });
  });
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
      h: unless(isTyping, () => (loupeOpen = true)),
      c: unless(isTyping, () => goto(`/card/${id}`)),
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
    <div class="min-w-0 pb-4 max-lg:order-last lg:mt-4">
      {#if panes.all}
        <panes.all.Inspector />
      {:else if panes.failure !== ''}
        <Failed
          what="The rest of this screen could not be fetched:"
          why={panes.failure}
          onretry={() => panes.again()}
        />
      {/if}
    </div>
  </div>
  <div class="min-h-13 min-w-0 lg:col-start-1 lg:row-start-1">
    {#if panes.all}<panes.all.CameraBar />{/if}
  </div>
  <div class="flex min-h-0 min-w-0 flex-col gap-2 lg:col-start-1 lg:row-start-2">
    <div
      class="relative min-h-64 flex-[1.7] bg-surround max-lg:h-80"
      bind:clientWidth={finderWidth}
      bind:clientHeight={finderHeight}
    >
      <div class="absolute inset-0 overflow-hidden contain-strict">
        {#if workspace.plan && workspace.body && workspace.lens}
          {#if panes.all}
            <panes.all.Finder
              plan={workspace.plan}
              body={workspace.body}
              lens={workspace.lens}
              width={finderWidth}
              height={finderHeight}
              bind:loupeOpen
            />
          {/if}
        {:else}
          <p class="grid h-full place-items-center p-6 text-center text-ink">The preview comes with the call.</p>
        {/if}
      </div>
    </div>
    {#if panes.all && workspace.plan && workspace.body && workspace.lens}
      <panes.all.EyeStrip
        taken={{ setup: row.setup, plan: workspace.plan, body: workspace.body, lens: workspace.lens }}
        width={finderWidth}
      />
    {/if}
    <div class="relative min-h-52 flex-1 max-lg:h-72" bind:clientHeight={floorHeight}>
      <div class="absolute inset-0 contain-layout contain-style">
        {#if panes.all}<panes.all.Floor height={floorHeight} />{/if}
      </div>
    </div>
  </div>
</main>
