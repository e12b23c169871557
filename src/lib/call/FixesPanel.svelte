<script lang="ts">
  import HowComputed from '$lib/controls/HowComputed.svelte';
  import { Button, Checkbox } from 'flowbite-svelte';
  import type { Combination, Remedy } from '$core/call/remedies/remedy';
  import type { Setup } from '$core/setup/schema';
  import { oddsWords } from '$core/words/call';
  import { combinationWords, remedyWords, type RemedyWords } from '$core/words/remedies';
  import Failed from '$lib/controls/Failed.svelte';
  import Older from '$lib/controls/Older.svelte';
  import Progress from '$lib/controls/Progress.svelte';
  import { combine } from '../../workers/clients/planner';
  import { getWorkspace } from '$lib/state/screen/workspace.svelte';

  const workspace = getWorkspace();
  $effect(() => {
    void workspace.question;
    workspace.fixes.ask();
  });
  $effect(() => () => void (workspace.preview = null));
  const answer = $derived(workspace.fixes.answer);
  const fixes = $derived(answer?.found ?? null);
  const { search } = $derived(workspace.fixes);
  const older = $derived(answer !== null && !workspace.fixes.isCurrent);

  let picked = $state.raw<readonly Remedy[]>([]);
  let together = $state.raw<{
    readonly for: Setup;
    readonly result: Combination | null;
    readonly failure: string | null;
  } | null>(null);
  $effect(() => {
    // Picks belong to one list of fixes.
    void fixes;
    picked = [];
    together = null;
  });

  interface Line {
    readonly key: string;
    readonly words: RemedyWords;
    readonly setup: Setup;
    readonly odds: number;
    readonly remedy: Remedy | null;
  }
  const lines = $derived.by((): Line[] => [
    ...(fixes?.remedies ?? []).map((remedy) => ({
      key: `${remedy.kind}-${remedy.subject}`,
      words: remedyWords(remedy, workspace.unit),
      setup: remedy.setup,
      odds: remedy.opens.odds,
      remedy
    })),
    ...(fixes?.combinations ?? []).map((pair) => ({
      key: pair.parts.map((part) => `${part.kind}-${part.subject}`).join('+'),
      words: combinationWords(pair, workspace.unit),
      setup: pair.setup,
      odds: pair.opens.odds,
      remedy: null
    }))
  ]);

  function pick(remedy: Remedy) {
    picked = picked.includes(remedy) ? picked.filter((item) => item !== remedy) : [...picked, remedy];
    void workOut();
  }
  async function workOut() {
    together = null;
    if (picked.length < 2) return;
    const asked = picked;
    const { setup, question } = workspace;
    try {
      const result = await combine(question, asked);
      if (picked === asked) together = { for: setup, result: result ?? null, failure: null };
    } catch (error) {
      const failure = error instanceof Error ? error.message : String(error);
      if (picked === asked) together = { for: setup, result: null, failure };
    }
  }
  const combined = $derived(together?.for === workspace.setup ? together : null);
  const combinedWords = $derived(combined?.result ? combinationWords(combined.result, workspace.unit) : null);
  const show = (setup: Setup | null) => () => void (workspace.preview = setup);
</script>

{#if !workspace.plan}
  <p class="text-soft">Add a person to see fixes.</p>
{:else if !workspace.plan.conflict}
  <p>Every goal is met. Nothing to fix.</p>
{:else if fixes === null}
  {#if search.failure}
    <Failed what="The fixes could not be worked out." why={search.failure} onretry={() => workspace.fixes.ask()} />
  {:else if search.slow}
    <Progress label="Looking for the smallest change that works" share={search.progress} />
  {/if}
{:else if lines.length === 0}
  <p>
    No change, or pair of changes, works in this space. Relax one goal in Intent or Background, or add room in Camera.
  </p>
{:else}
  {#if search.failure}
    <Failed
      what="The fixes could not be worked out again."
      why={search.failure}
      onretry={() => workspace.fixes.ask()}
    />
  {:else if older}<Older slow={search.slow} />{/if}
  <ol class:opacity-60={older} class="border-t border-line" data-testid="fixes">
    {#each lines as line (line.key)}
      <li
        class="flex items-center gap-2.5 border-b border-line py-1.5"
        onpointerenter={show(line.setup)}
        onpointerleave={show(null)}
        onfocusin={show(line.setup)}
        onfocusout={show(null)}
      >
        {#if line.remedy && fixes.remedies.length > 1}
          {@const { remedy } = line}
          <Checkbox
            checked={picked.includes(remedy)}
            onchange={() => pick(remedy)}
            aria-label="Combine: {line.words.what}"
          />
        {/if}
        <p class="min-w-0 flex-1 text-pretty">
          <span class="font-semibold">{line.words.what}</span>
          {#if line.words.caution !== ''}<span class="label block">{line.words.caution}</span>{/if}
        </p>
        <span class="condensed max-w-[60%] text-right text-pretty text-soft">
          {line.words.effect}, {oddsWords(line.odds)}
        </span>
        <Button
          size="xs"
          color="alternative"
          aria-label="Apply: {line.words.what}"
          onclick={() => answer && workspace.takeOver(line.words.what, { asked: answer.to.setup, setup: line.setup })}
          >Apply</Button
        >
      </li>
    {/each}
  </ol>
  {#if picked.length >= 2}
    <div class="mt-2 flex items-center gap-3" data-testid="combined-fix">
      {#if combined?.result && combinedWords}
        {@const { setup } = combined.result}
        <p class="min-w-0 flex-1 text-pretty" onpointerenter={show(setup)} onpointerleave={show(null)}>
          Together, less of each: <span class="font-semibold">{combinedWords.what}</span>
          <span class="text-soft">{combinedWords.effect}.</span>
        </p>
        <Button
          size="xs"
          color="alternative"
          onclick={() => workspace.takeOver(combinedWords.what, { asked: combined.for, setup })}
        >
          Apply all
        </Button>
      {:else if combined?.failure}
        <Failed what="That could not be worked out." why={combined.failure} onretry={workOut} />
      {:else if combined}
        <p class="text-soft">These cancel each other out.</p>
      {:else}
        <p class="text-soft">Working out how little of each is enough.</p>
      {/if}
    </div>
  {:else if fixes.remedies.length > 1}
    <p class="label mt-2">Tick two or more to combine them, with less of each.<HowComputed of="fixes" /></p>
  {/if}
{/if}
