/** What a flash does, in sentences. */
import type { FlashFacts } from '../technique/flash';

const stops = (value: number): string =>
  `${value.toFixed(1).replace(/\.0$/, '')} ${Math.abs(value - 1) < 0.05 ? 'stop' : 'stops'}`;

export function flashWords({
  perStop,
  perHalfAgain,
  withoutStops,
  toBlackStops,
  roomShows
}: FlashFacts): readonly string[] {
  const power = `One stop narrower needs ${stops(perStop)} more power, half as far away again ${stops(perHalfAgain)}.`;
  if (withoutStops === null || toBlackStops === null) return [power];
  const dark =
    withoutStops <= 0
      ? 'Without the flash this frame would be exposed by the room alone.'
      : `Without the flash this frame would be ${stops(withoutStops)} too dark${roomShows ? `; ${stops(toBlackStops)} more turn the room black: a narrower stop, less ISO, or a filter; the shutter only down to the sync time` : ', black'}.`;
  return [
    power,
    dark,
    roomShows ? 'A modelling light shows as the room does: switch it off before the frame.' : ''
  ].filter(Boolean);
}
