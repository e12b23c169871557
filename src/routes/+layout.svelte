<script lang="ts">
  import '../app.css';
  import { ThemeProvider } from 'flowbite-svelte';
  import { onMount, type Snippet } from 'svelte';
  import { goto } from '$app/navigation';
  import { database } from '$lib/data';
  import DropTarget from '$lib/shell/DropTarget.svelte';
  import Messages from '$lib/shell/Messages.svelte';
  import SoftDot from '$lib/ladder/SoftDot.svelte';
  import { controls } from '$lib/shell/theme';
  import { Pictures, setPictures } from '$lib/finder/pictures.svelte';
  import { App, setApp } from '$lib/state/app.svelte';

  let { children }: { children: Snippet } = $props();
  const app = setApp(new App(database()));

  const pictures = setPictures(new Pictures());

  onMount(() => app.start());
  onMount(() => {
    pictures.start();
    return () => pictures.stop();
  });

  $effect(() => {
    if (app.status !== 'ready') return;
    const { theme } = app.settings;
    document.documentElement.dataset['theme'] = theme;
    try {
      localStorage.setItem('focalis.theme', theme);
    } catch {
      // Storage is barred: the theme holds for this page.
    }
  });

  async function importFile(file: File) {
    const id = await app.importFile(file);
    if (id) await goto(`/setup/${id}`);
  }
</script>

<svelte:window onpagehide={() => app.leave()} />
<svelte:document onvisibilitychange={() => document.visibilityState === 'hidden' && app.leave()} />

<ThemeProvider theme={controls}>
  <SoftDot />
  <DropTarget onfile={importFile}>
    {#if app.status === 'ready'}
      {@render children()}
    {:else if app.status === 'failed'}
      <main class="mx-auto max-w-lg p-10">
        <h1 class="condensed text-2xl font-bold">The browser’s store cannot be opened.</h1>
        <p class="mt-2">{app.failure}</p>
        <p class="mt-2">
          Private windows and full disks are the usual causes. Open Focalis in an ordinary window, or free some space.
        </p>
      </main>
    {/if}
  </DropTarget>
  <Messages />
</ThemeProvider>
