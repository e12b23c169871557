import { describe, expect, it } from 'vitest';
import type { Plan, StopPlan } from './plan';
import { judgeStops, type JudgeInput } from './window';

/** One letter a stop for the faces (`y` they hold), one a stop for each background (`y` met); the rest is neutral. */
interface Picture {
  readonly faces: string;
  readonly backgrounds?: readonly string[];
  /** Stops missing at each stop for each unmet background. */
  readonly short?: number;
  readonly ratios?: readonly number[];
  readonly lensRatios?: readonly number[];
  readonly odds?: readonly number[];
  readonly shakes?: readonly number[];
  readonly movements?: readonly number[];
  /** Stops that lack a stop of light. */
  readonly dark?: readonly number[];
  readonly isos?: readonly number[];
  /** Stops that would hold in print. */
  readonly inPrint?: readonly number[];
  readonly style?: JudgeInput['style'];
}

function input(picture: Picture): JudgeInput {
  const {
    faces,
    backgrounds = [],
    short = 1,
    ratios,
    lensRatios,
    odds,
    style,
    shakes,
    movements,
    dark,
    isos
  } = picture;
  const stops = [...faces].map(
    (letter, index) =>
      ({
        facesHold: letter === 'y',
        lensRatio: lensRatios?.[index] ?? 0.4,
        causes: { lens: lensRatios?.[index] ?? 0.4, diffraction: 0, pixels: 0, shake: shakes?.[index] ?? 0 },
        movement: movements?.[index] === undefined ? null : { subjectId: 'mo', ratio: movements[index] },
        light: { missingStops: dark?.includes(index) ? 1 : 0, tooBrightStops: 0, iso: isos?.[index] ?? 100 },
        // Thirds of a stop from f/2.
        stop: { fNumber: 2 * 2 ** (index / 6), label: '' },
        oddsOnTarget: odds?.[index] ?? (letter === 'y' ? 0.95 : 0.5),
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
    isoLimit: 6400,
    should: [],
    holdsInPrint: (index) => picture.inPrint?.includes(index) ?? false,
    weakestAt: () => 'wim'
  };
}

describe('the window of stops', () => {
  it('reaches from the first to the last stop that grants every wish, and says what ends it', () => {
    expect(judgeStops(input({ faces: 'nnyyyy', backgrounds: ['yyyynn'] }))).toEqual({
      window: { first: 2, last: 3 },
      lower: { kind: 'point', subjectId: 'ada', role: 'farEye' },
      upper: { kind: 'background', backgroundId: 'b0' },
      recommended: 2,
      conflict: null,
      letGo: []
    });
  });

  it('is ended by the lens where nothing else does', () => {
    const all = judgeStops(input({ faces: 'yyy' }));
    expect(all).toMatchObject({ window: { first: 0, last: 2 }, lower: { kind: 'lens' }, upper: { kind: 'lens' } });
  });

  it('names odds, depth and the blur of the lens apart', () => {
    const lower = (picture: Omit<Picture, 'faces'>) => judgeStops(input({ faces: 'nyy', ...picture })).lower;
    expect(lower({ ratios: [1.2, 0.9, 0.8] })).toMatchObject({ kind: 'point', subjectId: 'ada' });
    expect(lower({ ratios: [0.95, 0.9, 0.8] })).toEqual({ kind: 'odds', subjectId: 'wim' });
    expect(lower({ ratios: [1.2, 0.9, 0.8], lensRatios: [1.1, 0.5, 0.4] })).toEqual({ kind: 'lensBlur' });
  });

  it('takes no stop between two that grant everything as granted', () => {
    const holed = judgeStops(input({ faces: 'nynyn', style: 'deepAndSafe', ratios: [2, 0.9, 0.5, 0.8, 2] }));
    expect(holed).toMatchObject({ window: { first: 1, last: 3 }, recommended: 3 });
  });

  it('names the background that fails most where several do', () => {
    const two = input({ faces: 'yyy', backgrounds: ['yyn', 'yyn'] });
    const last = two.stops[2];
    if (!last) throw new Error('no stop');
    const stops = [
      ...two.stops.slice(0, 2),
      { ...last, backgrounds: last.backgrounds.map((item, at) => ({ ...item, shortfallStops: 1 + at })) }
    ];
    expect(judgeStops({ ...two, stops }).upper).toEqual({ kind: 'background', backgroundId: 'b1' });
  });

  it('leaves what rounding leaves sharp: a ratio of 1 is sharp, the odds then bind', () => {
    const lower = judgeStops(input({ faces: 'nyy', ratios: [1 + 1e-10, 0.9, 0.8] })).lower;
    expect(lower).toEqual({ kind: 'odds', subjectId: 'wim' });
    const soft = judgeStops(input({ faces: 'nyy', ratios: [1.01, 0.9, 0.8], lensRatios: [1, 0.5, 0.4] })).lower;
    expect(soft).toMatchObject({ kind: 'point' });
  });

  it('gives each style its stop of the same window', () => {
    const picture: Picture = {
      faces: 'nyyyy',
      ratios: [1.5, 0.9, 0.7, 0.5, 0.6],
      lensRatios: [0.6, 0.5, 0.3, 0.35, 0.5]
    };
    const chosen = (style: JudgeInput['style']) => judgeStops(input({ ...picture, style })).recommended;
    expect(chosen('openAsFacesAllow')).toBe(1);
    expect(chosen('lensBest')).toBe(2);
    expect(chosen('deepAndSafe')).toBe(3);
  });

  it('closes further for those who should be sharp, when the window allows it, and not beyond it', () => {
    const wish = { ...input({ faces: 'yyyy', ratios: [1.4, 1.2, 0.9, 0.8] }), should: [0] };
    expect(judgeStops(wish).recommended).toBe(2);
    // Every point of theirs, and just as sharp as is allowed is sharp.
    const two = wish.stops.map((entry, index) => ({
      ...entry,
      sharpness: [[{ ratio: 0.5 }, { ratio: [1.4, 1.2, 1.1, 1][index] ?? 1 }]]
    }));
    expect(judgeStops({ ...wish, stops: two }).recommended).toBe(3);
    const never = { ...input({ faces: 'yyyy', ratios: [1.4, 1.3, 1.2, 1.1] }), should: [0] };
    expect(judgeStops(never).recommended).toBe(0);
  });
});

describe('a conflict', () => {
  it('of faces and a background is settled for the faces, at the stop that misses least', () => {
    const settled = judgeStops(input({ faces: 'nnnyy', backgrounds: ['yynnn'] }));
    expect(settled).toMatchObject({
      window: null,
      recommended: 3,
      conflict: { kind: 'facesAgainstBackground', facesFrom: 3, backgroundId: 'b0', backgroundAt: 1 }
    });
    expect(settled.lower).toEqual({ kind: 'point', subjectId: 'ada', role: 'farEye' });
  });

  it('of two backgrounds names both, the one missed most first', () => {
    // At every stop that holds the faces one of the two is missed; the first such stop is recommended.
    expect(judgeStops(input({ faces: 'yyyy', backgrounds: ['yynn', 'nnyy'] })).conflict).toEqual({
      kind: 'backgroundAgainstBackground',
      backgroundId: 'b1',
      otherId: 'b0'
    });
    const three = input({ faces: 'yy', backgrounds: ['yy', 'yn', 'ny'] });
    expect(judgeStops(three)).toMatchObject({
      recommended: 0,
      upper: { kind: 'background', backgroundId: 'b2' },
      conflict: { backgroundId: 'b2', otherId: 'b1' }
    });
  });

  it('is settled at the stop that misses least in all, and names what is missed most there', () => {
    const missing = input({ faces: 'nyyy', backgrounds: ['nnnn', 'nnnn'] });
    const short = [
      [1, 1],
      [2, 3],
      [1, 2],
      [3, 1]
    ];
    const stops = missing.stops.map((entry, index) => ({
      ...entry,
      backgrounds: entry.backgrounds.map((item, at) => ({ ...item, shortfallStops: short[index]?.[at] ?? 0 }))
    }));
    expect(judgeStops({ ...missing, stops })).toEqual({
      window: null,
      recommended: 2,
      lower: { kind: 'point', subjectId: 'ada', role: 'farEye' },
      upper: { kind: 'background', backgroundId: 'b1' },
      conflict: { kind: 'backgroundUnreachable', backgroundId: 'b1' },
      letGo: []
    });
  });

  it('names the stop nearest to the faces at which the background would be right, on either side', () => {
    const conflict = (faces: string, line: string) => judgeStops(input({ faces, backgrounds: [line] }));
    // Wider than the faces need: the nearest is the last of those that hide it.
    expect(conflict('nnnnyy', 'yyynnn')).toMatchObject({
      recommended: 4,
      lower: { kind: 'point', subjectId: 'ada', role: 'farEye' },
      conflict: { facesFrom: 4, backgroundAt: 2, bound: { kind: 'point', subjectId: 'ada' } }
    });
    // Narrower than the faces bear, as where a background should be kept: from the last stop that holds them on.
    const kept = conflict('nyynnn', 'nnnnyy');
    expect(kept).toMatchObject({ recommended: 1, conflict: { facesFrom: 2, backgroundAt: 4 } });
    expect(kept.upper).toEqual({ kind: 'background', backgroundId: 'b0' });
  });

  it('tells odds and the blur of the lens as what keeps the faces from the background', () => {
    const at = (picture: Partial<Picture>) =>
      judgeStops(input({ faces: 'nny', backgrounds: ['ynn'], ratios: [0.9, 0.9, 0.8], ...picture })).conflict;
    expect(at({})).toMatchObject({ bound: { kind: 'odds', subjectId: 'wim' } });
    expect(at({ lensRatios: [1.2, 0.5, 0.4] })).toMatchObject({ bound: { kind: 'lensBlur' } });
  });

  it('with a background no stop can have says so', () => {
    expect(judgeStops(input({ faces: 'nyy', backgrounds: ['nnn'] }))).toMatchObject({
      recommended: 1,
      conflict: { kind: 'backgroundUnreachable', backgroundId: 'b0' }
    });
  });

  it('gives no more than half of the ISO limit for a closer look than print, where a print costs less', () => {
    const dark: Picture = { faces: 'nnnnyy', inPrint: [1, 2, 3, 4, 5], isos: [800, 1600, 2500, 3200, 5000, 6400] };
    const ratios = [2, 1.6, 1.5, 1.4, 0.9, 0.8];
    const call = judgeStops(input({ ...dark, ratios }));
    // The sharpest for print within half of 6400.
    expect(call).toMatchObject({
      window: null,
      recommended: 3,
      conflict: { because: 'light', bound: { kind: 'light' } }
    });
    // Within half, or where no print is cheaper, it is as it was.
    expect(judgeStops(input({ ...dark, ratios, isos: [400, 800, 1600, 1600, 3200, 5000] }))).toMatchObject({
      recommended: 4,
      conflict: null
    });
    expect(judgeStops(input({ ...dark, ratios, inPrint: [4, 5] }))).toMatchObject({ recommended: 4, conflict: null });
  });

  it('where no stop holds the faces picks the best odds, or the least blur when all are hopeless', () => {
    const hopeful = judgeStops(input({ faces: 'nnn', odds: [0.2, 0.6, 0.4], ratios: [0.9, 0.9, 0.9] }));
    expect(hopeful).toMatchObject({ recommended: 1, conflict: { kind: 'facesUnreachable', because: 'odds' } });
    const hopeless = judgeStops(input({ faces: 'nnn', odds: [0, 0, 0], ratios: [4, 3, 2] }));
    expect(hopeless).toMatchObject({ recommended: 2, conflict: { kind: 'facesUnreachable', because: 'depth' } });
    expect(hopeful).toMatchObject({ window: null, upper: { kind: 'lens' }, lower: { kind: 'odds', subjectId: 'wim' } });
    expect(hopeful.conflict).toMatchObject({ bound: { kind: 'odds', subjectId: 'wim' } });
    expect(hopeless.conflict).toMatchObject({ bound: { kind: 'point', subjectId: 'ada', role: 'farEye' } });
    const soft = judgeStops(input({ faces: 'n', lensRatios: [1.3] }));
    expect(soft.conflict).toEqual({
      kind: 'facesUnreachable',
      because: 'criterion',
      bound: { kind: 'lensBlur' }
    });
    // One frame in twenty is no hope.
    expect(judgeStops(input({ faces: 'nn', odds: [0.05, 0], ratios: [4, 3] })).recommended).toBe(1);
    expect(judgeStops(input({ faces: 'nn', odds: [0.06, 0], ratios: [4, 3] })).recommended).toBe(0);
    // A narrower stop for three points more of a hundred is not worth its light.
    expect(judgeStops(input({ faces: 'nnn', odds: [0.58, 0.6, 0.4], ratios: [0.9, 0.9, 0.9] })).recommended).toBe(0);
    // Nor is one that cannot be exposed.
    expect(judgeStops(input({ faces: 'nnn', odds: [0.2, 0.3, 0.8], dark: [2] })).recommended).toBe(1);
  });
});

describe('a wish out of reach', () => {
  it('by more than a stop is let go, and the style chooses among all stops that hold the faces', () => {
    const lensRatios = [0.6, 0.5, 0.3, 0.4];
    const far = input({ faces: 'yyyy', backgrounds: ['nnnn'], short: 7, lensRatios, style: 'lensBest' });
    expect(judgeStops(far)).toMatchObject({ recommended: 2, letGo: ['b0'], conflict: { backgroundId: 'b0' } });
    // Missed by a stop or less it still pulls.
    const near = input({ faces: 'yyyy', backgrounds: ['nnnn'], short: 1, lensRatios, style: 'lensBest' });
    expect(judgeStops(near)).toMatchObject({ recommended: 2, letGo: [] });
  });

  it('does not take others with it', () => {
    const two = input({ faces: 'yyyy', backgrounds: ['nnnn', 'nnny'], short: 4 });
    expect(judgeStops(two)).toMatchObject({
      recommended: 3,
      letGo: ['b0'],
      conflict: { kind: 'backgroundUnreachable', backgroundId: 'b0' }
    });
  });
});

describe('a style', () => {
  it('deep and safe closes up to a stop more, where the worst is sharpest, and for no more than half of the ISO limit', () => {
    const ratios = [0.95, 0.9, 0.85, 0.8, 0.75, 0.7];
    const safe = (picture: Partial<Picture>) =>
      judgeStops(input({ faces: 'yyyyyy', ratios, style: 'deepAndSafe', ...picture })).recommended;
    expect(safe({})).toBe(3);
    expect(safe({ ratios: [0.95, 0.9, 0.8, 0.85, 0.75, 0.7] })).toBe(2);
    expect(safe({ isos: [2000, 2500, 3200, 4000, 5000, 6400] })).toBe(2);
    expect(safe({ isos: [4000, 5000, 6400, 6400, 6400, 6400] })).toBe(0);
  });

  it('the lens’s sharpest gives way from a quarter of the ISO limit on', () => {
    const lensRatios = [0.7, 0.5, 0.4, 0.3];
    const best = (isos: readonly number[]) =>
      judgeStops(input({ faces: 'yyyy', lensRatios, style: 'lensBest', isos })).recommended;
    expect(best([100, 200, 400, 800])).toBe(3);
    expect(best([800, 1600, 3200, 6400])).toBe(1);
    expect(best([3200, 4000, 5000, 6400])).toBe(0);
  });

  it('is left for the stop that is sharp in print where none is sharp looked at closely', () => {
    const none = { faces: 'nnnnnn', odds: [0, 0, 0.1, 0.2, 0.3, 0.4], ratios: [3, 2.5, 2, 1.8, 1.7, 1.6] };
    expect(judgeStops(input({ ...none, inPrint: [1, 2, 3, 4, 5] })).recommended).toBe(4);
    expect(judgeStops(input(none)).recommended).toBe(5);
    // Deep and safe comes two stops nearer to the closer look, which is half the circle.
    const many = { faces: 'n'.repeat(9), odds: Array(9).fill(0), ratios: [3, 2.8, 2.6, 2.4, 2.2, 2, 1.8, 1.6, 1.4] };
    const held = { ...many, inPrint: [1, 2, 3, 4, 5, 6, 7, 8] };
    expect(judgeStops(input(held)).recommended).toBe(4);
    expect(judgeStops(input({ ...held, style: 'deepAndSafe' })).recommended).toBe(7);
  });
});

describe('light', () => {
  it('too dark or too bright gives way to a stop of the window that can be exposed', () => {
    expect(judgeStops(input({ faces: 'nyyy', dark: [1] })).recommended).toBe(2);
    expect(judgeStops(input({ faces: 'yyyy', dark: [2, 3] })).upper).toEqual({ kind: 'light' });
    expect(judgeStops(input({ faces: 'nyyy', dark: [0, 1, 2, 3] })).recommended).toBe(1);
    // Where the light allows none that holds the faces, what it allows comes first.
    expect(judgeStops(input({ faces: 'nyyy', dark: [1, 2, 3] }))).toMatchObject({
      recommended: 0,
      conflict: { kind: 'facesUnreachable' }
    });
    // A background is no reason for a stop that cannot be exposed.
    expect(judgeStops(input({ faces: 'yyyy', backgrounds: ['nnny'], dark: [3] }))).toMatchObject({
      recommended: 0,
      conflict: { kind: 'facesAgainstBackground', backgroundAt: 3, bound: { kind: 'light' } }
    });
    expect(
      judgeStops(input({ faces: 'yyy', dark: [2], style: 'deepAndSafe', ratios: [0.9, 0.8, 0.7] })).recommended
    ).toBe(1);
  });

  it('too little for a shutter that stills shake or movement is named', () => {
    const shaken = judgeStops(input({ faces: 'nnn', lensRatios: [1.2, 1.2, 1.2], shakes: [1.4, 1.3, 1.3] }));
    expect(shaken.conflict).toMatchObject({ kind: 'facesUnreachable', because: 'shake', bound: { kind: 'shake' } });
    const moved = judgeStops(input({ faces: 'nnn', movements: [0.9, 0.9, 0.9] }));
    expect(moved.conflict).toMatchObject({ because: 'movement', bound: { kind: 'movement', subjectId: 'mo' } });
    expect(judgeStops(input({ faces: 'nnn', movements: [0.3, 0.3, 0.3] })).conflict).toMatchObject({
      because: 'depth'
    });
  });
});

describe('what stands on the line', () => {
  const lower = (picture: Partial<Picture>) => judgeStops(input({ faces: 'nyy', ...picture })).lower;
  const withEdge = (ratio: number, picture: Picture) => {
    const laid = input(picture);
    const edge = { subjectId: 'ed', ratio };
    return judgeStops({ ...laid, stops: laid.stops.map((entry) => ({ ...entry, edge })) });
  };

  it('of two equal stops is the wider, of two backgrounds missed alike the first', () => {
    const ratios = [0.7, 0.7, 0.7];
    expect(judgeStops(input({ faces: 'yyy', style: 'deepAndSafe', ratios })).recommended).toBe(0);
    expect(judgeStops(input({ faces: 'yyn', backgrounds: ['yyn', 'yyn'] })).upper).toMatchObject({ kind: 'point' });
    expect(judgeStops(input({ faces: 'yyy', backgrounds: ['yyn', 'yyn'] })).upper).toMatchObject({
      backgroundId: 'b0'
    });
  });

  it('is the blur of the lens where shake is just as much', () => {
    expect(lower({ lensRatios: [1.1, 0.5, 0.4], shakes: [1.1, 0, 0] })).toEqual({ kind: 'lensBlur' });
    expect(lower({ lensRatios: [1.1, 0.5, 0.4], shakes: [1.2, 0, 0] })).toEqual({ kind: 'shake' });
  });

  it('is nobody’s movement where they are as sharp as allowed, or move by no more than seven tenths of it', () => {
    expect(lower({ ratios: [1, 0.9, 0.8], movements: [0.9, 0, 0] })).toEqual({ kind: 'odds', subjectId: 'wim' });
    expect(lower({ ratios: [1.2, 0.9, 0.8], movements: [0.7, 0, 0] })).toMatchObject({ kind: 'point' });
    expect(lower({ ratios: [1.2, 0.9, 0.8], movements: [0.71, 0, 0] })).toMatchObject({ kind: 'movement' });
  });

  it('is not the edge of the lens where that is just sharp enough; beyond it that is what no focus can mend', () => {
    expect(withEdge(1, { faces: 'nyy', ratios: [1.2, 0.9, 0.8] }).lower).toMatchObject({ kind: 'point' });
    expect(withEdge(1.01, { faces: 'nyy', ratios: [1.2, 0.9, 0.8] }).lower).toEqual({
      kind: 'lensEdge',
      subjectId: 'ed'
    });
    const soft = withEdge(1.2, { faces: 'nnn', ratios: [1.3, 1.3, 1.3] });
    expect(soft.conflict).toMatchObject({ because: 'criterion', bound: { kind: 'lensEdge', subjectId: 'ed' } });
  });

  it('is the lens where there is no stop at all', () => {
    expect(judgeStops(input({ faces: '' }))).toMatchObject({
      window: null,
      lower: { kind: 'lens' },
      conflict: { kind: 'facesUnreachable', bound: { kind: 'lens' } }
    });
  });
});
