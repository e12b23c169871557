import { select } from 'd3-selection';
import { zoom, zoomIdentity, type D3ZoomEvent, type ZoomBehavior } from 'd3-zoom';
import type { Attachment } from 'svelte/attachments';
import type { Pan } from '../../drawing/geometry';

/** Furthest and closest, against the fit it started from. */
const zoomRange: [number, number] = [0.2, 40];

interface Zoomer<E extends Element> {
  readonly attach: Attachment<E>;
  /** Nearer (above 1) or further, about the middle. */
  by: (factor: number) => void;
  reset: () => void;
  /** Takes over where another has been brought, and tells nobody. */
  follow: (pan: Pan) => void;
}

/** Wheel, pinch and dragging the empty floor, through d3-zoom. With Shift a drag selects instead. */
export function zoomer<E extends HTMLElement | SVGSVGElement = SVGSVGElement>(
  onpan: (pan: Pan) => void,
  range: [number, number] = zoomRange
): Zoomer<E> {
  let behaviour: ZoomBehavior<E, unknown> | undefined;
  let surface: E | undefined;
  return {
    attach: (element) => {
      surface = element;
      behaviour = zoom<E, unknown>()
        .scaleExtent(range)
        .filter((event: MouseEvent | WheelEvent) => event.type === 'wheel' || (!event.shiftKey && !event.button))
        .on('zoom', (event: D3ZoomEvent<E, unknown>) => {
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
    },
    follow: ({ k, x, y }) => {
      // Where d3-zoom keeps it (its README, "zoom transforms").
      if (surface) select(surface).property('__zoom', zoomIdentity.translate(x, y).scale(k));
    }
  };
}
