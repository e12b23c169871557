<main class="mx-auto max-w-lg p-10">
  <h1 class="condensed text-2xl font-bold">This setup is not here.</h1>
  <p class="mt-2">It was removed, or it belongs to another browser. Undo brings back what was removed in this tab.</p>
  <p class="mt-4"><a href="/" class="underline">To the setups that are here</a></p>
</main>
