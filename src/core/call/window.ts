/** From what every stop gives to the window, the style's pick in it, what binds, and the conflict when it is empty. */
import type { ApertureStyle } from '../setup/schema';
import { canExpose } from './exposable';
import type { Bound, Conflict, Plan, StopPlan } from './plan';

export interface JudgeInput {
  readonly stops: readonly StopPlan[];
  readonly style: ApertureStyle;
  readonly backgrounds: Plan['backgrounds'];
  /** Indices of the subjects that should be sharp if it costs nothing else. */
  readonly should: readonly number[];
  /** Who has the worst odds at a stop. */
  readonly weakestAt: (index: number) => string;
}

export type Judgement = Pick<Plan, 'window' | 'lower' | 'upper' | 'recommended' | 'conflict' | 'letGo'>;

/** A wish that no stop comes nearer to than this is let go, stops. */
const hopelessStops = 1;

/** From this share of the circle of confusion on, movement is what softens somebody. */
const movementShare = 0.7;

export function judgeStops(input: JudgeInput): Judgement {
  const { stops } = input;
  const granted = indicesWhere(stops, (entry) => entry.facesHold && entry.backgrounds.every((item) => item.met));
  const first = granted[0];
  const last = granted[granted.length - 1];
  if (first !== undefined && last !== undefined) {
    return {
      window: { first, last },
      lower: whyNot(input, first - 1),
      upper: whyNot(input, last + 1),
      recommended: pick(input, granted),
      conflict: null,
      letGo: []
    };
  }
  return settle(input);
}

function indicesWhere(stops: readonly StopPlan[], holds: (entry: StopPlan) => boolean): number[] {
  return stops.flatMap((entry, index) => (holds(entry) ? [index] : []));
}

function indexOfLeast(indices: readonly number[], value: (index: number) => number): number {
  return indices.reduce((best, index) => (value(index) < value(best) - 1e-9 ? index : best), indices[0] ?? 0);
}

/** The style's pick, among those that can be exposed where there are any. */
function pick({ stops, style, should }: JudgeInput, all: readonly number[]): number {
  const exposable = all.filter((index) => {
    const entry = stops[index];
    return entry !== undefined && canExpose(entry);
  });
  const granted = exposable.length > 0 ? exposable : all;
  const worstRatio = (index: number) => stops[index]?.worst.ratio ?? Infinity;
  switch (style) {
    case 'openAsFacesAllow': {
      const kind = granted.find((index) =>
        should.every((subject) => stops[index]?.sharpness[subject]?.every((point) => point.ratio <= 1))
      );
      return kind ?? granted[0] ?? 0;
    }
    case 'lensBest':
      return indexOfLeast(granted, (index) =>
        Math.max(stops[index]?.lensRatio ?? Infinity, stops[index]?.edge?.ratio ?? 0)
      );
    case 'deepAndSafe':
      return indexOfLeast(granted, worstRatio);
  }
}

/** What keeps a stop out of the window; the lens itself when there is no such stop. */
function whyNot(input: JudgeInput, index: number): Bound {
  const entry = input.stops[index];
  if (!entry) return { kind: 'lens' };
  if (!entry.facesHold) return facesBound(input, index);
  const failing = worstBackground(input, index);
  return failing ? { kind: 'background', backgroundId: failing } : { kind: 'lens' };
}

function facesBound(input: JudgeInput, index: number): Bound {
  const entry = input.stops[index];
  if (!entry) return { kind: 'lens' };
  if (entry.lensRatio > 1) {
    const { lens, diffraction, pixels, shake } = entry.causes;
    return { kind: shake > Math.hypot(lens, diffraction, pixels) ? 'shake' : 'lensBlur' };
  }
  if (entry.worst.ratio > 1 + 1e-9 && entry.movement && entry.movement.ratio > movementShare) {
    return { kind: 'movement', subjectId: entry.movement.subjectId };
  }
  if (entry.edge && entry.edge.ratio > 1 + 1e-9) return { kind: 'lensEdge', subjectId: entry.edge.subjectId };
  if (entry.worst.ratio > 1 + 1e-9) {
    return { kind: 'point', subjectId: entry.worst.subjectId, role: entry.worst.role };
  }
  return { kind: 'odds', subjectId: input.weakestAt(index) };
}

