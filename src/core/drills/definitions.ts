/** The drills: what each is for, what it needs, and its steps for the kit in hand. Data; how frames are judged is in verdicts.ts. */
import { depthOfField } from '../optics/depthOfField';
import { exactFNumber, lensStops } from '../optics/stops';
import type { DrillId } from './ids';

export interface Drill {
  readonly id: DrillId;
  readonly title: string;
  /** In one sentence. */
  readonly purpose: string;
  readonly minutes: number;
  readonly needs: readonly string[];
}

const marksAndTripod = 'a tripod, or something to rest on';
export const drills: readonly Drill[] = [
  {
    id: 'stopLadder',
    title: 'Stop ladder',
    purpose:
      'The same row of things at every stop: how deep it really is sharp with this lens, before the plane and behind it.',
    minutes: 25,
    needs: ['four things that stand', 'four of the printed marks', marksAndTripod]
  },
  {
    id: 'diagonal',
    title: 'Three on a diagonal',
    purpose:
      'One focus point, moved from the first thing to the third, and nothing else changed: only one plane is ever sharp.',
    minutes: 15,
    needs: ['three small things that stand', 'three of the printed marks', marksAndTripod]
  },
  {
    id: 'eyeNose',
    title: 'Eye or nose',
    purpose:
      'Focus on the eye, then on the nose, at three distances: what the difference is worth, and from where on it is worth nothing.',
    minutes: 15,
    needs: [
      'a doll, a pet that sleeps, or a patient person',
      'two of the printed marks: one beside the eye, one at the tip of the nose',
      'something to rest on'
    ]
  },
  {
    id: 'edges',
    title: 'To the edges',
    purpose:
      'Focus in the middle, then turn: how far the plane moves off by turning, and how far you lean while you do it.',
    minutes: 20,
    needs: [
      'three things close behind one another',
      'three of the printed marks',
      'no tripod: it is your body that is measured'
    ]
  },
  {
    id: 'sway',
    title: 'Sway',
    purpose:
      'Focus, then release at once, after one second, three, and six: how far you sway meanwhile, beside what the focus itself scatters.',
    minutes: 15,
    needs: [
      'three things close behind one another',
      'three of the printed marks',
      'the way you stand today, and nothing to lean on'
    ]
  },
  {
    id: 'steady',
    title: 'Hold steady',
    purpose: 'The same picture at one shutter time after another: from which on your hands begin to show.',
    minutes: 15,
    needs: ['three of the printed marks on a wall', 'steady light', 'the way you stand today']
  },
  {
    id: 'mode',
    title: 'Which mode?',
    purpose:
      'Six short scenes, never the same twice: pick how to focus, the simulated camera shoots, and you see how many moments you kept, and why.',
    minutes: 8,
    needs: []
  },
  {
    id: 'judge',
    title: 'Judge by eye',
    purpose:
      'Faces side by side, all but one a little out of focus: the smallest error you see, on which side it lies, whether it is one of movement, and whether the viewing standard suits your eyes.',
    minutes: 6,
    needs: ['this screen, at the distance you look at pictures from']
  },
  {
    id: 'guess',
    title: 'Guess, then see',
    purpose:
      'A group is shown: say between which stops lies the first that holds everyone, and how large the background’s blur will be; then the call appears.',
    minutes: 8,
    needs: []
  }
];

export const drillTitle = (id: DrillId): string => drills.find((one) => one.id === id)?.title ?? id;

/** Where the thing focused on is to lie in the picture. */
export type Place = 'middle' | 'left' | 'right' | 'top' | 'bottom';

/** An edge step puts the thing so far off, over half the picture (chosen). */
const asideShare = 0.62;

/** Off the middle by so much, to the right and down, in whatever the halves of the picture are given in. */
export function placeOff(place: Place, halfWide: number, halfHigh: number): { readonly x: number; readonly y: number } {
  switch (place) {
    case 'middle':
      return { x: 0, y: 0 };
    case 'left':
      return { x: -asideShare * halfWide, y: 0 };
    case 'right':
      return { x: asideShare * halfWide, y: 0 };
    case 'top':
      return { x: 0, y: -asideShare * halfHigh };
    case 'bottom':
      return { x: 0, y: asideShare * halfHigh };
  }
}

