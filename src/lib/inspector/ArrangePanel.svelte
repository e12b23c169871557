<script lang="ts">
  import { Button } from 'flowbite-svelte';
  import {
    arrange,
    arrangementCount,
    arrangementSchema,
    type Arrangement,
    type ArrangementKind
  } from '$core/people/arrangements';
  import { newPerson } from '$core/setup/defaults';
  import type { Person, Setup } from '$core/setup/schema';
  import LengthField from '$lib/controls/LengthField.svelte';
  import NumberField from '$lib/controls/NumberField.svelte';
  import Picker from '$lib/controls/Picker.svelte';
  import { getWorkspace } from '$lib/state/workspace.svelte';

  let { onclose }: { onclose: () => void } = $props();
  const workspace = getWorkspace();

  const kinds: readonly { value: ArrangementKind; name: string }[] = [
    { value: 'rows', name: 'rows' },
    { value: 'arc', name: 'an arc' },
    { value: 'vee', name: 'a V' },
    { value: 'seatedFront', name: 'seated in front' },
    { value: 'around', name: 'around something' },
    { value: 'couple', name: 'a couple' }
  ];
  const poses = [
    { value: 'sideBySide', name: 'side by side' },
    { value: 'facing', name: 'facing each other' },
    { value: 'foreheads', name: 'foreheads together' },
    { value: 'embrace', name: 'embracing' },
    { value: 'behind', name: 'one behind the other' }
  ] as const;

  const here = workspace.setup.people.length;
  let kind = $state<ArrangementKind>(here === 2 ? 'couple' : 'rows');
  let count = $state(Math.max(2, here));
  let rows = $state(here > 10 ? 3 : here > 5 ? 2 : 1);
  let spacingMm = $state(560);
  let rowDepthMm = $state(800);
  let riserMm = $state(0);
  let radiusMm = $state(3000);
  let angleDeg = $state(25);
  let seated = $state(Math.max(1, Math.floor(here / 2)));
  let pose = $state<(typeof poses)[number]['value']>('foreheads');

  const described = $derived.by((): Arrangement => {
    switch (kind) {
      case 'rows':
        return { kind, count, rows, spacingMm, rowDepthMm, riserMm, staggered: true };
      case 'arc':
        return { kind, count, spacingMm, radiusMm };
      case 'vee':
        return { kind, count, spacingMm, angleDeg };
      case 'seatedFront':
        return { kind, count, seated, spacingMm, rowDepthMm };
      case 'around':
        return { kind, count, radiusMm: Math.min(radiusMm, 1500), spanDeg: 180 };
      case 'couple':
        return { kind, pose };
    }
  });
  const valid = $derived(arrangementSchema.safeParse(described));

  /** The people here, and new ones when there are not enough; nobody is taken away. */
  const arranged = $derived.by((): Setup | null => {
    if (!valid.success) return null;
    const { setup } = workspace;
    const pets = setup.people.filter((person) => person.being === 'pet');
    const people = setup.people.filter((person) => person.being !== 'pet');
    const missing = Math.max(0, arrangementCount(valid.data) - people.length);
    const usual = setup.people[0]?.sharp ?? 'bothEyes';
    const names = new Set(setup.people.map((person) => person.name));
    const added: Person[] = [];
    for (let n = people.length + 1; added.length < missing; n++) {
      if (!names.has(`Person ${n}`))
        added.push(newPerson(`arranged-${n}-${setup.people.length}`, `Person ${n}`, { sharp: usual }));
    }
    return { ...setup, people: [...arrange([...people, ...added], valid.data), ...pets] };
  });
  $effect(() => {
    workspace.preview = arranged;
    return () => void (workspace.preview = null);
  });

  function apply() {
    const people = arranged?.people;
    if (!people) return;
    workspace.edit('Arranged', (draft) => {
      draft.people = people.map((person) =>
        draft.people.some((item) => item.id === person.id) ? person : { ...person, id: crypto.randomUUID() }
      );
      if (people.length > 2 && draft.intent.picture !== 'moving') draft.intent.picture = 'group';
    });
    onclose();
  }
</script>

<section class="border-l-2 border-pencil pl-3" aria-label="Arrange people">
  <div class="grid grid-cols-2 items-end gap-2 sm:grid-cols-4">
    <Picker label="Arrange as" items={kinds} value={kind} onchange={(value) => (kind = value)} />
    {#if kind === 'couple'}
      <Picker label="Pose" items={poses} value={pose} onchange={(value) => (pose = value)} />
    {:else}
      <NumberField label="People" value={count} min={1} max={60} onchange={(value) => (count = Math.round(value))} />
    {/if}
    {#if kind === 'rows'}
      <NumberField label="Rows" value={rows} min={1} max={6} onchange={(value) => (rows = Math.round(value))} />
    {:else if kind === 'seatedFront'}
      <NumberField label="Seated" value={seated} min={1} max={60} onchange={(value) => (seated = Math.round(value))} />
    {:else if kind === 'vee'}
      <NumberField
        label="Arms back"
        unit="°"
        value={angleDeg}
        min={-80}
        max={80}
        step={5}
        onchange={(value) => (angleDeg = value)}
      />
    {/if}
    {#if kind === 'rows' || kind === 'arc' || kind === 'vee' || kind === 'seatedFront'}
      <LengthField label="Face to face" valueMm={spacingMm} stepMm={20} onchange={(mm) => (spacingMm = mm)} />
    {/if}
    {#if kind === 'rows' || kind === 'seatedFront'}
      <LengthField label="Row to row" valueMm={rowDepthMm} stepMm={50} onchange={(mm) => (rowDepthMm = mm)} />
    {/if}
    {#if kind === 'rows'}
      <LengthField label="Step up each row" valueMm={riserMm} stepMm={10} onchange={(mm) => (riserMm = mm)} />
    {:else if kind === 'arc' || kind === 'around'}
      <LengthField label="Radius" valueMm={radiusMm} stepMm={100} onchange={(mm) => (radiusMm = mm)} />
    {/if}
  </div>
  <div class="mt-2 flex items-center gap-2">
    <Button disabled={!arranged} onclick={apply}>Place them so</Button>
    <Button color="alternative" onclick={onclose}>Leave them</Button>
    <p class="label">
      {#if valid.success}The Floor shows it. Anybody can be moved afterwards.{:else}{valid.error.issues[0]?.path.join(
          '.'
        )}: {valid.error.issues[0]?.message}.{/if}
    </p>
  </div>
</section>
