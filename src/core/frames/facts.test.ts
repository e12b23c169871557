import { describe, expect, it } from 'vitest';
import { missingWords } from '../words/frames';
import { missingFacts, readShutter, withSaid } from './facts';
import type { Frame } from './schema';

const frame = (changes: Partial<Frame>) =>
  ({ focalLengthMm: 85, fNumber: 2, shutterS: 0.005, iso: 200, ...changes }) as Frame;

describe('what files do not say', () => {
  it('is counted, and said for all of them; what a file says stays', () => {
    const frames = [frame({ focalLengthMm: null, fNumber: null }), frame({ focalLengthMm: null }), frame({})];
    expect(missingFacts(frames)).toEqual([
      { fact: 'focalLengthMm', frames: 2 },
      { fact: 'fNumber', frames: 1 }
    ]);
    const said = frames.map((one) => withSaid(one, { focalLengthMm: 50, fNumber: 4 }));
    expect(said.map(({ focalLengthMm, fNumber }) => [focalLengthMm, fNumber])).toEqual([
      [50, 4],
      [50, 2],
      [85, 2]
    ]);
    expect(said[2]).toBe(frames[2]);
    expect(missingFacts(said)).toEqual([]);
    expect(missingWords(missingFacts(frames))).toBe('Focal length and aperture are not in 2 of the files.');
    expect(missingWords([{ fact: 'iso', frames: 1 }])).toBe('ISO is not in one of the files.');
  });

  it('reads shutter times as they are written', () => {
    expect(['1/200', '1 / 4', '0.005', '2 s', '1"', '0,5'].map(readShutter)).toEqual([0.005, 0.25, 0.005, 2, 1, 0.5]);
    for (const no of ['', 'fast', '1/0', '0', '-1', '1/2/3']) expect(readShutter(no)).toBeNull();
  });
});
