/** Which mode? Short scenes drawn by chance; one picks how to focus, the simulated camera shoots, and the share of moments kept is the answer. */
import { greatest, least, rollup } from 'd3-array';
import { shoot, type FrameTruth } from '../../simulation/shoot';
import { planSetup } from '../../call/planSetup';
import type { PlanInput } from '../../call/planInput';
import type { Body, Lens } from '../../kit/schema';
import { arrange } from '../../setup/arrangements';
import { newBackground, newPerson, newSetup } from '../../setup/defaults';
import { areasOf } from '../../setup/focusArea';
import type { Background, Camera, Light, Setup } from '../../setup/schema';
import { seededRandom, uniformBetween, type Random } from '../../maths/random';

export const modeScenes = ['vow', 'child', 'nave', 'leaves', 'players', 'cloth'] as const;
export type ModeScene = (typeof modeScenes)[number];

/** What one picks. */
export interface ModeChoice {
  readonly mode: Camera['focusMode'];
  readonly area: Camera['focusArea'];
  /** Where the point is: moved onto the eye, or left in the middle and the camera turned after focusing. */
  readonly point: 'onEye' | 'middle';
  readonly drive: Camera['drive'];
}

export const modeOptions = {
  mode: ['single', 'continuous', 'automatic'],
  point: ['onEye', 'middle'],
  drive: ['one', 'burst']
} as const satisfies { readonly [K in Exclude<keyof ModeChoice, 'area'>]: readonly ModeChoice[K][] };

const between = (random: Random, from: number, to: number): number => uniformBetween(random, from, to, 1);

/** What stands behind, by name and by how it is drawn. */
const behind: Readonly<Record<ModeScene, readonly [string, Background['surface']]>> = {
  vow: ['the altar', 'arch'],
  child: ['the hedge', 'foliage'],
  nave: ['the porch', 'columns'],
  leaves: ['the hedge', 'foliage'],
  players: ['the wall', 'brick'],
  cloth: ['the candles', 'candles']
};

/** About what most take people with, mm; as near to it as the lens comes (from memory). */
const usualFocalMm = 85;

/** A scene by chance (its distances, turns and paces made up), taken with this kit, as nobody has yet chosen how. */
export function modeSetup(scene: ModeScene, random: Random, body: Body, lens: Lens): Setup {
  const base = newSetup(`mode-${scene}`, scene, { things: [] });
  const focalLengthMm = Math.round(Math.min(lens.longestMm, Math.max(lens.shortestMm, usualFocalMm)));
  const yaw = between(random, -25, 25);
  const from: Setup = {
    ...base,
    camera: {
      ...base.camera,
      bodyId: body.id,
      lensId: lens.id,
      focalLengthMm,
      orientation: 'portrait',
      placement: { kind: 'framing', framing: 'halfLength' }
    },
    backgrounds: [
      newBackground('mode-behind', behind[scene][0], {
        depthMm: between(random, 2500, 7000),
        wish: 'free',
        surface: behind[scene][1]
      })
    ],
    // Wide open, whatever one picks: else the call closes down for whoever picks badly.
    intent: { ...base.intent, stop: { kind: 'chosen', fNumber: lens.widestFNumber } }
  };
  return inScene(scene, from, yaw, random);
}

/** Who is in a scene, what light it has, and how it is framed. */
// eslint-disable-next-line max-lines-per-function -- a table: one case a scene
function inScene(scene: ModeScene, from: Setup, yaw: number, random: Random): Setup {
  const light = (as: Extract<Light['level'], { kind: 'estimated' }>['as']): Light => ({
    ...from.light,
    level: { kind: 'estimated', as }
  });
  const somebody = (changes: Parameters<typeof newPerson>[2] = {}) =>
    newPerson('mode-1', 'Person 1', { headYawDeg: yaw, sharp: 'nearEye', ...changes });
  switch (scene) {
    case 'vow':
      return {
        ...from,
        light: light('church'),
        people: [
          somebody({ lateralMm: -between(random, 150, 240), headYawDeg: between(random, 40, 65) }),
          newPerson('mode-2', 'Person 2', {
            lateralMm: between(random, 150, 240),
            headYawDeg: -between(random, 40, 65),
            importance: 'maySoft',
            sharp: 'nearEye'
          })
        ]
      };
    case 'child':
      return {
        ...from,
        light: light('openShade'),
        people: [
          somebody({
            being: 'child',
            statureMm: between(random, 950, 1250),
            mood: 'lively',
            towardsMmPerS: between(random, 1500, 3500)
          })
        ],
        camera: { ...from.camera, heightMm: 900, placement: { kind: 'framing', framing: 'fullLength' } }
      };
    case 'nave':
      return {
        ...from,
        light: light('church'),
        people: [somebody({ lateralMm: -220, towardsMmPerS: between(random, 700, 1300) })].concat(
          newPerson('mode-2', 'Person 2', {
            lateralMm: 220,
            towardsMmPerS: 900,
            importance: 'maySoft',
            sharp: 'nearEye'
          })
        ),
        camera: { ...from.camera, placement: { kind: 'framing', framing: 'threeQuarter' } }
      };
    case 'leaves':
      return {
        ...from,
        light: light('overcast'),
        people: [somebody({ lateralMm: between(random, -80, 80) })],
        backgrounds: [
          ...from.backgrounds,
          newBackground('mode-leaves', 'the leaves', {
            depthMm: -between(random, 500, 1100),
            lateralMm: between(random, -350, -150),
            detailMm: 40,
            wish: 'free',
            surface: 'foliage'
          })
        ]
      };
    case 'players': {
      const wanted = between(random, 1, 4);
      const row = arrange(
        Array.from({ length: 6 }, (_, index) =>
          newPerson(`mode-${index + 1}`, `Player ${index + 1}`, {
            posture: 'seated',
            mood: 'restless',
            sharp: 'nearEye',
            importance: index === wanted ? 'must' : 'maySoft'
          })
        ),
        { kind: 'vee', count: 6, spacingMm: 620, angleDeg: between(random, 25, 40) }
      );
      return {
        ...from,
        light: light('livingRoom'),
        people: row,
        camera: {
          ...from.camera,
          orientation: 'landscape',
          heightMm: 1200,
          placement: { kind: 'group', framing: 'halfLength', marginShare: 0.08 }
        }
      };
    }
    case 'cloth': {
      const person = somebody({ mood: 'restless' });
      return {
        ...from,
        light: light('candles'),
        people: [
          {
            ...person,
            look: { ...person.look, outfit: 'suit', outfitColour: 'black', hair: 'short', hairColour: 'black' }
          }
        ]
      };
    }
  }
}

