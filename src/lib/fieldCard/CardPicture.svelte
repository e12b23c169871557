<script lang="ts">
  import type { Plan } from '$core/call/plan';
  import type { Body, Lens } from '$core/kit/schema';
  import { aspectOf, fitInto, type RenderableSetup } from '../../render/request';
  import { cardKey, drawnFrom } from '$lib/finder/drawnFrom';
  import SizedPicture from '$lib/controls/SizedPicture.svelte';
  import Outline from '$lib/finder/Outline.svelte';
  import { getApp } from '$lib/state/app.svelte';
  import type { SetupRow } from '$lib/state/job/openJob.svelte';

  interface Props {
    row: SetupRow;
    plan: Plan;
    body: Body;
    lens: Lens;
    /** As it was planned, where it looks the same. */
    planned?: RenderableSetup | null;
    /** The room for it, px. */
    width: number;
    height: number;
  }
  /** What the Finder last drew of the setup as it is now; the outline where it has not. Nothing is drawn for the card. */
  let { row, plan, body, lens, planned = null, width, height }: Props = $props();
  const app = getApp();
  const aspect = $derived(aspectOf({ setup: row.setup, body }));
  const frame = $derived(fitInto(aspect, { width, height }));
  let address = $state('');

  $effect(() => {
    let wanted = true;
    let made = '';
    const { thumbnails } = app;
    const key = cardKey(row.id);
    const now = drawnFrom({ setup: row.setup, plan, body, lens });
    const then = planned ? drawnFrom(planned) : now;
    const find = async () => (await thumbnails.kept(key, now)) ?? (then === now ? null : thumbnails.kept(key, then));
    void find().then((kept) => {
      if (!wanted || !kept) return;
      made = URL.createObjectURL(kept);
      address = made;
    });
    return () => {
      wanted = false;
      address = '';
      URL.revokeObjectURL(made);
    };
  });
</script>

{#if address !== ''}
  <SizedPicture {address} {frame} testid="card-picture" />
{:else}
  <Outline setup={row.setup} {plan} {body} {width} {height} plain />
{/if}
