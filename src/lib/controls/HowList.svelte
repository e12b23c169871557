<script lang="ts">
  import { how, howKeys, type HowKey } from '$core/words/how';

  /** How several figures are computed, one below the other. */
  let { of = howKeys }: { of?: readonly HowKey[] } = $props();
</script>

<dl class="space-y-3">
  {#each of as key (key)}
    <div>
      <dt class="font-semibold">{how[key].title}</dt>
      <dd class="text-pretty">
        {how[key].text}
        {#if how[key].formula}<span class="block font-medium">{how[key].formula}</span>{/if}
        <span class="text-soft">{how[key].source}</span>
      </dd>
    </div>
  {/each}
</dl>
