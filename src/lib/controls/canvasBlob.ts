/** What is on a canvas, as a file of a picture; null where the browser makes none. `quality` from 0 to 1, for JPEG. */
export const canvasBlob = (
  canvas: HTMLCanvasElement,
  type: 'image/png' | 'image/jpeg',
  quality?: number
): Promise<Blob | null> => new Promise((resolve) => canvas.toBlob(resolve, type, quality));
