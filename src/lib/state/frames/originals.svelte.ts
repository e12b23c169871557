/** The pictures themselves: at hand while this page is open, kept here where somebody asks, else found again by their hash. */
import type { Frame } from '$core/frames/schema';
import type { OriginalsCache } from '$lib/data';

/** What a browser that can gives with a dropped file. */
type WithHandle = File & { readonly handle?: FileSystemFileHandle };
type Asking = FileSystemFileHandle & {
  readonly requestPermission?: (how: { mode: 'read' }) => Promise<PermissionState>;
};

export interface KeptHere {
  readonly count: number;
  readonly bytes: number;
}

export class Originals {
  readonly #shelf: OriginalsCache;
  /** Brought in, or found again, since the page was opened: files on the disk, which take no memory. */
  readonly #atHand = new Map<string, Blob>();
  /** Counts what came and went, for those who show it. */
  changes = $state(0);

  constructor(shelf: OriginalsCache) {
    this.#shelf = shelf;
  }

  /** Remembers where a frame came from. What a browser does not keep is found again when it is dropped again. */
  async remember(id: string, owner: string, file: File): Promise<void> {
    this.#atHand.set(id, file);
    this.changes++;
    const { handle } = file as WithHandle;
    if (handle) await this.#shelf.keep({ id, owner, handle }).catch(() => undefined);
  }

  /** The picture of a frame; null where it is not at hand, was changed since, or the browser may not have it. */
  async find(id: string, { file }: Pick<Frame, 'file'>): Promise<Blob | null> {
    const known = this.#atHand.get(id);
    if (known) return known;
    const kept = await this.#shelf.get(id);
    const picture = kept?.picture ?? (kept?.handle ? await fromDisk(kept.handle) : null);
    const changed = picture instanceof File && file.modifiedAt !== null && picture.lastModified !== file.modifiedAt;
    if (picture?.size !== file.bytes || changed) return null;
    this.#atHand.set(id, picture);
    return picture;
  }

  /** Somebody offers a file for a frame. @returns whether it is that picture */
  async offer(id: string, owner: string, { file }: Pick<Frame, 'file'>, offered: File): Promise<boolean> {
    if (offered.size !== file.bytes) return false;
    const { sha256Hex } = await import('../../../photos/hash');
    if ((await sha256Hex(new Uint8Array(await offered.arrayBuffer()))) !== file.hash) return false;
    await this.remember(id, owner, offered);
    return true;
  }

  /** Keeps the pictures of these frames in the browser. @returns how many are not at hand; @throws when there is no room */
  async keepHere(owner: string, frames: readonly { readonly id: string; readonly frame: Frame }[]): Promise<number> {
    let missing = 0;
    try {
      for (const { id, frame } of frames) {
        const found = await this.find(id, frame);
        // A file on the disk may go; its bytes do not.
        if (found) await this.#shelf.keep({ id, owner, picture: new Blob([await found.arrayBuffer()]) });
        else missing++;
      }
    } finally {
      this.changes++;
    }
    return missing;
  }

  async keptHere(owner: string): Promise<KeptHere> {
    const kept = (await this.#shelf.of(owner)).flatMap(({ picture }) => picture ?? []);
    return { count: kept.length, bytes: kept.reduce((sum, { size }) => sum + size, 0) };
  }

  async letGo(owner: string): Promise<void> {
    await this.#shelf.letGo(owner);
    this.changes++;
  }
}

async function fromDisk(handle: Asking): Promise<Blob | null> {
  try {
    const may = (await handle.requestPermission?.({ mode: 'read' })) ?? 'granted';
    return may === 'granted' ? await handle.getFile() : null;
  } catch {
    // Moved, renamed, or nobody has pressed anything just now.
    return null;
  }
}
