/** What fields may hold, as the schemas have it: lengths in mm. */
import { boundsOf, limits } from '../schema/values';
import {
  backgroundSchema,
  cameraSchema,
  lightSchema,
  personStance,
  personTraits,
  roomSchema,
  thingSchema
} from './schema';

export interface Bounds {
  readonly min: number;
  readonly max: number;
}

const flash = lightSchema.shape.flash.unwrap().shape;

/** Nearest that anything is measured from the lens, mm. */
const nearestMm = 50;

export const bounds = {
  fromLensMm: { min: nearestMm, max: limits.maxDistanceMm },
  lateralMm: boundsOf(personStance.lateralMm),
  statureMm: boundsOf(personTraits.statureMm),
  muzzleMm: boundsOf(personTraits.muzzleMm),
  swayMm: boundsOf(personTraits.swayMm.unwrap()),
  stepMm: boundsOf(personStance.floorMm),
  cameraHeightMm: boundsOf(cameraSchema.shape.heightMm),
  thingHeightMm: boundsOf(thingSchema.shape.heightMm),
  thingSizeMm: boundsOf(thingSchema.shape.widthMm),
  backgroundDepthMm: boundsOf(backgroundSchema.shape.depthMm),
  detailMm: boundsOf(backgroundSchema.shape.detailMm),
  flashMm: boundsOf(flash.distanceMm),
  room: {
    backUpMm: boundsOf(roomSchema.shape.backUpMm.unwrap()),
    behindMm: boundsOf(roomSchema.shape.behindMm.unwrap()),
    sideMm: boundsOf(roomSchema.shape.sideMm.unwrap())
  },
  viewedEdgeMm: { min: 20, max: 20_000 },
  viewedFromMm: { min: 50, max: 100_000 },
  paceMm: { min: 300, max: 1500 }
} as const satisfies Readonly<Record<string, Bounds | Readonly<Record<string, Bounds>>>>;
