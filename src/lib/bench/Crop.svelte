<script lang="ts">
  import { objectUrl } from '$lib/controls/objectUrl.svelte';

  let { crop, label, side }: { crop: Blob; label: string; side: number } = $props();
  const url = objectUrl(() => crop);
</script>

<li class="shrink-0">
  <img src={url.current} alt="The edge at {label}" width={side} height={side} class="block" />
  <p class="text-center tabular-nums">{label}</p>
</li>
