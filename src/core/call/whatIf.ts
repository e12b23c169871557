/** What each of the photographer's figures costs in this picture: the call again with it half as large. */
import type { Habits } from '../habits/habits';
import { apertureValue } from '../optics/stops';
import type { Setup } from '../setup/schema';
import type { PlanInput } from './planInput';
import { asCalled } from './inPrint';
import { planSetup } from './planSetup';

export const whatIfs = ['focus', 'hold', 'people', 'shake', 'lean'] as const;
export type WhatIfKind = (typeof whatIfs)[number];

export interface WhatIf {
  readonly kind: WhatIfKind;
  /** The stop the call would pick. */
  readonly stop: string;
  /** How much wider than now, in stops. */
  readonly widerStops: number;
  /** Odds of the stop in use now, before and with the better figure. */
  readonly oddsNow: number;
  readonly oddsThen: number;
}

/** Odds that change by less are not worth telling (no source). */
const tellingOdds = 0.01;

const halve = <T extends object>(figures: T): T =>
  Object.fromEntries(Object.entries(figures).map(([key, value]) => [key, (value as number) / 2])) as T;

const halved: Readonly<Record<WhatIfKind, (habits: Habits) => Habits>> = {
  focus: (habits) => ({
    ...habits,
    focusSpreadUm: halve(habits.focusSpreadUm),
    focusShare: halve(habits.focusShare)
  }),
  hold: (habits) => ({ ...habits, holdMm: halve(habits.holdMm) }),
  people: (habits) => ({ ...habits, swayMm: halve(habits.swayMm) }),
  shake: (habits) => ({ ...habits, shakeShare: halve(habits.shakeShare) }),
  lean: (habits) => ({ ...habits, leanMm: habits.leanMm / 2, leanSpreadMm: habits.leanSpreadMm / 2 })
};

/** The figures that matter in this picture, what is gained by each if it were half as large, the most telling first. */
export function whatIfSteadier(asked: PlanInput): WhatIf[] {
  const input = asCalled(asked, planSetup(asked));
  const free: Setup = { ...input.setup, intent: { ...input.setup.intent, stop: { kind: 'byStyle' } } };
  const now = planSetup({ ...input, setup: free });
  if (now.kind === 'noPlan') return [];
  const inUse = now.stops[now.recommended];
  if (!inUse) return [];
  return whatIfs
    .flatMap((kind): WhatIf[] => {
      const then = planSetup({ ...input, setup: steadier(free, kind), habits: halved[kind](input.habits) });
      const picked = then.kind === 'plan' ? then.stops[then.recommended] : undefined;
      const same = then.kind === 'plan' ? then.stops[now.recommended] : undefined;
      if (!picked || !same) return [];
      const widerStops = apertureValue(inUse.stop.fNumber) - apertureValue(picked.stop.fNumber);
      const told = Math.abs(widerStops) > 0.1 || Math.abs(same.oddsOnTarget - inUse.oddsOnTarget) >= tellingOdds;
      return told
        ? [{ kind, stop: picked.stop.label, widerStops, oddsNow: inUse.oddsOnTarget, oddsThen: same.oddsOnTarget }]
        : [];
    })
    .sort((a, b) => b.widerStops - a.widerStops || b.oddsThen - a.oddsThen);
}

/** People whose own sway is known sway by that: it is halved with the rest. */
function steadier(setup: Setup, kind: WhatIfKind): Setup {
  if (kind !== 'people') return setup;
  return {
    ...setup,
    people: setup.people.map((person) => (person.swayMm === null ? person : { ...person, swayMm: person.swayMm / 2 }))
  };
}
