/** From a distance field to triangles: naive surface nets (Gibson, Constrained elastic surface nets, 1998). */
import type { DistanceField, Point3 } from './sdf';

export interface Solid {
  readonly field: DistanceField;
  /** Box that holds it, mm. */
  readonly from: Point3;
  readonly to: Point3;
  /** What the surface is made of, by place; see `materials` in mesh.ts. */
  readonly material: (x: number, y: number, z: number) => number;
}

export interface Polygons {
  /** x, y, z per vertex, mm. */
  readonly positions: Float32Array;
  /** Unit normals. */
  readonly normals: Float32Array;
  /** 1 open, 0 in a fold. */
  readonly openness: Float32Array;
  readonly materials: Uint8Array;
  readonly indices: Uint32Array;
}

/** The corners of a cell, and its edges as pairs of them. */
const corners = [0, 1, 2, 3, 4, 5, 6, 7].map((i) => [i & 1, (i >> 1) & 1, (i >> 2) & 1] as const);
const edges = corners.flatMap((a, i) =>
  corners.flatMap((b, j) =>
    j > i && Math.abs(a[0] - b[0]) + Math.abs(a[1] - b[1]) + Math.abs(a[2] - b[2]) === 1 ? [[i, j] as const] : []
  )
);

/** Polygonises a solid on a grid of `cell` mm. */
export function polygonise({ field, from, to, material }: Solid, cell: number): Polygons {
  const size = [0, 1, 2].map((axis) => Math.ceil(((to[axis] ?? 0) - (from[axis] ?? 0)) / cell) + 1);
  const [nx = 0, ny = 0, nz = 0] = size;
  const values = new Float32Array(nx * ny * nz);
  const at = (i: number, j: number, k: number) => i + nx * (j + ny * k);
  sample(field, from, cell, [nx, ny, nz], values);

  const offsets = Int32Array.from(corners, ([x, y, z]) => at(x, y, z));
  const vertexOf = new Int32Array(nx * ny * nz).fill(-1);
  const positions: number[] = [];
  for (let k = 0; k < nz - 1; k++)
    for (let j = 0; j < ny - 1; j++)
      for (let i = 0; i < nx - 1; i++) {
        if (!isCut(values, at(i, j, k), offsets)) continue;
        let sx = 0;
        let sy = 0;
        let sz = 0;
        let crossings = 0;
        for (const [a, b] of edges) {
          const ca = corners[a] as readonly [number, number, number];
          const cb = corners[b] as readonly [number, number, number];
          const va = values[at(i + ca[0], j + ca[1], k + ca[2])] as number;
          const vb = values[at(i + cb[0], j + cb[1], k + cb[2])] as number;
          if (va < 0 === vb < 0) continue;
          const t = va / (va - vb);
          sx += ca[0] + (cb[0] - ca[0]) * t;
          sy += ca[1] + (cb[1] - ca[1]) * t;
          sz += ca[2] + (cb[2] - ca[2]) * t;
          crossings += 1;
        }
        if (crossings === 0) continue;
        vertexOf[at(i, j, k)] = positions.length / 3;
        positions.push(
          from[0] + (i + sx / crossings) * cell,
          from[1] + (j + sy / crossings) * cell,
          from[2] + (k + sz / crossings) * cell
        );
      }

  const indices: number[] = [];
  const step = [1, nx, nx * ny] as const;
  for (let k = 1; k < nz - 1; k++)
    for (let j = 1; j < ny - 1; j++)
      for (let i = 1; i < nx - 1; i++) {
        const here = at(i, j, k);
        for (let axis = 0; axis < 3; axis++) {
          const a = values[here] as number;
          const b = values[here + (step[axis] as number)] as number;
          if (a < 0 === b < 0) continue;
          const u = step[(axis + 1) % 3] as number;
          const v = step[(axis + 2) % 3] as number;
          const quad = [here, here - u, here - u - v, here - v].map((cellIndex) => vertexOf[cellIndex] as number);
          if (quad.some((vertex) => vertex < 0)) continue;
          const [p = 0, q = 0, r = 0, s = 0] = quad;
          if (a < 0) indices.push(p, q, r, p, r, s);
          else indices.push(p, r, q, p, s, r);
        }
      }
  return finished(field, material, new Float32Array(positions), new Uint32Array(indices), cell);
}

