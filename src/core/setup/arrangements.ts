/**
 * Places for people from a few numbers. Each place can then be moved on its own. Depths behind the subject line, lateral
 * to the picture's right, mm; head turns as in the schema.
 */
import { z } from 'zod';
import { degrees, radians } from '../maths/vector';
import { newPerson } from './defaults';
import { beingNames, numbered } from './names';
import type { Person, Setup } from './schema';

const count = z.int().min(1, 'must be at least 1').max(200, 'must be at most 200');
const size = z.number().min(0, 'must be at least 0').max(100_000, 'must be at most 100000');
const spacingMm = z.number().min(100, 'must be at least 100').max(10_000, 'must be at most 10000');

export const arrangementSchema = z.discriminatedUnion('kind', [
  z.strictObject({
    kind: z.literal('rows'),
    count,
    rows: z.int().min(1, 'must be at least 1').max(20, 'must be at most 20'),
    spacingMm,
    rowDepthMm: size,
    riserMm: size,
    staggered: z.boolean().describe('Every second row stands in the gaps of the one before')
  }),
  z.strictObject({ kind: z.literal('arc'), count, spacingMm, radiusMm: z.number().min(300).max(100_000) }),
  z.strictObject({ kind: z.literal('vee'), count, spacingMm, angleDeg: z.number().min(-80).max(80) }),
  z.strictObject({
    kind: z.literal('seatedFront'),
    count,
    seated: z.int().min(1, 'must be at least 1').max(100, 'must be at most 100'),
    spacingMm,
    rowDepthMm: size
  }),
  z.strictObject({ kind: z.literal('around'), count, radiusMm: size, spanDeg: z.number().min(0).max(360) }),
  z.strictObject({
    kind: z.literal('couple'),
    pose: z.enum(['sideBySide', 'facing', 'foreheads', 'embrace', 'behind'])
  })
]);

export type Arrangement = z.infer<typeof arrangementSchema>;

export type ArrangementKind = Arrangement['kind'];

/** How many people an arrangement has places for. */
function arrangementCount(arrangement: Arrangement): number {
  return arrangement.kind === 'couple' ? 2 : arrangement.count;
}

type PlaceInRow = Pick<Person, 'depthMm' | 'lateralMm' | 'floorMm' | 'posture' | 'headYawDeg'>;

const stand = (depthMm: number, lateralMm: number, rest: Partial<PlaceInRow> = {}): PlaceInRow => ({
  depthMm: Math.round(depthMm),
  lateralMm: Math.round(lateralMm),
  floorMm: 0,
  posture: 'standing',
  headYawDeg: 0,
  ...rest
});

/** People in a line of n about the middle: −1, 0, 1 for three. */
const fromMiddle = (n: number) => Array.from({ length: n }, (_, index) => index - (n - 1) / 2);

/** Splits n people into rows as even as can be, the front ones first to take one more. */
function rowSizes(n: number, rows: number): number[] {
  return Array.from({ length: Math.min(rows, n) }, (_, row) => Math.floor(n / rows) + (row < n % rows ? 1 : 0));
}

/** Couple poses: eyes' places and turns (common practice, no source). */
const couples: Readonly<Record<Extract<Arrangement, { kind: 'couple' }>['pose'], readonly PlaceInRow[]>> = {
  sideBySide: [stand(0, -180), stand(0, 180)],
  facing: [stand(0, -220, { headYawDeg: 70 }), stand(0, 220, { headYawDeg: -70 })],
  foreheads: [stand(0, -110, { headYawDeg: 45 }), stand(20, 110, { headYawDeg: -45 })],
  embrace: [
    stand(0, -70, { headYawDeg: 25, posture: 'embracing' }),
    stand(90, 80, { headYawDeg: -35, posture: 'embracing' })
  ],
  behind: [stand(0, -40, { posture: 'embracing' }), stand(170, 60, { headYawDeg: -10, posture: 'embracing' })]
};

