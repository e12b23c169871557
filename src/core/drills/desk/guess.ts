/**
 * Guess, then see: a picture is drawn by chance, one says in which range the answer lies nine times in ten, and is scored by how often it does
 * and how wide the ranges are, not by luck.
 */
import { mean, median } from 'd3-array';
import type { Plan } from '../../call/plan';
import { planSetup } from '../../call/planSetup';
import type { PlanInput } from '../../call/planInput';
import type { Body, Lens } from '../../kit/schema';
import { stopsBetween } from '../../optics/stops';
import { shareOf, type Share } from '../../record/honesty';
import { newBackground, newPerson, newSetup } from '../../setup/defaults';
import { aimAtGroup } from '../../setup/groupFraming';
import { cameraDistance } from '../../setup/framing';
import { arrange, type Arrangement } from '../../setup/arrangements';
import type { Camera, Person, Setup } from '../../setup/schema';
import { oneOf, seededRandom, uniformBetween, type Random } from '../../maths/random';

/** Where one says the answer lies, nine times in ten; from not above to. */
export interface Range {
  readonly from: number;
  readonly to: number;
}

/** What is asked, and what the plan says of it. */
export interface Answer {
  /** The first stop that holds everybody's faces, as the lens has it. */
  readonly fNumber: number;
  /** The background's disc at that stop over the height of the picture. */
  readonly blurShare: number;
}

/** Nine times in ten. */
const confidence = 0.9;

/** One scene's two ranges against the truth. */
export interface Guessed {
  readonly stop: Range;
  readonly blur: Range;
  readonly answer: Answer;
}

/** Pictures are tried until one has an answer the lens can give (chosen). */
const mostTries = 40;

export interface GuessScene {
  readonly setup: Setup;
  readonly plan: Plan;
  readonly answer: Answer;
}

/** What a picture is drawn for: the same number, the same picture. */
export type GuessAsked = Omit<PlanInput, 'setup' | 'kit'> & {
  readonly body: Body;
  readonly lens: Lens;
  readonly seed: number;
};

/** A picture by chance for this kit, with an answer that is neither the widest stop nor none. @returns null where no try makes one */
export function guessScene({ body, lens, seed, ...input }: GuessAsked): GuessScene | null {
  const random = seededRandom(seed);
  const kit = { bodies: [body], lenses: [lens], adapters: [] };
  for (let round = 0; round < mostTries; round++) {
    const setup = drawn(random, body, lens);
    const plan = planSetup({ ...input, kit, setup });
    const answer = plan.kind === 'plan' ? answerOf(plan) : null;
    if (plan.kind === 'plan' && answer && answer.fNumber > (plan.stops[0]?.stop.fNumber ?? 0))
      return { setup, plan, answer };
  }
  return null;
}

/** @returns null where no stop holds everybody, or nothing lies behind them */
function answerOf(plan: Plan): Answer | null {
  const entry = plan.stops.find(({ facesHold }) => facesHold);
  const [background] = entry?.backgrounds ?? [];
  return entry && background ? { fNumber: entry.stop.fNumber, blurShare: background.shareOfFrameHeight } : null;
}

/** Numbers of people, places and distances as groups have them (made up). */
function drawn(random: Random, body: Body, lens: Lens): Setup {
  const base = newSetup('guess', 'Guess', { things: [] });
  const count = 1 + Math.floor(random() * 7);
  const few = count < 3;
  const people = arranged(random, count).map((person) => ({
    ...person,
    // One or two, as portraits are: a little turned, and both eyes wanted.
    ...(few ? { sharp: 'bothEyes' as const, headYawDeg: uniformBetween(random, -45, 45, 5) } : {})
  }));
  const furthest = Math.max(...people.map((person) => person.depthMm));
  const { shortestMm, longestMm } = lens;
  const framings = few
    ? (['headAndShoulders', 'halfLength'] as const)
    : (['halfLength', 'threeQuarter', 'fullLength'] as const);
  const framing = oneOf<(typeof framings)[number]>(random, framings);
  const camera: Camera = {
    ...base.camera,
    bodyId: body.id,
    lensId: lens.id,
    heightMm: 1550,
    focalLengthMm: uniformBetween(random, shortestMm, longestMm, 1),
    placement: { kind: 'group', framing, marginShare: 0.1 }
  };
  return {
    ...base,
    people,
    camera: { ...camera, ...aimAtGroup(people, camera, framing, cameraDistance({ camera, people }, body)) },
    backgrounds: [
      newBackground('guess-behind', 'the hedge', {
        depthMm: furthest + uniformBetween(random, 1200, 9000, 100),
        wish: 'free'
      })
    ],
    intent: { ...base.intent, picture: count === 1 ? 'onePerson' : count === 2 ? 'couple' : 'group' }
  };
}

