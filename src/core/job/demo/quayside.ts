/** The second demo job: forty years of a brass band on a bandstand by the water. All invented. */
import { degrees } from '../../maths/vector';
import { appearanceFor, type Appearance } from '../../people/appearance';
import { defaultCamera, defaultLight, newBackground, newPerson, newSetup, newThing } from '../../setup/defaults';
import type { Camera, Light, KnownLight, Person, Setup } from '../../setup/schema';

const lit = (as: KnownLight): Light => ({ ...defaultLight, level: { kind: 'estimated', as } });
const camera = (changes: Partial<Camera>): Camera => ({ ...defaultCamera, ...changes });
const intent: Setup['intent'] = { ...newSetup('base', 'base').intent, viewing: { kind: 'close' } };

/** Front arc seated, two standing arcs on risers behind; the name of each player and their height. */
const arcs: readonly (readonly (readonly [string, number])[])[] = [
  [
    ['Hester', 1640],
    ['Bram', 1790],
    ['Odile', 1610],
    ['Lorcan', 1830],
    ['Mirela', 1680],
    ['Stellan', 1760],
    ['Pia', 1590]
  ],
  [
    ['Gideon', 1740],
    ['Rosalind', 1660],
    ['Tamsin', 1700],
    ['Ansgar', 1850],
    ['Beatrix', 1630],
    ['Thaddeus', 1780],
    ['Zofia', 1650],
    ['Rufus', 1720]
  ],
  [
    ['Konrad', 1810],
    ['Imogen', 1690],
    ['Leopold', 1840],
    ['Sunniva', 1710],
    ['Barnaby', 1770],
    ['Clio', 1670],
    ['Wendel', 1880]
  ]
];

const uniformed = (id: string): Appearance => ({ ...appearanceFor(id), outfit: 'uniform', outfitColour: 'navy' });

const spacingMm = 720;
const arcStepMm = 1000;
const innerRadiusMm = 4200;
const riserMm = 200;

function players(): Person[] {
  return arcs.flatMap((arc, arcIndex) => {
    const radius = innerRadiusMm + arcIndex * arcStepMm;
    return arc.map(([name, statureMm], index) => {
      const angle = ((index - (arc.length - 1) / 2) * spacingMm) / radius;
      const turn = Math.round(degrees(-angle));
      return newPerson(name.toLowerCase(), name, {
        // The middle of the front arc stands on the subject line.
        depthMm: Math.round(radius * Math.cos(angle) - innerRadiusMm),
        lateralMm: Math.round(radius * Math.sin(angle)),
        floorMm: 400 + arcIndex * riserMm,
        statureMm,
        posture: arcIndex === 0 ? 'seated' : 'standing',
        headYawDeg: turn,
        bodyYawDeg: turn,
        look: uniformed(name.toLowerCase())
      });
    });
  });
}

const harbour: Setup['place'] = { scenery: 'bandstand', backUpMm: null, behindMm: null, sideMm: null };

const water = () =>
  newBackground('water', 'harbour wall', { surface: 'horizon', depthMm: 22_000, detailMm: 300, wish: 'free' });

function wholeBand(): Setup {
  return newSetup('demo-band', 'Forty years', {
    notes: 'All twenty-two in three arcs on the bandstand, risers of 20 cm. The railing is behind me at 11 m.',
    camera: camera({
      lensId: 'lens-35',
      focalLengthMm: 35,
      placement: { kind: 'distance', distanceMm: 8200 },
      heightMm: 2000,
      pitchDeg: -3,
      stance: 'tripod'
    }),
    place: { scenery: 'bandstand', backUpMm: 11_000, behindMm: 600, sideMm: 3000 },
    light: lit('overcast'),
    people: players(),
    backgrounds: [
      newBackground('posts', 'bandstand posts', {
        surface: 'columns',
        depthMm: 3200,
        detailMm: 90,
        wish: 'free',
        lateralMm: 600
      }),
      water()
    ],
    intent: { ...intent, picture: 'group', style: 'lensBest', oddsWanted: 0.95 }
  });
}

/** Some of the players side by side in one shallow arc. */
function section(id: string, name: string, names: readonly string[], notes: string): Setup {
  const members = players().filter((player) => names.includes(player.name));
  return newSetup(id, name, {
    notes,
    camera: camera({
      lensId: 'lens-50',
      focalLengthMm: 50,
      placement: { kind: 'group', framing: 'halfLength', marginShare: 0.08 },
      heightMm: 1550,
      pitchDeg: -3
    }),
    place: harbour,
    light: lit('overcast'),
    people: members.map((member, index) => {
      const aside = index - (members.length - 1) / 2;
      return {
        ...member,
        floorMm: 0,
        posture: 'standing',
        lateralMm: Math.round(aside * 560),
        depthMm: Math.round(-aside * aside * 40),
        headYawDeg: Math.round(-aside * 6),
        bodyYawDeg: Math.round(-aside * 12)
      };
    }),
    backgrounds: [
      newBackground('roof', 'bandstand', {
        surface: 'columns',
        depthMm: 5200,
        detailMm: 70,
        wish: 'hint',
        lateralMm: -400
      }),
      water()
    ],
    intent: { ...intent, picture: 'group', style: 'deepAndSafe', oddsWanted: 0.95 }
  });
}

function oldestTuba(): Setup {
  return newSetup('demo-tuba', 'The oldest tuba', {
    notes: 'Wendel and the tuba his grandfather played. The engraving on the bell and his eyes, both.',
    camera: camera({
      placement: { kind: 'framing', framing: 'halfLength' },
      orientation: 'portrait',
      heightMm: 1500,
      pitchDeg: -4
    }),
    place: harbour,
    light: lit('openShade'),
    people: [
      newPerson('wendel', 'Wendel', {
        look: uniformed('wendel'),
        statureMm: 1880,
        headYawDeg: -12,
        bodyYawDeg: -20,
        sharp: 'nearEye'
      })
    ],
    things: [
      newThing('tuba', 'tuba', {
        form: 'tuba',
        depthMm: -60,
        lateralMm: 210,
        heightMm: 1350,
        widthMm: 420,
        tallMm: 620,
        deepMm: 60
      })
    ],
    backgrounds: [
      newBackground('masts', 'masts', {
        surface: 'horizon',
        depthMm: 14_000,
        detailMm: 350,
        wish: 'hint',
        lateralMm: -900
      })
    ],
    intent: { ...intent, picture: 'personAndThing' }
  });
}

export function quaysideSetups(): Setup[] {
  return [
    wholeBand(),
    section(
      'demo-cornets',
      'Cornets',
      ['Hester', 'Bram', 'Odile', 'Lorcan', 'Mirela'],
      'The front desk, shoulder to shoulder.'
    ),
    section(
      'demo-low-brass',
      'Low brass',
      ['Konrad', 'Leopold', 'Barnaby', 'Wendel'],
      'Half length with the bells showing.'
    ),
    oldestTuba()
  ];
}
