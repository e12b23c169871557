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

/** Hands text to the browser as a file. */
export function saveText(text: string, name: string): void {
  saveBlob(new Blob([text], { type: 'application/json' }), name);
}
