<script lang="ts">
  interface Props {
    /** Pictures that do not count, each with its reason. */
    items: readonly { readonly id: string; readonly name: string; readonly why: string }[];
    onremove: (id: string) => unknown;
  }
  let { items, onremove }: Props = $props();
</script>

{#if items.length > 0}
  <ul class="mt-3 text-[14px]" data-testid="refused">
    {#each items as item (item.id)}
      <li>
        <b>{item.name}</b>
        {item.why}
        <button type="button" class="min-h-6 underline" onclick={() => onremove(item.id)}>Leave out</button>
      </li>
    {/each}
  </ul>
{/if}
