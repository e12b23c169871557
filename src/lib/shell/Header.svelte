<script lang="ts">
  import { Button } from 'flowbite-svelte';
  import { tinykeys } from 'tinykeys';
  import { onMount, tick } from 'svelte';
  import { Aperture, ChevronDown, CircleQuestionMark, Redo2, Settings2, Undo2 } from '@lucide/svelte';
  import { goto } from '$app/navigation';
  import { getApp } from '$lib/state/app.svelte';
  import { fileName, saveText } from '../controls/download';
  import FileInput from '../controls/FileInput.svelte';
  import Menu from '../controls/Menu.svelte';
  import MenuItem from '../controls/MenuItem.svelte';
  import OnceOpen from '../controls/OnceOpen.svelte';
  import Notices from './Notices.svelte';
  import SaveState from './SaveState.svelte';
  import { isTyping } from './keys';

  interface Props {
    jobId: string;
    setupId?: string | null;
    page: 'day' | 'setup' | 'frames' | 'record' | 'kit' | 'bench' | 'drills' | 'jobs' | 'settings';
  }
  let { jobId, setupId = null, page }: Props = $props();
  const app = getApp();
  const job = $derived(app.store.table('jobs').get(jobId)?.value);
  const current = $derived(setupId ?? app.open.rows[0]?.id ?? null);
  /** The latest of the jobs one works on; all of them are a press away. */
  const mostInMenu = 8;
  const shownJobs = $derived(
    app.jobs.current.filter((row, index, all) => row.id === jobId || index >= all.length - mostInMenu)
  );
  let menuOpen = $state(false);
  let helpOpen = $state(false);
  let removedOpen = $state(false);
  let chooser = $state<ReturnType<typeof FileInput>>();

  const unlessTyping = (action: () => unknown) => (event: KeyboardEvent) => {
    if (isTyping(event) || event.defaultPrevented) return;
    event.preventDefault();
    void action();
  };
  onMount(() =>
    tinykeys(window, {
      'Shift+?': unlessTyping(() => (helpOpen = true)),
      '?': unlessTyping(() => (helpOpen = true)),
      // Also while it is still being fetched, when there is no dialog yet to hear it.
      Escape: () => void (helpOpen = false),
      '$mod+z': unlessTyping(() => step('undo')),
      '$mod+Shift+z': unlessTyping(() => step('redo')),
      '$mod+y': unlessTyping(() => step('redo'))
    })
  );

  async function act(action: () => Promise<string | null> | string | null) {
    menuOpen = false;
    const path = await action();
    if (path) await goto(path);
  }
  const startNew = () => act(async () => `/day/${await app.jobs.start()}`);
  const loadDemo = () => act(async () => asSetup(await app.files.loadDemo()));
  const removeJob = () =>
    act(() => {
      app.jobs.remove(jobId);
      return '/';
    });
  const asSetup = (id: string | null) => (id ? `/setup/${id}` : null);

  async function showRound() {
    helpOpen = false;
    const tour = await import('./tour');
    app.settings.set({ welcomed: 'yes' });
    await tick();
    tour.showRound();
  }
  const importChosen = (file: File) => act(() => app.files.importFile(file));
  async function exportJob() {
    menuOpen = false;
    const text = await app.files.exportText(jobId);
    if (text && job) saveText(text, `${fileName(job.name)}.focalis.json`);
  }
  async function step(direction: 'undo' | 'redo') {
    const touched = await app.step(direction);
    if (touched && page === 'setup' && touched !== setupId) await goto(`/setup/${touched}`);
  }
</script>

