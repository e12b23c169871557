/** How often a test tries its luck: all its times, or the share of them that TEST_SHARE asks for (npm run mutate). */
export function runs(times: number): number {
  return Math.max(4, Math.round(times * Number(process.env['TEST_SHARE'] ?? 1)));
}
