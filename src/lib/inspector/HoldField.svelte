<script lang="ts">
  import NumberField from '$lib/controls/NumberField.svelte';
  import { getWorkspace } from '$lib/state/screen/workspace.svelte';

  /** Seconds between focusing and the shutter. */
  const workspace = getWorkspace();
</script>

<NumberField
  label="Delay, focus to shutter"
  unit="seconds"
  value={workspace.setup.camera.secondsToShutter}
  min={0}
  max={60}
  step={0.5}
  onchange={(seconds, how) =>
    workspace.edit('Time to shutter', (draft) => void (draft.camera.secondsToShutter = seconds), how)}
/>
