<script lang="ts">
  import { Button } from 'flowbite-svelte';
  import { LayoutGrid, Plus, Trash2 } from '@lucide/svelte';
  import { defaultMuzzleMm, defaultStatureMm, newPerson, newThing } from '$core/setup/defaults';
  import Choice from '$lib/controls/Choice.svelte';
  import LengthField from '$lib/controls/LengthField.svelte';
  import NumberField from '$lib/controls/NumberField.svelte';
  import TextField from '$lib/controls/TextField.svelte';
  import Picker from '$lib/controls/Picker.svelte';
  import { getWorkspace, type Selection } from '$lib/state/workspace.svelte';
  import { importanceChoices, sharpChoices } from './words';
  import ArrangePanel from './ArrangePanel.svelte';
  import LookFields from './LookFields.svelte';
  import GroupTools from './GroupTools.svelte';
  import ThingFields from './ThingFields.svelte';

  const workspace = getWorkspace();
  const setup = $derived(workspace.setup);
  const members = $derived([
    ...setup.people.map((item) => ({ kind: 'person' as const, id: item.id, name: item.name })),
    ...setup.things.map((item) => ({ kind: 'thing' as const, id: item.id, name: item.name }))
  ]);
  const selected = $derived.by(() => {
    const { selection } = workspace;
    const found = selection.kind === 'camera' ? undefined : members.find((item) => item.id === selection.id);
    return found ?? members[0];
  });
  const person = $derived(
    selected?.kind === 'person' ? setup.people.find((item) => item.id === selected.id) : undefined
  );
  let arranging = $state(false);
  const thing = $derived(selected?.kind === 'thing' ? setup.things.find((item) => item.id === selected.id) : undefined);

  function edit(label: string, recipe: Parameters<typeof workspace.editPerson>[2], gesture: string | null = null) {
    return person ? workspace.editPerson(person.id, label, recipe, gesture && `${gesture}-${person.id}`) : false;
  }

  function add(kind: 'person' | 'thing') {
    const newId = crypto.randomUUID();
    if (kind === 'person') {
      const name = `Person ${setup.people.length + 1}`;
      const right = setup.people.length === 0 ? 0 : Math.max(...setup.people.map((item) => item.lateralMm)) + 480;
      workspace.edit(`${name} added`, (draft) => void draft.people.push(newPerson(newId, name, { lateralMm: right })));
    } else {
      const name = `Thing ${setup.things.length + 1}`;
      workspace.edit(`${name} added`, (draft) => void draft.things.push(newThing(newId, name)));
    }
    workspace.select({ kind, id: newId } satisfies Selection);
  }

  function remove() {
    const several = workspace.selected.length > 1;
    const gone = several
      ? members.filter((item) => workspace.isSelected(item.kind, item.id))
      : selected
        ? [selected]
        : [];
    const [first] = gone;
    if (!first) return;
    const ids = new Set(gone.map((item) => item.id));
    const label = gone.length === 1 ? `${first.name} removed` : `${gone.length} removed`;
    workspace.edit(label, (draft) => {
      draft.people = draft.people.filter((item) => !ids.has(item.id));
      draft.things = draft.things.filter((item) => !ids.has(item.id));
    });
    workspace.select({ kind: 'camera' });
    workspace.tab = 'people';
    workspace.app.say(`${label}.`, 'done', true);
  }

  function rename(name: string, gesture: string | null) {
    if (thing) workspace.editThing(thing.id, 'Name', (draft) => void (draft.name = name), gesture);
    else edit('Name', (draft) => void (draft.name = name), gesture);
  }
</script>

