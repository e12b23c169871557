/** Where a lens focuses: frames of the focus sheet, by focal length and stop. */
import { mean } from 'd3-array';
import { focusGuide } from '$core/bench/guide';
import { figuresOf, focusResult, focusSets, isWideOpen, widestAt, type Precision } from '$core/bench/focusTest';
import { wingShift } from '$core/bench/focusFrame';
import type { FocusShot } from '$core/bench/schema';
import { focusSd, ownFocus } from '$core/call/scatter';
import { focusMethods, type OwnFocus } from '$core/habits/habits';
import { formatDisc } from '$core/optics/criterion';
import { depthOfField } from '$core/optics/depthOfField';
import { exactFNumber } from '$core/optics/stops';
import { sameFocal, withOwnFocus } from '$core/record/groups';
import { formatLength } from '$core/units/length';
import { focusOffsetText, focusProblemWords, standingWords, wingWords } from '$core/words/bench';
import { focusMethodWords } from '$core/setup/focusChoices';
import type { FocusRead } from '../../../workers/bench.worker';
import { readFocus, simulateFocus } from '../../../workers/clients/bench';
import type { BenchKind, BenchRun } from '../benchRun.svelte';
import { isOtherLens } from '../matching';
import { focusOrders } from '../simulated';

export type FocusRun = BenchRun<'focus', FocusRead, FocusFigures>;

/** By the scale there is no error behind the lens to speak of. */
export const testedMethods = focusMethods.filter((method) => method !== 'scale');

const simulatedFrames = 8;

export class FocusFigures {
  readonly #run: FocusRun;
  method = $state<OwnFocus['method']>('crossPoint');
  /** How well the bias is to be known. */
  wished = $state<Precision>('fifth');
  /** Frames whose lens came from the other side than their turn says. */
  #turned = $state.raw<readonly string[]>([]);
  #chosenId = $state('');
  #setKey = $state('');

  constructor(run: FocusRun) {
    this.#run = run;
  }

