<script lang="ts">
  import { conflictSentences, noPlanWords, targetWords, backgroundSentence } from '$core/words/call';
  import { cardLines } from '$core/words/card';
  import type { SetupRow } from '$lib/state/openJob.svelte';
  import { getApp } from '$lib/state/app.svelte';
  import CardPicture from './CardPicture.svelte';

  let { row }: { row: SetupRow } = $props();
  const app = getApp();
  const unit = $derived(app.settings.now.unit);
  const rows = $derived(app.open.rows);
  const index = $derived(rows.findIndex((item) => item.id === row.id));
  const planned = $derived(app.open.planned(row.setup));
  const result = $derived(planned.plan);
  const plan = $derived(result.kind === 'plan' ? result : null);
  const entry = $derived(plan?.stops[plan.selected] ?? null);
  const conflict = $derived(plan ? conflictSentences(plan) : null);
  // The sheet it is printed on, as long as the card is what is looked at.
  $effect(() => {
    const sheet = new CSSStyleSheet();
    sheet.replaceSync('@page { size: 105mm 148mm; margin: 5mm } @media print { html { background: #fff } }');
    document.adoptedStyleSheets.push(sheet);
    return () => {
      document.adoptedStyleSheets = document.adoptedStyleSheets.filter((item) => item !== sheet);
    };
  });
  const width = 390;
  const pictureHeight = 200;
</script>

<div class="printed-card mx-auto hidden max-w-md flex-col bg-white text-black print:flex print:min-h-dvh">
  <header class="flex items-center justify-between gap-2 border-b-2 border-ink pr-1 pl-4">
    <p class="condensed min-w-0 truncate py-3 text-[18px] font-semibold">{index + 1}. {row.setup.name}</p>
  </header>
  <div class="flex flex-1 flex-col px-4 pt-3">
    {#if plan && entry}
      <h1>
        <span class="condensed-more block text-[104px] leading-[0.86] font-bold tracking-tight"
          >f/{entry.stop.label}</span
        >
        <span class="condensed mt-3 block text-[31px] leading-[1.08] font-bold text-balance"
          >{targetWords(plan, entry, unit)}</span
        >
      </h1>
      <dl class="mt-3 border-t-2 border-ink text-[17px]">
        {#each cardLines(plan, entry, unit, row.setup) as line (line.name)}
          <div class="flex items-baseline gap-3 border-b border-line py-1">
            <dt class="w-16 text-soft">{line.name}</dt>
            <dd class="condensed text-[25px] leading-tight font-bold">{line.value}</dd>
            <dd class="ml-auto text-right text-soft">{line.more}</dd>
          </div>
        {/each}
      </dl>
      <div class="mt-2 space-y-1 text-[16px] leading-snug">
        {#if conflict}<p class="border-l-4 border-pencil pl-2 font-medium">{conflict.wishes}</p>{/if}
        {#each plan.backgrounds as background, position (background.id)}
          <p>{backgroundSentence(plan, position, entry, unit)}</p>
        {/each}
        {#if row.setup.notes !== '' && !conflict}<p class="text-soft">{row.setup.notes}</p>{/if}
      </div>
      <div class="relative mt-3 min-h-44 flex-1 bg-surround print:mb-0 print:min-h-40">
        <div class="absolute inset-0 grid place-items-center overflow-hidden">
          {#if planned.body && planned.lens}
            <CardPicture
              {row}
              {plan}
              body={planned.body}
              lens={planned.lens}
              width={width - 32}
              height={pictureHeight}
            />
          {/if}
        </div>
      </div>
    {:else if result.kind === 'noPlan'}
      {@const words = noPlanWords(result.reason, unit)}
      <h1 class="condensed mt-6 text-[34px] leading-tight font-bold">{words.title}</h1>
      <p class="mt-3 text-[19px]">{words.advice}</p>
    {/if}
  </div>
</div>
