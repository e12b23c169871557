import { expect, it } from 'vitest';
import { recordedFrame } from '../testing/recorded';
import { recordedSchema } from './schema';
import { recordWithoutNames } from './withoutNames';

it('keeps every number and nobody’s name, in the setup’s neither; twice is once', () => {
  const frames = [recordedFrame('a', { setup: 'Ines at the door' }), recordedFrame('b')];
  const hidden = recordWithoutNames(frames);
  expect(JSON.stringify(hidden)).not.toContain('Ines');
  expect(hidden[0]?.setup).toBe('someone at the door');
  const numbers = ({ people, setup: _, ...rest }: (typeof frames)[number]) => [
    rest,
    people.map(({ name: __, ...one }) => one)
  ];
  expect(hidden.map(numbers)).toEqual(frames.map(numbers));
  for (const frame of hidden) expect(recordedSchema.safeParse(frame).success).toBe(true);
  expect(recordWithoutNames(hidden)).toEqual(hidden);
});
