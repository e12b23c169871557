<script lang="ts">
  import { Button } from 'flowbite-svelte';
  import { getApp } from '$lib/state/app.svelte';

  /** What to do where there are no frames yet; for the demo there are some. */
  const app = getApp();
  /** Shot by npm run simulate -- --setup demo-west-door --frames 8 --seed 11. */
  const demoFrames = Array.from({ length: 8 }, (_, index) => `FOC_110${index + 1}.JPG`);
  const demoFramesOf = 'demo-west-door';
  /** Frames the simulated camera shot of a setup of the demo: there is always something to measure. */
  const demoSetup = $derived(app.open.rows.find(({ id }) => id === demoFramesOf));
  let fetching = $state(false);
  async function bringDemo() {
    fetching = true;
    try {
      const files = await Promise.all(
        demoFrames.map(async (name) => {
          const answer = await fetch(`/demo/frames/${name}`);
          if (!answer.ok) throw new Error(`${name} could not be fetched.`);
          return new File([await answer.blob()], name, { type: 'image/jpeg' });
        })
      );
      void app.frames.add(files, demoSetup?.id ?? null);
    } catch (error) {
      app.messages.problem(`The demo's frames: ${error instanceof Error ? error.message : String(error)}`);
    } finally {
      fetching = false;
    }
  }
</script>

<p class="max-w-xl px-4 text-pretty text-soft">
  Drop photos or whole folders anywhere here: JPEG, PNG, WebP, or raw files with a preview inside. Without any at hand,
  a simulated camera shoots one of your setups, with everything that goes wrong.
</p>
{#if demoSetup}
  <div class="mt-3 px-4">
    <Button color="alternative" disabled={fetching} onclick={bringDemo}
      >{fetching ? 'Fetching them …' : `Measure ${demoFrames.length} frames of ${demoSetup.setup.name}`}</Button
    >
  </div>
{/if}
