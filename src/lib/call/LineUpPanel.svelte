<script lang="ts">
  import HowComputed from '$lib/controls/HowComputed.svelte';
  import { Button, Checkbox } from 'flowbite-svelte';
  import type { LensInLine, LineUpInput } from '$core/call/lineUp';
  import { noPlanWords, oddsWords } from '$core/words/call';
  import { formatLength } from '$core/units/length';
  import Failed from '$lib/controls/Failed.svelte';
  import Older from '$lib/controls/Older.svelte';
  import Progress from '$lib/controls/Progress.svelte';
  import type { Keep } from '$core/setup/sameFraming';
  import { keepChoices, keepWords } from '$core/setup/choices';
  import Choice from '$lib/controls/Choice.svelte';
  import { findLineUp } from '../../workers/clients/planner';
  import { Search } from '$lib/state/screen/search.svelte';
  import { getWorkspace } from '$lib/state/screen/workspace.svelte';
  import BlurChart from './BlurChart.svelte';

  const workspace = getWorkspace();
  const search = new Search<LineUpInput, LensInLine[]>(findLineUp);
  let keep = $state<Keep>('framing');
  const ask = () => void search.ask({ ...workspace.question, keep });
  $effect(ask);
  const older = $derived(search.answer !== null && search.answer.to.setup !== workspace.setup);
  $effect(() => () => void (workspace.preview = null));

  const unit = $derived(workspace.unit);
  const lines = $derived(search.answer?.found ?? null);
  const keyOf = (line: LensInLine) => `${line.lensId} ${line.focalLengthMm}`;
  /** Lenses drawn in the chart besides the one in use. */
  let compared = $state.raw<readonly string[] | null>(null);
  const charted = $derived.by(() => {
    const all = (lines ?? []).filter((line) => line.result);
    const chosen =
      compared ??
      all
        .filter((line) => line.result?.window)
        .map(keyOf)
        .slice(0, 3);
    return all.filter((line) => line.inUse || chosen.includes(keyOf(line)));
  });
  const backgrounds = $derived(workspace.plan?.backgrounds ?? []);
  function take(line: LensInLine) {
    const { answer } = search;
    if (answer)
      workspace.takeOver(`${line.lensName}, ${keepWords[keep]}`, { asked: answer.to.setup, setup: line.setup });
  }
  const show = (line: LensInLine | null) => () => void (workspace.preview = line?.setup ?? null);

  function compare(line: LensInLine) {
    const now = charted.map(keyOf);
    const key = keyOf(line);
    compared = now.includes(key) ? now.filter((item) => item !== key) : [...now, key];
  }
  function backgroundWords(line: LensInLine, id: string): { text: string; met: boolean } {
    const state = line.result?.backgrounds.find((item) => item.id === id);
    return state ? { text: formatLength(state.lostDetailMm, unit), met: state.met } : { text: '', met: true };
  }
</script>

{#if lines === null}
  {#if search.failure}
    <Failed what="The lenses could not be compared." why={search.failure} onretry={ask} />
  {:else if search.slow}
    <Progress label="Planning with every lens" share={search.progress} />
  {/if}
{:else}
  {#if search.failure}
    <Failed what="The lenses could not be compared again." why={search.failure} onretry={ask} />
  {:else if older}<Older slow={search.slow} />{/if}
  <div class="mb-1.5">
    <Choice legend="Keep" hideLegend small options={keepChoices} value={keep} onchange={(value) => (keep = value)} />
  </div>
  <div class="overflow-x-auto" class:opacity-60={older}>
    <table class="condensed w-full border-collapse text-left" data-testid="line-up">
      <thead class="label">
        <tr>
          <th class="w-6 font-normal"><span class="sr-only">In the chart</span></th>
          <th class="font-normal">Lens<HowComputed of="lineUp" /></th>
          <th class="pr-2 text-right font-normal">{keep === 'framing' ? 'distance' : 'frame height'}</th>
          <th class="pr-2 text-right font-normal">nose/ear size</th>
          <th class="pr-2 text-right font-normal">aperture</th>
          <th class="pr-2 text-right font-normal">keeper rate</th>
          {#each backgrounds as background (background.id)}
            <th class="max-w-20 truncate pr-2 text-right font-normal">blur at {background.name}</th>
          {/each}
          <th class="font-normal"><span class="sr-only">Choose</span></th>
        </tr>
      </thead>
      <tbody>
        {#each lines as line (keyOf(line))}
          <tr
            class="border-t border-line {line.inUse ? 'font-semibold' : ''}"
            onpointerenter={show(line)}
            onpointerleave={show(null)}
            onfocusin={show(line)}
            onfocusout={show(null)}
          >
            <td>
              {#if line.result}
                <Checkbox
                  checked={charted.includes(line)}
                  disabled={line.inUse}
                  onchange={() => compare(line)}
                  aria-label="Chart {line.lensName} at {line.focalLengthMm} mm"
                />
              {/if}
            </td>
            <th scope="row" class="h-7 pr-2 whitespace-nowrap {line.inUse ? 'font-semibold' : 'font-normal'}">
              {line.lensName}{line.lensName.startsWith(`${line.focalLengthMm} mm`) ||
              (line.lensName.includes(` ${line.focalLengthMm} mm`) && !line.lensName.includes('–'))
                ? ''
                : ` at ${line.focalLengthMm}`}
            </th>
            <td class="pr-2 text-right whitespace-nowrap {line.beyondRoomMm > 0 ? 'line-through' : ''}">
              {formatLength(
                keep === 'framing' ? line.distanceMm : line.framedHeightMm,
                unit
              )}{#if line.beyondRoomMm > 0}<span class="sr-only"
                  >, {formatLength(line.beyondRoomMm, unit)} more than the room</span
                >{/if}
            </td>
            <td
              class="pr-2 text-right {line.flattering ? 'text-soft' : 'underline decoration-dotted'}"
              title={line.flattering ? undefined : 'Close enough to distort the face'}>×{line.noseToEar.toFixed(2)}</td
            >
            {#if line.result}
              <td class="pr-2 text-right whitespace-nowrap">
                f/{line.result.stop}{#if line.result.inPrint}<span class="text-soft">&nbsp;in print</span
                  >{/if}{#if !line.result.takeable}<span title="No aperture meets every goal">*</span><span
                    class="sr-only">, in conflict</span
                  >{/if}
              </td>
              <td class="pr-2 text-right">{oddsWords(line.result.odds)}</td>
              {#each backgrounds as background (background.id)}
                {@const words = backgroundWords(line, background.id)}
                <td class="pr-2 text-right whitespace-nowrap {words.met ? '' : 'text-soft line-through'}"
                  >{words.text}</td
                >
              {/each}
            {:else}
              <td class="pr-2 text-soft" colspan={2 + backgrounds.length}>
                {line.reason ? noPlanWords(line.reason, unit).title : ''}
              </td>
            {/if}
            <td class="text-right">
              {#if line.inUse}
                <span class="label">in use</span>
              {:else}
                <Button
                  size="xs"
                  color="alternative"
                  disabled={!line.result}
                  aria-label="Use the {line.lensName} at {line.focalLengthMm} mm"
                  onclick={() => take(line)}>Use</Button
                >
              {/if}
            </td>
          </tr>
        {/each}
      </tbody>
    </table>
  </div>
  <p class="label mt-1.5">
    Struck through: not enough room, or the background misses its goal. * No aperture meets every goal.
  </p>
  {#if charted.length > 0}<BlurChart lines={charted} />{/if}
{/if}
