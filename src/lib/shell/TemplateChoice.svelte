<script lang="ts">
  import { Button } from 'flowbite-svelte';
  import { ArrowLeft } from '@lucide/svelte';
  import { usualFor } from '$core/setup/intents';
  import { framings, type Framing, type Wish } from '$core/setup/schema';
  import {
    secondChoice,
    secondOptions,
    templates,
    templateWords,
    type Template,
    type TemplateChoices
  } from '$core/setup/templates';
  import Choice from '$lib/controls/Choice.svelte';
  import { framingWords, sharpSubjectChoices, wishChoices } from '$lib/inspector/words';

  /** A setup in three choices: what it is, how much or how many, and what the background does. */
  let { onchoose }: { onchoose: (choices: TemplateChoices) => void } = $props();
  let template = $state<Template | null>(null);
  let second = $state('');
  let wish = $state<Wish>('hide');

  const legends = { framing: 'How much of them', count: 'How many', sharp: 'Sharp is' } as const;

  function choose(chosen: Template) {
    template = chosen;
    second = String(secondChoice[chosen].usual);
    wish = usualFor[templateWords[chosen].picture].wish;
  }
  function nameOf(value: string): string {
    const framing = framings.find((item) => item === value);
    if (framing) return framingWords[framing];
    return sharpSubjectChoices.find((item) => item.value === value)?.name ?? value;
  }
  function plan() {
    if (!template) return;
    const chosen = secondOptions(template).find((item) => String(item) === second);
    onchoose({ template, wish, ...(chosen === undefined ? {} : { second: chosen as Framing | number }) });
  }
</script>

{#if template}
  {@const options = secondOptions(template).map((value) => ({ value: String(value), name: nameOf(String(value)) }))}
  <div class="space-y-4">
    <button type="button" class="flex items-center gap-1.5 text-soft" onclick={() => (template = null)}>
      <ArrowLeft size={15} aria-hidden="true" />Something else
    </button>
    <p class="condensed text-[22px] font-bold">{templateWords[template].title}</p>
    <Choice
      legend={legends[secondChoice[template].kind]}
      {options}
      value={second}
      onchange={(value) => (second = value)}
      wrap
    />
    <Choice
      legend="The background should"
      options={wishChoices}
      value={wish}
      onchange={(value) => (wish = value)}
      wrap
    />
    <Button onclick={plan}>Plan it</Button>
  </div>
{:else}
  <ul class="divide-y divide-line border-y border-line">
    {#each templates as item (item)}
      <li>
        <button type="button" class="group w-full py-2.5 text-left" onclick={() => choose(item)}>
          <span class="condensed block text-[17px] font-semibold group-hover:text-pencil"
            >{templateWords[item].title}</span
          >
          <span class="text-soft">{templateWords[item].detail}</span>
        </button>
      </li>
    {/each}
  </ul>
{/if}
