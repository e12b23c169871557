import type { RenderableSetup } from '../../render/request';

/** All that a small picture of a setup depends on, as one string to compare: what is the same need not be drawn again. */
export function drawnFrom({ setup, plan, body, lens }: RenderableSetup, sizePx: readonly number[] = []): string {
  const { people, things, backgrounds, place, light, camera } = setup;
  const entry = plan.stops[plan.selected];
  const scene = [people, things, backgrounds, place, light.level, camera, body, lens];
  return JSON.stringify([...scene, entry?.stop.label, entry?.target, ...sizePx]);
}

/** The picture of a setup that its field card shows. */
export const cardKey = (setupId: string) => `card-${setupId}`;
