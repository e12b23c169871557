/** Bodies of requests, read no further than a limit. */

/** The whole body; null when it is larger. Whatever is beyond is not read. */
export async function readBody(request: Request, maxBytes: number): Promise<Uint8Array<ArrayBuffer> | null> {
  const said = Number(request.headers.get('content-length') ?? 0);
  if (said > maxBytes) return null;
  const reader = request.body?.getReader();
  if (!reader) return new Uint8Array(0);
  const parts: Uint8Array[] = [];
  let size = 0;
  for (;;) {
    const { done, value } = await reader.read();
    if (done) break;
    size += value.length;
    if (size > maxBytes) {
      await reader.cancel();
      return null;
    }
    parts.push(value);
  }
  const whole = new Uint8Array(size);
  let at = 0;
  for (const part of parts) {
    whole.set(part, at);
    at += part.length;
  }
  return whole;
}
