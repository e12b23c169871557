<script lang="ts">
  import { formatNumber, parseNumber, steppedNumber, type NumberUnit } from '$core/units/number';
  import type { EditManner } from '$lib/data';
  import { FormField } from './field.svelte';
  import FieldInput from './FieldInput.svelte';

  interface Props {
    label: string;
    value: number;
    min: number;
    max: number;
    /** One press of an arrow key. */
    step?: number;
    /** What is typed and shown. */
    unit?: NumberUnit;
    whole?: boolean;
    onchange: (value: number, how: EditManner) => unknown;
  }
  let { label, value, min, max, step = 1, unit = 'none', whole = false, onchange }: Props = $props();
  const id = $props.id();
  const field = new FormField<number>(id, {
    name: () => label,
    value: () => value,
    format: formatNumber,
    read: (text) => parseNumber(text, { unit, min, max, whole }),
    onchange: (next, how) => onchange(next, how),
    step: (now, direction) => steppedNumber(now, direction * step, { min, max })
  });
  const units = { deg: '°', percent: '%', seconds: 's', millimetres: 'mm', metresPerSecond: 'm/s' } as const;
  const shownUnit = $derived(unit in units ? `, ${units[unit as keyof typeof units]}` : '');
</script>

<FieldInput {field} label="{label}{shownUnit}" inputmode="text" />
