<script lang="ts">
  import type { Snippet } from 'svelte';
  import { setFieldScope } from './field.svelte';

  interface Props {
    /** What the fields inside belong to; their drafts are kept under it. */
    of: string;
    children: Snippet;
  }
  let { of, children }: Props = $props();
  setFieldScope(() => of);
</script>

{@render children()}
