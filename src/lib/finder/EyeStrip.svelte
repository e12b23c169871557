<script lang="ts">
  import { verdict } from '$core/optics/sharpness';
  import { roleWords, verdictWords } from '$core/words/call';
  import Glyph from '$lib/ladder/Glyph.svelte';
  import { asking, eyeCrops, type EyeCrop, type RenderableSetup } from '../../render/request';
  import EyeOutline from './EyeOutline.svelte';
  import LensRendering from './LensRendering.svelte';
  import Loupe from './Loupe.svelte';
  import { getRenderings } from '../../workers/clients/renderer.svelte';

  /** Everybody's eyes, at 100% of the camera's pixels where an eye with its lids fits; pressed, at 100%. */
  let { taken, width }: { taken: RenderableSetup; width: number } = $props();
  const pictures = getRenderings();
  const tile = { height: 58, least: 150, most: 172 } as const;
  /** Looks for so small a picture. */
  const views = 64;

  /** As wide as leaves room for all of them. */
  const size = $derived.by(() => {
    const count = eyeCrops(taken, { width: tile.least, height: tile.height }).filter(wanted).length;
    const fits = Math.floor((width - 8) / Math.max(1, count)) - 4;
    return { width: Math.min(tile.most, Math.max(tile.least, fits)), height: tile.height };
  });
  const crops = $derived(eyeCrops(taken, size).filter(wanted));
  let looking = $state.raw<EyeCrop | null>(null);

  function wanted({ subjectId }: EyeCrop): boolean {
    return taken.plan.subjects.find((item) => item.id === subjectId)?.importance !== 'maySoft';
  }
  function words({ name, roles, ratio, shownAt }: EyeCrop): { who: string; how: string; scale: string } {
    const what = roles.length > 1 ? 'eyes' : (roles[0] && roleWords[roles[0]]) || '';
    const scale = shownAt > 0.99 ? '' : `${Math.round(shownAt * 100)}%`;
    return { who: `${name}, ${what}`, how: verdictWords[verdict(ratio)], scale };
  }
</script>

{#if crops.length > 0 && (pictures.status === 'ready' || pictures.status === 'starting')}
  <div
    class="flex gap-1 overflow-x-auto bg-surround p-1"
    role="group"
    aria-label="Everyone’s eyes"
    data-testid="eye-strip"
  >
    {#each crops as crop, index (crop.key)}
      {@const said = words(crop)}
      {@const asked = asking(taken, {
        slot: `eyes-${crop.key}`,
        priority: 2 + index / 100,
        ...size,
        cutout: crop.cutout,
        views,
        eyesOf: crop.eyesOf
      })}
      <button
        type="button"
        class="relative shrink-0 text-white"
        aria-label="{said.who}{said.scale === '' ? '' : `, at ${said.scale}`}: {said.how}. Look closer."
        data-verdict={verdict(crop.ratio)}
        onclick={() => (looking = crop)}
      >
        {#if asked}
          <LensRendering {asked} {...size} label="{said.who} at {said.scale === '' ? '100%' : said.scale}" restMs={160}>
            {#snippet outline()}<EyeOutline {crop} {...size} />{/snippet}
          </LensRendering>
        {/if}
        {#if said.scale !== ''}
          <span class="condensed absolute top-0 right-0 bg-black/45 px-1 text-[11px] leading-tight">{said.scale}</span>
        {/if}
        <span
          class="condensed absolute inset-x-0 bottom-0 flex items-center gap-1 bg-gradient-to-t from-black/75 to-black/0 px-1.5 pt-3 pb-0.5 text-[11px] leading-tight"
        >
          <span class="truncate">{said.who}</span>
          <span class="ml-auto flex items-center gap-1 whitespace-nowrap"
            ><Glyph ratio={crop.ratio} size={10} onPicture />{said.how}</span
          >
        </span>
      </button>
    {/each}
  </div>
{/if}
{#if looking}
  <Loupe bind:open={() => looking !== null, (open) => !open && (looking = null)} {taken} start={looking.key} />
{/if}
