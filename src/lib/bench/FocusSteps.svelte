<script lang="ts">
  import type { FocusGuide } from '$core/bench/guide';
  import type { Lens } from '$core/kit/schema';
  import { formatLength, type LengthUnit } from '$core/units/length';

  interface Props {
    lens: Lens;
    /** One for each end of a zoom. */
    guides: readonly (FocusGuide & { readonly focalLengthMm: number; readonly fNumber: number })[];
    unit: LengthUnit;
  }
  /** How to set up, before the first picture. */
  let { lens, guides, unit }: Props = $props();
  const zoom = $derived(guides.length > 1);
</script>

<ol class="list-decimal space-y-2 border border-line bg-raised py-4 pr-4 pl-9 text-pretty">
  <li>Print the focus sheet, cut it in two, check its 100 mm line.</li>
  <li>
    Stand the eye half upright, square to the lens,
    {#each guides as guide, index (guide.focalLengthMm)}{index > 0 ? ', ' : ''}{zoom
        ? `at ${guide.focalLengthMm} mm `
        : ''}<b class="font-semibold">{formatLength(guide.distanceMm, unit)}</b>{/each} away. Lean the other half back at
    about 45° beside it, its middle at the same distance as the eye.{guides.some(({ short }) => short)
      ? ' That close, the depth of field is deeper than the sheet: less certain.'
      : ''}
  </li>
  <li>
    Tripod, timer, stabiliser off, even light, f/{lens.widestFNumber}, single point on the eye. Lens level, at the
    height of the eye.
  </li>
  <li>
    Ten frames or more. Defocus before each, alternately to near and to far, then focus and shoot. One frame can’t
    separate error from scatter.
  </li>
  <li>
    Optional: ten more, two stops down{zoom ? ', and the same at the other end of the zoom' : ''}. Import them all
    together.
  </li>
</ol>
