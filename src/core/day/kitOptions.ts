/** With which bodies and lenses a setup can be taken as it is wanted, and what a lens nobody owns yet would add. */
import type { PlanInput } from '../call/planInput';
import { lineUp } from '../call/lineUp';
import { isTakeable } from '../call/inPrint';
import { planSetup } from '../call/planSetup';
import { bodyOf, lensOf } from '../kit/find';
import { builtInMount, canMount, mountings } from '../kit/fits';
import { lensStarts } from '../kit/startingPoints';
import type { Body, Kit, Lens } from '../kit/schema';
import { atSameFraming } from '../setup/sameFraming';
import type { Demand, Option } from './bag';

/** Ranks, no unit: how much less one would take another lens, or another body, than what is planned (my choice). */
const ratherThan = { lens: 1, body: 3 } as const;

/** Does a lens at some focal length meet every goal from where there is room to stand? */
type Serves = ReturnType<typeof lineUp>[number];
const serves = ({ result, beyondRoomMm }: Serves): boolean => beyondRoomMm === 0 && result?.takeable === true;

/**
 * Every way to take a setup with this kit: what grants every wish at the same framing, and always what it is planned with.
 */
export function demandOf(input: PlanInput): Demand {
  const { setup, kit } = input;
  const { camera } = setup;
  const own = bodyOf(kit, camera);
  const lens = lensOf(kit, camera);
  if (!own || !lens) return { setupId: setup.id, options: [] };
  const planned: Option = { needs: [camera.bodyId, camera.lensId, ...camera.adapterIds], rather: 0 };
  const bodies = kit.bodies.filter((body) => !body.retired);
  const others = bodies.flatMap((body): Option[] => {
    const rather = body.id === camera.bodyId ? 0 : ratherThan.body;
    const there = onThatBody(input, body, own, lens.pupilMagnification);
    if (!there) return [];
    return lineUp(there)
      .filter(serves)
      .map(({ setup: { camera: held } }) => ({
        needs: [body.id, held.lensId, ...held.adapterIds],
        rather: rather + (held.lensId === camera.lensId ? 0 : ratherThan.lens)
      }));
  });
  return { setupId: setup.id, options: unique([planned, ...others]) };
}

/** The same picture on another body, with the lens that comes first there; null where nothing goes on it. */
function onThatBody(input: PlanInput, body: Body, own: Body, P: number): PlanInput | null {
  const { setup, kit } = input;
  if (body.id === setup.camera.bodyId) return input;
  const there = mountings(kit, body);
  const { camera } = setup;
  const same = there.find((item) => item.lens.id === camera.lensId) ?? there[0];
  if (!same) return null;
  const { lens, adapterIds, seen } = same;
  const focalLengthMm = Math.min(seen.longestMm, Math.max(seen.shortestMm, camera.focalLengthMm));
  const instead = { body, lens: seen, lensId: lens.id, adapterIds, focalLengthMm };
  return { ...input, setup: atSameFraming(setup, { body: own, P }, instead) };
}

function unique(options: readonly Option[]): Option[] {
  const byNeeds = new Map<string, Option>();
  for (const option of options) {
    const key = [...option.needs].sort().join(' ');
    const known = byNeeds.get(key);
    if (!known || option.rather < known.rather) byNeeds.set(key, option);
  }
  return [...byNeeds.values()];
}

interface Addition {
  readonly lens: Lens;
  /** Setups that hold only with it. */
  readonly opens: readonly string[];
}

/** Whether a setup, as it is planned, meets every goal. */
export function isTakeableAsPlanned(input: PlanInput): boolean {
  const plan = planSetup(input);
  return plan.kind === 'plan' && isTakeable(plan);
}

/**
 * What each usual lens that is not owned would add: the tight setups, those that nothing in the kit takes as wanted, which it
 * would. Most first; those that add nothing are left out.
 */
export function lensesToAdd(
  tight: readonly PlanInput[],
  kit: Kit,
  onProgress: (share: number) => void = () => undefined
): Addition[] {
  const missing = lensStarts
    .map((start, index) => start.make(`wanted-${index}`))
    .filter((lens) => !kit.lenses.some((own) => !own.retired && doesAll(own, lens)));
  return missing
    .map((lens, index): Addition => {
      onProgress(index / missing.length);
      const opens = tight.filter((input) => {
        const body = bodyOf(input.kit, input.setup.camera);
        if (!body || body.mount === builtInMount || !canMount(body, lens, [])) return false;
        // The lens in use stays as the one the framing is taken from; only the new one is looked at.
        const only: Kit = { bodies: [body], lenses: [...inUse(input), lens], adapters: input.kit.adapters };
        return lineUp({ ...input, kit: only }).some((item) => item.lensId === lens.id && serves(item));
      });
      return { lens, opens: opens.map((input) => input.setup.id) };
    })
    .filter((addition) => addition.opens.length > 0)
    .sort((a, b) => b.opens.length - a.opens.length);
}

const inUse = ({ kit, setup }: PlanInput) => kit.lenses.filter((lens) => lens.id === setup.camera.lensId);

/** A lens that has every focal length of another and opens as far. */
const doesAll = (own: Lens, other: Lens): boolean =>
  own.shortestMm <= other.shortestMm && own.longestMm >= other.longestMm && own.widestFNumber <= other.widestFNumber;
