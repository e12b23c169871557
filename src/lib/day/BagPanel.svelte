<script lang="ts">
  import HowComputed from '$lib/controls/HowComputed.svelte';
  import { Button, Checkbox } from 'flowbite-svelte';
  import { untrack } from 'svelte';
  import { fallWithout, forcedBy } from '$core/day/bag';
  import type { BagAnswer, BagQuestion } from '$core/day/findBag';
  import { numbersWords } from '$core/words/day';
  import Failed from '$lib/controls/Failed.svelte';
  import Progress from '$lib/controls/Progress.svelte';
  import TextField from '$lib/controls/TextField.svelte';
  import { getApp } from '$lib/state/app.svelte';
  import { requestBag } from '../../workers/clients/planner';
  import { Search } from '$lib/state/screen/search.svelte';

  /** What to take along, why, and ticks for what is packed. */
  const app = getApp();
  const search = new Search<BagQuestion, BagAnswer>(requestBag);
  /** Longer days are searched when asked. */
  const byItselfUpTo = 30;
  /** What rests for so long is searched for anew. */
  const restMs = 600;
  const inputs = $derived(app.open.rows.map((row) => app.open.input(row.setup)));
  /** All that the bag rests on: what is ticked, noted or named changes nothing. */
  const restsOn = $derived(
    JSON.stringify([
      inputs.map(({ setup: { id, camera, place, light, people, things, backgrounds, intent, schedule } }) => [
        ...[id, camera, place, light, people, things, backgrounds, intent, schedule.priority]
      ]),
      app.open.offered,
      inputs[0]?.habits
    ])
  );
  const question = $derived.by<BagQuestion>(() => {
    void restsOn;
    return untrack(() => ({ inputs, kit: app.open.offered }));
  });
  let asked = $state(false);
  const answer = $derived(search.answer?.found ?? null);
  const older = $derived(search.answer !== null && search.answer.to !== question);
  const numberOf = $derived(new Map(app.open.rows.map((row, index) => [row.id, index])));
  const numbers = (ids: readonly string[]) => numbersWords(ids.flatMap((id) => numberOf.get(id) ?? []));

  $effect(() => {
    const { length } = question.inputs;
    if (length === 0 || (length > byItselfUpTo && !asked)) return;
    const timer = setTimeout(() => void search.ask(question), search.answer ? restMs : 0);
    return () => clearTimeout(timer);
  });
  $effect(() => () => search.stop());

  interface Line {
    readonly id: string;
    readonly name: string;
    readonly taken: boolean;
    readonly why: string;
  }
  /** Everything that is owned and stands in a plan or in the bag, what is taken along first. */
  const lines = $derived.by((): Line[] => {
    if (!answer) return [];
    const { demands, items, musts } = answer;
    const must = demands.filter((demand) => musts.includes(demand.setupId));
    const planned = new Set(demands.flatMap((demand) => demand.options[0]?.needs ?? []));
    const { bodies, lenses, adapters } = app.open.kit;
    return [...bodies, ...lenses, ...adapters]
      .filter((item) => items.includes(item.id) || planned.has(item.id))
      .map((item): Line => {
        const taken = items.includes(item.id);
        const forced = forcedBy(must, item.id);
        const falls = fallWithout(must, items, item.id);
        const used = demands.filter((demand) => demand.options[0]?.needs.includes(item.id)).map((d) => d.setupId);
        const why = taken
          ? forced.length > 0
            ? `needed for ${numbers(forced)}`
            : `for ${numbers(falls.length > 0 ? falls : used)}`
          : used.some((id) => musts.includes(id))
            ? `${numbers(used)} ${used.length === 1 ? 'works' : 'work'} without it`
            : `only for ${numbers(used)}, if there is time`;
        return { id: item.id, name: item.name, taken, why };
      })
      .sort((a, b) => Number(b.taken) - Number(a.taken));
  });
  const lensesTaken = $derived(lines.filter((line) => line.taken && app.open.kit.lenses.some((l) => l.id === line.id)));
  const title = $derived.by(() => {
    if (!answer) return '';
    if (answer.musts.length === 0) return 'No setup is marked as a must-have.';
    const count = lensesTaken.length;
    const home = lines.filter((line) => !line.taken).length;
    return `${count} ${count === 1 ? 'lens covers' : 'lenses cover'} every must-have setup${home > 0 ? `; ${home} ${home === 1 ? 'item' : 'items'} can stay home` : ''}.`;
  });

  const packing = $derived(app.open.job?.packing ?? []);
  const packed = (id: string) => packing.some((item) => item.id === id && item.packed);
  const extras = $derived(packing.filter((item) => !lines.some((line) => line.id === item.id)));
  function pack(id: string, name: string, on: boolean) {
    const rest = packing.filter((item) => item.id !== id);
    change([...rest, { id, name, packed: on }]);
  }
  const change = (next: typeof packing) => app.jobs.change(app.open.id ?? '', 'Packing', { packing: next });
  let adding = $state(false);
  function add(name: string, held: boolean) {
    if (held || name === '') return;
    adding = false;
    change([...packing, { id: app.newId(), name, packed: false }]);
  }
  const ticks = $derived(
    lines.filter((line) => line.taken && packed(line.id)).length + extras.filter((item) => item.packed).length
  );
  const toPack = $derived(lines.filter((line) => line.taken).length + extras.length);
