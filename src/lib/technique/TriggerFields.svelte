<script lang="ts">
  import { triggerWords } from '$core/setup/focusChoices';
  import Choice from '$lib/controls/Choice.svelte';
  import HoldField from '$lib/inspector/HoldField.svelte';
  import { getWorkspace } from '$lib/state/screen/workspace.svelte';

  /** The button that focuses, frames for each press, and how long one holds. */
  const workspace = getWorkspace();
  const camera = $derived(workspace.setup.camera);
</script>

<div class="mt-3 flex flex-wrap items-end gap-x-3 gap-y-2">
  {#if workspace.body?.kind !== 'phone'}
    <Choice
      legend="Focus button"
      value={camera.trigger}
      options={[
        { value: 'halfPress', name: triggerWords.halfPress },
        { value: 'thumb', name: triggerWords.thumb }
      ]}
      onchange={(trigger) => workspace.edit('Focus button', (draft) => void (draft.camera.trigger = trigger))}
    />
  {/if}
  <Choice
    legend="Drive"
    value={camera.drive}
    options={[
      { value: 'one', name: 'one frame' },
      { value: 'burst', name: 'burst' }
    ]}
    onchange={(drive) => workspace.edit('Drive', (draft) => void (draft.camera.drive = drive))}
  />
  <div class="w-44">
    <HoldField />
  </div>
</div>