export interface DrillStep {
  readonly id: string;
  /** Exact. */
  readonly fNumber: number;
  /** The mark to focus on. */
  readonly focusOn: number;
  readonly place: Place;
  readonly upright: boolean;
  /** Turned only, or leaning as one does; null where the camera stays. */
  readonly turning: 'turn' | 'lean' | null;
  /** From how far away, mm; null where all steps are taken from one place. */
  readonly distanceMm: number | null;
  /** Between focusing and the shutter, s; null where it does not matter. */
  readonly waitS: number | null;
  /** The shutter time, s; null where it does not matter. */
  readonly shutterS: number | null;
}

/** A thing with a mark: to the right of the axis, and behind the first, mm. */
export interface DrillObject {
  readonly index: number;
  readonly lateralMm: number;
  readonly depthMm: number;
}

export interface Arranged {
  /** From the lens to the first thing. */
  readonly distanceMm: number;
  readonly spacingMm: number;
  readonly things: readonly DrillObject[];
  readonly steps: readonly DrillStep[];
}

export interface KitLimits {
  readonly focalLengthMm: number;
  /** Nominal marks. */
  readonly widestFNumber: number;
  readonly smallestFNumber: number;
  /** From the pupil, mm. */
  readonly closestMm: number;
  /** Disc that still looks sharp, mm. */
  readonly discMm: number;
  /** Something holds the picture still: longer times are asked for. */
  readonly stabilised?: boolean;
}

/** From so many focal lengths marks are large enough to be read and the zone shallow enough to be seen (chosen). */
const distanceTimes = 24;
/** A smaller stop than this is not asked for: it tells nothing of depth that diffraction does not hide (chosen). */
const smallest = 16;
/** How far apart things stand, in depths of the sharp zone wide open (at f/4 for the ladder), and at least, mm; beside one another, mm: a mark is 80 wide (chosen). */
const spacing = {
  diagonal: { zones: 3, least: 100, aside: 120 },
  stopLadder: { zones: 0.9, least: 40, aside: 95 },
  edges: { zones: 1.2, least: 30, aside: 88 },
  sway: { zones: 1.2, least: 30, aside: 88 },
  steady: { aside: 95 },
  eyeNose: { aside: 95 }
} as const;
/** An eye, and a nose so much nearer, mm (anatomy.ts has it for people; from memory); seen from so many focal lengths (chosen: near, usual, far). */
const face = { deepMm: 25, times: [16, 24, 40] } as const;
/** Waits, s, and frames of each; frames of each shutter time (chosen: the interval is a factor of two or so). */
const waits = { seconds: [0, 1, 3, 6], times: 5 } as const;
const held = { times: 3, aboutF: [0.25, 0.5, 1, 2, 4], longestS: 1, fNumber: 5.6 } as const;
/** Things one behind another, each as far aside of the last; the middle of them on the axis, the first at the distance. */
const inLine = (count: number, asideMm: number, apartMm: number): DrillObject[] =>
  Array.from({ length: count }, (_, index) => ({
    index,
    lateralMm: (index - (count - 1) / 2) * asideMm,
    depthMm: index * apartMm
  }));
const round = (mm: number, step: number): number => Math.max(step, Math.round(mm / step) * step);

