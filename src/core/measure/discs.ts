/** Which discs can be told from a spectrum (fit.ts): apart from the fit, for whoever only asks how large is too large. */

/** Diameters tried, pixels. */
export const discs: readonly number[] = Array.from({ length: 81 }, (_, index) => index * 0.25);

/** The fit reads this much too high (calibrated; docs/model.md). */
export const calibrationBias = 1.05;

/** Discs read as large as this may be any larger ones, pixels. */
export const maxMeasurablePx = ((discs[discs.length - 1] ?? 0) - 1) / calibrationBias;
