/**
 * Setups with what a photographer would sign for each: the widest and the narrowest stop, whose eye, the slowest shutter time,
 * the highest ISO. Written before looking at what the core says; common practice, no source, but for those that
 * `practice.md`'s check values name. Distances in metres, heads turned in degrees.
 */
import { builtInKit } from '../../kit/builtInKit';
import { arrange, type Arrangement } from '../../setup/arrangements';
import { newBackground, newPerson, newSetup, newThing } from '../../setup/defaults';
import { asPicture } from '../../setup/intents';
import { setupFrom } from '../../setup/templates';
import type {
  Background,
  Camera,
  Framing,
  KnownLight,
  Light,
  Person,
  Setup,
  SetupKind,
  Thing
} from '../../setup/schema';

export interface Signed {
  readonly stops: readonly [widest: number, narrowest: number];
  /** Whose eye, or which thing: any of these ids. */
  readonly focus?: readonly string[];
  /** The near eye, where a far one would be refused. */
  readonly eye?: 'nearEye';
  /** Slowest shutter time, as the camera shows it: 125 for 1/125 s. */
  readonly shutter?: number;
  readonly mostIso?: number;
}

export interface SignedSetup {
  readonly name: string;
  readonly setup: Setup;
  readonly signed: Signed;
}

interface Made {
  readonly picture?: SetupKind;
  /** Lens and, for a zoom, its focal length. */
  readonly lens: string;
  readonly f?: number;
  readonly body?: string;
  /** Metres to the subject line, or how much is shown. */
  readonly from: number | Framing;
  readonly tall?: boolean;
  readonly people?: readonly Person[];
  readonly things?: readonly Thing[];
  readonly background?: Partial<Background> | null;
  readonly light?: KnownLight | number;
  readonly flash?: Partial<NonNullable<Light['flash']>>;
  readonly camera?: Partial<Camera>;
  readonly intent?: Partial<Setup['intent']>;
}

function made(name: string, { picture = 'onePerson', lens, from, light = 'openShade', ...rest }: Made): Setup {
  const base = newSetup(name, name);
  const f = rest.f ?? builtInKit.lenses.find(({ id }) => id === lens)?.shortestMm ?? NaN;
  const placement: Camera['placement'] =
    typeof from === 'number' ? { kind: 'distance', distanceMm: from * 1000 } : { kind: 'framing', framing: from };
  const setup = {
    ...base,
    camera: {
      ...base.camera,
      bodyId: rest.body ?? 'body-main',
      lensId: lens,
      focalLengthMm: f,
      placement,
      orientation: rest.tall ? ('portrait' as const) : ('landscape' as const)
    },
    people: rest.people ? [...rest.people] : base.people,
    things: [...(rest.things ?? [])],
    backgrounds:
      rest.background === null
        ? []
        : [
            newBackground('behind', 'Foliage', {
              depthMm: 5000,
              ...(rest.background?.wish && { wish: rest.background.wish })
            })
          ],
    light: {
      ...base.light,
      level:
        typeof light === 'number'
          ? ({ kind: 'ev', ev100: light } as const)
          : ({ kind: 'estimated', as: light } as const),
      flash: rest.flash
        ? {
            guideNumberM: 40,
            distanceMm: 2500,
            leastPower: 1 / 128,
            use: 'main' as const,
            underStops: 1.5,
            ...rest.flash
          }
        : null
    }
  };
  const posed = asPicture(setup, picture);
  return {
    ...posed,
    // What was said of somebody or of the background stands against what is usual.
    people: rest.people ? posed.people.map((person, i) => ({ ...person, ...said(rest.people?.[i]) })) : posed.people,
    backgrounds: posed.backgrounds.map((item) => ({ ...item, ...rest.background })),
    camera: { ...posed.camera, ...rest.camera },
    intent: { ...posed.intent, viewing: { kind: 'close' as const }, ...rest.intent }
  };
}

