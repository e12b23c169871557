/** Bodies of requests, read no further than a limit, and no more of them at once than there is room for. */

import type { AddressBudget } from './addressBudget';

export type BodyResult = Uint8Array<ArrayBuffer> | 'tooLarge' | 'noRoom';

/**
 * The whole body; or that it is larger than it may be, or that too much is on its way. Whatever is beyond is not read. What
 * its length says is counted before the first byte, what says no length as it comes.
 */
export async function readBody(
  request: Request,
  maxBytes: number,
  { budget, address }: { readonly budget: AddressBudget; readonly address: string }
): Promise<BodyResult> {
  const said = Number(request.headers.get('content-length') ?? 0);
  if (said > maxBytes) return 'tooLarge';
  const reader = request.body?.getReader();
  if (!reader) return new Uint8Array(0);
  let counted = 0;
  const hasRoom = (bytes: number): boolean => {
    if (bytes <= counted) return true;
    if (!budget.take(address, bytes - counted)) return false;
    counted = bytes;
    return true;
  };
  try {
    if (!hasRoom(said)) return await ended(reader, 'noRoom');
    const parts: Uint8Array[] = [];
    let size = 0;
    for (;;) {
      const { done, value } = await reader.read();
      if (done) return joined(parts, size);
      size += value.length;
      if (size > maxBytes) return await ended(reader, 'tooLarge');
      if (!hasRoom(size)) return await ended(reader, 'noRoom');
      parts.push(value);
    }
  } finally {
    budget.give(address, counted);
  }
}

async function ended<T>(reader: ReadableStreamDefaultReader<Uint8Array>, result: T): Promise<T> {
  await reader.cancel();
  return result;
}

function joined(parts: readonly Uint8Array[], size: number): Uint8Array<ArrayBuffer> {
  const whole = new Uint8Array(size);
  let at = 0;
  for (const part of parts) {
    whole.set(part, at);
    at += part.length;
  }
  return whole;
}
