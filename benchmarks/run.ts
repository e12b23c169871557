/** npm run bench: medians on this machine, one core, each beside what it is held to. Nothing here can fail a test. */
import { findRemedies } from '../src/core/call/remedies/findRemedies';
import { lineUp } from '../src/core/call/lineUp';
import { planSetup } from '../src/core/call/planSetup';
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
const plan20 = median(() => planSetup(twenty), 200);
report('full plan, 20 people in 3 rows, 25 stops', plan20, '≤ 4 ms');
const two = group(2);
report(
  'full plan, 2 people, 25 stops',
  median(() => planSetup(two), 200),
  ''
);
const twoHundred = group(200);
const plan200 = median(() => planSetup(twoHundred), 40);
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
