<script lang="ts">
  import type { Draft } from 'immer';
  import { mountsOf } from '$core/kit/fits';
  import { limits } from '$core/schema/values';
  import type { Adapter } from '$core/kit/schema';
  import NumberField from '$lib/controls/NumberField.svelte';
  import TextField from '$lib/controls/TextField.svelte';
  import type { EditManner } from '$lib/data';
  import { getApp } from '$lib/state/app.svelte';

  let { adapter }: { adapter: Adapter } = $props();
  const { kit } = getApp();
  const change = (label: string, recipe: (draft: Draft<Adapter>) => void, how: EditManner = null) =>
    kit.change('adapters', adapter.id, label, recipe, how);
  const mounts = $derived(mountsOf(kit.all));
</script>

<div class="mt-3 grid grid-cols-2 items-start gap-x-3 gap-y-2">
  <TextField
    label="Lens mount"
    value={adapter.lensMount}
    maxlength={limits.maxMountLength}
    optional
    suggestions={mounts}
    onchange={(mount, how) => change('lens side', (draft) => void (draft.lensMount = mount), how)}
  />
  <TextField
    label="Goes on bodies with the mount"
    value={adapter.bodyMount}
    maxlength={limits.maxMountLength}
    optional
    suggestions={mounts}
    onchange={(mount, how) => change('body side', (draft) => void (draft.bodyMount = mount), how)}
  />
  <NumberField
    label="Focal length × (1: none)"
    value={adapter.factor}
    min={0.3}
    max={4}
    step={0.1}
    onchange={(factor, how) => change('factor', (draft) => void (draft.factor = factor), how)}
  />
  <NumberField
    label="Stops lost"
    value={adapter.stopsLost}
    min={-4}
    max={4}
    step={0.5}
    onchange={(stops, how) => change('stops lost', (draft) => void (draft.stopsLost = stops), how)}
  />
</div>
