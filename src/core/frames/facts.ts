/** What files do not say of how they were taken, and somebody does: for many at once. */
import type { Frame } from './schema';

export const facts = ['focalLengthMm', 'fNumber', 'shutterS', 'iso'] as const;
export type Fact = (typeof facts)[number];
export type Said = { readonly [fact in Fact]?: number };

/** What is missing, and in how many frames; in the order of a camera's display. */
export function missingFacts(frames: readonly Frame[]): { readonly fact: Fact; readonly frames: number }[] {
  return facts.flatMap((fact) => {
    const without = frames.filter((frame) => frame[fact] === null).length;
    return without === 0 ? [] : [{ fact, frames: without }];
  });
}

/** A frame with what was said of it; what its file says stays. */
export function withSaid(frame: Frame, said: Said): Frame {
  const changes = facts.flatMap((fact) => {
    const value = said[fact];
    return frame[fact] === null && value !== undefined ? [[fact, value] as const] : [];
  });
  return changes.length === 0 ? frame : { ...frame, ...Object.fromEntries(changes) };
}

/** Reads "1/200", "0.005", "2", "2 s", '1"'; seconds. Null for no time. */
export function readShutter(typed: string): number | null {
  const match = /^\s*(?:1\s*\/\s*(\d{1,6}(?:[.,]\d+)?)|(\d{1,4}(?:[.,]\d+)?)\s*(?:s|"|″)?)\s*$/.exec(typed);
  if (!match) return null;
  const number = (text: string) => Number(text.replace(',', '.'));
  const seconds = match[1] === undefined ? number(match[2] ?? '') : 1 / number(match[1]);
  return seconds > 0 && seconds <= 3600 && Number.isFinite(seconds) ? seconds : null;
}
