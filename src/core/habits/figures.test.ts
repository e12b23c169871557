import { describe, expect, it } from 'vitest';
import { allowed, habitGroups, shownFigure, withFigure } from './figures';
import { defaultHabits, habitsSchema } from './habits';

const all = habitGroups.flatMap((group) => group.figures);

/** Every number of the habits by its path. */
function leaves(value: unknown, path: readonly string[] = []): string[] {
  if (typeof value === 'number') return [path.join('.')];
  return Object.entries(value as object).flatMap(([key, inner]) => leaves(inner, [...path, key]));
}

describe('the figures behind the odds', () => {
  it('are all there to be changed, each once', () => {
    expect(all.map((item) => item.path.join('.')).sort()).toEqual(leaves(defaultHabits).sort());
  });

  it('begin inside the range they plausibly lie in, which the schema allows', () => {
    for (const item of all) {
      const shown = shownFigure(defaultHabits, item);
      const [low, high] = item.plausible;
      expect(shown, item.label).toBeGreaterThanOrEqual(low);
      expect(shown, item.label).toBeLessThanOrEqual(high);
      for (const end of item.plausible) {
        const changed = withFigure(defaultHabits, item, end);
        expect(habitsSchema.safeParse(changed).error, item.label).toBeUndefined();
        expect(shownFigure(changed, item)).toBeCloseTo(end, 9);
      }
    }
  });

  it('are refused beyond what is allowed', () => {
    for (const item of all) {
      const { min, max } = allowed(item);
      for (const [value, taken] of [
        [min, true],
        [max, true],
        [min - 1, false],
        [max + 1, false]
      ] as const) {
        expect(habitsSchema.safeParse(withFigure(defaultHabits, item, value)).success, item.label).toBe(taken);
      }
    }
  });

  it('change alone', () => {
    const [first] = all;
    if (!first) throw new Error('no figure');
    const changed = withFigure(defaultHabits, first, 7);
    expect(changed).toEqual({ ...defaultHabits, focusSpreadUm: { ...defaultHabits.focusSpreadUm, crossPoint: 7 } });
    expect(changed.holdMm).toBe(defaultHabits.holdMm);
  });
});
