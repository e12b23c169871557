<script lang="ts">
  import { goto } from '$app/navigation';
  import { page } from '$app/state';
  import type { TemplateChoices } from '$core/setup/templates';
  import OnceOpen from '$lib/controls/OnceOpen.svelte';
  import Header from '$lib/shell/Header.svelte';
  import OpenSetup from '$lib/shell/OpenSetup.svelte';
  import ShowRound from '$lib/shell/ShowRound.svelte';
  import SetupWorkspace from '$lib/shell/SetupWorkspace.svelte';
  import { panes } from '$lib/shell/panes.svelte';
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
    if (added) await goto(`/setup/${added}?new=${choices.template}`);
  }
</script>

<svelte:head><title>{name === undefined ? 'Focalis' : `${name} · Focalis`}</title></svelte:head>

<OpenSetup {id}>
  {#snippet children(row)}
    <div class="flex flex-col max-lg:min-h-screen lg:h-[calc(100dvh-var(--message-room,0px))]">
      <Header jobId={row.jobId} setupId={row.id} page="setup" />
      <ShowRound />
      <div class="flex min-h-0 flex-1 flex-col lg:flex-row">
        <div class="min-h-26 shrink-0 bg-(--strip) lg:min-h-0 lg:w-29">
          {#if panes.all}<panes.all.Strip setupId={row.id} onadd={() => (adding = true)} />{/if}
        </div>
        {#key row.id}
          <SetupWorkspace id={row.id} />
        {/key}
      </div>
    </div>
    <OnceOpen open={adding}>
      {#await import('$lib/shell/NewSetupDialog.svelte') then { default: NewSetupDialog }}
        <NewSetupDialog bind:open={adding} onchoose={add} />
      {/await}
    </OnceOpen>
  {/snippet}
</OpenSetup>
