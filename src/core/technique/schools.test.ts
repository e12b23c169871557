import { describe, expect, it } from 'vitest';
import { defaultHabits } from '../habits/habits';
import { builtInKit } from '../kit/builtInKit';
import { setupSchema, type Setup } from '../setup/schema';
import { newPerson, newSetup } from '../setup/defaults';
import { demoSetup } from '../testing/demo';
import { schoolQuestions, usualSchools, withSchools, type Schools } from './schools';

const by = (setup: Setup, schools: Partial<Schools>) =>
  withSchools({ setup, kit: builtInKit, stopStep: 'third', habits: defaultHabits }, { ...usualSchools, ...schools });

const plain = newSetup('s', 'S', { people: [newPerson('a', 'A')] });

it('shapes are ordered once each', () => {
  const twice = { ...plain, intent: { ...plain.intent, shapes: ['1:1', '1:1'] } };
  expect(setupSchema.safeParse(twice).error?.issues[0]?.message).toBe('has a shape twice');
});

describe('the photographer’s schools', () => {
  it('left as usual change nothing', () => {
    expect(by(plain, {})).toEqual(plain);
  });

  it('ask everything there is to answer, and every answer leaves a setup that is one', () => {
    expect(schoolQuestions.map(({ key }) => key).sort()).toEqual(Object.keys(usualSchools).sort());
    for (const { key, answers } of schoolQuestions) {
      for (const { value } of answers) {
        for (const setup of [plain, demoSetup('Family on the steps'), demoSetup('Walk up the nave')]) {
          const made = by(setup, { [key]: value });
          expect(setupSchema.safeParse(made).error, `${key} ${value}`).toBeUndefined();
          if (value === 'usual') expect(made).toEqual(setup);
        }
      }
    }
  });

  it.each([
    [{ wideOpen: 'always' }, { stop: { kind: 'chosen', fNumber: 1.4 } }],
    [{ wideOpen: 'deepAndSafe' }, { style: 'deepAndSafe' }]
  ] as const)('%j decide the aperture', (schools, intent) => {
    expect(by(plain, schools).intent).toMatchObject(intent);
  });

  it.each([
    [{ placement: 'turn' }, { recompose: 'wrists' }],
    [{ picker: 'eyeDetection' }, { focusArea: 'eyeDetection' }],
    [{ trigger: 'thumb' }, { trigger: 'thumb' }],
    [{ mode: 'automatic' }, { focusMode: 'automatic' }],
    [{ exposure: 'manual' }, { exposureMode: 'manual' }],
    [{ metering: 'point' }, { metering: 'point' }],
    [{ drive: 'burst' }, { drive: 'burst' }],
    [{ surface: 'curved' }, { focusSurface: 'curved' }]
  ] as const)('%j decide the camera', (schools, camera) => {
    expect(by(plain, schools).camera).toMatchObject(camera);
  });

  it('of rows focus on the row the rule names, in a group of three rows the middle one', () => {
    const { target } = by(demoSetup('Family on the steps'), { rows: 'byRow' }).intent;
    expect(target).toMatchObject({ kind: 'eye', personId: 'corvin' });
    expect(by(plain, { rows: 'byRow' }).intent.target).toEqual({ kind: 'best' });
  });

  it('leave eye detection to bodies that have it, and the camera’s choice to days that move', () => {
    const slr = { ...plain, camera: { ...plain.camera, bodyId: 'body-full-slr' } };
    expect(by(slr, { picker: 'eyeDetection' }).camera.focusArea).toBe('point');
    expect(by(plain, { picker: 'automaticWhenMoving' }).camera.focusArea).toBe('point');
    expect(by(demoSetup('Walk up the nave'), { picker: 'automaticWhenMoving' }).camera.focusArea).toBe('eyeDetection');
  });
});
