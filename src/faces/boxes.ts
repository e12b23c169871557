/** Where to look for faces in a picture, and which finds are one face. */

export interface Size {
  readonly width: number;
  readonly height: number;
}

/** A part of a picture, pixels from its left and top. */
export interface PixelBox extends Size {
  readonly x: number;
  readonly y: number;
}

/** A head, as the detector boxes it, is so many distances between the eyes wide. */
export const headPerEyes = 2.4;

/** A tile is at most so many heads wide, so that a head in it is large enough to be found. */
const headsPerTile = 7;
/** Tiles overlap by this share, so that no face is cut by all of them. */
const overlap = 0.3;
/** Without knowing how large heads are: so many tiles along the longer side. */
const usualTiles = 3;
const mostTiles = 60;

/** Tiles to look at beside the whole picture; none where heads are large enough in it. */
export function tilesOf({ width, height }: Size, eyesPx: number | null): PixelBox[] {
  const long = Math.max(width, height);
  let side = eyesPx === null ? long / (usualTiles - (usualTiles - 1) * overlap) : eyesPx * headPerEyes * headsPerTile;
  side = Math.max(side, Math.sqrt((width * height) / mostTiles) / (1 - overlap));
  if (side >= long * 0.95) return [];
  const along = (size: number): number[] => {
    if (side >= size) return [0];
    const count = Math.ceil((size - side) / (side * (1 - overlap))) + 1;
    return Array.from({ length: count }, (_, index) => (index * (size - side)) / (count - 1));
  };
  return along(height).flatMap((y) =>
    along(width).map((x) => ({ x, y, width: Math.min(side, width), height: Math.min(side, height) }))
  );
}

export interface Find {
  readonly box: PixelBox;
  readonly score: number;
}

/** Nearer together than this share of the larger box, two finds are one face: boxes overlap badly at a tile's edge. */
const oneFace = 0.5;

/** Of finds of one face the surest; surest first. */
export function merged(finds: readonly Find[]): Find[] {
  const kept: Find[] = [];
  for (const find of [...finds].sort((a, b) => b.score - a.score)) {
    const same = kept.some(({ box }) => {
      const apart = Math.hypot(
        box.x + box.width / 2 - find.box.x - find.box.width / 2,
        box.y + box.height / 2 - find.box.y - find.box.height / 2
      );
      return apart < oneFace * Math.max(box.width, find.box.width);
    });
    if (!same) kept.push(find);
  }
  return kept;
}
