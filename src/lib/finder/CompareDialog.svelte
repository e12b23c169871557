<script lang="ts">
  import { SvelteMap } from 'svelte/reactivity';
  import { setupLeaving } from '$lib/state/job/leaving';
  import { Download } from '@lucide/svelte';
  import { devicePixelRatio } from 'svelte/reactivity/window';
  import Dialog from '$lib/controls/Dialog.svelte';
  import type { Alternatives } from '$core/call/alternatives';
  import type { LensInLine, LineUpInput } from '$core/call/lineUp';
  import { asFocusTarget } from '$core/call/focusTarget';
  import type { Setup } from '$core/setup/schema';
  import { callSentence, oddsWords, targetWords } from '$core/words/call';
  import ToolButton from '$lib/controls/ToolButton.svelte';
  import Choice from '$lib/controls/Choice.svelte';
  import type { PlanInput } from '$core/call/planInput';
  import { findAlternatives, findLineUp } from '../../workers/clients/planner';
  import { Search } from '$lib/state/screen/search.svelte';
  import { getWorkspace } from '$lib/state/screen/workspace.svelte';
  import {
    asking,
    aspectOf,
    atStop,
    eyeCrops,
    picturePixels,
    screenDensity,
    type RenderableSetup
  } from '../../render/request';
  import { savePicture } from './export';
  import { cellsFor, lensesToCompare, most, stopsToCompare } from './comparing';
  import { keepChoices, keepWords } from '$core/setup/choices';
  import type { Keep } from '$core/setup/sameFraming';
  import LensRendering from './LensRendering.svelte';
  import Failed from '$lib/controls/Failed.svelte';
  import Older from '$lib/controls/Older.svelte';
  import Progress from '$lib/controls/Progress.svelte';
  import { cutoutAt, wholePicture } from '../../render/lens/lensView';

  /** Two to four pictures side by side, looked at alike. */
  let { open = $bindable(), taken }: { open: boolean; taken: RenderableSetup } = $props();
  const workspace = getWorkspace();
  const lenses = new Search<LineUpInput, LensInLine[]>(findLineUp);
  const others = new Search<PlanInput, Alternatives>(findAlternatives);
  let what = $state<'stops' | 'lenses' | 'focus'>('stops');
  let keep = $state<Keep>('framing');
  const lensQuestion = $derived({ ...workspace.question, keep });
  let look = $state<'whole' | 'loupe'>('whole');
  let innerWidth = $state(1280);
  let innerHeight = $state(800);
  $effect(() => {
    if (!open) return;
    if (what === 'lenses') void lenses.ask(lensQuestion);
    if (what === 'focus') void others.ask(workspace.question);
  });

  interface Shown {
    readonly key: string;
    readonly name: string;
    readonly taken: RenderableSetup;
    readonly take: () => void;
  }

  /** The setup as changed, planned anew; nothing when it cannot be. */
  function planned(setup: Setup): RenderableSetup | null {
    const { plan, body, lens } = workspace.app.open.planned(setup);
    return plan.kind === 'plan' && body && lens ? { setup, plan, body, lens } : null;
  }
  const search = $derived(what === 'lenses' ? lenses : what === 'focus' ? others : null);
  const older = $derived(search?.answer != null && search.answer.to.setup !== workspace.setup);
  const askAgain = () => (what === 'lenses' ? lenses.ask(lensQuestion) : others.ask(workspace.question));

  const shown = $derived.by((): Shown[] => {
    const { plan, setup } = taken;
    if (what === 'stops') {
      return stopsToCompare(plan.selected, plan.stops.length, workspace.stopStep).map((index) => ({
        key: `stop-${index}`,
        name: `f/${plan.stops[index]?.stop.label}, ${oddsWords(plan.stops[index]?.odds ?? 0)}`,
        taken: atStop(taken, index),
        take: () => workspace.chooseStop(index)
      }));
    }
    if (what === 'lenses') {
      const { answer } = lenses;
      if (!answer) return [];
      return lensesToCompare(answer.found).flatMap((line): Shown[] => {
        const its = planned(line.setup);
        const take = () =>
          workspace.takeOver(`${line.lensName}, ${keepWords[keep]}`, { asked: answer.to.setup, setup: line.setup });
        return its
          ? [
              {
                key: `${line.lensId} ${line.focalLengthMm}`,
                name: `${line.focalLengthMm} mm at f/${line.result?.stop}`,
                taken: its,
                take
              }
            ]
          : [];
      });
    }
    const entry = plan.stops[plan.selected];
    if (!entry) return [];
    return (others.answer?.found.targets ?? []).slice(0, most).flatMap(({ target, odds }): Shown[] => {
      const { subjectId, feature } = target;
      const aim = asFocusTarget(target, setup);
      const its = planned({
        ...setup,
        intent: { ...setup.intent, target: aim, stop: { kind: 'chosen', fNumber: Number(entry.stop.label) } }
      });
      const name = `${targetWords(plan, { ...entry, target }, workspace.unit)}, ${oddsWords(odds)}`;
      return its ? [{ key: `${subjectId}-${feature}`, name, taken: its, take: () => workspace.focusOn(aim) }] : [];
    });
  });

  const layout = $derived(
    cellsFor(shown.length, look === 'whole' ? aspectOf(taken) : 1.7, { width: innerWidth, height: innerHeight })
  );
  const cell = $derived({ width: layout.width, height: layout.height });
  /** Those that have been drawn. */
  const canvases = new SvelteMap<string, HTMLCanvasElement>();
  async function save({ key, taken: { setup, plan } }: Shown) {
    const canvas = canvases.get(key);
    const leaving = setupLeaving(workspace.app, { setup, plan });
    if (canvas) await savePicture(canvas, { ...leaving, words: callSentence(leaving.plan, workspace.unit) });
  }
  function ask({ key, taken: its }: Shown) {
    const target = its.plan.stops[its.plan.selected]?.target.subjectId;
    const crops = eyeCrops(its, { width: 148, height: 58 });
    const at = (crops.find((crop) => crop.subjectId === target) ?? crops[0])?.at ?? { x: 0.5, y: 0.5 };
    const cutout = look === 'whole' ? wholePicture : cutoutAt(at, cell, picturePixels(its));
    // The whole frame as finely as the screen shows it; a crop in the camera's own pixels.
    const density = look === 'whole' ? screenDensity(devicePixelRatio.current) : 1;
    const size = { width: cell.width * density, height: cell.height * density };
    return asking(its, { slot: `compare-${key}`, priority: 0.5, ...size, cutout });
  }
