/** Odds against the seconds between focusing and the shutter, by stance. */
import { asFocusTarget } from '../call/focusTarget';
import { somebodyMoves } from '../call/motion';
import type { PlanInput } from '../call/planInput';
import type { Stop } from '../optics/stops';
import type { Camera, Setup } from '../setup/schema';
import { withCamera } from '../setup/moves';
import { evaluateAt } from './evaluateAt';

/** Seconds the chart has points at. */
export const holdSeconds = [0, 0.25, 0.5, 1, 1.5, 2, 3, 4.5, 6] as const;

export interface HoldLine {
  readonly stance: Camera['stance'];
  readonly inUse: boolean;
  /** At each of `holdSeconds`. */
  readonly odds: readonly number[];
}

export interface Hold {
  readonly lines: readonly HoldLine[];
  /** With the stance in use: focus again after so many seconds; null when the odds wanted last, 0 when they never are there. */
  readonly refocusAfterS: number | null;
}

const stances: readonly Camera['stance'][] = ['standing', 'braced', 'monopod', 'tripod'];

/** Null where nothing can be planned, and where somebody moves: they do not wait for the shutter. */
export function oddsOverTime(input: PlanInput, stop: Stop): Hold | null {
  const { setup } = input;
  const now = evaluateAt(input, setup, stop);
  if (!now || somebodyMoves(setup)) return null;
  // The same eye throughout, and a body that does not refocus while one waits.
  const aimed: Setup = { ...setup, intent: { ...setup.intent, target: asFocusTarget(now.entry.target, setup) } };
  const odds = (stance: Camera['stance'], secondsToShutter: number) =>
    evaluateAt(input, withCamera(aimed, { stance, secondsToShutter, focusMode: 'single' }), stop)?.entry.odds ?? 0;
  const own = setup.camera.stance;
  const shown = stances.includes(own) ? stances : [own, ...stances];
  const lines = shown.map((stance) => ({
    stance,
    inUse: stance === own,
    odds: holdSeconds.map((seconds) => odds(stance, seconds))
  }));
  const wanted = setup.intent.oddsWanted;
  const mine = lines.find(({ inUse }) => inUse)?.odds ?? [];
  const under = mine.findIndex((item) => item < wanted);
  const between = (): number => {
    const [before, after] = [mine[under - 1] ?? 1, mine[under] ?? 0];
    const [from, to] = [holdSeconds[under - 1] ?? 0, holdSeconds[under] ?? 0];
    return from + ((before - wanted) / Math.max(1e-9, before - after)) * (to - from);
  };
  return { lines, refocusAfterS: under < 0 ? null : under === 0 ? 0 : between() };
}
