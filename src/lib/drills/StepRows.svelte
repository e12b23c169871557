<script lang="ts">
  import { ladderMark } from '$core/bench/sheets';
  import { ordinal } from '$core/drills/kinds/layout';
  import type { DrillStep } from '$core/drills/series/steps';
  import { blurDiscDiameter } from '$core/optics/blur';
  import { magnification } from '$core/optics/thinLens';
  import { behindWords } from '$core/words/bench';
  import type { DrillSession } from './drillSession.svelte';
  import MarkChip from './MarkChip.svelte';

  /** Prediction and measurement facing each other, a row a step. */
  let { session }: { session: DrillSession } = $props();
  const { drill, arranged, f, match, unit, outcome, truths, revealed, nameOf, readOf, put: onput } = $derived(session);
  /** By step: where the plane was to lie elsewhere, and where it lay, mm; how blurred each object came out. */
  const turns = $derived(outcome?.turnsMm ?? session.turns);
  const offsets = $derived(outcome?.offsetsMm ?? []);
  const notes = $derived(outcome?.notes ?? []);
  const done = $derived(session.reads.length > 0);
  /** A face is looked at at 100%. */
  const full = $derived(drill.frames?.shows === 'face');
  const { width } = ladderMark(0);
  /** The blur of a thing over its mark's own width, focused on another. */
  function blurOf(step: DrillStep, depthMm: number): number {
    const aimed = arranged.things.find(({ index }) => index === step.focusOn);
    const from = step.distanceMm ?? arranged.distanceMm;
    const [s, z] = [from + (aimed?.depthMm ?? 0), from + depthMm];
    return blurDiscDiameter(f, step.fNumber, s, z) / (width * magnification(f, z));
  }
  const where = (mm: number) => behindWords(mm, unit);
  const columns = 'sm:grid-cols-[minmax(0,9rem)_15rem_minmax(0,1fr)]';
  const others = (taken: string | undefined) =>
    match.steps.flatMap(({ frame, spare }) => [...(frame ? [frame] : []), ...spare]).filter(({ id }) => id !== taken);
</script>

<div class="mt-3 hidden gap-x-4 border-b border-line pb-1 font-semibold sm:grid {columns}" aria-hidden="true">
  <span></span><span>expected</span><span>measured</span>
</div>
<ol data-testid="drill-steps" aria-label="Step by step">
  {#each match.steps as { step, frame, spare }, at (step.id)}
    {@const read = readOf(frame)}
    {@const offset = offsets[at] ?? null}
    {@const turn = turns[at] ?? null}
    <li class="grid gap-x-4 gap-y-1 border-b border-line py-2 {columns}">
      <p class="font-semibold">{nameOf(step)}</p>
      <div>
        <span class="text-[13px] text-soft sm:sr-only">expected</span>
        {#if step.turning !== null}
          <p class="tabular-nums">
            {turn === null ? '' : step.turning === 'lean' ? `by turning alone, ${where(turn)}` : where(turn)}
          </p>
        {:else}
          <div class="flex gap-1">
            {#each arranged.things as thing (thing.index)}
              <MarkChip
                index={thing.index}
                blur={blurOf(step, thing.depthMm)}
                label="The {ordinal(thing.index)} object as expected"
              />
            {/each}
          </div>
        {/if}
      </div>
      <div>
        <span class="text-[13px] text-soft sm:sr-only">measured</span>
        {#if frame && read}
          <div class="flex flex-wrap gap-1">
            {#each [...read.crops].sort((a, b) => a.index - b.index) as crop (crop.index)}
              <MarkChip
                index={crop.index}
                image={full ? crop.full : crop.image}
                {full}
                label="The {ordinal(crop.index)} object in {frame.name}{full ? ', at 100%' : ''}"
              />
            {/each}
          </div>
          <p class="mt-1 flex flex-wrap items-center gap-x-3 gap-y-1 text-[14px]">
            {#if offset !== null}<span class="font-semibold tabular-nums">{where(offset)}</span>{/if}
            {#if notes[at]}<span class="font-semibold tabular-nums">{notes[at]}</span>{/if}
            {#if revealed && truths[at]}<span class="text-soft tabular-nums">really {truths[at]}</span>{/if}
            <label class="text-soft">
              <span class="sr-only">Frame for {nameOf(step)}</span>
              <select
                class="max-w-48 border border-line bg-raised py-0.5 text-[13px]"
                value={frame.id}
                onchange={(event) => {
                  const to = event.currentTarget.value;
                  onput(frame.id, '');
                  if (to !== '') onput(to, step.id);
                }}
              >
                <option value={frame.id}>{frame.name}</option>
                {#each others(frame.id) as other (other.id)}<option value={other.id}>{other.name}</option>{/each}
                <option value="">none of these</option>
              </select>
            </label>
            {#if spare.length > 0}
              <span class="text-soft">{spare.length === 1 ? 'one spare' : `${spare.length} spare`}</span>
            {/if}
          </p>
        {:else}
          <p class="grid h-[46px] w-[230px] place-items-center border border-dashed border-line text-soft">
            {done ? 'shoot it again' : 'still to shoot'}
          </p>
        {/if}
      </div>
    </li>
  {/each}
</ol>
