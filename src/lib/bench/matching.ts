/** What belongs to one test. */
import { sameFocal } from '$core/record/groups';

interface Read {
  readonly facts: { readonly lens: string | null };
  readonly focalLengthMm: number;
}

/** Another lens than the first frame's is another test; a file that names none may be of any. */
export const isOtherLens = (first: Read, read: Read): boolean =>
  read.facts.lens !== null && first.facts.lens !== null && read.facts.lens !== first.facts.lens;

/** Another lens or focal length is. */
const isOther = (first: Read, read: Read): boolean =>
  isOtherLens(first, read) || Math.abs(read.focalLengthMm / first.focalLengthMm - 1) > sameFocal;

/** @returns null where it is of the same test */
export const otherLensText = (first: Read, read: Read): string | null =>
  isOther(first, read) ? 'Taken with another lens or focal length than the first: not counted.' : null;
