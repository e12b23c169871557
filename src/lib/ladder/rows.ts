/** The Ladder's rows of faces and things: points, people folded to their worst point, rows folded to their worst face. */
import type { Bound, Plan, PointSharpness } from '$core/call/plan';
import { rowsByDepth } from '$core/people/rows';
import type { PointRole } from '$core/setup/scene';
import { roleWords } from '$core/words/call';

export type LadderOrder = 'byRow' | 'byRisk';

export interface LadderRow {
  readonly key: string;
  /** 0: a group or somebody on their own; one more for each level within. */
  readonly level: number;
  readonly name: string;
  /** What the cells are about: "near eye", "5 faces". */
  readonly detail: string;
  readonly required: boolean;
  /** First row of its person or group: carries the name. */
  readonly first: boolean;
  /** null when there is nothing to unfold. */
  readonly open: boolean | null;
  /** What unfolding or folding it turns. */
  readonly turns: string;
  /** Sets the wide end of the window. */
  readonly limits: boolean;
  readonly cells: readonly PointSharpness[];
  /** Whose worst it is, by stop, when the row stands for several. */
  readonly worst: readonly string[];
}

/** Up to this many people everything is unfolded from the start. */
const unfoldedUpTo = 3;

/** Up to this many, people stand on their own; beyond, rows are folded. */
const singleUpTo = 8;

interface Member {
  readonly index: number;
  readonly id: string;
  readonly name: string;
  readonly nearest: number;
}

/** Rows as they stand, with what has been unfolded or folded by hand (`turned`). */
export function ladderRows(
  plan: Plan,
  order: LadderOrder = 'byRow',
  turned: ReadonlySet<string> = new Set()
): LadderRow[] {
  const members = plan.subjects.map(({ id, name, nearest }, index): Member => ({ index, id, name, nearest }));
  const few = members.length <= unfoldedUpTo;
  const isOpen = (key: string, usual: boolean) => usual !== turned.has(key);
  const person = (member: Member, level: number) => personRows(plan, member, level, isOpen(member.id, few));

  if (order === 'byRisk' && !few) {
    const ranked = [...members].sort((a, b) => risk(plan, b) - risk(plan, a));
    const rest = ranked.slice(singleUpTo);
    return [
      ...ranked.slice(0, singleUpTo).flatMap((member) => person(member, 0)),
      ...(rest.length > 0 ? group(plan, 'others', 'Less at risk', rest, isOpen('others', false), person) : [])
    ];
  }
  const rows = rowsByDepth(members, (member) => member.nearest);
  if (members.length <= singleUpTo || rows.length < 2) return members.flatMap((member) => person(member, 0));
  return rows.flatMap((row, index) => {
    const key = `row-${index}`;
    const where = index === 0 ? ', front' : index === rows.length - 1 ? ', back' : '';
    return group(plan, key, `Row ${index + 1}${where}`, row, isOpen(key, false), person);
  });
}

function group(
  plan: Plan,
  key: string,
  name: string,
  members: readonly Member[],
  open: boolean,
  person: (member: Member, level: number) => LadderRow[]
): LadderRow[] {
  const worst = plan.stops.map((_, stop) => {
    const at = (member: Member) => worstPoint(plan, member.index, stop).ratio;
    return members.reduce((most, member) => (at(member) > at(most) + 1e-9 ? member : most));
  });
  return [
    {
      key,
      level: 0,
      name,
      detail: `${members.length} faces`,
      required: true,
      first: true,
      open,
      turns: key,
      limits: members.some((member) => isLimit(plan.lower, member.id)),
      cells: worst.map((member, stop) => worstPoint(plan, member.index, stop)),
      worst: worst.map((member) => member.name)
    },
    ...(open ? members.flatMap((member) => person(member, 1)) : [])
  ];
}

function personRows(plan: Plan, { index, id, name }: Member, level: number, open: boolean): LadderRow[] {
  const subject = plan.subjects[index];
  if (!subject) return [];
  const points = subject.points.map((point, place): LadderRow => ({
    key: `${id}-${point.role}`,
    level,
    name,
    detail: roleWords[point.role],
    required: point.required && subject.importance !== 'maySoft',
    first: place === 0,
    open: null,
    turns: id,
    limits: isLimit(plan.lower, id, point.role),
    cells: plan.stops.map((entry) => entry.sharpness[index]?.[place] ?? { ratio: 0 }),
    worst: []
  }));
  const [first] = points;
  if (!first) return [];
  if (points.length === 1) return [{ ...first, key: id, open: null, limits: isLimit(plan.lower, id) }];
  const foldable = plan.subjects.length > unfoldedUpTo;
  if (open) return points.map((row) => (row.first && foldable ? { ...row, open: true } : row));
  const worst = worstPoint(plan, index, plan.selected);
  return [
    {
      ...first,
      key: id,
      detail: roleWords[worst.role],
      required: subject.importance !== 'maySoft',
      open: false,
      limits: isLimit(plan.lower, id),
      cells: plan.stops.map((_, stop) => worstPoint(plan, index, stop)),
      worst: plan.stops.map((_, stop) => roleWords[worstPoint(plan, index, stop).role])
    }
  ];
}

/** The worst required point of a subject at a stop; of all its points when none is required. */
function worstPoint(plan: Plan, index: number, stop: number): PointSharpness & { readonly role: PointRole } {
  const points = plan.subjects[index]?.points ?? [];
  const cells = plan.stops[stop]?.sharpness[index] ?? [];
  const any = points.some((point) => point.required);
  let worst: { ratio: number; role: PointRole } = { ratio: -1, role: 'nearEye' };
  points.forEach((point, place) => {
    const ratio = cells[place]?.ratio ?? 0;
    if ((point.required || !any) && ratio > worst.ratio + 1e-9) worst = { ratio, role: point.role };
  });
  return { ...worst, ratio: Math.max(0, worst.ratio) };
}

function risk(plan: Plan, member: Member): number {
  const soft = plan.subjects[member.index]?.importance === 'maySoft';
  return (soft ? -100 : 0) + worstPoint(plan, member.index, plan.selected).ratio;
}

function isLimit(bound: Bound, subjectId: string, role?: PointRole): boolean {
  if (bound.kind === 'odds') return bound.subjectId === subjectId && role === undefined;
  return bound.kind === 'point' && bound.subjectId === subjectId && (role === undefined || bound.role === role);
}