function arranged(random: Random, count: number): Person[] {
  const people = Array.from({ length: count }, (_, index) =>
    newPerson(`guess-${index}`, `Person ${index + 1}`, { sharp: 'nearEye' })
  );
  const ways: readonly Arrangement[] = [
    {
      kind: 'rows',
      count,
      rows: count > 3 ? 2 : 1,
      spacingMm: 560,
      riserMm: 150,
      staggered: true,
      rowDepthMm: uniformBetween(random, 400, 1000, 50)
    },
    { kind: 'arc', count, spacingMm: 600, radiusMm: uniformBetween(random, 1200, 4000, 100) },
    { kind: 'vee', count, spacingMm: 550, angleDeg: uniformBetween(random, 15, 45, 5) },
    {
      kind: 'seatedFront',
      count,
      seated: Math.ceil(count / 2),
      spacingMm: 600,
      rowDepthMm: uniformBetween(random, 500, 900, 50)
    }
  ];
  return arrange(people, oneOf(random, ways));
}

/** In stops: doubling a disc is as far as closing by two. */
const inStops = {
  stop: (N: number): number => stopsBetween(1, N),
  blur: (share: number): number => -2 * Math.log2(Math.max(share, 1e-5))
} as const;
/** Stops are said in thirds: a guess so near is right. */
const near = 0.02;

/** One range against the truth. */
export interface Scored {
  /** The truth lies in it. */
  readonly held: boolean;
  /** How wide it is, stops. */
  readonly width: number;
  /** Its middle less the truth, stops: positive where one closes further than needed, or takes the blur for smaller than it is. */
  readonly off: number;
  /** Width, and twenty times whatever the truth lies outside: the interval score at nine in ten (Gneiting and Raftery, JASA 102, 2007, eq. 43). */
  readonly score: number;
}

/** @param scale what turns a value into stops */
export function scored({ from, to }: Range, truth: number, scale: (value: number) => number): Scored {
  const [a, b, at] = [scale(from), scale(to), scale(truth)];
  const [low, high] = [Math.min(a, b), Math.max(a, b)];
  const outside = Math.max(0, low - at - near, at - high - near);
  return {
    held: outside === 0,
    width: high - low,
    off: (low + high) / 2 - at,
    score: high - low + (2 / (1 - confidence)) * outside
  };
}

export const scoresOf = ({ stop, blur, answer }: Guessed): { readonly stop: Scored; readonly blur: Scored } => ({
  stop: scored(stop, answer.fNumber, inStops.stop),
  blur: scored(blur, answer.blurShare, inStops.blur)
});

export interface Calibration {
  /** Of the ranges said, those that held. */
  readonly held: Share;
  /** Mean interval score, stops: less is better. */
  readonly score: number;
  /** Median width and error of each question, stops. */
  readonly stop: { readonly width: number; readonly off: number };
  readonly blur: { readonly width: number; readonly off: number };
}

/** With fewer scenes nothing is said (chosen). */
export const guessScenes = { least: 5, all: 10 } as const;

/** @returns null with too few */
export function calibrationOf(all: readonly Guessed[]): Calibration | null {
  if (all.length < guessScenes.least) return null;
  const each = all.map(scoresOf);
  const flat = each.flatMap(({ stop, blur }) => [stop, blur]);
  const held = shareOf(flat.filter((one) => one.held).length, flat.length);
  const of = (question: 'stop' | 'blur') => ({
    width: median(each, (one) => one[question].width) ?? NaN,
    off: median(each, (one) => one[question].off) ?? NaN
  });
  return { held, score: mean(flat, (one) => one.score) ?? NaN, stop: of('stop'), blur: of('blur') };
}
