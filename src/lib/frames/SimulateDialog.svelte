<script lang="ts">
  import { Button, Checkbox, Select } from 'flowbite-svelte';
  import Dialog from '$lib/controls/Dialog.svelte';
  import { fileName, saveBlob } from '$lib/controls/download';
  import NumberField from '$lib/controls/NumberField.svelte';
  import Progress from '$lib/controls/Progress.svelte';
  import { getApp } from '$lib/state/app.svelte';
  import { errorReason } from '$lib/state/job/services';
  import type { Burst } from './burst';
  import { usualMishaps } from './mishaps';

  /** The stand-in for a camera: shoots a setup of the job, so that Frames can be tried without one. */
  let {
    open = $bindable(),
    setupId = null,
    ontaken
  }: {
    open: boolean;
    setupId?: string | null;
    ontaken: (files: readonly File[], setupId: string) => unknown;
  } = $props();
  const app = getApp();
  let chosen = $state<string>();
  let frames = $state(12);
  let seed = $state(1);
  let mishaps = $state(true);
  let share = $state<number | null>(null);
  let failed = $state('');
  let burst = $state.raw<Burst | null>(null);
  let ending: AbortController | null = null;
  const id = $derived(chosen ?? setupId ?? app.open.rows[0]?.id ?? '');

  async function shoot() {
    const row = app.open.row(id);
    if (!row) return;
    failed = '';
    burst = null;
    share = 0;
    ending = new AbortController();
    try {
      const { takeBurst } = await import('./burst');
      const input = app.open.input(row.setup);
      const { plan, body, lens } = app.open.planned(row.setup);
      if (plan.kind !== 'plan' || !body || !lens) throw new Error('This setup cannot be planned as it is.');
      burst = await takeBurst(
        input,
        { setup: row.setup, plan, body, lens },
        {
          frames,
          seed,
          faults: mishaps ? usualMishaps(row.setup, plan, body, frames) : {},
          at: startOf(row.setup.schedule.startsAt),
          zoneMinutes: -new Date().getTimezoneOffset(),
          from: seed * 100 + 1
        },
        (done) => (share = done),
        ending.signal
      );
      if (!burst) throw new Error('The simulated camera shoots single frames only: this setup combines two.');
    } catch (error) {
      if (!ending.signal.aborted) failed = errorReason(error);
    } finally {
      share = null;
    }
  }
  /** The day and time that is planned, else now. */
  function startOf(startsAt: string | null): number {
    const date = app.open.job?.date;
    const planned = date ? new Date(`${date}T${startsAt ?? '12:00'}`).getTime() : NaN;
    return Number.isFinite(planned) ? planned : app.now();
  }
  async function save() {
    if (!burst) return;
    const { zipped } = await import('../../workers/zip');
    const truth = JSON.stringify(burst.truths, null, 1);
    const files = burst.files.map((file): [string, Blob] => [file.name, file]);
    const name = app.open.row(id)?.setup.name ?? 'burst';
    saveBlob(await zipped([...files, ['truth.json', truth]]), `${fileName(name)}-frames.zip`);
  }
</script>

<Dialog bind:open title="Simulate a burst" size="sm">
  <p class="mb-4 text-soft">
    A simulated camera shoots this plan with realistic errors. The answer key is saved as a separate file.
  </p>
  <div class="grid gap-3 sm:grid-cols-[1fr_6rem_6rem]">
    <label class="label block"
      >Setup
      <Select placeholder="" class="mt-1" value={id} onchange={(event) => (chosen = event.currentTarget.value)}>
        {#each app.open.rows as row (row.id)}<option value={row.id}>{row.setup.name}</option>{/each}
      </Select>
    </label>
    <NumberField label="Frames" whole min={1} max={60} value={frames} onchange={(value) => (frames = value)} />
    <NumberField label="Seed" whole min={1} max={9999} value={seed} onchange={(value) => (seed = value)} />
  </div>
  <div class="mt-4">
    <Checkbox bind:checked={mishaps}>with mishaps: focus before and behind, shake, a blink</Checkbox>
  </div>
  {#if share !== null}
    <div class="mt-4 flex items-end gap-4">
      <Progress label="Frames drawn; without a graphics card each takes some seconds" {share} />
      <Button color="alternative" onclick={() => ending?.abort()}>Stop</Button>
    </div>
  {:else if burst}
    <div class="mt-4 flex flex-wrap gap-3">
      <Button
        onclick={() => {
          if (burst) ontaken(burst.files, id);
          open = false;
        }}>Import into Frames</Button
      >
      <Button color="alternative" onclick={save}>Save files and answer key</Button>
    </div>
  {:else}
    <Button class="mt-4" onclick={shoot}>Shoot</Button>
  {/if}
  {#if failed !== ''}<p role="alert" class="mt-3 text-pencil">{failed}</p>{/if}
</Dialog>
