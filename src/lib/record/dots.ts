/** Where the planes of the record fell, brought to one distance and on one scale. */
import { max, median, min, quantile } from 'd3-array';
import { atDistanceMm, type KitGroup } from '$core/record/groups';
import type { Recorded } from '$core/record/schema';
import { comparedAtMm, focalLengthOf } from '$core/words/record';

/** The likelier of its sides, mm at the distance of comparison; positive behind. */
export function fellMm({ error }: Recorded, focalLengthMm: number): number {
  const [likeliest] = [...(error ?? [])].sort((a, b) => b.share - a.share);
  return atDistanceMm(likeliest?.q ?? 0, focalLengthMm, comparedAtMm);
}

/** The zone most frames of a group should have hit, mm before (negative) and behind. */
export function zoneMm(group: KitGroup): { readonly front: number; readonly behind: number } {
  const at = (um: number | undefined) => atDistanceMm(um ?? 0, focalLengthOf(group), comparedAtMm);
  return {
    front: at(median(group.frames, ({ frontUm }) => frontUm)),
    behind: at(median(group.frames, ({ behindUm }) => behindUm))
  };
}

/** Ends of the scale, mm: nearly all dots are within, with the zone one of them should have hit, and no fewer than this. */
export function dotsScale(groups: readonly KitGroup[]): number {
  const all = groups.flatMap((group) => group.used.map((frame) => Math.abs(fellMm(frame, focalLengthOf(group)))));
  const zone = 1.2 * (min(groups, zoneOf) ?? 0);
  return Math.max(leastReachMm, zone, 1.15 * (quantile(all, mostShare) ?? 0), max(groups, reachOf) ?? 0);
}
/** How far the zone of a group reaches on its deeper side, mm. */
const zoneOf = (group: KitGroup): number => {
  const { front, behind } = zoneMm(group);
  return Math.max(Math.abs(front), Math.abs(behind));
};
const leastReachMm = 20;
const mostShare = 0.97;

/** How far a group's mean and spread reach, mm. */
function reachOf(group: KitGroup): number {
  const { bias, sd } = group.learned;
  if (group.used.length === 0) return 0;
  return 1.1 * Math.abs(atDistanceMm(Math.abs(bias.value) + sd.value, focalLengthOf(group), comparedAtMm));
}
