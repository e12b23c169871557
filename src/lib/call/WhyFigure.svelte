<script lang="ts">
  import type { Snippet } from 'svelte';
  import { unbroken } from '$core/units/length';

  interface Props {
    label: string;
    /** Whether its reason is being shown. */
    open: boolean;
    onask: () => void;
    children: Snippet;
  }
  /** One figure of the call; pressing it says why. */
  let { label, open, onask, children }: Props = $props();
</script>

<button
  type="button"
  class="group flex min-w-0 flex-col text-left"
  aria-expanded={open}
  aria-controls="call-why"
  onclick={onask}
>
  <span
    class="condensed border-b text-[19px] leading-tight font-semibold {open
      ? 'border-pencil'
      : 'border-transparent group-hover:border-line'}">{@render children()}</span
  >
  <span class="label mt-0.5 text-pretty">{unbroken(label)}</span>
</button>
