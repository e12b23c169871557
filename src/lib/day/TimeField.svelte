<script lang="ts">
  import { readClock } from '$core/words/day';
  import { FormField } from '$lib/controls/field.svelte';
  import FieldInput from '$lib/controls/FieldInput.svelte';
  import type { EditManner } from '$lib/data';

  interface Props {
    label: string;
    value: string | null;
    onchange: (value: string | null, how: EditManner) => unknown;
  }
  /** A time of the day, or empty. */
  let { label, value, onchange }: Props = $props();
  const id = $props.id();
  const field = new FormField<string | null>(id, {
    name: () => label,
    value: () => value,
    format: (clock) => clock ?? '',
    read: readClock,
    onchange: (clock, how) => onchange(clock, how)
  });
</script>

<FieldInput {field} {label} placeholder="14:35" />
