<script lang="ts">
  import type { Plan } from '$core/call/plan';
  import type { PointAdvice, PointFit } from '$core/technique/point';
  import { oddsWords } from '$core/words/call';
  import { pointFitWords, pointOffWords, pointSizeWords } from '$core/words/technique';
  import { pointBox } from '$core/setup/focusArea';
  import { getWorkspace } from '$lib/state/screen/workspace.svelte';

  /** The point against the face: where it lies, which size to set, which grid. */
  let { plan, advice }: { plan: Plan; advice: PointAdvice } = $props();
  const workspace = getWorkspace();
  const camera = $derived(workspace.setup.camera);
  const set = (size: PointFit['size']) => workspace.edit('Point size', (draft) => void (draft.camera.pointSize = size));
  function look(size: PointFit['size']) {
    const { body } = workspace;
    if (!body) return;
    const area = pointBox({ body, camera }, advice.point, size);
    workspace.looked = { area, planes: [], setup: null, name: `${pointSizeWords[size]} point` };
  }
  const leave = () => workspace.lookAway();
</script>

<p class="mt-1.5 text-pretty">{pointOffWords(advice, workspace.unit)}</p>
{#if advice.sizes.length > 1}
  <ul class="mt-1" data-testid="point-sizes">
    {#each advice.sizes as fit, index (fit.size)}
      <li>
        <button
          type="button"
          class="grid min-h-6 w-full grid-cols-[6.5rem_minmax(0,1fr)_auto] items-baseline gap-x-3 py-0.5 text-left hover:text-pencil"
          aria-pressed={fit.size === camera.pointSize}
          onclick={() => set(fit.size)}
          onpointerenter={() => look(fit.size)}
          onpointerleave={leave}
          onfocus={() => look(fit.size)}
          onblur={leave}
        >
          <span class={fit.size === camera.pointSize ? 'font-bold' : 'font-medium'}
            >{pointSizeWords[fit.size]}{index === advice.best ? ', best' : ''}</span
          >
          <span class="condensed text-pretty text-soft">{pointFitWords(plan, fit, workspace.unit)}</span>
          <span class="condensed tabular-nums">{oddsWords(fit.odds)}</span>
        </button>
      </li>
    {/each}
  </ul>
{:else if advice.sizes[0]}
  <p class="text-soft">{pointFitWords(plan, advice.sizes[0], workspace.unit)}.</p>
{/if}
{#if advice.fineGrid !== camera.fineGrid}
  <p class="mt-1">
    {advice.fineGrid
      ? 'Everyone is still: the fine grid places the point more precisely.'
      : 'Someone moves: the coarse grid is faster.'}
    <button
      type="button"
      class="min-h-6 font-medium underline underline-offset-2 hover:text-pencil"
      onclick={() => workspace.edit('AF point grid', (draft) => void (draft.camera.fineGrid = advice.fineGrid))}
      >Use the {advice.fineGrid ? 'fine' : 'coarse'} grid</button
    >
  </p>
{/if}
