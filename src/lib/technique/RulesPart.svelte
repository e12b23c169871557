<script lang="ts">
  import { Button } from 'flowbite-svelte';
  import type { Plan } from '$core/call/plan';
  import type { Ruled } from '$core/technique/rules';
  import { oddsWords } from '$core/words/call';
  import { ruleName, ruleWords } from '$core/words/technique';
  import { getWorkspace } from '$lib/state/workspace.svelte';

  /** Rules of thumb, each with what it would have given here. */
  let { plan, rules, ontake }: { plan: Plan; rules: readonly Ruled[]; ontake: (rule: Ruled) => unknown } = $props();
  const workspace = getWorkspace();
  const call = $derived(plan.stops[plan.selected]?.odds ?? 0);
  const look = (rule: Ruled) => () => {
    workspace.looked = {
      area: null,
      planes: [{ depth: rule.planeMm, chance: 1 }],
      setup: rule.setup,
      name: ruleName(rule)
    };
  };
  const leave = () => void (workspace.looked = null);
</script>

<ul data-testid="rules">
  {#each rules as rule (rule.rule)}
    <li
      class="grid grid-cols-[minmax(0,1fr)_auto_4.5rem] items-center gap-x-3 border-b border-line py-1.5"
      onpointerenter={look(rule)}
      onpointerleave={leave}
      onfocusin={look(rule)}
      onfocusout={leave}
    >
      <p class="min-w-0 text-pretty">
        <span class={rule.inUse ? 'font-bold' : 'font-medium'}>{ruleName(rule)}</span>
        <span class="condensed text-soft">{ruleWords(plan, rule, workspace.unit)}</span>
      </p>
      <span class="condensed text-right tabular-nums {rule.odds < call - 0.1 ? 'text-soft' : 'font-semibold'}"
        >{oddsWords(rule.odds)}</span
      >
      {#if rule.inUse}
        <span class="justify-self-start border-b-2 border-pencil font-semibold">In use</span>
      {:else}
        <Button
          size="xs"
          color="alternative"
          class="justify-self-start"
          aria-label="Take: {ruleName(rule)}"
          onclick={() => ontake(rule)}>Take</Button
        >
      {/if}
    </li>
  {/each}
</ul>
