/** Names of the choices of the Kit. */
import type { Body, FocusGrid, Lens } from '$core/kit/schema';
import { megapixels, sensorSizes } from '$core/kit/startingPoints';

type Named<T extends string> = readonly { readonly value: T; readonly name: string }[];

export const kindChoices: Named<Body['kind']> = [
  { value: 'mirrorless', name: 'mirrorless' },
  { value: 'slr', name: 'SLR' },
  { value: 'phone', name: 'phone' }
];
export const characterChoices: Named<Lens['character']> = [
  { value: 'crisp', name: 'crisp from wide open' },
  { value: 'ordinary', name: 'ordinary' },
  { value: 'weakWideOpen', name: 'weak wide open' }
];
export const rimChoices: Named<Lens['rim']> = [
  { value: 'soft', name: 'soft' },
  { value: 'even', name: 'even' },
  { value: 'hard', name: 'hard' }
];
export const weakEndChoices: Named<Lens['weakEnds']> = [
  { value: 'none', name: 'neither' },
  { value: 'short', name: 'the short end' },
  { value: 'long', name: 'the long end' },
  { value: 'both', name: 'both ends' }
];
export const sensitiveChoices: Named<FocusGrid['sensitive']> = [
  { value: 'all', name: 'all of them' },
  { value: 'middleColumns', name: 'the middle columns' },
  { value: 'centre', name: 'only the centre' },
  { value: 'none', name: 'none' }
];
export const sizeNames = { pinpoint: 'pinpoint', small: 'small', medium: 'medium', large: 'large' } as const;

export type SensorFormat = keyof typeof sensorSizes | 'own';

/** The name of a sensor's size, or "own" where it has none. */
export function sensorSizeOf({ widthMm, heightMm }: Body['sensor']): SensorFormat {
  const names = Object.keys(sensorSizes) as (keyof typeof sensorSizes)[];
  return (
    names.find((name) => sensorSizes[name].widthMm === widthMm && sensorSizes[name].heightMm === heightMm) ?? 'own'
  );
}

/** "Full frame, 33 MP, mirrorless". */
export function bodyFacts(body: Body): string {
  const size = sensorSizeOf(body.sensor);
  const sensor = size === 'own' ? `${body.sensor.widthMm} × ${body.sensor.heightMm} mm` : size;
  const kind = kindChoices.find((item) => item.value === body.kind)?.name ?? '';
  return [sensor, `${Math.round(megapixels(body.sensor))} MP`, kind].join(', ');
}
