/** A frame of the record as tests need one. */
import type { Recorded } from '../record/schema';

export function recordedFrame(id: string, changes: Partial<Recorded> = {}): Recorded {
  return {
    id,
    jobId: 'job',
    setupId: 'setup',
    setup: 'West door',
    file: `${id}.jpg`,
    takenMs: 0,
    simulated: false,
    complete: true,
    bodyId: 'main',
    body: 'Main body',
    lensId: '85',
    lens: '85 mm f/1.4',
    focalLengthMm: 85,
    fNumber: 1.4,
    method: 'crossPoint',
    recomposed: false,
    mode: 'single',
    area: 'point',
    stance: 'standing',
    secondsToShutter: 0.5,
    distanceMm: 2000,
    odds: 0.8,
    usualUm: 10,
    swayUm: 3,
    frontUm: -30,
    behindUm: 30,
    focusing: null,
    error: [{ q: 14, tau: 4, share: 1 }],
    landedElsewhere: false,
    sharp: 'all',
    people: [{ id: 'ines', name: 'Ines', sharp: true, placed: null, movement: null }],
    choice: null,
    reason: null,
    ...changes
  };
}
