/** Why a frame is not measured, and by how much: a distance (mm), an angle (degrees) or stops, as the problem has it; null where that is not known. */
export interface RefusedFrame<P> {
  readonly problem: P;
  readonly by: number | null;
}

export const refused = <P>(problem: P, by: number | null = null): RefusedFrame<P> => ({ problem, by });

export const isRefused = <T extends object, P>(found: T | RefusedFrame<P>): found is RefusedFrame<P> =>
  'problem' in found;
