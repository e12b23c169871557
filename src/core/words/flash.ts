/** What a flash does, in sentences. */
import type { FlashFacts } from '../technique/flash';
import { formatLength, type LengthUnit } from '../units/length';

const stops = (value: number): string =>
  `${value.toFixed(1).replace(/\.0$/, '')} ${Math.abs(value - 1) < 0.05 ? 'stop' : 'stops'}`;

/** Shares of full power nearer to it than this are it: half a stop. */
const fullFrom = Math.SQRT1_2;

/** "full power", "1/8": a share of full power on the halvings a flash has; "more than it has" beyond. */
export function powerWords(power: number): string {
  if (power > Math.SQRT2) return 'more than it has';
  return power >= fullFrom ? 'full power' : `1/${2 ** Math.round(-Math.log2(power))}`;
}

export function flashWords(facts: FlashFacts, unit: LengthUnit): readonly string[] {
  const { power, narrower, fromMm, furtherMm, furtherStops, withoutStops, toBlackStops } = facts;
  const needs = `Flash at ${powerWords(power)}; one stop narrower ${powerWords(narrower)}; from ${formatLength(furtherMm, unit)} instead of ${formatLength(fromMm, unit)} ${stops(furtherStops)} more.`;
  if (withoutStops === null || toBlackStops === null) return [needs];
  if (withoutStops <= 0) return [needs, 'Without the flash this frame would be exposed by the room alone.'];
  const dark = `Without the flash this frame would be ${stops(withoutStops)} too dark`;
  if (toBlackStops === 0) return [needs, `${dark}, black.`];
  return [
    needs,
    `${dark}; ${stops(toBlackStops)} more turn the room black: a narrower aperture, less ISO, or a filter; the shutter only down to the sync time.`,
    'A modelling light shows as the room does: switch it off before the frame.'
  ];
}
