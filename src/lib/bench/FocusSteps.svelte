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
    Stand the half with the eye upright and square to the lens,
    {#each guides as guide, index (guide.focalLengthMm)}{index > 0 ? ', ' : ''}{zoom
        ? `at ${guide.focalLengthMm} mm `
        : ''}<b class="font-semibold">{formatLength(guide.distanceMm, unit)}</b>{/each} from it: there each wing of the other
    half reaches as far as the sharp zone. Lean that half back beside it by about 45°, its middle as far away as the eye.{guides.some(
      ({ short }) => short
    )
      ? ' That near the sharp zone is deeper than the sheet: the figure is less sure.'
      : ''}
  </li>
  <li>
    Tripod, timer, stabiliser off, even light, f/{lens.widestFNumber}, one focus point on the eye. The lens as high as
    the eye, level.
  </li>
  <li>
    Ten frames or more: turn the lens to near, focus, shoot; to far, focus, shoot; and so on. One frame is its scatter
    as much as its bias.
  </li>
  <li>
    Then, if you like, ten two stops down{zoom ? ', and the same at the other end of the zoom' : ''}: all of it can come
    in together.
  </li>
</ol>
