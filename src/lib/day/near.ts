/** Tells whether an element is on the screen or close to it: what is far away need not be worked out. */
import type { Attachment } from 'svelte/attachments';

/** How close, px. */
const margin = 800;

export function near(tell: (near: boolean) => void): Attachment {
  return (element) => {
    const observer = new IntersectionObserver(
      (seen) => {
        const last = seen[seen.length - 1];
        if (last) tell(last.isIntersecting);
      },
      { rootMargin: `${margin}px 0px` }
    );
    observer.observe(element);
    return () => observer.disconnect();
  };
}
