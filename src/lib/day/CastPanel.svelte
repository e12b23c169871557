<script lang="ts">
  import { Button } from 'flowbite-svelte';
  import { goto } from '$app/navigation';
  import { dayCast, rolesOf, withRoles } from '$core/day/cast';
  import { numbersWords } from '$core/words/day';
  import { getApp } from '$lib/state/app.svelte';

  /** Who is in which setup, and groups by what people are. */
  const app = getApp();
  const setups = $derived(app.store.table('setups').list.map((row) => row.value));
  const cast = $derived(dayCast(app.open.people, setups));
  const nowhere = $derived(cast.filter((item) => item.setups.length === 0));
  const roles = $derived(rolesOf(app.open.people));
  let picked = $state<readonly string[]>([]);
  const group = $derived(withRoles(app.open.people, picked));
  let open = $state(false);

  const pick = (role: string) =>
    (picked = picked.includes(role) ? picked.filter((item) => item !== role) : [...picked, role]);
  async function make() {
    const id = app.setups.addGroup(group);
    picked = [];
    if (id) await goto(`/setup/${id}`);
  }
</script>

{#if cast.length > 0}
  <section aria-labelledby="cast-title" class="mb-6" data-testid="cast">
    <h2 id="cast-title" class="condensed text-[18px] font-bold">People</h2>
    <p class="text-soft">
      {cast.length}
      {cast.length === 1 ? 'person' : 'people'}{nowhere.length === 0
        ? ', everyone in at least one setup.'
        : `; in none: ${nowhere.map((item) => item.person.name).join(', ')}.`}
    </p>
    {#if roles.length > 1}
      <div class="mt-2 flex flex-wrap gap-1.5" role="group" aria-label="A group by role">
        {#each roles as { role, count } (role)}
          <button
            type="button"
            class="min-h-7 border px-2 {picked.includes(role)
              ? 'border-ink bg-ink text-surface'
              : 'border-line bg-raised'}"
            aria-pressed={picked.includes(role)}
            onclick={() => pick(role)}
            >{role === '' ? 'no role' : role}
            <span class={picked.includes(role) ? '' : 'text-soft'}>{count}</span></button
          >
        {/each}
      </div>
      {#if group.length > 0}
        <Button color="alternative" class="mt-2" onclick={make}
          >A setup of {group.length === 1 ? 'this one' : `these ${group.length}`}</Button
        >
      {/if}
    {/if}
    <details class="mt-2" bind:open>
      <summary class="min-h-6">Who is in which setup</summary>
      {#if open}
        <ul class="mt-1 border-b border-line">
          {#each cast as { person, setups: where } (person.id)}
            <li class="condensed flex gap-3 border-t border-line py-1">
              <span class="font-semibold">{person.name}</span>
              <span class="text-soft">{person.role}</span>
              <span class="ml-auto text-right">{where.length === 0 ? 'in none' : numbersWords(where)}</span>
            </li>
          {/each}
        </ul>
      {/if}
    </details>
  </section>
{/if}
