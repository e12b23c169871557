/** What belongs to one test. */

interface Read {
  readonly facts: { readonly lens: string | null };
  readonly focalLengthMm: number;
}

/** Focal lengths nearer together than this share are one: files round them. */
const sameFocal = 0.02;

/** Another lens or focal length than the first frame's is another test. */
export const isOther = (first: Read, read: Read): boolean =>
  read.facts.lens !== first.facts.lens || Math.abs(read.focalLengthMm / first.focalLengthMm - 1) > sameFocal;
