<script lang="ts">
  import type { DayEntry } from '$core/day/timetable';
  import { clockOf } from '$core/setup/schedule';
  import { clockWords } from '$core/words/day';
  import { getApp } from '$lib/state/app.svelte';

  /** The time planned, and how the clock stands against it on the day itself. */
  let { entry, done }: { entry: DayEntry | undefined; done: boolean } = $props();
  const app = getApp();
  const everyMs = 5000;
  let now = $state.raw(new Date());
  $effect(() => {
    const timer = setInterval(() => (now = new Date()), everyMs);
    return () => clearInterval(timer);
  });
  const pad = (value: number) => String(value).padStart(2, '0');
  const today = $derived(`${now.getFullYear()}-${pad(now.getMonth() + 1)}-${pad(now.getDate())}`);
  const date = $derived(app.open.job?.date ?? null);
  const running = $derived(date === null || date === today);
  const minute = $derived(now.getHours() * 60 + now.getMinutes() + now.getSeconds() / 60);
  const stands = $derived(running ? clockWords(entry, minute, done) : '');
  const planned = $derived(entry?.startsAt == null ? '' : clockOf(entry.startsAt));
</script>

<span class="condensed shrink-0 text-[15px]" data-testid="clock">{[planned, stands].filter(Boolean).join(' · ')}</span>
