/** What the parts of the application that work on jobs share. */
import type { Database, FocalisStore } from '$lib/data';
import type { Messages } from './messages.svelte';
import type { OpenJob } from './openJob.svelte';
import type { Settings } from './settings.svelte';

export interface Services {
  readonly database: Database;
  readonly store: FocalisStore;
  readonly open: OpenJob;
  readonly settings: Settings;
  readonly messages: Messages;
  readonly newId: () => string;
  readonly now: () => number;
}

export function errorReason(error: unknown): string {
  return error instanceof Error ? error.message : String(error);
}
