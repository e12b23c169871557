/**
 * What the exposure meter makes of this scene: it takes what it looks at for middle grey. Reflectances are from memory; the
 * light is taken to fall alike on everything but what shines by itself.
 */
import type { NoPlan, Plan, StopPlan } from '../call/plan';
import type { PlanInput } from '../call/planInput';
import { prepare } from '../call/planSetup';
import type { Situation } from '../call/situation';
import type { Body } from '../kit/schema';
import type { Appearance } from '../people/appearance';
import { backgroundKind } from '../setup/backgroundKinds';
import { pointBox } from '../setup/focusArea';
import type { ExposureMode, Metering, Setup, Thing } from '../setup/schema';
import { ownersIn, surfacesIn, type FrameArea, type LineOfSight, type SeenSurface } from '../setup/lineOfSight';

/** Meters are set to this reflectance (ISO 2720: about 12 to 18%; the customary grey card). */
const middleGrey = 0.18;

/** Skin from the lightest to the darkest (from memory). */
const skin = [0.42, 0.36, 0.28, 0.19, 0.11, 0.07] as const;
const outfit: Readonly<Record<Appearance['outfitColour'], number>> = {
  ivory: 0.75,
  black: 0.04,
  grey: 0.2,
  navy: 0.05,
  blue: 0.12,
  green: 0.1,
  red: 0.12,
  sand: 0.4
};
const hair: Readonly<Record<Appearance['hairColour'], number>> = {
  black: 0.04,
  brown: 0.07,
  red: 0.12,
  fair: 0.25,
  grey: 0.3,
  white: 0.5
};
const thing: Readonly<Record<Thing['form'], number>> = { box: 0.3, rings: 0.6, bouquet: 0.4, tuba: 0.45 };

/** What shines does so more against the light, stops (from memory). */
const againstLight = 2;

/** The middle a meter set to it looks at, and its spot, as shares of the picture's width and height (common practice). */
const middleShare = 0.4;
const spotShare = 0.15;

/** A meter of the whole frame weighs its parts against each other: it is misled by about half (from memory). */
const wholeMisled = 0.5;

/** A veil and a brim, of whatever colour (from memory). */
const veil = 0.6;
const brim = 0.3;

function luminanceOf(setup: Setup): (surface: SeenSurface) => number {
  const ownerOf = ownersIn(setup);
  const fromBehind = setup.light.from === 'behind';
  return (surface) => {
    const owner = ownerOf(surface);
    if (owner.kind === 'thing') return thing[owner.thing.form];
    if (owner.kind === 'background') {
      if (!owner.background) return middleGrey;
      const { reflectance, shinesStops: over } = backgroundKind(owner.background.surface);
      return reflectance * 2 ** (over === undefined ? 0 : over + (fromBehind ? againstLight : 0));
    }
    const { look } = owner.person;
    const own = skin[look.skin - 1] ?? middleGrey;
    switch (surface.part) {
      case 'body':
        return outfit[look.outfitColour];
      case 'hair':
        return look.hair === 'bald' ? own : hair[look.hairColour];
      case 'veil':
        return veil;
      case 'brim':
        return brim;
      default:
        return own;
    }
  };
}

export interface MeterReading {
  /** What it looks at, the largest first. */
  readonly on: readonly SeenSurface[];
  /** Stops by which it shows the picture too dark (positive: it looks at something bright) or too light (negative). */
  readonly offStops: number;
  /** Exposure correction to dial in, in thirds of a stop. */
  readonly correction: number;
}

/** A reading off by less needs no compensation, stops (from memory). */
const readingOff = 0.5;

interface Metered {
  readonly setup: Setup;
  readonly body: Body;
  readonly lineOfSight: LineOfSight;
  /** Where the focus point lies. */
  readonly at: { readonly x: number; readonly y: number };
}

function boxOf({ setup, body, at }: Metered, metering: Metering): FrameArea {
  const about = (share: number): FrameArea => ({
    left: 0.5 - share / 2,
    right: 0.5 + share / 2,
    top: 0.5 - share / 2,
    bottom: 0.5 + share / 2
  });
  switch (metering) {
    case 'whole':
      return { left: 0, right: 1, top: 0, bottom: 1 };
    case 'centre':
      return about(middleShare);
    case 'spot':
      return about(spotShare);
    case 'point':
      return pointBox({ body, camera: setup.camera }, at, 'large');
  }
}

/** What the meter reads, set so or otherwise. */
export function meterReading(metered: Metered, metering: Metering = metered.setup.camera.metering): MeterReading {
  const of = luminanceOf(metered.setup);
  const on = surfacesIn(metered.lineOfSight, boxOf(metered, metering), 17, 13);
  const all = on.reduce((sum, { share }) => sum + share, 0);
  const mean = on.reduce((sum, surface) => sum + surface.share * of(surface), 0) / Math.max(all, 1e-9);
  const offStops = Math.log2(mean / middleGrey) * (metering === 'whole' ? wholeMisled : 1);
  return { on, offStops, correction: Math.round(offStops * 3) / 3 + 0 };
}

/** What the meter reads with the focus point on the target. */
export function readingAtTarget({ setup, body, aim, lineOfSight }: Situation, { target }: StopPlan): MeterReading {
  const at = target.position && aim.at(target.position);
  return meterReading({ setup, body, lineOfSight: lineOfSight(), at: at ?? { x: 0.5, y: 0.5 } });
}

/**
 * How the exposure is set: as the photographer works, but by hand where a flash lights the picture, which no meter reads, and
 * with the time by hand where it was chosen.
 */
export function exposureModeOf({ camera, light }: Setup): ExposureMode {
  if (light.flash && light.flash.use !== 'fill') return 'manual';
  if (camera.exposureMode === 'aperturePriority' && light.shutterS !== null) return 'manualAutoIso';
  return camera.exposureMode;
}

/** Whether a reading is worth dialling anything in for. */
export const misleads = ({ offStops }: MeterReading): boolean => Math.abs(offStops) >= readingOff;

/** Exposure compensation to dial in for a setup as planned, in thirds of a stop; 0 where the meter is near enough or not asked. */
export function compensationOf(input: PlanInput, plan: Plan | NoPlan): number {
  const entry = plan.kind === 'plan' ? plan.stops[plan.selected] : undefined;
  const situation = entry && prepare(input);
  if (!entry || !situation || situation.kind === 'noPlan' || exposureModeOf(input.setup) === 'manual') return 0;
  const reading = readingAtTarget(situation, entry);
  return misleads(reading) ? reading.correction : 0;
}
