/** Shutter times, ISO and where they come from, in words. */
import { lightLevel, type FloorRule } from '../call/light';
import type { StopPlan } from '../call/plan';
import { markedIso, markedShutter } from '../optics/cameraSteps';
import type { KnownLight, Setup } from '../setup/schema';

/** The marked time nearest to one in seconds: "1/250", "0.5 s". */
export const formatShutter = (shutterS: number): string => markedShutter(shutterS).label;

/** The marked sensitivity nearest to one: "640", "12800". */
export const formatIso = (iso: number): string => String(markedIso(iso));

export const knownLightWords: Readonly<Record<KnownLight, string>> = {
  sun: 'sun',
  overcast: 'overcast sky',
  openShade: 'open shade',
  windowLight: 'window light',
  brightRoom: 'a bright room',
  livingRoom: 'a living room at night',
  church: 'a dark church',
  stringBulbs: 'strings of bulbs',
  candles: 'candles'
};

/** Why the shutter may not be slower. */
export const floorWords: Readonly<Record<FloorRule, string>> = {
  focalLength: 'the slowest you can hand-hold this focal length',
  people: 'the slowest for people: no one is perfectly still',
  restless: 'the slowest for someone talking or fidgeting',
  group: 'the slowest for a group: someone always moves',
  close: 'the slowest so close up: every sway is drawn large',
  child: 'the slowest for a child or a pet',
  moving: 'the slowest for someone moving',
  lively: 'the slowest for someone playing or dancing',
  tripod: 'the slowest on a tripod before people move',
  shake: 'fast enough to hide camera shake',
  movement: 'fast enough to freeze the movement',
  isoLimit: 'as fast as half your ISO limit allows',
  sync: 'your flash sync speed, though this setup wants faster',
  chosen: 'as you set it'
};

/** Shutter and ISO: "1/250" and "ISO 640", or what is missing. */
export function lightWords({ light }: StopPlan): {
  readonly shutter: string;
  readonly iso: string;
  readonly lack: string;
} {
  const stops = (value: number) => `${value.toFixed(1).replace(/\.0$/, '')} ${value < 1.05 ? 'stop' : 'stops'}`;
  const dark = light.missingStops > 0.05 ? `${stops(light.missingStops)} too dark` : '';
  const bright = light.tooBrightStops > 0.05 ? `${stops(light.tooBrightStops)} too bright` : '';
  return {
    shutter: formatShutter(light.shutterS),
    iso: light.iso === null ? '' : `ISO ${formatIso(light.iso)}`,
    lack: dark === '' ? bright : dark
  };
}

/** What mends a lack of light or too much of it; empty where there is neither. */
function mendWords(light: StopPlan['light'], lack: string): string {
  if (lack === '') return '';
  if (light.missingStops > 0.05) return ` Still ${lack}: add light, slow the shutter or open up.`;
  // A flash that is the key light overexposes by its least power: no filter for that on a dance floor.
  return (light.flash?.ambientUnderStops ?? -1) > 0
    ? ` Still ${lack}: move the flash back, bounce it or stop down.`
    : ` Still ${lack}: use an ND filter.`;
}

/** Why shutter and ISO are what they are. */
export function whyLight(setup: Setup, entry: StopPlan): string {
  const { light } = entry;
  const { level, flash } = setup.light;
  const { shutter, lack } = lightWords(entry);
  const ev100 = lightLevel(setup);
  const source =
    level.kind === 'estimated'
      ? knownLightWords[level.as]
      : level.kind === 'metered'
        ? 'the light you metered'
        : `EV ${ev100 ?? ''}`;
  const mend = mendWords(light, lack);
  if (flash && light.flash) {
    const power = Math.round(Math.min(1, light.flash.power) * 100);
    const under = light.flash.ambientUnderStops;
    const apart = under === null ? '' : `${Number(Math.abs(under).toFixed(1))} stops ${under >= 0 ? 'under' : 'over'}`;
    const room = under === null ? '' : ` The room lies ${apart} it.`;
    const sync = light.floorRule === 'sync' ? ` ${shutter} is ${floorWords.sync}.` : '';
    if (flash.use === 'fill') {
      const lies = -(under ?? -flash.underStops);
      const side = lies >= 0 ? 'under' : 'over';
      const asWished = Math.abs(lies - flash.underStops) < 0.05 ? '' : `, not the ${flash.underStops} you wanted`;
      return `Fill flash at ${power}% of its power, ${Number(Math.abs(lies).toFixed(1))} stops ${side} the light${asWished}.${sync}${mend}`;
    }
    return `Flash at ${power}% of its power.${room}${sync}${mend}`;
  }
  if (ev100 === null) return `${shutter} is ${floorWords[light.floorRule]}. Set the light level to get an ISO.`;
  if (light.iso !== null && light.shutterS < light.floorS * 0.98) {
    return `In ${source} there is light enough for ${shutter} at the lowest ISO.${mend}`;
  }
  return `${shutter} is ${floorWords[light.floorRule]}; ISO covers the rest in ${source}.${mend}`;
}
