/** The pictures taken at a job: brought in, matched to its setups and people, chosen among. */
import { expectedFaces, type ExpectedFace } from '$core/frames/expected';
import { clockKey, clocksWithoutSerials, timeOf, type Clock } from '$core/frames/clocks';
import type { Said } from '$core/frames/facts';
import type { CullingChoice, Frame, Reason } from '$core/frames/schema';
import { newRow, type FramePicture, type FramePictures, type OwnEyes } from '$lib/data';
import type { PhotoRequest, ReadFrame } from '../../../photos/measurePhoto';
import { ImportQueue, type Kept } from './importQueue.svelte';
import { EyeRemeasuring } from './remeasureEyes.svelte';
import type { FrameEntry } from './frameEntry';
import type { Originals } from './originals.svelte';
import type { Services } from '$lib/state/job/services';
import { inWorkers, type GetPhotoReader } from './photoReader';
import type { SetupRow } from '$lib/state/job/openJob.svelte';
import { FaceNaming } from './faceNaming.svelte';
import type { UnfinishedImports } from './unfinished.svelte';

const bringingIn = () => import('./importFrame');
const isSidecar = ({ name }: File): boolean => /\.xmp$/i.test(name);

/** Where what belongs to frames is kept apart from them. */
interface Shelves {
  readonly pictures: FramePictures;
  readonly originals: Originals;
  readonly ownEyes: OwnEyes;
  readonly unfinished: UnfinishedImports;
}

export class Frames {
  readonly #parts: Services;
  readonly #pictures: FramePictures;
  readonly bringing: ImportQueue;
  readonly originals: Originals;
  readonly #unfinished: UnfinishedImports;
  /** Names of files that another page was to bring into the open job, and that have not come. */
  readonly missing: readonly string[] = $derived.by(() => {
    const there = new Set(this.list.map(({ frame }) => frame.file.name));
    return this.#unfinished.listed.filter((name) => !there.has(name));
  });
  readonly #again: EyeRemeasuring;
  /** Whose each face is, and what was not found. */
  readonly whose: FaceNaming;
  /** Sidecars that came in, for pictures that come with them or after. */
  #sidecars: readonly { readonly name: string; readonly text: string }[] = [];
  /** What is being kept just now, by its hash: the same picture twice in one import is one. */
  readonly #underWay = new Set<string>();

  readonly list: readonly FrameEntry[] = $derived.by(() =>
    this.#parts.store.table('frames').list.map(({ id, value }) => ({ id, frame: this.#again.merged(id, value) }))
  );
  /** Frames of each setup, and of none, in the order of the clock. */
  readonly bySetup: ReadonlyMap<string | null, readonly FrameEntry[]> = $derived.by(() => {
    const known = new Map<string | null, FrameEntry[]>();
    const inOrder = [...this.list].sort(
      (a, b) =>
        (this.timeOf(a.frame) ?? 0) - (this.timeOf(b.frame) ?? 0) || (a.frame.file.name < b.frame.file.name ? -1 : 1)
    );
    for (const entry of inOrder) {
      const setup = entry.frame.setupId;
      const key = setup !== null && this.#parts.open.row(setup) ? setup : null;
      known.set(key, [...(known.get(key) ?? []), entry]);
    }
    return known;
  });

