import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { focusAreas } from '../setup/schema';
import { looseLenses } from '../testing/kit';
import { builtInKit } from '../kit/builtInKit';
import { newBackground, newPerson, newSetup } from '../setup/defaults';
import { demoJobs } from '../job/demo';
import { limits } from '../schema/values';
import version1 from '../formats/versions/job-v1.focalis.json';
import version2 from '../formats/versions/job-v2.focalis.json';
import type { Plan } from '../call/plan';
import { defaultHabits } from '../habits/habits';
import { demoSetup } from '../testing/demo';
import { answerPlanRequest, planRequestJsonSchema } from './planRequest';

const everything = ['alternatives', 'remedies', 'lineUp', 'sensitivity'];
const request = (setup: unknown, rest: object = {}) => JSON.stringify({ setup, ...rest });
const refusal = (text: string) => {
  const answer = answerPlanRequest(text);
  if (answer.ok) throw new Error('was answered');
  return answer;
};

/** The ends of every range and what lies just inside, for numbers a hostile or hurried client sends. */
const extreme = (min: number, max: number) =>
  fc.oneof(fc.constantFrom(min, max, Math.max(min, Math.min(max, 0))), fc.double({ min, max, noNaN: true }));

describe('plan request', () => {
  it('gives the same bytes for the same input, with everything included', () => {
    const text = request(demoJobs()[0].setups[1], { include: everything });
    const answer = answerPlanRequest(text);
    expect(answer).toEqual(answerPlanRequest(text));
    const data = JSON.parse(answer.ok ? answer.json : '{}') as Record<string, unknown>;
    expect(Object.keys(data)).toEqual(['words', 'plan', 'alternatives', 'remedies', 'lineUp', 'sensitivity']);
  });

  it('refuses with the field and the reason', () => {
    const [setup] = demoJobs()[0].setups;
    expect(refusal('{')).toEqual({ ok: false, field: '', reason: 'The request is not complete JSON.' });
    expect(refusal('{}').field).toBe('setup');
    expect(refusal(request({ ...setup, camera: { ...setup?.camera, focalLengthMm: 0 } })).field).toBe(
      'setup.camera.focalLengthMm'
    );
    expect(refusal(request({ ...setup, camera: { ...setup?.camera, focalLengthMm: 300 } })).reason).toMatch(
      /has no 300 mm/
    );
    expect(refusal(request(setup, { extra: 1 }))).toMatchObject({
      field: 'extra',
      reason: 'Focalis does not know this field.'
    });
    expect(refusal(`"${'a'.repeat(600_000)}"`).reason).toMatch(/larger than 512 KB/);
  });

  it('reads setups of earlier versions, and plans by the habits it is sent', () => {
    const old = version2.setups.find((setup) => setup.name === 'Under the palms');
    const asNow = answerPlanRequest(request(old, { version: 2 }));
    expect(asNow.ok).toBe(true);
    expect(answerPlanRequest(request(version1.setups[0], { version: 1 })).ok).toBe(true);
    const oddsOfAllStops = (habits: object) => {
      const answer = answerPlanRequest(request(old, { version: 2, habits }));
      if (!answer.ok) throw new Error(`${answer.field}: ${answer.reason}`);
      const { plan } = JSON.parse(answer.json) as { plan: Plan };
      return plan.stops.reduce((sum, entry) => sum + entry.odds, 0);
    };
    const steady = { ...defaultHabits, holdMm: { ...defaultHabits.holdMm, standing: 0 } };
    expect(oddsOfAllStops(steady)).toBeGreaterThan(oddsOfAllStops(defaultHabits));
  });

  it.each([
    ['people that are no people', { version: 1, setup: { people: [{ id: { toString: 1 } }] } }, /^setup\./],
    ['a setup that is none', { version: 1, setup: null }, /^setup$/],
    ['a version that is none', { version: 'two', setup: {} }, /^version$/],
    ['a version to come', { version: 99, setup: {} }, /^version$/],
    [
      'habits out of range',
      { setup: newSetup('s', 'S'), habits: { ...defaultHabits, swayGrowsForS: -1 } },
      /^habits\./
    ],
    ['a list', [], /^$/],
    ['keys that reach into the program', JSON.parse('{"__proto__": {}}'), /__proto__/]
  ])('refuses %s with the field, and never throws', (_, data, field) => {
    expect(refusal(JSON.stringify(data)).field).toMatch(field);
  });

  it('refuses thousands of people', () => {
    const people = Array.from({ length: limits.maxPeople + 1 }, (_, i) => newPerson(`p${i}`, 'P'));
    expect(refusal(request(newSetup('s', 'S', { people })))).toMatchObject({ field: 'setup.people' });
  });

  it('publishes a JSON Schema that names every part of a setup', () => {
    const schema = JSON.stringify(planRequestJsonSchema());
    for (const name of ['headYawDeg', 'detailMm', 'shutterS', 'guideNumberM', 'overlap'])
      expect(schema).toContain(name);
    expect(schema).toContain('https://json-schema.org/');
  });

  it('refuses a line-up of more than one request may ask, and answers one of a large kit', () => {
    const setup = demoSetup('Family on the steps');
    const zoom = builtInKit.lenses.find((lens) => lens.id === 'lens-70-200');
    const lenses = (count: number) =>
      Array.from({ length: count }, (_, index) => ({ ...zoom, id: `own-${index}`, name: `Own ${index}` }));
    const ask = (count: number) =>
      answerPlanRequest(
        request(setup, { kit: { bodies: [], lenses: lenses(count) }, stopStep: 'third', include: ['lineUp'] })
      );
    expect(ask(200)).toMatchObject({
      ok: false,
      field: 'include',
      reason: expect.stringContaining('too much') as unknown
    });
    expect(ask(6).ok).toBe(true);
  });

  it('refuses a lens that does not go on the body', () => {
    const setup = demoSetup('West door');
    const bodies = builtInKit.bodies.map((item) => ({ ...item, mount: 'one' }));
    const lenses = builtInKit.lenses.map((item) => ({ ...item, mount: 'other' }));
    const refused = refusal(request(setup, { kit: { bodies, lenses } }));
    expect(refused.field).toBe('setup.camera.lensId');
    expect(refused.reason).toContain('does not go on the body');
  });

  it('answers extreme numbers with a result or a reason, never NaN or an exception', () => {
    const setups = fc
      .record({
        distanceMm: extreme(50, limits.maxDistanceMm),
        zoomed: fc.double({ min: 0, max: 1, noNaN: true }),
        depths: fc.array(extreme(-limits.maxDistanceMm, limits.maxDistanceMm), { maxLength: 4 }),
        lateralMm: extreme(-limits.maxDistanceMm, limits.maxDistanceMm),
        yawDeg: extreme(-80, 80),
        pitchDeg: extreme(-80, 80),
        background: extreme(-limits.maxDistanceMm, limits.maxDistanceMm),
        detailMm: extreme(0.1, 100_000),
        seconds: extreme(0, 60),
        pixels: extreme(0.5, 50),
        towards: extreme(-20_000, 20_000),
        across: extreme(0, 20_000),
        ev100: extreme(-10, 20),
        odds: extreme(0.05, 0.999),
        lens: fc.constantFrom(...looseLenses),
        stance: fc.constantFrom('standing', 'tripod'),
        recompose: fc.constantFrom('none', 'waist'),
        frames: fc.constantFrom('one', 'two'),
        flash: fc.boolean(),
        curved: fc.boolean(),
        area: fc.constantFrom(...focusAreas),
        stitch: fc.boolean()
      })
      .map((value) => {
        const base = newSetup('s', 'S');
        return {
          ...base,
          people: value.depths.map((depthMm, i) =>
            newPerson(`p${i}`, 'P', {
              depthMm,
              lateralMm: i === 0 ? value.lateralMm : i * 100,
              towardsMmPerS: value.towards,
              acrossMmPerS: value.across,
              headYawDeg: i * 60
            })
          ),
          backgrounds: [newBackground('b', 'B', { depthMm: value.background, detailMm: value.detailMm })],
          camera: {
            ...base.camera,
            lensId: value.lens.id,
            focalLengthMm: value.lens.shortestMm + value.zoomed * (value.lens.longestMm - value.lens.shortestMm),
            placement: { kind: 'distance', distanceMm: value.distanceMm },
            yawDeg: value.yawDeg,
            pitchDeg: value.pitchDeg,
            secondsToShutter: value.seconds,
            stance: value.stance,
            recompose: value.recompose,
            focusArea: value.area,
            focusSurface: value.curved ? 'curved' : 'flat',
            stitch: value.stitch ? { columns: 20, rows: 20, overlap: 0.05 } : null
          },
          light: {
            ...base.light,
            level: { kind: 'ev', ev100: value.ev100 },
            flash: value.flash ? { guideNumberM: 1, distanceMm: value.distanceMm } : null
          },
          intent: {
            ...base.intent,
            oddsWanted: value.odds,
            frames: value.frames,
            viewing: { kind: 'pixels', pixels: value.pixels }
          }
        };
      });
    fc.assert(
      fc.property(setups, (setup) => {
        const answer = answerPlanRequest(request(setup, { include: everything }));
        if (!answer.ok) throw new Error(`${answer.field}: ${answer.reason}`);
        expect(answer.json).not.toMatch(/NaN|Infinity|undefined/);
        // JSON writes NaN and Infinity as null: every null left must be one that means something.
        const nulls = new Set([...answer.json.matchAll(/"(\w+)":null/g)].map((match) => match[1]));
        for (const known of [
          'farMm',
          'inPrint',
          'shutterS',
          // When it is taken, and what became of it.
          'startsAt',
          'doneAt',
          'verdict',
          'distanceMm',
          'lens',
          'position',
          'stretched',
          'point',
          'recomposed',
          'secondPlaneMm',
          'movement',
          'framesToCombine',
          'framing',
          'partial',
          'window',
          'conflict',
          'stitched',
          'secondTarget',
          'iso',
          'flash',
          'ambientUnderStops',
          'for95',
          'for99',
          'toShoot',
          'subjectId',
          'feature',
          'role',
          'result',
          'reason',
          'holdsFrom',
          'costStops',
          'caution',
          'backUpMm',
          'behindMm',
          'sideMm',
          'stitch',
          'stop',
          'swayMm',
          'sensitivity',
          'cropMode',
          'fieldPerM',
          'edge',
          'between'
        ]) {
          nulls.delete(known);
        }
        expect([...nulls]).toEqual([]);
      }),
      { numRuns: 150 }
    );
  });
});
