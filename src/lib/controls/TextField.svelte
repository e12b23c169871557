<script lang="ts">
  import { Input, Label } from 'flowbite-svelte';

  interface Props {
    label: string;
    value: string;
    maxlength?: number;
    type?: 'text' | 'date';
    /** Save each keystroke; otherwise when the field is left. */
    whileTyping?: boolean;
    /** Whether it may be left empty. */
    optional?: boolean;
    onchange: (value: string, gesture: string | null) => unknown;
  }
  let {
    label,
    value,
    maxlength = 80,
    type = 'text',
    whileTyping = false,
    optional = false,
    onchange
  }: Props = $props();
  const id = $props.id();

  // What is being typed is the field's own until it is left, whatever arrives from the store meanwhile.
  let typed = $state<string | null>(null);

  function save(gesture: string | null) {
    const text = typed?.trim();
    if (text === undefined || text === value || (text === '' && !optional)) return;
    onchange(text, gesture);
  }
  function oninput(event: Event) {
    typed = (event.currentTarget as HTMLInputElement).value;
    if (whileTyping) save(`${id}-typing`);
  }
  function leave() {
    save(whileTyping ? `${id}-typing` : null);
    typed = null;
  }
</script>

<div>
  <Label for={id}>{label}</Label>
  <Input
    {id}
    {type}
    {maxlength}
    autocomplete="off"
    value={typed ?? value}
    {oninput}
    onblur={leave}
    onkeydown={(event: KeyboardEvent) => {
      if (event.key === 'Enter') leave();
      if (event.key === 'Escape') typed = null;
    }}
  />
</div>
