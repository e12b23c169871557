/** Drills in words: what to do, what came of it, and one thing to do next. */
import { sum } from 'd3-array';
import type { Arranged, DrillStep } from '../drills/definitions';
import type { DrillId } from '../drills/ids';
import type { JudgeMode, SharpTaken } from '../drills/judge';
import type { LearnedAt } from '../drills/learned';
import type { DrillResult } from '../drills/schema';
import type { LeftWhy } from '../drills/match';
import type {
  DiagonalVerdict,
  EdgesVerdict,
  EyeNoseVerdict,
  LadderVerdict,
  SteadyVerdict,
  SwayVerdict
} from '../drills/verdicts';
import type { Track } from '../drills/tracks';
import type { QuestResult } from '../drills/quest';
import { shortLength } from './bench';
import { capital } from './call';
import { formatLength, type LengthUnit } from '../units/length';
import { formatShutter } from './light';

const ordinals = ['first', 'second', 'third', 'fourth', 'fifth', 'sixth', 'seventh'];
export const ordinal = (index: number): string => ordinals[index] ?? `${index + 1}th`;
/** "f/2.8", as it is marked. */
export const stopName = (N: number): string => `f/${N < 10 ? Number(N.toFixed(1)) : Math.round(N)}`;

/** "Focus on the second, f/5.6". */
export function stepName(
  { focusOn, fNumber, place, upright, turning, distanceMm, waitS, shutterS }: DrillStep,
  drill: DrillId,
  unit: LengthUnit = 'metric'
): string {
  switch (drill) {
    case 'sway':
      return waitS === null
        ? `straight, focus on the ${ordinal(focusOn)}`
        : waitS === 0
          ? 'at once'
          : `after ${waitS} s`;
    case 'steady':
      return shutterS === null ? '' : formatShutter(shutterS);
    case 'eyeNose':
      return `from ${formatLength(distanceMm ?? 0, unit)}, on the ${focusOn === 0 ? 'eye' : 'nose'}`;
    case 'edges':
      return turning === null
        ? `straight, focus on the ${ordinal(focusOn)}`
        : `${turning === 'turn' ? 'turned' : 'leaning'}, ${upright ? 'upright, ' : ''}${place}`;
    case 'stopLadder':
      return `${ordinal(focusOn)}, ${stopName(fNumber)}`;
    default:
      return `focus on the ${ordinal(focusOn)}`;
  }
}

export interface Task {
  readonly id: string;
  readonly text: string;
  /** A step of it, by its id: what its frame must look like says what is meant. */
  readonly step?: string;
}

