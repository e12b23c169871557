import { describe, expect, it, vi } from 'vitest';
import { takeOver } from './names';
import { Offline } from './offline.svelte';

/** A browser's container of service workers, as far as it is used. */
function container(controlled: boolean) {
  const workers = new EventTarget() as EventTarget & Record<string, unknown>;
  const registration = new EventTarget() as EventTarget & Record<string, unknown>;
  const waiting = { postMessage: vi.fn() };
  Object.assign(registration, { waiting: null, installing: null, update: vi.fn(() => Promise.resolve()) });
  let ready: () => void = () => undefined;
  Object.assign(workers, {
    controller: controlled ? {} : null,
    register: vi.fn(() => Promise.resolve(registration)),
    ready: new Promise<void>((resolve) => (ready = resolve))
  });
  return {
    workers: workers as unknown as ServiceWorkerContainer,
    registration,
    waiting,
    ready,
    takesOver: () => {
      workers.controller = {};
      workers.dispatchEvent(new Event('controllerchange'));
    },
    /** A new version arrives and has been installed. */
    arrives: () => {
      const installing = new EventTarget();
      registration.installing = installing;
      registration.dispatchEvent(new Event('updatefound'));
      registration.waiting = waiting;
      installing.dispatchEvent(new Event('statechange'));
    }
  };
}

describe('Focalis kept in the browser', () => {
  it('says when all is there, and at the first visit nothing is replaced', async () => {
    const browser = container(false);
    const offline = new Offline(browser.workers);
    const replaced = vi.fn();
    await offline.start(replaced);
    expect(offline.ready).toBe(false);
    browser.ready();
    await vi.waitFor(() => expect(offline.ready).toBe(true));
    browser.takesOver();
    expect(replaced).not.toHaveBeenCalled();
    // Another one later on does replace it.
    browser.takesOver();
    expect(replaced).toHaveBeenCalledOnce();
  });

  it('lets a new version wait until it is wanted', async () => {
    const browser = container(true);
    const offline = new Offline(browser.workers);
    const replaced = vi.fn();
    await offline.start(replaced);
    expect(offline.waiting).toBe(false);
    browser.arrives();
    expect(offline.waiting).toBe(true);
    expect(browser.waiting.postMessage).not.toHaveBeenCalled();
    offline.takeOver();
    expect(browser.waiting.postMessage).toHaveBeenCalledExactlyOnceWith(takeOver);
    browser.takesOver();
    expect(replaced).toHaveBeenCalledOnce();
  });

  it('sees one that arrived while it was closed', async () => {
    const browser = container(true);
    browser.registration.waiting = browser.waiting;
    const offline = new Offline(browser.workers);
    await offline.start(() => undefined);
    expect(offline.waiting).toBe(true);
  });

  it('looks for one when asked, and without a network finds none', async () => {
    const browser = container(true);
    const offline = new Offline(browser.workers);
    await offline.start(() => undefined);
    browser.registration.update = vi.fn(() => Promise.reject(new TypeError('no network')));
    offline.check();
    await Promise.resolve();
    expect(offline.waiting).toBe(false);
    browser.registration.update = vi.fn(() => {
      browser.registration.waiting = browser.waiting;
      return Promise.resolve();
    });
    offline.check();
    await vi.waitFor(() => expect(offline.waiting).toBe(true));
  });

  it('goes without where the browser keeps nothing, or refuses', async () => {
    const without = new Offline(undefined);
    await without.start(() => undefined);
    expect(without.possible).toBe(false);
    const browser = container(true);
    browser.workers.register = () => Promise.reject(new Error('barred'));
    const refused = new Offline(browser.workers);
    await expect(refused.start(() => undefined)).resolves.toBeUndefined();
    refused.check();
    refused.takeOver();
    expect(refused.waiting).toBe(false);
  });
});
