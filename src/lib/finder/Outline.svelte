<script lang="ts">
  import type { Plan } from '$core/call/plan';
  import { verdict } from '$core/optics/sharpness';
  import type { Body } from '$core/kit/schema';
  import type { Setup } from '$core/setup/schema';
  import { viewpoint } from '$core/setup/scene';
  import { figures, type Figure } from './figures';

  interface Props {
    setup: Setup;
    plan: Plan;
    body: Body;
    /** Longer side of the room it may take, px. */
    width: number;
    height: number;
    /** Small renderings carry no marks. */
    plain?: boolean;
    onselect?: (figure: Figure) => void;
  }
  let { setup, plan, body, width, height, plain = false, onselect }: Props = $props();

  const id = $props.id();
  const drawn = $derived(figures(setup, plan, body, viewpoint(setup, body, plan.pupilMagnification)));
  const frameWidth = $derived(Math.min(width, height * drawn.aspect));
  const frameHeight = $derived(frameWidth / drawn.aspect);
  const px = (share: number) => share * frameWidth;

  /** Standard deviation of a uniform disc, px: a quarter of its diameter. */
  const sigma = (figure: Figure) => Math.min(60, px(figure.blur) / 4);
  const heads = ['#cfcfcf', '#a9a9a9', '#bdbdbd', '#979797', '#dadada'];
  const clothes = ['#f0f0f0', '#343434', '#5b5b5b', '#474747', '#6c6c6c'];
  const hair = ['#3a3a3a', '#232323', '#6f6f6f', '#2e2e2e', '#8a8a8a'];
  const grounds = ['#6f6f6f', '#5f5f5f', '#7b7b7b', '#545454'];
  const pick = (list: readonly string[], index: number) => list[index % list.length];
</script>

<svg
  width={frameWidth}
  height={frameHeight}
  viewBox="0 0 {frameWidth} {frameHeight}"
  role="img"
  aria-label="{setup.name} through the lens at f/{plan.stops[plan.selected]?.stop.label}"
  class="block"