/** What a person was made with that the kind of picture might change. */
const said = (person: Person | undefined): Partial<Person> =>
  person ? { sharp: person.sharp, towardsMmPerS: person.towardsMmPerS, acrossMmPerS: person.acrossMmPerS } : {};

const who = (id: string, changes: Partial<Person> = {}): Person => newPerson(id, id, changes);
const near = { sharp: 'nearEye' } as const;

const rows = (count: number, inRows: number, changes: Partial<Extract<Arrangement, { kind: 'rows' }>> = {}): Person[] =>
  arrange(
    Array.from({ length: count }, (_, i) => who(`p${i}`)),
    {
      kind: 'rows',
      count,
      rows: inRows,
      spacingMm: 560,
      rowDepthMm: 700,
      riserMm: inRows > 1 ? 180 : 0,
      staggered: true,
      ...changes
    }
  );

const judge = (name: string, setup: Made, signed: Signed): SignedSetup => ({ name, setup: made(name, setup), signed });

/** Tools and windows three metres behind. */
const workshop = { depthMm: 3000, detailMm: 150 } as const;

const onePerson: readonly SignedSetup[] = [
  judge(
    'head and shoulders, 85 mm, facing',
    { lens: 'lens-85', from: 'headAndShoulders' },
    { stops: [1.8, 2.8], shutter: 80, mostIso: 400 }
  ),
  judge(
    'head turned 45°, both eyes, 85 mm',
    { lens: 'lens-85', from: 'headAndShoulders', people: [who('p', { headYawDeg: 45 })] },
    { stops: [3.5, 5.6], eye: 'nearEye' }
  ),
  judge(
    'head turned 45°, near eye, 85 mm',
    { lens: 'lens-85', from: 'headAndShoulders', people: [who('p', { headYawDeg: 45, ...near })] },
    { stops: [1.4, 2.8], eye: 'nearEye' }
  ),
  judge('half length, 85 mm', { lens: 'lens-85', from: 'halfLength' }, { stops: [1.4, 2.8] }),
  judge('full length, 85 mm', { lens: 'lens-85', from: 'fullLength', tall: true }, { stops: [1.4, 2.8] }),
  judge(
    'head and shoulders, 135 mm',
    { lens: 'lens-135', from: 'headAndShoulders' },
    { stops: [1.8, 4], shutter: 125 }
  ),
  judge('half length, 135 mm', { lens: 'lens-135', from: 'halfLength' }, { stops: [1.8, 2.8], shutter: 125 }),
  judge('half length, 50 mm', { lens: 'lens-50', from: 'halfLength' }, { stops: [1.8, 2.8] }),
  judge('head and shoulders, 50 mm', { lens: 'lens-50', from: 'headAndShoulders' }, { stops: [1.8, 3.2] }),
  judge(
    'at work, workshop recognisable, 35 mm',
    {
      lens: 'lens-35',
      from: 'fullLength',
      light: 'windowLight',
      background: { ...workshop, wish: 'keep' }
    },
    { stops: [2, 5.6], mostIso: 3200 }
  ),
  judge(
    'at work, workshop just hinted, 35 mm',
    {
      lens: 'lens-35',
      from: 'halfLength',
      light: 'windowLight',
      background: { ...workshop, wish: 'hint' }
    },
    { stops: [1.8, 4], mostIso: 3200 }
  ),
  judge(
    'phone, half length',
    { lens: 'lens-phone', body: 'body-phone', from: 'halfLength', background: null },
    { stops: [1.8, 1.8] }
  ),
  judge(
    'head and shoulders, 200 mm',
    { lens: 'lens-70-200', f: 200, from: 'headAndShoulders' },
    { stops: [2.8, 5.6], shutter: 160 }
  ),
  judge(
    'a face at ten metres before a crowd, 200 mm',
    { lens: 'lens-70-200', f: 200, from: 10, background: { depthMm: 3000, detailMm: 60 } },
    { stops: [2.8, 3.5], shutter: 160 }
  ),
  judge(
    'profile, near eye, 85 mm',
    { lens: 'lens-85', from: 'headAndShoulders', people: [who('p', { headYawDeg: 85, ...near })] },
    { stops: [1.4, 2.8], eye: 'nearEye' }
  ),
  judge(
    'eyes and nose, 85 mm',
    { lens: 'lens-85', from: 'headAndShoulders', people: [who('p', { sharp: 'eyesToNose' })] },
    { stops: [4, 8] }
  ),
  judge(
    'whole head with its hair, 85 mm',
    { lens: 'lens-85', from: 'headAndShoulders', people: [who('p', { sharp: 'wholeHead' })] },
    { stops: [5.6, 16] }
  ),
  judge(
    'old lens, half length, as wide as the face allows',
    { lens: 'lens-old-50', from: 'halfLength' },
    { stops: [1.4, 2.8] }
  ),
  judge(
    'APS-C SLR, head and shoulders, 85 mm',
    { lens: 'lens-85', body: 'body-second', from: 'headAndShoulders' },
    { stops: [1.8, 4], shutter: 125 }
  ),
  judge(
    'full-frame SLR, half length, 50 mm',
    { lens: 'lens-50', body: 'body-full-slr', from: 'halfLength' },
    { stops: [1.8, 4] }
  ),
  judge(
    'backlit by the sun, full length, 85 mm',
    { lens: 'lens-85', from: 'fullLength', tall: true, light: 14 },
    { stops: [1.4, 4], mostIso: 100 }
  ),
  judge(
    'on a tripod at dusk, magnified, keeping still',
    {
      lens: 'lens-85',
      from: 'halfLength',
      light: 2,
      camera: { stance: 'tripod', focusMethod: 'magnifier', secondsToShutter: 1 }
    },
    { stops: [1.4, 2.8], mostIso: 3200 }
  ),
  judge(
    'doorway, leaves before and behind, 85 mm',
    {
      lens: 'lens-85',
      from: 'halfLength',
      people: [who('p', { headYawDeg: 30, ...near })],
      background: { depthMm: 1200, detailMm: 40 }
    },
    { stops: [1.4, 2.8], eye: 'nearEye' }
  ),
  judge(
    'guest by candlelight, 50 mm',
    {
      lens: 'lens-50',
      from: 2,
      light: 'candles',
      people: [who('p', { posture: 'seated', ...near })],
      background: { depthMm: 2500, detailMm: 40 }
    },
    { stops: [1.8, 2.8], shutter: 60, mostIso: 12800 }
  ),
  judge(
    'speaker from five metres, 135 mm, indoors',
    {
      lens: 'lens-70-200',
      f: 135,
      from: 5,
      light: 'livingRoom',
      people: [who('p', { headYawDeg: 25, mood: 'restless', ...near })],
      camera: { stance: 'monopod' }
    },
    { stops: [2.8, 3.5], shutter: 125, mostIso: 12800 }
  ),
  judge(
    'speaker from eight metres, 200 mm, evening',
    {
      lens: 'lens-70-200',
      f: 200,
      from: 8,
      light: 4,
      people: [who('p', { headYawDeg: 30, mood: 'restless', ...near })],
      camera: { stance: 'monopod' }
    },
    { stops: [2.8, 3.5], shutter: 125, mostIso: 12800 }
  ),
  judge(
    'groom past the bride’s shoulder, 85 mm, in church',
    {
      lens: 'lens-85',
      from: 4,
      light: 'church',
      people: [
        who('groom', near),
        who('bride', { depthMm: -700, lateralMm: -350, headYawDeg: 180, bodyYawDeg: 180, importance: 'maySoft' })
      ]
    },
    { stops: [1.4, 2.8], focus: ['groom'], shutter: 60, mostIso: 6400 }
  ),
  judge(
    'posed child, 85 mm',
    {
      lens: 'lens-85',
      from: 'halfLength',
      people: [who('p', { being: 'child', statureMm: 1150 })],
      camera: { heightMm: 1050 }
    },
    { stops: [1.4, 3.2], shutter: 125 }
  ),
  judge(
    'baby on a blanket, 50 mm',
    {
      lens: 'lens-50',
      from: 1,
      light: 'windowLight',
      people: [who('p', { being: 'baby', statureMm: 720, posture: 'seated' })],
      camera: { heightMm: 600 }
    },
    { stops: [2, 5.6], shutter: 125, mostIso: 3200 }
  ),
  judge(
    'musician, 50 mm, on a stage',
    {
      lens: 'lens-50',
      from: 2.5,
      light: 'livingRoom',
      people: [who('p', { headYawDeg: 20, mood: 'restless', ...near })],
      background: { ...workshop, wish: 'hint' }
    },
    { stops: [1.8, 4], shutter: 125, mostIso: 6400 }
  )
];

