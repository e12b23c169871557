<script lang="ts">
  import { errorReason } from '$lib/state/job/services';
  import { refusedWords } from '$core/words/refused';
  import { Button, Checkbox, Input, Label, Select } from 'flowbite-svelte';
  import { VList } from 'virtua/svelte';
  import type { LensEntry, LensfunEntry, LensfunResult } from '$core/formats/lensfun';
  import { bodyFrom, lensFrom } from '$core/formats/fromLensfun';
  import { parseNumber } from '$core/units/number';
  import Dialog from '$lib/controls/Dialog.svelte';
  import Progress from '$lib/controls/Progress.svelte';
  import { getApp } from '$lib/state/app.svelte';
  import { readLensDatabase } from '../../workers/clients/files';

  /** Files of the open lens database: search all of it, choose, and see what is taken before it is. */
  let { open = $bindable() }: { open: boolean } = $props();
  const app = getApp();
  const id = $props.id();
  let reading = $state<number | null>(null);
  let problem = $state('');
  let refused = $state.raw<readonly string[]>([]);
  let left = $state.raw<readonly string[]>([]);
  let entries = $state.raw<readonly LensfunEntry[]>([]);
  let search = $state('');
  let chosen = $state.raw<readonly LensfunEntry[]>([]);
  /** Openings typed for lenses the database has none of. */
  let typed = $state<Record<string, string>>({});
  /** The mount of a lens that is made for several. */
  let mountOf = $state<Record<string, string>>({});
  let cancel: AbortController | null = null;

  const found = $derived.by(() => {
    const words = search.toLowerCase().split(/\s+/).filter(Boolean);
    return entries.filter((entry) => words.every((word) => entry.name.toLowerCase().includes(word)));
  });
  const fNumber = { unit: 'none', min: 0.5, max: 128 } as const;
  const widestOf = (entry: LensEntry): number | null => {
    const read = parseNumber(typed[entry.name] ?? '', fNumber);
    return entry.widestFNumber ?? (read.ok ? read.value : null);
  };
  const lacking = $derived(chosen.filter((entry) => entry.kind === 'lens' && widestOf(entry) === null));

  async function read(event: Event) {
    const field = event.currentTarget as HTMLInputElement;
    const files = [...(field.files ?? [])];
    field.value = '';
    if (files.length === 0) return;
    cancel = new AbortController();
    reading = 0;
    problem = '';
    refused = [];
    left = [];
    try {
      const results = await readLensDatabase(files, (share) => void (reading = share), cancel.signal);
      show(files, results);
    } catch (error) {
      if (!cancel.signal.aborted) problem = refusedWords('import the lens database', errorReason(error));
    } finally {
      reading = null;
    }
  }
  function show(files: readonly File[], results: readonly LensfunResult[]) {
    refused = results.flatMap((result, index) =>
      result.ok ? [] : [`${files[index]?.name ?? 'A file'} was not read. ${result.reason}`]
    );
    left = results.flatMap((result) => (result.ok ? result.left.map((item) => `${item.name}: ${item.reason}.`) : []));
    // The same entry in two files is one.
    const byName = new Map(
      results
        .flatMap((result) => (result.ok ? result.entries : []))
        .map((entry) => [`${entry.kind} ${entry.name}`, entry])
    );
    entries = [...byName.values()].sort((a, b) => a.name.localeCompare(b.name));
    chosen = chosen.filter((entry) => entries.includes(entry));
  }
  function facts(entry: LensfunEntry): string {
    if (entry.kind === 'body') return `crop factor ${entry.cropFactor} · ${entry.mount}`;
    const { shortestMm, longestMm, widestFNumber, widestAtLong, mounts } = entry;
    const focal = shortestMm === longestMm ? `${shortestMm} mm` : `${shortestMm}–${longestMm} mm`;
    const stop =
      widestFNumber === null
        ? 'aperture not set'
        : `f/${widestFNumber}${widestAtLong === null ? '' : `–${widestAtLong}`}`;
    return `${focal} · ${stop} · ${mounts.join(', ')}`;
  }
  function toggle(entry: LensfunEntry) {
    chosen = chosen.includes(entry) ? chosen.filter((item) => item !== entry) : [...chosen, entry];
  }
  function take() {
    const bodies = chosen.flatMap((entry) => (entry.kind === 'body' ? [bodyFrom(entry, app.newId())] : []));
    const lenses = chosen.flatMap((entry) =>
      entry.kind === 'lens'
        ? [{ ...lensFrom(entry, app.newId(), widestOf(entry)), mount: mountOf[entry.name] ?? entry.mounts[0] ?? '' }]
        : []
    );
    const count = bodies.length + lenses.length;
    app.kit.take(`${count === 1 ? (chosen[0]?.name ?? 'One') : count} taken from the lens database`, {
      bodies,
      lenses,
      adapters: []
    });
    chosen = [];
    open = false;
  }
