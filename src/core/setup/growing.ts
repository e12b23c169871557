/** Heads that something upright behind them seems to grow out of, and the step to the side that clears them. */
import { adultHead, headScale, interpupillaryOf } from '../people/anatomy';
import { eyesMidpoint, headPoint, toCamera, type Viewpoint } from './scene';
import type { Person, Setup } from './schema';

/** Columns stand so far apart, and are at least so thick, mm; drawn so, too (`render/scene`). From memory. */
export const columnsEveryMm = 1500;
const columnMm = 110;

/** What stands no further behind a head is beside it, mm (from memory). */
const behindMm = 300;

/** Blurred over so many times its own width nothing upright is left to be seen (from memory). */
const goneFrom = 2;

/** Clear of a head by so much, as a share of its width (common practice, no source). */
const clearShare = 0.25;

/** A camera is moved no further for it, mm; from there on it is another picture (from memory). */
const furthestStepMm = 1500;

export interface GrowingFinding {
  readonly personId: string;
  readonly name: string;
  /** What grows out of the head: the name of a background or a thing. */
  readonly what: string;
  /** The step that clears it, mm, to the right; negative to the left. Null where none of a decent length does. */
  readonly stepMm: number | null;
}

interface Upright {
  readonly name: string;
  /** Camera coordinates of its axis at the height of the head, mm. */
  readonly x: number;
  readonly z: number;
  readonly half: number;
}

/** Columns of backgrounds that can still be made out, as far to the side as anybody stands and a step reaches. */
function columnsOf(setup: Setup, view: Viewpoint, y: number, lostMm: (backgroundId: string) => number): Upright[] {
  return setup.backgrounds.flatMap(({ id, name, surface, detailMm, depthMm, lateralMm }): Upright[] => {
    const width = Math.max(columnMm, detailMm);
    if (surface !== 'columns' || depthMm < 0 || lostMm(id) > goneFrom * width) return [];
    const reach = Math.ceil((view.distance + depthMm) / columnsEveryMm);
    return Array.from({ length: 2 * reach + 1 }, (_, index): Upright => {
      const x = lateralMm + (index - reach) * columnsEveryMm;
      const at = toCamera(view, { x, y, z: depthMm });
      return { name, x: at.x, z: at.z, half: width / 2 };
    });
  });
}

/** Things behind somebody that rise over their crown. */
function thingsBehind({ things }: Setup, view: Viewpoint, person: Person): Upright[] {
  const crown = toCamera(view, headPoint(person, { x: 0, y: adultHead.crownY, z: 0 }));
  return things.flatMap(({ name, lateralMm, depthMm, heightMm, widthMm, tallMm }): Upright[] => {
    const at = (y: number) => toCamera(view, { x: lateralMm, y, z: depthMm });
    const [top, foot] = [at(heightMm + tallMm / 2), at(heightMm - tallMm / 2)];
    const rises = top.y / top.z > crown.y / crown.z && foot.y / foot.z < crown.y / crown.z;
    return rises ? [{ name, x: top.x, z: top.z, half: widthMm / 2 }] : [];
  });
}

/**
 * One finding a head at most.
 *
 * @param lostMm detail lost at a background at the stop in use, mm
 */
export function growingFindings(
  setup: Setup,
  view: Viewpoint,
  lostMm: (backgroundId: string) => number
): GrowingFinding[] {
  return setup.people.flatMap((person): GrowingFinding[] => {
    if (person.importance === 'maySoft') return [];
    const eyes = eyesMidpoint(person);
    const head = toCamera(view, eyes);
    const half = adultHead.halfWidth * headScale(interpupillaryOf[person.being]);
    // All that is upright, drawn onto the plane of the head.
    const there = [...columnsOf(setup, view, eyes.y, lostMm), ...thingsBehind(setup, view, person)]
      .filter(({ z }) => z > head.z + behindMm)
      .map(({ name, x, z, half: own }) => {
        const drawn = head.z / z;
        return { name, off: x * drawn - head.x, half: own * drawn, parallax: 1 - drawn };
      });
    const least = (own: number) => half + own + 2 * half * clearShare;
    const [grown] = there
      .filter((item) => Math.abs(item.off) < half + item.half)
      .sort((a, b) => Math.abs(a.off) - Math.abs(b.off));
    if (!grown || grown.half > 3 * half) return [];
    // A step to the right shows what lies behind further to the right.
    const clears = (step: number) =>
      there.every((item) => Math.abs(item.off + step * item.parallax) >= least(item.half) - 1e-6);
    const steps = there
      .flatMap(({ off, half: own, parallax }) => [(least(own) - off) / parallax, (-least(own) - off) / parallax])
      .filter((step) => Math.abs(step) <= furthestStepMm && clears(step))
      .sort((a, b) => Math.abs(a) - Math.abs(b));
    const stepMm = steps[0] ?? null;
    return [
      {
        personId: person.id,
        name: person.name,
        what: grown.name,
        stepMm: stepMm === null ? null : Math.round(stepMm / 10) * 10
      }
    ];
  });
}
