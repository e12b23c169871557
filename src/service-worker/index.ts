/// <reference types="@sveltejs/kit" />
/// <reference no-default-lib="true"/>
/// <reference lib="esnext" />
/// <reference lib="webworker" />
/**
 * Focalis without a network: the one page, its code, its workers and fonts are fetched beforehand; the renderer, figures and
 * charts once they have been used. Answers of the server are never kept. A new version waits until it is told to take over.
 */
import { build, files, version } from '$service-worker';
import { isPage } from '../server/pages';
import { isApart, takeOver } from '../lib/shell/offline/names';

const self = globalThis.self as unknown as ServiceWorkerGlobalScope;
const prefix = 'focalis-';
const cacheName = `${prefix}${version}`;
/** The page built beforehand, which serves every address. */
const shell = '/';
const beforehand = [shell, ...build.filter((path) => !isApart(path)), ...files.filter((path) => !isApart(path))];
const ours = new Set([...beforehand, ...build, ...files]);

/** What has no name of its own for each version comes from the server, not from what the browser kept of the one before. */
const fresh = (path: string): Request =>
  new Request(path, { cache: path.startsWith('/_app/immutable/') ? 'default' : 'reload' });

/** What an earlier version had kept beside that is kept again, as far as it can be had. */
async function keepAsBefore(cache: Cache): Promise<void> {
  for (const name of await caches.keys()) {
    if (!name.startsWith(prefix) || name === cacheName) continue;
    const before = await (await caches.open(name)).keys();
    const used = before
      .map((request) => new URL(request.url).pathname)
      .filter((path) => ours.has(path) && isApart(path));
    await Promise.allSettled(used.map((path) => cache.add(fresh(path))));
  }
}

self.addEventListener('install', (event) => {
  const install = async () => {
    const cache = await caches.open(cacheName);
    await cache.addAll(beforehand.map(fresh));
    await keepAsBefore(cache);
  };
  event.waitUntil(install());
});

self.addEventListener('activate', (event) => {
  const activate = async () => {
    const old = (await caches.keys()).filter((name) => name.startsWith(prefix) && name !== cacheName);
    await Promise.all(old.map((name) => caches.delete(name)));
    // The first visit, too, goes on without a network; whoever has another version has asked for this one.
    await self.clients.claim();
  };
  event.waitUntil(activate());
});

self.addEventListener('message', (event) => {
  if (event.data === takeOver) void self.skipWaiting();
});

async function kept(request: Request, path: string): Promise<Response> {
  const cache = await caches.open(cacheName);
  const found = await cache.match(path);
  if (found) return found;
  const response = await fetch(request);
  // Whole ones only: a part of a file, or an error, is not what the next one asks for.
  if (response.status === 200 && isApart(path)) keepAside(cache, path, response.clone());
  return response;
}

/** A full disk keeps nothing: it is fetched again. */
function keepAside(cache: Cache, path: string, response: Response): void {
  cache.put(path, response).catch(() => undefined);
}

self.addEventListener('fetch', (event) => {
  const { request } = event;
  const url = new URL(request.url);
  if (request.method !== 'GET' || url.origin !== self.location.origin) return;
  if (request.mode === 'navigate') {
    if (isPage(url.pathname)) event.respondWith(kept(request, shell));
    return;
  }
  if (ours.has(url.pathname) || url.pathname.startsWith('/_app/immutable/'))
    event.respondWith(kept(request, url.pathname));
});
