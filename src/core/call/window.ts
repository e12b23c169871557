/** From what every stop gives to the window, the style's pick in it, what binds, and the conflict when it is empty. */
import type { ApertureStyle } from '../setup/schema';
import { stopsBetween } from '../optics/stops';
import { canExpose, exposableOf } from './exposable';
import { oddsTie } from './places';
import type { Bound, Conflict, Plan, StopPlan } from './plan';

export interface JudgeInput {
  readonly stops: readonly StopPlan[];
  readonly style: ApertureStyle;
  readonly backgrounds: Plan['backgrounds'];
  /** Highest ISO the body is used at. */
  readonly isoLimit: number;
  /** Indices of the subjects that should be sharp if it costs nothing else. */
  readonly should: readonly number[];
  /** Where faces are looked at more closely than a standard print: whether they would be sharp in one. */
  readonly holdsInPrint: (index: number) => boolean;
  /** Who has the worst odds at a stop. */
  readonly weakestAt: (index: number) => string;
}

export type Judgement = Pick<Plan, 'window' | 'lower' | 'upper' | 'recommended' | 'conflict' | 'letGo'>;

/** A wish that no stop comes nearer to than this is let go, stops. */
const hopelessStops = 1;

/** Under this keeper rate all stops are hopeless: then the least blur decides (no source). */
const hardlyAny = 0.05;

/** From this share of the circle of confusion on, movement is what softens somebody. */
const movementShare = 0.7;

export function judgeStops(input: JudgeInput): Judgement {
  if (closeLookTooDark(input)) return unreachable(input);
  const granted = holdingOf(input).filter((index) => input.stops[index]?.backgrounds.every((item) => item.met));
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

/** Stops that hold the faces among those that can be exposed: the light is asked before any background. */
const holdingOf = ({ stops }: JudgeInput): number[] => exposableOf(stops).filter((index) => stops[index]?.facesHold);

function indicesWhere(stops: readonly StopPlan[], holds: (entry: StopPlan) => boolean): number[] {
  return stops.flatMap((entry, index) => (holds(entry) ? [index] : []));
}

function indexOfLeast(indices: readonly number[], value: (index: number) => number): number {
  return indices.reduce((best, index) => (value(index) < value(best) - 1e-9 ? index : best), indices[0] ?? 0);
}

/** Of the ISO limit, so much is given for the lens's best stop, and so much for one stop more than the faces need (no source). */
const isoShare = { lensBest: 1 / 4, deepAndSafe: 1 / 2 } as const;

/** A safe stop is closed by so many more than the faces need, while the light allows, stops (common practice, no source). */
const safeStops = 1;

/**
 * Whether faces sharp when looked at closely would cost more of the ISO limit than they are worth, where a print costs less: the
 * noise shows sooner than the blur (common practice, no source).
 */
function closeLookTooDark(input: JudgeInput): boolean {
  const holding = holdingOf(input);
  const bright = (all: readonly number[]) => affordable(input, all, isoShare.deepAndSafe).length > 0;
  return holding.length > 0 && !bright(holding) && bright(exposableOf(input.stops).filter(input.holdsInPrint));
}

/** The style's pick among stops that hold, the widest first. */
function pick(input: JudgeInput, granted: readonly number[]): number {
  const { stops, style, should, backgrounds } = input;
  const widest = granted[0] ?? 0;
  switch (style) {
    case 'openAsFacesAllow': {
      // A place that is to be recognised wants more of it sharp, as far as the light gives it.
      if (backgrounds.some(({ wish }) => wish === 'keep'))
        return safest(input, granted, { ofIsoLimit: isoShare.lensBest });
      const kind = granted.find((index) =>
        should.every((subject) => stops[index]?.sharpness[subject]?.every((point) => point.ratio <= 1))
      );
      return kind ?? widest;
    }
    case 'lensBest':
      return indexOfLeast([widest, ...affordable(input, granted, isoShare.lensBest)], (index) =>
        Math.max(stops[index]?.lensRatio ?? Infinity, stops[index]?.edge?.ratio ?? 0)
      );
    // A background to be as soft as can be takes the spare stop.
    case 'deepAndSafe':
      return backgrounds.some(({ wish }) => wish === 'soft')
        ? widest
        : safest(input, granted, { ofIsoLimit: isoShare.deepAndSafe });
  }
}

/** From the widest that will do up to some stops more, while the light allows: where the worst is sharpest. */
function safest(
  input: JudgeInput,
  granted: readonly number[],
  { ofIsoLimit, spareStops = safeStops }: { readonly ofIsoLimit: number; readonly spareStops?: number }
): number {
  const { stops } = input;
  const widest = granted[0] ?? 0;
  const from = stops[widest]?.stop.fNumber ?? 1;
  const spare = affordable(input, granted, ofIsoLimit).filter(
    (index) => stopsBetween(from, stops[index]?.stop.fNumber ?? from) <= spareStops + 0.01
  );
  return indexOfLeast([widest, ...spare], (index) => stops[index]?.worst.ratio ?? Infinity);
}

/** Stops whose ISO stays within a share of the limit. */
const affordable = ({ stops, isoLimit }: JudgeInput, all: readonly number[], share: number): number[] =>
  all.filter((index) => (stops[index]?.light.iso ?? 0) <= isoLimit * share);

/** What keeps a stop out of the window; the lens itself when there is no such stop. */
function whyNot(input: JudgeInput, index: number): Bound {
  const entry = input.stops[index];
  if (!entry) return { kind: 'lens' };
  if (!entry.facesHold) return facesBound(input, index);
  const failing = worstBackground(input, index);
  if (failing) return { kind: 'background', backgroundId: failing };
  return canExpose(entry) ? { kind: 'lens' } : { kind: 'light' };
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
  const holding = holdingOf(input);
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
  const metWithFaces = metAt.find((index) => holding.includes(index));
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
  const { stops, style } = input;
  const all = exposableOf(stops);
  const oddsAt = (index: number) => stops[index]?.oddsOnTarget ?? 0;
  const most = Math.max(...all.map(oddsAt));
  const ratioAt = (index: number) => stops[index]?.worst.ratio ?? Infinity;
  const byRatio = indexOfLeast(all, ratioAt);
  const asGood = all.filter((index) => oddsAt(index) >= most - oddsTie);
  // What is not sharp looked at closely may be in print: then the stop for that, on the safe side.
  const inPrint = all.filter((index) => input.holdsInPrint(index));
  const nearest = most > hardlyAny ? (asGood[0] ?? byRatio) : byRatio;
  // Half the circle is two stops: as safe as can be is as near to that as the light allows.
  const spare = style === 'deepAndSafe' ? 2 * safeStops : safeStops;
  const tooDark = closeLookTooDark(input);
  const ofIsoLimit = tooDark || style !== 'deepAndSafe' ? isoShare.deepAndSafe : 1;
  const recommended = inPrint.length > 0 ? safest(input, inPrint, { ofIsoLimit, spareStops: spare }) : nearest;
  // Lens and diffraction alone are what is too soft only where they are at every stop.
  const clear = all.filter((index) => (stops[index]?.lensRatio ?? Infinity) <= 1);
  const decided = clear.length === 0 || clear.includes(recommended) ? recommended : indexOfLeast(clear, ratioAt);
  const bound: Bound = tooDark ? { kind: 'light' } : facesBound(input, decided);
  const because =
    bound.kind === 'light'
      ? 'light'
      : bound.kind === 'lensBlur' || bound.kind === 'lensEdge'
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
