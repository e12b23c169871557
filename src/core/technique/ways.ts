/**
 * Ways of focusing, compared for one picture: what each would land on, and the odds of a sharp frame with it. Chances of
 * landing are a model of ours (call/landing.ts).
 */
import { candidateFor } from '../call/evaluateStop';
import { oddsAt } from '../call/oddsOverLandings';
import { landedOn } from '../call/focusLanding';
import { chooses } from '../call/aim';
import { somebodyMoves } from '../call/motion';
import { focusAt } from '../call/focus';
import type { Landing, Target } from '../call/plan';
import type { PlanInput } from '../call/planInput';
import { isByHand } from '../call/scatter';
import type { Body } from '../kit/schema';
import type { Stop } from '../optics/stops';
import { areaBox, areasOf } from '../setup/focusArea';
import type { Camera, FocusArea, Setup } from '../setup/schema';
import type { FrameArea } from '../setup/lineOfSight';
import { withCamera } from '../setup/moves';
import { evaluateAt, type TriedSetup } from './evaluateAt';

export type WayKind =
  | 'asSet'
  | 'onePoint'
  | 'pinpoint'
  | 'continuous'
  | 'automatic'
  | 'neighbours'
  | 'zone'
  | 'wholeFrame'
  | 'eyeDetection'
  | 'tracking'
  | 'turn'
  | 'tap'
  | 'magnifier'
  | 'byEye'
  | 'scale';

/** What is focused on in some of the frames. */
export interface WayPart extends Landing {
  /** Of all frames, those that land here and are sharp all the same. */
  readonly sharp: number;
  /** Those that land here and are not. */
  readonly missed: number;
}

export interface FocusMethodOption {
  readonly kind: WayKind;
  readonly setup: Setup;
  readonly inUse: boolean;
  /** Of one frame. */
  readonly odds: number;
  /** The same of one whose focus lands as meant. */
  readonly meant: number;
  readonly target: Target;
  readonly planeMm: number;
  /** How much nearer they have come at release, on average, mm. */
  readonly comesNearerMm: number;
  /** Where autofocus looks; null by hand. */
  readonly area: FrameArea | null;
  /** The likeliest first. */
  readonly parts: readonly WayPart[];
}

type Settings = Pick<Camera, 'focusMethod' | 'focusArea' | 'focusMode' | 'recompose' | 'pointSize'>;

/** The settings of each way; only those the body offers. */
function settingsOf(setup: Setup, body: Body): readonly { readonly kind: WayKind; readonly settings: Settings }[] {
  const { camera } = setup;
  const moves = somebodyMoves(setup);
  const point = isByHand(camera.focusMethod) ? 'crossPoint' : camera.focusMethod;
  const mode = moves ? 'continuous' : camera.focusMode === 'automatic' ? 'automatic' : 'single';
  const { sizes } = body.focusGrid;
  const usual =
    camera.pointSize !== 'pinpoint' ? camera.pointSize : (sizes.find((size) => size !== 'pinpoint') ?? 'small');
  const by = (change: Partial<Settings>): Settings => ({
    focusMethod: point,
    focusArea: 'point',
    focusMode: mode,
    recompose: 'none',
    pointSize: usual,
    ...change
  });
  const phone = body.kind === 'phone';
  const offers = (area: FocusArea) => areasOf(body).includes(area);
  const offered: { kind: WayKind; settings: Settings; has: boolean }[] = [
    { kind: 'onePoint', settings: by({ focusMode: mode === 'continuous' ? 'single' : mode }), has: !phone },
    {
      kind: 'pinpoint',
      settings: by({ focusMode: 'single', pointSize: 'pinpoint' }),
      has: sizes.includes('pinpoint') && !phone
    },
    { kind: 'continuous', settings: by({ focusMode: 'continuous' }), has: !phone },
    // Where nobody moves it is single.
    { kind: 'automatic', settings: by({ focusMode: 'automatic' }), has: !phone && moves },
    { kind: 'neighbours', settings: by({ focusArea: 'neighbours' }), has: offers('neighbours') },
    { kind: 'zone', settings: by({ focusArea: 'zone' }), has: offers('zone') },
    { kind: 'wholeFrame', settings: by({ focusArea: 'wholeFrame' }), has: offers('wholeFrame') },
    { kind: 'eyeDetection', settings: by({ focusArea: 'eyeDetection' }), has: offers('eyeDetection') },
    { kind: 'tracking', settings: by({ focusArea: 'tracking', focusMode: 'continuous' }), has: offers('tracking') },
    { kind: 'tap', settings: by({ focusArea: 'tap', focusMode: 'single' }), has: offers('tap') },
    { kind: 'turn', settings: by({ recompose: 'wrists', focusMode: 'single' }), has: !phone },
    { kind: 'magnifier', settings: by({ focusMethod: 'magnifier', focusMode: 'single' }), has: !phone },
    { kind: 'byEye', settings: by({ focusMethod: 'byEye', focusMode: 'single' }), has: !phone },
    { kind: 'scale', settings: by({ focusMethod: 'scale', focusMode: 'single' }), has: !phone }
  ];
  return offered.filter(({ has }) => has);
}

