import { describe, expect, it } from 'vitest';
import type { NoPlanReason, Plan } from '../call/plan';
import type { PlanInput } from '../call/planInput';
import { planSetup } from '../call/planSetup';
import { defaultHabits } from '../habits/habits';
import { builtInKit } from '../kit/builtInKit';
import { newBackground, newPerson, newSetup, newThing } from '../setup/defaults';
import type { Camera, Setup } from '../setup/schema';
import {
  backgroundSentence,
  callSentence,
  conflictSentences,
  framesToShoot,
  framesWords,
  keeperRate,
  keeperRateWords,
  noPlanWords,
  noticeWords,
  oddsWords,
  printWords,
  reasonSentence,
  sharpZone,
  standWords,
  zoneSplitWords,
  zoneWords
} from './call';
import { sharpFromTo } from '../call/inPrint';
import { strays } from '../call/strays';
import { waysToFocus } from '../technique/ways';
import { strayingSentence, surerWords } from './straying';

function inputOf(changes: Partial<Setup>, camera: Partial<Camera> = {}): PlanInput {
  const base = newSetup('s', 'S', changes);
  const setup = { ...base, camera: { ...base.camera, ...camera } };
  return { setup, kit: builtInKit, stopStep: 'full', habits: defaultHabits };
}

function plan(changes: Partial<Setup>, camera: Partial<Camera> = {}): Plan {
  const result = planSetup(inputOf(changes, camera));
  if (result.kind !== 'plan') throw new Error(result.reason.code);
  return result;
}

const entryOf = (result: Plan, index = result.selected) => {
  const entry = result.stops[index];
  if (!entry) throw new Error('no stop');
  return entry;
};

const alone = { backgrounds: [] };

describe('the call in words', () => {
  it('speaks of the eyes when both are level, of the near eye when the face is turned, of a thing by its side', () => {
    const said = (changes: Partial<Setup>) => callSentence(plan({ ...alone, ...changes }), 'metric');
    expect(said({ people: [newPerson('a', 'Ada')] })).toMatch(/on Ada’s eyes, from 2\.2 m\.$/);
    expect(said({ people: [newPerson('a', 'Ada', { headYawDeg: 30 })] })).toMatch(/on Ada’s near eye, /);
    expect(said({ people: [newPerson('a', 'Ada', { headYawDeg: 180 })] })).toMatch(/on Ada’s head, /);
    expect(said({ people: [], things: [newThing('t', 'Tuba')] })).toMatch(/on Tuba’s near side, /);
  });

  it('speaks feet to those who work in feet', () => {
    expect(callSentence(plan(alone), 'feet')).toMatch(/from 7′ 3″\.$/);
  });

  it('tells the zone before and behind, to infinity where it reaches', () => {
    const near = plan(alone);
    const close = entryOf(near);
    const zone = sharpZone(near, close);
    expect(zone.inFrontMm + zone.behindMm).toBeCloseTo(zone.depthMm, 9);
    expect(zone.behindMm).toBeGreaterThan(zone.inFrontMm);
    expect(zoneSplitWords(near, close, 'metric')).toMatch(/ in front, .+ behind$/);
    const wide = plan(alone, {
      lensId: 'lens-35',
      focalLengthMm: 35,
      placement: { kind: 'distance', distanceMm: 12_000 }
    });
    const deep = entryOf(wide, wide.stops.length - 1);
    expect(zoneWords(wide, deep, 'metric')).toBe('∞');
    expect(zoneSplitWords(wide, deep, 'metric')).toMatch(/in front, all behind$/);
  });

  it('tells the depth a print has where only a print is sharp, not none at all', () => {
    // Three rows a metre apart by an 85 at a stop whose diffraction alone is soft looked at closely.
    const people = [0, 1000, 2000].map((depthMm, at) =>
      newPerson(`p${at}`, `Row ${at}`, { depthMm, lateralMm: 500 * at })
    );
    const deep = plan(
      { people, intent: { ...newSetup('s', '').intent, viewing: { kind: 'close' } } },
      { placement: { kind: 'distance', distanceMm: 6000 } }
    );
    const entry = entryOf(deep);
    expect(keeperRateWords(deep)).not.toBe('0%');
    expect(deep.inPrint?.odds).toBeGreaterThan(0.5);
    const { nearMm, farMm } = sharpFromTo(deep, entry);
    expect(nearMm).toBeLessThan(entry.nearMm);
    expect(farMm ?? Infinity).toBeGreaterThan(entry.farMm ?? 0);
    expect(sharpZone(deep, entry).depthMm).toBeGreaterThan(1500);
  });

  it('never says certain', () => {
    expect([oddsWords(1), oddsWords(0.996), oddsWords(0.914), oddsWords(0)]).toEqual(['99%', '99%', '91%', 'under 1%']);
  });

  it('asks for frames, focused anew each time, and beyond twenty to combine several', () => {
    const one = plan({ people: [newPerson('a', 'A')], backgrounds: [] });
    expect(framesWords(one, entryOf(one, 5))).toBe('shoot 1');
    const people = Array.from({ length: 9 }, (_, i) => newPerson(`p${i}`, `P${i}`, { lateralMm: (i - 4) * 100 }));
    const nine = plan({ ...alone, people }, { placement: { kind: 'distance', distanceMm: 6000 } });
    expect(framesWords(nine, entryOf(nine, 5))).toBe('shoot 3');
    const restless = people.map((person, i) => ({ ...person, mood: 'lively' as const, swayMm: 80, depthMm: i * 20 }));
    const hopeless = plan({ ...alone, people: restless }, { placement: { kind: 'distance', distanceMm: 2500 } });
    expect(framesWords(hopeless, entryOf(hopeless, 3))).toMatch(/^(no one frame has everyone|shoot \d+ to combine)$/);
  });
});

