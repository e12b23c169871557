import type { Handle } from '@sveltejs/kit';
import { refusal } from '$lib/server/api';

const isApi = (path: string) => path === '/api' || path.startsWith('/api/');

/** One shape for every error of the API. Sizes, and headers that all responses carry: src/server/. */
/** What a form of another site can send without asking. */
const formTypes = ['application/x-www-form-urlencoded', 'multipart/form-data', 'text/plain'];
const isForeignForm = ({ headers }: Request, origin: string): boolean => {
  const type = (headers.get('content-type') ?? '').split(';', 1)[0]?.trim().toLowerCase() ?? '';
  return formTypes.includes(type) && headers.get('origin') !== origin;
};

export const handle: Handle = async ({ event, resolve }) => {
  const { request, url } = event;
  if (!['GET', 'HEAD', 'OPTIONS'].includes(request.method) && isForeignForm(request, url.origin))
    return refusal(403, 'Forms of other sites are refused.');
  const response = await resolve(event);
  if (!isApi(event.url.pathname) || response.status < 400) return response;
  const said = await response.text();
  if (isRefusal(said)) return new Response(said, response);
  const reasons: Readonly<Record<number, string>> = {
    404: 'There is nothing at this address.',
    405: `This address does not take ${event.request.method}.`
  };
  const allow = response.headers.get('allow');
  const reason = reasons[response.status] ?? 'The request could not be answered.';
  return refusal(response.status, reason, { headers: allow === null ? {} : { allow } });
};

function isRefusal(text: string): boolean {
  try {
    const data = JSON.parse(text) as unknown;
    return typeof data === 'object' && data !== null && 'field' in data && 'reason' in data;
  } catch {
    return false;
  }
}
