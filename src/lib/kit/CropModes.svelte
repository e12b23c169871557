<script lang="ts">
  import { Plus, X } from '@lucide/svelte';
  import { Button } from 'flowbite-svelte';
  import type { Body } from '$core/kit/schema';
  import NumberField from '$lib/controls/NumberField.svelte';
  import TextField from '$lib/controls/TextField.svelte';
  import type { ChangeBody } from './changeBody';

  let { body, change }: { body: Body; change: ChangeBody } = $props();
</script>

<div class="col-span-2">
  <p class="label mb-0.5">Crop modes</p>
  {#each body.cropModes as mode, index (index)}
    <div class="mb-1 flex items-end gap-2">
      <div class="min-w-0 flex-1">
        <TextField
          label="Crop mode {index + 1}"
          value={mode.name}
          onchange={(name, how) =>
            change('crop mode', (draft) => void (draft.cropModes[index] && (draft.cropModes[index].name = name)), how)}
        />
      </div>
      <div class="w-24">
        <NumberField
          label="Factor {index + 1}"
          value={mode.factor}
          min={1.01}
          max={4}
          step={0.1}
          onchange={(factor, how) =>
            change(
              'crop factor',
              (draft) => void (draft.cropModes[index] && (draft.cropModes[index].factor = factor)),
              how
            )}
        />
      </div>
      <button
        type="button"
        class="grid size-8 place-items-center border border-line bg-raised"
        aria-label="Remove crop mode {mode.name}"
        onclick={() => change('crop mode removed', (draft) => void draft.cropModes.splice(index, 1))}
      >
        <X size={15} aria-hidden="true" />
      </button>
    </div>
  {/each}
  {#if body.cropModes.length < 4}
    <Button
      size="xs"
      color="alternative"
      onclick={() =>
        change(
          'crop mode',
          (draft) => void draft.cropModes.push({ name: `Crop ${draft.cropModes.length + 1}`, factor: 1.5 })
        )}><Plus size={13} class="mr-1" aria-hidden="true" />Crop mode</Button
    >
  {/if}
</div>
