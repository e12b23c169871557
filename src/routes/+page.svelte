<script lang="ts">
  import { goto } from '$app/navigation';
  import { getApp } from '$lib/state/app.svelte';

  const app = getApp();

  // Straight to the picture last worked on; a profile without any job gets one to begin with.
  $effect(() => {
    const last = app.row(app.settings.lastSetupId ?? '') ?? app.setups[0];
    const job = app.jobs[0];
    if (last) void goto(`/setup/${last.id}`, { replaceState: true });
    else if (job) void goto(`/day/${job.id}`, { replaceState: true });
    else void app.addEmptyJob().then((id) => goto(`/day/${id}`, { replaceState: true }));
  });
</script>