  constructor(
    parts: Services,
    { pictures, originals, ownEyes, unfinished }: Shelves,
    reading: GetPhotoReader = inWorkers
  ) {
    this.#parts = parts;
    this.#pictures = pictures;
    this.originals = originals;
    this.#unfinished = unfinished;
    this.#again = new EyeRemeasuring(parts, ownEyes, reading);
    this.bringing = new ImportQueue(reading);
    this.whose = new FaceNaming({ parts, frames: () => this.list, pictures, originals, reading, again: this.#again });
  }

  /** A job has been opened. */
  async opened(): Promise<void> {
    await this.#again.opened();
    await this.#lookForUnfinished();
  }

  async #lookForUnfinished(): Promise<void> {
    const owner = this.#parts.open.id;
    if (owner === null) return;
    await this.#unfinished.look(owner, new Set(this.list.map(({ frame }) => frame.file.name)));
  }

  /** They are not wanted any more. */
  forgetUnfinished(): void {
    const owner = this.#parts.open.id;
    if (owner !== null) this.#unfinished.forget(owner);
  }

  get clocks(): readonly Clock[] {
    return this.#parts.open.job?.clocks ?? [];
  }

  /** When a frame was taken, its body's clock corrected, as if it were UTC, ms; null where its file does not say. */
  timeOf(frame: Frame): number | null {
    return timeOf(frame, this.clocks);
  }

  /** Corrects the clock of a body; frames nobody has put to a setup by hand are matched anew. */
  async setClock(body: string, offsetMs: number): Promise<void> {
    const owner = this.#parts.open.id;
    const { matched, named } = await bringingIn();
    if (owner === null || this.#parts.open.id !== owner) return;
    const clocks = [
      ...clocksWithoutSerials(this.clocks).filter((clock) => clock.body !== body),
      ...(offsetMs === 0 ? [] : [{ body, offsetMs }])
    ];
    const setups = this.#setups();
    const date = this.#parts.open.job?.date ?? null;
    this.#parts.store.edit('Clock of a body', (draft) => {
      draft.change('jobs', owner, (job) => ({ ...job, clocks }));
      for (const { id, frame } of this.list) {
        if (frame.setupByHand || clockKey(frame) !== body) continue;
        const setupId = matched({ ...frame, clockMs: timeOf(frame, clocks) }, setups, date);
        if (setupId === frame.setupId) continue;
        draft.change('frames', id, (now) => named({ ...now, setupId }, this.#expectedOf(setupId)));
      }
    });
    await this.#again.of(this.bySetup.keys());
  }

  #setups() {
    return this.#parts.open.rows.map((row) => ({ row, expected: this.expected(row).length }));
  }

  picture(id: string): Promise<FramePicture | undefined> {
    return this.#pictures.get(id);
  }

  /** Brings pictures in, of a setup where that is known; while some are being read, these come after them. */
  async add(dropped: readonly File[], asked: string | null = null): Promise<void> {
    const owner = this.#parts.open.id;
    if (owner === null || dropped.length === 0) return;
    const sidecars = dropped.filter(isSidecar);
    if (sidecars.length > 0) await this.#takeSidecars(sidecars);
    const files = dropped.filter((file) => !isSidecar(file));
    if (files.length === 0) return;
    const setupId = asked !== null && this.#parts.open.row(asked) ? asked : null;
    const gesture = `frames ${this.#parts.newId()}`;
    this.#unfinished.begin(
      owner,
      files.map(({ name }) => name)
    );
    await this.bringing.add(
      files.map((file) => ({
        file,
        ...this.#expectation(setupId),
        keep: (read) => this.#keep(file, read, { owner, setupId, gesture })
      }))
    );
    this.#unfinished.end();
    await this.#lookForUnfinished();
    await this.#again.of(this.bySetup.keys());
  }

