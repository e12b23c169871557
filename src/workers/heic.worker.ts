/** Decodes HEIC where the browser does not: a worker of its own, fetched only for such a file. Nothing leaves. */
import { expose } from 'comlink';
import { mostPixels } from '../core/photos/kind';
import startHeif from 'libheif-js/libheif-wasm/libheif-bundle.mjs';

export interface Pixels {
  readonly width: number;
  readonly height: number;
  /** Red, green, blue, opacity; upright. */
  readonly data: Uint8ClampedArray<ArrayBuffer>;
}

const heic = {
  /** @returns null where it cannot be decoded: damaged, cut off, or too large */
  async decode(file: Blob): Promise<Pixels | null> {
    const heif = startHeif();
    const images = new heif.HeifDecoder().decode(new Uint8Array(await file.arrayBuffer()));
    const image = images.find((one) => one.is_primary()) ?? images[0];
    if (!image) return null;
    const [width, height] = [image.get_width(), image.get_height()];
    if (width * height > mostPixels) return null;
    const data = new Uint8ClampedArray(width * height * 4);
    const drawn = await new Promise<boolean>((resolve) =>
      image.display({ data, width, height }, (shown) => resolve(shown !== null))
    );
    for (const one of images) one.free();
    return drawn ? { width, height, data } : null;
  }
};
export type HeicDecoder = typeof heic;

expose(heic);
