<script lang="ts">
  import type { Snippet } from 'svelte';

  interface Props {
    id: string;
    title: string;
    /** What it is about, in a sentence. */
    about?: string;
    children: Snippet;
  }
  /** A part of the settings: its name on the left, what there is to set on the right. */
  let { id, title, about = '', children }: Props = $props();
</script>

<section
  aria-labelledby="{id}-title"
  {id}
  class="grid gap-x-8 gap-y-3 border-t-2 border-ink pt-3 pb-8 md:grid-cols-[15rem_minmax(0,1fr)]"
>
  <div>
    <h2 id="{id}-title" class="condensed text-[18px] leading-tight font-bold">{title}</h2>
    {#if about !== ''}<p class="label mt-1 text-pretty">{about}</p>{/if}
  </div>
  <div class="min-w-0 max-w-2xl">{@render children()}</div>
</section>