/** Whether a camera is set so; what does not count by hand or left to itself is not asked. */
function isSetSo(camera: Camera, settings: Settings): boolean {
  if (camera.focusMethod !== settings.focusMethod) return false;
  if (isByHand(camera.focusMethod)) return true;
  const sized = camera.focusArea === 'point' || camera.focusArea === 'neighbours';
  return (
    camera.focusArea === settings.focusArea &&
    camera.focusMode === settings.focusMode &&
    (chooses(camera) || camera.recompose === settings.recompose) &&
    (!sized || camera.pointSize === settings.pointSize)
  );
}

/** What a way lands on, and which of those frames are sharp. */
function partsOf({ situation, entry }: TriedSetup): Pick<FocusMethodOption, 'parts' | 'meant'> {
  const [group] = situation.groups;
  const candidate = group && candidateFor(group, entry.target);
  if (!group || !candidate) return { parts: [], meant: entry.odds };
  const focus = focusAt(situation, entry.stop.fNumber, candidate, entry.light);
  const meant = oddsAt(situation, group, { candidate, focus }, { depth: candidate.focusDistanceMm, chance: 1 });
  const parts = landedOn(situation, candidate).landings.map((landing) => {
    const odds = oddsAt(situation, group, { candidate, focus }, landing);
    return { ...landing, sharp: landing.chance * odds, missed: landing.chance * (1 - odds) };
  });
  return { parts, meant };
}

/** All ways the body offers, best first; the one in use comes first of its equals. Empty where nothing can be planned. */
export function waysToFocus(input: PlanInput, stop: Stop): readonly FocusMethodOption[] {
  const { setup } = input;
  const now = evaluateAt(input, setup, stop);
  if (!now) return [];
  const offered = settingsOf(setup, now.situation.body);
  const known = offered.some(({ settings }) => isSetSo(setup.camera, settings));
  const tries = offered.flatMap(({ kind, settings }) => {
    const inUse = isSetSo(setup.camera, settings);
    const tried = inUse ? now : evaluateAt(input, withCamera(setup, settings), stop);
    return tried ? [{ kind, tried, inUse }] : [];
  });
  const all = known ? tries : [{ kind: 'asSet' as const, tried: now, inUse: true }, ...tries];
  return all
    .filter(({ kind, tried }) => kind !== 'turn' || (tried.entry.target.recomposed?.turnMm ?? 0) > leastTurnMm)
    .map(({ kind, tried, inUse }): FocusMethodOption => {
      const { camera } = tried.setup;
      const { target } = tried.entry;
      const at = target.position && tried.situation.aim.at(target.position);
      const centred = camera.recompose === 'none' ? at : { x: 0.5, y: 0.5 };
      return {
        kind,
        setup: tried.setup,
        inUse,
        odds: tried.entry.odds,
        target,
        planeMm: tried.entry.planeMm,
        comesNearerMm: tried.entry.drawnFocusMm - tried.entry.planeMm,
        area:
          centred && !isByHand(camera.focusMethod)
            ? areaBox({ body: tried.situation.body, camera }, camera.focusArea, centred)
            : null,
        ...partsOf(tried)
      };
    })
    .sort((a, b) => standing(b) - standing(a) || Number(b.inUse) - Number(a.inUse) || effort[a.kind] - effort[b.kind]);
}

/** Turning after focusing is recommended where it keeps more than so many in a hundred more (common practice, no source). */
const turnGains = 3;

const standing = ({ kind, odds, inUse }: FocusMethodOption): number =>
  Math.round(odds * 100) - (kind === 'turn' && !inUse ? turnGains : 0);

/** A turn that shifts the plane by less is none, mm. */
const leastTurnMm = 0.05;

/** Of two with the same odds the less troublesome comes first (common practice, no source). */
const effort: Readonly<Record<WayKind, number>> = {
  asSet: 0,
  onePoint: 1,
  eyeDetection: 2,
  pinpoint: 3,
  neighbours: 4,
  continuous: 5,
  automatic: 5,
  tap: 5,
  tracking: 6,
  turn: 7,
  zone: 8,
  magnifier: 9,
  byEye: 10,
  scale: 11,
  wholeFrame: 12
};
