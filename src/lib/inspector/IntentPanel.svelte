<script lang="ts">
  import { asPicture, shared, sharpSubject, usualFor, withSharpSubject, type SharpSubject } from '$core/setup/intents';
  import { Checkbox } from 'flowbite-svelte';
  import { limits } from '$core/schema/values';
  import { shapeNames, type PrintShape } from '$core/setup/shapes';
  import { type Intent, type SetupKind, type SharpSet, type Wish } from '$core/setup/schema';
  import type { EditManner } from '$lib/data';
  import Choice from '$lib/controls/Choice.svelte';
  import NumberField from '$lib/controls/NumberField.svelte';
  import Picker from '$lib/controls/Picker.svelte';
  import TextField from '$lib/controls/TextField.svelte';
  import { getWorkspace } from '$lib/state/screen/workspace.svelte';
  import JustMadeQuestions from './JustMadeQuestions.svelte';
  import ViewingFields from '$lib/controls/ViewingFields.svelte';
  import { pictureChoices, sharpChoices, sharpSubjectChoices, styleChoices, wishChoices } from './words';

  const workspace = getWorkspace();
  const setup = $derived(workspace.setup);
  const intent = $derived(setup.intent);
  const usual = $derived(usualFor[intent.picture]);
  const otherJobs = $derived(
    workspace.app.jobs.current
      .filter((row) => row.id !== workspace.row.jobId)
      .map((row) => ({ value: row.id, name: row.value.name }))
  );
  const mixed = { value: 'mixed', name: 'different for each' } as const;

  const sharp = $derived(shared(setup.people, (person) => person.sharp));
  const wish = $derived(shared(setup.backgrounds, (item) => item.wish));
  const subject = $derived(sharpSubject(setup));
  const subjectItems = $derived(subject ? sharpSubjectChoices : [...sharpSubjectChoices, mixed]);

  function edit(label: string, recipe: (draft: Intent) => void, how: EditManner = null) {
    return workspace.edit(label, (draft) => recipe(draft.intent), how);
  }
  function become(picture: SetupKind) {
    const changed = asPicture(setup, picture);
    workspace.edit('Type of photo', (draft) => void Object.assign(draft, changed));
  }
  function take(value: SharpSubject | 'mixed') {
    if (value === 'mixed') return;
    const changed = withSharpSubject(setup, value);
    workspace.edit('Who is sharp', (draft) => void Object.assign(draft, changed));
  }
  function sharpAll(value: SharpSet | 'mixed') {
    if (value === 'mixed') return;
    workspace.edit('How sharp the faces are', (draft) => {
      for (const person of draft.people) person.sharp = value;
    });
  }
  function wishAll(value: Wish | 'mixed') {
    if (value === 'mixed') return;
    workspace.edit('What the background does', (draft) => {
      for (const item of draft.backgrounds) item.wish = value;
    });
  }
  function order(shape: PrintShape) {
    edit('Ordered shapes', (draft) => {
      draft.shapes = shapeNames.filter((item) =>
        item === shape ? !draft.shapes.includes(shape) : draft.shapes.includes(item)
      );
    });
  }
  const marked = <T extends string>(items: readonly { value: T; name: string }[], value: T) =>
    items.map((item) => (item.value === value ? { ...item, name: `${item.name} (usual)` } : item));
</script>

<div class="space-y-2.5">
  {#if workspace.justMade}<JustMadeQuestions made={workspace.justMade} />{/if}
  <Choice legend="Type of photo" options={pictureChoices} value={intent.picture} onchange={become} wrap />
  <div class="grid grid-cols-1 gap-x-3 gap-y-2 sm:grid-cols-2">
    {#if setup.things.length > 0}
      <Picker label="Sharp" items={subjectItems} value={subject ?? 'mixed'} onchange={take} />
    {/if}
    {#if setup.people.length > 0}
      <Picker
        label="Sharp on each face"
        items={sharp ? marked(sharpChoices, usual.sharp) : [...marked(sharpChoices, usual.sharp), mixed]}
        value={sharp ?? 'mixed'}
        onchange={sharpAll}
      />
    {/if}
    {#if setup.backgrounds.length > 0}
      <Picker
        label="Background goal"
        items={wish ? marked(wishChoices, usual.wish) : [...marked(wishChoices, usual.wish), mixed]}
        value={wish ?? 'mixed'}
        onchange={wishAll}
      />
    {/if}
    <Picker
      label="Aperture"
      items={marked(styleChoices, usual.style)}
      value={intent.style}
      onchange={(value) => edit('Style', (draft) => void (draft.style = value))}
    />
    <ViewingFields
      viewing={workspace.setup.intent.viewing}
      allowedMm={workspace.plan?.circleOfConfusionMm}
      onchange={(to, how) => workspace.edit('Viewing', (draft) => void (draft.intent.viewing = to), how)}
    />
    <NumberField
      label="Keeper rate wanted (usual {Math.round(usual.oddsWanted * 100)}%)"
      unit="percent"
      value={Math.round(intent.oddsWanted * 1000) / 10}
      min={5}
      max={99.9}
      onchange={(percent, how) => edit('Keeper rate wanted', (draft) => void (draft.oddsWanted = percent / 100), how)}
    />
    <fieldset class="min-w-0">
      <legend class="label mb-0.5">Print crops ordered</legend>
      <div class="flex h-8 flex-wrap items-center gap-x-3">
        {#each shapeNames as shape (shape)}
          <Checkbox checked={intent.shapes.includes(shape)} onchange={() => order(shape)}>{shape}</Checkbox>
        {/each}
      </div>
    </fieldset>
    <TextField
      label="Name of this setup"
      value={setup.name}
      onchange={(name, how) => workspace.edit('Setup name', (draft) => void (draft.name = name), how)}
    />
    <TextField
      label="Notes, for the field card"
      value={setup.notes}
      maxlength={limits.maxNotesLength}
      optional
      onchange={(notes, how) => workspace.edit('Notes', (draft) => void (draft.notes = notes), how)}
    />
  </div>
  {#if otherJobs.length > 0}
    <div class="w-64">
      <Picker
        label="Copy to another job"
        items={[{ value: '', name: 'choose …' }, ...otherJobs]}
        value=""
        onchange={(jobId) => void workspace.app.setups.copy(workspace.row, jobId)}
      />
    </div>
  {/if}
</div>
