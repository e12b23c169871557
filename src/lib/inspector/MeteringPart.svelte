<script lang="ts">
  import { exposureModes, meterings } from '$core/setup/schema';
  import { exposureModeOf, meterReading } from '$core/technique/metering';
  import { lineOfSightFrom } from '$core/setup/lineOfSight';
  import { projection } from '../../render/request';
  import { exposureModeWords, meteringWords } from '$core/setup/focusChoices';
  import { correctionWords } from '$core/words/checks';
  import { landedWords } from '$core/words/ways';
  import Picker from '$lib/controls/Picker.svelte';
  import { getWorkspace } from '$lib/state/screen/workspace.svelte';

  /** What the meter looks at, and by how much it is then misled. */
  const workspace = getWorkspace();
  const metering = $derived(workspace.setup.camera.metering);
  const reading = $derived.by(() => {
    const { setup, plan, body, view, entry } = workspace;
    if (!plan || !body || !view || !entry) return null;
    const at = entry.target.position && projection({ setup, plan, body })(entry.target.position);
    const lineOfSight = lineOfSightFrom(setup, view, body, plan.pupilMagnification);
    return meterReading({ setup, body, lineOfSight, at: at ?? { x: 0.5, y: 0.5 } });
  });
  const largest = $derived(reading?.on[0]);
</script>

<div class="flex flex-wrap items-end gap-x-3 gap-y-1">
  <div class="w-48">
    <Picker
      label="Exposure mode"
      items={exposureModes.map((value) => ({ value, name: exposureModeWords[value] }))}
      value={workspace.setup.camera.exposureMode}
      onchange={(value) => workspace.edit('Exposure mode', (draft) => void (draft.camera.exposureMode = value))}
    />
  </div>
  <div class="w-48">
    <Picker
      label="Metering"
      items={meterings.map((value) => ({ value, name: meteringWords[value] }))}
      value={metering}
      onchange={(value) => workspace.edit('Metering', (draft) => void (draft.camera.metering = value))}
    />
  </div>
  {#if reading && largest && workspace.plan && exposureModeOf(workspace.setup) !== 'manual'}
    <p class="basis-full text-pretty" data-testid="metering">
      {#if Math.abs(reading.offStops) < 1 / 3}
        Reads about middle grey: no compensation.
      {:else}
        Reads {landedWords(workspace.plan, largest)}, {Math.abs(reading.offStops).toFixed(1)} stops
        {reading.offStops > 0 ? 'brighter' : 'darker'} than middle grey. Set exposure compensation to
        <span class="font-semibold">{correctionWords(reading.correction)}</span>.
      {/if}
    </p>
  {/if}
</div>
