<script lang="ts" generics="T extends string">
  import { Label, Select } from 'flowbite-svelte';

  interface Props {
    label: string;
    items: readonly { readonly value: T; readonly name: string }[];
    value: T;
    onchange: (value: T) => unknown;
    hideLabel?: boolean;
  }
  let { label, items, value, onchange, hideLabel = false }: Props = $props();
  const id = $props.id();
</script>

<div class="min-w-0">
  <Label for={id} class={hideLabel ? 'sr-only' : ''}>{label}</Label>
  <Select
    {id}
    {value}
    placeholder=""
    items={[...items]}
    onchange={(event: Event) => onchange((event.currentTarget as HTMLSelectElement).value as T)}
  />
</div>
