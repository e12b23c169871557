/** The demo job. Everything in it is invented. */
import { defaultCamera, defaultLight, newBackground, newJob, newPerson, newSetup } from './defaults';
import type { Job, Person, Setup } from './schema';

const ines = (changes: Partial<Person> = {}) => newPerson('ines', 'Ines', { statureMm: 1690, ...changes });
const tobiah = (changes: Partial<Person> = {}) => newPerson('tobiah', 'Tobiah', { statureMm: 1810, ...changes });

const baseIntent = newSetup('base', 'base').intent;

function westDoor(): Setup {
  return newSetup('demo-west-door', 'West door', {
    notes: 'Ines alone in the doorway, turned to the light. The ferns close behind her must vanish.',
    camera: { ...defaultCamera, orientation: 'portrait', heightMm: 1560, pitchDeg: -3 },
    people: [ines({ headYawDeg: 40, sharp: 'nearEye' })],
    backgrounds: [newBackground('ferns', 'ferns', { depthMm: 1500, detailMm: 38 })]
  });
}

function westDoorWithThe50(): Setup {
  const door = westDoor();
  return {
    ...door,
    id: 'demo-west-door-50',
    name: 'West door, the 50',
    notes: 'The same framing with the 50, and now both eyes: the ferns and the far eye cannot both have their way.',
    camera: {
      ...door.camera,
      lensId: 'lens-50',
      focalLengthMm: 50,
      placement: { kind: 'distance', distanceMm: 950 }
    },
    people: [ines({ headYawDeg: 40, sharp: 'bothEyes' })]
  };
}

function underThePalms(): Setup {
  return newSetup('demo-under-palms', 'Under the palms', {
    notes: 'Foreheads together. Trunks gone, the iron arch still hinted.',
    camera: { ...defaultCamera, placement: { kind: 'framing', framing: 'halfLength' }, heightMm: 1600 },
    people: [
      ines({ lateralMm: -110, headYawDeg: 35 }),
      tobiah({ lateralMm: 110, depthMm: 30, headYawDeg: -40, headPitchDeg: -10 })
    ],
    backgrounds: [
      newBackground('trunks', 'palm trunks', { depthMm: 2600, detailMm: 14, lateralMm: 300 }),
      newBackground('arch', 'iron arch', { depthMm: 6000, detailMm: 110, wish: 'hint' })
    ]
  });
}

/** Fourteen people in three rows on the steps: name, stature, and who is a child or seated. */
const familyRows: readonly (readonly { name: string; stature: number; being?: 'child'; seated?: true }[])[] = [
  [
    { name: 'Ottoline', stature: 1180, being: 'child' },
    { name: 'Ines', stature: 1690 },
    { name: 'Tobiah', stature: 1810 },
    { name: 'Wren', stature: 1250, being: 'child' },
    { name: 'Great-aunt Sabeth', stature: 1600, seated: true }
  ],
  [
    { name: 'Marguerite', stature: 1580 },
    { name: 'Anselm', stature: 1740 },
    { name: 'Petra', stature: 1660 },
    { name: 'Corvin', stature: 1780 },
    { name: 'Ludmila', stature: 1640 }
  ],
  [
    { name: 'Emeric', stature: 1830 },
    { name: 'Isaura', stature: 1700 },
    { name: 'Benno', stature: 1760 },
    { name: 'Theda', stature: 1680 }
  ]
];

function familyOnTheSteps(): Setup {
  const spacing = 560;
  const people = familyRows.flatMap((row, rowIndex) =>
    row.map((member, column) =>
      newPerson(member.name.toLowerCase().replaceAll(/[^a-z]+/g, '-'), member.name, {
        depthMm: rowIndex * 750,
        lateralMm: Math.round((column - (row.length - 1) / 2) * spacing),
        floorMm: rowIndex * 170,
        statureMm: member.stature,
        being: member.being ?? 'adult',
        posture: member.seated ? 'seated' : 'standing'
      })
    )
  );
  return newSetup('demo-family-steps', 'Family on the steps', {
    notes: 'Fourteen in three rows, a wheelchair at the right end. A wall behind the camera at 7 m.',
    camera: {
      ...defaultCamera,
      lensId: 'lens-50',
      focalLengthMm: 50,
      placement: { kind: 'distance', distanceMm: 5200 },
      heightMm: 1700,
      pitchDeg: -7
    },
    place: { backUpMm: 7000, behindMm: 1500, sideMm: 4000 },
    light: { ...defaultLight, scene: { kind: 'estimated', as: 'overcast' } },
    people,
    backgrounds: [newBackground('door', 'glass door', { depthMm: 4000, detailMm: 120, wish: 'free' })]
  });
}

function speech(): Setup {
  return newSetup('demo-speeches', 'Speeches', {
    notes: 'Low light, from the end of the table.',
    camera: {
      ...defaultCamera,
      bodyId: 'body-second',
      lensId: 'lens-70-200',
      focalLengthMm: 135,
      orientation: 'portrait',
      placement: { kind: 'distance', distanceMm: 5000 },
      heightMm: 1500,
      stance: 'monopod'
    },
    light: { ...defaultLight, scene: { kind: 'estimated', as: 'stringBulbs' } },
    people: [newPerson('anselm', 'Anselm', { statureMm: 1740, headYawDeg: -25 })],
    backgrounds: [
      newBackground('candles', 'candles', { depthMm: -2600, detailMm: 20, lateralMm: -200 }),
      newBackground('guests', 'guests', { depthMm: 3500, detailMm: 60, wish: 'hint', lateralMm: 600 })
    ],
    intent: { ...baseIntent, style: 'openAsFacesAllow' }
  });
}

/** Id of the demo job as shipped; copies loaded again get ids of their own. */
export const demoJobId = 'demo-fernhall';

export function demoJob(): { job: Job; setups: Setup[] } {
  return {
    job: newJob(demoJobId, 'Fernhall Glasshouse', {
      date: '2027-06-12',
      notes: 'A wedding of Ines and Tobiah in a palm house: nave 24 m by 9 m, iron columns, steps at the east end.'
    }),
    setups: [westDoor(), westDoorWithThe50(), underThePalms(), familyOnTheSteps(), speech()]
  };
}
