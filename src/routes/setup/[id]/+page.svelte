<script lang="ts">
  import { goto } from '$app/navigation';
  import { page } from '$app/state';
  import type { TemplateChoices } from '$core/setup/templates';
  import Header from '$lib/shell/Header.svelte';
  import NewSetupDialog from '$lib/shell/NewSetupDialog.svelte';
  import OpenSetup from '$lib/shell/OpenSetup.svelte';
  import SetupWorkspace from '$lib/shell/SetupWorkspace.svelte';
  import Strip from '$lib/strip/Strip.svelte';
  import { getApp } from '$lib/state/app.svelte';

  const app = getApp();
  const id = $derived(page.params['id'] ?? '');
  const name = $derived(app.open.row(id)?.setup.name);
  let adding = $state(false);

  $effect(() => {
    if (name !== undefined && app.settings.now.lastSetupId !== id) app.settings.set({ lastSetupId: id });
  });

  async function add(choices: TemplateChoices) {
    const added = app.setups.add(choices);
    if (added) await goto(`/setup/${added}?new`);
  }
</script>

<svelte:head><title>{name === undefined ? 'Focalis' : `${name} · Focalis`}</title></svelte:head>

<OpenSetup {id}>
  {#snippet children(row)}
    <div class="flex min-h-screen flex-col lg:h-screen">
      <Header jobId={row.jobId} setupId={row.id} page="setup" />
      <div class="flex min-h-0 flex-1 flex-col lg:flex-row">
        <Strip setupId={row.id} onadd={() => (adding = true)} />
        {#key row.id}
          <SetupWorkspace id={row.id} />
        {/key}
      </div>
    </div>
    <NewSetupDialog bind:open={adding} onchoose={add} />
  {/snippet}
</OpenSetup>
