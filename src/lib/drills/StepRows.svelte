<script lang="ts">
  import type { Arranged, DrillStep } from '$core/drills/definitions';
  import type { DrillId } from '$core/drills/ids';
  import type { SeriesMatch } from '$core/drills/match';
  import type { FrameRead } from '$core/drills/series';
  import type { ThingRead } from '$core/drills/verdicts';
  import { ladderMark } from '$core/bench/sheets';
  import { blurDiscDiameter } from '$core/optics/blur';
  import { magnification } from '$core/optics/thinLens';
  import { behindWords } from '$core/words/bench';
  import { ordinal } from '$core/words/drills';
  import type { LengthUnit } from '$core/units/length';
  import type { MarksRead } from '../../workers/bench.worker';
  import MarkChip from './MarkChip.svelte';

  interface Props {
    drill: DrillId;
    arranged: Arranged;
    f: number;
    match: SeriesMatch;
    readOf: (frame: FrameRead | null) => Extract<MarksRead, { kind: 'measured' }> | null;
    nameOf: (step: DrillStep) => string;
    unit: LengthUnit;
    /** By step, mm behind what was focused on. */
    offsets: readonly (number | null)[];
    /** By step: how blurred each thing came out, and how it should have. */
    things: readonly (readonly ThingRead[])[];
    /** By step, mm, where the plane was to lie elsewhere. */
    expected: readonly (number | null)[];
    /** Frames have been taken in. */
    done: boolean;
    /** By step: what else was measured; empty for nothing. */
    notes?: readonly string[];
    /** By step: what was really so, where the simulated camera took it and it is to be seen. */
    truths?: readonly string[];
    onput: (frameId: string, stepId: string) => unknown;
  }
  /** Prediction and measurement facing each other, a row a step. */
  let {
    drill,
    arranged,
    f,
    match,
    readOf,
    nameOf,
    unit,
    offsets,
    things,
    expected,
    done,
    notes = [],
    truths = [],
    onput
  }: Props = $props();
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
    {@const turn = expected[at] ?? null}
    <li class="grid gap-x-4 gap-y-1 border-b border-line py-2 {columns}">
      <p class="font-semibold">{nameOf(step)}</p>
      <div>
        <span class="text-[13px] text-soft sm:sr-only">expected</span>
        {#if drill === 'edges' && step.turning !== null}
          <p class="tabular-nums">
            {turn === null ? '' : step.turning === 'lean' ? `by turning alone, ${where(turn)}` : where(turn)}
          </p>
        {:else}
          <div class="flex gap-1">
            {#each arranged.things as thing (thing.index)}
              <MarkChip
                index={thing.index}
                blur={blurOf(step, thing.depthMm)}
                label="The {ordinal(thing.index)} thing as expected"
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
                image={drill === 'eyeNose' ? crop.full : crop.image}
                full={drill === 'eyeNose'}
                label="The {ordinal(crop.index)} thing in {frame.name}{drill === 'eyeNose' ? ', at 100 %' : ''}"
              />
            {/each}
          </div>
          {#if (things[at] ?? []).length > 0}
            <p class="mt-1 text-[13px] text-soft tabular-nums">
              blurred by {(things[at] ?? [])
                .map(({ discMm }) => (discMm === null ? '–' : Math.round(1000 * discMm)))
                .join(', ')} µm, by theory {(things[at] ?? [])
                .map(({ expectedMm }) => Math.round(1000 * expectedMm))
                .join(', ')}
            </p>
          {/if}
          <p class="mt-1 flex flex-wrap items-center gap-x-3 gap-y-1 text-[14px]">
            {#if offset !== null}<span class="font-semibold tabular-nums">{where(offset)}</span>{/if}
            {#if notes[at]}<span class="font-semibold tabular-nums">{notes[at]}</span>{/if}
            {#if truths[at]}<span class="text-soft tabular-nums">really {truths[at]}</span>{/if}
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
            {done ? 'take it again' : 'still to take'}
          </p>
        {/if}
      </div>
    </li>
  {/each}
</ol>