<header class="flex min-h-12 flex-wrap items-center gap-x-5 gap-y-1 border-b border-line px-4 py-1.5">
  <a href="/" class="flex h-8 items-center gap-1.5 text-[17px] font-bold tracking-tight"
    ><Aperture size={19} aria-hidden="true" />Focalis</a
  >
  <Menu bind:open={menuOpen}>
    {#snippet label()}
      <span class="truncate">{job?.name ?? 'No job'}</span><ChevronDown size={14} class="shrink-0" aria-hidden="true" />
    {/snippet}
    {#each shownJobs as row (row.id)}
      <MenuItem name={row.value.name} marked={row.id === jobId} onchosen={() => act(() => `/day/${row.id}`)} />
    {/each}
    <li class="my-1 border-t border-line" aria-hidden="true"></li>
    <MenuItem name="All jobs" onchosen={() => act(() => '/jobs')} />
    <MenuItem name="Start a new job" onchosen={startNew} />
    <MenuItem name="Load the demo again" onchosen={loadDemo} />
    <li class="my-1 border-t border-line" aria-hidden="true"></li>
    <MenuItem name="Import a job file" onchosen={() => chooser?.open()} />
    <MenuItem name="Export this job" onchosen={exportJob} />
    <MenuItem name="Remove this job" onchosen={removeJob} />
    {#if app.jobs.removed.length > 0}
      <MenuItem name="Removed jobs" onchosen={() => ((menuOpen = false), (removedOpen = true))} />
    {/if}
  </Menu>
  <FileInput bind:this={chooser} label="Job file" accept=".json,application/json" onfile={importChosen} />

  <nav aria-label="Pages" class="flex flex-wrap gap-x-3 text-[14px] sm:gap-x-4">
    {#each [{ name: 'Day', href: jobId === '' ? null : `/day/${jobId}`, key: 'day' }, { name: 'Setup', href: current ? `/setup/${current}` : null, key: 'setup' }, { name: 'Frames', href: jobId === '' ? null : `/frames/${jobId}`, key: 'frames' }, { name: 'Record', href: '/record', key: 'record' }, { name: 'Kit', href: '/kit', key: 'kit' }, { name: 'Bench', href: '/bench', key: 'bench' }, { name: 'Drills', href: '/drills', key: 'drills' }] as item (item.key)}
      {#if item.href}
        <a
          href={item.href}
          aria-current={item.key === page ? 'page' : undefined}
          class="min-w-6 border-b-3 border-transparent py-0.5 text-center aria-[current=page]:border-pencil aria-[current=page]:font-semibold"
          >{item.name}</a
        >
      {/if}
    {/each}
  </nav>

  <div class="ml-auto flex items-center gap-1">
    <SaveState onexport={exportJob} />
    <button
      type="button"
      class="grid size-8 place-items-center disabled:opacity-35"
      disabled={!app.store.history.canUndo}
      aria-label="Undo"
      onclick={() => step('undo')}
    >
      <Undo2 size={17} aria-hidden="true" />
    </button>
    <button
      type="button"
      class="grid size-8 place-items-center disabled:opacity-35"
      disabled={!app.store.history.canRedo}
      aria-label="Redo"
      onclick={() => step('redo')}
    >
      <Redo2 size={17} aria-hidden="true" />
    </button>
    <a
      href="/settings"
      class="grid size-8 place-items-center {page === 'settings' ? 'border-b-3 border-pencil' : ''}"
      aria-current={page === 'settings' ? 'page' : undefined}
      aria-label="Settings"
      ><Settings2 size={17} aria-hidden="true" />
    </a>
    <button
      type="button"
      class="grid size-8 place-items-center"
      aria-label="Keys and help"
      onclick={() => (helpOpen = true)}
    >
      <CircleQuestionMark size={17} aria-hidden="true" />
    </button>
    {#if current && page === 'setup'}
      <Button href="/card/{current}" class="ml-2" data-testid="field-card">Field card</Button>
    {/if}
  </div>
</header>
<Notices />
<OnceOpen open={helpOpen}>
  {#await import('./HelpDialog.svelte') then { default: HelpDialog }}<HelpDialog
      bind:open={helpOpen}
      onshow={page === 'setup' ? showRound : null}
    />{/await}
</OnceOpen>
<OnceOpen open={removedOpen}>
  {#await import('./RemovedJobs.svelte') then { default: RemovedJobs }}<RemovedJobs bind:open={removedOpen} />{/await}
</OnceOpen>
