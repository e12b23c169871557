/** The keys one decides with on Frames: one's own letters and figures of the upper row; no number pad is needed. */
import { z } from 'zod';

export const frameActions = ['keep', 'maybe', 'reject', 'open', 'beside', 'show', 'flip'] as const;
export type FrameAction = (typeof frameActions)[number];
export type FrameKeys = Readonly<Record<FrameAction, string>>;

export const usualFrameKeys: FrameKeys = {
  keep: 'k',
  maybe: 'm',
  reject: 'n',
  open: 'o',
  beside: 'b',
  show: 'shift+b',
  flip: 'f'
};

/** Those of before, which nobody chose. */
const formerKeys: FrameKeys = { ...usualFrameKeys, reject: 'x', beside: 'c', show: 'v' };

const key = z.string().regex(/^(shift\+)?[\p{Ll}\p{Lo}0-9]$/u);
export const frameKeysSchema = z
  .strictObject({ keep: key, maybe: key, reject: key, open: key, beside: key, show: key, flip: key })
  .refine((keys) => new Set(Object.values(keys)).size === frameActions.length);

/** As they are stored: whoever never chose has the usual ones, though others were usual then. */
export const storedFrameKeysSchema = z.preprocess((stored) => {
  const known = frameKeysSchema.safeParse(stored);
  return known.success && frameActions.every((action) => known.data[action] === formerKeys[action])
    ? usualFrameKeys
    : stored;
}, frameKeysSchema);

/** "K", "Shift+B": as it is shown. */
export const shownKey = (own: string): string =>
  own.replace('shift+', 'Shift+').replace(/.$/u, (last) => last.toUpperCase());

/** "Shift+b": as key handlers take it. */
export const boundKey = (own: string): string => own.replace('shift+', 'Shift+');

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
