/** What is to be seen of a frame, read when it is shown and let go when it is not. */
import { objectUrl } from '$lib/controls/objectUrl.svelte';
import type { FramePicture } from '$lib/data';
import { getApp } from '$lib/state/app.svelte';

/** Rows that only fly past are not worth reading their pictures: an address of bytes costs half a millisecond, and a row has seven. */
const flung = { until: 0, at: 0, top: 0 };
/** Faster than this, pixels a millisecond, nobody sees pictures; so long after, ms, they are read. */
const fast = 2;
const settledMs = 120;

/** Tells that a table of frames has been scrolled to there. */
export function scrolledTo(top: number): void {
  const now = performance.now();
  const speed = Math.abs(top - flung.top) / Math.max(1, now - flung.at);
  if (speed > fast && now - flung.at < settledMs * 2) flung.until = now + settledMs;
  flung.at = now;
  flung.top = top;
}

/** The small picture of a frame and everybody's eyes. */
export function framePicture(id: () => string) {
  const app = getApp();
  let kept = $state.raw<FramePicture>();
  $effect(() => {
    let gone = false;
    let timer: ReturnType<typeof setTimeout> | undefined;
    void app.frames.whose.pointed;
    const asked = id();
    const read = () => {
      const wait = flung.until - performance.now();
      if (wait > 0) timer = setTimeout(read, wait);
      else
        void app.frames.picture(asked).then((found) => {
          if (!gone) kept = found;
        });
    };
    read();
    return () => {
      gone = true;
      clearTimeout(timer);
    };
  });
  const thumbnail = objectUrl(() => kept?.thumbnail);
  return {
    get thumbnail(): string {
      return thumbnail.current;
    },
    eyesOf: (faceId: string | undefined): Blob | undefined =>
      kept?.crops.find((crop) => crop.faceId === faceId)?.picture
  };
}
