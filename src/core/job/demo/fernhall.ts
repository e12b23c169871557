/** The first demo job: a wedding in a palm house, nine setups and two of them again with another lens. All invented. */
import { defaultCamera, defaultLight, newBackground, newPerson, newSetup, newThing } from '../../setup/defaults';
import { usualSchedule, type Schedule } from '../../setup/schedule';
import type { NewPlace } from '../normalise';
import type { Appearance } from '../../people/appearance';
import type { Camera, Light, KnownLight, Person, Setup } from '../../setup/schema';

const look = (changes: Partial<Appearance>): Appearance => ({
  outfit: 'shirt',
  outfitColour: 'blue',
  hair: 'short',
  hairColour: 'brown',
  skin: 2,
  glasses: false,
  headwear: 'none',
  seat: 'chair',
  ...changes
});
const inesLook = look({ outfit: 'dress', outfitColour: 'ivory', hair: 'bun', hairColour: 'brown', skin: 3 });
const tobiahLook = look({ outfit: 'suit', outfitColour: 'navy', hair: 'curls', hairColour: 'black', skin: 5 });
const margueriteLook = look({
  outfit: 'coat',
  outfitColour: 'green',
  hair: 'bun',
  hairColour: 'white',
  skin: 2,
  glasses: true
});
const ines = (changes: Partial<Person> = {}) =>
  newPerson('ines', 'Ines', { statureMm: 1690, look: inesLook, ...changes });
const tobiah = (changes: Partial<Person> = {}) =>
  newPerson('tobiah', 'Tobiah', { statureMm: 1810, look: tobiahLook, ...changes });

const lit = (as: KnownLight): Light => ({ ...defaultLight, level: { kind: 'estimated', as } });
const camera = (changes: Partial<Camera>): Camera => ({ ...defaultCamera, ...changes });
const at = (distanceMm: number) => ({ kind: 'distance', distanceMm }) as const;
const zoomAt = (focalLengthMm: number) => ({ lensId: 'lens-70-200', focalLengthMm });
/** Looked at closely, as a photographer does who starts today. */
const intent: Setup['intent'] = { ...newSetup('base', 'base').intent, viewing: { kind: 'close' } };
/** The two that come last show what collides, in print. */
const inPrint: Setup['intent'] = { ...intent, viewing: { kind: 'traditional' } };
const glasshouse: Setup['place'] = { scenery: 'palmHouse', backUpMm: null, behindMm: null, sideMm: null };

function westDoor(): Setup {
  return newSetup('demo-west-door', 'West door', {
    notes: 'Ines alone in the doorway, turned to the light. The ferns close behind her must vanish.',
    place: glasshouse,
    camera: camera({ orientation: 'portrait', heightMm: 1560, pitchDeg: -3 }),
    light: lit('windowLight'),
    people: [ines({ headYawDeg: 40, bodyYawDeg: 20, sharp: 'nearEye' })],
    backgrounds: [newBackground('ferns', 'ferns', { depthMm: 1900, detailMm: 38 })],
    intent
  });
}

function westDoorWithThe50(): Setup {
  const door = westDoor();
  return {
    ...door,
    id: 'demo-west-door-50',
    name: 'West door, the 50',
    notes: 'The same framing with the 50, and now both eyes: the ferns and the far eye cannot both have their way.',
    camera: { ...door.camera, lensId: 'lens-50', focalLengthMm: 50, placement: at(950) },
    people: [ines({ headYawDeg: 40, bodyYawDeg: 20, sharp: 'bothEyes' })],
    backgrounds: [newBackground('ferns', 'ferns', { depthMm: 1500, detailMm: 38 })],
    intent: inPrint
  };
}

function rings(): Setup {
  return newSetup('demo-rings', 'Rings', {
    notes: 'The rings on a fern leaf, the two of them soft behind but to be recognised. Then again with both sharp.',
    place: glasshouse,
    camera: camera({ placement: at(1900), heightMm: 1480 }),
    light: lit('windowLight'),
    people: [
      ines({ lateralMm: -110, headYawDeg: 30, bodyYawDeg: 30, sharp: 'nearEye', importance: 'maySoft' }),
      tobiah({ lateralMm: 120, depthMm: 40, headYawDeg: -30, bodyYawDeg: -30, sharp: 'nearEye', importance: 'maySoft' })
    ],
    things: [
      newThing('rings', 'rings', {
        form: 'rings',
        depthMm: -700,
        heightMm: 1420,
        widthMm: 60,
        tallMm: 30,
        deepMm: 12,
        held: false
      })
    ],
    backgrounds: [newBackground('trunks', 'palm trunks', { surface: 'trunks', depthMm: 3200, detailMm: 40 })],
    intent: { ...intent, picture: 'personAndThing' }
  });
}

