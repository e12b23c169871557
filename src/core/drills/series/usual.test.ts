import { describe, expect, it } from 'vitest';
import { defaultHabits } from '../../habits/habits';
import { builtInKit } from '../../kit/builtInKit';
import { usualFocusMm, usualShare } from './usual';

describe('what one expects before a drill', () => {
  it('is what the plan rests on', () => {
    const body = builtInKit.bodies.find(({ id }) => id === 'body-main');
    if (!body) throw new Error('The kit has one.');
    // 10 µm behind the lens at 2 m, 85 mm: m = 85 / 1915, by hand 5.08 mm.
    expect(usualFocusMm(defaultHabits, { ...body, focusSpreadUm: 10 }, 85, 2000)).toBeCloseTo(
      0.01 / (85 / 1915) ** 2,
      6
    );
    expect(usualShare(defaultHabits, 'standing', 2)).toBeCloseTo(defaultHabits.shakeShare.standing / 4, 12);
    expect(usualShare(defaultHabits, 'tripod', 0)).toBeGreaterThan(0);
  });
});
