import { describe, expect, it } from 'vitest';
import { defaultHabits } from '../habits/habits';
import { newJob } from './defaults';
import { renameJobKit } from './normalise';

describe('the kit of a job that comes in', () => {
  it('has its new ids wherever it is named: what is packed, and whose figures came with it', () => {
    const own = { bodyId: 'b', lensId: 'l', method: 'crossPoint', recomposed: false, biasUm: 9, spreadUm: 8 } as const;
    const job = newJob('j', 'J', {
      packing: [{ id: 'l', name: 'Lens', packed: true }],
      habits: { ...defaultHabits, own: [{ ...own, frames: 30, learnedAt: null, focalLengthMm: null, stopShift: [] }] }
    });
    const renamed = renameJobKit(job, (id) => `new-${id}`);
    expect(renamed.packing[0]?.id).toBe('new-l');
    expect(renamed.habits?.own[0]).toMatchObject({ bodyId: 'new-b', lensId: 'new-l', biasUm: 9 });
    expect(renameJobKit({ ...job, habits: null }, (id) => id).habits).toBeNull();
  });
});