function underThePalms(): Setup {
  return newSetup('demo-under-palms', 'Under the palms', {
    notes: 'Foreheads together. Trunks gone, the iron arch still hinted.',
    place: glasshouse,
    camera: camera({ placement: { kind: 'framing', framing: 'halfLength' }, heightMm: 1600 }),
    light: lit('openShade'),
    people: [
      ines({ lateralMm: -110, headYawDeg: 35, bodyYawDeg: 50 }),
      tobiah({ lateralMm: 110, depthMm: 30, headYawDeg: -40, bodyYawDeg: -50, headPitchDeg: -10 })
    ],
    backgrounds: [
      newBackground('trunks', 'palm trunks', { surface: 'trunks', depthMm: 2600, detailMm: 14, lateralMm: 300 }),
      newBackground('arch', 'iron arch', { surface: 'arch', depthMm: 6000, detailMm: 110, wish: 'hint' })
    ],
    intent: { ...intent, picture: 'couple' }
  });
}

function walkUpTheNave(): Setup {
  const guests = ['Orla', 'Casimir', 'Juno', 'Ferdi', 'Nadia', 'Hale'].map((name, index) =>
    newPerson(`guest-${index + 1}`, name, {
      lateralMm: index % 2 === 0 ? -1500 : 1500,
      depthMm: -1200 + Math.floor(index / 2) * 1600,
      headYawDeg: index % 2 === 0 ? 55 : -55,
      bodyYawDeg: index % 2 === 0 ? 70 : -70,
      importance: 'maySoft'
    })
  );
  const walking = { towardsMmPerS: 1200, sharp: 'nearEye' } as const;
  return newSetup('demo-nave-walk', 'Walk up the nave', {
    notes: 'They come towards me arm in arm. Guests left and right may fall soft. Bursts, from the end of the nave.',
    camera: camera({
      ...zoomAt(135),
      orientation: 'portrait',
      placement: at(7000),
      heightMm: 1400,
      focusMode: 'continuous',
      secondsToShutter: 0.2
    }),
    place: { ...glasshouse, backUpMm: 9000, behindMm: null, sideMm: 1000 },
    light: lit('brightRoom'),
    people: [
      ines({ lateralMm: -260, headYawDeg: 10, ...walking }),
      tobiah({ lateralMm: 260, headYawDeg: -8, ...walking }),
      ...guests
    ],
    backgrounds: [
      newBackground('door', 'west door', { surface: 'panes', depthMm: 11000, detailMm: 220, wish: 'hint' })
    ],
    intent: { ...intent, picture: 'moving', oddsWanted: 0.8 }
  });
}

/** Fourteen people in three rows on the steps: name, stature, and who is a child or seated. */
const familyRows: readonly (readonly {
  name: string;
  stature: number;
  being?: 'child';
  seated?: true;
  look: Appearance;
}[])[] = [
  [
    {
      name: 'Ottoline',
      stature: 1180,
      being: 'child',
      look: look({ outfit: 'dress', outfitColour: 'red', hair: 'long', hairColour: 'fair' })
    },
    { name: 'Ines', stature: 1690, look: inesLook },
    { name: 'Tobiah', stature: 1810, look: tobiahLook },
    {
      name: 'Wren',
      stature: 1250,
      being: 'child',
      look: look({ outfit: 'shirt', outfitColour: 'sand', hair: 'curls', hairColour: 'black', skin: 5 })
    },
    {
      name: 'Great-aunt Sabeth',
      stature: 1600,
      seated: true,
      look: look({
        outfit: 'coat',
        outfitColour: 'green',
        hair: 'short',
        hairColour: 'white',
        skin: 5,
        seat: 'wheelchair'
      })
    }
  ],
  [
    { name: 'Marguerite', stature: 1580, look: margueriteLook },
    {
      name: 'Anselm',
      stature: 1740,
      look: look({ outfit: 'suit', outfitColour: 'sand', hairColour: 'grey', skin: 4, glasses: true })
    },
    {
      name: 'Corvin',
      stature: 1780,
      look: look({ outfit: 'suit', outfitColour: 'black', hair: 'short', hairColour: 'black', skin: 6 })
    },
    {
      name: 'Petra',
      stature: 1660,
      look: look({ outfit: 'dress', outfitColour: 'blue', hair: 'long', hairColour: 'red', skin: 1 })
    },
    {
      name: 'Ludmila',
      stature: 1640,
      look: look({ outfit: 'coat', outfitColour: 'green', hair: 'bun', hairColour: 'fair', skin: 1 })
    }
  ],
  [
    {
      name: 'Emeric',
      stature: 1830,
      look: look({ outfit: 'suit', outfitColour: 'red', hair: 'bald', hairColour: 'grey', skin: 3 })
    },
    {
      name: 'Isaura',
      stature: 1700,
      look: look({ outfit: 'dress', outfitColour: 'grey', hair: 'curls', hairColour: 'black', skin: 6 })
    },
    {
      name: 'Benno',
      stature: 1760,
      look: look({ outfit: 'shirt', outfitColour: 'sand', hair: 'short', hairColour: 'fair', skin: 2 })
    },
    {
      name: 'Theda',
      stature: 1680,
      look: look({ outfit: 'dress', outfitColour: 'red', hair: 'short', hairColour: 'brown', skin: 4, glasses: true })
    }
  ]
];

