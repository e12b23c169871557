<script lang="ts">
  import { tick } from 'svelte';
  import { Button } from 'flowbite-svelte';
  import { getApp } from '$lib/state/app.svelte';

  /** Offered once, with the first setup of one's own: to be shown round it. */
  const app = getApp();
  const over = () => app.settings.set({ welcomed: 'yes' });
  async function show() {
    const { showRound } = await import('./tour');
    // Over with the first press, not the last: however the round ends, it is not offered again.
    over();
    await tick();
    showRound();
  }
</script>

{#if app.settings.now.welcomed === 'started'}
  <div
    class="flex flex-wrap items-center gap-x-3 gap-y-1 border-b border-line px-4 py-1.5"
    data-testid="show-round"
    role="note"
  >
    <p class="min-w-0 flex-1 text-pretty">Your first setup is planned. Take a five-step tour of this screen?</p>
    <Button size="xs" onclick={show}>Take the tour</Button>
    <Button size="xs" color="alternative" onclick={over}>Skip</Button>
  </div>
{/if}
