import { describe, expect, it } from 'vitest';
import type { Plan, StopPlan } from './plan';
import { judge, type JudgeInput } from './window';

/** One letter a stop for the faces (`y` they hold), one a stop for each background (`y` met); the rest is neutral. */
interface Picture {
  readonly faces: string;
  readonly backgrounds?: readonly string[];
  /** Stops missing at each stop for each unmet background. */
  readonly short?: number;
  readonly ratios?: readonly number[];
  readonly lensRatios?: readonly number[];
  readonly odds?: readonly number[];
  readonly style?: JudgeInput['style'];
}

function input({ faces, backgrounds = [], short = 1, ratios, lensRatios, odds, style }: Picture): JudgeInput {
  const stops = [...faces].map(
    (letter, index) =>
      ({
        facesHold: letter === 'y',
        lensRatio: lensRatios?.[index] ?? 0.4,
        odds: odds?.[index] ?? (letter === 'y' ? 0.95 : 0.5),
        worst: { subjectId: 'ada', role: 'farEye', ratio: ratios?.[index] ?? (letter === 'y' ? 0.8 : 1.6) },
        sharpness: [[{ ratio: ratios?.[index] ?? 0.8 }]],
        backgrounds: backgrounds.map((line) => ({
          met: line[index] === 'y',
          shortfallStops: line[index] === 'y' ? 0 : short
        }))
      }) as unknown as StopPlan
  );
  return {
    stops,
    style: style ?? 'openAsFacesAllow',
    backgrounds: backgrounds.map((_, index) => ({ id: `b${index}` })) as unknown as Plan['backgrounds'],
    should: [],
    weakestAt: () => 'wim'
  };
}

describe('the window of stops', () => {
  it('reaches from the first to the last stop that grants every wish, and says what ends it', () => {
    expect(judge(input({ faces: 'nnyyyy', backgrounds: ['yyyynn'] }))).toEqual({
      window: { first: 2, last: 3 },
      lower: { kind: 'point', subjectId: 'ada', role: 'farEye' },
      upper: { kind: 'background', backgroundId: 'b0' },
      recommended: 2,
      conflict: null
    });
  });

  it('is ended by the lens where nothing else does', () => {
    const all = judge(input({ faces: 'yyy' }));
    expect(all).toMatchObject({ window: { first: 0, last: 2 }, lower: { kind: 'lens' }, upper: { kind: 'lens' } });
  });

  it('names odds, depth and the blur of the lens apart', () => {
    const lower = (picture: Omit<Picture, 'faces'>) => judge(input({ faces: 'nyy', ...picture })).lower;
    expect(lower({ ratios: [1.2, 0.9, 0.8] })).toMatchObject({ kind: 'point', subjectId: 'ada' });
    expect(lower({ ratios: [0.95, 0.9, 0.8] })).toEqual({ kind: 'odds', subjectId: 'wim' });
    expect(lower({ ratios: [1.2, 0.9, 0.8], lensRatios: [1.1, 0.5, 0.4] })).toEqual({ kind: 'lensBlur' });
  });

  it('gives each style its stop of the same window', () => {
    const picture: Picture = {
      faces: 'nyyyy',
      ratios: [1.5, 0.9, 0.7, 0.5, 0.6],
      lensRatios: [0.6, 0.5, 0.3, 0.35, 0.5]
    };
    const chosen = (style: JudgeInput['style']) => judge(input({ ...picture, style })).recommended;
    expect(chosen('openAsFacesAllow')).toBe(1);
    expect(chosen('lensBest')).toBe(2);
    expect(chosen('deepAndSafe')).toBe(3);
  });

  it('closes further for those who should be sharp, when the window allows it, and not beyond it', () => {
    const wish = { ...input({ faces: 'yyyy', ratios: [1.4, 1.2, 0.9, 0.8] }), should: [0] };
    expect(judge(wish).recommended).toBe(2);
    const never = { ...input({ faces: 'yyyy', ratios: [1.4, 1.3, 1.2, 1.1] }), should: [0] };
    expect(judge(never).recommended).toBe(0);
  });
});

describe('a conflict', () => {
  it('of faces and a background is settled for the faces, at the stop that misses least', () => {
    const settled = judge(input({ faces: 'nnnyy', backgrounds: ['yynnn'] }));
    expect(settled).toMatchObject({
      window: null,
      recommended: 3,
      conflict: { kind: 'facesAgainstBackground', facesFrom: 3, backgroundId: 'b0', backgroundAt: 1 }
    });
    expect(settled.lower).toEqual({ kind: 'point', subjectId: 'ada', role: 'farEye' });
  });

  it('of two backgrounds names both', () => {
    expect(judge(input({ faces: 'yyyy', backgrounds: ['yynn', 'nnyy'] })).conflict).toMatchObject({
      kind: 'backgroundAgainstBackground'
    });
  });

  it('with a background no stop can have says so', () => {
    expect(judge(input({ faces: 'nyy', backgrounds: ['nnn'] }))).toMatchObject({
      recommended: 1,
      conflict: { kind: 'backgroundUnreachable', backgroundId: 'b0' }
    });
  });

  it('where no stop holds the faces picks the best odds, or the least blur when all are hopeless', () => {
    const hopeful = judge(input({ faces: 'nnn', odds: [0.2, 0.6, 0.4], ratios: [0.9, 0.9, 0.9] }));
    expect(hopeful).toMatchObject({ recommended: 1, conflict: { kind: 'facesUnreachable', because: 'odds' } });
    const hopeless = judge(input({ faces: 'nnn', odds: [0, 0, 0], ratios: [4, 3, 2] }));
    expect(hopeless).toMatchObject({ recommended: 2, conflict: { kind: 'facesUnreachable', because: 'depth' } });
    const soft = judge(input({ faces: 'n', lensRatios: [1.3] }));
    expect(soft.conflict).toMatchObject({ kind: 'facesUnreachable', because: 'criterion' });
  });
});
