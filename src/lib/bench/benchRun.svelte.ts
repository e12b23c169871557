/**
 * A test at the Bench: what defines one (`BenchKind`), and one in progress with one body and lens (`BenchRun`): its pictures, those that count
 * and those that do not, and what is kept of it. Neither knows a test by name.
 */
import type { SheetKind } from '$core/bench/pages';
import type { BenchTest } from '$core/bench/schema';
import type { Body, Lens } from '$core/kit/schema';
import type { LengthUnit } from '$core/units/length';
import { newRow } from '$lib/data';
import type { App } from '$lib/state/app.svelte';
import type { BenchAsked, FrameTold, Unread } from '../../workers/bench.worker';
import type { CallOptions } from '../../workers/client';
import { askedOf, lackingIn, testsOf } from './pastTests';
import { seriesOf, sources, type Source } from './series.svelte';

export type BenchKindId = BenchTest['kind'];
export type TestOf<Id extends BenchKindId> = Extract<BenchTest, { kind: Id }>;

/** What becomes of a picture. */
export type BenchRead =
  Unread | (FrameTold & { readonly kind: 'problem' }) | (FrameTold & { readonly kind: 'measured' });
export type Measured<Read> = Extract<Read, { kind: 'measured' }>;
export type Problem<Read> = Extract<Read, { kind: 'problem' }>;

export type Asked = Omit<BenchAsked, 'pixels'>;

/** What the simulated camera has in hand. */
export interface SimulatedKit {
  readonly body: Body;
  readonly lens: Lens;
  readonly focalLengthMm: number;
  readonly at: number;
}

export interface BenchKind<Id extends BenchKindId, Read extends BenchRead, Figures> {
  readonly id: Id;
  /** On the switch between tests. */
  readonly name: string;
  /** Whose tests are kept and compared: of this pair, of the lens on whatever body, of the body. */
  readonly of: 'pair' | 'lens' | 'body';
  /** What is printed for it; null where nothing is. */
  readonly sheet: { readonly kind: SheetKind; readonly name: string } | null;
  /** What the pictures show. */
  readonly pictures: string;
  /** What is done to each: "read and …". */
  readonly done: 'measured' | 'searched';
  /** Each picture has a stop of its own: where files do not say it, one is typed for each. */
  readonly ownStops: boolean;
  /** Only the latest picture counts. */
  readonly latestOnly: boolean;
  readonly read: (file: Blob, asked: Asked, options: CallOptions) => Promise<Read>;
  readonly problemText: (read: Problem<Read>, unit: LengthUnit) => string;
  /** Why a frame is of another test than the first one; null where it is not. */
  readonly stranger: (first: Measured<Read>, read: Measured<Read>) => string | null;
  readonly simulate: (kit: SimulatedKit, seed: number, figures: Figures) => Source[];
  /** What the counted frames say together: as one looks at it. */
  readonly figures: (run: BenchRun<Id, Read, Figures>) => Figures;
  /** A test that was kept, in a line. */
  readonly earlierText: (test: TestOf<Id>, run: BenchRun<Id, Read, Figures>) => string;
}

/** What a test has of its own; whose it is, is added when it is kept. */
type OwnFigures<T> = T extends BenchTest
  ? Omit<T, 'kind' | 'id' | 'madeAt' | 'simulated' | 'bodyId' | 'body' | 'lensId' | 'lens'>
  : never;

export class BenchRun<Id extends BenchKindId, Read extends BenchRead, Figures> {
  readonly app: App;
  readonly kind: BenchKind<Id, Read, Figures>;
  readonly body: Body;
  readonly lens: Lens;
  readonly series;
  readonly figures: Figures;
  /** What a millimetre of the printed sheet measures, mm. */
  scale = $state(1);

  constructor(app: App, kind: BenchKind<Id, Read, Figures>, body: Body, lens: Lens) {
    this.app = app;
    this.kind = kind;
    this.body = body;
    this.lens = lens;
    this.series = seriesOf<Read>(kind.id, body.id, kind.of === 'body' ? '' : lens.id);
    this.figures = kind.figures(this);
  }

