<script lang="ts">
  import { Checkbox } from 'flowbite-svelte';
  import { pointSizes, type Body } from '$core/kit/schema';
  import NumberField from '$lib/controls/NumberField.svelte';
  import Picker from '$lib/controls/Picker.svelte';
  import type { ChangeBody } from './changeBody';
  import { sensitiveChoices, sizeNames } from './words';

  /** Where a body's focus points lie, how fine they are, and which see both ways. */
  let { body, change }: { body: Body; change: ChangeBody } = $props();
  const share = (value: number) => Math.round(value * 1000) / 10;
</script>

<NumberField
  label="Columns of focus points"
  value={body.focusGrid.columns}
  min={1}
  max={99}
  whole
  onchange={(n, how) => change('columns of points', (draft) => void (draft.focusGrid.columns = n), how)}
/>
<NumberField
  label="Rows of focus points"
  value={body.focusGrid.rows}
  min={1}
  max={99}
  whole
  onchange={(n, how) => change('rows of points', (draft) => void (draft.focusGrid.rows = n), how)}
/>
<NumberField
  label="They cover, of the long edge"
  unit="percent"
  value={share(body.focusGrid.widthShare)}
  min={1}
  max={100}
  onchange={(percent, how) =>
    change('points across', (draft) => void (draft.focusGrid.widthShare = percent / 100), how)}
/>
<NumberField
  label="They cover, of the short edge"
  unit="percent"
  value={share(body.focusGrid.heightShare)}
  min={1}
  max={100}
  onchange={(percent, how) => change('points down', (draft) => void (draft.focusGrid.heightShare = percent / 100), how)}
/>
<Checkbox
  classes={{ div: 'col-span-2 text-[13px]' }}
  checked={body.focusGrid.fine !== null}
  onchange={(event: Event) => {
    const fine = (event.currentTarget as HTMLInputElement).checked;
    change('fine points', (draft) => {
      const { columns, rows } = draft.focusGrid;
      draft.focusGrid.fine = fine ? { columns: Math.min(99, columns * 2 - 1), rows: Math.min(99, rows * 2 - 1) } : null;
    });
  }}>A finer grid can be chosen</Checkbox
>
{#if body.focusGrid.fine}
  <NumberField
    label="Fine columns"
    value={body.focusGrid.fine.columns}
    min={1}
    max={99}
    whole
    onchange={(n, how) =>
      change('fine columns', (draft) => void (draft.focusGrid.fine && (draft.focusGrid.fine.columns = n)), how)}
  />
  <NumberField
    label="Fine rows"
    value={body.focusGrid.fine.rows}
    min={1}
    max={99}
    whole
    onchange={(n, how) =>
      change('fine rows', (draft) => void (draft.focusGrid.fine && (draft.focusGrid.fine.rows = n)), how)}
  />
{/if}
<Picker
  label="Cross-type points"
  items={sensitiveChoices}
  value={body.focusGrid.sensitive}
  onchange={(value) => change('sensitive points', (draft) => void (draft.focusGrid.sensitive = value))}
/>
<Checkbox
  checked={body.focusGrid.anywhere}
  onchange={(event: Event) => {
    const anywhere = (event.currentTarget as HTMLInputElement).checked;
    change('points anywhere', (draft) => void (draft.focusGrid.anywhere = anywhere));
  }}>The point can be put anywhere between them</Checkbox
>
<fieldset>
  <legend class="label mb-0.5">Sizes of the point</legend>
  <div class="flex flex-wrap gap-x-2">
    {#each pointSizes as value (value)}
      <Checkbox
        checked={body.focusGrid.sizes.includes(value)}
        onchange={(event: Event) => {
          const on = (event.currentTarget as HTMLInputElement).checked;
          change('sizes of the point', (draft) => {
            draft.focusGrid.sizes = pointSizes.filter((item) =>
              item === value ? on : draft.focusGrid.sizes.includes(item)
            );
          });
        }}>{sizeNames[value]}</Checkbox
      >
    {/each}
  </div>
</fieldset>
