/** Offers bytes as a file to keep. */
export function saveBlob(blob: Blob, name: string): void {
  const url = URL.createObjectURL(blob);
  const link = document.createElement('a');
  link.href = url;
  link.download = name;
  link.click();
  // The download has its own hold on the data once it has begun.
  setTimeout(() => URL.revokeObjectURL(url), 10_000);
}

/** A name as one of a file: letters and digits, all else a hyphen. */
export const fileName = (name: string): string =>
  name.replaceAll(/[^\p{L}\p{N}]+/gu, '-').replaceAll(/^-+|-+$/g, '') || 'Focalis';

/** Hands text to the browser as a file. */
export function saveText(text: string, name: string): void {
  saveBlob(new Blob([text], { type: 'application/json' }), name);
}

/** Gives a text to the device's share sheet; where it takes no files, or nobody wants to, it is saved. */
export async function shareText(text: string, name: string): Promise<void> {
  const file = new File([text], name, { type: 'application/json' });
  if (!navigator.canShare?.({ files: [file] })) {
    saveText(text, name);
    return;
  }
  try {
    await navigator.share({ files: [file], title: name });
  } catch (error) {
    // Put away by whoever was asked: nothing is to be done.
    if (!(error instanceof DOMException && error.name === 'AbortError')) saveText(text, name);
  }
}