const moving: readonly SignedSetup[] = [
  judge(
    'bride walks up the aisle, 85 mm, church',
    {
      picture: 'moving',
      lens: 'lens-85',
      from: 5,
      light: 'church',
      people: [who('bride', { towardsMmPerS: 900, ...near })]
    },
    { stops: [1.4, 2.8], shutter: 200, mostIso: 12800 }
  ),
  judge(
    'couple walking in shade, 135 mm',
    {
      picture: 'moving',
      lens: 'lens-70-200',
      f: 135,
      from: 'fullLength',
      tall: true,
      people: [
        who('a', { lateralMm: -200, towardsMmPerS: 1200, ...near }),
        who('b', { lateralMm: 200, towardsMmPerS: 1200, ...near })
      ]
    },
    { stops: [2.8, 5.6], shutter: 250 }
  ),
  judge(
    'running child in the sun, 135 mm',
    {
      picture: 'moving',
      lens: 'lens-70-200',
      f: 135,
      from: 6,
      light: 'sun',
      people: [who('p', { being: 'child', towardsMmPerS: 3000, mood: 'lively', ...near })],
      camera: { heightMm: 1000 }
    },
    { stops: [2.8, 5.6], shutter: 500 }
  ),
  judge(
    'playing child in shade, 85 mm',
    {
      lens: 'lens-85',
      from: 3,
      people: [who('p', { being: 'child', mood: 'lively', ...near })],
      camera: { heightMm: 1000, focusMode: 'continuous' }
    },
    { stops: [1.8, 5.6], shutter: 500, mostIso: 3200 }
  ),
  judge(
    'first dance between guests, 35 mm, evening',
    {
      picture: 'moving',
      lens: 'lens-35',
      from: 3,
      light: 'stringBulbs',
      people: [
        who('a', {
          lateralMm: -130,
          headYawDeg: 40,
          posture: 'embracing',
          towardsMmPerS: 0,
          acrossMmPerS: 150,
          ...near
        }),
        who('b', { lateralMm: 130, headYawDeg: -40, posture: 'embracing', acrossMmPerS: 150, ...near }),
        who('guest', { depthMm: -1200, lateralMm: -900, headYawDeg: 160, bodyYawDeg: 160, importance: 'maySoft' })
      ],
      camera: { focusArea: 'zone' },
      intent: { oddsWanted: 0.8 }
    },
    { stops: [1.8, 2.5], focus: ['a', 'b'], shutter: 100, mostIso: 12800 }
  ),
  judge(
    'dance floor with flash, room kept, 35 mm',
    {
      picture: 'moving',
      lens: 'lens-35',
      from: 2.5,
      light: 'stringBulbs',
      flash: { use: 'keepRoom' },
      people: [who('a', { mood: 'lively', ...near })],
      background: { wish: 'free', depthMm: 4000 }
    },
    { stops: [2, 5.6], mostIso: 6400 }
  ),
  judge(
    'cyclist across, 135 mm',
    {
      picture: 'moving',
      lens: 'lens-70-200',
      f: 135,
      from: 10,
      light: 'overcast',
      people: [who('p', { acrossMmPerS: 4000, headYawDeg: 60, ...near })]
    },
    { stops: [2.8, 5.6], shutter: 500 }
  )
];

