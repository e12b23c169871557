/**
 * The server: Kit's handler behind one that gives every response its headers, sends the one page that is built beforehand
 * to every address of a page, ends connections that dawdle, and stops in good order.
 */
import { readFileSync } from 'node:fs';
import { createServer as createHttp, type IncomingMessage, type RequestListener, type Server } from 'node:http';
import { createServer as createHttps } from 'node:https';
import { networkInterfaces } from 'node:os';
import { mostFor } from '../core/service/limits';
import { policyFor, securityHeaders, shellPolicy } from './headers';
import { isPage } from './pages';

export interface ServeOptions {
  readonly host: string;
  readonly port: number;
  /** Folder of the build. */
  readonly build: string;
  /** Kit's handler. */
  readonly handler: RequestListener;
  /** Files of a certificate and its key, PEM. */
  readonly tls: { readonly cert: string; readonly key: string } | null;
  /** Address people are told, as behind a proxy. */
  readonly origin: string | undefined;
  readonly timing?: Timing;
}

export interface Timing {
  /** Longest a client may take to send its headers, and its whole request, ms. */
  readonly headersTimeout: number;
  readonly requestTimeout: number;
  /** How often that is looked after, ms. */
  readonly connectionsCheckingInterval: number;
}

const usualTiming: Timing = { headersTimeout: 10_000, requestTimeout: 30_000, connectionsCheckingInterval: 2000 };

/** Open requests may finish for so long when the server is told to stop, ms. */
const stopWithinMs = 5000;

function pathOf(request: IncomingMessage): string {
  return (request.url ?? '/').split('?', 1)[0] ?? '/';
}

/** Answers every request: headers first, so that whoever ends the response sends them. */
export function listener(build: string, handler: RequestListener): RequestListener {
  const shell = shellPolicy(build);
  return (request, response) => {
    const path = pathOf(request);
    for (const [name, value] of Object.entries(securityHeaders)) response.setHeader(name, value);
    response.setHeader('content-security-policy', policyFor(path, shell));
    const refuse = (status: number, reason: string) => {
      request.resume();
      response.writeHead(status, { 'content-type': 'application/json' }).end(JSON.stringify({ field: '', reason }));
    };
    const most = mostFor(path);
    if (Number(request.headers['content-length'] ?? 0) > most) {
      refuse(413, `The request is larger than ${most / 1024} KB.`);
      return;
    }
    if (isPage(path)) {
      if (request.method !== 'GET' && request.method !== 'HEAD') {
        response.setHeader('allow', 'GET, HEAD');
        refuse(405, `This address does not take ${request.method ?? ''}.`);
        return;
      }
      // One page for every address: what it shows is in the browser.
      request.url = '/';
    }
    handler(request, response);
  };
}

/** Addresses a phone in the same network can use. */
function addresses({ host, port, tls, origin }: ServeOptions): string[] {
  if (origin) return [origin];
  const scheme = tls ? 'https' : 'http';
  const everywhere = host === '0.0.0.0' || host === '::';
  if (!everywhere) return [`${scheme}://${host.includes(':') ? `[${host}]` : host}:${port}`];
  const found = Object.values(networkInterfaces()).flatMap((list) => list ?? []);
  const outer = found.filter((item) => item.family === 'IPv4' && !item.internal).map((item) => item.address);
  return (outer.length > 0 ? outer : ['127.0.0.1']).map((address) => `${scheme}://${address}:${port}`);
}

/** Starts serving. Rejects when the port cannot be had. */
export function serve(options: ServeOptions): Promise<{ readonly server: Server; readonly addresses: string[] }> {
  const { host, port, build, handler, tls, timing = usualTiming } = options;
  const answer = listener(build, handler);
  const server: Server = tls
    ? createHttps({ ...timing, cert: readFileSync(tls.cert), key: readFileSync(tls.key) }, answer)
    : createHttp(timing, answer);
  const stop = () => {
    server.close(() => process.exit(0));
    server.closeIdleConnections();
    setTimeout(() => server.closeAllConnections(), stopWithinMs).unref();
  };
  process.once('SIGTERM', stop);
  process.once('SIGINT', stop);
  return new Promise((resolve, reject) => {
    server.once('error', reject);
    server.listen(port, host, () => resolve({ server, addresses: addresses(options) }));
  });
}
