<script lang="ts">
  import { eyesOf, prefocus, usualWay, whoPasses, type Way } from '$core/technique/prefocus';
  import { prefocusWords } from '$core/words/technique';
  import { bounds } from '$core/setup/bounds';
  import LengthField from '$lib/controls/LengthField.svelte';
  import { getWorkspace } from '$lib/state/screen/workspace.svelte';

  /** The ring set beforehand for whoever passes between two distances. */
  const workspace = getWorkspace();
  const person = $derived(whoPasses(workspace.setup));
  const subject = $derived(workspace.plan?.subjects.find(({ id }) => id === person?.id));
  const usual = $derived(person && subject ? usualWay(person, eyesOf(subject.points)) : null);
  let asked = $state<Partial<Way>>({});
  const way = $derived(usual ? { ...usual, ...asked } : null);
  const found = $derived(way ? prefocus(workspace.question, way) : null);
</script>

{#if way && found}
  <div class="mt-2 flex flex-wrap items-end gap-x-3 gap-y-1" data-testid="prefocus">
    <div class="w-28">
      <LengthField
        label="Prefocus from"
        bounds={bounds.fromLensMm}
        valueMm={way.fromMm}
        stepMm={100}
        onchange={(fromMm) => void (asked = { ...asked, fromMm })}
      />
    </div>
    <div class="w-28">
      <LengthField
        label="to"
        name="Prefocus to"
        bounds={bounds.fromLensMm}
        valueMm={way.toMm}
        stepMm={100}
        onchange={(toMm) => void (asked = { ...asked, toMm })}
      />
    </div>
    <p class="min-w-0 flex-1 basis-60 pb-1 text-pretty">{prefocusWords(found, workspace.unit)}</p>
  </div>
{/if}
