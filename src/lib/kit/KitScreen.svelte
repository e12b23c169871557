<script lang="ts">
  import { Button, Checkbox } from 'flowbite-svelte';
  import { Plus, X } from '@lucide/svelte';
  import { lensesWithoutBody } from '$core/kit/bags';
  import { adapterStarts, bodyStarts, lensStarts } from '$core/kit/startingPoints';
  import Choice from '$lib/controls/Choice.svelte';
  import { saveText } from '$lib/controls/download';
  import FieldScope from '$lib/controls/FieldScope.svelte';
  import OnceOpen from '$lib/controls/OnceOpen.svelte';
  import FileInput from '$lib/controls/FileInput.svelte';
  import TextField from '$lib/controls/TextField.svelte';
  import { getApp } from '$lib/state/app.svelte';
  import type { KitTable } from '$lib/state/job/kit.svelte';
  import AdapterFields from './AdapterFields.svelte';
  import AddMenu from './AddMenu.svelte';
  import BodyFields from './BodyFields.svelte';
  import BodyShelf from './BodyShelf.svelte';
  import ItemHead from './ItemHead.svelte';
  import LensFields from './LensFields.svelte';
  import LensLine from './LensLine.svelte';

  const app = getApp();
  const { kit } = app;
  let opened = $state.raw<{ readonly table: KitTable; readonly id: string } | null>(null);
  let bagId = $state('');
  let importing = $state(false);
  let chooser = $state<ReturnType<typeof FileInput>>();

  const shown = $derived(kit.shown);
  const bag = $derived(kit.bags.find((item) => item.id === bagId));
  const item = $derived(opened ? kit.find(opened.table, opened.id) : undefined);
  const opener = (table: KitTable) => (id: string | null) => void (opened = id === null ? null : { table, id });
  const selected = (table: KitTable) => (opened?.table === table ? opened.id : null);
  const alone = $derived(bag ? lensesWithoutBody(kit.all, bag) : []);
  const retired = (table: KitTable, id: string) => kit.find(table, id)?.retired === true;
  const taken = $derived.by(() => {
    const current = bag;
    if (!current) return (id: string) => !retired('lenses', id);
    const inside = new Set([
      ...current.lensIds,
      ...current.adapterIds,
      ...current.bodies.flatMap((body) => [body.bodyId, body.lensId ?? ''])
    ]);
    return (id: string) => inside.has(id);
  });

  function pack(inside: boolean) {
    if (!bag || !opened || !item) return;
    const { table, id } = opened;
    kit.changeBag(bag.id, `${item.name} ${inside ? 'into' : 'out of'} ${bag.name}`, (draft) => {
      const put = (list: string[]) =>
        inside ? [...list.filter((other) => other !== id), id] : list.filter((other) => other !== id);
      if (table === 'bodies') {
        draft.bodies = draft.bodies.filter((body) => body.bodyId !== id);
        if (inside) draft.bodies.push({ bodyId: id, lensId: null });
      } else if (table === 'lenses') {
        draft.lensIds = put(draft.lensIds);
        if (!inside) for (const body of draft.bodies) if (body.lensId === id) body.lensId = null;
      } else draft.adapterIds = put(draft.adapterIds);
    });
  }
  const builtInShown = $derived(app.settings.now.builtInKit);
</script>