/** The places of an arrangement, front row first, each row from the picture's left. */
export function arrangementPlaces(arrangement: Arrangement): readonly PlaceInRow[] {
  switch (arrangement.kind) {
    case 'rows': {
      const { spacingMm: gap, rowDepthMm, riserMm, staggered } = arrangement;
      return rowSizes(arrangement.count, arrangement.rows).flatMap((n, row) =>
        fromMiddle(n).map((place) => {
          const shift =
            staggered && row % 2 === 1 && n % 2 === (rowSizes(arrangement.count, arrangement.rows)[0] ?? 0) % 2
              ? 0.5
              : 0;
          return stand(row * rowDepthMm, (place + shift) * gap, { floorMm: row * riserMm });
        })
      );
    }
    case 'arc': {
      // The middle is furthest back and the ends come towards the lens, all facing the centre of the arc.
      const step = arrangement.spacingMm / arrangement.radiusMm;
      return fromMiddle(arrangement.count).map((place) => {
        const angle = Math.max(-Math.PI / 2, Math.min(Math.PI / 2, place * step));
        return stand(arrangement.radiusMm * (Math.cos(angle) - 1), arrangement.radiusMm * Math.sin(angle), {
          headYawDeg: Math.round(degrees(-angle))
        });
      });
    }
    case 'vee': {
      const lean = Math.tan(radians(arrangement.angleDeg));
      return fromMiddle(arrangement.count).map((place) =>
        stand(Math.abs(place) * arrangement.spacingMm * lean, place * arrangement.spacingMm)
      );
    }
    case 'seatedFront': {
      const front = Math.min(arrangement.seated, arrangement.count);
      return [
        ...fromMiddle(front).map((place) => stand(0, place * arrangement.spacingMm, { posture: 'seated' })),
        ...fromMiddle(arrangement.count - front).map((place) =>
          stand(arrangement.rowDepthMm, place * arrangement.spacingMm)
        )
      ];
    }
    case 'around': {
      const span = radians(arrangement.spanDeg);
      const step =
        arrangement.count > 1 ? span / (arrangement.spanDeg >= 360 ? arrangement.count : arrangement.count - 1) : 0;
      return fromMiddle(arrangement.count).map((place) =>
        stand(arrangement.radiusMm * Math.cos(place * step), arrangement.radiusMm * Math.sin(place * step))
      );
    }
    case 'couple':
      return couples[arrangement.pose];
  }
}

/**
 * Puts people on the places of an arrangement, in order; whoever has no place stays where they are. Shoulders turn with
 * the head. Whoever sits stays seated, and pets and babies keep their posture.
 */
export function arrange(people: readonly Person[], arrangement: Arrangement): Person[] {
  const places = arrangementPlaces(arrangement);
  return people.map((person, index) => {
    const place = places[index];
    if (!place) return person;
    const free = (person.being === 'adult' || person.being === 'child') && person.posture !== 'seated';
    return { ...person, ...place, bodyYawDeg: place.headYawDeg, posture: free ? place.posture : person.posture };
  });
}

/**
 * The people of a setup arranged, with new ones when there are not enough; nobody is taken away, and pets stay where they
 * are. `newId` names the new ones, counted from 1.
 */
export function arrangePeople(setup: Setup, arrangement: Arrangement, newId: (n: number) => string): Person[] {
  const pets = setup.people.filter((person) => person.being === 'pet');
  const people = setup.people.filter((person) => person.being !== 'pet');
  const missing = Math.max(0, arrangementCount(arrangement) - people.length);
  const sharp = setup.people[0]?.sharp ?? 'bothEyes';
  const names = setup.people.map((person) => person.name);
  const added: Person[] = [];
  for (let n = 1; n <= missing; n++) {
    const name = numbered(beingNames.adult, names, people.length + 1);
    names.push(name);
    added.push(newPerson(newId(n), name, { sharp }));
  }
  return [...arrange([...people, ...added], arrangement), ...pets];
}
