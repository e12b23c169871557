<script lang="ts">
  import type { Component } from 'svelte';

  interface Props {
    name: string;
    icon?: Component<{ size?: number; 'aria-hidden'?: 'true' }>;
    marked?: boolean;
    disabled?: boolean;
    onchosen: () => unknown;
  }
  /** One thing to do in a menu. */
  let { name, icon: Icon, marked = false, disabled = false, onchosen }: Props = $props();
</script>

<li>
  <button
    type="button"
    class="flex w-full items-center gap-3 px-4 py-1.5 text-left text-[14px] hover:bg-surface disabled:opacity-30 {marked
      ? 'font-bold'
      : ''}"
    {disabled}
    onclick={onchosen}
    >{#if Icon}<Icon size={16} aria-hidden="true" />{/if}<span class="min-w-0 truncate">{name}</span></button
  >
</li>