describe('what is amiss, in words', () => {
  it('names who is outside, who is hidden, and whose head a wide lens draws longer', () => {
    const wide = {
      lensId: 'lens-24-70',
      focalLengthMm: 24,
      placement: { kind: 'distance', distanceMm: 1600 }
    } as const;
    const people = [
      newPerson('a', 'Ada'),
      newPerson('b', 'Bo', { lateralMm: 900 }),
      newPerson('c', 'Cleo', { lateralMm: 4000 }),
      newPerson('d', 'Dov', { depthMm: 700, lateralMm: 5 })
    ];
    const said = noticeWords(plan({ ...alone, people }, wide));
    expect(said).toEqual([
      'Cleo is out of frame and not counted.',
      'Dov is hidden from the lens.',
      // 900 mm aside at 1.6 m is 29.4° off the axis: 1/cos 29.4° = 1.147.
      'Bo is near the edge of a wide frame: the head stretches 15%.'
    ]);
    expect(noticeWords(plan({ ...alone, people: people.slice(0, 1) }))).toEqual([]);
    const crowd = Array.from({ length: 5 }, (_, i) => newPerson(`o${i}`, `O${i}`, { lateralMm: 5000 + i * 300 }));
    expect(noticeWords(plan({ ...alone, people: [newPerson('a', 'Ada'), ...crowd] }))[0]).toBe(
      'O0, O1 and 3 more are out of frame and not counted.'
    );
  });

  it('measures where to stand to what stands nearest, and names it', () => {
    const said = (people: Setup['people'], distanceMm = 5000) => {
      const result = plan(
        { ...alone, people },
        { lensId: 'lens-35', focalLengthMm: 35, placement: { kind: 'distance', distanceMm } }
      );
      return standWords(result, entryOf(result), 'metric');
    };
    const [a, b] = [newPerson('a', 'Ada', { lateralMm: -300 }), newPerson('b', 'Bo', { lateralMm: 300 })];
    expect(said([a])).toBe('from 5 m');
    expect(said([a, b])).toBe('from 5 m');
    expect(said([a, b, newPerson('c', 'Cleo')])).toBe('from 5 m');
    const back = [-400, 0, 400].map((lateralMm) =>
      newPerson(`r${lateralMm}`, 'R', { lateralMm, depthMm: 900, floorMm: 300 })
    );
    expect(said([a, b, ...back])).toMatch(/^5 m from the front row(, set focus to 5\.\d m)?$/);
    expect(said([a, { ...b, depthMm: 1500 }])).toMatch(/^(from 5 m|5 m from Ada, set focus to 6\.\d m)$/);
  });
});

