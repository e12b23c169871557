/** The Bench in words: what a picture lacks, where a lens focuses, and which stops are good. */
import type { EdgeFrame, EdgeFrameProblem } from '../bench/edgeFrame';
import type { FocusFrame, FocusProblem } from '../bench/focusFrame';
import type { FocusResult, Precision } from '../bench/focusTest';
import type { FieldCurve, FieldProblem } from '../bench/fieldCurve';
import { nearerAt } from '../bench/fieldCurve';
import type { Spot, SpotsProblem } from '../bench/spots';
import type { RefusedFrame } from '../bench/refused';
import type { Zone } from '../bench/schema';
import type { NotWritten, StopVerdict } from '../bench/stopSeries';
import { atDistanceMm } from '../record/groups';
import { normalCdf } from '../maths/normal';
import { formatLength, type LengthUnit } from '../units/length';

const stopsOf = (stops: number): string =>
  stops < 1.25 ? 'a stop' : `${Number((Math.round(stops * 2) / 2).toFixed(1))} stops`;

/** What a frame of the focus sheet lacks, and what to move, by how much where that is known. */
export function focusProblemWords({ problem, by }: RefusedFrame<FocusProblem>, unit: LengthUnit): string {
  switch (problem) {
    case 'noSheet':
      return 'No focus sheet found. All markers must be in the frame, at least 60 pixels wide.';
    case 'half':
      return 'Only half the sheet is in the frame: both halves must be, with their markers.';
    case 'two':
      return 'There are two focus sheets in the frame: leave one.';
    case 'mirrored':
      return 'The photo is mirrored: nothing was measured.';
    case 'small':
      return `The sheet is too small: go nearer, to ${by === null ? 'where it fills a third of the frame' : formatLength(by, unit)}.`;
    case 'askew':
      return `The upright half is ${by === null ? 'not square to the lens' : `turned ${Math.round(by)}°`}. Square it to the lens (within 2°).`;
    case 'blown':
      return 'The paper is blown out: expose one stop less.';
    case 'dark':
      return `It is too dark to measure: expose ${stopsOf(by ?? 2)} more.`;
    case 'shortFront':
      return `Focus is in front of the leaning half. Move that half${byWords(by, unit)} towards the lens.`;
    case 'shortBehind':
      return `Focus is behind the leaning half. Move that half${byWords(by, unit)} away from the lens.`;
    case 'flat':
      return `The leaning half ${by === null || by < 1 ? 'hardly leans' : `leans by ${Math.round(by)}° only`}: lean it back by about 45°.`;
    case 'notSharp':
      return 'Nothing on the leaning half is sharp: camera shake, or focus was far off.';
    case 'unclear':
      return 'The reading doesn’t add up: bent paper, glare, or the wrong focal length.';
  }
}
const byWords = (mm: number | null, unit: LengthUnit): string => (mm === null ? '' : ` ${shortLength(mm, unit)}`);

export function edgeProblemWords({ problem, by }: RefusedFrame<EdgeFrameProblem>): string {
  switch (problem) {
    case 'noSheet':
      return 'No page of the edge sheet found with three of its markers.';
    case 'two':
      return 'A page is in it twice.';
    case 'mirrored':
      return 'The photo is mirrored: nothing was measured.';
    case 'small':
      return 'The pages are too small: go nearer.';
    case 'noEdges':
      return 'None of its edges can be measured: blown out, cut off, or far out of focus.';
    case 'askew':
      return `The lens is ${by === null ? 'more than 2°' : `${Number(by.toFixed(1))}°`} out of square to the wall: within 2° it can be measured.`;
  }
}

/** Beyond these a frame is measured, and what is askew said: degrees, and a share of half the picture's height (chosen). */
const noticed = { deg: 1.2, rollDeg: 2, off: 0.4 } as const;

/** What to mend about how the sheet and the camera stand, in a frame that can be measured; nothing where all is well. */
export function standingWords(
  { turnDeg: { aside, back, roll }, aimFrom, distanceMm }: Pick<FocusFrame, 'turnDeg' | 'aimFrom' | 'distanceMm'>,
  halfHeightMm: number,
  f: number,
  unit: LengthUnit
): string[] {
  const told: string[] = [];
  const degrees = (deg: number) => `${Number(Math.abs(deg).toFixed(1))}°`;
  if (Math.abs(roll) > noticed.rollDeg) told.push(`The camera is ${degrees(roll)} off level with the sheet.`);
  if (Math.abs(aside) > noticed.deg)
    told.push(`Turn the upright half ${degrees(aside)}: its ${aside > 0 ? 'right' : 'left'} side stands further away.`);
  if (Math.abs(back) > noticed.deg)
    told.push(`The upright half leans ${degrees(back)} ${back > 0 ? 'back' : 'forward'}, or the lens is not level.`);
  // Half the picture's height as it is at the sheet.
  const half = (halfHeightMm * distanceMm) / f;
  if (Math.abs(aimFrom.y) > noticed.off * half)
    told.push(
      `The eye lies ${shortLength(Math.abs(aimFrom.y), unit)} ${aimFrom.y > 0 ? 'under' : 'over'} the middle of the frame: ${aimFrom.y > 0 ? 'lower' : 'raise'} the camera, level.`
    );
  return told;
}

