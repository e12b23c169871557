<script lang="ts" generics="T">
  import { Helper, Input, Label } from 'flowbite-svelte';
  import type { FormField } from './field.svelte';

  interface Props {
    field: FormField<T>;
    label: string;
    hideLabel?: boolean;
    placeholder?: string;
    maxlength?: number;
    type?: 'text' | 'date';
    inputmode?: 'text' | 'decimal';
    suggestions?: readonly string[];
  }
  /** The input of a field, with what is wrong with what was typed. */
  let {
    field,
    label,
    hideLabel = false,
    placeholder = '',
    maxlength,
    type = 'text',
    inputmode,
    suggestions = []
  }: Props = $props();
  const note = $derived(field.problem || (field.isDraft ? 'Not applied yet. Enter to apply, Esc to discard.' : ''));
</script>

<div class="min-w-0">
  <Label for={field.id} class={hideLabel ? 'sr-only' : ''}>{label}</Label>
  <Input
    id={field.id}
    {type}
    {maxlength}
    {placeholder}
    {inputmode}
    list={suggestions.length > 0 ? `${field.id}-list` : undefined}
    autocomplete="off"
    value={field.shown}
    aria-invalid={field.problem !== ''}
    aria-describedby={note === '' ? undefined : `${field.id}-note`}
    oninput={field.oninput}
    onfocus={field.onfocus}
    onblur={field.onblur}
    onkeydown={field.onkeydown}
  />
  {#if suggestions.length > 0}
    <datalist id="{field.id}-list">
      {#each suggestions as suggestion (suggestion)}<option value={suggestion}></option>{/each}
    </datalist>
  {/if}
  {#if field.problem !== ''}
    <Helper id="{field.id}-note" role="alert" class="mt-1 text-pencil"
      ><span class="sr-only">{`${label}: `}</span>{note}</Helper
    >
  {:else if note !== ''}
    <Helper id="{field.id}-note" class="mt-1 text-soft">{note}</Helper>
  {/if}
</div>