  get #habits() {
    return this.#run.app.settings.now.habits;
  }
  readonly #discMm = $derived.by(() => formatDisc(this.#run.body.sensor));
  /** How to set up, for each end of a zoom. */
  readonly guides = $derived.by(() => {
    const { body, lens } = this.#run;
    const longSideMm = Math.max(body.sensor.widthMm, body.sensor.heightMm);
    const ends = lens.shortestMm === lens.longestMm ? [lens.longestMm] : [lens.shortestMm, lens.longestMm];
    return ends.map((focalLengthMm) => {
      const fNumber = widestAt(lens, focalLengthMm);
      const guide = focusGuide(focalLengthMm, fNumber, this.#discMm, longSideMm, lens.closestFocusMm);
      return { focalLengthMm, fNumber, ...guide };
    });
  });
  /** How focus scatters by this method before it is tested, as one standard deviation, µm. */
  readonly usualUm = $derived.by(() => {
    const { body, lens } = this.#run;
    const widestN = exactFNumber(lens.widestFNumber);
    return 1000 * focusSd(this.#habits, { method: this.method, stance: 'tripod', widestN, body, lowLight: 1 });
  });

  readonly sets = $derived.by(() => {
    const frames = this.#run.counted.map(({ id, name, read }) => {
      return { id, name, read, focalLengthMm: read.focalLengthMm, fNumber: read.fNumber };
    });
    return focusSets(frames).map(({ focalLengthMm, fNumber, frames: own }) => {
      const shots = own.map(({ id, name, read }, index): FocusShot & { readonly id: string } => {
        const near = (index % 2 === 0) !== this.#turned.includes(id);
        const { distanceMm, offsetMm, sdMm, offsetUm, sdUm } = read.frame;
        return {
          id,
          file: name.slice(0, 255),
          takenMs: read.facts.clockMs,
          from: near ? 'near' : 'far',
          distanceMm,
          offsetMm,
          sdMm: Math.max(1e-3, sdMm),
          offsetUm,
          sdUm: Math.max(1e-3, sdUm)
        };
      });
      const allowedUm = 1000 * this.#discMm * fNumber;
      const result = focusResult(shots, this.usualUm, allowedUm, this.wished);
      const key = `${Math.round(focalLengthMm)} mm f/${Number(fNumber.toFixed(1))}`;
      return { key, focalLengthMm, fNumber, shots, allowedUm, result, learned: result };
    });
  });
  /** The one that is looked at. */
  readonly set = $derived.by(() => this.sets.find(({ key }) => key === this.#setKey) ?? this.sets[0]);
  chooseSet = (key: string) => (this.#setKey = key);

  /** What all is brought to: where these frames stand, else those of the latest test. */
  readonly distanceMm = $derived.by(() => {
    const meanOf = (shots: readonly FocusShot[] = []) => mean(shots, (shot) => shot.distanceMm);
    const earlier = this.#run.earlier[0]?.shots;
    return meanOf(this.set?.shots) ?? meanOf(earlier) ?? this.guides[0]?.distanceMm ?? 2000;
  });
  readonly shown = $derived.by(() => {
    const { items } = this.#run;
    return items.find(({ id }) => id === this.#chosenId) ?? items[items.length - 1];
  });
  choose = (id: string) => (this.#chosenId = id);
  /** How the sheet and the camera stand, and whether both wings of the frame that is looked at reach as far as the sharp zone is deep. */
  readonly advice = $derived.by(() => {
    const read = this.shown?.read;
    if (read?.kind !== 'measured') return [];
    const { unit, body } = this.#run;
    const { near, far } = depthOfField(read.focalLengthMm, read.fNumber, this.#discMm, read.frame.distanceMm);
    const half = Math.min(body.sensor.widthMm, body.sensor.heightMm) / 2;
    const wings = wingWords(wingShift(read.frame, far - near), unit);
    return [...standingWords(read.frame, half, read.focalLengthMm, unit), ...(wings === '' ? [] : [wings])];
  });
  shotOf = (id: string) => this.sets.flatMap(({ shots }) => shots).find((shot) => shot.id === id);
  /** The lens had come from the other side. */
  turn(id: string): void {
    this.#turned = this.#turned.includes(id) ? this.#turned.filter((one) => one !== id) : [...this.#turned, id];
  }

  readonly #key = $derived.by(() => {
    const { body, lens } = this.#run;
    return { bodyId: body.id, lensId: lens.id, method: this.method, recomposed: false };
  });
  readonly told = $derived.by(() => this.sets.filter(({ result }) => result.verdict !== 'few'));
  /** What of it the odds may reckon with. */
  readonly inUse = $derived.by(() => figuresOf(this.told, this.#run.lens, this.#key, this.#habits, 0));
  readonly unkept = $derived.by(() =>
    this.told.filter(
      ({ shots, result }) =>
        !this.#run.earlier.some(
          ({ biasUm, spreadUm, shots: those }) =>
            those.length === shots.length && biasUm.value === result.bias.value && spreadUm.value === result.sd.value
        )
    )
  );
  /** Against the widest stop of this focal length, in this test or as the plans have it: what stopping down moves. */
  readonly wideOpen = $derived.by(() => {
    const { set } = this;
    const { lens } = this.#run;
    if (!set) return null;
    const here = this.told.find(
      (one) => isWideOpen(lens, one) && Math.abs(one.focalLengthMm / set.focalLengthMm - 1) <= sameFocal
    );
    if (here) return { um: here.result.bias.value, fNumber: here.fNumber };
    const before = ownFocus(this.#habits, this.#key, set.focalLengthMm);
    return before ? { um: before.biasUm, fNumber: widestAt(lens, set.focalLengthMm) } : null;
  });

  write(): void {
    const { app, body, lens } = this.#run;
    const learned = this.inUse.map((one) => ({ ...one, learnedAt: app.now() }));
    this.#run.keep(
      `${lens.name} tested`,
      this.unkept.map(({ focalLengthMm, fNumber, result, shots }) => ({
        method: this.method,
        focalLengthMm,
        fNumber,
        biasUm: result.bias,
        spreadUm: result.sd,
        shots: shots.map(({ id: _, ...shot }) => shot)
      }))
    );
    if (learned.length === 0) {
      app.messages.done(`Kept with the tests of ${lens.name}.`);
      return;
    }
    const step = app.settings.edit(`Figures of ${lens.name} in use`, { habits: withOwnFocus(this.#habits, learned) });
    app.messages.done(`${lens.name} on ${body.name}: keeper rates, calls and Fixes use it.`, step);
  }
}

export const focus: BenchKind<'focus', FocusRead, FocusFigures> = {
  id: 'focus',
  name: 'Focus',
  of: 'pair',
  done: 'measured',
  ownStops: false,
  latestOnly: false,
  sheet: { kind: 'focus', name: 'Focus sheet' },
  pictures: 'Photos of the focus sheet',
  read: readFocus,
  problemText: focusProblemWords,
  stranger: (first, read) => (isOtherLens(first, read) ? 'Taken with another lens than the first: not counted.' : null),
  simulate: (kit, seed, { usualUm, guides }) => {
    const bias = (seed % 2 ? 1 : -1) * usualUm * (0.8 + (seed % 97) / 60);
    const distanceMm = guides[guides.length - 1]?.distanceMm ?? 2000;
    return focusOrders(kit, distanceMm, simulatedFrames, bias, usualUm / 2, seed).map((order, index) => ({
      name: `BENCH_${seed}_${index + 1}.JPG`,
      file: (options) => simulateFocus(order, options)
    }));
  },
  figures: (run) => new FocusFigures(run),
  earlierText: ({ biasUm, focalLengthMm, fNumber, method, shots }, { figures: { distanceMm }, unit }) =>
    `${focusOffsetText(biasUm.value, focalLengthMm, distanceMm, unit)} at ${formatLength(distanceMm, unit)}, ${Number(focalLengthMm.toFixed(0))} mm f/${Number(fNumber.toFixed(1))}, ${focusMethodWords[method]}, ${shots.length} frames`
};
