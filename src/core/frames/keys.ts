/** The keys one decides with on Frames: one's own letters and figures of the upper row; no number pad is needed. */
import { z } from 'zod';

export const frameActions = ['keep', 'maybe', 'reject', 'open', 'beside', 'show', 'flip'] as const;
export type FrameAction = (typeof frameActions)[number];
export type FrameKeys = Readonly<Record<FrameAction, string>>;

export const usualFrameKeys: FrameKeys = {
  keep: 'k',
  maybe: 'm',
  reject: 'x',
  open: 'o',
  beside: 'c',
  show: 'v',
  flip: 'f'
};

const key = z.string().regex(/^[\p{Ll}\p{Lo}0-9]$/u);
export const frameKeysSchema = z
  .strictObject({ keep: key, maybe: key, reject: key, open: key, beside: key, show: key, flip: key })
  .refine((keys) => new Set(Object.values(keys)).size === frameActions.length);

/** What is typed as a key: its last letter or figure, small. Null for what is none. */
export function typedKey(typed: string): string | null {
  const last = [...typed.trim().toLowerCase()].pop() ?? '';
  return key.safeParse(last).success ? last : null;
}

/** With another key for an action; whatever had that key takes the one that is given up. */
export function withKey(keys: FrameKeys, action: FrameAction, wanted: string): FrameKeys {
  const other = frameActions.find((one) => keys[one] === wanted);
  return { ...keys, ...(other ? { [other]: keys[action] } : {}), [action]: wanted };
}
