<script lang="ts">
  import type { Component } from 'svelte';

  interface Props {
    icon: Component<{ size?: number; 'aria-hidden'?: 'true' }>;
    /** What it does; its name and its hint. */
    name: string;
    id?: string;
    disabled?: boolean;
    onclick?: () => void;
  }
  /** A small button with an icon. */
  let { icon: Icon, name, id, disabled = false, onclick }: Props = $props();
</script>

<button
  {id}
  type="button"
  class="grid size-7 place-items-center disabled:opacity-30"
  aria-label={name}
  title={name}
  {disabled}
  {onclick}
>
  <Icon size={14} aria-hidden="true" />
</button>
