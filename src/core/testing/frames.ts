/** A measured frame as tests need one: nobody in it, of no setup, all that a file can leave out left out. */
import type { Frame, FrameFace } from '../frames/schema';

export function testFrame(changes: Partial<Frame> = {}): Frame {
  return {
    id: 'f',
    setupId: null,
    setupByHand: false,
    complete: null,
    file: { name: 'a.jpg', bytes: 1, hash: 'a'.repeat(64), modifiedAt: null },
    widthPx: 6000,
    heightPx: 4000,
    preview: false,
    body: null,
    serial: null,
    lens: null,
    focalLengthMm: 85,
    fNumber: 4,
    shutterS: null,
    iso: null,
    clockMs: null,
    distanceMm: null,
    rating: null,
    label: null,
    keywords: [],
    faces: [],
    choice: null,
    reason: null,
    ...changes
  };
}

/** A face that looks at the lens, eyes open. */
export function testFace(eyes: FrameFace['eyes'], changes: Partial<FrameFace> = {}): FrameFace {
  return {
    id: 'face',
    personId: null,
    box: { x: 0, y: 0, width: 200, height: 200 },
    left: { x: 150, y: 80 },
    right: { x: 50, y: 80 },
    yawDeg: 0,
    pitchDeg: 0,
    rollDeg: 0,
    lids: { left: 0.3, right: 0.3 },
    contrast: { left: 1, right: 1 },
    score: 0.9,
    byHand: false,
    eyes,
    ...changes
  };
}