function familyOnTheSteps(): Setup {
  const spacing = 560;
  const people = familyRows.flatMap((row, rowIndex) =>
    row.map((member, column) =>
      newPerson(member.name.toLowerCase().replaceAll(/[^a-z]+/g, '-'), member.name, {
        depthMm: rowIndex * 600,
        lateralMm: Math.round((column - (row.length - 1) / 2) * spacing),
        floorMm: rowIndex * 170,
        statureMm: member.stature,
        being: member.being ?? 'adult',
        look: member.look,
        posture: member.seated ? 'seated' : 'standing'
      })
    )
  );
  return newSetup('demo-family-steps', 'Family on the steps', {
    notes: 'Fourteen in three rows, a wheelchair at the right end. A wall behind the camera at 7 m.',
    camera: camera({ lensId: 'lens-50', focalLengthMm: 50, placement: at(5200), heightMm: 1700, pitchDeg: -7 }),
    place: { ...glasshouse, backUpMm: 7000, behindMm: 1500, sideMm: 4000 },
    light: lit('overcast'),
    people,
    backgrounds: [
      newBackground('door', 'glass door', { surface: 'panes', depthMm: 4000, detailMm: 120, wish: 'free' })
    ],
    intent: { ...intent, picture: 'group', style: 'deepAndSafe' }
  });
}

function familyWithThe85(): Setup {
  const family = familyOnTheSteps();
  return {
    ...family,
    id: 'demo-family-steps-85',
    name: 'Family, the 85',
    notes: 'The same family with the 85, back to the wall at 7 m: the lettering on the door behind should not be read.',
    camera: { ...family.camera, lensId: 'lens-85', focalLengthMm: 85, placement: at(7000), pitchDeg: -5 },
    backgrounds: [newBackground('door', 'door lettering', { surface: 'lettering', depthMm: 4000, detailMm: 14 })],
    intent: { ...family.intent, viewing: inPrint.viewing }
  };
}

function granAndPilot(): Setup {
  return newSetup('demo-gran-pilot', 'Gran Marguerite and Pilot', {
    notes: 'She sits by the window, Pilot on her lap. His nose may go soft, his eyes may not.',
    place: glasshouse,
    camera: camera({
      placement: { kind: 'framing', framing: 'halfLength' },
      heightMm: 1100,
      pitchDeg: -3,
      orientation: 'portrait'
    }),
    light: lit('windowLight'),
    people: [
      newPerson('marguerite', 'Marguerite', {
        look: margueriteLook,
        statureMm: 1580,
        posture: 'seated',
        headYawDeg: 15,
        bodyYawDeg: 25
      }),
      newPerson('pilot', 'Pilot', {
        being: 'pet',
        posture: 'seated',
        depthMm: -20,
        lateralMm: 170,
        floorMm: 560,
        statureMm: 330,
        muzzleMm: 130,
        headYawDeg: -20,
        bodyYawDeg: 20
      })
    ],
    backgrounds: [newBackground('ferns', 'ferns', { depthMm: 3600, detailMm: 24, lateralMm: -300 })],
    intent: { ...intent, picture: 'pet', oddsWanted: 0.8 }
  });
}

