<script lang="ts">
  import type { Plan } from '$core/call/plan';
  import type { Recomposing } from '$core/technique/recomposing';
  import { recomposeAdvice } from '$core/words/technique';
  import { landedWords } from '$core/words/ways';
  import { formatLength } from '$core/units/length';
  import { oddsWords } from '$core/words/call';
  import { withCamera } from '$core/setup/moves';
  import { getWorkspace } from '$lib/state/screen/workspace.svelte';

  /** Move the point, or focus in the middle and turn: what each costs here. */
  let { plan, found }: { plan: Plan; found: Recomposing } = $props();
  const workspace = getWorkspace();
  const choices = $derived([
    { value: 'none' as const, name: 'Move the AF point', odds: found.moved, planeMm: 0 },
    ...found.byPivot
      .filter(({ pivot }) => pivot === 'wrists')
      .map(({ pivot, odds, planeMm }) => ({
        value: pivot,
        name: 'Focus and recompose, from the wrists',
        odds,
        planeMm
      })),
    {
      value: 'leaning' as const,
      name: 'Centre point, lean',
      odds: found.leaning.odds,
      planeMm: found.leaning.planeMm
    }
  ]);
  const leave = () => workspace.lookAway();
</script>

<ul class="mt-1" data-testid="recompose">
  {#each choices as choice (choice.value)}
    {@const current = workspace.setup.camera.recompose === choice.value}
    {@const look = () => {
      const setup = withCamera(workspace.setup, { recompose: choice.value });
      workspace.lookAt(choice.name, setup, choice.planeMm === 0 ? [] : [choice.planeMm]);
    }}
    <li>
      <button
        type="button"
        class="flex min-h-6 w-full items-baseline gap-3 py-0.5 text-left hover:text-pencil"
        aria-pressed={current}
        onclick={() => workspace.edit('Recomposing', (draft) => void (draft.camera.recompose = choice.value))}
        onpointerenter={look}
        onpointerleave={leave}
        onfocus={look}
        onblur={leave}
      >
        <span class={current ? 'font-bold' : 'font-medium'}>{choice.name}</span>
        <span class="condensed ml-auto tabular-nums">{oddsWords(choice.odds)}</span>
      </button>
    </li>
  {/each}
</ul>
{#each recomposeAdvice(found, workspace.unit) as line (line)}<p class="mt-1 text-pretty">{line}</p>{/each}
{#if found.refocus}
  <p class="mt-1 text-pretty">
    If you let go of the shutter button, AF refocuses on whatever is then in the centre: {landedWords(
      plan,
      found.refocus
    )},
    {formatLength(found.refocus.depth, workspace.unit)} away.
  </p>
{/if}
