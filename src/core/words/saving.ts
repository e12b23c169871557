/** What is said of the store. */

/** Why something could not be stored, in plain words. */
export function storeFailureWords(error: unknown): string {
  const name = errorName(error);
  if (/quota/i.test(name)) return 'The space this browser gives Focalis is full.';
  if (/DatabaseClosed|InvalidState/.test(name)) return 'The store was closed, most likely by another window.';
  if (/Security|NotAllowed/.test(name)) return 'This browser does not let Focalis store anything.';
  if (/Timeout|Abort|Transaction/.test(name)) return 'Saving was interrupted.';
  return error instanceof Error && error.message !== ''
    ? `Reason: ${error.message.split('\n')[0] ?? ''}`
    : 'The store gives no reason.';
}

function errorName(error: unknown): string {
  if (typeof error !== 'object' || error === null) return String(error);
  const { name = '', inner, message = '' } = error as { name?: string; inner?: unknown; message?: string };
  return `${name} ${inner ? errorName(inner) : ''} ${/quota/i.test(message) ? 'quota' : ''}`;
}
