import { describe, expect, it } from 'vitest';
import { blurBehind } from './blurCurve';

describe('blur behind the plane of focus', () => {
  // Merklinger, The INs and OUTs of FOCUS (1990), chapter 3: the disc in the scene is the aperture seen from the plane of
  // focus, so at twice the focus distance it is as wide as the aperture, and beyond it grows without end.
  it('is as wide as the aperture at twice the focus distance', () => {
    const [there] = blurBehind(85, 1.7, 2000, 2000, 2).slice(-1);
    expect(there?.behindMm).toBe(2000);
    expect(there?.lostDetailMm).toBeCloseTo(85 / 1.7, 9);
  });

  it('starts at nothing, grows in a straight line, and halves when closed two stops', () => {
    const open = blurBehind(50, 2, 3000, 12_000, 13);
    const closed = blurBehind(50, 4, 3000, 12_000, 13);
    expect(open[0]).toEqual({ behindMm: 0, lostDetailMm: 0 });
    open.forEach((point, index) => {
      expect(point.behindMm).toBe(index * 1000);
      expect(point.lostDetailMm).toBeCloseTo((25 * index * 1000) / 3000, 9);
      expect(closed[index]?.lostDetailMm).toBeCloseTo(point.lostDetailMm / 2, 9);
    });
  });
});