function speech(): Setup {
  return newSetup('demo-speeches', 'Speeches', {
    notes: 'Low light, from the end of the table.',
    place: glasshouse,
    camera: camera({
      ...zoomAt(135),
      bodyId: 'body-second',
      orientation: 'portrait',
      placement: at(5000),
      heightMm: 1500,
      stance: 'monopod'
    }),
    light: lit('church'),
    people: [
      newPerson('anselm', 'Anselm', {
        look: look({ outfit: 'suit', outfitColour: 'sand', hairColour: 'grey', skin: 4, glasses: true }),
        statureMm: 1740,
        headYawDeg: -25,
        bodyYawDeg: -15,
        mood: 'restless'
      })
    ],
    backgrounds: [
      newBackground('candles', 'candles', { surface: 'candles', depthMm: -2600, detailMm: 20, lateralMm: -200 }),
      newBackground('guests', 'guests', {
        surface: 'people',
        depthMm: 3500,
        detailMm: 80,
        wish: 'hint',
        lateralMm: 600
      })
    ],
    intent
  });
}

function firstDance(): Setup {
  const dancing = { posture: 'embracing', acrossMmPerS: 250, sharp: 'nearEye' } as const;
  return newSetup('demo-first-dance', 'First dance', {
    notes: 'The bulbs behind as discs of light. They turn slowly; wait for a face.',
    camera: camera({ placement: at(4200), heightMm: 1450, focusMode: 'continuous', secondsToShutter: 0.3 }),
    place: { ...glasshouse, backUpMm: 6000, behindMm: 4000, sideMm: 3000 },
    light: lit('stringBulbs'),
    people: [
      ines({ lateralMm: -80, headYawDeg: 35, bodyYawDeg: 80, ...dancing }),
      tobiah({ lateralMm: 90, depthMm: 100, headYawDeg: -60, bodyYawDeg: -80, ...dancing, importance: 'should' })
    ],
    backgrounds: [
      newBackground('bulbs', 'bulbs', { surface: 'lights', depthMm: 5000, detailMm: 60, lateralMm: -600 }),
      newBackground('guests', 'guests', {
        surface: 'people',
        depthMm: 3000,
        detailMm: 160,
        wish: 'hint',
        lateralMm: 900
      })
    ],
    intent: { ...intent, picture: 'moving', oddsWanted: 0.8 }
  });
}

/** A child runs down the steps and back up, round and round. */
function childOnTheSteps(): Setup {
  return newSetup('demo-child-steps', 'Child on the steps', {
    notes: 'Wren runs down towards me and back up, again and again. Wait at the third step.',
    camera: camera({
      ...zoomAt(135),
      placement: at(5000),
      heightMm: 1000,
      stance: 'kneeling',
      focusMode: 'continuous',
      drive: 'burst',
      secondsToShutter: 0.3
    }),
    place: { ...glasshouse, backUpMm: 7000 },
    light: lit('overcast'),
    people: [
      newPerson('wren', 'Wren', {
        being: 'child',
        statureMm: 1250,
        look: look({ outfit: 'shirt', outfitColour: 'sand', hair: 'curls', hairColour: 'black', skin: 5 }),
        towardsMmPerS: 1800,
        mood: 'lively',
        sharp: 'nearEye'
      })
    ],
    backgrounds: [
      newBackground('door', 'glass door', { surface: 'panes', depthMm: 4500, detailMm: 300, wish: 'soft' })
    ],
    intent: { ...intent, picture: 'moving', oddsWanted: 0.6 }
  });
}

function throughTheFerns(): Setup {
  return newSetup('demo-through-ferns', 'Through the ferns', {
    notes: 'With the phone, from behind the ferns: lock on them first, then come through the leaves.',
    camera: camera({
      bodyId: 'body-phone',
      lensId: 'lens-phone-long',
      focalLengthMm: 19.6,
      placement: at(2600),
      heightMm: 1500,
      focusArea: 'tap',
      pointSize: 'medium',
      secondsToShutter: 1
    }),
    place: glasshouse,
    light: lit('openShade'),
    people: [
      ines({ lateralMm: -160, headYawDeg: 20, bodyYawDeg: 30, posture: 'embracing' }),
      tobiah({ lateralMm: 160, headYawDeg: -20, bodyYawDeg: -30, posture: 'embracing' })
    ],
    backgrounds: [
      newBackground('fronds', 'fern fronds', { depthMm: -2200, detailMm: 12, wish: 'hint' }),
      newBackground('palms', 'palms', { depthMm: 4000, detailMm: 60, wish: 'hint' })
    ],
    intent: { ...intent, picture: 'couple' }
  });
}

