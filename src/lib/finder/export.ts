/** Saving a picture of the Finder with its settings in it. */
import type { Plan } from '$core/call/plan';
import { withFacts } from '$core/formats/pngText';
import type { Setup } from '$core/setup/schema';
import { canvasBlob } from '$lib/controls/canvasBlob';
import { fileName, saveBlob } from '$lib/controls/download';

interface Saved {
  readonly setup: Setup;
  readonly plan: Plan;
  readonly words: string;
}

export async function savePicture(canvas: HTMLCanvasElement, { setup, plan, words }: Saved): Promise<void> {
  const blob = await canvasBlob(canvas, 'image/png');
  const entry = plan.stops[plan.selected];
  if (!blob || !entry) return;
  const png = withFacts(new Uint8Array(await blob.arrayBuffer()), {
    title: setup.name,
    description: `${words} Rendered by Focalis with the ${plan.lensName}; not a photograph.`,
    focalLengthMm: plan.focalLengthMm,
    fNumber: entry.stop.fNumber,
    subjectDistanceMm: entry.target.focusDistanceMm,
    exposureTimeS: entry.light.shutterS
  });
  saveBlob(new Blob([png], { type: 'image/png' }), `${fileName(setup.name)}-f${entry.stop.label}.png`);
}
