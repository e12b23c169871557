import { describe, expect, it } from 'vitest';
import { bestWords, differenceWords, pairWords, throughWords } from '../words/compare';
import { bestOfBursts, pairThatHolds, sharpIn } from './choose';
import type { FaceJudged, FrameJudged } from './eyes';
import type { Frame } from './schema';

const face = (personId: string, ratio: number, closed = false): FaceJudged => ({
  faceId: `face-${personId}`,
  personId,
  ratio,
  discPx: ratio * 3,
  judged: ratio <= 1 ? 'sharp' : 'soft',
  why: null,
  closed,
  smear: null
});
const judged = (number: number, faces: readonly FaceJudged[], changes: Partial<Frame> = {}): FrameJudged => {
  const missed = faces.filter((one) => one.judged !== 'sharp' || one.closed);
  const frame = { id: `f${number}`, file: { name: `A_${number}.JPG` }, choice: null, ...changes } as Frame;
  const worst = Math.max(...faces.map((one) => one.ratio ?? 0));
  return {
    frame,
    faces,
    missed,
    absent: [],
    held: faces.length - missed.length,
    shake: null,
    rank: missed.length * 100 + worst
  };
};
const nameOf = (id: string) => ({ ines: 'Ines', wren: 'Wren', corvin: 'Corvin' })[id] ?? id;
const must = ['ines', 'wren', 'corvin'];
const one = judged(1, [face('ines', 0.5), face('wren', 3), face('corvin', 0.4)]);
const two = judged(2, [face('ines', 4), face('wren', 0.6), face('corvin', 0.7)]);
const three = judged(3, [face('ines', 4), face('wren', 0.6), face('corvin', 0.7, true)]);

describe('the pair that holds everybody', () => {
  it('is found where no frame alone does, the one that holds more first', () => {
    const pair = pairThatHolds([one, two, three], must);
    expect(pair && [pair.first.frame.id, pair.second.frame.id, pair.fromSecond]).toEqual(['f1', 'f2', ['wren']]);
    expect(pair && pairWords(pair, nameOf)).toBe('No frame has everyone. 1 and 2 together do: take Wren from 2.');
    expect([...sharpIn(three)]).toEqual(['wren']);
  });

  it('is none where one alone holds them, where no two do, or where everything shook', () => {
    const all = judged(
      4,
      must.map((id) => face(id, 0.5))
    );
    expect(pairThatHolds([all, one, two], must)).toBeNull();
    expect(pairThatHolds([two, three], must)).toBeNull();
    expect(pairThatHolds([one, { ...two, shake: { px: 20, angle: 0 } }], must)).toBeNull();
    expect(pairThatHolds([one, two], ['ines'])).toBeNull();
  });
});

describe('the best of a burst', () => {
  it('is the one of lowest rank, with its reason; none where nothing tells them apart', () => {
    const best = bestOfBursts([one, two, three], [[{ id: 'f1' }, { id: 'f2' }, { id: 'f3' }]]);
    expect([...best.keys()]).toEqual(['f1']);
    expect(bestWords(one, best.get('f1') ?? two, nameOf)).toBe('best of the burst: sharper than 2');
    expect(bestWords(two, three, nameOf)).toMatch(/^best of the burst: in 3 .*Corvin/);
    expect(bestOfBursts([one], [[{ id: 'f1' }]]).size).toBe(0);
    expect(bestOfBursts([one, one], [[{ id: 'f1' }, { id: 'f1' }]]).size).toBe(0);
    const struck = judged(1, one.faces, { choice: 'reject' });
    expect([...bestOfBursts([struck, two, three], [[{ id: 'f1' }, { id: 'f2' }, { id: 'f3' }]]).keys()]).toEqual([
      'f2'
    ]);
  });
});

describe('frames beside each other', () => {
  const shot = (fNumber: number | null, shutterS: number, iso: number) => ({ fNumber, shutterS, iso });
  it('say what is different in stops', () => {
    expect(differenceWords(shot(4, 1 / 200, 400), shot(2.8, 1 / 400, 400))).toBe('a stop narrower, a stop slower');
    expect(differenceWords(shot(2.8, 1 / 200, 1600), shot(2.8, 1 / 200, 400))).toBe('2 stops more ISO');
    // Twice the disc is two stops.
    expect(differenceWords(shot(4, 1 / 200, 400), shot(4, 1 / 200, 400), [8, 4])).toBe('2 stops softer');
    expect(differenceWords(shot(4, 1 / 200, 400), shot(4, 1 / 200, 400), [8, 0.5])).toBe('');
    expect(differenceWords(shot(null, 1 / 200, 400), shot(4, 1 / 200, 400))).toBe('');
  });

  it('and in which somebody is sharp with open eyes', () => {
    const through = (...ratios: number[]) =>
      throughWords(
        'Wren',
        ratios.map((ratio, index) => ({ frame: judged(index + 1, []).frame, face: face('wren', ratio) }))
      );
    expect(through(0.5, 3, 0.4, 3, 3)).toBe('Wren is sharp with eyes open in 2 of 5 frames only: 3 and 1.');
    expect(through(0.5, 0.6)).toBe('Wren is sharp with eyes open in all 2 frames.');
    expect(through(3)).toBe('Wren isn’t sharp with eyes open in the one frame.');
    expect(through(0.1, 0.2, 0.3, 0.4, 3)).toBe(
      'Wren is sharp with eyes open in 4 of 5 frames; sharpest in 1, 2 and 3.'
    );
  });
});
