/** Files kept together in a zip (PKWARE, APPNOTE 6.3), and taken out again without trusting anything it says. */
import {
  BlobReader,
  BlobWriter,
  ERR_INVALID_CRC32,
  ERR_INVALID_UNCOMPRESSED_SIZE,
  ERR_UNSAFE_FILENAME,
  TextReader,
  ZipReader,
  ZipWriter,
  configure,
  type FileEntry
} from '@zip.js/zip.js';
import { readArchive, type ArchiveFile, type ArchiveResult } from '../core/formats/archive';

// It runs in a worker already.
configure({ useWebWorkers: false });

export const zipLimits = {
  /** Largest file read, bytes. */
  bytes: 1_500_000_000,
  /** Most files in it. */
  files: 100_000,
  /** Most bytes of all its files, and of one, taken out. */
  out: 1_500_000_000,
  each: 200_000_000
} as const;

/** A date that says nothing, so that the same content is the same file: the first a zip can hold. */
const noDate = new Date(1980, 0, 1);

export async function zipped(
  files: readonly ArchiveFile<Blob>[],
  onProgress: (share: number) => void = () => undefined
): Promise<Blob> {
  const writer = new ZipWriter(new BlobWriter('application/zip'), { lastModDate: noDate, extendedTimestamp: false });
  for (const [index, [name, content]] of files.entries()) {
    onProgress(index / files.length);
    // Pictures are as small as they get.
    if (typeof content === 'string') await writer.add(name, new TextReader(content));
    else await writer.add(name, new BlobReader(content), { level: 0 });
  }
  return writer.close();
}

const pictureTypes: Readonly<Record<string, string>> = { jpg: 'image/jpeg', png: 'image/png', webp: 'image/webp' };

/** Reads an archive; or says, in a sentence, why not. Nothing is taken out that is larger than it says, or than it may be. */
export async function readZip(
  file: Blob,
  onProgress: (share: number) => void = () => undefined,
  limits: { readonly bytes: number; readonly files: number; readonly out: number; readonly each: number } = zipLimits
): Promise<ArchiveResult<Blob>> {
  const refuse = (reason: string) => ({ ok: false as const, reason });
  const megabytes = (bytes: number) => `${Math.round(bytes / 1e6)} MB`;
  if (file.size > limits.bytes)
    return refuse(`It has ${megabytes(file.size)}; at most ${megabytes(limits.bytes)} are read.`);
  const reader = new ZipReader(new BlobReader(file), {
    checkCrc32: true,
    checkOverlappingEntry: true,
    filenameValidation: 'strict'
  });
  try {
    const entries = new Map<string, FileEntry>();
    let sum = 0;
    for await (const entry of reader.getEntriesGenerator()) {
      if (entry.directory) continue;
      if (entries.size >= limits.files) return refuse(`It holds more than ${limits.files} files.`);
      if (entry.encrypted) return refuse('It is locked with a password.');
      if (entries.has(entry.filename)) return refuse(`"${entry.filename}" is in it twice.`);
      sum += entry.uncompressedSize;
      if (entry.uncompressedSize > limits.each || sum > limits.out)
        return refuse(`What is in it takes more than ${megabytes(limits.out)} unpacked.`);
      entries.set(entry.filename, entry);
    }
    const take = async (name: string): Promise<Blob | null> => {
      const entry = entries.get(name);
      return entry ? takenOut(entry, pictureTypes[name.split('.').pop() ?? ''] ?? '') : null;
    };
    return await readArchive<Blob>(
      {
        text: async (name) => (await take(name))?.text() ?? null,
        picture: take
      },
      onProgress
    );
  } catch (error) {
    return refuse(wordsOf(error));
  } finally {
    await reader.close();
  }
}

class LongerThanSaid extends Error {}

/** What is in a file of a zip; stops what turns out longer than it says of itself. */
async function takenOut(entry: FileEntry, type: string): Promise<Blob> {
  const parts: Uint8Array<ArrayBuffer>[] = [];
  let written = 0;
  const into = new WritableStream<Uint8Array<ArrayBuffer>>({
    write(part) {
      written += part.length;
      if (written > entry.uncompressedSize) throw new LongerThanSaid();
      parts.push(part.slice());
    }
  });
  await entry.getData(into);
  return new Blob(parts, { type });
}

function wordsOf(error: unknown): string {
  if (error instanceof LongerThanSaid) return 'A file in it is longer than it claims.';
  switch (error instanceof Error ? error.message : '') {
    case ERR_UNSAFE_FILENAME:
      return 'It has a file name that points outside it.';
    case ERR_INVALID_UNCOMPRESSED_SIZE:
      return 'A file in it is longer than it claims.';
    case ERR_INVALID_CRC32:
      return 'A file in it is damaged: its checksum is not the one that was written.';
    default:
      return 'This zip is cut off or damaged.';
  }
}
