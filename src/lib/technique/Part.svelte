<script lang="ts">
  import type { Snippet } from 'svelte';
  import Fold from '$lib/controls/Fold.svelte';

  interface Props {
    title: string;
    note?: string;
    /** Behind its heading until asked for. */
    folded?: boolean;
    children: Snippet;
  }
  /** A part of a tab under its heading. */
  let { title, note = '', folded = false, children }: Props = $props();
  const id = $props.id();
</script>

{#snippet content()}
  {#if note !== ''}<p class="label mt-1">{note}</p>{/if}
  {@render children()}
{/snippet}

{#if folded}
  <Fold heading {title}>{@render content()}</Fold>
{:else}
  <section class="mt-4" aria-labelledby={id}>
    <h3 {id} class="condensed border-b border-ink pb-0.5 text-[15px] font-bold">{title}</h3>
    {@render content()}
  </section>
{/if}
