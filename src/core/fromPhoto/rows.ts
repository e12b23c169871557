/** Which row everyone stands in. */
import { median, sum } from 'd3-array';
import { CholeskyDecomposition, inverse, Matrix } from 'ml-matrix';

/** Someone as a photo places them, camera coordinates, mm. */
export interface Placed {
  readonly id: string;
  /** To the right of the axis, and above it. */
  readonly x: number;
  readonly y: number;
  /** Along the axis. */
  readonly z: number;
  /** Standard deviation of `z`, mm. */
  readonly sd: number;
  /** The chance that it is a child, whose height says nothing of the row. */
  readonly child: number;
}

export interface RowSeen {
  readonly ids: readonly string[];
  /** Along the axis, mm. */
  readonly z: number;
  readonly sd: number;
  /** What it may be off by, mm, for one standard deviation of each of as many independent errors as there are rows. */
  readonly off: readonly number[];
}

/** Common practice, no source: rows stand so far apart, people of a row within this of its line, and their eyes within this of its height. */
const apartMm = { mean: 800, sd: 250 } as const;
export const withinRowMm = 90;
const heightMm = 95;
/** Children, and whoever kneels or stoops: so many beside the children, and their heights within this. */
const otherwise = { share: 0.05, heightMm: 400 } as const;
/** Two heads of one row are hardly nearer to each other than this, side by side. */
const besideMm = 340;
/** Each two that are cost so much, as a logarithm of chances (chosen by `scripts/groups.ts`). */
const overlapCost = 2.5;
/** A row more has to be worth this, as a logarithm of chances: one row unless the evidence is clear (chosen by `scripts/groups.ts`). */
const rowCost = 11;
/** More rows are not told apart by one photo (chosen). */
const mostRows = 4;
/** Rounds of moving people between rows: it settles in a few. */
const mostRounds = 30;

/** Rows, the nearest first; everyone is in one of them. @param people in any order */
export function rowsOf(people: readonly Placed[]): RowSeen[] {
  if (people.length === 0) return [];
  const most = Math.min(mostRows, Math.max(1, Math.floor(people.length / 2)));
  let best = grouped(
    people,
    people.map(() => 0),
    1
  );
  for (let count = 2; count <= most; count++)
    for (const start of starts(people, count)) {
      const found = settled(people, start, count);
      if (found.score > best.score) best = found;
    }
  return withGaps(best.rows);
}

/** Rows as far apart as both their faces and usual rows say: without, the noise of faces far away becomes depth. */
function withGaps(rows: readonly RowSeen[]): RowSeen[] {
  const count = rows.length;
  const gap = 1 / apartMm.sd ** 2;
  // Precision of all rows together, and what it pulls them to.
  const precision = rows.map((row, i) =>
    rows.map((_, j) => {
      if (i === j) return 1 / row.sd ** 2 + gap * (Number(i > 0) + Number(i < count - 1));
      return Math.abs(i - j) === 1 ? -gap : 0;
    })
  );
  const pulls = rows.map(({ z, sd }, i) => z / sd ** 2 + gap * apartMm.mean * (Number(i > 0) - Number(i < count - 1)));
  const triangle = new CholeskyDecomposition(new Matrix(precision));
  const z = triangle.solve(Matrix.columnVector(pulls)).to1DArray();
  // Its square is the inverse of the precision: what all rows may be off by together.
  const off = inverse(triangle.lowerTriangularMatrix).transpose();
  return rows.map((row, i) => ({ ...row, z: z[i] ?? row.z, sd: Math.hypot(...off.getRow(i)), off: off.getRow(i) }));
}

interface Grouped {
  readonly rows: RowSeen[];
  readonly of: readonly number[];
  readonly score: number;
}

/** First guesses: by distance, by height, by both. */
function starts(people: readonly Placed[], count: number): number[][] {
  const by = (value: (person: Placed) => number) => {
    const order = [...people.entries()].sort(([, a], [, b]) => value(a) - value(b));
    const of = people.map(() => 0);
    order.forEach(([index], place) => (of[index] = Math.floor((place * count) / people.length)));
    return of;
  };
  return [by(({ z }) => z), by(({ y }) => y), by(({ y, z }) => z + 3 * y), by(({ y, z }) => z + y)];
}

/** Everyone moves to the row that explains them best until none does. */
function settled(people: readonly Placed[], start: readonly number[], count: number): Grouped {
  let best = grouped(people, start, count);
  for (let round = 0; round < mostRounds; round++) {
    let moved = false;
    for (let index = 0; index < people.length; index++) {
      for (let row = 0; row < count; row++) {
        if (best.of[index] === row) continue;
        const tried = grouped(
          people,
          best.of.map((own, at) => (at === index ? row : own)),
          count
        );
        if (tried.score <= best.score + 1e-9) continue;
        best = tried;
        moved = true;
      }
    }
    if (!moved) break;
  }
  return best;
}

const logNormal = (value: number, mean: number, sd: number): number => -0.5 * ((value - mean) / sd) ** 2 - Math.log(sd);

/** Height of a row: of those who are hardly children, the middle one. */
function medianOf(those: readonly Placed[]): number {
  const adults = those.filter(({ child }) => child < 0.5);
  return median(adults.length > 0 ? adults : those, ({ y }) => y) ?? 0;
}

/** What a way to part people into rows is worth. */
function grouped(people: readonly Placed[], of: readonly number[], count: number): Grouped {
  const rows: (RowSeen & { readonly y: number })[] = [];
  let score = -rowCost * (count - 1);
  for (let row = 0; row < count; row++) {
    const those = people.filter((_, index) => of[index] === row);
    if (those.length === 0) return { rows: [], of, score: -Infinity };
    const weights = those.map(({ sd }) => 1 / (sd * sd + withinRowMm * withinRowMm));
    const all = sum(weights);
    const z = sum(those, (person, index) => person.z * (weights[index] ?? 0)) / all;
    const y = medianOf(those);
    for (const person of those) {
      score += logNormal(person.z, z, Math.hypot(person.sd, withinRowMm));
      // An error of distance is one of height too.
      const likely = Math.hypot(heightMm, (person.sd * person.y) / person.z);
      const other = Math.min(1, person.child + otherwise.share);
      score += Math.log(
        (1 - other) * Math.exp(logNormal(person.y, y, likely)) +
          other * Math.exp(logNormal(person.y, y, otherwise.heightMm))
      );
    }
    const across = those.map(({ x }) => x).sort((a, b) => a - b);
    score -= overlapCost * across.filter((x, index) => index > 0 && x - (across[index - 1] ?? 0) < besideMm).length;
    rows.push({ ids: those.map(({ id }) => id), z, sd: 1 / Math.sqrt(all), off: [], y });
  }
  rows.sort((a, b) => a.z - b.z);
  for (let row = 1; row < count; row++) {
    const [front, back] = [rows[row - 1], rows[row]];
    if (front && back)
      score +=
        logNormal(back.z - front.z, apartMm.mean, Math.hypot(apartMm.sd, front.sd, back.sd)) + Math.log(apartMm.sd);
  }
  return { rows: rows.map(({ ids, z, sd }) => ({ ids, z, sd, off: [sd] })), of, score };
}
