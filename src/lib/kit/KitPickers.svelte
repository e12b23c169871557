<script lang="ts">
  import Picker from '$lib/controls/Picker.svelte';
  import type { KitInUse } from './usedKit.svelte';

  /** Body and lens, of those still in use. */
  let { kit }: { kit: KitInUse } = $props();
  const named = (items: readonly { readonly id: string; readonly name: string }[]) =>
    items.map(({ id, name }) => ({ value: id, name }));
</script>

{#if kit.body && kit.lens}
  <Picker label="Body" items={named(kit.bodies)} value={kit.body.id} onchange={(id) => (kit.bodyId = id)} />
  <Picker label="Lens" items={named(kit.lenses)} value={kit.lens.id} onchange={(id) => (kit.lensId = id)} />
{/if}