const two: readonly SignedSetup[] = [
  judge(
    'couple side by side, half length, 85 mm',
    {
      picture: 'couple',
      lens: 'lens-85',
      from: 'halfLength',
      people: [who('a', { lateralMm: -150 }), who('b', { lateralMm: 150 })]
    },
    { stops: [1.8, 4] }
  ),
  judge(
    'couple, one 20 cm behind, half length, 85 mm',
    {
      picture: 'couple',
      lens: 'lens-85',
      from: 'halfLength',
      people: [who('a', { lateralMm: -150 }), who('b', { lateralMm: 150, depthMm: 200 })]
    },
    { stops: [3.5, 8] }
  ),
  judge(
    'couple in an embrace, 50 mm',
    {
      picture: 'couple',
      lens: 'lens-50',
      from: 'halfLength',
      people: [
        who('a', { lateralMm: -70, headYawDeg: 25, posture: 'embracing' }),
        who('b', { lateralMm: 80, depthMm: 90, headYawDeg: -35, posture: 'embracing' })
      ]
    },
    { stops: [2.5, 5.6] }
  ),
  judge(
    'couple foreheads together, near eyes, 85 mm',
    {
      picture: 'couple',
      lens: 'lens-85',
      from: 'halfLength',
      people: [
        who('a', { lateralMm: -110, headYawDeg: 45, ...near }),
        who('b', { lateralMm: 110, depthMm: 20, headYawDeg: -45, ...near })
      ]
    },
    { stops: [1.8, 4] }
  ),
  judge(
    'faces 30 cm apart in depth, head and shoulders, 85 mm',
    {
      picture: 'couple',
      lens: 'lens-85',
      from: 2,
      people: [who('a', { lateralMm: -150, ...near }), who('b', { lateralMm: 150, depthMm: 300, ...near })],
      background: { wish: 'free' }
    },
    { stops: [8, 16] }
  ),
  judge(
    'first kiss from the aisle, 135 mm at 13 m',
    {
      picture: 'couple',
      lens: 'lens-135',
      from: 13,
      light: 'church',
      tall: true,
      people: [
        who('a', { lateralMm: -110, headYawDeg: 60, ...near }),
        who('b', { lateralMm: 110, headYawDeg: -60, ...near }),
        who('guest', {
          depthMm: -5000,
          lateralMm: -300,
          posture: 'seated',
          headYawDeg: 180,
          bodyYawDeg: 180,
          importance: 'maySoft'
        })
      ],
      camera: { focusArea: 'zone' }
    },
    { stops: [1.8, 2.8], focus: ['a', 'b'], shutter: 100, mostIso: 12800 }
  ),
  judge(
    'one must, one a metre behind should, 85 mm',
    {
      lens: 'lens-85',
      from: 4,
      people: [who('must', near), who('should', { depthMm: 1000, lateralMm: 400, importance: 'should', ...near })]
    },
    { stops: [1.4, 4], focus: ['must'] }
  ),
  judge(
    'couple small before mountains, recognisable, 35 mm',
    {
      picture: 'couple',
      lens: 'lens-35',
      from: 10,
      light: 'sun',
      people: [who('a', { lateralMm: -150 }), who('b', { lateralMm: 150 })],
      background: { wish: 'keep', depthMm: 200_000, detailMm: 3000 }
    },
    { stops: [2.8, 11], shutter: 60 }
  ),
  judge(
    'couple stitched wide, 85 mm',
    {
      picture: 'couple',
      lens: 'lens-85',
      from: 5,
      people: [who('a', { lateralMm: -150 }), who('b', { lateralMm: 150 })],
      camera: { stitch: { columns: 4, rows: 3, overlap: 0.4 } }
    },
    { stops: [1.4, 2.5] }
  ),
  judge(
    'mother and child on her lap, 50 mm',
    {
      picture: 'couple',
      lens: 'lens-50',
      from: 2,
      light: 'windowLight',
      people: [
        who('mother', { posture: 'seated' }),
        who('child', { being: 'child', depthMm: -180, lateralMm: 100, posture: 'seated', floorMm: 250 })
      ]
    },
    { stops: [3.5, 8], shutter: 125, mostIso: 6400 }
  )
];