</script>

<svelte:window bind:innerWidth bind:innerHeight />
<Dialog bind:open title="Compare" size="xl">
  <div class="space-y-3" data-testid="compare">
    <div class="flex flex-wrap gap-4">
      <Choice
        legend="Compare"
        hideLegend
        value={what}
        options={[
          { value: 'stops', name: 'stops' },
          { value: 'lenses', name: 'lenses' },
          { value: 'focus', name: 'focus' }
        ]}
        onchange={(value) => (what = value)}
      />
      <Choice
        legend="Look"
        hideLegend
        value={look}
        options={[
          { value: 'whole', name: 'whole frame' },
          { value: 'loupe', name: 'at 100%' }
        ]}
        onchange={(value) => (look = value)}
      />
      {#if what === 'lenses'}
        <Choice legend="Keep" hideLegend options={keepChoices} value={keep} onchange={(value) => (keep = value)} />
      {/if}
    </div>
    {#if search?.failure}
      <Failed what="They could not be worked out." why={search.failure} onretry={askAgain} />
    {:else if search && !search.answer && search.slow}
      <Progress label="Working them out" share={search.progress} />
    {:else if older}<Older slow={search?.busy ?? false} />{/if}
    <div class="grid gap-3" style:grid-template-columns="repeat({layout.columns}, minmax(0, 1fr))">
      {#each shown as item (item.key)}
        {@const asked = ask(item)}
        <figure class="bg-surround p-1">
          {#if asked}
            <div class="grid place-items-center">
              <LensRendering
                {asked}
                {...cell}
                label={callSentence(item.taken.plan, workspace.unit)}
                onshown={(_, canvas) => canvases.set(item.key, canvas)}
              />
            </div>
          {/if}
          <figcaption
            class="mt-1 flex bg-[#3f3f3f] items-center justify-between gap-2 px-1 pt-1 text-[12px] text-white"
          >
            <span class="min-w-0 flex-1 truncate">{item.name}</span>
            <ToolButton
              icon={Download}
              name="Save the preview at {item.name}"
              disabled={!canvases.has(item.key)}
              onclick={() => void save(item)}
            />
            <button
              type="button"
              class="min-h-6 underline underline-offset-2"
              onclick={() => {
                item.take();
                open = false;
              }}>Use it</button
            >
          </figcaption>
        </figure>
      {/each}
    </div>
  </div>
</Dialog>
