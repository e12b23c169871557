import { describe, expect, it } from 'vitest';
import { defaultHabits } from '../habits/habits';
import { builtInKit } from '../kit/builtInKit';
import { seededRandom } from '../maths/random';
import { noFacts } from '../photos/metadata';
import { setupFrom } from '../setup/templates';
import { photoOfGroup } from '../testing/photoOfGroup';
import { groupWords, sureWords, surerStop } from '../words/fromPhoto';
import { answerPhoto, inLightOf, likePhoto, type PhotoAsked } from './answer';

const { faces, projection, rows } = photoOfGroup({ device: 'phone', rows: 2 }, seededRandom(31));
const facts = { ...noFacts, fNumber: 1.8, shutterS: 1 / 100, iso: 400 };
const base = likePhoto(setupFrom({ template: 'smallGroup' }, 's'), builtInKit, projection, facts);
const ids = Object.fromEntries(faces.map(({ id }, index) => [id, `p${index}`]));
const asked: PhotoAsked = {
  faces,
  projection,
  known: {},
  base,
  ids,
  behindMm: 3000,
  kit: builtInKit,
  habits: defaultHabits,
  stopStep: 'third'
};

describe('from a photo to a call', () => {
  it('takes lens, light and orientation from the photo', () => {
    // 26 mm, as near as the kit has it; the light of f/1.8, 1/100 at ISO 400.
    expect(base.camera.focalLengthMm).toBeGreaterThanOrEqual(24);
    expect(base.camera.focalLengthMm).toBeLessThanOrEqual(28);
    expect(base.camera.orientation).toBe('landscape');
    expect(base.light.level).toEqual({ kind: 'metered', fNumber: 1.8, shutterS: 1 / 100, iso: 400 });
    const tall = likePhoto(base, builtInKit, { ...projection, widthPx: 3024, heightPx: 4032 }, noFacts);
    expect(tall.camera.orientation).toBe('portrait');
    expect(tall.light).toEqual(base.light);
    const planned = inLightOf({ ...base, camera: { ...base.camera, lensId: 'lens-85' } }, facts);
    expect(planned.camera.lensId).toBe('lens-85');
    expect(planned.light.level).toEqual(base.light.level);
    // A file that says what no camera does is not believed.
    expect(likePhoto(base, builtInKit, projection, { ...facts, shutterS: 90_000 }).light).toEqual(base.light);
  });

  it('puts everyone of the photo into the setup, the background behind the last of them', () => {
    const answer = answerPhoto(asked);
    if (!answer) throw new Error('nothing read');
    expect(answer.setup.people.map(({ id }) => id).sort()).toEqual(Object.values(ids).sort());
    const furthest = Math.max(...answer.setup.people.map(({ depthMm }) => depthMm));
    expect(answer.setup.backgrounds[0]?.depthMm).toBe(furthest + 3000);
    expect(groupWords(answer.group, 'metric')).toMatch(
      new RegExp(`^${faces.length} faces in ${rows} rows, [\\d.]+ m to [\\d.]+ m away, each ±\\d+%$`)
    );
    expect(groupWords({ ...answer.group, untold: ['face-x'] }, 'metric')).toMatch(
      /; 1 more too small, or turned too far, to count$/
    );
  });

  it('says how sure a stop is, and names the first that is as good as sure', () => {
    const answer = answerPhoto(asked);
    const held = answer?.held ?? [];
    const wide = held.find(({ share }) => share > 0 && share < 0.9);
    const called = wide?.stop ?? held[0]?.stop ?? '';
    expect(sureWords(held, called)).toBe(
      `f/${called} keeps everyone sharp in ${Math.round(100 * (held.find(({ stop }) => stop === called)?.share ?? 0))} of 100 of what this photo may mean.`
    );
    const surer = surerStop(held, called);
    expect(surer?.share).toBeGreaterThanOrEqual(0.9);
    expect(Number(surer?.stop)).toBeGreaterThanOrEqual(Number(called));
    expect(
      surerStop(
        held.map((one) => ({ ...one, share: 0.5 })),
        called
      )
    ).toBeNull();
    expect(sureWords([{ stop: '8', share: 1 }], '8')).toContain('in 99 of 100');
    expect(sureWords([], '4')).toBeNull();
  });

  it('says the same of the same photo, and nothing of one without faces', () => {
    expect(answerPhoto(asked)?.held).toEqual(answerPhoto(asked)?.held);
    expect(answerPhoto({ ...asked, faces: [] })).toBeNull();
  });
});
