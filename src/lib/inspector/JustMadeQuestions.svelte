<script lang="ts">
  import { framings, type Framing, type Wish } from '$core/setup/schema';
  import type { SharpSubject } from '$core/setup/intents';
  import Choice from '$lib/controls/Choice.svelte';
  import type { JustMade } from '$lib/state/screen/justMade.svelte';
  import { framingWords, sharpSubjectChoices, wishChoices } from './words';

  /** What is asked of a picture once it has an answer: how many, how much of them, what is sharp, and the background. */
  let { made }: { made: JustMade } = $props();
  const question = $derived(made.question);
  const framingChoices = framings.map((value) => ({ value, name: framingWords[value] }));
</script>

{#if made.now}
  {@const { second, wish } = made.now}
  <section class="flex flex-wrap gap-x-5 gap-y-2 border-l-2 border-pencil pl-3" aria-label="Asked of a new setup">
    {#if question.kind === 'count'}
      <Choice
        legend="How many?"
        value={String(second)}
        options={question.options.map((count) => ({ value: String(count), name: String(count) }))}
        onchange={(count) => made.answer(`${count} people`, { second: Number(count) })}
      />
    {:else if question.kind === 'framing'}
      <Choice
        legend="Framing?"
        value={second as Framing}
        options={framingChoices}
        onchange={(framing) => made.answer('Framing', { second: framing })}
        wrap
      />
    {:else}
      <Choice
        legend="What should be sharp?"
        value={second as SharpSubject}
        options={sharpSubjectChoices}
        onchange={(subject) => made.answer('Who is sharp', { second: subject })}
        wrap
      />
    {/if}
    <Choice
      legend="What should the background do?"
      value={wish}
      options={wishChoices}
      onchange={(wanted: Wish) => made.answer('What the background does', { wish: wanted })}
      wrap
    />
  </section>
{/if}
