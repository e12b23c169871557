/** What is to be seen of a frame, read when it is shown and let go when it is not. */
import type { FramePicture } from '$lib/data';
import { getApp } from '$lib/state/app.svelte';

/** An address of bytes for as long as the component shows them. */
export function objectUrl(blob: () => Blob | undefined): { readonly current: string } {
  let current = $state('');
  $effect(() => {
    const bytes = blob();
    const made = bytes ? URL.createObjectURL(bytes) : '';
    current = made;
    return () => {
      if (made !== '') URL.revokeObjectURL(made);
    };
  });
  return {
    get current() {
      return current;
    }
  };
}

/** The small picture of a frame and everybody's eyes. */
export function framePicture(id: () => string) {
  const app = getApp();
  let kept = $state.raw<FramePicture>();
  $effect(() => {
    let gone = false;
    void app.frames.whose.pointed;
    void app.frames.picture(id()).then((found) => {
      if (!gone) kept = found;
    });
    return () => {
      gone = true;
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
