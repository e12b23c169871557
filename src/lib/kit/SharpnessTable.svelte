<script lang="ts">
  import { Plus, X } from '@lucide/svelte';
  import { Button } from 'flowbite-svelte';
  import type { Lens } from '$core/kit/schema';
  import NumberField from '$lib/controls/NumberField.svelte';
  import type { EditManner } from '$lib/data';

  type Table = NonNullable<Lens['measured']>;
  interface Props {
    title: string;
    entries: Table;
    /** The stop a table begins with. */
    first: number;
    change: (label: string, recipe: (entries: Table) => void, how?: EditManner) => unknown;
  }
  /** MTF50 by stop, typed or measured. */
  let { title, entries, first, change }: Props = $props();
  /** A figure to begin a table with, line pairs per mm (from memory). */
  const usualLpPerMm = 40;
  const add = () =>
    change('measured aperture', (list) => {
      const last = list[list.length - 1]?.fNumber;
      list.push({ fNumber: last === undefined ? first : Math.min(128, last * 2), lpPerMm: usualLpPerMm });
    });
</script>

<div class="col-span-2" role="group" aria-label={title}>
  <p class="label mb-0.5">{title}</p>
  {#each entries as entry, index (index)}
    <div class="mb-1 flex items-end gap-2">
      <div class="w-24">
        <NumberField
          label="At f/ ({index + 1})"
          value={entry.fNumber}
          min={0.5}
          max={128}
          onchange={(f, how) =>
            change('measured aperture', (list) => void (list[index] && (list[index].fNumber = f)), how)}
        />
      </div>
      <div class="w-28">
        <NumberField
          label="lp/mm ({index + 1})"
          value={entry.lpPerMm}
          min={1}
          max={500}
          onchange={(lp, how) =>
            change('measured sharpness', (list) => void (list[index] && (list[index].lpPerMm = lp)), how)}
        />
      </div>
      <button
        type="button"
        class="grid size-8 place-items-center border border-line bg-raised"
        aria-label="Remove the measurement at f/{entry.fNumber}"
        onclick={() => change('measurement removed', (list) => void list.splice(index, 1))}
      >
        <X size={15} aria-hidden="true" />
      </button>
    </div>
  {/each}
  <Button size="xs" color="alternative" onclick={add}
    ><Plus size={13} class="mr-1" aria-hidden="true" />Measured aperture</Button
  >
</div>