/** A distance that millimetres count in: "9 mm", "1.4 mm". */
export function shortLength(mm: number, unit: LengthUnit): string {
  if (unit !== 'metric' || mm >= 99.5) return formatLength(mm, unit);
  return `${mm < 2.95 ? Number(mm.toFixed(1)) : Math.round(mm)} mm`;
}

/** "9 mm behind". */
export const behindWords = (mm: number, unit: LengthUnit): string =>
  `${shortLength(Math.abs(mm), unit)} ${mm < 0 ? 'in front' : 'behind'}`;

/** An error on the sensor as it is at a distance: "9 mm behind". */
export function focusOffsetText(um: number, f: number, distanceMm: number, unit: LengthUnit): string {
  return behindWords(atDistanceMm(um, f, distanceMm), unit);
}

/** How many frames miss the depth of field: "one frame in 6". */
export function lostWords({ bias, sd }: Pick<FocusResult, 'bias' | 'sd'>, allowedUm: number): string {
  const inside = normalCdf((allowedUm - bias.value) / sd.value) - normalCdf((-allowedUm - bias.value) / sd.value);
  const lost = 1 - inside;
  if (lost < 0.005) return 'Hardly a frame misses the depth of field because of it.';
  if (lost > 0.5) return 'Most frames miss the depth of field.';
  return lost > 0.2
    ? `About ${Math.round(lost * 10)} frames in 10 miss the depth of field.`
    : `About 1 frame in ${Math.round(1 / lost)} misses the depth of field.`;
}

export interface FocusSaid {
  readonly title: string;
  readonly detail: string;
  readonly advice: string;
  readonly more: string;
}

interface Told {
  readonly lens: string;
  readonly f: number;
  readonly distanceMm: number;
  readonly unit: LengthUnit;
  readonly frames: number;
  /** Half the depth of focus on the sensor, µm. */
  readonly allowedUm: number;
  readonly wished?: Precision;
}

/** "This 85 back-focuses 9 mm, consistently." */
export function focusWords(
  result: FocusResult,
  { lens, f, distanceMm, unit, frames, allowedUm, wished = 'fifth' }: Told
): FocusSaid {
  const { bias, sd, verdict, approach, changesWithDistance, more } = result;
  const at = (um: number) => Math.abs(atDistanceMm(um, f, distanceMm));
  const half = at((bias.high - bias.low) / 2);
  const where = focusOffsetText(bias.value, f, distanceMm, unit);
  const off = shortLength(at(bias.value), unit);
  const counted = frames === 1 ? 'One frame' : `${frames} frames`;
  const steady = sd.value < Math.abs(bias.value) / 3;
  const title = {
    few: `${lens}: too few frames to say`,
    onTheMark: `${lens} is on target.`,
    front: `${lens} front-focuses ${off}${steady ? ', consistently' : ''}.`,
    behind: `${lens} back-focuses ${off}${steady ? ', consistently' : ''}.`,
    scattered: `${lens} varies more from frame to frame than it front- or back-focuses.`
  }[verdict];
  const detail = `${counted} at ${formatLength(distanceMm, unit)}: ${where}, ±${shortLength(half, unit)} (90% range); scatter ${shortLength(at(sd.value), unit)}. ${lostWords(result, allowedUm)}`;
  const biased = verdict === 'front' || verdict === 'behind';
  const towards = bias.value > 0 ? 'forward' : 'back';
  const advice = changesWithDistance
    ? 'It changes with distance: one AF fine-tune value can’t fix both. Test at your working distance.'
    : biased
      ? `Use AF fine-tune to move focus ${towards}: correct about half, then test again. Steps differ between bodies.`
      : verdict === 'scattered'
        ? 'AF fine-tune won’t help: it varies more than it is off.'
        : verdict === 'onTheMark'
          ? 'Nothing to adjust.'
          : 'One frame can’t separate error from scatter: refocus for each, alternately from near and from far.';
  const approaches =
    approach?.differ === true
      ? ` Coming from near it lands ${focusOffsetText(approach.near, f, distanceMm, unit)}, from far ${focusOffsetText(approach.far, f, distanceMm, unit)}: the direction matters.`
      : '';
  return {
    title,
    detail: detail + approaches,
    advice,
    more:
      more > 0
        ? `${more === 1 ? 'One more frame' : `${more} more frames`} would narrow it to a ${wished} of the depth of field.`
        : ''
  };
}

