/** Lit by lamps and candles rather than by the sky. Apart from the scene: who asks needs no graphics package for it. */
import type { KnownLight, Setup } from '../core/setup/schema';

const eveningScenes: readonly KnownLight[] = ['stringBulbs', 'candles', 'church'];

export function isEvening({ light }: Setup): boolean {
  return light.level.kind === 'estimated' && eveningScenes.includes(light.level.as);
}
