/** What is kept to be seen of each frame: its small picture and everybody's eyes at 100%. It goes when its job is erased. */
import type Dexie from 'dexie';

export interface FramePicture {
  /** The frame's id. */
  readonly id: string;
  /** The job's. */
  readonly owner: string;
  readonly thumbnail: Blob;
  /** The sidecar that came with it, as it was: what is written back is spliced into it. */
  readonly sidecar: string | null;
  /** Both eyes of each face, by the face's id. */
  readonly crops: readonly { readonly faceId: string; readonly picture: Blob }[];
}

export class FramePictures {
  readonly #database: Dexie;

  constructor(database: Dexie) {
    this.#database = database;
  }

  get #table() {
    return this.#database.table<FramePicture, string>('framePictures');
  }

  get(id: string): Promise<FramePicture | undefined> {
    return this.#table.get(id);
  }

  /** @throws when it cannot be stored: the frame is not to be kept without it */
  async keep(picture: FramePicture): Promise<void> {
    await this.#table.put(picture);
  }

  async setSidecar(id: string, sidecar: string): Promise<void> {
    await this.#table.update(id, { sidecar });
  }

  /** Of a face that was pointed at. */
  async addCrop(id: string, crop: FramePicture['crops'][number]): Promise<void> {
    const kept = await this.#table.get(id);
    if (kept) await this.#table.put({ ...kept, crops: [...kept.crops, crop] });
  }

  /** Those of frames that are no more: a frame taken back can come again, so nothing is dropped while its row may. */
  async drop(ids: readonly string[]): Promise<void> {
    await this.#table.bulkDelete([...ids]);
  }
}
