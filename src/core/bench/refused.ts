/** Why a frame is not measured, and by how much: a distance (mm), an angle (degrees) or stops, as the problem has it; null where that is not known. */
export interface Refused<P> {
  readonly problem: P;
  readonly by: number | null;
}

export const refused = <P>(problem: P, by: number | null = null): Refused<P> => ({ problem, by });

export const isRefused = <T extends object, P>(found: T | Refused<P>): found is Refused<P> => 'problem' in found;
