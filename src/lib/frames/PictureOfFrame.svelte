<script lang="ts">
  import { Select } from 'flowbite-svelte';
  import { eyesPx, type FrameJudged } from '$core/frames/eyes';
  import type { Pointable } from '$core/frames/pointed';
  import { clockText, settingsLine } from '$core/words/frames';
  import { possessive } from '$core/words/call';
  import { getApp } from '$lib/state/app.svelte';
  import type { SetupRow } from '$lib/state/job/openJob.svelte';
  import EyesCell from './EyesCell.svelte';
  import Pointing from './Pointing.svelte';
  import { framePicture } from './picture.svelte';

  interface Props {
    judged: FrameJudged;
    row: SetupRow | null;
    /** Who and what was not found in it. */
    pointable: readonly Pointable[];
    /** Which frame of how many, "frame 3 of 12". */
    place: string;
    /** Whether the sharpest place is spoken of. */
    marked: boolean;
    nameOf: (personId: string) => string;
  }
  /** The picture in the grey, a ring about every face, whose it is, and who was not found. */
  let { judged, row, pointable, place, marked, nameOf }: Props = $props();
  const app = getApp();
  const frame = $derived(judged.frame);
  const picture = framePicture(() => frame.id);
  let pointingAt = $state<string | null>(null);
  const pointing = $derived(pointable.find(({ id }) => id === pointingAt) ?? null);
  let lit = $state<string | null>(null);
  let dragged = $state<string | null>(null);
  /** In the order of the setup's people; strangers last. */
  const faces = $derived.by(() => {
    const place = (personId: string | null) => {
      const at = (row?.setup.people ?? []).findIndex(({ id }) => id === personId);
      return at < 0 ? Infinity : at;
    };
    return [...judged.faces].sort((a, b) => place(a.personId) - place(b.personId) || 0);
  });
  const subjects = $derived([...(row?.setup.people ?? []), ...(row?.setup.things ?? [])]);
  const faceName = (personId: string | null, index: number) =>
    personId === null ? `Face ${index + 1}` : (subjects.find(({ id }) => id === personId)?.name ?? nameOf(personId));
  const pointedAt = (faceId: string) => frame.faces.find(({ id }) => id === faceId)?.pointed ?? null;
  const what = ({ kind, name }: Pointable) => (kind === 'eye' ? `${possessive(name)} eye` : name);

  /** Names go from face to face; what was pointed at has the one it was pointed at for. */
  const takes = (faceId: string) => dragged !== null && dragged !== faceId && pointedAt(faceId) === null;

  function drop(event: DragEvent, faceId: string) {
    event.preventDefault();
    if (dragged !== null && takes(faceId)) void app.frames.whose.swap(frame.id, dragged, faceId);
    dragged = null;
  }
</script>

<section class="min-w-0 bg-surround p-5 text-[#111]" aria-label="The photo">
  <div class="relative mx-auto w-full max-w-[52rem]" style:aspect-ratio="{frame.widthPx} / {frame.heightPx}">
    {#if picture.thumbnail !== ''}<img src={picture.thumbnail} alt={frame.file.name} class="h-full w-full" />{/if}
    <svg viewBox="0 0 {frame.widthPx} {frame.heightPx}" class="absolute inset-0 h-full w-full" aria-hidden="true">
      {#each frame.faces as face (face.id)}
        {@const apart = eyesPx(face)}
        {@const eye = face.eyes.left.ok || !face.pointed ? face.left : face.right}
        <ellipse
          cx={face.pointed ? eye.x : (face.left.x + face.right.x) / 2}
          cy={face.pointed ? eye.y : (face.left.y + face.right.y) / 2 + apart * 0.3}
          rx={face.pointed ? apart * 0.5 : apart * 1.25}
          ry={face.pointed ? apart * 0.5 : apart * 1.6}
          fill="none"
          stroke="#fff"
          stroke-width={(frame.widthPx / 600) * (lit === face.id ? 3 : 1)}
          stroke-dasharray={face.personId === null ? `${frame.widthPx / 120} ${frame.widthPx / 160}` : undefined}
        />
      {/each}
      {#if frame.sharpest && marked}
        {@const { x, y } = frame.sharpest}
        {@const side = frame.widthPx / 24}
        <rect
          x={x * frame.widthPx - side / 2}
          y={y * frame.heightPx - side / 2}
          width={side}
          height={side}
          fill="none"
          stroke="#fff"
          stroke-width={frame.widthPx / 400}
        />
      {/if}
    </svg>
    {#if pointing}
      <Pointing {frame} at={pointing} thumbnail={picture.thumbnail} onleave={() => (pointingAt = null)} />
    {/if}
  </div>
  <ul class="mx-auto mt-4 flex max-w-[52rem] flex-wrap gap-x-1.5 gap-y-4">
    {#each faces as face, index (face.faceId)}
      <li
        class="w-[108px] {pointedAt(face.faceId) ? '' : 'cursor-grab'} {dragged !== null && takes(face.faceId)
          ? 'outline-1 outline-offset-2'
          : ''}"
        draggable={pointedAt(face.faceId) === null}
        title={pointedAt(face.faceId) ? undefined : 'Drag onto another: they change names'}
        onpointerenter={() => (lit = face.faceId)}
        onpointerleave={() => (lit = null)}
        ondragstart={(event) => {
          event.dataTransfer?.setData('text/plain', faceName(face.personId, index));
          dragged = face.faceId;
        }}
        ondragend={() => (dragged = null)}
        ondragover={(event) => takes(face.faceId) && event.preventDefault()}
        ondrop={(event) => drop(event, face.faceId)}
      >
        <EyesCell {face} name={faceName(face.personId, index)} picture={picture.eyesOf(face.faceId)} />
        {#if pointedAt(face.faceId)}
          <p class="condensed mt-1 truncate text-[14px] font-semibold">{faceName(face.personId, index)}</p>
          <button
            type="button"
            class="min-h-6 text-[13px] underline"
            onclick={() => app.frames.whose.unpoint(frame.id, face.faceId)}>placed by you: undo</button
          >
        {:else}
          <Select
            placeholder=""
            size="sm"
            class="mt-1 py-1"
            aria-label="Who face {index + 1} is"
            value={face.personId ?? ''}
            onfocus={() => (lit = face.faceId)}
            onblur={() => (lit = null)}
            onchange={(event) => app.frames.whose.name(frame.id, face.faceId, event.currentTarget.value || null)}
          >
            <option value="">no one named</option>
            {#each row?.setup.people ?? [] as person (person.id)}<option value={person.id}>{person.name}</option>{/each}
          </Select>
        {/if}
      </li>
    {/each}
  </ul>
  {#if pointable.length > 0}
    <p class="mx-auto mt-3 flex max-w-[52rem] flex-wrap items-center gap-x-3 gap-y-1 text-[14px]">
      <span>Not found here; point at</span>
      {#each pointable as item (item.id)}
        <button
          type="button"
          class="min-h-6 underline"
          aria-pressed={item.id === pointingAt}
          onclick={() => (pointingAt = pointingAt === item.id ? null : item.id)}>{what(item)}</button
        >
      {/each}
    </p>
  {/if}
  <p class="condensed mx-auto mt-3 max-w-[52rem] text-[14px]">
    {[
      settingsLine(frame),
      frame.focalLengthMm === null ? '' : `${Math.round(frame.focalLengthMm)} mm`,
      clockText(app.frames.timeOf(frame)),
      place
    ]
      .filter((part) => part !== '')
      .join(' · ')}
  </p>
</section>
