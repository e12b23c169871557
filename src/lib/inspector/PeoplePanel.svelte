<script lang="ts">
  import { Button } from 'flowbite-svelte';
  import { LayoutGrid, Plus, Trash2 } from '@lucide/svelte';
  import { newPerson, newThing } from '$core/setup/defaults';
  import { besideEverybody, newcomer } from '$core/setup/persons';
  import { numbered } from '$core/setup/names';
  import type { EditManner } from '$lib/data';
  import Menu from '$lib/controls/Menu.svelte';
  import MenuItem from '$lib/controls/MenuItem.svelte';
  import TextField from '$lib/controls/TextField.svelte';
  import Picker from '$lib/controls/Picker.svelte';
  import { getWorkspace } from '$lib/state/screen/workspace.svelte';
  import { importanceChoices } from './words';
  import { setFieldScope } from '$lib/controls/field.svelte';
  import ArrangePanel from './ArrangePanel.svelte';
  import LookFields from './LookFields.svelte';
  import GroupTools from './GroupTools.svelte';
  import PersonFields from './PersonFields.svelte';
  import PersonMore from './PersonMore.svelte';
  import ThingFields from './ThingFields.svelte';

  const workspace = getWorkspace();
  // A draft is of the field and of whom it was typed for.
  setFieldScope(() => `${workspace.row.id}/${selected?.id ?? ''}`);
  const setup = $derived(workspace.setup);
  const jobPeople = $derived(workspace.app.open.people);
  /** People of the job who are not in this picture. */
  const elsewhere = $derived(jobPeople.filter((person) => !setup.people.some((item) => item.id === person.id)));
  const members = $derived([
    ...setup.people.map((item) => ({ kind: 'person' as const, id: item.id, name: item.name })),
    ...setup.things.map((item) => ({ kind: 'thing' as const, id: item.id, name: item.name }))
  ]);
  const selected = $derived.by(() => {
    const { last } = workspace.selection;
    const found = last.kind === 'camera' ? undefined : members.find((item) => item.id === last.id);
    return found ?? members[0];
  });
  const person = $derived(
    selected?.kind === 'person' ? setup.people.find((item) => item.id === selected.id) : undefined
  );
  let arranging = $state(false);
  let adding = $state(false);
  const thing = $derived(selected?.kind === 'thing' ? setup.things.find((item) => item.id === selected.id) : undefined);

  function edit(label: string, recipe: Parameters<typeof workspace.editPerson>[2], how: EditManner = null) {
    return person ? workspace.editPerson(person.id, label, recipe, how) : false;
  }

  function add(kind: 'person' | 'thing') {
    const newId = workspace.app.newId();
    if (kind === 'person') {
      const person = newcomer(
        setup,
        newId,
        jobPeople.map((item) => item.name)
      );
      workspace.edit(`${person.name} added`, (draft) => void draft.people.push(person));
    } else {
      const name = numbered(
        'Object',
        setup.things.map((item) => item.name)
      );
      workspace.edit(`${name} added`, (draft) => void draft.things.push(newThing(newId, name)));
    }
    workspace.selection.select({ kind, id: newId });
  }

  function chosen(what: () => void) {
    adding = false;
    what();
  }

  /** Somebody of the job comes into this picture too. */
  function join(personId: string) {
    const person = elsewhere.find((item) => item.id === personId);
    if (!person) return;
    const lateralMm = besideEverybody(setup);
    workspace.edit(`${person.name} added`, (draft) => {
      draft.people.push(newPerson(person.id, person.name, { ...person, lateralMm }));
    });
    workspace.selection.select({ kind: 'person', id: personId });
  }

  function remove() {
    const several = workspace.selection.items.length > 1;
    const gone = several
      ? members.filter((item) => workspace.isSelected(item.kind, item.id))
      : selected
        ? [selected]
        : [];
    const [first] = gone;
    if (!first) return;
    const ids = new Set(gone.map((item) => item.id));
    const label = gone.length === 1 ? `${first.name} removed` : `${gone.length} removed`;
    workspace.remove(label, (draft) => {
      draft.people = draft.people.filter((item) => !ids.has(item.id));
      draft.things = draft.things.filter((item) => !ids.has(item.id));
    });
    workspace.selection.select({ kind: 'camera' });
    workspace.tab = 'people';
  }

  function rename(name: string, how: EditManner) {
    if (thing) workspace.editThing(thing.id, 'Name', (draft) => void (draft.name = name), how);
    else edit('Name', (draft) => void (draft.name = name), how);
  }
</script>

<div class="space-y-2.5">
  <div class="flex flex-wrap items-end gap-2">
    <div class="min-w-32 flex-1">
      {#if selected}
        <Picker
          label="Select"
          hideLabel
          items={members.map((item) => ({ value: item.id, name: item.name }))}
          value={selected.id}
          onchange={(value) => {
            const member = members.find((item) => item.id === value);
            if (member) workspace.selection.select({ kind: member.kind, id: member.id });
          }}
        />
      {/if}
    </div>
    {#if elsewhere.length > 0}
      <Menu bind:open={adding} name="Person" atEnd>
        {#snippet label()}
          <span class="flex h-8 items-center rounded-[2px] border border-line px-3">
            <Plus size={14} aria-hidden="true" class="mr-1" />Person
          </span>
        {/snippet}
        <MenuItem name="New person" onchosen={() => chosen(() => add('person'))} />
        {#each elsewhere as { id, name } (id)}
          <MenuItem {name} onchosen={() => chosen(() => join(id))} />
        {/each}
      </Menu>
    {:else}
      <Button color="alternative" onclick={() => add('person')}
        ><Plus size={14} aria-hidden="true" class="mr-1" />Person</Button
      >
    {/if}
    <Button color="alternative" onclick={() => add('thing')}
      ><Plus size={14} aria-hidden="true" class="mr-1" />Object</Button
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

  {#if selected && workspace.selection.items.length < 2 && !arranging}
    <div class="grid grid-cols-2 gap-x-2 gap-y-2 sm:grid-cols-4">
      {#key selected.id}
        <TextField label="Name" value={selected.name} onchange={rename} />
      {/key}
      {#if person}
        <PersonFields {person} {edit} />
      {:else if thing}
        <ThingFields {thing} />
        <Picker
          label="Sharp"
          items={importanceChoices}
          value={thing.importance}
          onchange={(value) => workspace.editThing(thing.id, 'Importance', (draft) => void (draft.importance = value))}
        />
      {/if}
    </div>
    {#if person}<PersonMore {person} {edit} />{/if}
    {#if person && person.being !== 'pet'}<LookFields {person} />{/if}
  {/if}
</div>
