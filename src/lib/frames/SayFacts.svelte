<script lang="ts">
  import { Button } from 'flowbite-svelte';
  import { missingFacts, readShutter, type Fact, type Said } from '$core/frames/facts';
  import type { Frame } from '$core/frames/schema';
  import { factWords } from '$core/words/frames';
  import { formatNumber, parseNumber } from '$core/units/number';
  import Dialog from '$lib/controls/Dialog.svelte';
  import TextField from '$lib/controls/TextField.svelte';
  import { getApp } from '$lib/state/app.svelte';

  /** What the files of a setup do not say, said for all of them at once. */
  let { open = $bindable(), frames }: { open: boolean; frames: readonly Frame[] } = $props();
  const app = getApp();
  const missing = $derived(missingFacts(frames));
  let said = $state<Record<Fact, string>>({ focalLengthMm: '', fNumber: '', shutterS: '', iso: '' });
  const bounds = { focalLengthMm: [1, 3000], fNumber: [0.5, 128], iso: [1, 4_000_000] } as const;
  const examples = { focalLengthMm: '85', fNumber: '2.8', shutterS: '1/200', iso: '400' } as const;

  function read(fact: Fact, text: string): number | string {
    if (fact === 'shutterS') return readShutter(text) ?? 'A time such as 1/200 or 2 s.';
    const [min, max] = bounds[fact];
    const parsed = parseNumber(text.replace(/^f\/?/i, ''), { unit: 'none', min, max, whole: false });
    return parsed.ok ? parsed.value : parsed.message;
  }
  const problem = (fact: Fact) => (text: string) => {
    const found = read(fact, text);
    return typeof found === 'string' ? found : null;
  };
  const typed = $derived(
    missing.flatMap(({ fact }) => {
      const found = said[fact] === '' ? '' : read(fact, said[fact]);
      return typeof found === 'number' ? [[fact, found] as const] : [];
    })
  );
  function take() {
    void app.frames.sayFacts(
      frames.map(({ id }) => id),
      Object.fromEntries(typed) as Said
    );
    open = false;
  }
  const count = (number: number) => (number === 1 ? 'one frame' : `${formatNumber(number)} frames`);
</script>

<Dialog bind:open title="Missing shooting data" size="sm">
  <p class="text-pretty text-soft">Used for every frame of this setup whose file doesn’t have it.</p>
  <div class="mt-3 grid grid-cols-2 gap-3">
    {#each missing as { fact, frames: without } (fact)}
      <div>
        <TextField
          label="{factWords[fact]}, such as {examples[fact]}"
          value={said[fact]}
          optional
          problem={problem(fact)}
          onchange={(text) => (said[fact] = text)}
        />
        <p class="label mt-0.5">missing in {count(without)}</p>
      </div>
    {/each}
  </div>
  <div class="mt-4"><Button disabled={typed.length === 0} onclick={take}>Apply to all</Button></div>
</Dialog>
