/**
 * The compact file of a mesh: header, then positions, normals, openness, materials and indices, each as differences to
 * the one before, so that it packs well. Little-endian. Written at build time, read by the renderer.
 */

/** What a surface is made of. */
export const materials = {
  skin: 0,
  lips: 1,
  cloth: 2,
  shirt: 3,
  trousers: 4,
  shoes: 5,
  hair: 6,
  accent: 7,
  dark: 8
} as const;

export interface Mesh {
  readonly positions: Float32Array;
  readonly normals: Float32Array;
  readonly openness: Float32Array;
  readonly materials: Uint8Array;
  readonly indices: Uint32Array;
}

const magic = 0x4853_4d46;
const headerBytes = 4 * 10;
const mostSteps = 0xffff;
/** Steps of a normal's component. */
const normalSteps = 48;

/** @param precision positions are rounded to this, mm */
export function encodeMesh(mesh: Mesh, precision: number): Uint8Array<ArrayBuffer> {
  const vertices = mesh.materials.length;
  const from = [Infinity, Infinity, Infinity];
  const to = [-Infinity, -Infinity, -Infinity];
  mesh.positions.forEach((value, index) => {
    from[index % 3] = Math.min(from[index % 3] as number, value);
    to[index % 3] = Math.max(to[index % 3] as number, value);
  });
  const bytes = new Uint8Array(headerBytes + vertices * (6 + 3 + 1 + 1) + mesh.indices.length * 4);
  const view = new DataView(bytes.buffer);
  view.setUint32(0, magic, true);
  view.setUint32(4, vertices, true);
  view.setUint32(8, mesh.indices.length, true);
  const extent = Math.max(...to.map((value, axis) => value - (from[axis] as number)), precision);
  const step = Math.max(precision, extent / mostSteps);
  view.setFloat32(24, step, true);
  from.forEach((value, axis) => view.setFloat32(12 + axis * 4, value, true));
  let offset = headerBytes;
  for (let axis = 0; axis < 3; axis++) {
    let last = 0;
    // High bytes and low bytes apart: the high ones hardly change.
    for (let n = 0; n < vertices; n++) {
      const steps = Math.round(((mesh.positions[3 * n + axis] as number) - (from[axis] as number)) / step);
      const difference = (steps - last) & mostSteps;
      last = steps;
      bytes[offset + n] = difference & 255;
      bytes[offset + vertices + n] = difference >> 8;
    }
    offset += 2 * vertices;
  }
  for (let axis = 0; axis < 3; axis++) {
    let last = 0;
    for (let n = 0; n < vertices; n++) {
      const value = Math.round((mesh.normals[3 * n + axis] as number) * normalSteps);
      bytes[offset++] = (value - last) & 255;
      last = value;
    }
  }
  for (let n = 0; n < vertices; n++) bytes[offset++] = Math.round((mesh.openness[n] as number) * 31) * 8;
  bytes.set(mesh.materials, offset);
  offset += vertices;
  let last = 0;
  mesh.indices.forEach((index, n) => {
    const difference = ((index - last) << 1) ^ ((index - last) >> 31);
    last = index;
    for (let part = 0; part < 4; part++)
      bytes[offset + part * mesh.indices.length + n] = (difference >>> (8 * part)) & 255;
  });
  return bytes;
}

/** Reads what `encodeMesh` wrote. Throws with the reason when the file is not a whole mesh. */
export function decodeMesh(bytes: Uint8Array): Mesh {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  if (bytes.byteLength < headerBytes || view.getUint32(0, true) !== magic) throw new Error('This is not a mesh file.');
  const vertices = view.getUint32(4, true);
  const indexCount = view.getUint32(8, true);
  if (bytes.byteLength !== headerBytes + vertices * 11 + indexCount * 4) throw new Error('The mesh file is cut off.');
  const step = view.getFloat32(24, true);
  const positions = new Float32Array(vertices * 3);
  const normals = new Float32Array(vertices * 3);
  const openness = new Float32Array(vertices);
  const indices = new Uint32Array(indexCount);
  let offset = headerBytes;
  for (let axis = 0; axis < 3; axis++) {
    const from = view.getFloat32(12 + axis * 4, true);
    let steps = 0;
    for (let n = 0; n < vertices; n++) {
      steps = (steps + (bytes[offset + n] as number) + ((bytes[offset + vertices + n] as number) << 8)) & mostSteps;
      positions[3 * n + axis] = from + step * steps;
    }
    offset += 2 * vertices;
  }
  for (let axis = 0; axis < 3; axis++) {
    let value = 0;
    for (let n = 0; n < vertices; n++) {
      value = ((value + (bytes[offset++] as number)) << 24) >> 24;
      normals[3 * n + axis] = value / normalSteps;
    }
  }
  for (let n = 0; n < vertices; n++) openness[n] = Math.min(1, (bytes[offset++] as number) / 248);
  const made = bytes.slice(offset, offset + vertices);
  offset += vertices;
  let index = 0;
  for (let n = 0; n < indexCount; n++) {
    let packed = 0;
    for (let part = 0; part < 4; part++) packed |= (bytes[offset + part * indexCount + n] as number) << (8 * part);
    index += (packed >>> 1) ^ -(packed & 1);
    indices[n] = index;
  }
  return { positions, normals, openness, materials: made, indices };
}