/** What to do, in order, to be ticked. */
export function tasksOf(drill: DrillId, arranged: Arranged, unit: LengthUnit): Task[] {
  const { distanceMm, spacingMm, steps } = arranged;
  const [apart, away] = [shortLength(spacingMm, unit), formatLength(distanceMm, unit)];
  const widest = stopName(Math.min(...steps.map(({ fNumber }) => fNumber)));
  const marked = 'a printed mark in front of each, facing you';
  switch (drill) {
    case 'diagonal':
      return [
        { id: 'stand', text: `Stand three things ${apart} apart on a slant, ${marked}` },
        { id: 'crouch', text: `Lens at their height, ${away} from the first` },
        { id: 'stop', text: `Stop first: ${widest}. Then the shutter, ISO last` },
        { id: 'first', text: 'Point on the first. Half-press, then release', step: 'focus0' },
        { id: 'second', text: 'Move the point to the second. Again', step: 'focus1' },
        { id: 'third', text: 'Move the point to the third. Again', step: 'focus2' },
        { id: 'spare', text: 'One spare of each, in case' }
      ];
    case 'stopLadder':
      return [
        { id: 'stand', text: `Stand four things ${apart} apart, one behind another, each a little aside; ${marked}` },
        { id: 'rest', text: `Tripod or table, lens at their height, ${away} from the first` },
        {
          id: 'first',
          text: `Focus on the first, then leave the focus. One frame at each full stop from ${widest} on`,
          step: 'first0'
        },
        { id: 'middle', text: 'Focus on the second, leave it, and the whole series again', step: 'middle0' }
      ];
    case 'edges':
      return [
        { id: 'stand', text: `Stand three things ${apart} apart, beside one another as close as they go; ${marked}` },
        { id: 'away', text: `${away} from the first, standing free, ${widest}, centre point, single focusing` },
        {
          id: 'straight',
          text: 'Straight: one frame focused on the second, one on the first, one on the third',
          step: 'straight1'
        },
        {
          id: 'turn',
          text: 'Focus on the second in the middle, then turn only, until it lies left, right, at the top, at the bottom; refocus for each',
          step: 'turnleft'
        },
        { id: 'upright', text: 'The same held upright', step: 'turnUprightleft' },
        { id: 'lean', text: 'All eight again, moving as you usually do', step: 'leanleft' }
      ];
    case 'eyeNose': {
      const from = [...new Set(steps.flatMap((step) => step.distanceMm ?? []))].map((mm) => formatLength(mm, unit));
      return [
        {
          id: 'marks',
          text: 'The first mark beside an eye, as far away as it is; the second beside the tip of the nose'
        },
        { id: 'set', text: `${widest}, one point, single focusing, the lens at the height of the eye` },
        ...from.map((away, index) => ({
          id: `from${index}`,
          text: `From ${away}: focus on the eye, then on the nose`,
          step: `from${index}on0`
        }))
      ];
    }
    case 'sway':
      return [
        { id: 'stand', text: `Stand three things ${apart} apart, beside one another as close as they go; ${marked}` },
        { id: 'away', text: `${away} from the first, ${widest}, centre point, single focusing; stand as you do today` },
        {
          id: 'straight',
          text: 'One frame focused on the second, one on the first, one on the third',
          step: 'straight1'
        },
        { id: 'once', text: 'On the second, five times: focus and release at once', step: 'wait0no0' },
        { id: 'one', text: 'Five times: focus, count one second, release' },
        { id: 'three', text: 'Five times with three seconds' },
        { id: 'six', text: 'Five times with six. Another stance another day' }
      ];
    case 'steady': {
      const times = [...new Set(steps.flatMap(({ shutterS }) => shutterS ?? []))].map(formatShutter);
      return [
        { id: 'hang', text: `Hang three marks beside one another on a wall, ${away} away` },
        { id: 'set', text: `Manual at ${widest}, ISO automatic; focus on the middle one` },
        { id: 'times', text: `Three frames each at ${times.join(', ')}`, step: 'time0no0' }
      ];
    }
    case 'mode':
    case 'judge':
    case 'guess':
      return [];
  }
}

export interface DrillSaid {
  readonly title: string;
  readonly detail: string;
  /** One thing to do next. */
  readonly next: string;
}

const nothingFits: DrillSaid = {
  title: 'No frame fits a step.',
  detail: '',
  next: 'Take them again, with the marks in the picture and readable.'
};

const list = (indices: readonly number[]): string => indices.map((index) => `the ${ordinal(index)}`).join(' and ');

