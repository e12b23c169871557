<script lang="ts">
  import type { Job } from '$core/job/schema';
  import Choice from './Choice.svelte';

  /** How the aperture ring clicks. */
  let { value, onchange }: { value: Job['stopStep']; onchange: (value: Job['stopStep']) => unknown } = $props();
</script>

<Choice
  legend="Aperture increments"
  {value}
  options={[
    { value: 'full', name: 'full' },
    { value: 'half', name: 'half' },
    { value: 'third', name: 'third' }
  ]}
  {onchange}
/>
