<script lang="ts">
  import { Camera, Pencil, Printer, Undo2 } from '@lucide/svelte';
  import { checksOf } from '$core/technique/checks';
  import type { Setup } from '$core/setup/schema';
  import { stitchSteps } from '$core/words/stitching';
  import { roundOf } from '../../render/request';
  import { themes } from '$lib/data';
  import { getApp } from '$lib/state/app.svelte';
  import type { SetupRow } from '$lib/state/job/openJob.svelte';
  import { goto } from '$app/navigation';
  import FileInput from '$lib/controls/FileInput.svelte';
  import OnceOpen from '$lib/controls/OnceOpen.svelte';
  import HowList from '$lib/controls/HowList.svelte';
  import CheckList from '$lib/technique/CheckList.svelte';
  import CardFacts from './CardFacts.svelte';
  import Sheet from './Sheet.svelte';

  interface Props {
    row: SetupRow;
    shot: Setup;
    ticked: number;
    count: number;
    onclose: () => void;
  }
  /** All that is known of the setup: the checks first. */
  let { row, shot, ticked, count, onclose }: Props = $props();
  const app = getApp();
  const unit = $derived(app.settings.now.unit);
  const planned = $derived(app.open.planned(shot));
  const plan = $derived(planned.plan.kind === 'plan' ? planned.plan : null);
  const entry = $derived(plan?.stops[plan.selected] ?? null);
  const checks = $derived(plan ? checksOf(app.open.input(shot), plan) : []);
  const steps = $derived.by(() => {
    const { body } = planned;
    const round = plan && body ? roundOf({ setup: shot, plan, body }) : null;
    return round ? stitchSteps(round, unit) : [];
  });
  const tick = (keys: readonly string[]) =>
    app.open.edit(row.id, 'Checked', (draft) => void (draft.ticked = [...keys]));
  let sent = $state(false);
  async function sendBack() {
    sent = (await app.travel.sendBack()) ?? false;
  }
  let camera = $state<{ open: () => void }>();
  let photo = $state.raw<File | null>(null);
  let looking = $state(false);
  async function beside(setup: Setup) {
    const added = app.setups.addMade(setup);
    if (added) await goto(`/card/${added}`);
  }
  const tool = 'flex h-12 items-center justify-center gap-2 border-2 border-line text-[16px]';
</script>

<Sheet title={row.setup.name} {onclose}>
  {#if row.setup.notes !== ''}<p class="mb-3 text-[17px] leading-snug text-pretty">{row.setup.notes}</p>{/if}
  {#if row.setup.taken.note !== ''}
    <p class="mb-3 border-l-4 border-ink pl-2 text-[17px] leading-snug text-pretty">{row.setup.taken.note}</p>
  {/if}
  {#if plan && checks.length > 0}
    <h3 class="text-[17px] font-semibold">
      Checks, {ticked === 0 ? count : `${ticked} of ${count} done`}
    </h3>
    <CheckList {plan} {checks} ticked={row.setup.ticked} onchange={tick} thumb />
  {/if}
  {#if steps.length > 0}
    <details class="mt-3" data-testid="card-steps">
      <summary class="min-h-11 py-2.5 text-[17px] font-semibold">Stitched panorama, step by step</summary>
      <ol class="list-decimal space-y-2 pb-2 pl-6 text-[17px] leading-snug">
        {#each steps as step (step)}<li class="text-pretty">{step}</li>{/each}
      </ol>
    </details>
  {/if}
  {#if plan && entry}
    <CardFacts setup={shot} {plan} {entry} />
    <details class="mt-3">
      <summary class="min-h-11 py-2.5 text-[17px] font-semibold">How this is computed</summary>
      <div class="pb-2 text-[15px] leading-snug">
        <HowList of={['target', 'distance', 'odds', 'zone', 'light', 'background']} />
      </div>
    </details>
  {/if}
  {#if app.travel.came}
    <button
      type="button"
      class="mt-4 h-14 w-full border-2 border-ink text-[17px] font-semibold"
      disabled={app.travel.busy !== ''}
      onclick={sendBack}>{sent ? 'Sent: click “Receive” there' : 'Send back'}</button
    >
  {/if}
  <div class="mt-4 grid grid-cols-3 gap-2" role="group" aria-label="Theme">
    {#each themes as theme (theme)}
      <button
        type="button"
        class="h-12 border-2 text-[16px] {app.settings.now.theme === theme
          ? 'border-ink bg-ink text-surface'
          : 'border-line'}"
        aria-pressed={app.settings.now.theme === theme}
        onclick={() => app.settings.set({ theme })}>{theme}</button
      >
    {/each}
  </div>
  <FileInput
    bind:this={camera}
    label="Photo of them"
    accept="image/*"
    capture="environment"
    onfile={(file) => {
      photo = file;
      looking = true;
    }}
  />
  <button type="button" class="{tool} mt-2 w-full" onclick={() => camera?.open()}
    ><Camera size={18} aria-hidden="true" />Look: read where they stand</button
  >
  <div class="mt-2 grid grid-cols-2 gap-2 pb-2">
    <button type="button" class={tool} disabled={!app.store.history.canUndo} onclick={() => void app.step('undo')}
      ><Undo2 size={18} aria-hidden="true" />Undo</button
    >
    <button type="button" class={tool} onclick={() => print()} aria-label="Print this card"
      ><Printer size={18} aria-hidden="true" />Print</button
    >
    <a href="/setup/{row.id}" class={tool} aria-label="Edit this setup"><Pencil size={18} aria-hidden="true" />Edit</a>
    <a href="/day/{row.jobId}" class={tool}>The day</a>
  </div>
</Sheet>
<OnceOpen open={looking}>
  {#await import('$lib/fromPhoto/PhotoDialog.svelte') then { default: PhotoDialog }}
    <PhotoDialog bind:open={looking} planned={shot} file={photo} onmade={beside} />
  {/await}
</OnceOpen>
