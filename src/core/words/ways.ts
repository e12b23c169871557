/** Ways of focusing in words: what each lands on, what is lost to it, what to do. */
import type { Landing, Plan } from '../call/plan';
import type { SurfacePart } from '../setup/lineOfSight';
import type { FocusMethodOption, WayKind, WayPart } from '../technique/ways';
import { pointWords, possessive, subjectName } from './call';
import { formatLength, type LengthUnit } from '../units/length';

const partWords: Readonly<Record<SurfacePart, string>> = {
  eye: 'eyes',
  brow: 'brow',
  nose: 'nose',
  mouth: 'mouth',
  chin: 'chin',
  cheek: 'cheek',
  hair: 'hair',
  forehead: 'forehead',
  brim: 'hat brim',
  veil: 'veil',
  muzzle: 'muzzle',
  body: 'clothes',
  thing: '',
  ground: ''
};

/** "Tobiah’s hair", "the ferns", "the background": what focus lands on. */
export function landedWords(plan: Plan, { kind, id, part }: Pick<Landing, 'kind' | 'id' | 'part'>): string {
  if (kind === 'background') {
    const name = plan.backgrounds.find((item) => item.id === id)?.name;
    return name === undefined ? 'what lies behind' : `the ${name.replace(/^the /, '')}`;
  }
  const name = subjectName(plan, id);
  if (kind === 'thing') return name;
  return part === 'target' || part === 'thing' || part === 'ground' ? name : `${possessive(name)} ${partWords[part]}`;
}

const wayNames: Readonly<Record<Exclude<WayKind, 'asSet'>, (eye: string) => string>> = {
  onePoint: (eye) => `Single point on ${eye}`,
  pinpoint: (eye) => `Pinpoint on ${eye}`,
  continuous: (eye) => `Single point on ${eye}, continuous AF`,
  automatic: () => 'Single point, auto-switching AF',
  neighbours: () => 'Expanded point',
  zone: () => 'Zone AF',
  wholeFrame: () => 'Full-area AF, camera chooses',
  eyeDetection: () => 'Eye detection',
  tracking: () => 'Tracking',
  turn: () => 'Focus and recompose',
  tap: (eye) => `Tap ${eye} and hold`,
  magnifier: () => 'Manual focus, magnified',
  byEye: () => 'Manual focus, by eye',
  scale: () => 'Manual focus, distance scale'
};

function eyeOf(plan: Plan, { target }: Pick<FocusMethodOption, 'target'>): string {
  return target.subjectId === null || target.role === null
    ? 'the spot'
    : pointWords(plan, target.subjectId, target.role);
}

export function wayName(plan: Plan, way: FocusMethodOption): string {
  return way.kind === 'asSet' ? 'As the camera is set' : wayNames[way.kind](eyeOf(plan, way));
}

/** "about 3 in 10": chances as people count them. */
export function chanceWords(chance: number): string {
  if (chance >= 0.95) return 'nearly all';
  if (chance >= 0.095) return `about ${Math.round(chance * 10)} in 10`;
  return chance >= 0.03 ? 'about 1 in 20' : 'about 1 in 50';
}

/** "40 cm in front", "4 mm behind". */
export function offsetFromTargetText(offMm: number, unit: LengthUnit): string {
  if (Math.abs(offMm) < 1.5) return 'same distance';
  return `${formatLength(Math.abs(offMm), unit)} ${offMm < 0 ? 'in front' : 'behind'}`;
}

interface Lost {
  readonly name: string;
  /** Of all frames, those that would have been sharp had they landed as meant. */
  readonly share: number;
  readonly offMm: number;
}

/** Frames lost to what focus landed on, the most first. */
export function missedBy(plan: Plan, way: FocusMethodOption): readonly Lost[] {
  const known = new Map<string, Lost>();
  for (const part of way.parts) {
    if (part.part === 'target') continue;
    const name =
      part.id === way.target.subjectId || part.kind !== 'person' ? landedWords(plan, part) : subjectName(plan, part.id);
    const found = known.get(name);
    const lost = Math.max(0, part.chance * way.meant - part.sharp);
    const share = lost + (found?.share ?? 0);
    const offMm = found && found.share > lost ? found.offMm : part.depth - way.target.focusDistanceMm;
    known.set(name, { name, share, offMm });
  }
  return [...known.values()].filter(({ share }) => share >= 0.005).sort((a, b) => b.share - a.share);
}

