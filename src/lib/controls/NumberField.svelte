<script lang="ts">
  import { Input, Label } from 'flowbite-svelte';

  interface Props {
    label: string;
    value: number;
    min: number;
    max: number;
    step?: number;
    unit?: string;
    onchange: (value: number, gesture: string | null) => unknown;
  }
  let { label, value, min, max, step = 1, unit = '', onchange }: Props = $props();
  const id = $props.id();

  function changed(event: Event) {
    const field = event.currentTarget as HTMLInputElement;
    const next = field.valueAsNumber;
    // An emptied or impossible field goes back to what holds.
    if (!Number.isFinite(next)) field.value = String(value);
    else onchange(Math.min(max, Math.max(min, next)), `${id}-step`);
  }
</script>

<div>
  <Label for={id}>{label}{unit === '' ? '' : `, ${unit}`}</Label>
  <Input {id} type="number" {min} {max} {step} {value} oninput={changed} onblur={changed} />
</div>
