/** npm run bench: medians on this machine, one core, each beside what it is held to. Nothing here can fail a test. */
import { findRemedies } from '../src/core/call/remedies/findRemedies';
import { lineUp } from '../src/core/call/lineUp';
import type { PlanInput } from '../src/core/call/planInput';
import { planSetup } from '../src/core/call/planSetup';
import { sightFrom } from '../src/core/setup/occlusion';
import { eyesMidpoint } from '../src/core/setup/scene';
import { techniqueOf } from '../src/core/technique/technique';
import { waysToFocus } from '../src/core/technique/ways';
import { monteCarloPlan, throwsForEqualAccuracy } from './monteCarlo';
import { conflicted, eightLenses, group } from './scenes';

/** Median time of a call in ms, after warming up. */
function median(work: () => unknown, runs: number): number {
  for (let i = 0; i < Math.max(10, runs / 4); i++) work();
  const times = Array.from({ length: runs }, () => {
    const start = performance.now();
    work();
    return performance.now() - start;
  }).sort((a, b) => a - b);
  return times[Math.floor(times.length / 2)] ?? NaN;
}

const rows: { what: string; median: string; aim: string }[] = [];
const report = (what: string, ms: number, aim: string) => rows.push({ what, median: `${ms.toFixed(2)} ms`, aim });

const twenty = group(20);
/** People nobody has looked at yet: what was seen of them is not known from the run before. */
const anew = (input: PlanInput): PlanInput => ({
  ...input,
  setup: { ...input.setup, people: [...input.setup.people] }
});
const plan20 = median(() => planSetup(anew(twenty)), 200);
report('full plan with technique, 20 people in 3 rows, 25 stops', plan20, '≤ 4 ms');
const closely: PlanInput = {
  ...twenty,
  setup: { ...twenty.setup, intent: { ...twenty.setup.intent, viewing: { kind: 'close' } } }
};
const close20 = median(() => planSetup(anew(closely)), 200);
report('the same, looked at closely', close20, '≤ 4 ms');
const two = group(2);
report(
  'full plan, 2 people, 25 stops',
  median(() => planSetup(anew(two)), 200),
  ''
);
const twoHundred = group(200);
const plan200 = median(() => planSetup(anew(twoHundred)), 40);
report('full plan, 200 people', plan200, `≤ 10 × the 20 (is ${(plan200 / plan20).toFixed(1)} ×)`);
const found = findRemedies(conflicted);
report(
  `plan and all remedies, 20 people (${found.length} found)`,
  median(() => findRemedies(conflicted), 20),
  '≤ 100 ms'
);
report(
  'line-up of 8 lenses, 20 people',
  median(() => lineUp(eightLenses), 30),
  '≤ 40 ms'
);

const entry20 = planSetup(twenty);
const stop20 = entry20.kind === 'plan' ? entry20.stops[entry20.selected]?.stop : undefined;
if (stop20) {
  report(
    'ways of focusing compared, 20 people',
    median(() => waysToFocus(anew(twenty), stop20), 20),
    '≤ 20 ms'
  );
}
const sixty = group(60).setup;
const lens = { x: 0, y: 1600, z: -9000 };
const eyes = sixty.people.map((person) => ({ id: person.id, at: eyesMidpoint(person) }));
report(
  'who hides whom among 60 people',
  median(() => {
    const sees = sightFrom(sixty, lens);
    return eyes.filter(({ id, at }) => sees(id, at)).length;
  }, 60),
  '≤ 2 ms'
);
report(
  'everything the Technique tab says, 20 people',
  median(() => techniqueOf(anew(twenty)), 8),
  ''
);

const throws = 4000;
const start = performance.now();
const thrown = monteCarloPlan(twenty, throws);
const elapsed = performance.now() - start;
const plan = planSetup(twenty);
const worst =
  plan.kind === 'plan' ? Math.max(...plan.stops.map((entry, i) => Math.abs(entry.odds - (thrown[i] ?? 0)))) : NaN;
const equal = (elapsed * throwsForEqualAccuracy) / throws;
console.table(rows);
console.log(
  `Monte Carlo of the same odds, ${throws} throws a stop: ${elapsed.toFixed(0)} ms, largest difference ${worst.toFixed(4)}.\n` +
    `For the accuracy of the quadrature (1e-4) it needs ${throwsForEqualAccuracy.toExponential(1)} throws: ` +
    `${(equal / 1000).toFixed(0)} s, ${Math.round(equal / plan20).toLocaleString('en')} times the whole plan (aim: 300).`
);
const modest = (elapsed * 10_000) / throws;
console.log(
  `For a standard error of 0.5 % (10 000 throws) it takes ${modest.toFixed(0)} ms, ${Math.round(modest / plan20)} times the whole plan (aim: 120).`
);
