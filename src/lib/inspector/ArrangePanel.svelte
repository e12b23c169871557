<script lang="ts">
  import { Button } from 'flowbite-svelte';
  import { arrangementSchema, arrangePeople, type Arrangement, type ArrangementKind } from '$core/setup/arrangements';
  import type { Setup } from '$core/setup/schema';
  import LengthField from '$lib/controls/LengthField.svelte';
  import NumberField from '$lib/controls/NumberField.svelte';
  import Picker from '$lib/controls/Picker.svelte';
  import { getWorkspace } from '$lib/state/screen/workspace.svelte';

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

  const arranged = $derived.by((): Setup | null => {
    if (!valid.success) return null;
    const { setup } = workspace;
    return { ...setup, people: arrangePeople(setup, valid.data, (n) => `arranged-${n}`) };
  });
  $effect(() => {
    workspace.preview = arranged;
    return () => void (workspace.preview = null);
  });

  function apply() {
    if (!valid.success) return;
    const people = arrangePeople(workspace.setup, valid.data, workspace.app.newId);
    workspace.edit('Arranged', (draft) => {
      draft.people = people;
      if (people.length > 2 && draft.intent.picture !== 'moving') draft.intent.picture = 'group';
    });
    onclose();
  }
</script>

<section class="border-l-2 border-pencil pl-3" aria-label="Arrange people">
  <div class="grid grid-cols-2 items-start gap-2 sm:grid-cols-4">
    <Picker label="Arrange as" items={kinds} value={kind} onchange={(value) => (kind = value)} />
    {#if kind === 'couple'}
      <Picker label="Pose" items={poses} value={pose} onchange={(value) => (pose = value)} />
    {:else}
      <NumberField label="People" value={count} min={1} max={60} whole onchange={(value) => (count = value)} />
    {/if}
    {#if kind === 'rows'}
      <NumberField label="Rows" value={rows} min={1} max={6} whole onchange={(value) => (rows = value)} />
    {:else if kind === 'seatedFront'}
      <NumberField label="Seated" value={seated} min={1} max={60} whole onchange={(value) => (seated = value)} />
    {:else if kind === 'vee'}
      <NumberField
        label="Arms back"
        unit="deg"
        value={angleDeg}
        min={-80}
        max={80}
        step={5}
        onchange={(value) => (angleDeg = value)}
      />
    {/if}
    {#if kind === 'rows' || kind === 'arc' || kind === 'vee' || kind === 'seatedFront'}
      <LengthField
        label="Face to face"
        bounds={{ min: 100, max: 10_000 }}
        valueMm={spacingMm}
        stepMm={20}
        onchange={(mm) => (spacingMm = mm)}
      />
    {/if}
    {#if kind === 'rows' || kind === 'seatedFront'}
      <LengthField
        label="Row to row"
        bounds={{ min: 0, max: 20_000 }}
        valueMm={rowDepthMm}
        stepMm={50}
        onchange={(mm) => (rowDepthMm = mm)}
      />
    {/if}
    {#if kind === 'rows'}
      <LengthField
        label="Step up each row"
        bounds={{ min: 0, max: 5000 }}
        valueMm={riserMm}
        stepMm={10}
        onchange={(mm) => (riserMm = mm)}
      />
    {:else if kind === 'arc' || kind === 'around'}
      <LengthField
        label="Radius"
        bounds={{ min: 200, max: 200_000 }}
        valueMm={radiusMm}
        stepMm={100}
        onchange={(mm) => (radiusMm = mm)}
      />
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
