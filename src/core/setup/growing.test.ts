import { describe, expect, it } from 'vitest';
import { builtInKit } from '../kit/builtInKit';
import { newBackground, newPerson, newSetup, newThing } from './defaults';
import { columnsEveryMm, growingFindings } from './growing';
import { viewpoint } from './scene';
import type { Setup } from './schema';

const [body] = builtInKit.bodies;
if (!body) throw new Error('no body');
const at = (changes: Partial<Setup>, lateralMm = 0): Setup => {
  const base = newSetup('s', 'S', { people: [newPerson('a', 'Ada')], backgrounds: [], ...changes });
  return { ...base, camera: { ...base.camera, placement: { kind: 'distance', distanceMm: 4000 }, lateralMm } };
};
const found = (setup: Setup, lostMm = 0) => growingFindings(setup, viewpoint(setup, body), () => lostMm);
const columns = (lateralMm: number) =>
  newBackground('c', 'columns', { surface: 'columns', depthMm: 4000, lateralMm, detailMm: 90 });

describe('what grows out of heads', () => {
  it('is a column right behind one, and half a step to a side clears it', () => {
    const behind = at({ backgrounds: [columns(0)] });
    const [first] = found(behind);
    expect(first).toMatchObject({ name: 'Ada', what: 'columns' });
    const step = first?.stepMm ?? 0;
    // Twice as far off, it moves by half of a step: half a head, half a column as drawn, a quarter of a head for room.
    expect(Math.abs(step)).toBeGreaterThan(200);
    expect(Math.abs(step)).toBeLessThan(400);
    expect(found(at({ backgrounds: [columns(0)] }, step))).toEqual([]);
    expect(found(at({ backgrounds: [columns(0)] }, step / 2))).toHaveLength(1);
  });

  it('goes to the side that is nearer: away from where it stands', () => {
    // It is drawn to the right of the middle of the head: a step to the right shows it further right.
    expect(found(at({ backgrounds: [columns(100)] }))[0]?.stepMm).toBeGreaterThan(0);
    expect(found(at({ backgrounds: [columns(-100)] }))[0]?.stepMm).toBeLessThan(0);
    expect(found(at({ backgrounds: [columns(columnsEveryMm / 2)] }))).toEqual([]);
    expect(found(at({ backgrounds: [columns(3 * columnsEveryMm)] }))).toHaveLength(1);
  });

  it('is nothing that is blurred away, stands before them, or is no column; a thing only where it rises over the crown', () => {
    expect(found(at({ backgrounds: [columns(0)] }), 300)).toEqual([]);
    expect(found(at({ backgrounds: [{ ...columns(0), depthMm: -1000 }] }))).toEqual([]);
    expect(found(at({ backgrounds: [{ ...columns(0), surface: 'brick' }] }))).toEqual([]);
    const post = (tallMm: number, depthMm: number) =>
      newThing('t', 'lamp post', { depthMm, heightMm: tallMm / 2, tallMm, widthMm: 80, held: false });
    expect(found(at({ things: [post(3000, 1500)] }))[0]?.what).toBe('lamp post');
    expect(found(at({ things: [post(1200, 1500)] }))).toEqual([]);
    expect(found(at({ things: [post(3000, 100)] }))).toEqual([]);
    const soft = newPerson('a', 'Ada', { importance: 'maySoft' });
    expect(found(at({ people: [soft], things: [post(3000, 1500)] }))).toEqual([]);
  });

  it('is said without a step where another is as much in the way on every side', () => {
    const posts = Array.from({ length: 41 }, (_, index) =>
      newThing(`t${index}`, 'fence', {
        lateralMm: (index - 20) * 150,
        depthMm: 1500,
        heightMm: 1500,
        tallMm: 3000,
        widthMm: 80
      })
    );
    expect(found(at({ things: posts }))[0]).toMatchObject({ what: 'fence', stepMm: null });
  });
});