export function diagonalWords({ steps, missing, right, offMm }: DiagonalVerdict, unit: LengthUnit): DrillSaid {
  const done = steps.length - missing.length;
  if (done === 0)
    return {
      title: 'No frame fits a step.',
      detail: '',
      next: 'Take each again, with the marks in the picture and readable.'
    };
  const twice = steps.filter(({ frame }) => frame !== null).map(({ step }) => step.focusOn);
  const title =
    missing.length > 0
      ? `${missing.length === 1 ? 'One' : 'Two'} still to do: ${list(missing)}.`
      : right === steps.length
        ? 'Each time the one you chose was the sharpest.'
        : `${right} of ${steps.length} times the one you chose was the sharpest.`;
  const worst = [...steps]
    .filter(({ offsetMm }) => offsetMm !== null)
    .sort((a, b) => Math.abs(b.offsetMm ?? 0) - Math.abs(a.offsetMm ?? 0))[0];
  const off = offMm === null ? '' : `On average the plane lay ${shortLength(offMm, unit)} off.`;
  const next =
    missing.length > 0
      ? `Take ${list(missing)} again: move the point first, then half-press.`
      : right < steps.length && worst
        ? `On the ${ordinal(worst.step.focusOn)} it lay ${shortLength(Math.abs(worst.offsetMm ?? 0), unit)} ${(worst.offsetMm ?? 0) < 0 ? 'in front' : 'behind'}: see what else the point covered there.`
        : twice.length === steps.length
          ? 'Next time nearer, or with the point in a corner of the frame.'
          : '';
  return { title, detail: off, next };
}

export function ladderWords({ rows, departs, costsFrom, missing }: LadderVerdict): DrillSaid {
  const held = rows.map(({ focusOn, holds, expected }) => {
    const said = holds === null ? 'no stop holds all' : `${stopName(holds)} holds all`;
    const theory = expected === null ? 'none should' : `${stopName(expected)} should`;
    return `focused on the ${ordinal(focusOn)}, ${said} (${theory})`;
  });
  const [best] = [...rows].filter(({ holds }) => holds !== null).sort((a, b) => (a.holds ?? 99) - (b.holds ?? 99));
  const title = best?.holds
    ? `${stopName(best.holds)} holds all, focused on the ${ordinal(best.focusOn)}.`
    : 'No stop holds all of them.';
  const departing =
    departs === null
      ? ''
      : Math.abs(departs) < 0.1
        ? ' Your lens keeps to theory within a tenth.'
        : ` Your lens blurs ${Math.round(Math.abs(departs) * 100)} % ${departs > 0 ? 'more' : 'less'} than theory.`;
  const cost =
    costsFrom === null ? '' : ` From ${stopName(costsFrom.fNumber)} on ${costsFrom.by} costs what was focused on.`;
  const next =
    missing > 0
      ? `${missing === 1 ? 'One step is' : `${missing} steps are`} missing: take ${missing === 1 ? 'it' : 'them'} again.`
      : best && best.focusOn !== 0
        ? 'Remember the difference: focusing a third of the way in holds all sooner than focusing on the first.'
        : 'Try it again at twice the distance.';
  return { title, detail: `${held.join('; ')}.${departing}${cost}`.replace(/^f/, 'F'), next };
}

export function edgesWords(
  { straightMm, turnOffMm, leaned, missing, steps }: EdgesVerdict,
  unit: LengthUnit
): DrillSaid {
  if (missing === steps.length) return nothingFits;
  const of = (mm: number) => `${shortLength(Math.abs(mm), unit)} ${mm < 0 ? 'in front' : 'behind'}`;
  const turn = turnOffMm === null ? '' : ` Turning alone lay ${of(turnOffMm)} of what it should.`;
  const straight = straightMm === null ? '' : `Straight, the plane lay ${of(straightMm)}.`;
  if (!leaned)
    return {
      title: 'How far you lean is not told yet.',
      detail: straight + turn,
      next: 'Four leaning frames at least are needed.'
    };
  const { lean, spread } = leaned;
  const clear = lean.low > 0 || lean.high < 0;
  const way = lean.value > 0 ? 'forward' : 'back';
  return {
    title: clear
      ? `You lean ${shortLength(Math.abs(lean.value), unit)} ${way} while you turn.`
      : 'You keep your distance while you turn, as far as this can tell.',
    detail: `${shortLength(Math.min(Math.abs(lean.low), Math.abs(lean.high)), unit)} to ${shortLength(Math.max(Math.abs(lean.low), Math.abs(lean.high)), unit)} nine times in ten, scattering by ${shortLength(spread.value, unit)}. ${straight}${turn}`,
    next: clear
      ? 'Turn about your wrists, elbows at the body, and take the leaning frames again.'
      : 'Nothing to mend: try it nearer.'
  };
}

