<script module lang="ts">
  import { safeStorage } from '$lib/data';

  const storage = safeStorage(() => localStorage);
</script>

<script lang="ts">
  import { CircleQuestionMark } from '@lucide/svelte';
  import { onMount } from 'svelte';

  interface Props {
    /** The screen whose keys these are. */
    of: string;
    keys: readonly string[];
  }
  /** What each key does here: shown until this screen was left once, then behind the question mark. */
  let { of, keys }: Props = $props();
  const id = $props.id();
  // svelte-ignore state_referenced_locally
  const storedAs = `focalis-keys-seen-${of}`;
  let open = $state(storage.get(storedAs) === null);
  onMount(() => () => storage.set(storedAs, 'yes'));
</script>

<div class="flex min-w-0 flex-1 items-start gap-x-3">
  {#if open}<p {id} class="flex flex-wrap gap-x-6 gap-y-1 py-1">
      {#each keys as key (key)}<span>{key}</span>{/each}
    </p>{/if}
  <button
    type="button"
    class="ml-auto grid size-6 shrink-0 place-items-center hover:text-ink"
    aria-label="Keys"
    aria-expanded={open}
    aria-controls={id}
    onclick={() => (open = !open)}><CircleQuestionMark size={15} aria-hidden="true" /></button
  >
</div>
