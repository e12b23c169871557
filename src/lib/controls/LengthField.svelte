<script lang="ts">
  import { Helper, Input, Label } from 'flowbite-svelte';
  import { formatLengthExactly, parseLength } from '$core/words/length';
  import { getApp } from '$lib/state/app.svelte';

  interface Props {
    label: string;
    valueMm: number | null;
    /** Takes the new value; false when it is refused. */
    onchange: (mm: number, gesture: string | null) => unknown;
    /** Takes an emptied field, where that means something. */
    onclear?: () => unknown;
    /** One press of an arrow key, mm. */
    stepMm?: number;
    placeholder?: string;
    hideLabel?: boolean;
  }
  let { label, valueMm, onchange, onclear, stepMm = 50, placeholder = '', hideLabel = false }: Props = $props();

  const app = getApp();
  const id = $props.id();
  let typed = $state<string | null>(null);
  let problem = $state('');
  const shown = $derived(valueMm === null ? '' : formatLengthExactly(valueMm, app.settings.unit));

  function commit() {
    if (typed === null) return;
    if (typed.trim() === '' && onclear) {
      onclear();
    } else {
      const parsed = parseLength(typed, app.settings.unit, app.settings.paceMm);
      if (!parsed.ok) {
        problem = parsed.message;
        return;
      }
      if (typed !== shown) onchange(parsed.mm, null);
    }
    problem = '';
    typed = null;
  }

  function onkeydown(event: KeyboardEvent) {
    if (event.key === 'Enter') commit();
    if (event.key === 'Escape') {
      typed = null;
      problem = '';
    }
    if ((event.key === 'ArrowUp' || event.key === 'ArrowDown') && valueMm !== null) {
      event.preventDefault();
      typed = null;
      onchange(valueMm + (event.key === 'ArrowUp' ? stepMm : -stepMm), `${id}-step`);
    }
  }
</script>

<div>
  <Label for={id} class={hideLabel ? 'sr-only' : ''}>{label}</Label>
  <Input
    {id}
    {placeholder}
    autocomplete="off"
    value={typed ?? shown}
    aria-invalid={problem !== ''}
    aria-describedby={problem === '' ? undefined : `${id}-problem`}
    oninput={(event: Event) => (typed = (event.currentTarget as HTMLInputElement).value)}
    onblur={commit}
    {onkeydown}
  />
  {#if problem !== ''}<Helper id="{id}-problem" role="alert" class="mt-1 text-pencil">{problem}</Helper>{/if}
</div>
