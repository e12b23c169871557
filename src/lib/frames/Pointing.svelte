<script lang="ts">
  import { Button } from 'flowbite-svelte';
  import { onMount } from 'svelte';
  import type { Pointable } from '$core/frames/pointed';
  import type { Frame } from '$core/frames/schema';
  import { acceptedPictures } from '$core/photos/kind';
  import { possessive } from '$core/words/call';
  import { getApp } from '$lib/state/app.svelte';
  import { objectUrl } from '$lib/controls/objectUrl.svelte';

  interface Props {
    frame: Frame;
    at: Pointable;
    /** Shown where the browser cannot show the picture itself. */
    thumbnail: string;
    onleave: () => unknown;
  }
  /** Over the picture: a first click comes near, a second one hits the eye. */
  let { frame, at, thumbnail, onleave }: Props = $props();
  const app = getApp();
  const nearer = 4;
  let original = $state.raw<Blob | null | 'looking'>('looking');
  let unseen = $state(false);
  const url = objectUrl(() => (original instanceof Blob ? original : undefined));
  /** In shares of the picture. */
  let near = $state.raw<{ x: number; y: number } | null>(null);
  let cross = $state.raw({ x: 0.5, y: 0.5 });
  let keyed = $state(false);
  let busy = $state(false);
  let problem = $state('');
  let inner = $state<HTMLElement>();
  let target = $state<HTMLButtonElement>();
  const what = $derived(at.kind === 'eye' ? `${possessive(at.name)} eye` : at.name);

  async function look() {
    original = await app.frames.originals.find(frame.id, frame);
  }
  onMount(() => {
    void look();
    target?.focus();
  });

  async function take(place: { x: number; y: number }) {
    if (busy) return;
    cross = place;
    if (!near) {
      near = place;
      return;
    }
    busy = true;
    problem = '';
    try {
      const why = await app.frames.whose.point(frame.id, at, {
        x: place.x * frame.widthPx,
        y: place.y * frame.heightPx
      });
      if (why === null) onleave();
      else if (why === 'needed') original = null;
      else problem = why;
    } catch (error) {
      problem = error instanceof Error ? error.message : String(error);
    } finally {
      busy = false;
    }
  }
  function clicked(event: MouseEvent) {
    const box = inner?.getBoundingClientRect();
    if (!box) return;
    keyed = false;
    void take({ x: (event.clientX - box.left) / box.width, y: (event.clientY - box.top) / box.height });
  }
  function key(event: KeyboardEvent) {
    const step = 0.02 / (near ? nearer * 2 : 1);
    const by = { ArrowLeft: [-step, 0], ArrowRight: [step, 0], ArrowUp: [0, -step], ArrowDown: [0, step] }[event.key];
    if (event.key === 'Escape') onleave();
    else if (event.key === 'Enter') void take(cross);
    else if (by) {
      keyed = true;
      const within = (value: number) => Math.min(1, Math.max(0, value));
      cross = { x: within(cross.x + (by[0] ?? 0)), y: within(cross.y + (by[1] ?? 0)) };
    } else return;
    event.preventDefault();
    event.stopPropagation();
  }
  async function offer(event: Event) {
    const field = event.currentTarget as HTMLInputElement;
    const [file] = field.files ?? [];
    field.value = '';
    const owner = app.open.id;
    if (!file || owner === null) return;
    problem = '';
    if (await app.frames.originals.offer(frame.id, owner, frame, file)) await look();
    else problem = `That is another photo than ${frame.file.name}.`;
  }
</script>

<div class="absolute inset-0 overflow-hidden bg-surround">
  <button
    type="button"
    bind:this={target}
    aria-label="Point at {what}: arrow keys, then Enter"
    class="block h-full w-full cursor-crosshair"
    onclick={clicked}
    onkeydown={key}
  >
    <span
      bind:this={inner}
      class="relative block h-full w-full"
      style:transform={near ? `scale(${nearer})` : undefined}
      style:transform-origin={near ? `${near.x * 100}% ${near.y * 100}%` : undefined}
    >
      <img
        src={url.current !== '' && !unseen ? url.current : thumbnail}
        alt=""
        class="h-full w-full select-none"
        draggable="false"
        onerror={() => (unseen = true)}
      />
      {#if keyed || busy}
        <svg
          viewBox="-10 -10 20 20"
          class="absolute h-6 w-6"
          style:left="{cross.x * 100}%"
          style:top="{cross.y * 100}%"
          style:transform="translate(-50%, -50%) scale({near ? 1 / nearer : 1})"
          aria-hidden="true"
        >
          <path d="M -9 0 H -2 M 2 0 H 9 M 0 -9 V -2 M 0 2 V 9" stroke="#111" stroke-width="3.4" />
          <path d="M -9 0 H -2 M 2 0 H 9 M 0 -9 V -2 M 0 2 V 9" stroke="#fff" stroke-width="1.6" />
        </svg>
      {/if}
    </span>
  </button>
  <div
    class="absolute inset-x-0 bottom-0 flex flex-wrap items-center gap-x-4 gap-y-1 bg-ink/85 px-3 py-1.5 text-surface"
  >
    <p class="min-w-0 flex-1" role="status" data-testid="pointing">
      {#if problem !== ''}{problem}
      {:else if busy}Measuring …
      {:else if original === null}To measure there, {frame.file.name} itself is needed: it is not kept here.
      {:else if near}Now click {what}.
      {:else}Click near {what}.{/if}
    </p>
    {#if original === null}
      <label class="flex min-h-6 cursor-pointer items-center underline">
        Find it<input type="file" accept={acceptedPictures} class="sr-only" onchange={offer} />
      </label>
    {:else if near}
      <button type="button" class="min-h-6 underline" onclick={() => (near = null)}>Further away</button>
    {/if}
    <Button color="light" onclick={onleave}>Cancel</Button>
  </div>
</div>
