/** How sharp a lens is at each stop: frames of a wall with the edge sheet. */
import { zones, type Sharpness, type Zone } from '$core/bench/schema';
import { decentring, lensTable, notWritten, stopRows, stopVerdict, toneOf } from '$core/bench/stopSeries';
import { pixelPitch } from '$core/optics/criterion';
import { exactFNumber, isSameStop } from '$core/optics/stops';
import { same } from '$core/plain/merge';
import { edgeProblemWords, stopsWords, toneWords } from '$core/words/bench';
import { dateText } from '$lib/controls/dates';
import type { EdgesRead } from '../../../workers/bench.worker';
import { readEdges, simulateEdges } from '../../../workers/clients/bench';
import type { BenchKind, BenchRun } from '../benchRun.svelte';
import { otherLensText } from '../matching';
import { testsOf } from '../pastTests';
import { edgeOrders } from '../simulated';

export type StopsRun = BenchRun<'stops', EdgesRead, StopsFigures>;

/** Line pairs a mm say what the lens does, cycles a pixel what the file has, line widths what a print of all of it shows. */
export const measures = {
  mm: { name: 'lp/mm', words: 'MTF50 in line pairs per mm' },
  pixel: { name: 'c/px', words: 'MTF50 in cycles per pixel' },
  height: { name: 'LW/PH', words: 'MTF50 in line widths per picture height' },
  rise: { name: '10–90%', words: 'rise from 10 to 90% in pixels' }
} as const;
export type Measure = keyof typeof measures;

export class StopsFigures {
  readonly #run: StopsRun;
  measure = $state<Measure>('mm');
  edges = $state<'all' | 'standing' | 'lying'>('all');
  otherId = $state('');

  constructor(run: StopsRun) {
    this.#run = run;
  }

  readonly #frames = $derived.by(() =>
    this.#run.counted.map(({ read }) => ({ fNumber: Number(read.fNumber.toFixed(1)), frame: read.frame }))
  );
  readonly rows = $derived.by(() => stopRows(this.#frames));
  readonly pixelMm = $derived.by(() => this.#run.first?.pixelMm ?? pixelPitch(this.#run.body.sensor));
  readonly verdict = $derived.by(() => (this.rows.length === 0 ? null : stopVerdict(this.rows, this.pixelMm)));
  readonly said = $derived.by(() => this.verdict && stopsWords(this.verdict));
  readonly zones = $derived.by(() => zones.filter((zone) => this.rows.some((row) => (row[zone]?.lpPerMm ?? 0) > 0)));
  readonly overshoot = $derived.by(() => Math.max(0, ...this.rows.map((row) => row.overshoot)));
  readonly uneven = $derived.by(() => decentring(this.#frames.map(({ frame }) => frame)));
  readonly tone = $derived.by(() =>
    this.#frames.length === 0 ? '' : toneWords(toneOf(this.#frames.map(({ frame }) => frame)))
  );
  /** Why nothing is written to the lens; null where it may be. */
  readonly barred = $derived.by(() => notWritten(this.rows, this.pixelMm, exactFNumber(this.#run.lens.widestFNumber)));
  isWeak = (fNumber: number, zone: Zone): boolean =>
    this.verdict?.avoid.some((one) => one.fNumber === fNumber && one.zone === zone) === true;

  readonly #table = $derived.by(() => lensTable(this.rows, 'centre', this.pixelMm));
  readonly #corners = $derived.by(() => lensTable(this.rows, 'corner', this.pixelMm));
  /** The plans use it already. */
  readonly inUse = $derived.by(() => {
    const { measured = [], measuredCorner = [] } = this.#run.lens;
    return same(measured, this.#table) && same(measuredCorner, this.#corners);
  });

  /** Every other series there is: other lenses, other copies, this one before. */
  readonly others = $derived.by(() => testsOf(this.#run.app, 'stops', (one) => !same(one.stops, this.rows)));
  readonly other = $derived.by(() => this.others.find(({ id }) => id === this.otherId) ?? null);
  readonly otherName = $derived.by(() => (this.other ? `${this.other.lens}, ${dateText(this.other.madeAt)}` : ''));
  otherAt = (fNumber: number) => this.other?.stops.find((row) => isSameStop(row.fNumber, fNumber)) ?? null;

  /** A figure in the measure that is shown; a dash where there is none. */
  figure = (own: Sharpness | null, pixelMm = this.pixelMm): string => {
    if (!own) return '–';
    if (this.measure === 'rise') return own.risePx.toFixed(1);
    const lp = this.edges === 'all' ? own.lpPerMm : own[this.edges];
    return lp === null ? '–' : this.inMeasure(lp, pixelMm);
  };
  inMeasure(lpPerMm: number, pixelMm = this.pixelMm): string {
    const { widthMm, heightMm } = this.#run.body.sensor;
    if (this.measure === 'pixel') return (lpPerMm * pixelMm).toFixed(2);
    return String(Math.round(this.measure === 'height' ? 2 * lpPerMm * Math.min(widthMm, heightMm) : lpPerMm));
  }

  write(): void {
    const { app, lens, first } = this.#run;
    if (!first || this.barred !== null) return;
    const { pixelMm } = this;
    const [table, corners, stops] = [this.#table, this.#corners, [...this.rows]];
    const why = app.kit.change('lenses', lens.id, 'measured at the Bench', (draft) => {
      draft.measured = table;
      // What was measured in other corners, of another copy perhaps, does not stay beside it.
      if (corners.length > 0) draft.measuredCorner = corners;
      else delete draft.measuredCorner;
    });
    if (why !== null) {
      app.messages.problem(why);
      return;
    }
    this.#run.keep(`${lens.name} measured`, [{ focalLengthMm: first.focalLengthMm, pixelMm, stops }]);
    app.messages.done(`${lens.name} is now planned as measured.`);
  }
}

export const stops: BenchKind<'stops', EdgesRead, StopsFigures> = {
  id: 'stops',
  name: 'Sharpness by aperture',
  of: 'lens',
  done: 'measured',
  ownStops: true,
  latestOnly: false,
  sheet: { kind: 'edges', name: 'Edge sheet' },
  pictures: 'Photos of the edge sheet',
  read: readEdges,
  problemText: edgeProblemWords,
  stranger: otherLensText,
  simulate: (kit, seed) =>
    edgeOrders(kit, seed).map((order, index) => ({
      name: `EDGES_${seed}_${index + 1}.JPG`,
      file: (options) => simulateEdges(order, options)
    })),
  figures: (run) => new StopsFigures(run),
  earlierText: ({ body, stops: rows, pixelMm }) => `on ${body}: ${stopsWords(stopVerdict(rows, pixelMm)).title}`
};
