<script lang="ts">
  import { scaleMm } from '$core/bench/pages';
  import FieldScope from '$lib/controls/FieldScope.svelte';
  import NumberField from '$lib/controls/NumberField.svelte';
  import type { FocusRun } from './kinds/focus.svelte';

  let { run }: { run: FocusRun } = $props();
</script>

<div class="w-64">
  <FieldScope of="bench">
    <NumberField
      label="Printed {scaleMm} mm line, measured"
      value={Number((run.scale * scaleMm).toFixed(3))}
      min={80}
      max={125}
      step={0.5}
      unit="millimetres"
      onchange={(mm) => (run.scale = mm / scaleMm)}
    />
  </FieldScope>
</div>