const groups: readonly SignedSetup[] = [
  judge(
    'three in a line, 50 mm',
    { picture: 'group', lens: 'lens-50', from: 4.5, people: rows(3, 1) },
    { stops: [2.8, 5.6], shutter: 100 }
  ),
  judge(
    'five in a line, 50 mm',
    { picture: 'group', lens: 'lens-50', from: 5, people: rows(5, 1) },
    { stops: [3.2, 5.6], shutter: 100 }
  ),
  judge(
    'five in an arc, 35 mm',
    {
      picture: 'group',
      lens: 'lens-35',
      from: 4,
      people: arrange(
        Array.from({ length: 5 }, (_, i) => who(`p${i}`)),
        { kind: 'arc', count: 5, spacingMm: 560, radiusMm: 4000 }
      )
    },
    { stops: [2.8, 5.6], shutter: 100 }
  ),
  judge(
    'eight in two rows, 50 mm',
    { picture: 'group', lens: 'lens-50', from: 5, people: rows(8, 2) },
    { stops: [4, 8], focus: ['p0', 'p1', 'p2', 'p3'], shutter: 100 }
  ),
  judge(
    'six in two rows, 85 mm from 6 m',
    { picture: 'group', lens: 'lens-85', from: 6, people: rows(6, 2) },
    { stops: [5.6, 11], focus: ['p0', 'p1', 'p2'], shutter: 100 }
  ),
  judge(
    'fourteen in three rows, 50 mm from 5 m',
    { picture: 'group', lens: 'lens-50', from: 5, people: rows(14, 3, { rowDepthMm: 500 }) },
    { stops: [5.6, 8], focus: ['p5', 'p6', 'p7', 'p8', 'p9'], shutter: 100 }
  ),
  judge(
    'twenty in three rows, 35 mm from 6 m',
    { picture: 'group', lens: 'lens-35', from: 6, people: rows(20, 3) },
    { stops: [5, 8], focus: ['p7', 'p8', 'p9', 'p10', 'p11', 'p12', 'p13'], shutter: 100 }
  ),
  judge(
    'forty in four rows, 35 mm from 9 m',
    { picture: 'group', lens: 'lens-35', from: 9, light: 'overcast', people: rows(40, 4) },
    { stops: [5, 11], shutter: 100 }
  ),
  judge(
    'thirty on steps from 12 m, 70 mm',
    { picture: 'group', lens: 'lens-70-200', f: 70, from: 12, light: 'overcast', people: rows(30, 3) },
    { stops: [5.6, 11], shutter: 100 }
  ),
  judge(
    'ten in two rows, in church, 35 mm',
    { picture: 'group', lens: 'lens-35', from: 5, light: 'church', people: rows(10, 2) },
    { stops: [2.8, 5.6], shutter: 80, mostIso: 12800 }
  ),
  judge(
    'six in a living room, 35 mm',
    { picture: 'group', lens: 'lens-35', from: 3.5, light: 'livingRoom', people: rows(6, 1, { spacingMm: 450 }) },
    { stops: [2.5, 5], shutter: 80, mostIso: 6400 }
  ),
  judge(
    'fourteen in three rows by bulbs, 35 mm',
    { picture: 'group', lens: 'lens-35', from: 5, light: 'stringBulbs', people: rows(14, 3, { rowDepthMm: 500 }) },
    { stops: [2.8, 4.5], shutter: 60, mostIso: 12800 }
  ),
  judge(
    'three rows with flash, indoors, 35 mm',
    {
      picture: 'group',
      lens: 'lens-35',
      from: 5,
      light: 'livingRoom',
      flash: { distanceMm: 5000 },
      people: rows(14, 3, { rowDepthMm: 500 })
    },
    { stops: [4, 8], mostIso: 3200 }
  ),
  judge(
    'seated front row, standing back row, 50 mm',
    {
      picture: 'group',
      lens: 'lens-50',
      from: 5,
      people: arrange(
        Array.from({ length: 9 }, (_, i) => who(`p${i}`)),
        { kind: 'seatedFront', count: 9, seated: 4, spacingMm: 560, rowDepthMm: 600 }
      )
    },
    { stops: [4, 8], focus: ['p0', 'p1', 'p2', 'p3'], shutter: 100 }
  )
];

