<script module lang="ts">
  import { SvelteSet } from 'svelte/reactivity';

  /** What was unfolded stays so until the page is left. */
  const unfolded = new SvelteSet<string>();
</script>

<script lang="ts">
  import { ChevronRight } from '@lucide/svelte';
  import type { Snippet } from 'svelte';

  interface Props {
    title: string;
    /** What it is known by while the page is open, where others have its title too. */
    of?: string;
    /** What somebody should know without unfolding: what differs from the usual. */
    note?: string;
    /** As the heading of a part, not of a few fields. */
    heading?: boolean;
    children: Snippet;
  }
  /** What few need, behind its name. */
  let { title, of = title, note = '', heading = false, children }: Props = $props();
  const open = $derived(unfolded.has(of));

  function toggle(event: Event) {
    if ((event.currentTarget as HTMLDetailsElement).open) unfolded.add(of);
    else unfolded.delete(of);
  }
</script>

<details class={heading ? 'mt-4' : 'border-t border-line'} {open} ontoggle={toggle}>
  <summary
    class="flex list-none items-center gap-1.5 [&::-webkit-details-marker]:hidden {heading
      ? 'condensed border-b border-ink pb-0.5 text-[15px] font-bold'
      : 'py-1.5 font-semibold'}"
  >
    <ChevronRight size={15} class="shrink-0 text-soft {open ? 'rotate-90' : ''}" aria-hidden="true" />
    {title}
    {#if note !== ''}<span class="ml-1 text-[13px] font-normal text-soft">{note}</span>{/if}
  </summary>
  {#if open}{@render children()}{/if}
</details>
