import { describe, expect, it } from 'vitest';
import { shoot } from '../core/simulation/shoot';
import { planSetup } from '../core/call/planSetup';
import { defaultHabits } from '../core/habits/habits';
import { builtInKit } from '../core/kit/builtInKit';
import { bodyOf, lensOf } from '../core/kit/find';
import { projector } from '../core/setup/projection';
import { featurePosition, sceneSubjects, toCamera, viewpoint } from '../core/setup/scene';
import { demoSetup } from '../core/testing/demo';
import { seededRandom } from '../core/testing/random';
import { lensAtRelease, setupAtRelease, shakePx } from './frameShot';
import { headsOf } from './exposeFrame';
import { lensShot } from './shot';

describe('a frame of the simulated camera, drawn', () => {
  const setup = demoSetup('Family on the steps');
  const input = { setup, kit: builtInKit, stopStep: 'third' as const, habits: defaultHabits };
  const [body, lens, plan] = [bodyOf(builtInKit, setup.camera), lensOf(builtInKit, setup.camera), planSetup(input)];
  if (!body || !lens || plan.kind !== 'plan') throw new Error('no plan');
  const view = viewpoint(setup, body, lens.pupilMagnification);
  const [shot] = shoot(input, seededRandom(4), { frames: 1 }) ?? [];
  if (!shot) throw new Error('no frame');

  it('has every eye as far from the lens as the truth says', () => {
    const drawn = sceneSubjects(setupAtRelease(setup, view, shot), view);
    for (const truth of shot.subjects) {
      const subject = drawn.find(({ id }) => id === truth.id);
      const near = truth.points.find(({ role }) => role === 'nearEye');
      const there = subject?.points.find(({ role }) => role === 'nearEye');
      // A person who sways turns with their neck, not about the lens: a fraction of a millimetre.
      if (near && there) expect(Math.abs(there.depth - near.depthMm)).toBeLessThan(0.5);
    }
    const swayed = shot.subjects.filter(({ shiftMm }) => Math.abs(shiftMm) > 0.5);
    expect(swayed.length).toBeGreaterThan(5);
  });

  it('is focused where the plane fell, and moved as far as the hand', () => {
    const planned = lensShot(setup, plan, body, lens);
    if (!planned) throw new Error('no lens');
    const taken = lensAtRelease(planned, shot);
    expect(taken.lens.focusMm).toBe(shot.planeMm);
    expect(taken.lens.fNumber).toBe(planned.lens.fNumber);
    expect(shakePx({ ...shot, shakeMm: 0.036 }, 36, 6000)).toBeCloseTo(6, 9);
  });

  it('has irises where the core has eyes, but for the turn of the balls, and discs with the sign of their side', () => {
    const planned = lensShot(setup, plan, body, lens);
    if (!planned) throw new Error('no lens');
    const size = { width: 3600, height: 2400 };
    const level = { ...shot, subjects: shot.subjects.map((subject) => ({ ...subject, shiftMm: 0, rollDeg: 0 })) };
    const order = { setup, view, lens: planned, shot: level, ...size, noise: { fullElectrons: 1, readElectrons: 0 } };
    const heads = headsOf(order);
    expect(heads.length).toBeGreaterThan(10);
    const project = projector(view, setup.camera, body, shot.planeMm, plan.pupilMagnification);
    for (const { id, left, right } of heads) {
      const person = setup.people.find((one) => one.id === id);
      if (!person) throw new Error(id);
      const apart = Math.hypot(left.x - right.x, left.y - right.y);
      for (const [eye, feature] of [
        [left, 'leftEye'],
        [right, 'rightEye']
      ] as const) {
        const at = project(featurePosition(person, feature));
        const off = Math.hypot(eye.x - (at?.x ?? NaN) * size.width, eye.y - (at?.y ?? NaN) * size.height);
        expect(off / apart).toBeLessThan(0.12);
        const depth = toCamera(view, featurePosition(person, feature)).z;
        if (Math.abs(depth - shot.planeMm) > 40) expect(Math.sign(eye.discPx)).toBe(Math.sign(depth - shot.planeMm));
      }
    }
    // Tilted, the eyes are as far apart as before, and one is lower.
    const tilted = headsOf({
      ...order,
      shot: { ...level, subjects: level.subjects.map((one) => ({ ...one, rollDeg: 10 })) }
    });
    const slope = (head: (typeof heads)[number] | undefined) =>
      head ? (Math.atan2(head.left.y - head.right.y, head.left.x - head.right.x) * 180) / Math.PI : NaN;
    heads.forEach((head, index) => {
      const turned = Math.abs(slope(tilted[index]) - slope(head));
      expect(turned).toBeGreaterThan(6);
      expect(turned).toBeLessThan(14);
    });
  });
});
