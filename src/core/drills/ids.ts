/** The drills by name, as they are stored; what each is stands in definitions.ts. */
export const drillIds = [
  'stopLadder',
  'diagonal',
  'eyeNose',
  'edges',
  'sway',
  'steady',
  'mode',
  'judge',
  'guess'
] as const;
export type DrillId = (typeof drillIds)[number];