describe('backgrounds in words', () => {
  const said = (changes: Parameters<typeof newBackground>[2], label: string) => {
    const result = plan({ backgrounds: [newBackground('b', 'ferns', changes)] });
    const index = result.stops.findIndex((entry) => entry.stop.label === label);
    return backgroundSentence(result, 0, entryOf(result, index), 'metric');
  };

  it('say what becomes of each wish', () => {
    expect(said({ wish: 'hide', detailMm: 40 }, '1.4')).toMatch(/^Ferns: blurred away\./);
    expect(said({ wish: 'hide', detailMm: 40 }, '11')).toMatch(/^Ferns: still readable\. .* these are 4 cm\.$/);
    expect(said({ wish: 'hint', detailMm: 60 }, '4')).toMatch(/^Ferns: just hinted\./);
    expect(said({ wish: 'hint', detailMm: 60 }, '1.4')).toMatch(
      /^Ferns: blurred away completely, not even hinted at\./
    );
    expect(said({ wish: 'hint', detailMm: 60 }, '16')).toMatch(/^Ferns: too distinct\./);
    expect(said({ wish: 'keep', depthMm: 30 }, '11')).toBe('Ferns: sharp.');
    expect(said({ wish: 'keep' }, '1.4')).toMatch(/^Ferns: too soft to recognise\./);
    expect(said({ wish: 'free', detailMm: 10 }, '1.4')).toMatch(/^Ferns: blurred away\./);
    expect(said({ wish: 'free', detailMm: 400 }, '1.4')).toMatch(/^Ferns: still readable\./);
  });
});

describe('reasons and conflicts in words', () => {
  it('name what happens a stop wider and a stop narrower', () => {
    expect(reasonSentence(plan(alone))).toMatch(
      /^f\/[\d.]+–f\/16 works\. .+\. f\/16 is the lens’s smallest aperture\.$/
    );
    const hidden = plan({ backgrounds: [newBackground('b', 'ferns', { depthMm: 3000, detailMm: 40 })] });
    expect(reasonSentence(hidden)).toMatch(/Narrower: ferns come back\.$/);
    const one = plan({ backgrounds: [newBackground('b', 'hedge', { depthMm: 3000, detailMm: 40 })] });
    expect(reasonSentence(one)).toMatch(/Narrower: hedge comes back\.$/);
  });

  it('give each conflict two sentences and a window none', () => {
    expect(conflictSentences(plan(alone))).toBeNull();
    const cases: [Partial<Setup>, RegExp][] = [
      [
        { people: [newPerson('a', 'A'), newPerson('b', 'B', { depthMm: 4000 })] },
        /^No aperture on this lens has the depth of field for every face/
      ],
      [
        { backgrounds: [newBackground('b', 'ivy', { depthMm: 50, detailMm: 60 })] },
        /^No aperture on this lens blurs ivy away from here\.$/
      ],
      [
        {
          backgrounds: [
            newBackground('b', 'ferns', { depthMm: 3000, detailMm: 30 }),
            newBackground('k', 'arch', { depthMm: 200, detailMm: 3, wish: 'keep' })
          ]
        },
        /^.+ and .+ need different apertures\.$/
      ],
      [
        {
          people: [newPerson('a', 'A', { headYawDeg: 50 })],
          backgrounds: [newBackground('b', 'ferns', { depthMm: 1500, detailMm: 30 })]
        },
        /^The faces need f\/[\d.]+, but ferns would only blur away at f\/[\d.]+\.$/
      ]
    ];
    for (const [changes, wishes] of cases) {
      const said = conflictSentences(plan({ ...alone, ...changes }));
      expect(said?.wishes).toMatch(wishes);
      expect(said?.settled).toMatch(/f\/[\d.]+/);
    }
  });

  it('say what to do when there is no plan', () => {
    const reasons: NoPlanReason[] = [
      { code: 'unknownBody', id: 'x' },
      { code: 'unknownLens', id: 'x' },
      { code: 'nothingRequired' },
      { code: 'behindCamera', name: 'Ada' },
      { code: 'tooClose', closestFocusMm: 800, nearestMm: 420 }
    ];
    for (const reason of reasons) {
      const { title, advice } = noPlanWords(reason, 'metric');
      expect(title).toMatch(/\.$/);
      expect(advice).toMatch(/\.$/);
    }
    expect(noPlanWords(reasons[4] as NoPlanReason, 'metric').advice).toContain('42 cm');
  });
});

