<script lang="ts">
  import { Button } from 'flowbite-svelte';
  import type { PersonFigures } from '$core/record/groups';
  import { movementWords, ownSwayWords, swaysOtherwise } from '$core/words/record';
  import { getApp } from '$lib/state/app.svelte';

  interface Props {
    persons: readonly PersonFigures[];
  }
  /** How the people of the open job keep still; their own sway goes to them, wherever they stand. */
  let { persons }: Props = $props();
  const app = getApp();
  const row = (id: string) => app.store.table('people').list.find((one) => one.id === id);
  const here = $derived(persons.filter(({ jobId, person }) => jobId === app.open.job?.id && row(person) !== undefined));
  const elsewhere = $derived(persons.filter(({ jobId }) => jobId !== app.open.job?.id).length);
  /** What is not as usual. */
  const told = $derived(
    here.flatMap(({ person, name, sway, movement }) => {
      const said = [
        sway && swaysOtherwise(sway) ? ownSwayWords(sway) : '',
        movement ? movementWords(movement) : ''
      ].filter((part) => part !== '');
      return said.length > 0 ? [{ person, name, said: said.join('; ') }] : [];
    })
  );
  const rounded = (mm: number) => Number(mm.toFixed(1));
  /** Those whose sway is told to be another than the plans have. */
  const others = $derived(
    here.flatMap(({ person, name, sway }) => {
      if (!sway) return [];
      const known = row(person)?.value.swayMm ?? sway.usualMm;
      const apart = known < sway.swayMm.low || known > sway.swayMm.high;
      return apart ? [{ person, name, mm: rounded(sway.swayMm.value) }] : [];
    })
  );

  function use() {
    app.store.edit(others.length === 1 ? `Sway of ${others[0]?.name ?? ''}` : 'Own sways', (draft) => {
      for (const { person, mm } of others) {
        const there = draft.row('people', person);
        if (there) draft.put('people', { ...there, value: { ...there.value, swayMm: mm } });
      }
    });
    app.messages.done('The plans of this job reckon with it.');
  }
</script>

{#if told.length > 0}
  <h3 class="mt-4 font-semibold">People of this job</h3>
  <ul class="mt-1" data-testid="persons-figures">
    {#each told as one (one.person)}
      <li class="border-b border-line py-1 text-pretty">
        <b class="font-semibold">{one.name}</b>
        {one.said}
      </li>
    {/each}
  </ul>
  {#if others.length > 0}
    <div class="mt-3">
      <Button color="alternative" onclick={use}>
        {others.length === 1 ? `Plan with ${others[0]?.name}’s own sway` : `Plan with the own sway of ${others.length}`}
      </Button>
    </div>
  {/if}
{:else if here.length === 0 && elsewhere > 0}
  <p class="mt-3 text-pretty text-soft">
    How {elsewhere === 1 ? 'one person' : `${elsewhere} people`} of other jobs keep still is shown once their job is open.
  </p>
{/if}
