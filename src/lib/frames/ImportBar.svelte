<script lang="ts">
  import { Button } from 'flowbite-svelte';
  import Progress from '$lib/controls/Progress.svelte';
  import { getApp } from '$lib/state/app.svelte';

  /** How far bringing in has come; what could not be brought in, each with why. */
  const app = getApp();
  const now = $derived(app.frames.bringing.now);
  const brought = $derived(now ? now.done - now.refused.length - now.again : 0);
  const missing = $derived(app.frames.missing);
  let input = $state<HTMLInputElement>();
  let all = $state(false);
  /** What is there already is known by what is in it. */
  function goOn(event: Event) {
    const field = event.currentTarget as HTMLInputElement;
    void app.frames.add([...(field.files ?? [])]);
    field.value = '';
  }
  const few = 4;
</script>

{#if missing.length > 0 && now?.state !== 'running' && now?.state !== 'paused'}
  <section class="mb-4 border border-line bg-raised p-3" aria-label="Unfinished import" data-testid="unfinished">
    <p>
      <b>An import was interrupted.</b>
      {missing.length === 1 ? 'One photo has' : `${missing.length} photos have`} not come: {missing
        .slice(0, few)
        .join(', ')}{missing.length > few ? ` and ${missing.length - few} more` : ''}.
    </p>
    <div class="mt-2 flex flex-wrap gap-3">
      <Button onclick={() => input?.click()}>Choose them again</Button>
      <Button color="alternative" onclick={() => app.frames.forgetUnfinished()}>Not needed</Button>
    </div>
    <input
      bind:this={input}
      type="file"
      multiple
      class="sr-only"
      tabindex="-1"
      aria-label="Photos that have not come"
      onchange={goOn}
    />
  </section>
{/if}
{#if now}
  <section class="mb-4 border border-line bg-raised p-3" aria-label="Bringing in" data-testid="importing">
    {#if now.state === 'running' || now.state === 'paused'}
      <div class="flex flex-wrap items-end gap-x-4 gap-y-2">
        <Progress label="{now.done} of {now.total} photos read and measured" share={now.done / now.total} />
        {#if now.state === 'running'}
          <Button color="alternative" onclick={() => app.frames.bringing.pause()}>Pause</Button>
        {:else}
          <Button color="alternative" onclick={() => app.frames.bringing.goOn()}>Go on</Button>
        {/if}
        <Button color="alternative" onclick={() => app.frames.bringing.stop()}>Stop</Button>
      </div>
    {:else}
      <p class="flex flex-wrap items-center gap-x-4">
        <span role="status"
          >{brought === 1 ? 'One photo' : `${brought} photos`} imported{now.state === 'stopped'
            ? ', then stopped'
            : ''}.{now.again > 0 ? ` ${now.again} already there.` : ''}</span
        >
        <Button color="alternative" onclick={() => app.frames.bringing.dismiss()}>Done</Button>
      </p>
    {/if}
    {#if now.refused.length > 0}
      <ul class="mt-2 text-[14px]">
        {#each all ? now.refused : now.refused.slice(0, few) as item, index (index)}
          <li><b>{item.file}</b> {item.reason}</li>
        {/each}
      </ul>
      {#if now.refused.length > few && !all}
        <button type="button" class="mt-1 min-h-6 underline" onclick={() => (all = true)}
          >and {now.refused.length - few} more</button
        >
      {/if}
    {/if}
  </section>
{/if}
