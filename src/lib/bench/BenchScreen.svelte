<script lang="ts">
  import { page } from '$app/state';
  import Choice from '$lib/controls/Choice.svelte';
  import Picker from '$lib/controls/Picker.svelte';
  import { getApp } from '$lib/state/app.svelte';
  import FieldBench from './FieldBench.svelte';
  import FocusBench from './FocusBench.svelte';
  import SheetButtons from './SheetButtons.svelte';
  import SpotsBench from './SpotsBench.svelte';
  import StopsBench from './StopsBench.svelte';

  /** Where does this lens focus, and at which stops is it good? */
  const app = getApp();
  let test = $state<'focus' | 'stops' | 'field' | 'spots'>('focus');
  // Whoever comes from the record comes with a pair.
  let bodyId = $state(page.url.searchParams.get('body') ?? '');
  let lensId = $state(page.url.searchParams.get('lens') ?? '');
  const kit = $derived(app.kit.shown);
  // What the first setup of the open job holds, else the first of the kit.
  const held = $derived(app.open.rows[0]?.setup.camera);
  const body = $derived(
    kit.bodies.find(({ id }) => id === bodyId) ?? kit.bodies.find(({ id }) => id === held?.bodyId) ?? kit.bodies[0]
  );
  const lens = $derived(
    kit.lenses.find(({ id }) => id === lensId) ?? kit.lenses.find(({ id }) => id === held?.lensId) ?? kit.lenses[0]
  );
  const named = (items: readonly { readonly id: string; readonly name: string; readonly retired: boolean }[]) =>
    items.filter(({ retired }) => !retired).map(({ id, name }) => ({ value: id, name }));
</script>

<main class="mx-auto max-w-[1280px] px-4 py-4">
  <div class="mb-4 flex flex-wrap items-end gap-x-4 gap-y-2">
    <Choice
      legend="Test"
      value={test}
      options={[
        { value: 'focus', name: 'Focus' },
        { value: 'stops', name: 'Sharpness by stop' },
        { value: 'field', name: 'Field' },
        { value: 'spots', name: 'Dust' }
      ]}
      onchange={(value) => (test = value)}
    />
    {#if body && lens}
      <Picker label="Body" items={named(kit.bodies)} value={body.id} onchange={(id) => (bodyId = id)} />
      <Picker label="Lens" items={named(kit.lenses)} value={lens.id} onchange={(id) => (lensId = id)} />
    {/if}
  </div>
  {#if body && lens}
    {#key `${body.id} ${lens.id}`}
      {#if test === 'focus'}
        <FocusBench {body} {lens} />
      {:else if test === 'stops'}
        <StopsBench {body} {lens} />
      {:else if test === 'field'}
        <FieldBench {body} {lens} />
      {:else}
        <SpotsBench {body} {lens} />
      {/if}
    {/key}
  {:else}
    <p class="text-soft">A body and a lens are needed first: they are in the Kit.</p>
  {/if}
  <section class="mt-8 flex flex-wrap items-center gap-x-4 gap-y-2 border-t border-line pt-3" aria-label="Other sheets">
    <p class="text-soft">Marks to stand in line, one an object, for exercises:</p>
    <SheetButtons kind="ladder" name="Marks" />
  </section>
</main>
