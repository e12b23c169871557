/** One drill with one body and lens: its frames, read and put to their steps, and what came of them. */
import { median } from 'd3-array';
import { anotherDrill } from '$core/drills/anotherDrill';
import { turnedBy, type DrillKit } from '$core/drills/drillSetup';
import { figureWords, type ListedDrill } from '$core/drills/kinds';
import type { DrillOutcome } from '$core/drills/kinds/kind';
import { trackWords } from '$core/drills/kinds/steady';
import { withLearned } from '$core/drills/series/learned';
import { matchFrames } from '$core/drills/series/match';
import { lookedFor, readByDistance, readSeries, type DrillFrame, type FrameRead } from '$core/drills/series/series';
import type { DrillStep } from '$core/drills/series/steps';
import type { Body, Lens } from '$core/kit/schema';
import { exactFNumber } from '$core/optics/stops';
import { sameFocal } from '$core/record/groups';
import type { Camera } from '$core/setup/schema';
import { behindWords } from '$core/words/bench';
import { askedOf, lackingIn } from '$lib/bench/pastTests';
import { seriesOf, type Source } from '$lib/bench/series.svelte';
import type { App } from '$lib/state/app.svelte';
import type { MarksRead } from '../../workers/bench.worker';
import { readMarks, simulateMarks } from '../../workers/clients/bench';
import { laidOut } from './arrangedDrill';
import { keepResult, resultsOf, tick, ticksOf } from './results';
import { drillOrders, keepOrder, truthOf } from './simulated';

export type MarksMeasured = Extract<MarksRead, { kind: 'measured' }>;
type Typed = Readonly<Record<string, { readonly focalLengthMm: number; readonly fNumber: number }>>;

export class DrillSession {
  readonly #app: App;
  readonly drill: ListedDrill;
  readonly #frames: NonNullable<ListedDrill['frames']>;
  readonly body: Body;
  readonly lens: Lens;
  readonly f: number;
  readonly series;
  stance = $state<Camera['stance']>('standing');
  /** Frames a person has put to a step, by the frame. */
  #corrected = $state.raw<Readonly<Record<string, string>>>({});
  /** What the files did not say, by the picture: it is read again with that. */
  #typed = $state.raw<Typed>({});
  /** What the simulated camera really did is shown when it is asked for: first one looks oneself. */
  revealed = $state(false);

  constructor(app: App, drill: ListedDrill, body: Body, lens: Lens) {
    if (!drill.frames) throw new RangeError(`${drill.title} is done without a camera.`);
    this.#app = app;
    this.drill = drill;
    this.#frames = drill.frames;
    this.body = body;
    this.lens = lens;
    this.f = lens.longestMm;
    this.series = seriesOf<MarksRead>(drill.id, body.id, lens.id);
  }