/** What eye or nose is worth: "From 3.4 m on it makes no difference." */
export function eyeNoseWords(
  { distances, deepMm, sameFromMm, missing, steps }: EyeNoseVerdict,
  unit: LengthUnit
): DrillSaid {
  if (missing === steps.length) return nothingFits;
  const done = distances.filter(({ frames }) => frames > 0);
  const percent = (ratio: number) => `${Math.round(100 * ratio)} %`;
  const each = done
    .map(({ distanceMm, measured, expected }) =>
      measured === null
        ? `from ${formatLength(distanceMm, unit)} not measured`
        : `from ${formatLength(distanceMm, unit)} by ${percent(measured)} of what is allowed (${percent(expected)} by theory)`
    )
    .join(', ');
  // Where it makes no difference, neither was the sharper.
  const telling = done.filter(({ expected }) => expected > 1);
  const [frames, right] = [sum(telling, (one) => one.frames), sum(telling, (one) => one.right)];
  const apart = deepMm === null ? '' : ` They lay ${shortLength(deepMm, unit)} apart.`;
  const chosen = right < frames ? ` ${right} of ${frames} times the one you chose was the sharper.` : '';
  const worst = done.find(({ measured }) => measured !== null && measured > 1);
  return {
    title:
      sameFromMm === null
        ? 'Eye and nose could not be told apart by their distance.'
        : `From ${formatLength(sameFromMm, unit)} on, eye or nose makes no difference.`,
    detail: `${capital(`focused on one, the other is blurred ${each}`)}.${apart}${chosen}`,
    next:
      missing > 0
        ? `${missing === 1 ? 'One step is' : `${missing} steps are`} missing: take ${missing === 1 ? 'it' : 'them'} again.`
        : right < frames
          ? 'Where the wrong one was sharp: a smaller point, and see what else it covered.'
          : worst
            ? `Nearer than that the point belongs on the eye: from ${formatLength(worst.distanceMm, unit)} the nose costs it.`
            : 'At these distances either will do: try it from nearer.'
  };
}

/** How far one sways: "You sway 6 mm in the first second." */
export function swayDrillWords({ swayed, missing, miscounted, steps }: SwayVerdict, unit: LengthUnit): DrillSaid {
  if (missing === steps.length) return nothingFits;
  const count =
    miscounted === 0
      ? ''
      : ` ${Math.abs(miscounted)} ${Math.abs(miscounted) === 1 ? 'frame is' : 'frames are'} ${miscounted > 0 ? 'too many' : 'missing'}: which, the files cannot tell; put them to their steps by hand.`;
  if (!swayed)
    return {
      title: 'How far you sway is not told yet.',
      detail: count.trim(),
      next: 'At least four frames at once, and four after a wait.'
    };
  const { sway, focus, byWait } = swayed;
  const length = (mm: number) => shortLength(mm, unit);
  const each = byWait
    .map(({ waitS, spread }) => `${waitS === 0 ? 'at once' : `after ${waitS} s`} ${length(spread.value)}`)
    .join(', ');
  const least = sway.low > focus.value;
  return {
    title: `You sway ${length(sway.value)} in the first second.`,
    detail: `${length(sway.low)} to ${length(sway.high)} nine times in ten; the focus itself scatters by ${length(focus.value)}. Planes scattered by ${each}.${count}`,
    next: least
      ? 'You move more than the focus errs: release as it is found, or brace yourself, and take it again.'
      : sway.high < focus.value
        ? 'Waiting costs you less than the focus errs by itself: you stand well.'
        : 'Your sway and the focus are of a size: release as it is found. Another stance another day.'
  };
}

/** How a track runs, by its angle from across: "across", "up and down", "aslant". */
const runs = (angle: number): string => {
  const steep = Math.abs(Math.sin(angle));
  return steep < Math.sin(Math.PI / 6) ? 'across' : steep > Math.cos(Math.PI / 6) ? 'up and down' : 'aslant';
};

