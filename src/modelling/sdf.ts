/**
 * Solids as signed distance fields (mm, negative inside), and smooth ways to put them together.
 * Source: Hart, Sphere tracing (1996) for distance fields; the polynomial smooth minimum is common practice.
 */
export type DistanceField = (x: number, y: number, z: number) => number;
export type Point3 = readonly [number, number, number];

/** Math.hypot guards against overflow and is many times slower; these lengths need no guard. */
const length = (x: number, y: number, z: number) => Math.sqrt(x * x + y * y + z * z);

export function sphere([cx, cy, cz]: Point3, r: number): DistanceField {
  return (x, y, z) => length(x - cx, y - cy, z - cz) - r;
}

/** Exact on the surface, approximate away from it. */
export function ellipsoid([cx, cy, cz]: Point3, [rx, ry, rz]: Point3): DistanceField {
  return (x, y, z) => {
    const dx = (x - cx) / rx;
    const dy = (y - cy) / ry;
    const dz = (z - cz) / rz;
    const k = length(dx, dy, dz);
    const g = length(dx / rx, dy / ry, dz / rz);
    return g < 1e-9 ? -Math.min(rx, ry, rz) : (k * (k - 1)) / g;
  };
}

/** A rounded line from a to b whose radius goes from ra to rb. */
export function capsule([ax, ay, az]: Point3, [bx, by, bz]: Point3, ra: number, rb = ra): DistanceField {
  const ux = bx - ax;
  const uy = by - ay;
  const uz = bz - az;
  const squared = ux * ux + uy * uy + uz * uz;
  return (x, y, z) => {
    const px = x - ax;
    const py = y - ay;
    const pz = z - az;
    const t = Math.max(0, Math.min(1, (px * ux + py * uy + pz * uz) / squared));
    return length(px - ux * t, py - uy * t, pz - uz * t) - (ra + (rb - ra) * t);
  };
}

/** Sharp union. */
export function union(...fields: readonly DistanceField[]): DistanceField {
  return (x, y, z) => {
    let d = Infinity;
    for (const field of fields) d = Math.min(d, field(x, y, z));
    return d;
  };
}

const smoothMin = (a: number, b: number, k: number) => {
  const h = Math.max(k - Math.abs(a - b), 0) / k;
  return Math.min(a, b) - h * h * k * 0.25;
};

/** Union whose joints are rounded over about k mm. */
export function blend(k: number, ...fields: readonly DistanceField[]): DistanceField {
  return (x, y, z) => {
    let d = Infinity;
    for (const field of fields) {
      const next = field(x, y, z);
      d = d === Infinity ? next : smoothMin(d, next, k);
    }
    return d;
  };
}

/** a without b, the edge rounded over about k mm. */
export function carve(k: number, a: DistanceField, b: DistanceField): DistanceField {
  return (x, y, z) => -smoothMin(-a(x, y, z), b(x, y, z), k);
}

/** The same shape on the other side as well: what stands at +x stands at −x too. */
export function mirroredField(field: DistanceField): DistanceField {
  return (x, y, z) => field(Math.abs(x), y, z);
}

export function moved(field: DistanceField, [mx, my, mz]: Point3): DistanceField {
  return (x, y, z) => field(x - mx, y - my, z - mz);
}

/** Where one value goes over into another: 0 below `from`, 1 above `to`, smooth between. */
export function smoothStep(from: number, to: number, value: number): number {
  const t = Math.max(0, Math.min(1, (value - from) / (to - from)));
  return t * t * (3 - 2 * t);
}
