/** Depth of field by the textbook, for tests: s f²/(f² ± N C (s − f)), far less near, s from the lens (Ray 2002, from memory). */
export function zoneOfSharpness(f: number, N: number, s: number, C = 0.03): number {
  const reach = N * C * (s - f);
  return (s * f * f) / (f * f - reach) - (s * f * f) / (f * f + reach);
}
