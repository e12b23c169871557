<script lang="ts">
  import { bounds } from '$core/setup/bounds';
  import type { Intent } from '$core/setup/schema';
  import type { EditManner } from '$lib/data';
  import HowComputed from './HowComputed.svelte';
  import LengthField from './LengthField.svelte';
  import NumberField from './NumberField.svelte';
  import Picker from './Picker.svelte';

  type Viewing = Intent['viewing'];
  interface Props {
    viewing: Viewing;
    onchange: (viewing: Viewing, how: EditManner) => unknown;
    /** Blur allowed on the sensor, mm, where it is known. */
    allowedMm?: number | undefined;
  }
  /** Where the picture will be looked at: it decides how much blur is allowed. */
  let { viewing, onchange, allowedMm }: Props = $props();

  const seen = (longEdgeMm: number, distanceMm: number, acuity: 'traditional' | 'arcMinute' = 'traditional') =>
    ({ kind: 'seen', longEdgeMm, distanceMm, acuity }) as const;

  const presets: readonly { value: string; name: string; viewing: Viewing }[] = [
    { value: 'close', name: 'closely, on a large screen', viewing: { kind: 'close' } },
    { value: 'traditional', name: 'standard print', viewing: { kind: 'traditional' } },
    { value: 'album', name: 'an album, 30 cm at 40 cm', viewing: seen(300, 400) },
    { value: 'wall', name: 'a wall print, 60 cm at 1 m', viewing: seen(600, 1000) },
    { value: 'phone', name: 'a phone, 14 cm at 30 cm', viewing: seen(140, 300) },
    { value: 'screen', name: 'a big screen, 60 cm at 60 cm', viewing: seen(600, 600) },
    { value: 'sharpEye', name: 'print, critical viewing', viewing: seen(300, 300, 'arcMinute') },
    { value: 'pixels', name: 'pixels at 100%', viewing: { kind: 'pixels', pixels: 2 } }
  ];
  const current = $derived(presets.find((item) => JSON.stringify(item.viewing) === JSON.stringify(viewing)));
  const items = $derived([
    ...presets.map(({ value, name }) => ({ value, name })),
    ...(current ? [] : [{ value: 'own', name: 'own figures' }])
  ]);

  function choose(value: string) {
    const preset = presets.find((item) => item.value === value);
    if (preset) onchange(preset.viewing, null);
  }
</script>

<div>
  <Picker label="Viewed as" {items} value={current?.value ?? 'own'} onchange={choose} />
  {#if allowedMm !== undefined}
    <p class="label mt-0.5">
      allows {(allowedMm * 1000).toFixed(1)} µm of blur on the sensor<HowComputed of="viewing" />
    </p>
  {/if}
</div>
{#if viewing.kind === 'seen'}
  <div class="grid grid-cols-2 gap-2">
    <LengthField
      label="Its long edge"
      bounds={bounds.viewedEdgeMm}
      valueMm={viewing.longEdgeMm}
      stepMm={10}
      onchange={(longEdgeMm, how) => onchange({ ...viewing, longEdgeMm }, how)}
    />
    <LengthField
      label="Seen from"
      bounds={bounds.viewedFromMm}
      valueMm={viewing.distanceMm}
      onchange={(distanceMm, how) => onchange({ ...viewing, distanceMm }, how)}
    />
  </div>
{:else if viewing.kind === 'pixels'}
  <NumberField
    label="Acceptable blur, pixels"
    value={viewing.pixels}
    min={0.5}
    max={50}
    step={0.5}
    onchange={(pixels, how) => onchange({ kind: 'pixels', pixels }, how)}
  />
{/if}
