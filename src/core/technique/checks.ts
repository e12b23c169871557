/** What to check before and after the first frame: only what applies to this picture, each with its reason. */
import { lightLevel } from '../call/light';
import type { Plan, StopPlan } from '../call/plan';
import type { PlanInput } from '../call/planInput';
import { prepare } from '../call/planSetup';
import type { Situation } from '../call/situation';
import { isByHand } from '../call/scatter';
import { edgeFindings, type EdgeFinding } from '../setup/edges';
import { growingFindings, type GrowingFinding } from '../setup/growing';
import { projector } from '../setup/projection';
import { croppedTo } from '../setup/shapes';
import { eyesMidpoint } from '../setup/scene';
import type { Stop } from '../optics/stops';
import { exposureModeOf, misleads, readingAtTarget, type MeterReading } from './metering';
import { troubles, type Trouble } from './trouble';

export type Check =
  | { readonly kind: 'area'; readonly area: Situation['setup']['camera']['focusArea'] }
  | { readonly kind: 'byHand' }
  | { readonly kind: 'hold' }
  | { readonly kind: 'drive'; readonly drive: Situation['setup']['camera']['drive']; readonly frames: number | null }
  | { readonly kind: 'metering'; readonly reading: MeterReading }
  | { readonly kind: 'highlights' }
  | { readonly kind: 'stabiliserOff' }
  | { readonly kind: 'level' }
  | { readonly kind: 'dust' }
  | { readonly kind: 'weakEnd'; readonly end: 'short' | 'long' }
  | { readonly kind: 'edge'; readonly finding: EdgeFinding }
  | { readonly kind: 'growing'; readonly finding: GrowingFinding }
  | { readonly kind: 'crop'; readonly shape: string; readonly lost: readonly string[] }
  | { readonly kind: 'trouble'; readonly trouble: Trouble }
  | { readonly kind: 'lookAtFirst' }
  | { readonly kind: 'retake'; readonly stop: Stop }
  | { readonly kind: 'ladder' }
  | { readonly kind: 'sun' }
  | { readonly kind: 'infantFlash' }
  | { readonly kind: 'cables' };

/** Dust on the sensor and the lens shows from here on (common practice, no source). */
const dustFrom = 15;

/** Nearer to an end of a zoom than this share of its range is that end (from memory). */
const endShare = 0.06;

/** A viewpoint nobody reaches from the floor, mm (from memory). */
const ladderFromMm = 2100;

/** Longer lenses gather the sun into an eye (common practice: never at the sun through an optical finder). */
const longFromMm = 100;

/** With so many seconds between focusing and the shutter a hand drifts (common practice, no source). */
const heldForS = 1;

/** From this light on the sun is in it, EV at ISO 100 (sunny 16 is 15). */
const sunnyFromEv = 13;

/** Odds under these are worth a frame at the next stop, whatever was wanted (common practice, no source). */
const sureFrom = 0.95;

function weakEndOf({ lens, f }: Situation): 'short' | 'long' | null {
  const { shortestMm, longestMm, weakEnds } = lens;
  const range = longestMm - shortestMm;
  if (range <= 0 || weakEnds === 'none') return null;
  const at = (f - shortestMm) / range;
  if (at <= endShare && weakEnds !== 'long') return 'short';
  return at >= 1 - endShare && weakEnds !== 'short' ? 'long' : null;
}

/** Who stands outside what an ordered shape leaves. */
function lostTo(situation: Situation, shape: Parameters<typeof croppedTo>[0]): string[] {
  const { setup, picture, aim } = situation;
  const left = croppedTo(shape, picture);
  return setup.people
    .filter(({ importance }) => importance !== 'maySoft')
    .filter((person) => {
      const at = aim.at(eyesMidpoint(person));
      return at && (Math.abs(at.x - 0.5) > left.width / 2 || Math.abs(at.y - 0.5) > left.height / 2);
    })
    .map(({ name }) => name);
}

const upright: ReadonlySet<string> = new Set(['columns', 'panes', 'arch', 'brick', 'horizon', 'lettering']);

/** The checks of a planned setup, in the order they are made. Empty where nothing can be planned. */
export function checksOf(input: PlanInput, plan: Plan): readonly Check[] {
  const prepared = prepare(input);
  const entry = plan.stops[plan.selected];
  if (prepared.kind === 'noPlan' || !entry) return [];
  return [...before(prepared, entry), ...cautions(prepared), ...after(plan, entry)];
}

function before(situation: Situation, entry: StopPlan): Check[] {
  const { setup, body, view, P, stabiliser } = situation;
  const { camera, light } = setup;
  const checks: Check[] = [];
  if (isByHand(camera.focusMethod)) checks.push({ kind: 'byHand' });
  else checks.push({ kind: 'area', area: camera.focusArea });
  for (const trouble of troubles(situation, entry)) checks.push({ kind: 'trouble', trouble });
  if (camera.secondsToShutter > heldForS) checks.push({ kind: 'hold' });
  checks.push({ kind: 'drive', drive: camera.drive, frames: entry.frames.for95 });
  const reading = readingAtTarget(situation, entry);
  if (exposureModeOf(setup) !== 'manual' && misleads(reading)) checks.push({ kind: 'metering', reading });
  if (setup.people.some(({ look }) => look.outfitColour === 'ivory') || light.flash)
    checks.push({ kind: 'highlights' });
  if (camera.stance === 'tripod' && stabiliser > 0) checks.push({ kind: 'stabiliserOff' });
  if (setup.backgrounds.some(({ surface }) => upright.has(surface))) checks.push({ kind: 'level' });
  if (entry.stop.fNumber >= dustFrom) checks.push({ kind: 'dust' });
  const end = weakEndOf(situation);
  if (end) checks.push({ kind: 'weakEnd', end });
  const project = projector(view, camera, body, entry.drawnFocusMm, P);
  for (const finding of edgeFindings(setup, project)) checks.push({ kind: 'edge', finding });
  const lost = (id: string) =>
    entry.backgrounds[setup.backgrounds.findIndex((item) => item.id === id)]?.lostDetailMm ?? 0;
  for (const finding of growingFindings(setup, view, lost)) checks.push({ kind: 'growing', finding });
  for (const shape of setup.intent.shapes) checks.push({ kind: 'crop', shape, lost: lostTo(situation, shape) });
  return checks;
}

function cautions({ setup, body, f }: Situation): Check[] {
  const { camera, light, people } = setup;
  const checks: Check[] = [];
  if (camera.heightMm > ladderFromMm) checks.push({ kind: 'ladder' });
  const sunny = (lightLevel(setup) ?? 0) >= sunnyFromEv && light.from === 'behind';
  if (sunny && (f >= longFromMm || body.kind === 'slr')) checks.push({ kind: 'sun' });
  if (light.flash && people.some(({ being }) => being === 'baby')) checks.push({ kind: 'infantFlash' });
  if ((light.flash || camera.stance === 'tripod') && people.length > 2) checks.push({ kind: 'cables' });
  return checks;
}

function after(plan: Plan, entry: StopPlan): Check[] {
  const next = plan.stops[plan.selected + 1]?.stop;
  // Where the odds leave something to be wished for, a frame at the next stop costs nothing.
  const unsure = entry.odds < Math.max(plan.oddsWanted, sureFrom);
  return [{ kind: 'lookAtFirst' }, ...(unsure && next ? [{ kind: 'retake', stop: next } as const] : [])];
}