function worstBackground({ stops, backgrounds }: JudgeInput, index: number): string | undefined {
  let worst: { id: string; stops: number } | undefined;
  backgrounds.forEach((background, position) => {
    const state = stops[index]?.backgrounds[position];
    if (state && !state.met && state.shortfallStops > (worst?.stops ?? 0)) {
      worst = { id: background.id, stops: state.shortfallStops };
    }
  });
  return worst?.id;
}

/** Faces first: a background can be mended later. Among the stops that hold them, the least missed background wins. */
function settle(input: JudgeInput): Judgement {
  const { stops, backgrounds } = input;
  const holding = indicesWhere(stops, (entry) => entry.facesHold);
  const facesFrom = holding[0];
  if (facesFrom === undefined) return unreachable(input);

  // A wish that stays out of reach by more than a stop is let go before the style chooses among what is left.
  const hopeless = backgrounds.map((_, position) =>
    holding.every((index) => (stops[index]?.backgrounds[position]?.shortfallStops ?? 0) > hopelessStops)
  );
  const missed = (index: number) =>
    (stops[index]?.backgrounds ?? []).reduce(
      (sum, item, position) => sum + (hopeless[position] ? 0 : item.shortfallStops),
      0
    );
  const least = Math.min(...holding.map(missed));
  const recommended = pick(
    input,
    holding.filter((index) => missed(index) <= least + 1e-9)
  );
  const letGo = backgrounds.filter((_, position) => hopeless[position]).map((background) => background.id);
  const backgroundId = worstBackground(input, recommended) ?? '';
  const position = backgrounds.findIndex((background) => background.id === backgroundId);
  const metAt = indicesWhere(stops, (entry) => entry.backgrounds[position]?.met ?? false);
  const shared = { window: null, recommended, letGo } as const;
  const lower = whyNot(input, facesFrom - 1);
  const upper: Bound = { kind: 'background', backgroundId };

  if (metAt.length === 0) {
    return { ...shared, lower, upper, conflict: { kind: 'backgroundUnreachable', backgroundId } };
  }
  const metWithFaces = metAt.find((index) => stops[index]?.facesHold);
  if (metWithFaces !== undefined) {
    const otherId = worstBackground(input, metWithFaces) ?? backgroundId;
    return { ...shared, lower, upper, conflict: { kind: 'backgroundAgainstBackground', backgroundId, otherId } };
  }
  const edge = (metAt[0] ?? 0) > recommended ? (holding[holding.length - 1] ?? facesFrom) : facesFrom;
  const backgroundAt = indexOfLeast(metAt, (index) => Math.abs(index - edge));
  const bound = whyNot(input, backgroundAt);
  const conflict: Conflict = { kind: 'facesAgainstBackground', facesFrom: edge, bound, backgroundId, backgroundAt };
  return { ...shared, lower: bound, upper, conflict };
}

function unreachable(input: JudgeInput): Judgement {
  const { stops } = input;
  const all = stops.map((_, index) => index);
  const byOdds = indexOfLeast(all, (index) => -(stops[index]?.odds ?? 0));
  const byRatio = indexOfLeast(all, (index) => stops[index]?.worst.ratio ?? Infinity);
  const recommended = (stops[byOdds]?.odds ?? 0) > 0.001 ? byOdds : byRatio;
  const bound = facesBound(input, recommended);
  const because =
    bound.kind === 'lensBlur' || bound.kind === 'lensEdge'
      ? 'criterion'
      : bound.kind === 'odds' || bound.kind === 'shake' || bound.kind === 'movement'
        ? bound.kind
        : 'depth';
  return {
    window: null,
    lower: bound,
    upper: { kind: 'lens' },
    recommended,
    letGo: [],
    conflict: { kind: 'facesUnreachable', because, bound }
  };
}
