<script lang="ts">
  import type { Plan } from '$core/call/plan';
  import type { Ruled } from '$core/technique/rules';
  import { ruleName, ruleWords } from '$core/words/technique';
  import { getWorkspace } from '$lib/state/screen/workspace.svelte';
  import TakeRow from './TakeRow.svelte';

  /** Rules of thumb, each with what it would have given here. */
  let { plan, rules, ontake }: { plan: Plan; rules: readonly Ruled[]; ontake: (rule: Ruled) => unknown } = $props();
  const workspace = getWorkspace();
  const call = $derived(plan.stops[plan.selected]?.odds ?? 0);
</script>

<ul data-testid="rules">
  {#each rules as rule (rule.rule)}
    <TakeRow
      name={ruleName(rule)}
      more={ruleWords(plan, rule, workspace.unit)}
      odds={rule.odds}
      inUse={rule.inUse}
      faint={rule.odds < call - 0.1}
      ontake={() => ontake(rule)}
      onlook={() => workspace.lookAt(ruleName(rule), rule.setup, [rule.planeMm], rule.stop)}
      onleave={() => workspace.lookAway()}
    />
  {/each}
</ul>
