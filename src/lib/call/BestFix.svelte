<script lang="ts">
  import { Button } from 'flowbite-svelte';
  import { remedyWords } from '$core/words/remedies';
  import { getWorkspace } from '$lib/state/screen/workspace.svelte';

  /** The fix of least effort, with one button; the Fixes tab has the others. */
  const workspace = getWorkspace();
  $effect(() => {
    // Asked again whenever what it depends on changes.
    void workspace.question;
    workspace.fixes.ask();
  });
  const fixes = $derived(workspace.fixes.answer);
  const best = $derived(fixes?.found.remedies[0]);
  const words = $derived(best ? remedyWords(best, workspace.unit) : null);
</script>

{#if best && words}
  <div class="mt-2 flex items-center gap-3" class:opacity-60={!workspace.fixes.isCurrent} data-testid="best-fix">
    <p class="min-w-0 text-pretty">
      <span class="font-semibold">{words.what}</span>:
      <span class="text-soft">{words.effect}.{words.caution === '' ? '' : ` ${words.caution}`}</span>
    </p>
    <Button
      color="alternative"
      onclick={() => fixes && workspace.takeOver(words.what, { asked: fixes.to.setup, setup: best.setup })}
      >Apply</Button
    >
  </div>
{/if}