>
  <defs>
    <clipPath id="{id}-frame"><rect width={frameWidth} height={frameHeight} /></clipPath>
    {#each drawn.shapes as figure (figure.key)}
      <filter id="{id}-{figure.key}" x="-40%" y="-40%" width="180%" height="180%">
        <feGaussianBlur stdDeviation={sigma(figure)} />
      </filter>
      {#if figure.kind === 'background'}
        {@const tile = Math.max(1.5, px(figure.detail) * 2.2)}
        <pattern id="{id}-{figure.key}-detail" width={tile} height={tile} patternUnits="userSpaceOnUse">
          <circle cx={tile * 0.26} cy={tile * 0.22} r={tile * 0.2} fill="#8d8d8d" />
          <circle cx={tile * 0.74} cy={tile * 0.4} r={tile * 0.22} fill="#4e4e4e" />
          <circle cx={tile * 0.36} cy={tile * 0.76} r={tile * 0.18} fill="#585858" />
          <circle cx={tile * 0.84} cy={tile * 0.86} r={tile * 0.13} fill="#a0a0a0" />
        </pattern>
      {/if}
    {/each}
  </defs>
  <g clip-path="url(#{id}-frame)">
    <rect width={frameWidth} height={frameHeight} fill="#8c8c8c" />
    {#each drawn.shapes as figure (figure.key)}
      {#if figure.kind === 'background'}
        <g filter="url(#{id}-{figure.key})">
          {#each [pick(grounds, figure.order), `url(#${id}-${figure.key}-detail)`] as fill (fill)}
            <rect
              x={px(figure.x)}
              y={figure.y * frameHeight}
              width={px(figure.width)}
              height={figure.height * frameHeight}
              {fill}
            />
          {/each}
        </g>
      {:else if figure.kind === 'thing'}
        <rect
          x={px(figure.x)}
          y={figure.y * frameHeight}
          width={px(figure.width)}
          height={figure.height * frameHeight}
          rx="3"
          fill="#f4f4f4"
          stroke="#222"
          filter="url(#{id}-{figure.key})"
        />
      {:else}
        <!-- The face is the mouse's shortcut; the Floor and the people list are the keyboard's way. -->
        <!-- svelte-ignore a11y_click_events_have_key_events, a11y_no_static_element_interactions -->
        <g filter={sigma(figure) > 0.25 ? `url(#${id}-${figure.key})` : undefined} onclick={() => onselect?.(figure)}>
          <g transform="scale({frameWidth} {frameHeight})">
            <path
              d={figure.body}
              fill={pick(clothes, figure.shade)}
              stroke="#1c1c1c"
              stroke-opacity="0.45"
              vector-effect="non-scaling-stroke"
            />
          </g>
          <ellipse
            cx={px(figure.head.x)}
            cy={figure.head.y * frameHeight}
            rx={px(figure.head.rx)}
            ry={figure.head.ry * frameHeight}
            fill={pick(hair, figure.shade)}
          />
          {#if figure.face}
            <ellipse
              cx={px(figure.face.x)}
              cy={figure.face.y * frameHeight}
              rx={px(figure.face.rx)}
              ry={figure.face.ry * frameHeight}
              fill={pick(heads, figure.shade)}
            />
          {/if}
          <g transform="scale({frameWidth} {frameHeight})">
            <g
              fill="none"
              stroke="#2b2b2b"
              stroke-opacity="0.62"
              stroke-width={Math.max(0.8, px(figure.head.rx) / 26)}
              stroke-linecap="round"
              stroke-linejoin="round"
            >
              <path d={figure.brows} vector-effect="non-scaling-stroke" />
              <path d={figure.mouth} vector-effect="non-scaling-stroke" />
              <path d={figure.nose} vector-effect="non-scaling-stroke" stroke-opacity="0.3" />
            </g>
          </g>
          {#each figure.eyes as eye, index (index)}
            {@const r = px(eye.r)}
            <ellipse cx={px(eye.x)} cy={eye.y * frameHeight} rx={r * 1.05} ry={r * 0.5} fill="#f4f4f4" />
            <circle cx={px(eye.x)} cy={eye.y * frameHeight} r={r * 0.47} fill="#161616" />
          {/each}
        </g>
      {/if}
    {/each}
    {#if !plain}
      <g stroke="#ffffff" stroke-opacity="0.28" stroke-width="1">
        {#each [1 / 3, 2 / 3] as third (third)}
          <path d="M{frameWidth * third} 0V{frameHeight}M0 {frameHeight * third}H{frameWidth}" />
        {/each}
      </g>
      {#each drawn.shapes as figure (figure.key)}
        {#if figure.kind === 'person'}
          {#each figure.eyes as eye, index (index)}
            {#if eye.target}
              {@const r = Math.max(11, px(eye.r) * 1.9)}
              <circle
                cx={px(eye.x)}
                cy={eye.y * frameHeight}
                {r}
                fill="none"
                stroke="#c2341d"
                stroke-width="2.5"
                data-testid="target-ring"
              />
            {:else if verdict(eye.ratio) !== 'sharp'}
              <circle
                cx={px(eye.x)}
                cy={eye.y * frameHeight}
                r={Math.max(9, px(eye.r) * 1.6)}
                fill="none"
                stroke="#ffffff"
                stroke-opacity="0.8"
                stroke-dasharray="3 3"
              />
            {/if}
          {/each}
        {:else if figure.kind === 'thing' && figure.target}
          <circle
            cx={px(figure.x + figure.width / 2)}
            cy={(figure.y + figure.height / 2) * frameHeight}
            r={Math.max(14, px(figure.width))}
            fill="none"
            stroke="#c2341d"
            stroke-width="2.5"
          />
        {/if}
      {/each}
    {/if}
  </g>
</svg>
