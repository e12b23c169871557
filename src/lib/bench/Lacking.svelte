<script lang="ts">
  import { Button } from 'flowbite-svelte';
  import type { Lens } from '$core/kit/schema';
  import { exactFNumber } from '$core/optics/stops';
  import FieldScope from '$lib/controls/FieldScope.svelte';
  import NumberField from '$lib/controls/NumberField.svelte';
  import type { Lacks } from '../../workers/bench.worker';

  interface Props {
    /** Pictures whose files do not say something. */
    items: readonly { readonly id: string; readonly name: string; readonly lacks: Lacks }[];
    lens: Lens;
    /** Each has a stop of its own; else one is typed for all. */
    each?: boolean;
    busy: boolean;
    onfill: (ids: readonly string[], typed: { focalLengthMm: number; fNumber: number }) => unknown;
  }
  /** A lens without contacts says neither its stop nor its focal length: they are typed. */
  let { items, lens, each = false, busy, onfill }: Props = $props();
  let typed = $state<Record<string, number>>({});
  // svelte-ignore state_referenced_locally
  let focalLengthMm = $state(lens.longestMm);
  const rows = $derived(
    each
      ? items.map(({ id, name }) => ({ key: id, name, ids: [id] }))
      : [{ key: '', name: '', ids: items.map(({ id }) => id) }]
  );
  const stopOf = (key: string) => typed[key] ?? lens.widestFNumber;
  const zoom = $derived(lens.shortestMm !== lens.longestMm);
</script>

{#if items.length > 0}
  <div class="mt-3 border-l-4 border-pencil bg-raised p-3" data-testid="lacking">
    <p class="text-pretty">
      {items.length === 1 ? `${items[0]?.name ?? ''} has` : `${items.length} photos have`} no aperture{zoom
        ? ' or focal length'
        : ''} in the file. Enter it to measure them.
    </p>
    <FieldScope of="bench/lacking">
      {#each rows as { key, name, ids } (key)}
        <div class="mt-2 flex flex-wrap items-end gap-2">
          {#if zoom}
            <div class="w-36">
              <NumberField
                label="Focal length"
                value={focalLengthMm}
                min={lens.shortestMm}
                max={lens.longestMm}
                unit="millimetres"
                onchange={(mm) => (focalLengthMm = mm)}
              />
            </div>
          {/if}
          <div class="w-36">
            <NumberField
              label={each ? `${name}: f/` : 'Aperture: f/'}
              value={stopOf(key)}
              min={0.5}
              max={128}
              onchange={(f) => (typed = { ...typed, [key]: f })}
            />
          </div>
          {#if !each}
            <Button
              size="sm"
              disabled={busy}
              onclick={() => onfill(ids, { focalLengthMm, fNumber: exactFNumber(stopOf(key)) })}>Read again</Button
            >
          {/if}
        </div>
      {/each}
    </FieldScope>
    {#if each}
      <Button
        size="sm"
        class="mt-2"
        disabled={busy}
        onclick={async () => {
          for (const { key, ids } of rows) await onfill(ids, { focalLengthMm, fNumber: stopOf(key) });
        }}>Read again</Button
      >
    {/if}
  </div>
{/if}
