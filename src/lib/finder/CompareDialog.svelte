<script lang="ts">
  import { Download } from '@lucide/svelte';
  import { devicePixelRatio } from 'svelte/reactivity/window';
  import Dialog from '$lib/controls/Dialog.svelte';
  import type { Alternatives } from '$core/call/alternatives';
  import type { LensInLine } from '$core/call/lineUp';
  import { asFocusTarget } from '$core/setup/focusTarget';
  import type { Setup } from '$core/setup/schema';
  import { planSetup } from '$core/call/planSetup';
  import { callSentence, targetWords } from '$core/words/call';
  import ToolButton from '$lib/controls/ToolButton.svelte';
  import Choice from '$lib/controls/Choice.svelte';
  import { findAlternatives, findLineUp, type Question } from '$lib/state/planner';
  import { Search } from '$lib/state/search.svelte';
  import { getWorkspace } from '$lib/state/workspace.svelte';
  import { asking, aspectOf, atStop, eyeCrops, picturePixels, screenDensity, type Taken } from './asking';
  import { savePicture } from './export';
  import LensPicture from './LensPicture.svelte';
  import { windowAt, wholePicture } from '../../render/lensView';

  /** Two to four pictures side by side, looked at alike. */
  let { open = $bindable(), taken }: { open: boolean; taken: Taken } = $props();
  const workspace = getWorkspace();
  const lenses = new Search<Question, LensInLine[]>(findLineUp);
  const others = new Search<Question, Alternatives>(findAlternatives);
  const most = 4;
  const gapPx = 12;
  /** Padding round a picture, and the line under it. */
  const framePx = 8;
  const captionPx = 34;

  let what = $state<'stops' | 'lenses' | 'focus'>('stops');
  let look = $state<'whole' | 'loupe'>('whole');
  let innerWidth = $state(1280);
  let innerHeight = $state(800);
  $effect(() => {
    if (what === 'lenses') void lenses.ask(workspace.question);
    if (what === 'focus') void others.ask(workspace.question);
  });

  interface Shown {
    readonly key: string;
    readonly name: string;
    readonly taken: Taken;
    readonly take: () => void;
  }

  /** The setup as changed, planned anew; nothing when it cannot be. */
  function planned(setup: Setup): Taken | null {
    const { kit } = workspace.app;
    const plan = planSetup({ setup, kit, stopStep: workspace.stopStep });
    const body = kit.bodies.find((item) => item.id === setup.camera.bodyId);
    const lens = kit.lenses.find((item) => item.id === setup.camera.lensId);
    return plan.kind === 'plan' && body && lens ? { setup, plan, body, lens } : null;
  }

  const shown = $derived.by((): Shown[] => {
    const { plan, setup } = taken;
    if (what === 'stops') {
      const step = { full: 1, half: 2, third: 3 }[workspace.stopStep];
      const first = Math.max(0, Math.min(plan.selected - step, plan.stops.length - 1 - step * (most - 1)));
      return Array.from({ length: most }, (_, n) => first + n * step)
        .filter((index) => index < plan.stops.length)
        .map((index) => ({
          key: `stop-${index}`,
          name: `f/${plan.stops[index]?.stop.label}, ${Math.round((plan.stops[index]?.odds ?? 0) * 100)} %`,
          taken: atStop(taken, index),
          take: () => workspace.chooseStop(index)
        }));
    }
    if (what === 'lenses') {
      const found = (lenses.answer?.found ?? []).filter((line) => line.result && line.beyondRoomMm === 0);
      const own = found.filter((line) => line.inUse);
      const rest = found.filter((line) => !line.inUse && line.lensId !== own[0]?.lensId);
      const spread = [0, Math.floor((rest.length - 1) / 2), rest.length - 1].flatMap((index) => rest[index] ?? []);
      return [...own, ...new Set(spread)]
        .sort((a, b) => a.focalLengthMm - b.focalLengthMm)
        .flatMap((line): Shown[] => {
          const its = planned(line.setup);
          const take = () => workspace.takeOver(`${line.lensName} at the same framing`, line.setup);
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
      const name = `${targetWords(plan, { ...entry, target }, workspace.unit)}, ${Math.round(odds * 100)} %`;
      return its ? [{ key: `${subjectId}-${feature}`, name, taken: its, take: () => workspace.focusOn(aim) }] : [];
    });
  });

  /** The largest cells that show all of them at once. */
  const layout = $derived.by(() => {
    const ratio = look === 'whole' ? aspectOf(taken) : 1.7;
    const room = { width: Math.min(1240, innerWidth - 44), height: Math.max(360, innerHeight - 190) };
    const count = Math.max(2, shown.length);
    const wide = innerWidth < 640 ? [1] : [2, 3, 4].filter((columns) => columns <= count);
    const fits = wide.map((columns) => {
      const rows = innerWidth < 640 ? 1 : Math.ceil(count / columns);
      const across = (room.width - gapPx * (columns - 1)) / columns - framePx;
      const down = (room.height - gapPx * (rows - 1)) / rows - framePx - captionPx;
      const height = Math.floor(Math.min(down, across / ratio));
      return { columns, width: Math.round(height * ratio), height };
    });
    return fits.reduce((best, item) => (item.height > best.height ? item : best));
  });
  const cell = $derived({ width: layout.width, height: layout.height });
  // eslint-disable-next-line svelte/prefer-svelte-reactivity -- bookkeeping that no screen reads
  const canvases = new Map<string, HTMLCanvasElement>();
  async function save({ key, taken: { setup, plan } }: Shown) {
    const canvas = canvases.get(key);
    if (canvas) await savePicture(canvas, { setup, plan, words: callSentence(plan, workspace.unit) });
  }
  function ask({ key, taken: its }: Shown) {
    const target = its.plan.stops[its.plan.selected]?.target.subjectId;
    const crops = eyeCrops(its, { width: 148, height: 58 });
    const at = (crops.find((crop) => crop.subjectId === target) ?? crops[0])?.at ?? { x: 0.5, y: 0.5 };
    const window = look === 'whole' ? wholePicture : windowAt(at, cell, picturePixels(its));
    // The whole picture as finely as the screen shows it; a crop in the camera's own pixels.
    const density = look === 'whole' ? screenDensity(devicePixelRatio.current) : 1;
    const size = { width: cell.width * density, height: cell.height * density };
    return asking(its, { slot: `compare-${key}`, priority: 0.5, ...size, window });
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
          { value: 'whole', name: 'whole picture' },
          { value: 'loupe', name: 'at 100 %' }
        ]}
        onchange={(value) => (look = value)}
      />
    </div>
    <div class="grid gap-3" style:grid-template-columns="repeat({layout.columns}, minmax(0, 1fr))">
      {#each shown as item (item.key)}
        {@const asked = ask(item)}
        <figure class="bg-surround p-1">
          {#if asked}
            <div class="grid place-items-center">
              <LensPicture
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
            <ToolButton icon={Download} name="Save the picture at {item.name}" onclick={() => void save(item)} />
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
