<script lang="ts">
  import { Popover } from 'flowbite-svelte';
  import { Info } from '@lucide/svelte';
  import { how, type HowKey } from '$core/words/how';

  /** A figure's own "How this is computed"; `more`: what it came to here. */
  let { of, more = '', ...rest }: { of: HowKey; more?: string; class?: string } = $props();
  const id = $props.id();
  const said = $derived(how[of]);
</script>

<button
  type="button"
  {id}
  class="inline-grid size-6 place-items-center align-middle text-soft hover:text-ink {rest.class ?? ''}"
  aria-label="How this is computed: {said.title}"><Info size={14} aria-hidden="true" /></button
>
<Popover
  triggeredBy="#{id}"
  trigger="click"
  arrow={false}
  class="z-30 w-80 border-line bg-raised text-ink dark:bg-raised"
>
  <div class="text-left text-[12.5px] leading-snug font-normal whitespace-normal" data-testid="how">
    <p class="font-semibold">{said.title}</p>
    <p class="mt-1 text-pretty">{said.text}</p>
    {#if said.formula}<p class="mt-1 font-medium text-pretty">{said.formula}</p>{/if}
    {#if more !== ''}<p class="mt-1 text-pretty">{more}</p>{/if}
    <p class="mt-1 text-pretty text-soft">{said.source}</p>
  </div>
</Popover>