/** "a track of 2.6 pixels, across". */
export function trackWords({ px, angle }: Track): string {
  if (px === 0) return 'no track to be seen';
  return `a track of ${px.toFixed(1)} pixels${angle === null ? '' : `, ${runs(angle)}`}`;
}

/** How long one can hold: "Your hands show from 1/60 s on." */
export function steadyWords({ steady, told, seen, missing, steps }: SteadyVerdict, focalLengthMm: number): DrillSaid {
  if (missing === steps.length) return nothingFits;
  if (!steady)
    return {
      title: 'How steady you are is not told yet.',
      detail: `${told} frames could be measured, ${seen} of them show a track.`,
      next:
        seen < 3 && told >= 6
          ? 'Take longer times too: at these your hands do not show.'
          : 'Six frames at least are needed, three of them at long times.'
    };
  const { showsFromS, byTime } = steady;
  const shorter = Math.log2(1 / focalLengthMm / showsFromS.value);
  const stops = `${Math.abs(shorter).toFixed(1)} stops`;
  const each = byTime
    .map(({ shutterS, seen: shown, times }) => `${formatShutter(shutterS)} ${shown} of ${times}`)
    .join(', ');
  return {
    title: `Your hands show from ${formatShutter(showsFromS.value)} on.`,
    detail: `${formatShutter(showsFromS.low)} to ${formatShutter(showsFromS.high)} nine times in ten. A track was to be seen at ${each}.`,
    next:
      shorter > 0.3
        ? `Stay ${stops} shorter than 1/${Math.round(focalLengthMm)}, or brace yourself and take it again.`
        : shorter < -0.3
          ? `You hold ${stops} longer than 1/${Math.round(focalLengthMm)}.`
          : `1/${Math.round(focalLengthMm)} is your time: no longer.`
  };
}

/** @param perRatioMm how far off at a usual place a blur as large as allowed is, mm */
export function judgeWords(
  { threshold, low, high }: QuestResult,
  mode: JudgeMode,
  perRatioMm: number,
  unit: LengthUnit,
  sharp: SharpTaken = { shown: 0, right: 0 }
): DrillSaid {
  const [at = 0, from = 0, to = 0] = [threshold, low, high].map((log) => 10 ** log);
  const times = (value: number) => value.toFixed(value < 1 ? 2 : 1);
  const measured = `${times(from)} to ${times(to)} nine times in ten, three answers right of four: ${shortLength(at * perRatioMm, unit)} off the eye, 85 mm f/1.4 at 2 m.`;
  if (mode === 'stop')
    return {
      title: `You tell stops apart from ${times(at)} on.`,
      detail: `${times(from)} to ${times(to)} stops nine times in ten, three answers right of four, 85 mm with a hedge behind.`,
      next: 'Look at what is behind, at lines and at what shines: the face says nothing of the stop.'
    };
  if (mode === 'four')
    return {
      title: `Of four you find the sharp one from ${times(at)} of the blur that is allowed.`,
      detail: measured,
      next: 'Hold the same lash of all four against each other before you keep one.'
    };
  if (mode === 'kind')
    return {
      title: `You name what is wrong from ${times(at)} of the blur that is allowed.`,
      detail: `${measured}${sharp.shown > 0 ? ` Of ${sharp.shown} sharp faces you took ${sharp.right} for sharp.` : ''}`,
      next:
        sharp.right < sharp.shown / 2
          ? 'You find fault with sharp ones: look for something else in the picture that is sharper before you throw one away.'
          : 'Look for something sharp: nowhere, and all of it drawn out one way, it moved; before the eyes or behind them, the plane lies there.'
    };
  if (mode === 'side')
    return {
      title: `You tell front from behind from ${times(at)} of the blur that is allowed.`,
      detail: measured,
      next: 'Look at what lies nearer than the eyes and what lies further: nose and lashes, ears and hair. The sharper tells the side.'
    };
  const standard =
    to < 1
      ? 'Your eyes see more than the viewing standard allows for: choose a stricter one in the setup, if whoever looks at them sees like you.'
      : from > 1
        ? 'The viewing standard is stricter than your eyes on this screen.'
        : 'The viewing standard suits your eyes.';
  return {
    title: `You see ${times(at)} of the blur that is allowed.`,
    detail: `${measured} ${standard}`,
    next: 'Again at the distance you usually look from: sitting nearer one sees less blur.'
  };
}