  get unit() {
    return this.app.settings.now.unit;
  }
  get busy(): boolean {
    return this.series.busy;
  }

  readonly items = $derived.by(() => (this.kind.latestOnly ? this.series.items.slice(-1) : this.series.items));
  readonly #measured = $derived.by(() =>
    this.items.flatMap(({ id, name, read }) => (isMeasured(read) ? [{ id, name, read }] : []))
  );
  readonly first = $derived.by((): Measured<Read> | undefined => this.#measured[0]?.read);
  readonly counted = $derived.by(() => this.#measured.filter(({ read }) => this.whyNot(read) === null));
  /** Frames that do not count, each with its reason; what only lacks what may be typed is not among them. */
  readonly refused = $derived.by(() =>
    this.items.flatMap(({ id, name, read }) => {
      const why = read.kind === 'unread' && read.lacks !== null ? null : this.whyNot(read);
      return why === null ? [] : [{ id, name, why }];
    })
  );
  readonly lacking = $derived.by(() => lackingIn(this.items));
  readonly earlier = $derived.by((): TestOf<Id>[] =>
    testsOf(this.app, this.kind.id, (one) =>
      this.kind.of === 'body'
        ? one.bodyId === this.body.id
        : one.lensId === this.lens.id && (this.kind.of === 'lens' || one.bodyId === this.body.id)
    )
  );
  get simulated(): boolean {
    return this.first?.simulated ?? false;
  }

  /** Why a picture does not count; null where it does. */
  whyNot(read: Read): string | null {
    if (read.kind === 'unread') return read.reason;
    if (isProblem(read)) return this.kind.problemText(read, this.unit);
    return this.first && isMeasured(read) ? this.kind.stranger(this.first, read) : null;
  }

  readonly #asked = $derived.by(() => {
    const asked = askedOf(this.body, this.lens, this.scale);
    // Of the body alone: the focal length changes nothing, and nobody is asked for it.
    return this.kind.of === 'body' ? { ...asked, focalLengthMm: this.lens.longestMm } : asked;
  });

  add = (files: readonly File[]): Promise<void> => this.#read(sources(files), 'read');
  simulate = (): Promise<void> => {
    const { app, body, lens, kind } = this;
    const kit = { body, lens, focalLengthMm: lens.longestMm, at: app.now() };
    return this.#read(kind.simulate(kit, app.newSeed(), this.figures), 'drawn');
  };
  /** Reads pictures again with what their files do not say. */
  again = (
    ids: readonly string[],
    typed: { readonly focalLengthMm: number; readonly fNumber: number }
  ): Promise<void> =>
    this.series.again(ids, (file, options) => this.kind.read(file, { ...this.#asked, ...typed }, options));

  #read(from: readonly Source[], how: 'read' | 'drawn'): Promise<void> {
    return this.series.add(
      from,
      (file, options) => this.kind.read(file, this.#asked, options),
      `${how} and ${this.kind.done}`
    );
  }

  /** Keeps tests, one row each: a record, so no step of undo. */
  keep(step: string, tests: readonly OwnFigures<TestOf<Id>>[]): void {
    const { app, kind, body, lens } = this;
    const now = app.now();
    app.store.edit(
      step,
      (draft) => {
        for (const [index, own] of tests.entries()) {
          const id = app.newId();
          const whose = { bodyId: body.id, body: body.name, lensId: lens.id, lens: lens.name };
          const test = { kind: kind.id, id, madeAt: now + index, simulated: this.simulated, ...whose, ...own };
          draft.put('benchTests', newRow(id, test as unknown as BenchTest, { position: now + index }));
        }
      },
      { history: false }
    );
  }
}

const isMeasured = <Read extends BenchRead>(read: Read): read is Measured<Read> => read.kind === 'measured';
const isProblem = <Read extends BenchRead>(read: Read): read is Problem<Read> => read.kind === 'problem';
