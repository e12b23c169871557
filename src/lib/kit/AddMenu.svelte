<script lang="ts" generics="T">
  import { ChevronDown } from '@lucide/svelte';
  import Menu from '$lib/controls/Menu.svelte';
  import MenuItem from '$lib/controls/MenuItem.svelte';

  interface Props {
    name: string;
    starts: readonly { readonly name: string; readonly make: (id: string) => T }[];
    onadd: (make: (id: string) => T) => void;
  }
  /** Generic kit to start from. */
  let { name, starts, onadd }: Props = $props();
  let open = $state(false);
</script>

<Menu bind:open>
  {#snippet label()}
    <span class="flex h-8 items-center gap-1 border border-line bg-raised px-3 text-[13px]"
      >{name}<ChevronDown size={14} aria-hidden="true" /></span
    >
  {/snippet}
  {#each starts as start (start.name)}
    <MenuItem
      name={start.name}
      onchosen={() => {
        open = false;
        onadd(start.make);
      }}
    />
  {/each}
</Menu>
