<script lang="ts">
  import type { Lens } from '$core/kit/schema';
  import { lensLine } from './lensLine';

  interface Props {
    lenses: readonly Lens[];
    selected: string | null;
    /** Whether a lens is taken along; all are where there is no bag. */
    taken: (id: string) => boolean;
    onselect: (id: string) => void;
  }
  /** Every lens where its focal lengths lie, as tall as its opening is wide: gaps and doubles are seen. */
  let { lenses, selected, taken, onselect }: Props = $props();
  let width = $state(760);
  const rowPx = 46;
  const line = $derived(lensLine(lenses, width));
  const height = $derived(Math.max(1, line.rows) * rowPx + 26);
</script>

<div bind:clientWidth={width} class="min-w-0">
  <div class="relative" style:height="{height}px">
    <svg {width} {height} class="absolute inset-0" aria-hidden="true">
      {#each line.marks as mark (mark.mm)}
        <line x1={mark.x} x2={mark.x} y1="0" y2={height - 18} class="stroke-line" />
        <text x={mark.x} y={height - 4} text-anchor="middle" class="fill-soft text-[11px]">{mark.mm}</text>
      {/each}
      {#each line.placed as item (item.lens.id)}
        {@const y = item.row * rowPx + 30}
        {@const is = item.lens.id === selected}
        <g
          class={is
            ? 'fill-pencil stroke-pencil'
            : taken(item.lens.id)
              ? 'fill-ink stroke-ink'
              : 'fill-none stroke-soft'}
          stroke-dasharray={taken(item.lens.id) ? undefined : '3 2'}
        >
          {#if item.x1 === item.x2}
            <circle cx={item.x1} cy={y} r={item.short / 2} />
          {:else}
            <polygon
              points="{item.x1},{y - item.short / 2} {item.x2},{y - item.long / 2} {item.x2},{y +
                item.long / 2} {item.x1},{y + item.short / 2}"
            />
          {/if}
        </g>
      {/each}
    </svg>
    {#each line.placed as item (item.lens.id)}
      <button
        type="button"
        class="condensed absolute flex h-11 min-w-6 flex-col items-start text-[12.5px] leading-none whitespace-nowrap hover:text-pencil {item
          .lens.id === selected
          ? 'font-semibold text-pencil'
          : taken(item.lens.id)
            ? 'text-ink'
            : 'text-soft'}"
        style:left="{item.labelX}px"
        style:top="{item.row * rowPx}px"
        style:min-width="{Math.max(24, item.x2 - item.labelX)}px"
        aria-pressed={item.lens.id === selected}
        onclick={() => onselect(item.lens.id)}
      >
        <span class="bg-surface px-0.5 pt-0.5">{item.label}</span>
      </button>
    {/each}
  </div>
  <p class="label text-right">focal length, mm · height: diameter of the entrance pupil</p>
</div>
