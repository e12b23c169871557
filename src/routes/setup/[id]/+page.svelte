<script lang="ts">
  import { goto } from '$app/navigation';
  import { page } from '$app/state';
  import type { TemplateChoices } from '$core/setup/templates';
  import Missing from '$lib/shell/Missing.svelte';
  import Header from '$lib/shell/Header.svelte';
  import NewSetupDialog from '$lib/shell/NewSetupDialog.svelte';
  import SetupWorkspace from '$lib/shell/SetupWorkspace.svelte';
  import Strip from '$lib/strip/Strip.svelte';
  import { getApp } from '$lib/state/app.svelte';

  const app = getApp();
  const row = $derived(app.row(page.params['id'] ?? ''));
  let adding = $state(false);

  $effect(() => {
    if (row && app.settings.lastSetupId !== row.id) void app.setSettings({ lastSetupId: row.id });
  });

  async function add(choices: TemplateChoices) {
    if (row) await goto(`/setup/${await app.addSetup(row.jobId, choices)}`);
  }
</script>

<svelte:head><title>{row ? `${row.setup.name} · Focalis` : 'Focalis'}</title></svelte:head>

{#if row}
  <div class="flex min-h-screen flex-col lg:h-screen">
    <Header jobId={row.jobId} setupId={row.id} page="setup" />
    <div class="flex min-h-0 flex-1 flex-col lg:flex-row">
      <Strip jobId={row.jobId} setupId={row.id} onadd={() => (adding = true)} />
      {#key row.id}
        <SetupWorkspace id={row.id} />
      {/key}
    </div>
  </div>
  <NewSetupDialog bind:open={adding} onchoose={add} />
{:else}
  <Missing />
{/if}
