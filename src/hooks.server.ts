import type { Handle } from '@sveltejs/kit';

/** Largest request any route reads, bytes. adapter-node cuts off unannounced bodies at the same size (scripts/start.mjs). */
const maxRequestBytes = 512 * 1024;

const securityHeaders: Readonly<Record<string, string>> = {
  'x-content-type-options': 'nosniff',
  'referrer-policy': 'no-referrer',
  'permissions-policy': 'camera=(), microphone=(), geolocation=(), payment=(), usb=()',
  'cross-origin-opener-policy': 'same-origin',
  'cross-origin-resource-policy': 'same-origin'
};

export const handle: Handle = async ({ event, resolve }) => {
  const announced = Number(event.request.headers.get('content-length') ?? 0);
  if (announced > maxRequestBytes) {
    return new Response(`The request is larger than ${maxRequestBytes / 1024} KB.`, {
      status: 413,
      headers: securityHeaders
    });
  }
  const response = await resolve(event);
  for (const [name, value] of Object.entries(securityHeaders)) response.headers.set(name, value);
  return response;
};
