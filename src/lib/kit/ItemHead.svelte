<script lang="ts">
  import { Copy, Trash2 } from '@lucide/svelte';
  import { Button, Checkbox } from 'flowbite-svelte';
  import TextField from '$lib/controls/TextField.svelte';
  import type { KitUse } from '$lib/data';
  import { getApp } from '$lib/state/app.svelte';
  import type { KitTable } from '$lib/state/job/kit.svelte';

  interface Props {
    table: KitTable;
    id: string;
    /** Opens another item, or none. */
    onselect: (id: string | null) => void;
  }
  /** The name of an item, which setups hold it, and what can be done with it as a whole. */
  let { table, id, onselect }: Props = $props();
  const { kit } = getApp();
  const item = $derived(kit.find(table, id));
  const builtIn = $derived(kit.isBuiltIn(table, id));
  const own = $derived(kit.isOwn(table, id));
  let uses = $state.raw<readonly KitUse[] | null>(null);
  let removing = $state(false);
  $effect(() => {
    const asked = id;
    uses = null;
    removing = false;
    void kit.uses(table, asked).then((found) => {
      if (asked === id) uses = found;
    });
  });
  const shown = 4;

  function remove() {
    kit.remove(table, id);
    removing = false;
    if (!builtIn) onselect(null);
  }
</script>

{#if item}
  <div class="flex items-end gap-1">
    <div class="min-w-0 flex-1">
      <TextField
        label="Name"
        value={item.name}
        onchange={(name, how) => kit.change(table, id, 'name', (draft) => void (draft.name = name), how)}
      />
    </div>
    <button
      type="button"
      class="grid size-8 place-items-center border border-line bg-raised"
      aria-label="Duplicate {item.name}"
      onclick={() => onselect(kit.duplicate(table, id))}
    >
      <Copy size={15} aria-hidden="true" />
    </button>
    {#if own}
      <button
        type="button"
        class="grid size-8 place-items-center border border-line bg-raised"
        aria-label={builtIn ? `${item.name} as it came` : `Remove ${item.name}`}
        disabled={uses === null}
        onclick={() => (uses && uses.length > 0 && !builtIn ? (removing = true) : remove())}
      >
        <Trash2 size={15} aria-hidden="true" />
      </button>
    {/if}
  </div>
  <p class="label mt-1.5">
    {#if uses === null}
      &nbsp;
    {:else if uses.length === 0}
      In no setup.
    {:else}
      In {uses.length === 1 ? 'one setup' : `${uses.length} setups`}:
      {#each uses.slice(0, shown) as use, index (use.setupId)}
        {index > 0 ? ', ' : ''}<a href="/setup/{use.setupId}" class="underline">{use.setup}</a>{/each}{uses.length >
      shown
        ? ` and ${uses.length - shown} more`
        : ''}.
    {/if}
    {builtIn ? (own ? 'It came with Focalis and has been changed.' : 'It came with Focalis.') : ''}
  </p>
  {#if removing}
    <div class="mt-2 border-l-2 border-pencil pl-3" role="alert">
      <p>
        {uses?.length === 1
          ? 'One setup uses it and would lose its call.'
          : `${uses?.length ?? 0} setups use it and would lose their call.`} Retire it instead: existing setups keep it, no
        new ones will be offered it.
      </p>
      <div class="mt-2 flex gap-2">
        <Button
          size="xs"
          onclick={() => {
            kit.change(table, id, 'retired', (draft) => void (draft.retired = true));
            removing = false;
          }}>Retire it</Button
        >
        <Button size="xs" color="alternative" onclick={remove}>Remove anyway</Button>
        <Button size="xs" color="alternative" onclick={() => (removing = false)}>Keep it</Button>
      </div>
    </div>
  {/if}
  <Checkbox
    classes={{ div: 'mt-1 text-[13px]' }}
    checked={item.retired}
    onchange={(event: Event) => {
      const retired = (event.currentTarget as HTMLInputElement).checked;
      kit.change(table, id, retired ? 'retired' : 'in use', (draft) => void (draft.retired = retired));
    }}>Retired: existing setups keep it, new ones don’t see it</Checkbox
  >
{/if}
