import { describe, expect, it } from 'vitest';
import { builtInKit } from '../kit/builtInKit';
import type { Body } from '../kit/schema';
import { newBackground, newPerson, newSetup, newThing } from './defaults';
import { projector } from './projection';
import { featurePosition, viewpoint } from './scene';
import type { Person, Setup } from './schema';
import { lineOfSightFrom, surfacesIn, type FrameArea } from './lineOfSight';

const [body] = builtInKit.bodies as [Body];

/** Level with the eyes of an adult of 1.68 m, 2 m away, an 85. */
function scene(people: readonly Person[], changes: Partial<Setup> = {}) {
  const base = newSetup('s', 'S', { people: [...people], backgrounds: [], ...changes });
  const setup: Setup = {
    ...base,
    camera: { ...base.camera, heightMm: 1572, placement: { kind: 'distance', distanceMm: 2000 } }
  };
  const view = viewpoint(setup, body);
  const looks = lineOfSightFrom(setup, view, body, 1);
  const project = projector(view, setup.camera, body, view.distance);
  const at = (person: Person, feature: Parameters<typeof featurePosition>[1]) => {
    const found = project(featurePosition(person, feature));
    if (!found) throw new Error('behind the lens');
    return found;
  };
  const around = ({ x, y }: { x: number; y: number }, half = 0.002): FrameArea => {
    return { left: x - half, right: x + half, top: y - half, bottom: y + half };
  };
  return { looks, at, around };
}

describe('what the lens sees', () => {
  const ada = newPerson('ada', 'Ada');

  it.each(['leftEye', 'rightEye'] as const)('on an eye is that eye, at its depth (%s)', (eye) => {
    const { looks, at, around } = scene([ada]);
    const [first] = surfacesIn(looks, around(at(ada, eye)), 5, 5);
    expect(first).toMatchObject({ kind: 'person', id: 'ada', part: 'eye' });
    expect(first?.depth).toBeGreaterThan(1995);
    expect(first?.depth).toBeLessThan(2005);
  });

  it('on the nose lies 30 mm nearer, and turns with the head', () => {
    const nose = (person: Person) => {
      const { looks, at, around } = scene([person]);
      return surfacesIn(looks, around(at(person, 'noseTip')), 5, 5)[0];
    };
    expect(nose(ada)).toMatchObject({ part: 'nose' });
    expect(nose(ada)?.nearest).toBeCloseTo(1970, -1);
    // Turned by a quarter it points aside: as far away as the middle of the eyes.
    const aside = nose({ ...ada, headYawDeg: 90 });
    expect(aside?.nearest).toBeGreaterThan(1980);
  });

  it('is the one in front where two stand behind each other, and the wall between two heads', () => {
    const bo = newPerson('bo', 'Bo', { depthMm: 700 });
    const { looks, at, around } = scene([ada, bo]);
    expect(surfacesIn(looks, around(at(bo, 'leftEye')), 5, 5)[0]?.id).toBe('ada');
    const wall = newBackground('wall', 'wall', { depthMm: 3000, surface: 'brick' });
    const pair = [newPerson('l', 'L', { lateralMm: -250 }), newPerson('r', 'R', { lateralMm: 250 })];
    const between = scene(pair, { backgrounds: [wall] });
    const [first] = surfacesIn(between.looks, { left: 0.49, right: 0.51, top: 0.48, bottom: 0.5 }, 5, 5);
    expect(first).toMatchObject({ kind: 'background', id: 'wall' });
    expect(first?.depth).toBeCloseTo(5000, -1);
  });

  it('takes all of every line, whatever stands there', () => {
    const veiled = { ...ada, look: { ...ada.look, headwear: 'veil' as const } };
    const { looks } = scene([veiled, newPerson('bo', 'Bo', { depthMm: 600, lateralMm: 300 })], {
      things: [newThing('t', 'T', { tallMm: 200, widthMm: 200, heightMm: 1572, lateralMm: -250 })],
      backgrounds: [
        newBackground('ferns', 'ferns', { depthMm: -800 }),
        newBackground('candles', 'candles', { depthMm: -700, surface: 'candles' }),
        newBackground('wall', 'wall', { depthMm: 1500, surface: 'trunks' })
      ]
    });
    const surfaces = surfacesIn(looks, { left: 0, right: 1, top: 0, bottom: 1 }, 40, 30);
    expect(surfaces.reduce((sum, { share }) => sum + share, 0)).toBeCloseTo(1, 1);
    for (const id of ['ada', 'bo', 't', 'ferns', 'candles', 'wall']) {
      expect(
        surfaces.some((surface) => surface.id === id),
        id
      ).toBe(true);
    }
  });

  it('has a veil before the face, a brim before the brow, a muzzle before the eyes of a dog', () => {
    const worn = (headwear: 'hat' | 'veil') => ({ ...ada, look: { ...ada.look, headwear } });
    const veil = scene([worn('veil')]);
    const through = surfacesIn(veil.looks, veil.around(veil.at(ada, 'leftEye')), 5, 5);
    expect(through.find(({ part }) => part === 'veil')?.share).toBeCloseTo(1 / 3, 2);
    expect(through.find(({ part }) => part === 'eye')?.share).toBeCloseTo(2 / 3, 2);
    const hat = scene([worn('hat')]);
    const brow = hat.at(ada, 'leftEye');
    const above = surfacesIn(hat.looks, hat.around({ x: brow.x, y: brow.y - 0.115 }, 0.01), 9, 9);
    expect(above.find(({ part }) => part === 'brim')?.nearest).toBeLessThan(1950);
    const dog = newPerson('dog', 'Dog', { being: 'pet', statureMm: 1572 });
    const near = scene([dog]);
    const [first] = surfacesIn(near.looks, near.around(near.at(dog, 'noseTip')), 5, 5);
    expect(first?.part).toBe('muzzle');
    expect(first?.nearest).toBeLessThan(1920);
  });
});