describe('both rates', () => {
  /** Two at the altar from afar, a guest's head on the way, a zone of points. */
  const kiss: Partial<Setup> = {
    ...alone,
    people: [
      newPerson('bride', 'Bride', { lateralMm: -110, headYawDeg: 60, sharp: 'nearEye' }),
      newPerson('guest', 'Guest', { depthMm: -5000, lateralMm: -300, posture: 'seated', importance: 'maySoft' })
    ]
  };
  const far: Partial<Camera> = {
    lensId: 'lens-135',
    focalLengthMm: 135,
    focusArea: 'zone',
    placement: { kind: 'distance', distanceMm: 13_000 }
  };

  it('say how often focus lands elsewhere and where, and what a surer way of aiming gives', () => {
    const result = plan(kiss, far);
    const entry = entryOf(result);
    expect(strays(entry)).toBe(true);
    expect(strayingSentence(result, entry)).toMatch(
      /^\d+% if focus lands on Bride’s near eye, \d+% with this AF area: about \d in 10 go to Guest’s \w+\.$/
    );
    expect(strays(entryOf(plan(alone)))).toBe(false);
    const [way] = waysToFocus(inputOf(kiss, far), entry.stop).filter(({ kind }) => kind === 'onePoint');
    if (!way) throw new Error('no single point');
    expect(surerWords(result, way)).toMatch(/^Single point on Bride’s near eye: \d+%$/);
  });

  it('are of the print where no stop is sharp looked at closely, and are said to be', () => {
    const close = { intent: { ...newSetup('s', 'S').intent, viewing: { kind: 'close' as const } } };
    const deep = {
      ...alone,
      ...close,
      people: [newPerson('a', 'A'), newPerson('b', 'B', { depthMm: 200, lateralMm: 300 })]
    };
    const from: Partial<Camera> = { placement: { kind: 'distance', distanceMm: 3600 } };
    const result = plan(deep, from);
    expect(conflictSentences(result)).toEqual({
      wishes: 'Looked at closely, no aperture keeps everyone sharp.',
      settled: expect.stringMatching(/^f\/[\d.]+ is sharp in print: 9\d% of frames\.$/) as string
    });
    const entry = entryOf(result);
    const { rate, inPrint } = keeperRate(result, entry);
    expect([inPrint, rate > 0.9, entry.odds < 0.9]).toEqual([true, true, true]);
    expect(framesToShoot(result, entry)).toBeLessThanOrEqual(2);
    expect(keeperRateWords(result)).toMatch(/^9\d%$/);
    // Where the closer look holds, what a print would need is said beside it.
    expect(printWords(plan({ ...alone, ...close }))).toMatch(/^In print f\/[\d.]+ would do\.$/);
    expect(keeperRate(plan(alone), entryOf(plan(alone))).inPrint).toBe(false);
  });
});
