import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { markedIso, markedShutter } from './cameraSteps';

// Marks of cameras, from memory; ISO 12232 has the sensitivities.
describe('marks', () => {
  it('are the nearest in stops, not in seconds', () => {
    expect(markedShutter(1 / 118).label).toBe('1/125');
    // Between 1/1000 and 1/1250 the middle in stops is 1/1118: in seconds it would be 1/1111.
    expect(markedShutter(1 / 1115).label).toBe('1/1000');
    expect(markedShutter(1 / 1122).label).toBe('1/1250');
    expect(markedShutter(0.28)).toEqual({ shutterS: 0.3, label: '0.3 s' });
    expect(markedShutter(1e-9).label).toBe('1/32000');
    expect(markedShutter(1e4).label).toBe('60 s');
    expect(markedIso(113)).toBe(125);
    expect(markedIso(111)).toBe(100);
    expect(markedIso(1)).toBe(25);
    expect(markedIso(1e9)).toBe(819_200);
  });

  it('are no longer than a limit, which may be a little off its own mark, and the shortest where none is short enough', () => {
    expect(markedShutter(1 / 60, 1 / 100).label).toBe('1/100');
    // A limit of 1/128 allows 1/125.
    expect(markedShutter(1 / 60, 1 / 128).label).toBe('1/125');
    expect(markedShutter(1 / 60, 1 / 140).label).toBe('1/160');
    expect(markedShutter(1 / 60, 1e-6).label).toBe('1/32000');
    expect(markedShutter(1 / 500, 1 / 60).label).toBe('1/500');
  });

  it('stay where they are', () => {
    fc.assert(
      fc.property(fc.double({ min: 1e-5, max: 60, noNaN: true }), (shutterS) => {
        const mark = markedShutter(shutterS);
        expect(markedShutter(mark.shutterS)).toEqual(mark);
        expect(markedIso(markedIso(1 / shutterS))).toBe(markedIso(1 / shutterS));
      })
    );
  });
});
