<script lang="ts">
  import { page } from '$app/state';
</script>

<svelte:head><title>{page.status === 404 ? 'No such page' : 'Something went wrong'} · Focalis</title></svelte:head>

<main class="mx-auto max-w-lg p-10">
  <h1 class="condensed text-2xl font-bold">
    {page.status === 404 ? 'There is no such page.' : 'Something went wrong.'}
  </h1>
  <p class="mt-2">{page.status === 404 ? '' : (page.error?.message ?? '')}</p>
  <p class="mt-4"><a href="/" class="underline">To the setups</a></p>
</main>
