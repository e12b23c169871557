/** A finger drawn across: to the left for the next, to the right for the one before. */
import type { Attachment } from 'svelte/attachments';

/** A swipe is at least so long, px, twice as long as it is high, and done within so many ms. */
const least = { px: 60, ms: 700 } as const;

export function swipe(onswipe: (by: 1 | -1) => void): Attachment<HTMLElement> {
  return (element) => {
    let from: { x: number; y: number; at: number } | null = null;
    const start = (event: TouchEvent) => {
      const [touch] = event.touches;
      // Two fingers mean something else.
      from = touch && event.touches.length === 1 ? { x: touch.clientX, y: touch.clientY, at: event.timeStamp } : null;
    };
    const end = (event: TouchEvent) => {
      const [touch] = event.changedTouches;
      if (!from || !touch || event.timeStamp - from.at > least.ms) return;
      const [dx, dy] = [touch.clientX - from.x, touch.clientY - from.y];
      if (Math.abs(dx) >= least.px && Math.abs(dx) > 2 * Math.abs(dy)) onswipe(dx < 0 ? 1 : -1);
      from = null;
    };
    element.addEventListener('touchstart', start, { passive: true });
    element.addEventListener('touchend', end, { passive: true });
    return () => {
      element.removeEventListener('touchstart', start);
      element.removeEventListener('touchend', end);
    };
  };
}
