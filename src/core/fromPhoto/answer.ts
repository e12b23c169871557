/** From the faces of a photo to a call: everything the screen shows at once. */
import { usefulFocalLengths } from '../call/lineUp';
import type { PlanInput } from '../call/planInput';
import { planSetup } from '../call/planSetup';
import { bodyOf } from '../kit/find';
import { mountings } from '../kit/fits';
import type { Body, Kit } from '../kit/schema';
import { seededRandom } from '../maths/random';
import type { PictureFacts } from '../photos/metadata';
import { lightSchema, type Camera, type Light, type Setup } from '../setup/schema';
import { setupOf } from './asSetup';
import { howSure, type StopHeld } from './howSure';
import { readGroup, type GroupRead, type Known } from './readGroup';
import type { FaceSeen, PhotoProjection } from './rulers';

export interface PhotoAsked extends Omit<PlanInput, 'setup'> {
  readonly faces: readonly FaceSeen[];
  readonly projection: PhotoProjection;
  readonly known: Known;
  /** What lens, light and background are taken from. */
  readonly base: Setup;
  /** An id for the person of each face. */
  readonly ids: Readonly<Record<string, string>>;
  /** From the furthest row to the background, mm; null leaves the background where it is. */
  readonly behindMm: number | null;
}

export interface PhotoAnswer {
  readonly group: GroupRead;
  readonly setup: Setup;
  /** How sure each stop is; empty where nothing can be planned. */
  readonly held: readonly StopHeld[];
}

/** @returns null where no face tells its distance */
export function answerPhoto({
  faces,
  projection,
  known,
  base,
  ids,
  behindMm,
  ...rest
}: PhotoAsked): PhotoAnswer | null {
  const group = readGroup(faces, projection, known);
  if (!group) return null;
  const idOf = (faceId: string) => ids[faceId] ?? faceId;
  const made = setupOf(group, base, idOf);
  const furthest = Math.max(...made.people.map(({ depthMm }) => depthMm));
  const backgrounds =
    behindMm === null ? made.backgrounds : made.backgrounds.map((item) => ({ ...item, depthMm: furthest + behindMm }));
  const setup = { ...made, backgrounds };
  const input = { ...rest, setup };
  const plan = planSetup(input);
  // The same photo always says the same.
  const held = plan.kind === 'plan' ? howSure(input, plan, group, idOf, seededRandom(1)) : [];
  return { group, setup, held };
}

/** The lens and focal length of the kit that show what the photo shows, as near as there is one. */
export function lensLike(
  kit: Kit,
  body: Body,
  { focalPx, widthPx, heightPx }: PhotoProjection
): Pick<Camera, 'lensId' | 'adapterIds' | 'focalLengthMm'> | undefined {
  const wanted = (focalPx / Math.hypot(widthPx, heightPx)) * Math.hypot(body.sensor.widthMm, body.sensor.heightMm);
  const off = (mm: number) => Math.abs(Math.log(mm / wanted));
  const [best] = mountings(kit, body)
    .flatMap(({ lens, adapterIds, seen }) => {
      // A zoom is set to it.
      const zoomed = Math.round(Math.max(seen.shortestMm, Math.min(seen.longestMm, wanted)));
      return [...usefulFocalLengths(seen), ...(seen.shortestMm < seen.longestMm ? [zoomed] : [])].map(
        (focalLengthMm) => ({
          lensId: lens.id,
          adapterIds,
          focalLengthMm
        })
      );
    })
    .sort((a, b) => off(a.focalLengthMm) - off(b.focalLengthMm));
  return best;
}

/** The light a photo was exposed for; as it was where the file does not say, or says what no camera does. */
export function lightLike(light: Light, { fNumber, shutterS, iso }: PictureFacts): Light {
  const metered = lightSchema.safeParse({ ...light, level: { kind: 'metered', fNumber, shutterS, iso } });
  return metered.success ? metered.data : light;
}

/** What a new setup is begun with: `base` with lens, light and orientation of the photo. */
export function likePhoto(base: Setup, kit: Kit, projection: PhotoProjection, facts: PictureFacts): Setup {
  const body = bodyOf(kit, base.camera);
  const lens = body && lensLike(kit, body, projection);
  const orientation = projection.heightPx > projection.widthPx ? 'portrait' : 'landscape';
  return { ...inLightOf(base, facts), camera: { ...base.camera, ...lens, orientation } };
}

/** A planned setup as a photo finds it, with the camera it is planned for: only the light is the photo's. */
export const inLightOf = (base: Setup, facts: PictureFacts): Setup => ({
  ...base,
  light: lightLike(base.light, facts)
});