</script>

<section aria-labelledby="bag-title" class="mb-6" data-testid="bag">
  <h2 id="bag-title" class="condensed text-[18px] font-bold">
    The bag{#if answer && toPack > 0}<span class="ml-2 text-[13px] font-normal text-soft"
        >{ticks} of {toPack} packed</span
      >{/if}<HowComputed of="bag" class="ml-1" />
  </h2>
  {#if question.inputs.length > byItselfUpTo && !asked}
    <Button color="alternative" class="mt-2" onclick={() => (asked = true)}>Find the smallest bag</Button>
  {/if}
  {#if search.failure !== null}<Failed
      what="The bag could not be worked out:"
      why={search.failure}
      onretry={() => void search.ask(question)}
    />{/if}
  {#if search.slow}<Progress share={search.progress} label="Finding the smallest bag" />{/if}
  {#if answer}
    <p class="text-soft {older ? 'opacity-60' : ''}">{title}</p>
    <ul class="mt-2 border-b border-line">
      {#each lines as line (line.id)}
        <li class="flex min-h-9 items-center gap-3 border-t border-line py-1 {line.taken ? '' : 'text-soft'}">
          {#if line.taken}
            <Checkbox
              checked={packed(line.id)}
              onchange={(event: Event) => pack(line.id, line.name, (event.currentTarget as HTMLInputElement).checked)}
              ><span class="condensed text-[14.5px] font-semibold">{line.name}</span></Checkbox
            >
          {:else}<span class="condensed pl-8 text-[14.5px]">{line.name}</span>{/if}
          <span class="condensed ml-auto max-w-52 text-right leading-tight text-pretty">{line.why}</span>
        </li>
      {/each}
      {#each extras as item (item.id)}
        <li class="flex min-h-9 items-center gap-3 border-t border-line py-1">
          <Checkbox
            checked={item.packed}
            onchange={(event: Event) => pack(item.id, item.name, (event.currentTarget as HTMLInputElement).checked)}
            ><span class="condensed text-[14.5px]">{item.name}</span></Checkbox
          >
          <button
            type="button"
            class="ml-auto min-h-6 text-soft underline"
            onclick={() => change(packing.filter((other) => other.id !== item.id))}
            >take off<span class="sr-only"> {item.name}</span></button
          >
        </li>
      {/each}
    </ul>
    {#if adding}
      <TextField label="Also to pack" value="" optional onchange={(name, how) => add(name, how !== null)} />
    {:else}
      <button type="button" class="mt-1 min-h-6 underline" onclick={() => (adding = true)}
        >Something else to pack</button
      >
    {/if}
    {#if !answer.exact}<p class="label mt-1">There are too many ways to try them all: a smaller bag may exist.</p>{/if}
    {#if answer.tight.length > 0}
      <p class="mt-2 text-pretty text-cool" data-testid="additions">
        {#each answer.additions.slice(0, 2) as addition (addition.lensName)}
          {`A ${addition.lensName} would solve ${addition.opens.length} of your ${answer.tight.length} difficult ${answer.tight.length === 1 ? 'setup' : 'setups'} (${numbers(addition.opens)}). `}
        {:else}
          {`No common lens solves ${numbers(answer.tight)}. See their Fixes.`}
        {/each}
      </p>
    {/if}
  {/if}
</section>
