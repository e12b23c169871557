/** The smallest bag for a day, why each thing is in it, and what a lens that is not owned would add. */
import type { PlanInput } from '../call/planInput';
import type { Kit } from '../kit/schema';
import { smallestBag, type Demand } from './bag';
import { lensesToAdd, demandOf, isTakeableAsPlanned } from './kitOptions';

export interface BagQuestion {
  readonly inputs: readonly PlanInput[];
  readonly kit: Kit;
}

export interface BagAnswer {
  readonly demands: readonly Demand[];
  /** Setups that must be taken. */
  readonly musts: readonly string[];
  /** Ids of the fewest bodies, lenses and adapters that take them. */
  readonly items: readonly string[];
  /** Whether every bag was considered. */
  readonly exact: boolean;
  /** What takes each of the must-haves with that bag. */
  readonly ways: readonly { readonly setupId: string; readonly needs: readonly string[] }[];
  /** Setups that nothing in the kit takes as it is wanted. */
  readonly tight: readonly string[];
  readonly additions: readonly { readonly lensName: string; readonly opens: readonly string[] }[];
}

/** Shares of the work. */
const demandsShare = 0.6;

export function findBag(
  { inputs, kit }: BagQuestion,
  onProgress: (share: number) => void = () => undefined
): BagAnswer {
  const demands = inputs.map((input, index) => {
    onProgress((demandsShare * index) / inputs.length);
    return demandOf(input);
  });
  const musts = inputs.filter(({ setup }) => setup.schedule.priority === 'must').map(({ setup }) => setup.id);
  const { items, exact, ways } = smallestBag(demands.filter((demand) => musts.includes(demand.setupId)));
  // The plan as it stands is always an option: tight is what has no other and does not hold itself.
  const tight = inputs.filter((input, index) => demands[index]?.options.length === 1 && !isTakeableAsPlanned(input));
  const added = lensesToAdd(tight, kit, (share) => onProgress(demandsShare + (1 - demandsShare) * share));
  return {
    demands,
    musts,
    items,
    exact,
    ways: [...ways].map(([setupId, { needs }]) => ({ setupId, needs })),
    tight: tight.map(({ setup }) => setup.id),
    additions: added.map(({ lens, opens }) => ({ lensName: lens.name, opens }))
  };
}
