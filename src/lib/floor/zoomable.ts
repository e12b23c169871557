import { select } from 'd3-selection';
import { zoom, zoomIdentity, type D3ZoomEvent, type ZoomBehavior } from 'd3-zoom';
import type { Attachment } from 'svelte/attachments';
import type { Pan } from '../../floor/geometry';

/** Furthest and closest, against the fit it started from. */
const zoomRange: [number, number] = [0.2, 40];

interface Zoomer {
  readonly attach: Attachment<SVGSVGElement>;
  /** Nearer (above 1) or further, about the middle. */
  by: (factor: number) => void;
  reset: () => void;
}

/** Wheel, pinch and dragging the empty floor, through d3-zoom. With Shift a drag selects instead. */
export function zoomer(onpan: (pan: Pan) => void): Zoomer {
  let behaviour: ZoomBehavior<SVGSVGElement, unknown> | undefined;
  let surface: SVGSVGElement | undefined;
  return {
    attach: (element) => {
      surface = element;
      behaviour = zoom<SVGSVGElement, unknown>()
        .scaleExtent(zoomRange)
        .filter((event: MouseEvent | WheelEvent) => event.type === 'wheel' || (!event.shiftKey && !event.button))
        .on('zoom', (event: D3ZoomEvent<SVGSVGElement, unknown>) => {
          const { k, x, y } = event.transform;
          onpan({ k, x, y });
        });
      select(element).call(behaviour).on('dblclick.zoom', null);
      return () => void select(element).on('.zoom', null);
    },
    by: (factor) => {
      if (behaviour && surface) behaviour.scaleBy(select(surface), factor);
    },
    reset: () => {
      if (behaviour && surface) behaviour.transform(select(surface), zoomIdentity);
    }
  };
}
