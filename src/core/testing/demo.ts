/** The demo's setups by name, for tests. */
import { demoJobs } from '../job/demo';
import type { Setup } from '../setup/schema';

/** A setup looked at as a standard print. */
export const inPrint = (setup: Setup): Setup => ({
  ...setup,
  intent: { ...setup.intent, viewing: { kind: 'traditional' } }
});

/** @throws when there is none of that name */
export function demoSetup(name: string): Setup {
  const found = demoJobs().flatMap(({ setups }) => setups.filter((setup) => setup.name === name))[0];
  if (!found) throw new Error(`The demo has no setup "${name}".`);
  return found;
}
