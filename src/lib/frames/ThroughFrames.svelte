<script lang="ts">
  import { Button } from 'flowbite-svelte';
  import { tinykeys } from 'tinykeys';
  import { onMount } from 'svelte';
  import { Virtualizer } from 'virtua/svelte';
  import type { FaceJudged, FrameJudged } from '$core/frames/eyes';
  import { throughWords } from '$core/words/compare';
  import { frameNumber } from '$core/words/frames';
  import { screenKey } from '$lib/shell/keys';
  import EyesOfFrame from './EyesOfFrame.svelte';

  interface Props {
    judged: readonly FrameJudged[];
    personId: string;
    nameOf: (personId: string) => string;
    onopen: (id: string) => unknown;
    onclose: () => unknown;
  }
  /** One person through all frames, the sharpest with open eyes first. */
  let { judged, personId, nameOf, onopen, onclose }: Props = $props();
  const seen = $derived(
    judged.flatMap((one): { frame: FrameJudged['frame']; face: FaceJudged }[] => {
      const face = one.faces.find((item) => item.personId === personId);
      return face ? [{ frame: one.frame, face }] : [];
    })
  );
  const place = ({ face }: { face: FaceJudged }) => (face.closed ? 1000 : 0) + (face.ratio ?? 500);
  const inOrder = $derived([...seen].sort((a, b) => place(a) - place(b)));
  let width = $state(1200);
  const across = $derived(Math.max(1, Math.floor((width + 12) / 228)));
  const rows = $derived(
    Array.from({ length: Math.ceil(inOrder.length / across) }, (_, row) =>
      inOrder.slice(row * across, (row + 1) * across)
    )
  );
  let scroller = $state<HTMLElement>();
  onMount(() => tinykeys(window, { Escape: screenKey(onclose) }));
</script>

<main class="flex min-h-0 flex-1 flex-col">
  <div class="flex flex-wrap items-start gap-x-5 gap-y-2 px-4 pt-4 pb-3">
    <h1 class="condensed min-w-0 flex-1 text-[26px] leading-tight font-bold text-pretty" data-testid="through-title">
      {throughWords(nameOf(personId), seen)}
    </h1>
    <Button color="alternative" onclick={onclose}>All frames</Button>
  </div>
  <div class="min-h-0 flex-1 overflow-auto bg-surround px-4 py-3 text-[#111]" bind:this={scroller}>
    <div bind:clientWidth={width}>
      <Virtualizer data={rows} getKey={(row) => row[0]?.frame.id ?? ''} scrollRef={scroller} itemSize={140}>
        {#snippet children(row: typeof inOrder)}
          <ul class="flex gap-3 pb-3">
            {#each row as { frame, face } (frame.id)}
              <li class="w-54">
                <button
                  type="button"
                  class="block w-full text-left"
                  onclick={() => onopen(frame.id)}
                  aria-label="Open {frame.file.name}"
                >
                  <EyesOfFrame {frame} {face} name={nameOf(personId)} number={frameNumber(frame)} />
                </button>
              </li>
            {/each}
          </ul>
        {/snippet}
      </Virtualizer>
    </div>
  </div>
</main>
