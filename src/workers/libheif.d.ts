/** The part of libheif (LGPL) that is used here. */
declare module 'libheif-js/libheif-wasm/libheif-bundle.mjs' {
  interface HeifImage {
    is_primary(): boolean;
    get_width(): number;
    get_height(): number;
    display(
      into: { data: Uint8ClampedArray; width: number; height: number },
      done: (shown: { data: Uint8ClampedArray } | null) => void
    ): void;
    free(): void;
  }
  interface Heif {
    readonly HeifDecoder: new () => { decode(bytes: Uint8Array): HeifImage[] };
  }
  export default function start(): Heif;
}
