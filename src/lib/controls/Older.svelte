<script lang="ts">
  /** Marks an answer to what the setup was, while the answer to what it is comes. */
  let { slow = false }: { slow?: boolean } = $props();
</script>

<p class="label mt-1" role="status">
  {slow ? 'This is from before your last change. It is being worked out again.' : 'Out of date.'}
</p>
