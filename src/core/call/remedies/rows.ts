/** Remedies that move people within their rows, or the camera round them. */
import { withCamera } from '../../setup/moves';
import { degrees, radians } from '../../maths/vector';
import { rowLine, rowsByDepth } from '../../people/rows';
import type { Person, Setup } from '../../setup/schema';
import { axialDepth, type FocusSurface } from '../../optics/focusSurface';
import { viewpoint } from '../../setup/scene';
import { movePeople, standingAt, wrapDeg, type Context, type Family } from './remedy';

/** A row is not turned further, nor walked round, degrees (common practice, no source). */
const mostTurnDeg = 40;

/** Those whose rows are moved. */
interface Rows {
  readonly context: Context;
  readonly deciding: readonly Person[];
  readonly nearest: number;
  /** From the nearest to the furthest, mm. */
  readonly range: number;
  /** What asking them costs: more for more of them. */
  readonly trouble: number;
}

/** Rows closed up, turned, shaped, or walked round. */
export function rowFamilies(context: Context): Family[] {
  const deciding = context.setup.people.filter((person) => person.importance !== 'maySoft');
  if (deciding.length < 2) return [];
  const depths = deciding.map((person) => person.depthMm);
  const nearest = Math.min(...depths);
  const range = Math.max(...depths) - nearest;
  const rows = { context, deciding, nearest, range, trouble: 0.1 * deciding.length };
  return [...closedUp(rows), ...squared(rows), ...shaped(rows)];
}

/** The further of two comes forward; more than two close their rows. */
function closedUp({ context: { setup }, deciding, nearest, range, trouble }: Rows): Family[] {
  if (range <= 40) return [];
  const furthest = deciding.reduce((a, b) => (b.depthMm > a.depthMm ? b : a));
  if (deciding.length === 2)
    return [
      {
        kind: 'bringForward',
        unit: 'mm',
        subject: furthest.name,
        most: range,
        step: 10,
        effort: (amount) => 0.4 + amount / 5000,
        apply: (amount) =>
          movePeople(setup, (person) => (person.id === furthest.id ? { depthMm: person.depthMm - amount } : {}))
      }
    ];
  return [
    {
      kind: 'pullTogether',
      unit: 'mm',
      // Rows can close up to half their depth before they stand on each other's feet.
      most: range * 0.5,
      step: 10,
      effort: (amount) => 0.8 + trouble + amount / 5000,
      apply: (amount) =>
        movePeople(setup, (person) => ({ depthMm: nearest + (person.depthMm - nearest) * (1 - amount / range) }))
    }
  ];
}

/** A row that stands aslant is turned, or the camera walks round to face it. */
function squared({ context: { setup, distance }, deciding, trouble }: Rows): Family[] {
  const slant = Math.atan(rowLine(deciding).slope);
  const slantDeg = Math.abs(degrees(slant));
  const lateral = deciding.map((person) => person.lateralMm);
  if (slantDeg <= 2 || slantDeg > mostTurnDeg || Math.max(...lateral) - Math.min(...lateral) <= 200) return [];
  const centre = {
    x: deciding.reduce((sum, person) => sum + person.lateralMm, 0) / deciding.length,
    z: deciding.reduce((sum, person) => sum + person.depthMm, 0) / deciding.length
  };
  const turnRow: Family = {
    kind: 'turnRow',
    unit: 'deg',
    most: slantDeg,
    step: 1,
    effort: (amount) => 0.8 + trouble + amount / 60,
    apply: (amount) => {
      const angle = radians(amount) * Math.sign(slant);
      return movePeople(setup, (person) => {
        const x = person.lateralMm - centre.x;
        const z = person.depthMm - centre.z;
        return {
          lateralMm: centre.x + x * Math.cos(angle) + z * Math.sin(angle),
          depthMm: centre.z + z * Math.cos(angle) - x * Math.sin(angle)
        };
      });
    }
  };
  const radius = distance + centre.z;
  const squareCamera: Family = {
    kind: 'squareCamera',
    unit: 'deg',
    most: slantDeg,
    step: 1,
    effort: (amount) => 0.5 + amount / 45,
    apply: (amount) => {
      // Round the group on a circle, looking at its middle; the faces follow the lens.
      const angle = -radians(amount) * Math.sign(slant);
      const moved = withCamera(setup, {
        ...standingAt(radius * Math.cos(angle) - centre.z),
        lateralMm: centre.x - radius * Math.sin(angle),
        yawDeg: degrees(angle)
      });
      return movePeople(moved, (person) => ({ headYawDeg: wrapDeg(person.headYawDeg - degrees(angle)) }));
    }
  };
  return deciding.length > 2 ? [turnRow, squareCamera] : [squareCamera];
}

/** Rows laid along the surface of focus. */
function shaped({ context: { setup, body, lens, distance }, deciding, trouble }: Rows): Family[] {
  const { surface } = viewpoint(setup, body, lens.pupilMagnification, lens.fieldPerM);
  const depths = shapedDepths(setup, deciding, distance, surface);
  const bends = deciding.map((person) => Math.abs((depths.get(person.id) ?? person.depthMm) - person.depthMm));
  const bend = Math.max(0, ...bends);
  if (bend <= 30) return [];
  return [
    {
      kind: 'shapeRow',
      unit: 'mm',
      subject: surface === 'flat' ? 'flat' : surface === 'curved' || surface.bendPerMm > 0 ? 'in' : 'out',
      most: bend,
      step: 10,
      effort: (amount) => 0.8 + trouble + amount / 5000,
      apply: (amount) =>
        movePeople(setup, (person) => {
          const to = depths.get(person.id) ?? person.depthMm;
          return { depthMm: person.depthMm + ((to - person.depthMm) * amount) / bend };
        })
    }
  ];
}

/** Depths that lay each row along the surface of focus: straight for a flat one, round the lens for a curved one, as measured. */
function shapedDepths(
  { camera }: Setup,
  people: readonly Person[],
  distance: number,
  surface: FocusSurface
): Map<string, number> {
  const shaped = new Map<string, number>();
  for (const row of rowsByDepth(people, (person) => person.depthMm)) {
    const middle = row.reduce((sum, person) => sum + person.depthMm, 0) / row.length;
    const line = rowLine(row);
    for (const person of row) {
      const x = person.lateralMm - camera.lateralMm;
      const to =
        surface === 'flat'
          ? line.at + line.slope * person.lateralMm
          : surface === 'curved'
            ? Math.sqrt(Math.max(0, (distance + middle) ** 2 - x * x)) - distance
            : axialDepth(surface, x / (distance + person.depthMm), distance + middle) - distance;
      shaped.set(person.id, to);
    }
  }
  return shaped;
}
