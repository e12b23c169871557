/** Where autofocus has too little to go by, and what to do. */
import { contrastIn } from '../call/contrast';
import { lightBehindFilter } from '../call/light';
import { faceFound } from '../call/focusLanding';
import type { StopPlan } from '../call/plan';
import type { Situation } from '../call/situation';
import { isByHand } from '../call/scatter';
import { pointBox } from '../setup/focusArea';
import { surfacesIn, type SeenSurface } from '../setup/lineOfSight';

/** Less contrast than this under the point and autofocus hunts (from memory). */
const leastContrast = 0.15;

/** Something in front under the point: so much nearer than the target, mm, and so much of it (from memory). */
const inFrontMm = 100;
const inFrontShare = 0.04;

/** A face found less surely than this is not to be relied on (from memory). */
const findsSurely = 0.6;

/** Autofocus grows unsure within so many stops of what the body is rated for (from memory). */
const nearLimitStops = 2;

export type Trouble =
  | { readonly kind: 'lowContrast' }
  | { readonly kind: 'dark' }
  | { readonly kind: 'backlight' }
  | { readonly kind: 'inFront'; readonly what: SeenSurface; readonly beforeMm: number }
  | { readonly kind: 'noFace' };

/** What stands in autofocus's way; none by hand, and none where nothing is focused on. */
export function troubles(situation: Situation, entry: StopPlan): readonly Trouble[] {
  const { setup, body, lineOfSight, aim, personOf } = situation;
  const { position, focusDistanceMm, subjectId } = entry.target;
  const at = position && aim.at(position);
  if (!at || isByHand(setup.camera.focusMethod)) return [];
  const ev100 = lightBehindFilter(setup);
  const under = surfacesIn(lineOfSight(), pointBox({ body, camera: setup.camera }, at), 9, 9);
  const contrast = contrastIn(setup, ev100);
  const there = under.reduce((sum, surface) => sum + surface.share * contrast(surface), 0);
  const found: Trouble[] = [];
  const before = under
    .filter(({ nearest, share }) => share >= inFrontShare && focusDistanceMm - nearest > inFrontMm)
    .sort((a, b) => b.share - a.share)[0];
  if (before) found.push({ kind: 'inFront', what: before, beforeMm: focusDistanceMm - before.nearest });
  if (there < leastContrast) found.push({ kind: 'lowContrast' });
  if (ev100 !== null && ev100 < body.focusLimitEv + nearLimitStops) found.push({ kind: 'dark' });
  if (setup.light.from === 'behind') found.push({ kind: 'backlight' });
  const person = subjectId === null ? undefined : personOf.get(subjectId);
  if (setup.camera.focusArea === 'eyeDetection' && person && faceFound(situation, person, ev100) < findsSurely) {
    found.push({ kind: 'noFace' });
  }
  return found;
}