  get unit() {
    return this.#app.settings.now.unit;
  }
  get #habits() {
    return this.#app.settings.now.habits;
  }
  get ownStance(): boolean {
    return this.#frames.ownStance === true;
  }
  readonly laid = $derived.by(() => laidOut(this.drill.id, this.body, this.lens, this.#habits));
  readonly arranged = $derived.by(() => this.laid.arranged ?? this.#frames.arrange(this.laid.kit));
  readonly tasks = $derived.by(() => this.#frames.tasks(this.arranged, this.unit));
  readonly kit = $derived.by((): DrillKit => ({
    body: this.body,
    lens: this.lens,
    focalLengthMm: this.f,
    habits: this.#habits,
    stance: this.ownStance ? this.stance : 'tripod',
    stabiliserStops: this.laid.stops
  }));
  get ticked(): readonly string[] {
    return ticksOf(this.#app, this.drill.id);
  }
  tick(task: string, on: boolean): void {
    tick(this.#app, this.drill.id, task, on);
  }
  nameOf = (step: DrillStep): string => this.#frames.stepName(step, this.unit);

  readonly #measured = $derived.by(() =>
    this.series.items.flatMap(({ id, name, read }) => (read.kind === 'measured' ? [{ id, name, read }] : []))
  );
  readonly #drillFrames = $derived.by(() =>
    this.#measured.map(({ id, name, read }, index): DrillFrame => ({
      id,
      name,
      takenMs: read.facts.clockMs ?? index,
      fNumber: exactFNumber(read.fNumber),
      focalLengthMm: read.focalLengthMm,
      shutterS: read.facts.shutterS,
      lens: read.facts.lens,
      width: read.width,
      height: read.height,
      pixelMm: read.pixelMm,
      marked: read.marked
    }))
  );
  readonly reads = $derived.by((): readonly FrameRead[] => {
    if (this.series.busy) return [];
    return this.#frames.byDistance ? readByDistance(this.#drillFrames) : readSeries(this.#drillFrames);
  });
  readonly match = $derived.by(() => matchFrames(this.arranged.steps, this.reads, this.#corrected));
  readonly another = $derived.by(() => anotherDrill(this.drill.id, this.match, this.reads, this.laid.kit));
  /** Null before a frame is read. */
  readonly outcome = $derived.by((): DrillOutcome | null => {
    if (this.reads.length === 0) return null;
    return this.#frames.judge(this.match, {
      unit: this.unit,
      habits: this.#habits,
      body: this.body,
      focalLengthMm: this.f,
      stance: this.stance,
      stabiliserStops: this.laid.stops,
      discMm: this.laid.discMm,
      arranged: this.arranged
    });
  });
  /** What turning makes of it, before a frame is taken, mm. */
  readonly turns = $derived.by(() => {
    const { distanceMm, things, steps } = this.arranged;
    return steps.map((step) => {
      const behind = things.find(({ index }) => index === step.focusOn)?.depthMm ?? 0;
      return turnedBy(step, { body: this.body, focalLengthMm: this.f, habits: this.#habits }, distanceMm + behind);
    });
  });

  readOf = (frame: FrameRead | null): MarksMeasured | null =>
    this.#measured.find(({ id }) => id === frame?.id)?.read ?? null;
  readonly refused = $derived.by(() =>
    this.series.items.flatMap(({ id, name, read }) => {
      if (read.kind === 'unread') return read.lacks === null ? [{ id, name, why: read.reason }] : [];
      if (read.kind !== 'problem') return [];
      return [{ id, name, why: read.problem === 'twice' ? 'The same mark is in it twice.' : 'No mark found in it.' }];
    })
  );
  readonly lacking = $derived.by(() => lackingIn(this.series.items));
  /** The focal length most frames were taken at, where it is not the one this is laid out for; else null. */
  readonly otherMm = $derived.by(() => {
    const taken = median(this.#measured, ({ read }) => read.focalLengthMm) ?? this.f;
    return Math.abs(taken / this.f - 1) > sameFocal ? taken : null;
  });
  readonly simulated = $derived.by(() => this.#measured.some(({ read }) => read.simulated));
  readonly truths = $derived.by(() =>
    this.match.steps.map(({ step, frame }) => {
      const truth = frame && truthOf(frame.name, step);
      if (!truth) return '';
      return truth.track ? trackWords(truth.track) : behindWords(truth.offsetMm, this.unit);
    })
  );

  readonly earlier = $derived.by(() =>
    resultsOf(this.#app, this.drill.id).filter((one) => one.lensId === this.lens.id)
  );
  readonly isKept = $derived.by(() => {
    const [last] = this.earlier;
    const same = last?.figure === (this.outcome?.figure ?? null);
    return last !== undefined && same && last.steps.length === this.match.steps.length;
  });
  /** Last time beside today, in words; empty where one of them is not told. */
  readonly beside = $derived.by(() => {
    const [last] = this.earlier;
    const figure = this.outcome?.figure ?? null;
    if (!last || figure === null || this.isKept) return '';
    const today = figureWords({ drill: this.drill.id, asked: null, figure }, this.unit);
    return `Last time: ${figureWords(last, this.unit)}. Today: ${today}.`;
  });

  get #asked() {
    return askedOf(this.body, this.lens);
  }
  async take(files: readonly Source[], what: string): Promise<void> {
    await this.series.add(files, (file, options) => readMarks(file, this.#asked, [], options), what);
    await this.#lookAgain();
  }
  /** Marks too blurred to be read lie where other frames have them. */
  async #lookAgain(): Promise<void> {
    const marked = this.#measured.map(({ id, read }) => ({ id, marked: read.marked }));
    const looked = lookedFor(
      marked.map((one) => one.marked),
      this.#frames.byDistance === true
    );
    const expected = Object.fromEntries([...looked].map(([at, marks]) => [marked[at]?.id ?? '', marks]));
    await this.series.again(Object.keys(expected), (file, options, id) =>
      readMarks(file, { ...this.#asked, ...this.#typed[id] }, expected[id] ?? [], options)
    );
  }
  async fill(ids: readonly string[], as: { focalLengthMm: number; fNumber: number }): Promise<void> {
    this.#typed = { ...this.#typed, ...Object.fromEntries(ids.map((id) => [id, as])) };
    await this.series.again(ids, (file, options, id) =>
      readMarks(file, { ...this.#asked, ...this.#typed[id] }, [], options)
    );
    await this.#lookAgain();
  }
  simulate(): void {
    const seed = this.#app.newSeed();
    const kit = { body: this.body, lens: this.lens, focalLengthMm: this.f, at: this.#app.now() };
    const by = { habits: this.#habits, stance: this.stance, stabiliserStops: this.laid.stops };
    this.revealed = false;
    const orders = drillOrders(this.#frames, this.arranged, kit, by, seed);
    const made = orders.map((order, index) => {
      const name = `DRILL_${seed}_${String(index + 1).padStart(2, '0')}.JPG`;
      keepOrder(name, order);
      return { name, file: (options: Parameters<Source['file']>[0]) => simulateMarks(order, options) };
    });
    void this.take(made, 'drawn and measured');
  }

  put = (frameId: string, stepId: string): void => {
    this.#corrected = { ...this.#corrected, [frameId]: stepId };
  };
  restart(): void {
    this.#corrected = {};
    this.series.clear();
  }
  keep(): void {
    const { drill, body, lens, outcome } = this;
    if (!outcome) return;
    keepResult(this.#app, drill.title, {
      simulated: this.simulated,
      drill: drill.id,
      bodyId: body.id,
      body: body.name,
      lensId: lens.id,
      lens: lens.name,
      focalLengthMm: this.f,
      figure: outcome.figure,
      low: outcome.low,
      high: outcome.high,
      stance: this.ownStance ? this.stance : null,
      learned: [...outcome.learned],
      steps: this.match.steps.map(({ step, frame }, index) => {
        return { step: step.id, file: frame?.name.slice(0, 255) ?? null, mm: outcome.offsetsMm?.[index] ?? null };
      })
    });
  }
  /** What the plan rests on from now on; null where it says nothing of one's own hands. */
  readonly use = $derived.by(() => {
    const { use } = this.#frames;
    const learned = this.outcome?.learned ?? [];
    if (!use || learned.length === 0) return null;
    return {
      button: use.button,
      apply: () => {
        const habits = learned.reduce((so, one) => withLearned(so, one, this.stance), this.#habits);
        const step = this.#app.settings.edit('Drill result used', { habits });
        this.#app.messages.done(use.done(this.stance), step);
      }
    };
  });
}
