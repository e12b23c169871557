/** Whether the surface of sharp focus bends: frames of a wall with the edge sheet, through focus. */
import { fieldCurve, fieldStepMm } from '$core/bench/fieldCurve';
import { widestAt } from '$core/bench/focusTest';
import { formatDisc } from '$core/optics/criterion';
import { depthOfField } from '$core/optics/depthOfField';
import { isSameStop } from '$core/optics/stops';
import { edgeProblemWords, fieldWords } from '$core/words/bench';
import type { EdgesRead } from '../../../workers/bench.worker';
import { readEdges, simulateEdges } from '../../../workers/clients/bench';
import type { BenchKind, BenchRun } from '../benchRun.svelte';
import { otherLensText } from '../matching';
import { fieldOrders } from '../simulated';

export type FieldRun = BenchRun<'field', EdgesRead, FieldFigures>;

/** How far the wall is to stand, as focal lengths (chosen: the sheet's pages are measured there). */
const wallAt = 40;

export class FieldFigures {
  readonly #run: FieldRun;

  constructor(run: FieldRun) {
    this.#run = run;
  }

  /** How far to move between two frames, mm. */
  readonly stepMm = $derived.by(() => {
    const { body, lens } = this.#run;
    const [f, wallMm] = [lens.longestMm, wallAt * lens.longestMm];
    const { near, far } = depthOfField(f, widestAt(lens, f), formatDisc(body.sensor), wallMm);
    return fieldStepMm(Math.min(far - near, wallMm / 2));
  });
  /** As they were taken, however they came in. */
  readonly #frames = $derived.by(() =>
    this.#run.counted.map(({ read }) => read).sort((a, b) => (a.facts.clockMs ?? 0) - (b.facts.clockMs ?? 0))
  );
  readonly #curve = $derived.by(() => {
    const { first, busy } = this.#run;
    if (!first || busy) return null;
    const { focalLengthMm, fNumber, pixels } = first;
    const halfDiagonalPx = Math.hypot(pixels.width, pixels.height) / 2;
    return fieldCurve(
      this.#frames.map(({ frame }) => frame),
      { focalLengthMm, fNumber, halfDiagonalPx }
    );
  });
  readonly found = $derived.by(() => (typeof this.#curve === 'string' ? null : this.#curve));
  readonly problem = $derived.by(() => (typeof this.#curve === 'string' ? this.#curve : null));
  readonly widthMm = $derived.by(() => {
    const { sensor } = this.#run.body;
    return Math.max(sensor.widthMm, sensor.heightMm);
  });
  readonly f = $derived.by(() => this.#run.first?.focalLengthMm ?? this.#run.lens.longestMm);
  readonly said = $derived.by(() => {
    const { found, f, widthMm } = this;
    return found && fieldWords(found, { f, widthMm, distanceMm: found.distanceMm, unit: this.#run.unit });
  });
  /** As the lens keeps it, 1/m. */
  readonly #perM = $derived.by(() => (this.found ? Number(this.found.perM.value.toFixed(4)) : null));
  /** Setups whose surface is as measured use it already. */
  readonly inUse = $derived.by(() => this.#perM !== null && this.#run.lens.fieldPerM === this.#perM);

  write(): void {
    const { app, lens, first } = this.#run;
    const { found } = this;
    const perM = this.#perM;
    if (!first || !found || perM === null) return;
    const problem = app.kit.change('lenses', lens.id, 'field measured', (draft) => void (draft.fieldPerM = perM));
    if (problem !== null) {
      app.messages.problem(problem);
      return;
    }
    const { focalLengthMm, fNumber } = first;
    const { distanceMm, by, perM: estimate, frames } = found;
    this.#run.keep(`${lens.name}: field`, [{ focalLengthMm, fNumber, distanceMm, by, perM: estimate, frames }]);
    app.messages.done(`${lens.name}: choose “as measured” for the surface of focus in a setup, and rows follow.`);
  }
}

export const field: BenchKind<'field', EdgesRead, FieldFigures> = {
  id: 'field',
  name: 'Field curvature',
  of: 'lens',
  done: 'measured',
  ownStops: false,
  latestOnly: false,
  sheet: { kind: 'edges', name: 'Edge sheet' },
  pictures: 'Photos of the wall',
  read: readEdges,
  problemText: edgeProblemWords,
  stranger: (first, read) =>
    otherLensText(first, read) ??
    (isSameStop(read.fNumber, first.fNumber) ? null : 'Another aperture than the first: not counted.'),
  simulate: (kit, seed) => {
    const bend = (seed % 2 ? 1 : -1) * (0.5 + (seed % 53) / 100);
    return fieldOrders(kit, bend, seed).map((order, index) => ({
      name: `FIELD_${seed}_${index + 1}.JPG`,
      file: (options) => simulateEdges(order, options)
    }));
  },
  figures: (run) => new FieldFigures(run),
  earlierText: (test, { figures: { widthMm }, unit }) => {
    const row = { f: test.focalLengthMm, widthMm, distanceMm: test.distanceMm, unit };
    return `on ${test.body}: ${fieldWords({ ...test, places: [] }, row).title}`;
  }
};
