<script lang="ts">
  import { Progressbar } from 'flowbite-svelte';

  let { label, share }: { label: string; share: number } = $props();
</script>

<div role="status" class="max-w-80">
  <p class="label mb-1">{label}</p>
  <div aria-hidden="true"><Progressbar progress={Math.round(share * 100)} size="h-1" color="gray" /></div>
</div>
