<script lang="ts">
  import { conflictSentences, noPlanWords, targetWords } from '$core/words/call';
  import { differentWords } from '$core/words/field';
  import type { SetupRow } from '$lib/state/job/openJob.svelte';
  import { getApp } from '$lib/state/app.svelte';
  import CardFacts from './CardFacts.svelte';
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
  const different = $derived(differentWords(row.setup, app.open.kit, row.setup.taken.different, unit));
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
      <CardFacts setup={row.setup} {plan} {entry} />
      <div class="mt-1 space-y-1 text-[16px] leading-snug">
        {#if conflict}<p class="border-l-4 border-pencil pl-2 font-medium">{conflict.wishes}</p>{/if}
        {#if different !== 'as planned'}<p class="font-medium">As shot: {different}.</p>{/if}
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