<main class="mx-auto w-full max-w-7xl px-4 py-5">
  <div class="flex flex-wrap items-center gap-x-4 gap-y-2">
    <h1 class="condensed text-2xl font-bold">Kit</h1>
    <Choice
      legend="Show"
      hideLegend
      wrap
      options={[{ value: '', name: 'everything' }, ...kit.bags.map(({ id, name }) => ({ value: id, name }))]}
      value={bag ? bagId : ''}
      onchange={(id) => (bagId = id)}
    />
    <Button color="alternative" onclick={() => (bagId = kit.addBag())}
      ><Plus size={14} class="mr-1" aria-hidden="true" />Bag</Button
    >
    <div class="flex flex-wrap items-center gap-2 sm:ml-auto">
      <Button color="alternative" onclick={() => (importing = true)}>Import from a lens database</Button>
      <Button color="alternative" onclick={() => chooser?.open()}>Import</Button>
      <FileInput
        bind:this={chooser}
        label="Kit file"
        accept=".json,application/json"
        onfile={(file) => kit.importFile(file)}
      />
      <Button color="alternative" onclick={() => saveText(kit.exportText, 'Kit.focalis.json')}>Export</Button>
    </div>
  </div>

  {#if bag}
    <div class="mt-3 flex flex-wrap items-end gap-3 border-l-2 border-pencil pl-3">
      <div class="w-56">
        {#key bag.id}<FieldScope of="kit/{bag.id}">
            <TextField
              label="Name of the bag"
              value={bag.name}
              onchange={(name, how) =>
                kit.changeBag(bagId, 'Name of the bag', (draft) => void (draft.name = name), how)}
            />
          </FieldScope>{/key}
      </div>
      <p class="max-w-md pb-1.5 text-pretty">
        Select an item to add it. Give a job its bag on the Day; that job then offers only what is in the bag.
        {#if alone.length > 0}<span class="text-pencil"
            >{alone.join(', ')} {alone.length === 1 ? 'goes' : 'go'} on none of its bodies.</span
          >{/if}
      </p>
      <button
        type="button"
        class="mb-0.5 grid size-8 place-items-center border border-line bg-raised"
        aria-label="Remove {bag.name}"
        onclick={() => kit.removeBag(bagId)}
      >
        <X size={15} aria-hidden="true" />
      </button>
    </div>
  {/if}

  <div class="mt-4 grid items-start gap-6 lg:grid-cols-[minmax(0,1fr)_24rem]">
    <div class="min-w-0 space-y-6">
      <section aria-labelledby="kit-bodies">
        <div class="mb-2 flex items-center justify-between gap-3">
          <h2 id="kit-bodies" class="text-[15px] font-semibold">Bodies</h2>
          <AddMenu name="Add a body" starts={bodyStarts} onadd={(make) => opener('bodies')(kit.add('bodies', make))} />
        </div>
        <BodyShelf {shown} {bag} selected={selected('bodies')} onselect={opener('bodies')} />
      </section>
      <section aria-labelledby="kit-lenses">
        <div class="mb-2 flex items-center justify-between gap-3">
          <h2 id="kit-lenses" class="text-[15px] font-semibold">Lenses</h2>
          <AddMenu name="Add a lens" starts={lensStarts} onadd={(make) => opener('lenses')(kit.add('lenses', make))} />
        </div>
        {#if shown.lenses.length > 0}
          <LensLine lenses={shown.lenses} selected={selected('lenses')} {taken} onselect={opener('lenses')} />
        {:else}
          <p class="label">No lens yet.</p>
        {/if}
      </section>
      <section aria-labelledby="kit-adapters">
        <div class="mb-2 flex items-center justify-between gap-3">
          <h2 id="kit-adapters" class="text-[15px] font-semibold">Adapters and converters</h2>
          <AddMenu
            name="Add an adapter"
            starts={adapterStarts}
            onadd={(make) => opener('adapters')(kit.add('adapters', make))}
          />
        </div>
        <ul class="flex flex-wrap gap-2">
          {#each shown.adapters as adapter (adapter.id)}
            <li>
              <button
                type="button"
                class="min-h-8 border bg-raised px-3 py-1 text-left {adapter.id === selected('adapters')
                  ? 'border-pencil'
                  : 'border-line'} {adapter.retired || (bag && !taken(adapter.id)) ? 'border-dashed text-soft' : ''}"
                aria-pressed={adapter.id === selected('adapters')}
                onclick={() => opener('adapters')(adapter.id)}
              >
                <span class="block">{adapter.name}</span>
                <span class="label">{adapter.lensMount || 'any lens'} → {adapter.bodyMount || 'any body'}</span>
              </button>
            </li>
          {/each}
        </ul>
        {#if shown.adapters.length === 0}<p class="label">
            None. Needed only where lens and body have different mounts, or a converter is used.
          </p>{/if}
      </section>
      <Checkbox
        classes={{ div: 'text-[13px]' }}
        checked={builtInShown}
        onchange={() => app.settings.set({ builtInKit: !builtInShown })}>Show the sample kit</Checkbox
      >
    </div>
    <section aria-label="The item opened" class="min-w-0">
      {#if opened && item}
        <div class="border border-line bg-raised p-4">
          {#key opened.id}
            <FieldScope of="kit/{opened.id}">
              <ItemHead table={opened.table} id={opened.id} onselect={opener(opened.table)} />
              {#if bag}
                <Checkbox
                  classes={{ div: 'text-[13px]' }}
                  checked={taken(opened.id)}
                  onchange={(event: Event) => pack((event.currentTarget as HTMLInputElement).checked)}
                  >In {bag.name}</Checkbox
                >
              {/if}
              {#if opened.table === 'bodies'}
                {@const body = kit.find('bodies', opened.id)}
                {#if body}<BodyFields {body} />{/if}
              {:else if opened.table === 'lenses'}
                {@const lens = kit.find('lenses', opened.id)}
                {#if lens}<LensFields {lens} />{/if}
              {:else}
                {@const adapter = kit.find('adapters', opened.id)}
                {#if adapter}<AdapterFields {adapter} />{/if}
              {/if}
            </FieldScope>
          {/key}
        </div>
      {:else}
        <p class="label border border-dashed border-line p-4 text-pretty">
          Choose a body, lens or adapter to see and change its data. Every plan that uses it follows.
        </p>
      {/if}
    </section>
  </div>
</main>
<OnceOpen open={importing}>
  {#await import('./LensfunDialog.svelte') then { default: LensfunDialog }}
    <LensfunDialog bind:open={importing} />
  {/await}
</OnceOpen>
