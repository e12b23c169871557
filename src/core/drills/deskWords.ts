/** The drills done at the desk, and the two weeks, in words. */
import type { Calibration, GuessScene, Scored } from './desk/guess';
import type { BestChoice, LostWhy, ModeChoice, ModeScene, ModeShot } from './desk/mode';
import type { PracticeDay, Fortnight } from './fortnight';
import type { Weakness } from './kinds/kind';
import { formatLength, type LengthUnit } from '../units/length';
import { capital } from '../words/call';
import { focusAreaWords, focusModeWords } from '../setup/focusChoices';
import { stopName } from './kinds/layout';
import { type DrillSaid } from './kinds/kind';

export const sceneWords: Readonly<Record<ModeScene, { readonly title: string; readonly text: string }>> = {
  vow: {
    title: 'A vow at the altar',
    text: 'Two stand still, turned to each other, in the light of a church. The one on the left speaks, and must be sharp.'
  },
  child: { title: 'A child running', text: 'Straight towards you, in open shade.' },
  nave: {
    title: 'A walk up the nave',
    text: 'Two come towards you at a walk, in the light of a church. The one on the left must be sharp.'
  },
  leaves: { title: 'A face behind leaves', text: 'Someone stands still; twigs hang between, nearer to you.' },
  players: {
    title: 'A row of players',
    text: 'Six sit in a slanting row and play.'
  },
  cloth: { title: 'Black cloth in candlelight', text: 'A dark suit, little light, someone talking.' }
};

export const pointPlaceNames: Readonly<Record<ModeChoice['point'], string>> = {
  onEye: 'moved onto the eye',
  middle: 'in the centre, then recompose'
};
export const driveWords: Readonly<Record<ModeChoice['drive'], string>> = { one: 'one frame', burst: 'a burst of five' };

/** "continuous, eye detection, moved onto the eye". */
export const choiceWords = ({ mode, area, point }: ModeChoice): string =>
  `${focusModeWords[mode]}, ${focusAreaWords[area]}, ${pointPlaceNames[point]}`;

const times = (count: number): string => (count === 1 ? 'once' : count === 2 ? 'twice' : `${count} times`);
const lostWords: Readonly<Record<LostWhy, (count: number, on: string) => string>> = {
  elsewhere: (count, on) => `${times(count)} focus went elsewhere${on === '' ? '' : `, mostly to ${on}`}`,
  moved: (count) => `${times(count)} someone had moved before the shutter opened`,
  missed: (count) => `${times(count)} focus itself fell short`,
  blinked: (count) => `${times(count)} eyes were closed`
};

/** What came of a scene. @param odds of one frame taken in the best way there is */
export function modeSaid(shot: ModeShot, best: BestChoice, nameOf: (id: string) => string): DrillSaid {
  const { kept, moments, frames, lost, mostlyOn } = shot;
  const on = mostlyOn === null ? '' : nameOf(mostlyOn);
  const worst = (Object.entries(lost) as [LostWhy, number][])
    .filter(([, count]) => count > 0)
    .sort(([, a], [, b]) => b - a)
    .map(([why, count]) => lostWords[why](count, on));
  const looked = frames > moments ? ` ${frames} frames to look through.` : '';
  return {
    title: `${kept} of ${moments} moments kept.`,
    detail: `${worst.length === 0 ? 'None was lost.' : `${capital(worst.join('; '))}.`}${looked}`,
    next: `Best here: ${choiceWords(best.choice)}; ${Math.round(best.odds * 100)} of 100 frames sharp.`
  };
}

/** All six together. */
export function modesSaid(shots: readonly ModeShot[]): DrillSaid {
  const sum = (of: (shot: ModeShot) => number) => shots.reduce((total, shot) => total + of(shot), 0);
  const [kept, moments] = [sum((shot) => shot.kept), sum((shot) => shot.moments)];
  const why = (['elsewhere', 'moved', 'missed', 'blinked'] as const)
    .map((one) => [one, sum(({ lost }) => lost[one])] as const)
    .sort(([, a], [, b]) => b - a)[0];
  const next: Readonly<Record<LostWhy, string>> = {
    elsewhere: 'Most were lost to what focus went to instead: a smaller area, on the eye.',
    moved: 'Most were lost to movement after focusing: continuous, and no turning.',
    missed: 'Most were lost to the focus itself: more light, a cross-type point, or one stop down.',
    blinked: 'What is left is blinking: a burst.'
  };
  return {
    title: `${kept} of ${moments} moments kept.`,
    detail: '',
    next: why && why[1] > 0 ? next[why[0]] : 'Nothing was lost. Again with a longer lens.'
  };
}

