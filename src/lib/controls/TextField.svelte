<script lang="ts">
  import { limits } from '$core/schema/values';
  import type { EditManner } from '$lib/data';
  import { FormField, type Read } from './field.svelte';
  import FieldInput from './FieldInput.svelte';

  interface Props {
    label: string;
    value: string;
    maxlength?: number;
    type?: 'text' | 'date';
    /** Whether it may be left empty. */
    optional?: boolean;
    /** What is wrong with a text; null when nothing is. */
    problem?: (text: string) => string | null;
    /** What others have been called, to choose from. */
    suggestions?: readonly string[];
    onchange: (value: string, how: EditManner) => unknown;
  }
  let {
    label,
    value,
    maxlength = limits.maxNameLength,
    type = 'text',
    optional = false,
    problem = () => null,
    suggestions = [],
    onchange
  }: Props = $props();
  const id = $props.id();

  const field = new FormField<string>(id, {
    name: () => label,
    value: () => value,
    format: (text) => text,
    read: (text): Read<string> => {
      const trimmed = text.trim();
      if (/[<>]/.test(trimmed)) return { ok: false, message: 'Leave out < and >.' };
      const wrong = trimmed === '' && optional ? null : problem(trimmed);
      if (wrong !== null) return { ok: false, message: wrong };
      return trimmed === '' && !optional ? { ok: false, message: 'It needs a name.' } : { ok: true, value: trimmed };
    },
    onchange: (text, how) => onchange(text, how)
  });
</script>

<FieldInput {field} {label} {maxlength} {type} {suggestions} />