/** The scene taken as chosen. */
export const withChoice = (setup: Setup, { mode, area, point, drive }: ModeChoice): Setup => ({
  ...setup,
  camera: {
    ...setup.camera,
    focusMode: mode,
    focusArea: area,
    recompose: point === 'middle' ? 'shoulders' : 'none',
    drive,
    // Whoever turns the camera needs the time for it; whoever follows does not wait (from memory).
    secondsToShutter: point === 'middle' ? 0.8 : mode === 'single' ? 0.5 : 0.2
  }
});

/** Frames of one press in a burst, and how often one presses in a scene (chosen). */
const presses = { burst: 5, count: 40 } as const;

/** Why a moment was lost. */
export type LostWhy = 'elsewhere' | 'moved' | 'missed' | 'blinked';

export interface ModeShot {
  /** Moments of which at least one frame has everybody who must be sharp, eyes open. */
  readonly kept: number;
  readonly moments: number;
  /** Frames to look through for them. */
  readonly frames: number;
  /** Of the lost ones, by what lost them. */
  readonly lost: Readonly<Record<LostWhy, number>>;
  /** What focus went to instead in most of those lost to it, by id; null where it went nowhere else. */
  readonly mostlyOn: string | null;
}

/** The simulated camera takes the scene again and again. @returns null where nothing can be planned */
export function shootScene(input: PlanInput, random: Random): ModeShot | null {
  const { camera } = input.setup;
  const frames = camera.drive === 'burst' ? presses.burst : 1;
  const plan = planSetup(input);
  if (plan.kind !== 'plan') return null;
  const landings = plan.stops[plan.selected]?.landings ?? [];
  const lost: Record<LostWhy, number> = { elsewhere: 0, moved: 0, missed: 0, blinked: 0 };
  const on: string[] = [];
  let kept = 0;
  for (let moment = 0; moment < presses.count; moment++) {
    // A burst in single focusing keeps its first focus, and with it its first error.
    const shots = shoot(input, random, { frames, refocused: camera.focusMode !== 'single' });
    const [first] = shots ?? [];
    if (!shots || !first) return null;
    if (shots.some(({ sharp, eyesOpen }) => sharp && eyesOpen)) {
      kept++;
      continue;
    }
    const why = whyLost(shots);
    lost[why]++;
    const landed = least(landings, ({ depth }) => Math.abs(depth - first.landedMm));
    if (why === 'elsewhere' && landed) on.push(landed.id);
  }
  return {
    kept,
    moments: presses.count,
    frames: frames * presses.count,
    lost,
    mostlyOn:
      greatest(
        rollup(
          on,
          ({ length }) => length,
          (id) => id
        ),
        ([, times]) => times
      )?.[0] ?? null
  };
}

/** Of a moment that was lost: what its best frame lacked. */
function whyLost(shots: readonly FrameTruth[]): LostWhy {
  if (shots.some(({ sharp }) => sharp)) return 'blinked';
  const first = shots.find(({ onTarget }) => onTarget);
  if (!first) return 'elsewhere';
  const deciding = first.subjects.filter(({ decides }) => decides);
  const drift = Math.max(...deciding.map(({ shiftMm }) => Math.abs(shiftMm - first.holdMm - first.leanMm)));
  const error = Math.abs(first.planeMm - first.landedMm);
  return drift > error ? 'moved' : 'missed';
}

/** A scene, how one picks to take it, and a number that throws the dice. */
export interface ModeAsked {
  readonly input: PlanInput;
  readonly body: Body;
  readonly choice: ModeChoice;
  readonly seed: number;
}

export interface BestChoice {
  readonly choice: ModeChoice;
  readonly odds: number;
}

/** What comes of it, beside the best way there was. @returns null where nothing can be planned */
export function tryScene({ input, body, choice, seed }: ModeAsked): { shot: ModeShot; best: BestChoice } | null {
  const shot = shootScene({ ...input, setup: withChoice(input.setup, choice) }, seededRandom(seed));
  const [best] = bestChoices(input, body);
  return shot && best ? { shot, best } : null;
}

/** Every way there is to take it, the best first; by odds, since frames are thrown by chance. */
export function bestChoices(input: PlanInput, body: Body): BestChoice[] {
  const all = modeOptions.mode.flatMap((mode) =>
    areasOf(body).flatMap((area) =>
      modeOptions.point.map((point): ModeChoice => ({ mode, area, point, drive: 'burst' }))
    )
  );
  return all
    .flatMap((choice) => {
      const plan = planSetup({ ...input, setup: withChoice(input.setup, choice) });
      const entry = plan.kind === 'plan' ? plan.stops[plan.selected] : undefined;
      return entry ? [{ choice, odds: entry.odds }] : [];
    })
    .sort((a, b) => b.odds - a.odds);
}