<div class="space-y-2.5">
  <div class="flex items-end gap-2">
    <div class="min-w-0 flex-1">
      {#if selected}
        <Picker
          label="Who or what"
          items={members.map((item) => ({ value: item.id, name: item.name }))}
          value={selected.id}
          onchange={(value) => {
            const member = members.find((item) => item.id === value);
            if (member) workspace.select({ kind: member.kind, id: member.id });
          }}
        />
      {/if}
    </div>
    <Button color="alternative" onclick={() => add('person')}
      ><Plus size={14} aria-hidden="true" class="mr-1" />Person</Button
    >
    <Button color="alternative" onclick={() => add('thing')}
      ><Plus size={14} aria-hidden="true" class="mr-1" />Thing</Button
    >
    <Button color="alternative" aria-expanded={arranging} onclick={() => (arranging = !arranging)}
      ><LayoutGrid size={14} aria-hidden="true" class="mr-1" />Arrange</Button
    >
    <Button
      color="alternative"
      class="px-2"
      disabled={!selected}
      onclick={remove}
      aria-label="Remove {selected?.name ?? ''}"
    >
      <Trash2 size={15} aria-hidden="true" />
    </Button>
  </div>

  {#if arranging}<ArrangePanel onclose={() => (arranging = false)} />{/if}
  <GroupTools />

  {#if selected && workspace.selected.length < 2 && !arranging}
    <div class="grid grid-cols-2 gap-x-2 gap-y-2 sm:grid-cols-4">
      {#key selected.id}
        <TextField label="Name" value={selected.name} whileTyping onchange={rename} />
      {/key}
      {#if person}
        <LengthField
          label="From the lens"
          valueMm={person.depthMm + workspace.distanceMm}
          onchange={(mm, gesture) =>
            edit('Distance', (draft) => void (draft.depthMm = mm - workspace.distanceMm), gesture)}
        />
        <LengthField
          label="To the right"
          valueMm={person.lateralMm}
          onchange={(mm, gesture) => edit('Offset', (draft) => void (draft.lateralMm = mm), gesture)}
        />
        <LengthField
          label="Height"
          valueMm={person.statureMm}
          stepMm={10}
          onchange={(mm, gesture) => edit('Height', (draft) => void (draft.statureMm = mm), gesture)}
        />
        <NumberField
          label="Head turned"
          unit="°"
          value={person.headYawDeg}
          min={-180}
          max={180}
          step={5}
          onchange={(deg, gesture) => edit('Head turn', (draft) => void (draft.headYawDeg = deg), gesture)}
        />
        <NumberField
          label="Shoulders turned"
          unit="°"
          value={person.bodyYawDeg}
          min={-180}
          max={180}
          step={5}
          onchange={(deg, gesture) => edit('Shoulders', (draft) => void (draft.bodyYawDeg = deg), gesture)}
        />
        <NumberField
          label="Looks up"
          unit="°"
          value={person.headPitchDeg}
          min={-80}
          max={80}
          step={5}
          onchange={(deg, gesture) => edit('Head tilt', (draft) => void (draft.headPitchDeg = deg), gesture)}
        />
        <LengthField
          label="Stands on a step of"
          valueMm={person.floorMm}
          stepMm={10}
          onchange={(mm, gesture) => edit('Step', (draft) => void (draft.floorMm = mm), gesture)}
        />
        <NumberField
          label="Comes closer, m/s"
          value={person.towardsMmPerS / 1000}
          min={-20}
          max={20}
          step={0.1}
          onchange={(speed, gesture) =>
            edit('Speed', (draft) => void (draft.towardsMmPerS = Math.round(speed * 1000)), gesture)}
        />
        <NumberField
          label="Moves across, m/s"
          value={person.acrossMmPerS / 1000}
          min={0}
          max={20}
          step={0.1}
          onchange={(speed, gesture) =>
            edit('Speed', (draft) => void (draft.acrossMmPerS = Math.round(speed * 1000)), gesture)}
        />
        {#if person.being === 'pet'}
          <LengthField
            label="Muzzle"
            valueMm={person.muzzleMm}
            stepMm={5}
            onchange={(mm, gesture) => edit('Muzzle', (draft) => void (draft.muzzleMm = mm), gesture)}
          />
        {/if}
        <Picker
          label="Is"
          value={`${person.being}-${person.posture}`}
          items={[
            { value: 'adult-standing', name: 'adult, standing' },
            { value: 'adult-seated', name: 'adult, seated' },
            { value: 'adult-embracing', name: 'adult, embracing' },
            { value: 'child-standing', name: 'child, standing' },
            { value: 'child-seated', name: 'child, seated' },
            { value: 'baby-embracing', name: 'baby, held' },
            { value: 'pet-standing', name: 'pet, standing' },
            { value: 'pet-seated', name: 'pet, on a lap' }
          ]}
          onchange={(value) =>
            edit('Who it is', (draft) => {
              const [being, posture] = value.split('-') as [typeof draft.being, typeof draft.posture];
              // A pet is measured to its eyes, so a person's height would not fit it, nor the other way round.
              if ((being === 'pet') !== (draft.being === 'pet')) {
                draft.statureMm = defaultStatureMm[being];
                draft.muzzleMm = being === 'pet' ? defaultMuzzleMm : 0;
              }
              draft.being = being;
              draft.posture = posture;
            })}
        />
      {:else if thing}
        <ThingFields {thing} />
      {/if}
    </div>
    <div class="flex flex-wrap gap-x-4 gap-y-2">
      {#if person}
        <Choice
          legend="Sharp"
          options={sharpChoices}
          value={person.sharp}
          onchange={(value) => edit('Sharp', (draft) => void (draft.sharp = value))}
        />
        <Choice
          legend="This face"
          options={importanceChoices}
          value={person.importance}
          onchange={(value) => edit('Importance', (draft) => void (draft.importance = value))}
        />
      {:else if thing}
        <Choice
          legend="Sharp"
          options={importanceChoices}
          value={thing.importance}
          onchange={(value) => workspace.editThing(thing.id, 'Importance', (draft) => void (draft.importance = value))}
        />
      {/if}
    </div>
    {#if person && person.being !== 'pet'}<LookFields {person} />{/if}
  {/if}
</div>
