<script lang="ts">
  import { Button } from 'flowbite-svelte';
  import { untrack } from 'svelte';
  import Dialog from '$lib/controls/Dialog.svelte';
  import { readingSchema, settled, type DistanceReading } from '$core/simulation/rangefinder';
  import { formatLengthExactly } from '$core/units/length';
  import { getWorkspace } from '$lib/state/screen/workspace.svelte';

  /** Readings of the rangefinder; the stand-in that ships is pointed at what the setup says, and a little off. */
  let { open = $bindable(false) }: { open: boolean } = $props();
  const workspace = getWorkspace();

  const kept = 24;
  let readings = $state.raw<readonly DistanceReading[]>([]);
  let lost = $state(false);
  const value = $derived(settled(readings));
  const last = $derived(readings[readings.length - 1]);

  $effect(() => {
    if (!open) return;
    readings = [];
    lost = false;
    // What a real device would be pointed at; read once, so that taking a reading does not move the target.
    const startMm = untrack(() => workspace.distanceMm);
    const source = new EventSource(`/api/rangefinder?mm=${Math.round(startMm)}`);
    source.onmessage = (event: MessageEvent<string>) => {
      const parsed = readingSchema.safeParse(JSON.parse(event.data));
      if (parsed.success) readings = [...readings, parsed.data].slice(-kept);
    };
    source.onerror = () => {
      lost = true;
      source.close();
    };
    return () => source.close();
  });

  function take() {
    if (!value) return;
    workspace.stand(Math.round(value.mm));
    open = false;
  }
</script>

<Dialog bind:open title="Rangefinder" size="xs">
  <div data-testid="rangefinder">
    <p class="condensed text-[44px] leading-none font-bold" aria-live="polite">
      {value ? formatLengthExactly(value.mm, workspace.unit) : '– –'}
    </p>
    <p class="label mt-1.5 h-5">
      {#if lost}
        The rangefinder does not answer. Close this and try again, or type the distance.
      {:else if last?.kind === 'noReturn'}
        No return: hold it on something light and matt.
      {:else if value?.steady}
        Steady.
      {:else}
        Measuring; hold still.
      {/if}
    </p>
    <div class="mt-2 flex h-8 items-end gap-0.5" aria-hidden="true">
      {#each readings as reading, index (index)}
        <span
          class="w-2 {reading.kind === 'distance' ? 'bg-ink' : 'border border-line'}"
          style:height={reading.kind === 'distance' && value
            ? `${Math.max(2, Math.min(32, 16 + (reading.mm - value.mm)))}px`
            : '4px'}
        ></span>
      {/each}
    </div>
    <p class="mt-3 border-l-2 border-pencil pl-2">
      Never point it at faces: aim at the chest, or at a wall beside them.
    </p>
    <p class="label mt-2">This one is simulated, with the noise and drop-outs of a real one.</p>
    <Button class="mt-3" disabled={!value?.steady} onclick={take}>Use this distance</Button>
  </div>
</Dialog>