/** @returns null for a drill without things */
export function arrangedFor(id: DrillId, kit: KitLimits): Arranged | null {
  const { focalLengthMm: f, widestFNumber, discMm } = kit;
  const distanceMm = round(Math.max(distanceTimes * f, 1.3 * kit.closestMm), 50);
  const deep = (N: number) => {
    const { near, far } = depthOfField(f, N, discMm, distanceMm);
    return Math.min(far - near, distanceMm);
  };
  const widest = exactFNumber(widestFNumber);
  const step = (changes: Partial<DrillStep> & Pick<DrillStep, 'id' | 'focusOn'>): DrillStep => ({
    ...{
      fNumber: widest,
      place: 'middle',
      upright: false,
      turning: null,
      distanceMm: null,
      waitS: null,
      shutterS: null
    },
    ...changes
  });
  /** Each once straight: so that each is sharp in a frame, and is held against it. */
  const straight = () => [1, 0, 2].map((focusOn) => step({ id: `straight${focusOn}`, focusOn }));
  switch (id) {
    case 'mode':
    case 'judge':
    case 'guess':
      return null;
    case 'diagonal': {
      const { zones, least, aside } = spacing.diagonal;
      const spacingMm = round(Math.max(zones * deep(widest), least), 50);
      return {
        ...{ distanceMm, spacingMm },
        things: inLine(3, aside, spacingMm),
        steps: [0, 1, 2].map((index) => step({ id: `focus${index}`, focusOn: index }))
      };
    }
    case 'stopLadder': {
      const { zones, least, aside } = spacing.stopLadder;
      const spacingMm = round(Math.max(zones * deep(exactFNumber(Math.max(4, widestFNumber))), least), 10);
      const stops = lensStops(widestFNumber, Math.min(smallest, kit.smallestFNumber), 'full').map(
        ({ fNumber }) => fNumber
      );
      return {
        ...{ distanceMm, spacingMm },
        things: inLine(4, aside, spacingMm),
        steps: [0, 1].flatMap((focusOn) =>
          stops.map((fNumber, at) => step({ id: `${focusOn === 0 ? 'first' : 'middle'}${at}`, focusOn, fNumber }))
        )
      };
    }
    case 'edges': {
      const { zones, least, aside } = spacing.edges;
      const spacingMm = round(Math.max(zones * deep(widest), least), 10);
      const turned = (turning: 'turn' | 'lean') =>
        [false, true].flatMap((upright) =>
          (['left', 'right', 'top', 'bottom'] as const).map((place) =>
            step({ id: `${turning}${upright ? 'Upright' : ''}${place}`, focusOn: 1, place, upright, turning })
          )
        );
      return {
        ...{ distanceMm, spacingMm },
        // Close enough beside each other to lie in the picture together at its edges.
        things: inLine(3, aside, spacingMm),
        steps: [...straight(), ...turned('turn'), ...turned('lean')]
      };
    }
    case 'eyeNose': {
      const { aside } = spacing.eyeNose;
      const distances = face.times.map((times) => round(Math.max(times * f, 1.3 * kit.closestMm), 50));
      return {
        ...{ distanceMm: distances[0] ?? distanceMm, spacingMm: face.deepMm },
        things: [
          { index: 0, lateralMm: -aside / 2, depthMm: face.deepMm },
          { index: 1, lateralMm: aside / 2, depthMm: 0 }
        ],
        steps: [...new Set(distances)].flatMap((from, at) =>
          [0, 1].map((focusOn) => step({ id: `from${at}on${focusOn}`, focusOn, distanceMm: from }))
        )
      };
    }
    case 'sway': {
      const { zones, least, aside } = spacing.sway;
      const spacingMm = round(Math.max(zones * deep(widest), least), 10);
      return {
        ...{ distanceMm, spacingMm },
        things: inLine(3, aside, spacingMm),
        steps: [
          ...straight(),
          ...waits.seconds.flatMap((waitS) =>
            Array.from({ length: waits.times }, (_, at) => step({ id: `wait${waitS}no${at}`, focusOn: 1, waitS }))
          )
        ]
      };
    }
    case 'steady': {
      const longer: number[] = [];
      const last = held.aboutF[held.aboutF.length - 1] ?? 4;
      if (kit.stabilised)
        for (let s = (2 * last) / f; s < held.longestS * 1.2; s *= 2) longer.push(Math.min(s, held.longestS));
      const fNumber = exactFNumber(Math.min(kit.smallestFNumber, Math.max(widestFNumber, held.fNumber)));
      return {
        ...{ distanceMm, spacingMm: 0 },
        things: inLine(3, spacing.steady.aside, 0),
        steps: [...held.aboutF.map((times) => times / f), ...longer].flatMap((shutterS, time) =>
          Array.from({ length: held.times }, (_, at) =>
            step({ id: `time${time}no${at}`, focusOn: 1, shutterS, fNumber })
          )
        )
      };
    }
  }
}
