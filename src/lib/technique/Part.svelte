<script lang="ts">
  import type { Snippet } from 'svelte';

  /** A part of a tab under its heading. */
  let { title, note = '', children }: { title: string; note?: string; children: Snippet } = $props();
  const id = $props.id();
</script>

<section class="mt-4" aria-labelledby={id}>
  <h3 {id} class="condensed border-b border-ink pb-0.5 text-[15px] font-bold">{title}</h3>
  {#if note !== ''}<p class="label mt-1">{note}</p>{/if}
  {@render children()}
</section>
