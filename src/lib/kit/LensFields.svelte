<script lang="ts">
  import type { Draft } from 'immer';
  import { canMount, mountsOf } from '$core/kit/fits';
  import { limits } from '$core/schema/values';
  import { ownWords } from '$core/words/record';
  import type { Lens } from '$core/kit/schema';
  import { dateText } from '$lib/controls/dates';
  import FieldScope from '$lib/controls/FieldScope.svelte';
  import LengthField from '$lib/controls/LengthField.svelte';
  import NumberField from '$lib/controls/NumberField.svelte';
  import Picker from '$lib/controls/Picker.svelte';
  import TextField from '$lib/controls/TextField.svelte';
  import type { EditManner } from '$lib/data';
  import { getApp } from '$lib/state/app.svelte';
  import More from './More.svelte';
  import SharpnessTable from './SharpnessTable.svelte';
  import { characterChoices, rimChoices, weakEndChoices } from './words';

  let { lens }: { lens: Lens } = $props();
  const { kit, settings } = getApp();
  /** Where it was measured to focus, by the record or at the Bench. */
  const own = $derived(settings.now.habits.own.filter(({ lensId }) => lensId === lens.id));
  const nameOf = (id: string) =>
    [...kit.all.bodies, ...kit.all.lenses].find((item) => item.id === id)?.name ?? 'kit no longer here';
  const change = (label: string, recipe: (draft: Draft<Lens>) => void, how: EditManner = null) =>
    kit.change('lenses', lens.id, label, recipe, how);
  const mounts = $derived(mountsOf(kit.all));
  const goesOn = $derived(kit.shown.bodies.filter((body) => canMount(body, lens, kit.all.adapters)));
  const zoom = $derived(lens.longestMm > lens.shortestMm);
  const closest = { min: 10, max: 20_000 } as const;
  const tables = [
    { key: 'measured', title: 'Sharpness measured by aperture, line pairs per mm at half contrast' },
    { key: 'measuredCorner', title: 'Likewise near the corners' }
  ] as const;

  function focal(end: 'short' | 'long', mm: number, how: EditManner) {
    return change(
      'focal length',
      (draft) => {
        const prime = draft.longestMm === draft.shortestMm;
        if (end === 'short') {
          draft.shortestMm = mm;
          // One figure is enough for a prime.
          if (prime) draft.longestMm = mm;
        } else draft.longestMm = mm;
      },
      how
    );
  }
</script>

<div class="mt-3 grid grid-cols-2 items-start gap-x-3 gap-y-2">
  <NumberField
    label="Focal length, shortest"
    unit="millimetres"
    value={lens.shortestMm}
    min={1}
    max={2000}
    onchange={(mm, how) => focal('short', mm, how)}
  />
  <NumberField
    label="Longest (prime: the same)"
    unit="millimetres"
    value={lens.longestMm}
    min={1}
    max={2000}
    onchange={(mm, how) => focal('long', mm, how)}
  />
  <NumberField
    label="Maximum aperture, f/"
    value={lens.widestFNumber}
    min={0.5}
    max={128}
    step={0.1}
    onchange={(f, how) => change('widest opening', (draft) => void (draft.widestFNumber = f), how)}
  />
  {#if zoom}
    <NumberField
      label="Widest at the long end, f/"
      value={lens.widestAtLong ?? lens.widestFNumber}
      min={0.5}
      max={128}
      step={0.1}
      onchange={(f, how) =>
        change(
          'widest at the long end',
          (draft) => void (draft.widestAtLong = f === draft.widestFNumber ? null : f),
          how
        )}
    />
  {/if}
  <TextField
    label="Mount (empty: fits any body)"
    value={lens.mount}
    maxlength={limits.maxMountLength}
    optional
    suggestions={mounts}
    onchange={(mount, how) => change('mount', (draft) => void (draft.mount = mount), how)}
  />
  {#if goesOn.length === 0}
    <p class="col-span-2 border-l-2 border-pencil pl-2">
      None of your bodies has this mount, directly or by an adapter: no setup can use it yet.
    </p>
  {/if}
  <LengthField
    label="Closest focus, from the sensor"
    bounds={closest}
    valueMm={lens.closestFocusMm}
    stepMm={10}
    onchange={(mm, how) => change('closest focus', (draft) => void (draft.closestFocusMm = mm), how)}
  />
  <NumberField
    label="Stabiliser, stops (0: none)"
    value={lens.stabiliserStops}
    min={0}
    max={10}
    step={0.5}
    onchange={(stops, how) => change('stabiliser', (draft) => void (draft.stabiliserStops = stops), how)}
  />
</div>
<More source="Typical values. Change what you know.">
  <NumberField
    label="Minimum aperture, f/"
    value={lens.smallestFNumber}
    min={0.5}
    max={128}
    onchange={(f, how) => change('smallest opening', (draft) => void (draft.smallestFNumber = f), how)}
  />
  {#if zoom}
    <NumberField
      label="Smallest at the long end, f/"
      value={lens.smallestAtLong ?? lens.smallestFNumber}
      min={0.5}
      max={128}
      onchange={(f, how) =>
        change(
          'smallest at the long end',
          (draft) => void (draft.smallestAtLong = f === draft.smallestFNumber ? null : f),
          how
        )}
    />
  {/if}
  <NumberField
    label="Aperture blades"
    value={lens.blades}
    min={3}
    max={30}
    whole
    onchange={(n, how) => change('blades', (draft) => void (draft.blades = n), how)}
  />
  <NumberField
    label="Pupil magnification"
    value={lens.pupilMagnification}
    min={0.2}
    max={5}
    step={0.05}
    onchange={(n, how) => change('pupil magnification', (draft) => void (draft.pupilMagnification = n), how)}
  />
  <Picker
    label="Sharpness"
    items={characterChoices}
    value={lens.character}
    onchange={(value) => change('sharpness', (draft) => void (draft.character = value))}
  />
  {#if zoom}
    <Picker
      label="Weaker at"
      items={weakEndChoices}
      value={lens.weakEnds}
      onchange={(value) => change('weak ends', (draft) => void (draft.weakEnds = value))}
    />
  {/if}
  <Picker
    label="Edge of out-of-focus highlights"
    items={rimChoices}
    value={lens.rim}
    onchange={(value) => change('rim', (draft) => void (draft.rim = value))}
  />
  {#each tables as { key, title } (key)}
    <FieldScope of="kit/{lens.id}/{key}">
      <SharpnessTable
        {title}
        entries={lens[key] ?? []}
        first={lens.widestFNumber}
        change={(label, recipe, how) =>
          change(
            label,
            (draft) => {
              const list = draft[key] ?? [];
              recipe(list);
              if (list.length > 0) draft[key] = list;
              else if (key === 'measured') delete draft.measured;
              else delete draft.measuredCorner;
            },
            how
          )}
      />
    </FieldScope>
  {/each}
</More>
{#if own.length > 0}
  <ul class="col-span-full mt-2" data-testid="own-focus">
    {#each own as one (`${one.bodyId} ${one.method} ${one.recomposed}`)}
      <li class="border-t border-line py-1 text-[14px] text-pretty">
        {ownWords(one, nameOf)}{one.learnedAt === null ? '' : `, ${dateText(one.learnedAt)}`}
      </li>
    {/each}
  </ul>
{/if}