const bouquet = (changes: Partial<Thing>): Thing =>
  newThing('bouquet', 'bouquet', { form: 'bouquet', widthMm: 250, tallMm: 250, deepMm: 60, ...changes });

const ring = (changes: Partial<Thing> = {}): Thing =>
  newThing('rings', 'rings', {
    form: 'rings',
    widthMm: 30,
    tallMm: 20,
    deepMm: 12,
    depthMm: -250,
    heightMm: 1150,
    ...changes
  });

const withThings: readonly SignedSetup[] = [
  judge(
    'rings on a hand, she soft, 85 mm',
    {
      picture: 'personAndThing',
      lens: 'lens-85',
      from: 1.2,
      people: [who('p', { importance: 'maySoft' })],
      things: [ring()],
      camera: { heightMm: 1250, pitchDeg: -4 }
    },
    { stops: [2.8, 8], focus: ['rings'], shutter: 125 }
  ),
  judge(
    'bouquet sharp, she soft, 85 mm',
    {
      picture: 'personAndThing',
      lens: 'lens-85',
      from: 2.2,
      tall: true,
      camera: { heightMm: 1400 },
      people: [who('p', { importance: 'maySoft' })],
      things: [
        bouquet({
          depthMm: -350,
          heightMm: 1250
        })
      ]
    },
    { stops: [1.8, 8], focus: ['bouquet'] }
  ),
  judge(
    'she sharp, bouquet soft, 85 mm',
    {
      picture: 'personAndThing',
      lens: 'lens-85',
      from: 2.2,
      tall: true,
      camera: { heightMm: 1400 },
      people: [who('p', near)],
      things: [
        bouquet({
          depthMm: -350,
          heightMm: 1150,
          importance: 'maySoft'
        })
      ]
    },
    { stops: [1.4, 2.8], focus: ['p'] }
  ),
  judge(
    'she and the bouquet, both sharp, 50 mm',
    {
      picture: 'personAndThing',
      lens: 'lens-50',
      from: 2.5,
      people: [who('p', near)],
      things: [
        bouquet({
          widthMm: 200,
          tallMm: 200,
          depthMm: -250,
          heightMm: 1250
        })
      ],
      background: { wish: 'hint', depthMm: 5000, detailMm: 150 }
    },
    { stops: [5, 11] }
  ),
  judge(
    'dog on the lap, 85 mm',
    {
      picture: 'pet',
      lens: 'lens-85',
      from: 'halfLength',
      people: setupFrom({ template: 'pet' }, 'pet').people,
      camera: { heightMm: 1100 }
    },
    { stops: [2.5, 5.6], shutter: 200 }
  ),
  judge(
    'dog alone, its eyes, 85 mm',
    {
      picture: 'pet',
      lens: 'lens-85',
      from: 1.8,
      people: [newPerson('dog', 'dog', { being: 'pet', statureMm: 500 })],
      camera: { heightMm: 550 }
    },
    { stops: [2, 5.6], focus: ['dog'], shutter: 200 }
  )
];

export const judged: readonly SignedSetup[] = [...onePerson, ...moving, ...two, ...groups, ...withThings];
