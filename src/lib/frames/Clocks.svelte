<script lang="ts">
  import { Button, Select } from 'flowbite-svelte';
  import { group } from 'd3-array';
  import { clockKey, clockOffset, fitClock, offsetFromPhone, clockOffsetText, readOffset } from '$core/frames/clocks';
  import type { Frame } from '$core/frames/schema';
  import { clockText, frameNumber } from '$core/words/frames';
  import Dialog from '$lib/controls/Dialog.svelte';
  import TextField from '$lib/controls/TextField.svelte';
  import type { EditManner } from '$lib/data';
  import { getApp } from '$lib/state/app.svelte';

  /** What is to be added to each body's clock: typed, read off a photograph of a phone, or fitted to the ticks of the day. */
  let { open = $bindable() }: { open: boolean } = $props();
  const app = getApp();
  const minuteMs = 60_000;
  const bodies = $derived(
    [...group(app.frames.list, ({ frame }) => clockKey(frame))].map(([body, entries]) => {
      const frames = entries
        .map(({ frame }) => frame)
        .filter(({ clockMs }) => clockMs !== null)
        .sort((a, b) => (a.clockMs ?? 0) - (b.clockMs ?? 0));
      const [first] = entries;
      const offsetMs = first ? clockOffset(first.frame, app.frames.clocks) : 0;
      return { body, frames, count: entries.length, offsetMs, fit: fitClock(ticksOf(frames)) };
    })
  );
  /** Setups that were ticked, with the last frame of this body that is of them. */
  function ticksOf(frames: readonly Frame[]) {
    return app.open.rows.flatMap(({ id, setup }) => {
      const { doneAt } = setup.taken;
      const last = frames.filter(({ setupId }) => setupId === id).at(-1)?.clockMs;
      if (doneAt === null || last == null) return [];
      const at = new Date(doneAt);
      // Cameras keep the time of the place, without its zone.
      return [{ tickMs: at.getTime() - at.getTimezoneOffset() * minuteMs, lastMs: last }];
    });
  }
  /** By the body: the frame that shows a phone, and the time it shows. */
  let photographed = $state<Record<string, string>>({});
  /** Not while it is still being typed. */
  const meant = (how: EditManner) => !(typeof how === 'object' && how?.hold === true);
  const problem = (text: string) =>
    readOffset(text) === null ? 'Minutes and seconds, such as +1:20 or −1:03:15.' : null;
</script>

<Dialog bind:open title="Clocks" size="sm">
  <p class="text-pretty text-soft">
    Camera clocks never agree. Correct each one so frames fall in order and match the day’s setups.
  </p>
  {#each bodies as { body, frames, count, offsetMs, fit } (body)}
    {@const chosen = frames.find(({ id }) => id === photographed[body]) ?? frames[0]}
    <section class="mt-4 border-t border-line pt-3" aria-label={body}>
      <h3 class="font-semibold">{body}</h3>
      <p class="text-soft">
        {count === 1 ? 'One frame' : `${count} frames`}{frames.length > 0
          ? `, by its clock from ${clockText(frames[0]?.clockMs ?? null)} to ${clockText(frames.at(-1)?.clockMs ?? null)}`
          : ', without a time'}
      </p>
      {#if chosen}
        <div class="mt-2 flex flex-wrap items-end gap-3">
          <div class="w-36">
            <TextField
              label="Correction"
              value={clockOffsetText(offsetMs)}
              {problem}
              onchange={(text, how) => meant(how) && app.frames.setClock(body, readOffset(text) ?? offsetMs)}
            />
          </div>
          {#if fit && fit.offsetMs !== offsetMs}
            <Button color="alternative" onclick={() => app.frames.setClock(body, fit.offsetMs)}
              >{clockOffsetText(fit.offsetMs)}, {fit.ticks === 1
                ? 'from one setup you ticked off'
                : `from ${fit.ticks} setups you ticked off`}</Button
            >
          {/if}
        </div>
        <div class="mt-2 flex flex-wrap items-end gap-3">
          <label class="label block w-52"
            >A frame that shows a phone’s clock
            <Select
              placeholder=""
              class="mt-0.5"
              value={chosen.id}
              onchange={(event) => (photographed[body] = event.currentTarget.value)}
            >
              {#each frames.slice(0, 200) as frame (frame.id)}
                <option value={frame.id}>{frameNumber(frame)}, {clockText(frame.clockMs)}</option>
              {/each}
            </Select>
          </label>
          <div class="w-36">
            <TextField
              label="The phone shows"
              value={clockText((chosen.clockMs ?? 0) + offsetMs)}
              problem={(text) =>
                offsetFromPhone(chosen.clockMs ?? 0, text) === null ? 'A time such as 14:36:22.' : null}
              onchange={(text, how) => {
                const found = offsetFromPhone(chosen.clockMs ?? 0, text);
                if (found !== null && meant(how)) void app.frames.setClock(body, found);
              }}
            />
          </div>
        </div>
      {/if}
    </section>
  {/each}
</Dialog>
