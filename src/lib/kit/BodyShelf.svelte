<script lang="ts">
  import type { Bag } from '$core/kit/bags';
  import { mountings } from '$core/kit/fits';
  import type { Body, Kit } from '$core/kit/schema';
  import Picker from '$lib/controls/Picker.svelte';
  import { getApp } from '$lib/state/app.svelte';
  import { bodyFacts } from './words';

  interface Props {
    shown: Kit;
    bag: Bag | undefined;
    selected: string | null;
    onselect: (id: string) => void;
  }
  /** The bodies, with what is on them at the start. */
  let { shown, bag, selected, onselect }: Props = $props();
  const { kit } = getApp();
  const inBag = (body: Body) => bag?.bodies.find((item) => item.bodyId === body.id);
  const lensesFor = (body: Body) =>
    mountings(shown, body).map(({ lens, adapterIds }) => ({
      value: lens.id,
      name:
        adapterIds.length > 0
          ? `${lens.name}, by ${shown.adapters.find((item) => item.id === adapterIds[0])?.name}`
          : lens.name
    }));
  function put(body: Body, lensId: string) {
    if (!bag) return;
    kit.changeBag(bag.id, `${body.name} at the start`, (draft) => {
      const found = draft.bodies.find((item) => item.bodyId === body.id);
      if (found) found.lensId = lensId === '' ? null : lensId;
      if (lensId !== '' && !draft.lensIds.includes(lensId)) draft.lensIds.push(lensId);
      // What joins the two comes along.
      const way = mountings(shown, body).find((item) => item.lens.id === lensId)?.adapterIds ?? [];
      for (const id of way) if (!draft.adapterIds.includes(id)) draft.adapterIds.push(id);
    });
  }
</script>

<ul class="grid gap-2 sm:grid-cols-2 xl:grid-cols-3">
  {#each shown.bodies as body (body.id)}
    {@const there = inBag(body)}
    <li
      class="border bg-raised {body.id === selected ? 'border-pencil' : 'border-line'} {(bag && !there) || body.retired
        ? 'border-dashed'
        : ''}"
    >
      <button
        type="button"
        class="block w-full px-3 py-2 text-left"
        aria-pressed={body.id === selected}
        onclick={() => onselect(body.id)}
      >
        <span
          class="condensed block truncate text-[16px] font-semibold {(bag && !there) || body.retired
            ? 'text-soft'
            : ''}">{body.name}{body.retired ? ', retired' : ''}</span
        >
        <span class="label block truncate">{bodyFacts(body)}{body.mount === '' ? '' : ` · ${body.mount}`}</span>
      </button>
      {#if there}
        <div class="border-t border-line px-3 pt-1 pb-2">
          <Picker
            label="On it at the start"
            items={[{ value: '', name: 'nothing' }, ...lensesFor(body)]}
            value={there.lensId ?? ''}
            onchange={(lensId) => put(body, lensId)}
          />
        </div>
      {/if}
    </li>
  {/each}
</ul>
{#if shown.bodies.length === 0}<p class="label">No body yet.</p>{/if}
