<script lang="ts">
  import { isoDate } from '$lib/controls/dates';
  import type { DayEntry } from '$core/day/timetable';
  import { clockOf } from '$core/setup/schedule';
  import { clockAgainstPlan } from '$core/words/day';
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
  /** As jobs have it: 2027-06-12. */
  const today = $derived(isoDate(now));
  const date = $derived(app.open.job?.date ?? null);
  const running = $derived(date === null || date === today);
  const minute = $derived(now.getHours() * 60 + now.getMinutes() + now.getSeconds() / 60);
  const stands = $derived(running ? clockAgainstPlan(entry, minute, done) : '');
  const planned = $derived(entry?.startsAt == null ? '' : clockOf(entry.startsAt));
</script>

<span class="condensed shrink-0 text-[15px]" data-testid="clock">{[planned, stands].filter(Boolean).join(' · ')}</span>
