import { describe, expect, it } from 'vitest';
import { builtInKit } from '../kit/builtInKit';
import { defaultCamera, newPerson } from './defaults';
import { cameraDistance, framedHeightMm } from './framing';
import { projector } from './projection';
import { eyesMidpoint, viewpoint } from './scene';
import type { Body } from '../kit/schema';

const body = builtInKit.bodies[0] as Body;

describe('projection', () => {
  it('fills the frame with exactly the height it was framed to', () => {
    const distance = cameraDistance({ camera: defaultCamera, people: [] }, body);
    const project = projector(viewpoint({ camera: defaultCamera, people: [] }, body), defaultCamera, body, distance);
    const half = framedHeightMm.headAndShoulders / 2;
    expect(project({ x: 0, y: defaultCamera.heightMm + half, z: 0 })?.y).toBeCloseTo(0, 9);
    expect(project({ x: 0, y: defaultCamera.heightMm - half, z: 0 })?.y).toBeCloseTo(1, 9);
    expect(project({ x: 0.75 * 2 * half, y: defaultCamera.heightMm, z: 0 })?.x).toBeCloseTo(1, 9);
  });

  it('lowers the picture when the camera tilts up and shows nothing behind the lens', () => {
    const person = newPerson('a', 'A');
    const y = (pitchDeg: number) => {
      const camera = { ...defaultCamera, pitchDeg };
      return projector(viewpoint({ camera, people: [] }, body), camera, body, 2210)(eyesMidpoint(person))?.y ?? 0;
    };
    expect(y(5)).toBeGreaterThan(y(0));
    expect(
      projector(
        viewpoint({ camera: defaultCamera, people: [] }, body),
        defaultCamera,
        body,
        2210
      )({ x: 0, y: 0, z: -9000 })
    ).toBeUndefined();
  });
});
