<script lang="ts">
  import '../app.css';
  import { ThemeProvider } from 'flowbite-svelte';
  import { onMount, type Snippet } from 'svelte';
  import { v4 } from 'uuid';
  import { dev } from '$app/environment';
  import { goto, preloadCode } from '$app/navigation';
  import { page } from '$app/state';
  import Importing from '$lib/shell/Importing.svelte';
  import { database, safeStorage } from '$lib/data';
  import DropTarget from '$lib/shell/DropTarget.svelte';
  import NewVersion from '$lib/shell/offline/NewVersion.svelte';
  import { Offline } from '$lib/shell/offline/offline.svelte';
  import { setOffline } from '$lib/shell/offline/context';
  import Messages from '$lib/shell/Messages.svelte';
  import StoreProblem from '$lib/shell/StoreProblem.svelte';
  import SoftDot from '$lib/ladder/SoftDot.svelte';
  import { controls } from '$lib/shell/theme';
  import { Renderings, setRenderings } from '../workers/clients/renderer.svelte';
  import { App, setApp } from '$lib/state/app.svelte';

  let { children }: { children: Snippet } = $props();
  const storage = safeStorage(() => localStorage);
  const app = setApp(
    new App({
      database: database(storage),
      storage,
      newId: v4,
      now: () => Date.now(),
      random: () => Math.random(),
      persist: () => navigator.storage?.persist?.()
    })
  );
  const pictures = setRenderings(new Renderings());

  onMount(() => {
    // The first screen is a setup: its code comes while the store opens.
    if (page.url.pathname === '/') void preloadCode('/setup/first');
    void app.start();
    return () => app.stop();
  });
  onMount(() => () => pictures.stop());
  const offline = setOffline(new Offline('serviceWorker' in navigator ? navigator.serviceWorker : undefined));
  onMount(() => {
    // Another tab has started a new version: this one follows once what it is reading has come and all is stored.
    const follow = async () => {
      await app.frames.bringing.idle();
      if (await app.store.flush()) location.reload();
    };
    if (!dev) void offline.start(() => void follow());
  });

  $effect(() => {
    if (app.status !== 'ready') return;
    const { theme } = app.settings.now;
    document.documentElement.dataset['theme'] = theme;
    storage.set('focalis.theme', theme);
  });

  /** Measured frames go to the record once they have all come and nothing changes for a moment. */
  const recordAfterMs = 800;
  const withFrames: string[] = [];
  $effect(() => {
    const { id } = app.open;
    const { length } = app.frames.list;
    const state = app.frames.bringing.now?.state;
    if (app.status !== 'ready' || id === null || state === 'running' || state === 'paused') return;
    if (length > 0 && !withFrames.includes(id)) withFrames.push(id);
    if (!withFrames.includes(id)) return;
    const timer = setTimeout(() => {
      void import('$lib/frames/recording')
        .then(({ keepRecord }) => keepRecord(app))
        .catch((error: unknown) => app.messages.problem(`The record was not kept: ${String(error)}`));
    }, recordAfterMs);
    return () => clearTimeout(timer);
  });

  async function importFile(file: File) {
    const path = await app.files.importFile(file);
    if (path) await goto(path);
  }
  function visibilityChanged() {
    if (document.visibilityState === 'hidden') app.leave();
    else {
      void app.comeBack();
      offline.check();
    }
  }
  /** Only what would be lost holds anybody back. */
  function beforeLeaving(event: BeforeUnloadEvent) {
    if (app.store.saving.kind === 'failed' && !app.journalKept) event.preventDefault();
  }
</script>

<svelte:window onpagehide={() => app.leave()} onbeforeunload={beforeLeaving} />
<svelte:document onvisibilitychange={visibilityChanged} onfocusin={() => app.store.history.endGesture()} />

<!-- Tells Plotly, whenever it arrives, to put no inline style into the page (controls/plotly.css). -->
<span id="plotly.js-style-global" class="no-inline-styles" hidden></span>
<ThemeProvider theme={controls}>
  <SoftDot />
  <DropTarget
    onfile={importFile}
    onpictures={page.url.pathname.startsWith('/frames/')
      ? (files) => app.frames.add(files, page.url.searchParams.get('setup'))
      : app.takesPictures}
  >
    {#if app.problem}
      <StoreProblem problem={app.problem} />
    {:else if app.status === 'ready'}
      {@render children()}
    {/if}
  </DropTarget>
  <Importing />
  <NewVersion {offline} />
  <Messages />
</ThemeProvider>