function wholeNave(): Setup {
  return newSetup('demo-whole-nave', 'The whole nave', {
    notes: 'Small in a wide view with shallow focus: frames side by side, focus and exposure locked after the first.',
    place: glasshouse,
    camera: camera({
      placement: at(5500),
      heightMm: 1300,
      stance: 'tripod',
      focusMethod: 'magnifier',
      stitch: { columns: 4, rows: 3, overlap: 0.35 }
    }),
    light: lit('brightRoom'),
    people: [
      ines({ lateralMm: -200, headYawDeg: 25, bodyYawDeg: 45 }),
      tobiah({ lateralMm: 210, depthMm: 60, headYawDeg: -25, bodyYawDeg: -45 })
    ],
    backgrounds: [
      newBackground('rail', 'fern fronds', { depthMm: -2500, detailMm: 24, lateralMm: -1100 }),
      newBackground('columns', 'iron columns', {
        surface: 'columns',
        depthMm: 7000,
        detailMm: 200,
        wish: 'hint',
        lateralMm: 800
      }),
      newBackground('end', 'east end', { surface: 'panes', depthMm: 14000, detailMm: 400, wish: 'hint' })
    ],
    intent: { ...intent, picture: 'couple' }
  });
}

/** What people are at this wedding. */
const roles: Readonly<Record<string, readonly string[]>> = {
  bride: ['ines'],
  groom: ['tobiah'],
  'her family': ['marguerite', 'anselm', 'petra', 'ottoline'],
  'his family': ['great-aunt-sabeth', 'corvin', 'isaura', 'wren'],
  partner: ['ludmila', 'emeric', 'benno', 'theda'],
  dog: ['pilot']
};
const roleOf = (id: string) =>
  Object.keys(roles).find((role) => roles[role]?.includes(id)) ?? (id.startsWith('guest-') ? 'guest' : '');

const places: Readonly<Record<string, NewPlace>> = {
  door: { id: 'demo-glasshouse', name: 'West door' },
  palms: { id: 'demo-palms', name: 'Under the palms' },
  nave: { id: 'demo-nave', name: 'Nave' },
  steps: { id: 'demo-steps', name: 'East steps' },
  table: { id: 'demo-table', name: 'Long table' }
};

/** When and where each is taken; what has no time just follows. */
const day: Readonly<Record<string, { readonly place: keyof typeof places } & Partial<Schedule>>> = {
  'demo-west-door': { place: 'door', startsAt: '13:40', minutes: 15 },
  'demo-rings': { place: 'door', startsAt: '13:55', minutes: 10 },
  'demo-under-palms': { place: 'palms', startsAt: '14:10', minutes: 15 },
  'demo-nave-walk': { place: 'nave', startsAt: '14:30', minutes: 10, fixed: true },
  'demo-family-steps': { place: 'steps', startsAt: '14:45', minutes: 25 },
  'demo-gran-pilot': { place: 'steps', startsAt: '15:15', minutes: 15, priority: 'ifTime' },
  'demo-child-steps': { place: 'steps', minutes: 10, priority: 'ifTime' },
  'demo-through-ferns': { place: 'palms', minutes: 10, priority: 'ifTime' },
  'demo-whole-nave': { place: 'nave', minutes: 20, priority: 'ifTime' },
  'demo-speeches': { place: 'table', startsAt: '18:30', minutes: 40, fixed: true },
  'demo-first-dance': { place: 'nave', startsAt: '20:10', minutes: 15, fixed: true },
  'demo-west-door-50': { place: 'door', priority: 'ifTime' },
  'demo-family-steps-85': { place: 'steps', priority: 'ifTime' }
};

export function fernhallPlace(setupId: string): NewPlace {
  return places[day[setupId]?.place ?? 'door'] ?? { id: 'demo-glasshouse', name: 'West door' };
}

function onTheDay(setup: Setup): Setup {
  const { place: _, ...schedule } = day[setup.id] ?? { place: 'door' };
  return {
    ...setup,
    people: setup.people.map((person) => ({ ...person, role: roleOf(person.id) })),
    schedule: { ...usualSchedule, ...schedule }
  };
}

/** In the order of the day; the two conflicts worth trying out come last. */
export function fernhallSetups(): Setup[] {
  return [
    westDoor(),
    rings(),
    underThePalms(),
    walkUpTheNave(),
    familyOnTheSteps(),
    granAndPilot(),
    childOnTheSteps(),
    throughTheFerns(),
    wholeNave(),
    speech(),
    firstDance(),
    westDoorWithThe50(),
    familyWithThe85()
  ].map(onTheDay);
}
