/** Whether a picture can be taken at all: for searches that ask it of many. */
import type { Stop } from '../optics/stops';
import { canExpose } from './exposable';
import { backgroundsAt, evaluateStop } from './evaluateStop';
import { focusAt, lightFor, worstRatioOf } from './focus';
import type { StopPlan } from './plan';
import type { Situation } from './situation';

/** What is asked of a stop: everything, or the faces alone. */
export type Asked = 'everything' | 'faces';

/** Whether some stop that can be exposed grants what is asked: what `planSetup` would find, for the price of those in question. */
export function opensWindow(situation: Situation, stops: readonly Stop[], asked: Asked): boolean {
  const inQuestion: { readonly stop: Stop; readonly ratio: number }[] = [];
  for (const stop of stops) {
    const ratio = leastRatio(situation, stop.fNumber, asked);
    if (ratio <= 1 + 1e-9) inQuestion.push({ stop, ratio });
  }
  return inQuestion
    .sort((a, b) => a.ratio - b.ratio)
    .some(({ stop }) => {
      const entry = evaluateStop(situation, stop);
      return entry !== undefined && grants(entry, asked);
    });
}

export function grants(entry: StopPlan, asked: Asked): boolean {
  const granted = entry.facesHold && (asked === 'faces' || entry.backgrounds.every((item) => item.met));
  return granted && canExpose(entry);
}

/** The least worst ratio any allowed focus gives at a stop; Infinity when a group or the backgrounds refuse them all. */
function leastRatio(situation: Situation, N: number, asked: Asked): number {
  const light = lightFor(situation, N);
  let result = 0;
  for (const [index, group] of situation.groups.entries()) {
    let least = Infinity;
    for (const candidate of group.candidates) {
      const focus = focusAt(situation, N, candidate, light);
      const ratio = worstRatioOf(situation, group, focus);
      if (ratio > 1 + 1e-9 || ratio >= least) continue;
      // The backgrounds are judged in the first frame.
      if (index === 0 && asked === 'everything' && !backgroundsAt(situation, focus).every((item) => item.met)) continue;
      least = ratio;
    }
    result = Math.max(result, least);
  }
  return result;
}
