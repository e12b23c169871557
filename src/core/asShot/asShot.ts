/** A setup as it turned out on the day: the plan with what was different. The plan itself stays as it is. */
import { lightLevel } from '../call/light';
import { bodyOf, lensOf } from '../kit/find';
import type { Kit } from '../kit/schema';
import { groupDepth, leadsAway } from './group';
import { atSameFraming } from '../setup/sameFraming';
import { isAsPlanned, type Different } from '../setup/schedule';
import type { Setup } from '../setup/schema';

/** What is to vanish stays at least so far behind whoever stands nearest to it, mm (my choice). */
const leastBehindMm = 50;

/** The very same setup when nothing is different, or what is different no longer means anything. */
export function asShot(setup: Setup, kit: Kit, different: Different = setup.taken.different): Setup {
  if (isAsPlanned(different)) return setup;
  let shot = withoutMissing(setup, different.missing);
  shot = deeper(shot, different.deeperMm);
  shot = wallCloser(shot, different.wallCloserMm);
  shot = darker(shot, different.lightStops);
  shot = otherLens(shot, kit, different.lens);
  const { distanceMm } = different;
  if (distanceMm !== null) shot = { ...shot, camera: { ...shot.camera, placement: { kind: 'distance', distanceMm } } };
  return shot;
}

function withoutMissing(setup: Setup, missing: readonly string[]): Setup {
  const people = setup.people.filter((person) => !missing.includes(person.id));
  if (people.length === setup.people.length) return setup;
  const { target } = setup.intent;
  const gone = target.kind === 'eye' && missing.includes(target.personId);
  return { ...setup, people, intent: gone ? { ...setup.intent, target: { kind: 'best' } } : setup.intent };
}

function deeper(setup: Setup, byMm: number): Setup {
  const depth = groupDepth(setup);
  if (byMm === 0 || depth === null) return setup;
  const factor = Math.max(0, depth.spanMm + byMm) / depth.spanMm;
  return {
    ...setup,
    people: setup.people.map((person) =>
      person.importance === 'maySoft'
        ? person
        : { ...person, depthMm: depth.frontMm + (person.depthMm - depth.frontMm) * factor }
    )
  };
}

function wallCloser(setup: Setup, byMm: number): Setup {
  if (byMm === 0) return setup;
  const furthest = Math.max(0, ...setup.people.map((person) => person.depthMm));
  return {
    ...setup,
    backgrounds: setup.backgrounds.map((background) =>
      leadsAway(background)
        ? { ...background, depthMm: Math.max(furthest + leastBehindMm, background.depthMm - byMm) }
        : background
    )
  };
}

function darker(setup: Setup, stops: number): Setup {
  const level = lightLevel(setup);
  if (stops === 0 || level === null) return setup;
  const ev100 = Math.max(-10, Math.min(20, level + stops));
  return { ...setup, light: { ...setup.light, level: { kind: 'ev', ev100 } } };
}

function otherLens(setup: Setup, kit: Kit, lens: Different['lens']): Setup {
  const body = bodyOf(kit, setup.camera);
  const present = lensOf(kit, setup.camera);
  const seen = lens ? lensOf(kit, lens) : undefined;
  if (!lens || !body || !seen) return setup;
  const instead = { body, lens: seen, ...lens };
  return atSameFraming(setup, { body, P: present?.pupilMagnification ?? 1 }, instead);
}