const zoneWords: Readonly<Record<Zone, string>> = {
  centre: 'in the centre',
  middle: 'halfway out',
  corner: 'in the corners'
};

/** "Best at f/4 in the middle, f/5.6 to the corners. Keep faces off the corners below f/2.8." */
export function stopsWords({ bestCentre, bestCorner, avoid, unsound }: StopVerdict): {
  readonly title: string;
  readonly detail: string;
} {
  if (unsound)
    return {
      title: 'All of it is soft: it can’t show how good the lens is.',
      detail: 'Out of focus, camera shake, or another lens. Focus once, magnified, and shoot the series again.'
    };
  const reach = bestCorner?.zone === 'corner' ? 'to the corners' : 'halfway out';
  const title =
    bestCentre === null
      ? 'The centre was not measured.'
      : bestCorner?.fNumber === bestCentre
        ? `Best at f/${bestCentre}, from the centre ${reach}.`
        : `Best at f/${bestCentre} in the centre${bestCorner ? `, f/${bestCorner.fNumber} ${reach}` : ''}.`;
  const best = bestCorner?.fNumber ?? bestCentre ?? 0;
  const worst = (['centre', 'middle', 'corner'] as const).flatMap((zone) => {
    // Diffraction takes from the smallest stops what nobody can mend: those are not meant.
    const open = avoid.filter((one) => one.zone === zone && one.fNumber < best);
    const [first, last] = [open[0], open[open.length - 1]];
    return first && last
      ? [{ zone, from: first.fNumber, to: last.fNumber, loses: Math.max(...open.map((one) => one.loses)) }]
      : [];
  });
  const said = worst.map(({ zone, from, to, loses }) => {
    const percent = `${Math.round(loses * 100)}%`;
    return from === to
      ? `${zoneWords[zone]} ${percent} at f/${from}`
      : `${zoneWords[zone]} up to ${percent} from f/${from} to f/${to}`;
  });
  const outermost = worst[worst.length - 1];
  const keep =
    outermost && outermost.zone !== 'centre'
      ? ` Keep faces out of the ${outermost.zone === 'corner' ? 'corners' : 'outer half'} there.`
      : '';
  return {
    title,
    detail: worst.length === 0 ? 'No aperture is weak anywhere.' : `It loses ${said.join(', ')}.${keep}`
  };
}

/** What sharpening in the camera does to a figure. */
export function overshootWords(overshoot: number): string {
  return `Sharpened by the camera (${Math.round(overshoot * 100)}% beyond the edge): figures are higher than the lens’s own, and compare only with others developed alike.`;
}

export const notWrittenWords: Readonly<Record<NotWritten, string>> = {
  unsound: 'Nothing is written to the lens from a series that is soft throughout.',
  sharpened: 'Sharpened photos can’t be saved to the lens: turn sharpening off, or convert a raw file without it.',
  gap: 'Apertures are missing in between. Shoot them too, then it can be saved.',
  notWide: 'The widest aperture is missing: shoot it too, then it can be saved.',
  noCentre: 'The centre was not measured: hang a page there.'
};

/** Beyond these the steps of grey lie otherwise than printed: a curve of the camera's, or of the printer's (chosen). */
const usualTones = { from: 0.9, to: 1.11 } as const;

/** What undoing a tone curve did to the figures; nothing where the tones lie as printed, or no steps were seen. */
export function toneWords(tone: EdgeFrame['tone']): string {
  if (tone === null) return 'Couldn’t read the grey steps: the numbers assume a neutral colour profile.';
  const { exponent, shift } = tone;
  if (exponent > usualTones.from && exponent < usualTones.to) return '';
  const by = Math.round(Math.abs(shift) * 100);
  const did =
    by === 0 ? 'changes the figures by less than 1%' : `makes the figures ${by}% ${shift < 0 ? 'lower' : 'higher'}`;
  return `The steps of grey lie otherwise than printed (exponent ${exponent.toFixed(1)}). That is undone, which ${did}. Whatever your printer’s greys are off by is in it.`;
}