  /** Sidecars say what other programs think of pictures, those that are there and those to come. */
  async #takeSidecars(files: readonly File[]): Promise<void> {
    const { isSidecarOf, withSidecar } = await bringingIn();
    const came = await Promise.all(files.map(async (file) => ({ name: file.name, text: await file.text() })));
    this.#sidecars = [...came, ...this.#sidecars];
    const theirs = this.list.flatMap(({ id, frame }) => {
      const own = came.find(({ name }) => isSidecarOf(name, frame.file.name));
      return own ? [{ id, text: own.text }] : [];
    });
    for (const { id, text } of theirs) await this.#pictures.setSidecar(id, text);
    this.#parts.store.edit('Sidecars imported', (draft) =>
      theirs.forEach(({ id, text }) => draft.change('frames', id, (frame) => withSidecar(frame, text)))
    );
    this.#parts.messages.done(`Sidecars read: ${came.length}; frames here that have one now: ${theirs.length}.`);
  }

  /** Pictures first, then the row: no frame is kept by half. */
  async #keep(
    file: File,
    read: ReadFrame,
    { owner, setupId, gesture }: { owner: string; setupId: string | null; gesture: string }
  ): Promise<Kept> {
    if (this.#parts.open.id !== owner) return { kind: 'refused', reason: 'Another job was opened before it was read.' };
    const { hash } = read;
    const same = this.list.find((entry) => entry.frame.file.hash === hash);
    if (same) await this.originals.remember(same.id, owner, file);
    if (same || this.#underWay.has(hash)) return { kind: 'again' };
    this.#underWay.add(hash);
    try {
      const { frameOf, isSidecarOf, matched, named, withSidecar } = await bringingIn();
      const id = this.#parts.newId();
      const { newId } = this.#parts;
      const bare = frameOf(read, { id, file, setupId, setupByHand: setupId !== null, newId });
      const at = { ...bare, clockMs: this.timeOf(bare) };
      const setup = setupId ?? matched(at, this.#setups(), this.#parts.open.job?.date ?? null);
      const value = named({ ...bare, setupId: setup }, this.#expectedOf(setup));
      const crops = read.faces.map(({ crop }, index) => ({
        faceId: value.faces[index]?.id ?? '',
        picture: crop.picture
      }));
      const sidecar = this.#sidecars.find(({ name }) => isSidecarOf(name, file.name))?.text ?? null;
      await this.#pictures.keep({ id, owner, thumbnail: read.thumbnail, sidecar, crops });
      const position = this.list.length;
      const result = this.#parts.store.edit(
        'Frames imported',
        (draft) => draft.put('frames', newRow(id, withSidecar(value, sidecar), { owner, position })),
        { gesture }
      );
      if (result.ok) {
        await this.originals.remember(id, owner, file);
        return { kind: 'kept' };
      }
      await this.#pictures.drop([id]);
      return { kind: 'refused', reason: `${result.field} ${result.reason}` };
    } finally {
      this.#underWay.delete(hash);
    }
  }

  /** How far apart the plan expects the closest eyes, as a share of the picture's width, and how many faces at most. */
  #expectation(setupId: string | null): PhotoRequest {
    const rows = setupId === null ? this.#parts.open.rows : this.#parts.open.rows.filter((row) => row.id === setupId);
    const all = rows.map((row) => this.expected(row));
    const eyes = all.flatMap((faces) => faces.map((face) => face.eyes));
    return {
      eyesShare: eyes.length > 0 ? Math.min(...eyes) : null,
      faces: eyes.length > 0 ? Math.max(...all.map(({ length }) => length)) : null
    };
  }

  /** Where a setup's plan expects faces. */
  expected(row: SetupRow): readonly ExpectedFace[] {
    const { plan, body } = this.#parts.open.planned(row.setup);
    return plan.kind === 'plan' && body ? expectedFaces(row.setup, plan, body) : [];
  }

  #expectedOf(setupId: string | null): readonly ExpectedFace[] {
    const row = setupId === null ? undefined : this.#parts.open.row(setupId);
    return row ? this.expected(row) : [];
  }

  /** Keeps, doubts or rejects frames; the same again takes it back. */
  choose(ids: readonly string[], choice: CullingChoice, reason: Reason | null = null): void {
    const words = { keep: 'Kept', maybe: 'Maybe', reject: 'Rejected' } as const;
    this.#change(ids, words[choice], (frame) =>
      frame.choice === choice && frame.reason === reason
        ? { ...frame, choice: null, reason: null }
        : { ...frame, choice, reason: choice === 'keep' ? null : reason }
    );
  }

  /** Says of frames what their files do not. */
  async sayFacts(ids: readonly string[], said: Said): Promise<void> {
    const { withSaid } = await bringingIn();
    this.#change(ids, 'Missing shooting data', (frame) => withSaid(frame, said));
  }

  /** Says whether these are all that were taken: only then they may say how often one misses. */
  sayComplete(ids: readonly string[], complete: boolean): void {
    this.#change(ids, complete ? 'All frames are here' : 'Not all frames are here', (frame) => ({
      ...frame,
      complete
    }));
  }

  /** Says of which setup frames are; their faces are named anew. */
  async moveTo(ids: readonly string[], setupId: string | null): Promise<void> {
    const { named } = await bringingIn();
    const expected = this.#expectedOf(setupId);
    this.#change(ids, 'Moved to another setup', (frame) => named({ ...frame, setupId, setupByHand: true }, expected));
    await this.#again.of([setupId]);
  }

  /** Takes frames out of the job; undo brings them back. */
  remove(ids: readonly string[]): void {
    const result = this.#parts.store.edit('Frames removed', (draft) => ids.forEach((id) => draft.remove('frames', id)));
    if (result.ok && result.step !== null)
      this.#parts.messages.done(`${ids.length === 1 ? 'One frame' : `${ids.length} frames`} removed.`, result.step);
  }

  #change(ids: readonly string[], label: string, recipe: (frame: Frame) => Frame): void {
    this.#parts.store.edit(label, (draft) => ids.forEach((id) => draft.change('frames', id, recipe)));
  }
}
