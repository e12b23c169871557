/** Points and directions, mm. Scene coordinates: +x to the picture's right, +y up, +z away from the camera. */
export interface Vector {
  readonly x: number;
  readonly y: number;
  readonly z: number;
}

export function add(a: Vector, b: Vector): Vector {
  return { x: a.x + b.x, y: a.y + b.y, z: a.z + b.z };
}

export function subtract(a: Vector, b: Vector): Vector {
  return { x: a.x - b.x, y: a.y - b.y, z: a.z - b.z };
}

export function scale(a: Vector, factor: number): Vector {
  return { x: a.x * factor, y: a.y * factor, z: a.z * factor };
}

export function length(a: Vector): number {
  return Math.hypot(a.x, a.y, a.z);
}

export function radians(degrees: number): number {
  return (degrees * Math.PI) / 180;
}

export function degrees(angle: number): number {
  return (angle * 180) / Math.PI;
}

/** Turns about the vertical: a positive angle carries +z towards +x (to the right, seen from above looking along +z). */
export function yaw(a: Vector, angle: number): Vector {
  const cos = Math.cos(angle);
  const sin = Math.sin(angle);
  return { x: a.x * cos + a.z * sin, y: a.y, z: a.z * cos - a.x * sin };
}

/** Tips about the x axis: a positive angle carries +z towards +y (upwards). */
export function pitch(a: Vector, angle: number): Vector {
  const cos = Math.cos(angle);
  const sin = Math.sin(angle);
  return { x: a.x, y: a.y * cos + a.z * sin, z: a.z * cos - a.y * sin };
}
