/** What belongs to one test. */
import { sameFocal } from '$core/record/groups';

interface Read {
  readonly facts: { readonly lens: string | null };
  readonly focalLengthMm: number;
}

/** Another lens than the first frame's is another test. */
export const isOtherLens = (first: Read, read: Read): boolean => read.facts.lens !== first.facts.lens;

/** Another lens or focal length is. */
export const isOther = (first: Read, read: Read): boolean =>
  isOtherLens(first, read) || Math.abs(read.focalLengthMm / first.focalLengthMm - 1) > sameFocal;
