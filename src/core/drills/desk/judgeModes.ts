/**
 * What is asked: which of two is sharper; whether the plane lies before the face or behind it; whether a face is sharp, has its plane before or
 * behind it, or moved; which of four is the sharp one; which of two was stopped down.
 */
export const judgeModes = ['sharper', 'side', 'kind', 'four', 'stop'] as const;
export type JudgeMode = (typeof judgeModes)[number];
