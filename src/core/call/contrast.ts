/** How much autofocus finds to hold on to: contrast of surfaces, 0 (nothing) to 1. All from memory. */
import type { FacePart } from '../people/face';
import type { Appearance } from '../people/appearance';
import { ownersIn, type Met } from '../setup/lineOfSight';
import type { Setup, Thing } from '../setup/schema';
import { backgroundKind } from '../setup/backgroundKinds';

const ofFace: Readonly<Record<FacePart, number>> = {
  eye: 1,
  brow: 0.7,
  mouth: 0.5,
  nose: 0.3,
  chin: 0.15,
  cheek: 0.12,
  forehead: 0.1,
  hair: 0.4,
  brim: 0.7,
  veil: 0.5,
  muzzle: 0.5
};

const ofOutfit: Readonly<Record<Appearance['outfit'], number>> = {
  suit: 0.45,
  dress: 0.25,
  shirt: 0.35,
  coat: 0.3,
  uniform: 0.6
};

const ofForm: Readonly<Record<Thing['form'], number>> = { box: 0.6, rings: 1, bouquet: 0.9, tuba: 0.8 };

/** What was not described has little in it. */
const ofNothing = 0.08;

/** Light from the side or from behind a face leaves it less. */
const ofLight: Readonly<Record<Setup['light']['from'], number>> = { front: 1, side: 0.9, behind: 0.5 };

/** Where the light is so low, EV at ISO 100, contrast halves for every three stops less. */
const dimFromEv = 3;
const halvesEveryStops = 3;

/** Contrast of what is met in a setup. `ev100` is null where the light is not known. */
export function contrastIn(setup: Setup, ev100: number | null): (met: Pick<Met, 'kind' | 'id' | 'part'>) => number {
  const ownerOf = ownersIn(setup);
  const dim = ev100 === null ? 1 : 2 ** (-Math.max(0, dimFromEv - ev100) / halvesEveryStops);
  return (met) => {
    const owner = ownerOf(met);
    if (owner.kind === 'thing') return ofForm[owner.thing.form] * dim;
    if (owner.kind === 'background') {
      if (!owner.background) return ofNothing * dim;
      const { contrast, lit } = backgroundKind(owner.background.surface);
      return contrast * (lit ? 1 : dim);
    }
    const { look } = owner.person;
    return ofPerson(look, met.part) * ofLight[setup.light.from] * dim;
  };
}

function ofPerson(look: Appearance, part: Met['part']): number {
  if (part === 'body' || part === 'thing' || part === 'ground') return ofOutfit[look.outfit];
  return part === 'hair' && look.hair === 'bald' ? ofFace.forehead : ofFace[part];
}