export const leftWords: Readonly<Record<LeftWhy, string>> = {
  otherLens: 'another lens or focal length',
  otherStop: 'at a stop no step asks for',
  otherTime: 'at a shutter time no step asks for, or none is known',
  noMarks: 'no marks could be measured in it',
  nothingSharp: 'its plane lies at none of what was to be focused on'
};

const judgedWords: Readonly<Record<Exclude<JudgeMode, 'stop'>, string>> = {
  sharper: 'seen',
  side: 'front told from behind',
  kind: 'what is wrong named',
  four: 'one of four found'
};

/** "22 mm off", "12 % from theory", "leaning 21 mm". */
export function figureWords(
  { drill, figure, asked }: Pick<DrillResult, 'drill' | 'figure' | 'asked'>,
  unit: LengthUnit
): string {
  if (figure === null) return 'not told';
  switch (drill) {
    case 'diagonal':
      return `${shortLength(figure, unit)} off`;
    case 'stopLadder':
      return `${Math.round(Math.abs(figure) * 100)} % from theory`;
    case 'edges':
      return `leaning ${shortLength(Math.abs(figure), unit)} ${figure < 0 ? 'back' : 'forward'}`;
    case 'eyeNose':
      return `no difference from ${formatLength(figure, unit)} on`;
    case 'sway':
      return `swaying ${shortLength(figure, unit)} a second`;
    case 'steady':
      return `held to ${formatShutter(figure)}`;
    case 'mode':
      return `kept ${Math.round(figure * 100)} % of the moments`;
    case 'guess':
      return `${figure.toFixed(1)} stops of doubt`;
    case 'judge':
      return asked === 'stop'
        ? `stops told apart from ${figure.toFixed(2)}`
        : `${judgedWords[asked ?? 'sharper']} from ${figure.toFixed(2)} of what is allowed`;
  }
}

/** "You sway 6 mm in a second, kneeling (4 to 9 mm)". */
export function learnedWords(
  { what, stance, value, low, high }: Pick<LearnedAt, 'what' | 'stance' | 'value' | 'low' | 'high'>,
  unit: LengthUnit
): string {
  const mm = (one: number) => shortLength(Math.abs(one), unit);
  /** "17 to 23 mm": what both ends say last is said once. */
  const between = (say: (one: number) => string) => {
    const [from, to] = [say(low).split(' '), say(high)];
    if (from.length > 1 && to.endsWith(` ${from.slice(1).join(' ')}`)) from.splice(1);
    return `${from.join(' ')} to ${to}`;
  };
  // Where the interval holds nought it reaches both ways.
  const sided = (one: number) => `${mm(one)} ${one < 0 ? 'back' : 'nearer'}`;
  const how = stance === null ? '' : stance === 'monopod' || stance === 'tripod' ? `on a ${stance}` : stance;
  switch (what) {
    case 'lean':
      return `You come ${sided(value)} while turning (${between(sided)})`;
    case 'leanSpread':
      return `From one turn to the next that differs by ${mm(value)} (${between(mm)})`;
    case 'sway':
      return `You sway ${mm(value)} in a second, ${how} (${between(mm)})`;
    case 'shake':
      return `At 1/focal length you shake by ${value.toFixed(2)} of the usual disc, ${how} (${low.toFixed(2)} to ${high.toFixed(2)})`;
  }
}
