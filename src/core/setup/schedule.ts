/** When a setup is to be taken, and what became of it on the day. Nothing here changes its plan. */
import { z } from 'zod';
import { numberBetween, id, limits, text, wholeBetween } from '../schema/values';

export const priorities = ['must', 'ifTime'] as const;
export const takenVerdicts = ['good', 'soft', 'redo'] as const;

export const scheduleSchema = z.strictObject({
  startsAt: z
    .string()
    .regex(/^([01]\d|2[0-3]):[0-5]\d$/, 'must be a time such as 14:35')
    .nullable()
    .describe('Time of the day, HH:MM; null where it just follows'),
  fixed: z.boolean().describe('It starts then, whatever else is moved: a ceremony, the light'),
  minutes: wholeBetween(1, 600).describe('Minutes planned for it'),
  priority: z.enum(priorities)
});

/** What turned out different, as changes to the plan; null, 0 or empty for as planned. */
export const differentSchema = z.strictObject({
  distanceMm: numberBetween(50, limits.maxDistanceMm).nullable().describe('Lens to subject line'),
  deeperMm: numberBetween(-20_000, 20_000).describe('The group is so much deeper, front to back'),
  lens: z
    .strictObject({
      lensId: id,
      adapterIds: z.array(id).max(limits.maxBetween),
      focalLengthMm: numberBetween(1, 2000)
    })
    .nullable()
    .describe('Another lens, at the same framing'),
  lightStops: numberBetween(-20, 20).describe('Brighter by so many stops; negative is darker'),
  wallCloserMm: numberBetween(-limits.maxDistanceMm, limits.maxDistanceMm).describe(
    'What is to vanish or be hinted at is so much closer behind them'
  ),
  missing: z.array(id).max(limits.maxPeople).describe('Who is not there')
});

export const takenSchema = z.strictObject({
  doneAt: z.iso.datetime().nullable().describe('When it was ticked done; null while it is not'),
  verdict: z.enum(takenVerdicts).nullable(),
  note: text(limits.maxNotesLength).describe('Why it is good or soft, and what to remember'),
  different: differentSchema
});

export type Priority = (typeof priorities)[number];
export type TakenVerdict = (typeof takenVerdicts)[number];
export type Schedule = z.infer<typeof scheduleSchema>;
export type Different = z.infer<typeof differentSchema>;
export type TakenRecord = z.infer<typeof takenSchema>;

export const usualSchedule: Schedule = { startsAt: null, fixed: false, minutes: 10, priority: 'must' };
export const asPlanned: Different = {
  distanceMm: null,
  deeperMm: 0,
  lens: null,
  lightStops: 0,
  wallCloserMm: 0,
  missing: []
};
export const notTaken: TakenRecord = { doneAt: null, verdict: null, note: '', different: asPlanned };

/** Whether nothing turned out different. */
export const isAsPlanned = ({ distanceMm, deeperMm, lens, lightStops, wallCloserMm, missing }: Different): boolean =>
  distanceMm === null &&
  deeperMm === 0 &&
  lens === null &&
  lightStops === 0 &&
  wallCloserMm === 0 &&
  missing.length === 0;

/** Minutes after midnight of "14:35". */
export const minuteOf = (clock: string): number => Number(clock.slice(0, 2)) * 60 + Number(clock.slice(3, 5));

/** "14:35"; past midnight it begins anew. */
export const clockOf = (minute: number): string => {
  const inDay = ((Math.round(minute) % 1440) + 1440) % 1440;
  return `${String(Math.floor(inDay / 60)).padStart(2, '0')}:${String(inDay % 60).padStart(2, '0')}`;
};