/** Lost though focus landed as meant, or as well: the spread of the focus itself, and everybody’s sway. */
export function missedOnTarget(plan: Plan, way: FocusMethodOption): number {
  const byLanding = missedBy(plan, way).reduce((sum, { share }) => sum + share, 0);
  return Math.max(0, 1 - way.odds - byLanding);
}

const likeliestOther = (parts: readonly WayPart[]): WayPart | undefined => parts.find(({ part }) => part !== 'target');

/** Why a way does as it does, in a line. */
export function wayReason(plan: Plan, way: FocusMethodOption, unit: LengthUnit): string {
  if (way.kind === 'scale') return 'you estimate the distance and set it on the ring';
  if (way.kind === 'magnifier') return 'precise if no one moves, but slow';
  if (way.kind === 'byEye') return 'the viewfinder shows more depth of field than the frame has';
  const turn = way.target.recomposed;
  if (way.comesNearerMm > 0 && way.meant < 0.5) {
    return `doesn’t track: they come ${formatLength(way.comesNearerMm, unit)} closer before the shutter opens`;
  }
  const worst = missedBy(plan, way)[0];
  if (worst && worst.share >= 0.02) {
    return `grabs ${worst.name}, ${offsetFromTargetText(worst.offMm, unit)}: ${chanceWords(worst.share)} frames`;
  }
  if (way.kind === 'turn' && turn) {
    return turn.turnMm < 0.5
      ? 'turning hardly shifts focus here'
      : `turning puts focus ${formatLength(turn.turnMm, unit)} behind`;
  }
  const other = likeliestOther(way.parts);
  if (!other || other.chance < 0.03)
    return way.kind === 'tracking' ? 'follows whoever moves' : 'nothing else under the point';
  const off = other.depth - way.target.focusDistanceMm;
  const still = other.sharp >= 0.8 * other.chance ? '; still sharp' : '';
  return `may land on ${landedWords(plan, other)}, ${offsetFromTargetText(off, unit)}${still}`;
}

const orders: Readonly<Record<Exclude<WayKind, 'asSet'>, (eye: string) => string>> = {
  onePoint: (eye) => `Single point on ${eye}.`,
  pinpoint: (eye) => `Set the smallest point and move it onto ${eye}.`,
  continuous: (eye) => `Single point on ${eye}, continuous AF.`,
  automatic: (eye) => `Single point on ${eye}, auto-switching AF.`,
  neighbours: (eye) => `Expanded point on ${eye}.`,
  zone: (eye) => `AF zone on ${eye}.`,
  wholeFrame: () => 'Full-area AF: let the camera choose.',
  eyeDetection: () => 'Eye detection: let it find the eye.',
  tracking: (eye) => `Tracking: start on ${eye}.`,
  turn: (eye) => `Focus on ${eye} with the centre point, then recompose.`,
  tap: (eye) => `Tap ${eye} and hold until it locks.`,
  magnifier: (eye) => `Focus manually on ${eye}, magnified.`,
  byEye: (eye) => `Focus manually on ${eye}, by eye.`,
  scale: () => 'Set the distance on the focus ring.'
};

/** The call of the tab: the best way, and what the camera would take by itself. */
export function waysSentence(plan: Plan, ways: readonly FocusMethodOption[]): string {
  const [best] = ways;
  if (!best) return '';
  const order = best.kind === 'asSet' ? 'Leave the camera as it is set.' : orders[best.kind](eyeOf(plan, best));
  const left = ways.find(({ kind }) => kind === 'wholeFrame');
  if (!left || left === best) return order;
  if (left.odds > best.odds - 0.05) return `${order} Full-area AF would do as well here.`;
  const taken = missedBy(plan, left)[0];
  return taken ? `${order} Left to choose, the camera would focus on ${taken.name}.` : order;
}
