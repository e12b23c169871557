<script lang="ts">
  import { Button } from 'flowbite-svelte';
  import { alignToFocus, evenSpacing, rowSlantDeg, squareToCamera } from '$core/setup/align';
  import type { Importance, Person, SharpSet } from '$core/setup/schema';
  import { shared } from '$core/setup/intents';
  import Picker from '$lib/controls/Picker.svelte';
  import { getWorkspace } from '$lib/state/screen/workspace.svelte';
  import { importanceChoices, sharpChoices } from './words';

  /** What can be done with several people at once. */
  const workspace = getWorkspace();
  const people = $derived(workspace.chosenPeople);
  const slant = $derived(workspace.view ? rowSlantDeg(people, workspace.view) : 0);
  const mixed = { value: 'mixed', name: 'different' } as const;

  function square() {
    const { view } = workspace;
    if (view) workspace.replacePeople('Row squared', squareToCamera(people, view));
  }
  function toPlane() {
    const { view, entry } = workspace;
    if (view && entry) {
      workspace.replacePeople('Aligned to the plane of focus', alignToFocus(people, view, entry.planeMm));
    }
  }
  function each(label: string, change: Partial<Person>) {
    workspace.replacePeople(
      label,
      people.map((person) => ({ ...person, ...change }))
    );
  }
  function everyone() {
    workspace.selection.selectAll(workspace.setup.people.map(({ id }) => ({ kind: 'person', id }) as const));
  }
  const sharp = $derived(shared(people, (person) => person.sharp) ?? 'mixed');
  const importance = $derived(shared(people, (person) => person.importance) ?? 'mixed');
</script>

{#if people.length > 1}
  <section aria-label="{people.length} people together" class="space-y-2">
    <p>
      <span class="font-semibold">{people.length} people</span>
      <span class="text-soft"
        >{Math.abs(slant) < 0.5
          ? 'square to the camera'
          : `the row leans ${Math.abs(slant).toFixed(0)}° to the camera`}</span
      >
    </p>
    <div class="flex flex-wrap gap-2">
      <Button color="alternative" disabled={!workspace.entry} onclick={toPlane}>Onto the plane of focus</Button>
      <Button color="alternative" onclick={square}>Square to the camera</Button>
      <Button
        color="alternative"
        disabled={people.length < 3}
        onclick={() => workspace.replacePeople('Spaced evenly', evenSpacing(people))}>Space evenly</Button
      >
    </div>
    <div class="grid grid-cols-2 gap-2 sm:grid-cols-4">
      <Picker
        label="Sharp"
        items={sharp === 'mixed' ? [mixed, ...sharpChoices] : sharpChoices}
        value={sharp}
        onchange={(value) => value !== 'mixed' && each('Sharp', { sharp: value as SharpSet })}
      />
      <Picker
        label="These faces"
        items={importance === 'mixed' ? [mixed, ...importanceChoices] : importanceChoices}
        value={importance}
        onchange={(value) => value !== 'mixed' && each('Importance', { importance: value as Importance })}
      />
    </div>
  </section>
{:else if workspace.setup.people.length > 2}
  <p>
    <button
      type="button"
      class="min-h-6 underline underline-offset-2"
      title="Ctrl-click or Shift-drag on the Floor selects several"
      onclick={everyone}>Select everyone</button
    >
  </p>
{/if}