/** How a wing that is too short is mended: "Move the leaning half 12 mm towards the lens". */
export const wingWords = (shiftMm: number | null, unit: LengthUnit): string =>
  shiftMm === null
    ? ''
    : Math.abs(shiftMm) < leastShiftMm
      ? 'Both wings are shorter than the depth of field: go nearer, or lean the half back further.'
      : `One wing is shorter than the depth of field: move the leaning half ${shortLength(Math.abs(shiftMm), unit)} ${shiftMm < 0 ? 'towards' : 'away from'} the lens.`;
const leastShiftMm = 3;

export const fieldProblems: Readonly<Record<FieldProblem, string>> = {
  few: 'Five frames or more are needed, better nine.',
  narrow: 'Pages must hang in the middle and near the corners: between pages alike far out nothing bends.',
  still: 'All frames are alike: move the camera, or turn the ring, between them.',
  shortNear: 'Part of it is sharpest before the first frame: start nearer and shoot again.',
  shortFar: 'Part of it is sharpest after the last frame: go further and shoot again.'
};

interface Row {
  readonly f: number;
  /** Of the picture's longer side on the sensor, mm. */
  readonly widthMm: number;
  readonly distanceMm: number;
  readonly unit: LengthUnit;
}
/** Ends of a row stand so far out, over half the picture's width (chosen: a group is given some air). */
const rowShare = 0.8;

/** By how much the ends of a row that fills the picture are to come forward, mm, with nine tenths; negative: go back. */
export function rowEnds({ perM }: Pick<FieldCurve, 'perM'>, { f, widthMm, distanceMm }: Omit<Row, 'unit'>) {
  const tangent = (rowShare * widthMm) / 2 / f;
  const at = (value: number) => nearerAt(value, tangent, distanceMm);
  return { value: at(perM.value), low: at(perM.low), high: at(perM.high) };
}

/** "For this lens bring the ends of a row 12 cm forward." */
export function fieldWords(curve: FieldCurve, row: Row): { readonly title: string; readonly detail: string } {
  const { value, low, high } = rowEnds(curve, row);
  const { unit, distanceMm } = row;
  const length = (mm: number) => shortLength(Math.abs(mm), unit);
  const between = `${length(low)} to ${length(high)}`;
  const where = `of a row that fills the frame, at ${formatLength(distanceMm, unit)}`;
  if (low <= 0 && high >= 0)
    return {
      title: 'The field is flat, as far as this can tell.',
      detail: `The ends ${where}, stay in line to within ${length(Math.max(-low, high))}.`
    };
  return {
    title: `For this lens ${value > 0 ? 'bring' : 'let'} the ends of a row ${length(value)} ${value > 0 ? 'forward' : 'back'}.`,
    detail: `The field curves ${value > 0 ? 'towards the lens' : 'away from it'}: ${value > 0 ? between : `${length(high)} to ${length(low)}`} at the ends ${where} (90% range).`
  };
}

export const spotsProblems: Readonly<Record<SpotsProblem, string>> = {
  notPlain:
    'The surface is not plain: a clear sky or white paper, held near and far out of focus, moved while it is taken.',
  blown: 'It’s blown out: expose one stop less.',
  dark: 'It’s too dark: expose two stops more.',
  wideStop: 'Dust doesn’t show this wide: shoot at f/16 or f/22.'
};

/** "Seven spots; two show from f/5.6 on." @param usual the smallest stop one works at */
export function spotsWords(
  { spots }: { readonly spots: readonly Pick<Spot, 'showsFrom'>[] },
  usual: number
): { readonly title: string; readonly detail: string } {
  const count = spots.length === 1 ? 'One spot' : `${spots.length} spots`;
  if (spots.length === 0) return { title: 'No dust found.', detail: 'No spots anywhere in the frame.' };
  const [worst] = spots;
  const early = spots.filter(({ showsFrom }) => showsFrom <= usual).length;
  const stop = (N: number) => `f/${N < 10 ? Number(N.toFixed(1)) : Math.round(N)}`;
  return {
    title: `${count}${early === 0 ? `, none of which shows at ${stop(usual)}` : ''}.`,
    detail: `The largest shows from ${stop(worst?.showsFrom ?? 0)} on${early > 0 && spots.length > 1 ? `, ${early === spots.length ? 'all' : `${early} of ${spots.length}`} at ${stop(usual)}` : ''}. Clean only as the camera’s manual says, or have it done.`
  };
}

/** Where a spot lies: "upper left". */
export function spotPlace({ x, y }: Pick<Spot, 'x' | 'y'>): string {
  const [row, column] = [y < 1 / 3 ? 'upper' : y > 2 / 3 ? 'lower' : '', x < 1 / 3 ? 'left' : x > 2 / 3 ? 'right' : ''];
  return [row, column].filter(Boolean).join(' ') || 'middle';
}
