/** The detector's files: weights that ship in its package, and the arithmetic they run on. */

/** Named from the page's side: a worker's own addresses are not among the built files, and so would not be kept. */
export const weightAddresses: Readonly<Record<string, string>> = {
  ...import.meta.glob<string>('/node_modules/@vladmandic/human/models/{blazeface,facemesh,iris}.{json,bin}', {
    query: '?url',
    import: 'default',
    eager: true
  }),
  ...import.meta.glob<string>('/node_modules/@tensorflow/tfjs-backend-wasm/dist/tfjs-backend-wasm{,-simd}.wasm', {
    query: '?url',
    import: 'default',
    eager: true
  })
};

/** Bytes by file name. */
export type Weights = Readonly<Record<string, ArrayBuffer>>;

/** @throws when a file cannot be fetched */
export async function fetchWeights(): Promise<Weights> {
  const all = Object.entries(weightAddresses).map(async ([path, address]): Promise<[string, ArrayBuffer]> => {
    const response = await fetch(address);
    if (!response.ok) throw new Error('The face detector could not be fetched.');
    return [path.slice(path.lastIndexOf('/') + 1), await response.arrayBuffer()];
  });
  return Object.fromEntries(await Promise.all(all));
}
