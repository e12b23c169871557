<script lang="ts">
  import Fold from '$lib/controls/Fold.svelte';
  import { tones } from '$core/paper/primitives';
  import { shortLength } from '$core/words/bench';
  import { formatLength, type LengthUnit } from '$core/units/length';
  import { objectUrl } from '$lib/controls/objectUrl.svelte';
  import type { FocusRead } from '../../workers/bench.worker';

  interface Props {
    read: Extract<FocusRead, { kind: 'measured' }>;
    name: string;
    unit: LengthUnit;
  }
  /** The sheet as photographed, with what was found written where it was found. */
  let { read, name, unit }: Props = $props();
  const { shown, frame } = $derived(read);
  const url = objectUrl(() => shown.image);
  const where = $derived(frame.offsetMm < 0 ? 'in front' : 'behind');
  /** Labels keep apart where the lines lie close together. */
  const above = $derived((shown.sharpest?.[0].y ?? 0) < (shown.aimed?.[0].y ?? 1));
</script>

<figure>
  <div class="relative" style:aspect-ratio="{shown.width} / {shown.height}">
    <img src={url.current} alt="The focus sheet in {name}" class="absolute inset-0 size-full" />
    <svg class="absolute inset-0 size-full" viewBox="0 0 {shown.width} {shown.height}" aria-hidden="true">
      {#each [{ line: shown.aimed, colour: tones.pencil, dashed: true, text: 'aimed', top: !above }, { line: shown.sharpest, colour: tones.ink, dashed: false, text: `sharpest: ${shortLength(Math.abs(frame.offsetMm), unit)} ${where}`, top: above }] as mark (mark.text)}
        {#if mark.line}
          {@const [a, b] = mark.line}
          {@const size = shown.width / 38}
          <line
            x1={a.x * shown.width}
            y1={a.y * shown.height}
            x2={b.x * shown.width}
            y2={b.y * shown.height}
            stroke={mark.colour}
            stroke-width={shown.width / 300}
            stroke-dasharray={mark.dashed ? `${shown.width / 60} ${shown.width / 90}` : undefined}
          />
          <g transform="translate({a.x * shown.width}, {a.y * shown.height + (mark.top ? -size * 0.45 : size * 1.15)})">
            <rect
              x={-size * 0.2}
              y={-size * 0.95}
              width={mark.text.length * size * 0.52 + size * 0.4}
              height={size * 1.25}
              fill="#ffffff"
              opacity="0.9"
            />
            <text font-size={size} font-weight="600" fill={mark.colour}>{mark.text}</text>
          </g>
        {/if}
      {/each}
    </svg>
  </div>
  <figcaption class="mt-1 text-[14px] text-soft">
    {name} · {Number(read.focalLengthMm.toFixed(0))} mm f/{Number(read.fNumber.toFixed(1))} at {formatLength(
      frame.distanceMm,
      unit
    )}
    <div class="mt-1">
      <Fold title="Details" of="sheet">
        <p>
          Square within {frame.tiltDeg.toFixed(1)}°. The leaning half reaches {formatLength(frame.wings.frontMm, unit)} in
          front and {formatLength(frame.wings.behindMm, unit)} behind.
        </p>
      </Fold>
    </div>
  </figcaption>
</figure>
