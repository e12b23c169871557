/** Whether there is dust on the sensor: one picture of a plain surface. */
import { spotsProblems, spotsWords } from '$core/words/bench';
import type { SpotsRead } from '../../../workers/bench.worker';
import { readSpots, simulateSpots } from '../../../workers/clients/bench';
import type { BenchKind, BenchRun } from '../benchRun.svelte';
import { spotOrder } from '../simulated';

export type SpotsRun = BenchRun<'spots', SpotsRead, SpotsFigures>;

/** The smallest stop most pictures are taken at (common practice, no source). */
const usualStop = 11;

export class SpotsFigures {
  readonly #run: SpotsRun;

  constructor(run: SpotsRun) {
    this.#run = run;
  }

  readonly said = $derived.by(() => (this.#run.first ? spotsWords(this.#run.first.found, usualStop) : null));
  readonly isKept = $derived.by(() => {
    const own = this.#run.first?.found.spots ?? [];
    return this.#run.earlier.some(({ spots: those }) => those.length === own.length && those[0]?.x === own[0]?.x);
  });

  keep(): void {
    const { app, body, first } = this.#run;
    if (!first) return;
    const { found, focalLengthMm, fNumber } = first;
    const { heightMm } = found;
    const own = found.spots.map(({ x, y, speckMm, showsFrom }) => ({ x, y, speckMm, showsFrom }));
    this.#run.keep(`${body.name}: spots`, [{ focalLengthMm, fNumber, heightMm, spots: own }]);
    app.messages.done(`Kept with the tests of ${body.name}.`);
  }
}

export const spots: BenchKind<'spots', SpotsRead, SpotsFigures> = {
  id: 'spots',
  name: 'Dust',
  of: 'body',
  done: 'searched',
  ownStops: false,
  latestOnly: true,
  sheet: null,
  pictures: 'A photo of a plain surface',
  read: readSpots,
  problemText: ({ problem }) => spotsProblems[problem],
  stranger: () => null,
  simulate: (kit, seed) => {
    const order = spotOrder(kit, seed);
    return [{ name: `SPOTS_${seed}.JPG`, file: (options) => simulateSpots(order, options) }];
  },
  figures: (run) => new SpotsFigures(run),
  earlierText: (test) => spotsWords(test, usualStop).title
};
