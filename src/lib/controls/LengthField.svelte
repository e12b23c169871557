<script lang="ts">
  import { formatLengthExactly, parseLength } from '$core/units/length';
  import { steppedNumber } from '$core/units/number';
  import { getApp } from '$lib/state/app.svelte';
  import type { EditManner } from '$lib/data';
  import { FormField, type Read } from './field.svelte';
  import FieldInput from './FieldInput.svelte';

  interface Props {
    label: string;
    /** The field's name among the others, where its label changes with what is typed. */
    name?: string;
    valueMm: number | null;
    /** Shortest and longest, mm. */
    bounds: { readonly min: number; readonly max: number };
    /** Takes the new value; false when it is refused. */
    onchange: (mm: number, how: EditManner) => unknown;
    /** Takes an emptied field, where that means something. */
    onclear?: (how: EditManner) => unknown;
    /** One press of an arrow key, mm. */
    stepMm?: number;
    placeholder?: string;
    hideLabel?: boolean;
  }
  let { label, name, valueMm, bounds, onchange, onclear, stepMm = 50, placeholder, hideLabel }: Props = $props();
  const { settings } = getApp();
  const id = $props.id();

  const field = new FormField<number | null>(id, {
    name: () => name ?? label,
    value: () => valueMm,
    format: (mm) => (mm === null ? '' : formatLengthExactly(mm, settings.now.unit)),
    read: (text): Read<number | null> => {
      if (text.trim() === '' && onclear) return { ok: true, value: null };
      const { unit, paceMm } = settings.now;
      const parsed = parseLength(text, unit, paceMm);
      if (!parsed.ok) return parsed;
      if (parsed.mm >= bounds.min && parsed.mm <= bounds.max) return { ok: true, value: parsed.mm };
      const [from, to] = [bounds.min, bounds.max].map((mm) => formatLengthExactly(mm, unit));
      return { ok: false, message: `From ${from} to ${to}.` };
    },
    onchange: (mm, how) => (mm === null ? onclear?.(how) : onchange(mm, how)),
    step: (mm, direction) => (mm === null ? mm : steppedNumber(mm, direction * stepMm, bounds))
  });
</script>

<FieldInput {field} {label} {hideLabel} {placeholder} />