</script>

<Dialog bind:open title="Import from a lens database" size="lg">
  <div class="space-y-3" data-testid="lensfun">
    <p class="text-pretty">
      Reads files of the open Lensfun XML format. Their data is under a licence of its own (Creative Commons
      Attribution-Share Alike): what you take is for your planning; say where it is from when you pass it on.
    </p>
    <label
      class="inline-flex h-8 cursor-pointer items-center border border-line bg-surface px-3 font-medium has-focus-visible:outline-2 has-focus-visible:outline-offset-2 has-focus-visible:outline-cool"
    >
      Choose files
      <input
        type="file"
        accept=".xml,text/xml,application/xml"
        multiple
        class="sr-only"
        aria-label="Lens database files"
        onchange={read}
      />
    </label>
    {#if reading !== null}
      <div class="flex items-center gap-3">
        <Progress share={reading} label="Reading the lens database" />
        <Button size="xs" color="alternative" onclick={() => cancel?.abort()}>Cancel</Button>
      </div>
    {/if}
    {#if problem !== ''}<p role="alert" class="border-l-2 border-pencil pl-2">{problem}</p>{/if}
    {#each refused as sentence (sentence)}<p role="alert" class="border-l-2 border-pencil pl-2">{sentence}</p>{/each}
    {#if left.length > 0}
      <details>
        <summary class="py-1">{left.length === 1 ? 'One entry is' : `${left.length} entries are`} left out</summary>
        <ul class="label max-h-32 overflow-y-auto">
          {#each left as sentence, index (index)}<li>{sentence}</li>{/each}
        </ul>
      </details>
    {/if}
    {#if entries.length > 0}
      <div>
        <Label for="{id}-search">Search, of {entries.length}</Label>
        <Input id="{id}-search" type="search" bind:value={search} />
      </div>
      <p class="label" aria-live="polite">
        {found.length === entries.length ? 'All of them.' : `${found.length} found.`}
      </p>
      <div class="h-60 border border-line">
        <VList
          data={found as LensfunEntry[]}
          getKey={(entry) => `${entry.kind} ${entry.name}`}
          itemSize={32}
          class="h-full"
        >
          {#snippet children(entry)}
            <div class="flex h-8 items-center gap-2 border-b border-line px-2">
              <Checkbox
                classes={{ div: 'min-w-0 flex-1 text-[13px]' }}
                checked={chosen.includes(entry)}
                onchange={() => toggle(entry)}><span class="truncate">{entry.name}</span></Checkbox
              >
              <span class="label shrink-0">{facts(entry)}</span>
            </div>
          {/snippet}
        </VList>
      </div>
    {/if}
    {#if chosen.length > 0}
      <section aria-label="Chosen">
        <h3 class="mb-1 font-semibold">To be taken</h3>
        <ul class="max-h-48 space-y-1 overflow-y-auto">
          {#each chosen as entry, index (`${entry.kind} ${entry.name}`)}
            <li class="flex items-center gap-3">
              <span class="min-w-0 flex-1 truncate">{entry.name}</span>
              {#if entry.kind === 'lens' && entry.mounts.length > 1}
                <Label for="{id}-mount-{index}">Yours has the mount</Label>
                <Select
                  id="{id}-mount-{index}"
                  class="w-40"
                  placeholder=""
                  items={entry.mounts.map((mount) => ({ value: mount, name: mount }))}
                  value={mountOf[entry.name] ?? entry.mounts[0]}
                  onchange={(event: Event) => (mountOf[entry.name] = (event.currentTarget as HTMLSelectElement).value)}
                />
              {/if}
              {#if entry.kind === 'lens' && entry.widestFNumber === null}
                <Label for="{id}-stop-{index}">Maximum aperture, f/</Label>
                <Input id="{id}-stop-{index}" class="w-16" inputmode="decimal" bind:value={typed[entry.name]} />
              {:else if entry.kind === 'body' || entry.mounts.length === 1}
                <span class="label">{facts(entry)}</span>
              {/if}
            </li>
          {/each}
        </ul>
        <p class="label mt-1.5">
          Closest focus, blades and a body’s pixels are not in the database: what is usual is filled in, to be changed.
        </p>
        <div class="mt-2 flex items-center gap-3">
          <Button disabled={lacking.length > 0} onclick={take}>Take {chosen.length}</Button>
          {#if lacking.length > 0}
            <p>
              The database has no opening for {lacking.length === 1 ? 'one of them' : `${lacking.length} of them`}: say
              it first, from 0.5 to 128.
            </p>
          {/if}
        </div>
      </section>
    {/if}
  </div>
</Dialog>
