/** The drills. A new one is a file in this folder, its name in `ids.ts`, and a line here: the compiler says where one is forgotten. */
import type { LengthUnit } from '../../units/length';
import type { JudgeMode } from '../desk/judgeModes';
import type { Arranged } from '../series/steps';
import { diagonal } from './diagonal';
import { edges } from './edges';
import { eyeNose } from './eyeNose';
import { guess } from './guess';
import { drillIds, type DrillId } from './ids';
import { judge } from './judge';
import type { Drill, KitLimits } from './kind';
import { mode } from './mode';
import { steady } from './steady';
import { stopLadder } from './stopLadder';
import { sway } from './sway';

const byId: { readonly [Id in DrillId]: Drill<Id> } = {
  stopLadder,
  diagonal,
  eyeNose,
  edges,
  sway,
  steady,
  mode,
  judge,
  guess
};

/** A drill of this list. */
export type ListedDrill = Drill<DrillId>;
export const drills: readonly ListedDrill[] = drillIds.map((id) => byId[id]);

/** @returns undefined for what is no drill */
export const drillOf = (id: string): ListedDrill | undefined => drills.find((drill) => drill.id === id);
export const drillTitle = (id: DrillId): string => drillOf(id)?.title ?? id;

/** @returns null for a drill that is done at the desk */
export const arrangedFor = (id: DrillId, kit: KitLimits): Arranged | null => drillOf(id)?.frames?.arrange(kit) ?? null;

interface Figure {
  readonly drill: DrillId;
  readonly figure: number | null;
  readonly asked: JudgeMode | null;
}

/** "22 mm off", "12% from theory", "leaning 21 mm". */
export const figureWords = ({ drill, figure, asked }: Figure, unit: LengthUnit): string =>
  figure === null ? 'can’t tell' : (drillOf(drill)?.figureText(figure, unit, asked) ?? '');
