/** Whose the faces of a frame are: named, changed with one another, pointed at where none was seen. */
import type { Pointable } from '$core/frames/pointed';
import type { Frame } from '$core/frames/schema';
import type { FramePictures } from '$lib/data';
import type { EyeRemeasuring } from './remeasureEyes.svelte';
import type { FrameEntry } from './frameEntry';
import type { Originals } from './originals.svelte';
import type { Services } from '$lib/state/job/services';
import type { GetPhotoReader } from './photoReader';

interface Asked {
  readonly parts: Services;
  readonly frames: () => readonly FrameEntry[];
  readonly pictures: FramePictures;
  readonly originals: Originals;
  readonly reading: GetPhotoReader;
  readonly again: EyeRemeasuring;
}

export class FaceNaming {
  readonly #asked: Asked;
  /** Counts eyes that were pointed at, for those who show them. */
  pointed = $state(0);

  constructor(asked: Asked) {
    this.#asked = asked;
  }

  /** Says whose a face is. Whoever had that name before is nobody's. */
  name(id: string, faceId: string, personId: string | null): Promise<void> {
    this.#change([id], 'Who it is', (frame) => ({
      ...frame,
      faces: frame.faces.map((face) => {
        if (face.id === faceId) return { ...face, personId, byHand: true };
        return personId !== null && face.personId === personId ? { ...face, personId: null } : face;
      })
    }));
    return this.#asked.again.of(
      this.#asked.frames().flatMap((entry) => (entry.id === id ? [entry.frame.setupId] : []))
    );
  }

  /** Gives two faces each other's names. */
  swap(id: string, a: string, b: string): Promise<void> {
    const faces = this.#asked.frames().find((entry) => entry.id === id)?.frame.faces ?? [];
    const nameOf = (faceId: string) => faces.find((face) => face.id === faceId)?.personId ?? null;
    const names = new Map([
      [a, nameOf(b)],
      [b, nameOf(a)]
    ]);
    this.#change([id], 'Who it is', (frame) => ({
      ...frame,
      faces: frame.faces.map((face) =>
        names.has(face.id) ? { ...face, personId: names.get(face.id) ?? null, byHand: true } : face
      )
    }));
    return this.#asked.again.of(
      this.#asked.frames().flatMap((entry) => (entry.id === id ? [entry.frame.setupId] : []))
    );
  }

  /**
   * Measures what somebody pointed at: the face about it, where one is seen, else the point itself.
   *
   * @returns why not, in a sentence; null when it was measured; `needed` when the picture itself is not at hand
   */
  async point(id: string, who: Pointable, at: { readonly x: number; readonly y: number }): Promise<string | null> {
    const entry = this.#asked.frames().find((one) => one.id === id);
    const owner = this.#asked.parts.open.id;
    if (!entry || owner === null) return null;
    const picture = await this.#asked.originals.find(id, entry.frame);
    if (!picture) return 'needed';
    const { kind, sizePx, side } = who;
    const read = await (await this.#asked.reading()).readPoint(picture, { at, kind, sizePx });
    if (read.kind === 'refused') return read.reason;
    const { faceOf, pointedFace, withPointed } = await import('./importFrame');
    const faceId = this.#asked.parts.newId();
    const face =
      read.kind === 'face'
        ? { ...faceOf(read.face, faceId), personId: who.id, byHand: true }
        : pointedFace({ id: faceId, personId: who.id, at, side, kind, sizePx, figure: read.figure });
    if (this.#asked.parts.open.id !== owner) return 'Another job was opened in the meantime.';
    await this.#asked.pictures.addCrop(id, {
      faceId,
      picture: read.kind === 'face' ? read.face.crop.picture : read.crop
    });
    this.#change([id], `${who.name} pointed at`, (frame) => withPointed(frame, face));
    this.pointed++;
    await this.#asked.again.of([entry.frame.setupId]);
    return null;
  }

  /** Takes out of a frame what was pointed at. */
  unpoint(id: string, faceId: string): void {
    this.#change([id], 'No longer pointed at', (frame) => ({
      ...frame,
      faces: frame.faces.filter((face) => face.id !== faceId)
    }));
  }

  #change(ids: readonly string[], label: string, recipe: (frame: Frame) => Frame): void {
    this.#asked.parts.store.edit(label, (draft) => ids.forEach((id) => draft.change('frames', id, recipe)));
  }
}
