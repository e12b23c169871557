/** The drills by name, as they are stored, in the order they are shown: apart from what they are, which the first page does not need. */
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
