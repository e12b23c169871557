<script lang="ts">
  import { ChevronLeft, ChevronRight, Pencil, Printer } from '@lucide/svelte';
  import { conflictSentences, noPlanWords, targetWords, backgroundSentence } from '$core/words/call';
  import { cardLines } from '$core/words/card';
  import { stitchSteps } from '$core/words/stitching';
  import { roundOf } from '$lib/finder/asking';
  import { checkWords, tickedOf } from '$core/words/checks';
  import { checksOf } from '$core/technique/checks';
  import CheckList from '$lib/technique/CheckList.svelte';
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
  const checks = $derived(plan ? checksOf(app.open.input(row.setup), plan) : []);
  const steps = $derived.by(() => {
    const { body } = planned;
    const round = plan && body ? roundOf({ setup: row.setup, plan, body }) : null;
    return round ? stitchSteps(round, unit) : [];
  });
  const done = $derived(
    plan
      ? tickedOf(
          checks.map((check) => checkWords(plan, check, unit)),
          row.setup.ticked
        )
      : 0
  );
  const tick = (ticked: readonly string[]) =>
    app.open.edit(row.id, 'Checked', (draft) => void (draft.ticked = [...ticked]));
  const neighbours = $derived([
    { row: rows[index - 1], name: 'before', icon: ChevronLeft },
    { row: rows[index + 1], name: 'after', icon: ChevronRight }
  ]);
  // The sheet it is printed on, as long as the card is what is looked at.
  $effect(() => {
    const sheet = new CSSStyleSheet();
    sheet.replaceSync('@page { size: 105mm 148mm; margin: 5mm } @media print { html { background: #fff } }');
    document.adoptedStyleSheets.push(sheet);
    return () => {
      document.adoptedStyleSheets = document.adoptedStyleSheets.filter((item) => item !== sheet);
    };
  });
  let width = $state(390);
  let finderHeight = $state(200);
</script>

<div
  class="printed-card mx-auto flex min-h-dvh max-w-md flex-col bg-surface text-ink print:bg-white print:text-black"
  bind:clientWidth={width}
>
  <header class="flex items-center justify-between gap-2 border-b-2 border-ink pr-1 pl-4">
    <p class="condensed min-w-0 truncate py-3 text-[18px] font-semibold">{index + 1}. {row.setup.name}</p>
    <div class="flex shrink-0 print:hidden">
      <button
        type="button"
        class="grid size-11 place-items-center"
        aria-label="Print this card"
        onclick={() => print()}
      >
        <Printer size={20} aria-hidden="true" />
      </button>
      <a href="/setup/{row.id}" class="grid size-11 place-items-center" aria-label="Edit this setup"
        ><Pencil size={20} aria-hidden="true" /></a
      >
    </div>
  </header>
  <main class="flex flex-1 flex-col px-4 pt-3">
    {#if plan && entry}
      <h1 data-testid="card-call">
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
      {#if steps.length > 0}
        <details class="mt-3 border-t-2 border-ink print:hidden" data-testid="card-steps">
          <summary class="min-h-11 py-2.5 text-[17px] font-semibold">The round, step by step</summary>
          <ol class="list-decimal space-y-2 pb-2 pl-6 text-[17px] leading-snug">
            {#each steps as step (step)}<li class="text-pretty">{step}</li>{/each}
          </ol>
        </details>
      {/if}
      {#if checks.length > 0}
        <details class="mt-3 border-t-2 border-ink print:hidden">
          <summary class="min-h-11 py-2.5 text-[17px] font-semibold"
            >Checks, {done === 0 ? checks.length : `${done} of ${checks.length} done`}</summary
          >
          <CheckList {plan} {checks} ticked={row.setup.ticked} onchange={tick} thumb />
        </details>
      {/if}
      <div class="relative mt-3 min-h-44 flex-1 bg-surround print:mb-0 print:min-h-40" bind:clientHeight={finderHeight}>
        <div class="absolute inset-0 grid place-items-center overflow-hidden">
          {#if planned.body && planned.lens}
            <CardPicture
              {row}
              {plan}
              body={planned.body}
              lens={planned.lens}
              width={width - 32}
              height={finderHeight}
            />
          {/if}
        </div>
      </div>
    {:else if result.kind === 'noPlan'}
      {@const words = noPlanWords(result.reason, unit)}
      <h1 class="condensed mt-6 text-[34px] leading-tight font-bold">{words.title}</h1>
      <p class="mt-3 text-[19px]">{words.advice}</p>
    {/if}
  </main>
  <nav aria-label="Setups" class="grid grid-cols-2 gap-2 p-4 print:hidden">
    {#each neighbours as item (item.name)}
      {#if item.row}
        <a
          href="/card/{item.row.id}"
          class="flex h-12 min-w-0 items-center justify-center gap-1 border-2 border-ink px-2 text-[16px] font-semibold"
        >
          {#if item.name === 'before'}<item.icon size={20} class="shrink-0" aria-hidden="true" />{/if}
          <span class="condensed truncate">{item.row.setup.name}</span>
          {#if item.name === 'after'}<item.icon size={20} class="shrink-0" aria-hidden="true" />{/if}
        </a>
      {:else}<span></span>{/if}
    {/each}
  </nav>
</div>