/** Whether the surface passes between the corners of a cell. */
function isCut(values: Float32Array, here: number, offsets: Int32Array): boolean {
  const inside = (values[here] as number) < 0;
  for (let n = 1; n < 8; n++) if ((values[here + (offsets[n] as number)] as number) < 0 !== inside) return true;
  return false;
}

/** Cells along the edge of a block that is looked at as a whole first, and of the smallest one. */
const largestBlock = 16;
const smallestBlock = 2;

/** The fields only come near to true distances: a block counts as clear only with this much to spare. */
const caution = 1.7;

/** Samples the field on the grid, and closely only where the surface may pass: blocks clear of it get one value. */
function sample(field: DistanceField, from: Point3, cell: number, [nx, ny, nz]: Point3, values: Float32Array): void {
  const at = (i: number, j: number, k: number) => field(from[0] + i * cell, from[1] + j * cell, from[2] + k * cell);
  const fill = (i0: number, j0: number, k0: number, size: number) => {
    if (i0 >= nx || j0 >= ny || k0 >= nz) return;
    const half = size / 2;
    const middle = at(i0 + half, j0 + half, k0 + half);
    const clear = Math.abs(middle) > Math.sqrt(3) * half * cell * caution;
    if (!clear && size > smallestBlock) {
      for (let n = 0; n < 8; n++) fill(i0 + (n & 1) * half, j0 + ((n >> 1) & 1) * half, k0 + (n >> 2) * half, half);
      return;
    }
    for (let k = k0; k < Math.min(nz, k0 + size); k++)
      for (let j = j0; j < Math.min(ny, j0 + size); j++)
        for (let i = i0; i < Math.min(nx, i0 + size); i++) values[i + nx * (j + ny * k)] = clear ? middle : at(i, j, k);
  };
  for (let k = 0; k < nz; k += largestBlock)
    for (let j = 0; j < ny; j += largestBlock) for (let i = 0; i < nx; i += largestBlock) fill(i, j, k, largestBlock);
}

/** Normals from the field itself, and how much each place lies in a fold. */
function finished(
  field: DistanceField,
  material: Solid['material'],
  positions: Float32Array,
  indices: Uint32Array,
  cell: number
): Polygons {
  const count = positions.length / 3;
  const normals = new Float32Array(count * 3);
  const openness = new Float32Array(count);
  const materials = new Uint8Array(count);
  const h = cell * 0.35;
  for (let n = 0; n < count; n++) {
    const x = positions[3 * n] as number;
    const y = positions[3 * n + 1] as number;
    const z = positions[3 * n + 2] as number;
    const gx = field(x + h, y, z) - field(x - h, y, z);
    const gy = field(x, y + h, z) - field(x, y - h, z);
    const gz = field(x, y, z + h) - field(x, y, z - h);
    const length = Math.hypot(gx, gy, gz) || 1;
    const normal = [gx / length, gy / length, gz / length] as const;
    normals.set(normal, 3 * n);
    openness[n] = opennessAt(field, [x, y, z], normal, Math.max(cell, 3));
    materials[n] = material(x, y, z);
  }
  return { positions, normals, openness, materials, indices };
}

/** Compares the room in front of a place with what an open place would have, at four distances. */
function opennessAt(field: DistanceField, [x, y, z]: Point3, [nx, ny, nz]: Point3, unit: number): number {
  let closed = 0;
  let weight = 0.55;
  for (let i = 1; i <= 4; i++) {
    const reach = unit * i * i * 0.8;
    const room = field(x + nx * reach, y + ny * reach, z + nz * reach);
    closed += weight * Math.max(0, 1 - room / reach);
    weight *= 0.7;
  }
  return Math.max(0, Math.min(1, 1 - closed * 0.75));
}
