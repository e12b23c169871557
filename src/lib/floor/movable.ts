import { drag } from 'd3-drag';
import { select } from 'd3-selection';
import type { Attachment } from 'svelte/attachments';
import { Coalesced } from '$lib/state/screen/coalesce';

export interface MoveHandlers {
  /** `also`: Ctrl, Command or Shift was held, which selects besides what is selected. */
  start?: (also: boolean) => void;
  /** Pointer travel since the start, px. */
  move: (dx: number, dy: number, fine: boolean) => void;
  end?: () => void;
}

/** Makes an SVG element follow the pointer through d3-drag. `handlers` is asked anew for every drag. */
export function movable(handlers: () => MoveHandlers): Attachment<SVGGElement> {
  return (element) => {
    let from = { x: 0, y: 0 };
    let current: MoveHandlers | undefined;
    const moves = new Coalesced((dx: number, dy: number, fine: boolean) => current?.move(dx, dy, fine));
    const behaviour = drag<SVGGElement, unknown>()
      .container(() => element.ownerSVGElement ?? element)
      // Ctrl-click is how some select several.
      .filter((event: MouseEvent) => !event.button)
      .on('start', (event: { x: number; y: number; sourceEvent: MouseEvent }) => {
        from = { x: event.x, y: event.y };
        current = handlers();
        const { shiftKey, ctrlKey, metaKey } = event.sourceEvent;
        current.start?.(shiftKey || ctrlKey || metaKey);
      })
      .on('drag', (event: { x: number; y: number; sourceEvent: MouseEvent }) =>
        moves.push(event.x - from.x, event.y - from.y, event.sourceEvent.shiftKey)
      )
      .on('end', () => {
        moves.flush();
        current?.end?.();
      });
    select(element).call(behaviour);
    return () => void select(element).on('.drag', null);
  };
}
