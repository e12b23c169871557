<script lang="ts">
  import { Checkbox } from 'flowbite-svelte';
  import type { Plan } from '$core/call/plan';
  import type { Check } from '$core/technique/checks';
  import { checkWords } from '$core/words/checks';
  import { getApp } from '$lib/state/app.svelte';

  interface Props {
    plan: Plan;
    checks: readonly Check[];
    /** Keys of those done. */
    ticked: readonly string[];
    onchange: (ticked: readonly string[]) => unknown;
    /** Larger, for a thumb. */
    thumb?: boolean;
  }
  let { plan, checks, ticked, onchange, thumb = false }: Props = $props();
  const app = getApp();
  const lines = $derived(checks.map((check) => checkWords(plan, check, app.settings.now.unit)));
  function toggle(key: string) {
    // What no longer applies is forgotten.
    const still = ticked.filter((item) => lines.some((line) => line.key === item));
    onchange(still.includes(key) ? still.filter((item) => item !== key) : [...still, key]);
  }
</script>

<ul data-testid="checks">
  {#each lines as line (line.key)}
    {@const done = ticked.includes(line.key)}
    <li class="border-b border-line">
      <Checkbox
        checked={done}
        onchange={() => toggle(line.key)}
        class={thumb ? 'size-9 shrink-0 border-[7px]' : 'shrink-0'}
        classes={{ div: thumb ? 'min-h-12 py-1' : 'py-1' }}
      >
        <span
          class="min-w-0 whitespace-normal text-pretty text-ink {thumb ? 'text-[17px] leading-tight' : 'text-[13px]'}"
        >
          <span class="font-medium {done ? 'text-soft line-through' : ''}">{line.what}</span>
          <span class="condensed block text-soft">{line.because}</span>
        </span>
      </Checkbox>
    </li>
  {/each}
</ul>
