/** Which row everyone stands in. */

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
  /** Along the axis, mm, and how sure that is. */
  readonly z: number;
  readonly sd: number;
}

/** Common practice, no source: rows stand so far apart, people of a row within this of its line, and their eyes within this of its height. */
const apartMm = { mean: 800, sd: 250 } as const;
const withinMm = 90;
const heightMm = 95;
/** Children, and whoever kneels or stoops: so many beside the children, and their heights within this. */
const otherwise = { share: 0.05, heightMm: 400 } as const;
/** Two heads of one row are hardly nearer to each other than this, side by side. */
const besideMm = 340;
/** Each two that are: as much as a row more would have to explain. */
const overlapCost = 2.5;
/** A row more has to be worth this: one row unless the evidence is clear. */
const rowCost = 11;
const mostRows = 4;
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
  return best.rows;
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
  const heights = (adults.length > 0 ? adults : those).map(({ y }) => y).sort((a, b) => a - b);
  const middle = (heights.length - 1) / 2;
  return ((heights[Math.floor(middle)] ?? 0) + (heights[Math.ceil(middle)] ?? 0)) / 2;
}

/** What a way to part people into rows is worth. */
function grouped(people: readonly Placed[], of: readonly number[], count: number): Grouped {
  const rows: (RowSeen & { readonly y: number })[] = [];
  let score = -rowCost * (count - 1);
  for (let row = 0; row < count; row++) {
    const those = people.filter((_, index) => of[index] === row);
    if (those.length === 0) return { rows: [], of, score: -Infinity };
    const weights = those.map(({ sd }) => 1 / (sd * sd + withinMm * withinMm));
    const all = weights.reduce((sum, weight) => sum + weight, 0);
    const z = those.reduce((sum, person, index) => sum + person.z * (weights[index] ?? 0), 0) / all;
    const y = medianOf(those);
    for (const person of those) {
      score += logNormal(person.z, z, Math.hypot(person.sd, withinMm));
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
    rows.push({ ids: those.map(({ id }) => id), z, sd: 1 / Math.sqrt(all), y });
  }
  rows.sort((a, b) => a.z - b.z);
  for (let row = 1; row < count; row++) {
    const [front, back] = [rows[row - 1], rows[row]];
    if (front && back)
      score +=
        logNormal(back.z - front.z, apartMm.mean, Math.hypot(apartMm.sd, front.sd, back.sd)) + Math.log(apartMm.sd);
  }
  return { rows: rows.map(({ ids, z, sd }) => ({ ids, z, sd })), of, score };
}
