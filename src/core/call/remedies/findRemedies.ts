/**
 * Remedies for a picture no stop can give: each the least change of one kind that opens the window, all else equal, and
 * only what the place allows; ranked by effort. A remedy carries the setup with it applied, and that setup, planned
 * again, has a window.
 */
import type { StopStep } from '../../optics/stops';
import type { Kit, Setup } from '../../setup/schema';
import { opensWindow } from '../evaluateStop';
import { planSetup, stopsOf } from '../planSetup';
import { prepare } from '../situation';
import { choices } from './choices';
import { families } from './families';
import type { Context, Family, Remedy } from './remedy';

export interface RemedyInput {
  readonly setup: Setup;
  readonly kit: Kit;
  readonly stopStep: StopStep;
}

/** Steps of the first, coarse look along a family, and halvings after it. */
const coarseSteps = 8;
const halvings = 7;

/** Every remedy that opens the window, least effort first. Empty when the window is open or nothing can be planned. */
export function findRemedies({ setup, kit, stopStep }: RemedyInput): Remedy[] {
  const plan = planSetup({ setup, kit, stopStep });
  const body = kit.bodies.find((item) => item.id === setup.camera.bodyId);
  const lens = kit.lenses.find((item) => item.id === setup.camera.lensId);
  if (plan.kind === 'noPlan' || plan.conflict === null || !body || !lens) return [];

  const opens = (changed: Setup): boolean => {
    const prepared = prepare(changed, kit);
    if (prepared.kind === 'noPlan') return false;
    const { situation } = prepared;
    if (!fits(setup, changed, situation.view.distance)) return false;
    return opensWindow(situation, stopsOf(situation.lens, stopStep));
  };
  const asPlan = (changed: Setup): Remedy['opens'] | undefined => {
    const solved = planSetup({ setup: changed, kit, stopStep });
    if (solved.kind === 'noPlan' || !solved.window) return undefined;
    const picked = solved.stops[solved.recommended];
    const label = (index: number) => solved.stops[index]?.stop.label ?? '';
    return {
      stop: label(solved.recommended),
      first: label(solved.window.first),
      last: label(solved.window.last),
      odds: picked?.odds ?? 0
    };
  };

  // The remedy speaks for the call, so a stop chosen by hand makes way for it.
  const free: Setup = { ...setup, intent: { ...setup.intent, stop: { kind: 'byStyle' } } };
  const context: Context = { setup: free, plan, body, lens, kit, distance: plan.distanceMm };
  const found: Remedy[] = [];
  for (const family of families(context)) {
    const amount = leastAmount(family, opens);
    if (amount === undefined) continue;
    const changed = family.apply(amount);
    const result = asPlan(changed);
    if (!result) continue;
    found.push({
      kind: family.kind,
      amount,
      unit: family.unit,
      subject: family.subject ?? '',
      effort: family.effort(amount),
      caution: family.caution ?? null,
      setup: changed,
      opens: result
    });
  }
  for (const choice of choices(context)) {
    const works = choice.options.find((option) => opens(option.setup));
    const result = works && asPlan(works.setup);
    if (!works || !result) continue;
    const { subject, effort, amount = 0 } = works;
    found.push({
      kind: choice.kind,
      amount,
      unit: choice.unit,
      subject,
      effort,
      caution: null,
      setup: works.setup,
      opens: result
    });
  }
  return found.sort((a, b) => a.effort - b.effort);
}

/** Whether the place allows a change: room behind the camera, behind the people, and to either side. */
function fits(before: Setup, after: Setup, distance: number): boolean {
  const { backUpMm } = after.place;
  const { behindMm, sideMm } = before.place;
  const furthest = (setup: Setup) => Math.max(...setup.people.map((person) => person.depthMm));
  const sideways = Math.abs(after.camera.lateralMm - before.camera.lateralMm);
  return (
    (backUpMm === null || distance <= backUpMm + 1e-6) &&
    (behindMm === null || furthest(after) <= furthest(before) + behindMm + 1e-6) &&
    (sideMm === null || sideways <= sideMm + 1e-6)
  );
}

/** The least amount of a family that opens the window, rounded up to its step; undefined when none does. */
function leastAmount(family: Family, opens: (setup: Setup) => boolean): number | undefined {
  if (family.most < family.step) return undefined;
  let low = 0;
  let high: number | undefined;
  for (let i = 1; i <= coarseSteps; i++) {
    // Quadratic spacing looks closer at small changes.
    const amount = family.most * (i / coarseSteps) ** 2;
    if (opens(family.apply(amount))) {
      high = amount;
      break;
    }
    low = amount;
  }
  if (high === undefined) return undefined;
  for (let i = 0; i < halvings && high - low > family.step / 2; i++) {
    const middle: number = (low + high) / 2;
    if (opens(family.apply(middle))) high = middle;
    else low = middle;
  }
  const rounded = Math.min(family.most, Math.ceil(high / family.step - 1e-9) * family.step);
  return opens(family.apply(rounded)) ? rounded : high;
}
