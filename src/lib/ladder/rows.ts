import type { Plan, PointSharpness } from '$core/call/plan';
import type { PointRole } from '$core/setup/scene';

export interface LadderRow {
  readonly key: string;
  readonly name: string;
  readonly role: PointRole;
  readonly required: boolean;
  /** First row of its person. */
  readonly first: boolean;
  readonly cells: readonly PointSharpness[];
}

/** With more people than this each takes one row: their worst required point. */
const unfoldedUpTo = 3;

/** The rows of faces and things: each point, or each person's worst when there are many. */
export function ladderRows(plan: Plan): LadderRow[] {
  return plan.subjects.flatMap((subject, subjectIndex) => {
    const cellsOf = (point: number) =>
      plan.stops.map((entry) => entry.sharpness[subjectIndex]?.[point] ?? { ratio: 0 });
    const all = subject.points.map((point, index): LadderRow => ({
      key: `${subject.id}-${point.role}`,
      name: subject.name,
      role: point.role,
      required: point.required && subject.importance !== 'maySoft',
      first: index === 0,
      cells: cellsOf(index)
    }));
    if (plan.subjects.length <= unfoldedUpTo) return all;
    const worst = worstPoint(plan, subjectIndex);
    return all.filter((_, index) => index === worst).map((row) => ({ ...row, first: true }));
  });
}

function worstPoint(plan: Plan, subjectIndex: number): number {
  const points = plan.subjects[subjectIndex]?.points ?? [];
  const cells = plan.stops[plan.selected]?.sharpness[subjectIndex] ?? [];
  let worst = 0;
  points.forEach((point, index) => {
    const isWorse = (cells[index]?.ratio ?? 0) > (cells[worst]?.ratio ?? 0) + 1e-9;
    if (point.required && (isWorse || !points[worst]?.required)) worst = index;
  });
  return worst;
}