/** "85 mm from 3.2 m; six people, 80 cm from the nearest to the furthest; the hedge 4.5 m behind the last." */
export function guessWords({ setup, plan }: Pick<GuessScene, 'setup' | 'plan'>, unit: LengthUnit): string {
  const depths = setup.people.map(({ depthMm }) => depthMm);
  const [near, far] = [Math.min(...depths), Math.max(...depths)];
  const deep =
    far - near < 20 ? 'all at one distance' : `${formatLength(far - near, unit)} from the nearest to the furthest`;
  const [background] = setup.backgrounds;
  const one = depths.length === 1;
  const who = one ? 'one person' : `${depths.length} people, ${deep}`;
  const behind = background
    ? `; the hedge ${formatLength(background.depthMm - far, unit)} behind ${one ? 'them' : 'the last'}`
    : '';
  return `${Math.round(plan.focalLengthMm)} mm from ${formatLength(plan.distanceMm + near, unit)}; ${who}${behind}.`;
}

/** Disc over the height of the picture: "0.52%". */
export const blurShareWords = (share: number): string =>
  `${(share * 100).toFixed(share < 0.01 ? 2 : 1)}% of the height`;

const side = ({ held, off }: Scored, under: string, over: string): string =>
  held ? 'in your range' : off > 0 ? over : under;

/** What came of a guess. */
export function guessSaid(
  { answer }: Pick<GuessScene, 'answer'>,
  { stop, blur }: { readonly stop: Scored; readonly blur: Scored }
): { readonly stop: string; readonly blur: string } {
  return {
    stop: `${stopName(answer.fNumber)} keeps everyone sharp: ${side(stop, 'you would have missed someone', 'you closed further than needed')}.`,
    blur: `The background’s disc is ${blurShareWords(answer.blurShare)}: ${side(blur, 'smaller than you guessed', 'larger than you guessed')}.`
  };
}

/** Whether what one says holds as often as one says it does. */
export function calibrationWords({ held, score, stop, blur }: Calibration): DrillSaid {
  const stops = (value: number) => `${Math.abs(value).toFixed(1)} stops`;
  const title = `${held.count} of ${held.of} ranges held the answer; nine in ten were to.`;
  const widths = `Yours were ${stops(stop.width)} wide for the aperture, ${stops(blur.width)} for the blur, and cost ${stops(score)} a guess.`;
  const leaning =
    Math.abs(stop.off) > 0.5 ? ` You guess ${stops(stop.off)} too ${stop.off > 0 ? 'far closed' : 'wide'}.` : '';
  const next =
    held.high < 0.9
      ? 'You are surer than you know: make the ranges wider.'
      : held.low > 0.9
        ? 'You know more than you say: make the ranges narrower.'
        : Math.abs(stop.off) > 0.5
          ? `${stop.off > 0 ? 'Open' : 'Close'} ${stops(stop.off)} from what feels right.`
          : 'Your ranges are honest. Now make them narrower.';
  return { title, detail: `${widths}${leaning}`, next };
}

const lostTo: Readonly<Record<Weakness, string>> = {
  elsewhere: 'focus went to something else',
  turning: 'the camera was turned after focusing',
  waiting: 'you waited, and swayed',
  moving: 'someone moved',
  focus: 'focus itself fell short',
  depth: 'the group was deeper than the depth of field'
};

/** What two weeks rest on: "Of 84 frames 21 were soft, 12 because the camera was turned after focusing." */
export function fortnightWords({ weak, frames }: Pick<Fortnight, 'weak' | 'frames'>, simulated: boolean): string {
  if (frames === 0) return 'No frames in your Record yet, so this starts with drills you haven’t done.';
  const all = `${frames} ${simulated ? 'simulated ' : ''}frames of your record`;
  const soft = weak.reduce((sum, { lost }) => sum + lost, 0);
  const [worst] = weak;
  if (!worst) return `None of the ${all} was soft: it begins with what was never done.`;
  const most = worst.lost === soft ? 'all' : String(worst.lost);
  return `Of the ${all} ${soft} ${soft === 1 ? 'was' : 'were'} soft, ${most} because ${lostTo[worst.weakness]}.`;
}

/** Why a day has its drill; empty where it is only its turn. */
export const dayBecause = ({ because }: Pick<PracticeDay, 'because'>): string =>
  because === null ? '' : lostTo[because];
