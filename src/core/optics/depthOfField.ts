/**
 * Limits of acceptable sharpness. Symbols: see thinLens.ts.
 *
 * With k = C/A = C N/f the limits are linear in vergence:
 *   1/near = (1 − k/P)/s + k/f,   1/far = (1 + k/P)/s − k/f
 * which for P = 1 is the usual near, far = s f²/(f² ± N C (s − f))
 * (Kingslake; Conrad, Depth of Field in Depth, 2006), written so that it can be inverted for s: the odds do so.
 */

interface DepthOfField {
  /** Nearest sharp depth, mm. */
  readonly near: number;
  /** Furthest sharp depth, mm; Infinity from the hyperfocal distance on. */
  readonly far: number;
}

/** Near and far limits, mm from the lens, for focus at s > f/P. */
export function depthOfField(f: number, N: number, C: number, s: number, P = 1): DepthOfField {
  const k = (C * N) / f;
  const farVergence = (1 + k / P) / s - k / f;
  return {
    near: 1 / ((1 - k / P) / s + k / f),
    far: farVergence <= 0 ? Infinity : 1 / farVergence
  };
}
