/** How one focuses and meters, by name, once: for the interface, for sentences, exports and paper. */
import type { Camera, ExposureMode, Metering } from './schema';

export const focusMethodWords: Readonly<Record<Camera['focusMethod'], string>> = {
  crossPoint: 'AF, cross-type or mirrorless point',
  ordinaryPoint: 'AF, line-type point',
  magnifier: 'manual, magnified',
  byEye: 'manual, by eye',
  scale: 'manual, distance scale'
};

export const focusModeWords: Readonly<Record<Camera['focusMode'], string>> = {
  single: 'single AF',
  continuous: 'continuous AF',
  automatic: 'auto-switching AF'
};

export const focusAreaWords: Readonly<Record<Camera['focusArea'], string>> = {
  point: 'single point',
  neighbours: 'expanded point',
  zone: 'zone',
  wholeFrame: 'full area, camera chooses',
  tracking: 'tracking',
  eyeDetection: 'eye detection',
  tap: 'tap and hold'
};

export const recomposeWords: Readonly<Record<Camera['recompose'], string>> = {
  none: 'move the AF point',
  wrists: 'recompose, from the wrists',
  shoulders: 'recompose, from the shoulders',
  waist: 'recompose, from the waist',
  leaning: 'recompose, leaning'
};

export const meteringWords: Readonly<Record<Metering, string>> = {
  whole: 'whole frame',
  centre: 'centre-weighted',
  spot: 'spot, centre',
  point: 'spot, at the AF point'
};

export const exposureModeWords: Readonly<Record<ExposureMode, string>> = {
  aperturePriority: 'aperture priority, Auto ISO',
  manualAutoIso: 'manual, Auto ISO',
  manual: 'manual'
};

export const triggerWords: Readonly<Record<Camera['trigger'], string>> = {
  halfPress: 'half-press',
  thumb: 'back button'
};
