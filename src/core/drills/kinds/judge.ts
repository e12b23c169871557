/** Judge by eye: the smallest error of focus one sees. */
import type { LengthUnit } from '../../units/length';
import { shortLength } from '../../words/bench';
import type { SharpTaken } from '../desk/judge';
import type { JudgeMode } from '../desk/judgeModes';
import type { QuestResult } from '../desk/quest';
import { defineDrill, type DrillSaid } from './kind';

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
  const measured = `${times(from)}–${times(to)} (90% range): ${shortLength(at * perRatioMm, unit)} off the eye, 85 mm f/1.4 at 2 m.`;
  if (mode === 'stop')
    return {
      title: `You can tell apertures ${times(at)} stops apart.`,
      detail: `${times(from)}–${times(to)} stops (90% range), 85 mm with a hedge behind.`,
      next: 'Look behind them, at lines and at highlights: the face doesn’t show the aperture.'
    };
  if (mode === 'four')
    return {
      title: `Of four you find the sharp one from ${times(at)}× the acceptable blur.`,
      detail: measured,
      next: 'Compare the same lash in all four before you choose.'
    };
  if (mode === 'kind')
    return {
      title: `You name what is wrong from ${times(at)}× the acceptable blur.`,
      detail: `${measured}${sharp.shown > 0 ? ` Of ${sharp.shown} sharp faces you accepted ${sharp.right} for sharp.` : ''}`,
      next:
        sharp.right < sharp.shown / 2
          ? 'You reject sharp ones: before you delete one, look for something sharper in the frame.'
          : 'Look for something sharp. Nothing sharp, all smeared one way: it moved. Sharp in front of the eyes or behind: that is where focus landed.'
    };
  if (mode === 'side')
    return {
      title: `You tell front from behind from ${times(at)}× the acceptable blur.`,
      detail: measured,
      next: 'Compare nose and lashes with ears and hair: the sharper shows the side.'
    };
  const standard =
    to < 1
      ? 'Your eyes see more than the viewing standard allows for: choose a stricter one if your clients see as well as you.'
      : from > 1
        ? 'The viewing standard is stricter than your eyes on this screen.'
        : 'The viewing standard suits your eyes.';
  return {
    title: `You see ${times(at)}× the acceptable blur.`,
    detail: `${measured} ${standard}`,
    next: 'Again at the distance you usually look from: sitting nearer one sees less blur.'
  };
}

const judgedWords: Readonly<Record<Exclude<JudgeMode, 'stop'>, string>> = {
  sharper: 'seen',
  side: 'front told from behind',
  kind: 'what is wrong named',
  four: 'one of four found'
};

export const judge = defineDrill({
  id: 'judge',
  title: 'Judge by eye',
  purpose: 'One face of several is sharp: the smallest error you can see.',
  minutes: 6,
  needs: [],
  practises: {},
  figureText: (figure, _, asked) =>
    asked === 'stop'
      ? `${figure.toFixed(2)} stops told apart`
      : `${judgedWords[asked ?? 'sharper']} from ${figure.toFixed(2)} of what is allowed`
});
