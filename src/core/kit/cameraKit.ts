/** What a camera holds, by ids. */
import type { Adapter, Kit } from './schema';

export interface CameraKit {
  readonly bodyId: string;
  readonly lensId: string;
  readonly focalLengthMm: number;
  readonly adapterIds: readonly string[];
  readonly cropMode: string | null;
}

/** What is between lens and body; undefined when the kit lacks some of it. */
export function adaptersBetween(
  { adapters }: Kit,
  { adapterIds }: Pick<CameraKit, 'adapterIds'>
): Adapter[] | undefined {
  const found = adapterIds.map((id) => adapters.find((item) => item.id === id));
  return found.every((item) => item !== undefined) ? found : undefined;
}
