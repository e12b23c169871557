/** Checks in words: what to do, and why here. */
import type { Plan } from '../call/plan';
import type { Check } from '../technique/checks';
import type { Trouble } from '../technique/trouble';
import { edgeWords } from '../setup/edges';
import { possessive, spoken, targetWords } from './call';
import { formatLength, type LengthUnit } from '../units/length';
import { focusAreaWords } from '../setup/focusChoices';
import { landedWords } from './ways';

export interface CheckWords {
  /** Tells it from the others of a setup. */
  readonly key: string;
  readonly what: string;
  readonly because: string;
}

/** "+1 2/3", "−2/3": in thirds, as cameras show it. */
export function correctionWords(stops: number): string {
  const thirds = Math.round(Math.abs(stops) * 3);
  const whole = Math.floor(thirds / 3);
  const rest = ['', '1/3', '2/3'][thirds % 3] ?? '';
  const text = [whole > 0 ? String(whole) : '', rest].filter(Boolean).join(' ');
  return text === '' ? '0' : `${stops < 0 ? '−' : '+'}${text}`;
}

function troubleWords(plan: Plan, trouble: Trouble, unit: LengthUnit): Omit<CheckWords, 'key'> {
  switch (trouble.kind) {
    case 'inFront':
      return {
        what: 'Keep the AF point clear',
        because: `${landedWords(plan, trouble.what)} is under it, ${formatLength(trouble.beforeMm, unit)} in front: a smaller point, a step aside, or manual focus`
      };
    case 'lowContrast':
      return {
        what: 'Find an edge to focus on',
        because:
          'there is little contrast under the point: an edge at the same distance, a cross-type point, or manual focus, magnified'
      };
    case 'dark':
      return {
        what: 'Help AF in the dark',
        because:
          'the light is near what the body can focus in: a torch on the face for a moment, an edge with light behind it, or focus once and hold'
      };
    case 'backlight':
      return {
        what: 'Shade the lens and check the focus',
        because: 'backlight lowers contrast on faces'
      };
    case 'noFace':
      return {
        what: 'Do not rely on eye detection',
        because: 'this face is hard to find: turned, covered, small or dark'
      };
  }
}

/** How many of the checks are ticked; keys of others, from before a change, do not count. */
export const tickedOf = (lines: readonly CheckWords[], ticked: readonly string[]): number =>
  lines.filter(({ key }) => ticked.includes(key)).length;

/** One check. */
// eslint-disable-next-line complexity, max-lines-per-function -- a table: one case a check, each a sentence
export function checkWords(plan: Plan, check: Check, unit: LengthUnit): CheckWords {
  const of = (what: string, because: string, key: string = check.kind): CheckWords => ({ key, what, because });
  switch (check.kind) {
    case 'area':
      return check.area === 'point'
        ? of('Single point', 'left to choose, the camera focuses on what’s nearest')
        : of(`AF area: ${focusAreaWords[check.area]}`, 'as planned');
    case 'byHand':
      return of('Autofocus off', 'this setup is focused manually');
    case 'hold':
      return of('Focus again just before you press', 'everyone drifts while you wait');
    case 'drive':
      if (check.drive === 'burst') return of('Drive: a burst', 'one frame won’t catch it');
      return check.frames === 1
        ? of('One frame at a time', 'one is enough')
        : of(
            check.frames === null ? 'Many frames, to combine' : `${check.frames} frames, refocusing for each`,
            'so one has everyone sharp with eyes open'
          );
    case 'metering':
      return of(
        `Exposure compensation ${correctionWords(check.reading.correction)}`,
        `the meter sees ${check.reading.on[0] ? landedWords(plan, check.reading.on[0]) : 'something'}, ${check.reading.offStops > 0 ? 'brighter' : 'darker'} than middle grey`
      );
    case 'highlights':
      return of('Highlight alert on', 'white cloth and flash burn out first');
    case 'stabiliserOff':
      return of('Stabiliser off', 'on a tripod it may drift');
    case 'level':
      return of('Grid and level on', 'upright lines show every tilt');
    case 'dust':
      return of('Look for dust spots', 'they show this far stopped down');
    case 'weakEnd':
      return of(`Come back from the ${check.end} end of the zoom`, `this lens is weakest there`);
    case 'edge':
      return of(
        `Look at the edge: ${check.finding.name}`,
        `${check.finding.name} ${edgeWords[check.finding.what]}`,
        `edge ${check.finding.personId}`
      );
    case 'growing': {
      const { name, what, stepMm, personId } = check.finding;
      const step = `${formatLength(Math.abs(stepMm ?? 0), unit)} to the ${(stepMm ?? 0) < 0 ? 'left' : 'right'}`;
      return of(
        stepMm === null ? `Look behind ${name}’s head` : `Step ${step}`,
        `${spoken(what)} behind: one grows out of ${possessive(name)} head`,
        `growing ${personId}`
      );
    }
    case 'crop':
      return check.lost.length === 0
        ? of(`Leave room for a ${check.shape} crop`, 'a print is ordered in this shape', `crop ${check.shape}`)
        : of(`Frame wider for ${check.shape}`, `it would cut off ${check.lost.join(', ')}`, `crop ${check.shape}`);
    case 'trouble':
      return { key: check.trouble.kind, ...troubleWords(plan, check.trouble, unit) };
    case 'lookAtFirst': {
      const entry = plan.stops[plan.selected];
      const on = entry ? targetWords(plan, entry, unit) : 'the eyes';
      return of('Check the first frame at 100%', `on ${on}: a small screen hides missed focus`);
    }
    case 'retake':
      return of(`One more at f/${check.stop.label}`, 'the keeper rate is low');
    case 'ladder':
      return of('Have someone hold the ladder', 'you stand high; ask the venue first');
    case 'sun':
      return of('Do not look at the sun through the lens', 'long lenses and optical finders burn eyes');
    case 'infantFlash':
      return of('No hard flash close to the baby', 'bounce it, or use the light that is there');
    case 'cables':
      return of('Weight the stands, tape the cables', 'people will walk past them');
  }
}
