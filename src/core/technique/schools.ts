/**
 * Where practitioners disagree: what a photographer answers once. New setups start so, each can be set otherwise, and the
 * Technique tab says what the numbers make of it. "as usual" leaves the question to the kind of picture.
 */
import { z } from 'zod';
import { somebodyMoves } from '../call/motion';
import type { PlanInput } from '../call/planInput';
import type { Kit } from '../kit/schema';
import { styleWords } from '../setup/choices';
import { exposureModeWords, focusModeWords, meteringWords, recomposeWords, triggerWords } from '../setup/focusChoices';
import type { Camera, Setup } from '../setup/schema';
import { judgedRules } from './rules';

export const schoolsSchema = z.strictObject({
  wideOpen: z.enum(['usual', 'openAsFacesAllow', 'lensBest', 'deepAndSafe', 'always']).default('usual'),
  turnedFace: z.enum(['usual', 'nearEye', 'bothEyes', 'eyesToNose', 'wholeHead']).default('usual'),
  rows: z.enum(['usual', 'byRow', 'thirdIn']).default('usual'),
  surface: z.enum(['usual', 'curved']).default('usual'),
  placement: z.enum(['usual', 'turn']).default('usual'),
  picker: z.enum(['usual', 'eyeDetection', 'automaticWhenMoving']).default('usual'),
  trigger: z.enum(['usual', 'thumb']).default('usual'),
  mode: z.enum(['usual', 'single', 'continuous', 'automatic']).default('usual'),
  manual: z.enum(['usual', 'tripod', 'never']).default('usual'),
  shutterFloor: z.enum(['usual', 'twice', 'twiceAlways']).default('usual'),
  groups: z.enum(['usual', 'openAsFacesAllow', 'lensBest', 'f5.6', 'f8']).default('usual'),
  exposure: z.enum(['usual', 'manualAutoIso', 'manual']).default('usual'),
  metering: z.enum(['usual', 'centre', 'spot', 'point']).default('usual'),
  drive: z.enum(['usual', 'burst']).default('usual')
});

export type Schools = z.infer<typeof schoolsSchema>;
export const usualSchools: Schools = schoolsSchema.parse({});

export interface SchoolQuestion<K extends keyof Schools = keyof Schools> {
  readonly key: K;
  readonly question: string;
  readonly answers: readonly { readonly value: Schools[K]; readonly name: string }[];
}

const question = <K extends keyof Schools>(
  key: K,
  text: string,
  answers: Readonly<Record<Schools[K], string>>
): SchoolQuestion => ({
  key,
  question: text,
  answers: (Object.keys(answers) as Schools[K][]).map((value) => ({ value, name: answers[value] }))
});

/** The questions schools answer differently; who picks the point and the focus mode are two of the camera. */
export const schoolQuestions: readonly SchoolQuestion[] = [
  question('wideOpen', 'Aperture', {
    usual: 'by type of photo',
    ...styleWords,
    always: 'always wide open'
  }),
  question('turnedFace', 'Sharp on each face', {
    usual: 'by type of photo',
    nearEye: 'the near eye is enough',
    bothEyes: 'both eyes',
    eyesToNose: 'eyes and nose',
    wholeHead: 'the whole head with hair'
  }),
  question('rows', 'Focus on rows', {
    usual: 'best keeper rate',
    byRow: 'two rows: the front; more: the middle',
    thirdIn: 'a third of the way in'
  }),
  question('surface', 'Plane of focus', {
    usual: 'flat',
    curved: 'curved, the same distance from the lens everywhere'
  }),
  question('placement', 'Move point or recompose', {
    usual: recomposeWords.none,
    turn: recomposeWords.wrists
  }),
  question('picker', 'AF point chosen by', {
    usual: 'you',
    eyeDetection: 'eye detection, where the body has it',
    automaticWhenMoving: 'you, the camera when someone moves'
  }),
  question('trigger', 'Focus button', { usual: triggerWords.halfPress, thumb: triggerWords.thumb }),
  question('mode', 'Focus mode', {
    usual: 'by type of photo',
    single: 'single AF, always',
    continuous: 'continuous AF, always',
    automatic: focusModeWords.automatic
  }),
  question('manual', 'Manual focus', {
    usual: 'for stitched frames',
    tripod: 'on a tripod too, magnified',
    never: 'never'
  }),
  question('shutterFloor', 'Slowest hand-held shutter', {
    usual: '1/focal length',
    twice: '1/(2 × focal length)',
    twiceAlways: '1/(2 × focal length), always'
  }),
  question('groups', 'Aperture for groups', {
    usual: styleWords.deepAndSafe,
    openAsFacesAllow: styleWords.openAsFacesAllow,
    lensBest: styleWords.lensBest,
    'f5.6': 'f/5.6',
    f8: 'f/8'
  }),
  question('exposure', 'Exposure mode', {
    usual: exposureModeWords.aperturePriority,
    manualAutoIso: exposureModeWords.manualAutoIso,
    manual: exposureModeWords.manual
  }),
  question('metering', 'Metering', {
    usual: meteringWords.whole,
    centre: meteringWords.centre,
    spot: meteringWords.spot,
    point: meteringWords.point
  }),
  question('drive', 'Drive', { usual: 'one frame', burst: 'burst' })
];

/** A new setup as the photographer's schools have it. The input's setup is the one to change. */
export function withSchools(input: PlanInput, schools: Schools): Setup {
  const { setup, kit } = input;
  const { light } = setup;
  const sharp = schools.turnedFace;
  const made: Setup = {
    ...setup,
    camera: { ...setup.camera, ...pointing(input, schools), ...focusing(setup, schools) },
    intent: { ...setup.intent, ...opened(setup, kit, schools) },
    light: { ...light, floors: { ...light.floors, ...floorsOf(schools) } },
    people: sharp === 'usual' ? setup.people : setup.people.map((person) => ({ ...person, sharp }))
  };
  if (schools.rows === 'usual') return made;
  // The rules need the places of everybody, and so the plan.
  const wanted = schools.rows === 'thirdIn' ? ['thirdIn'] : ['frontOfTwo', 'middleRow'];
  const ruled = judgedRules({ ...input, setup: made }).find(({ rule }) => wanted.includes(rule));
  return ruled ? { ...made, intent: { ...made.intent, target: ruled.setup.intent.target } } : made;
}

/** The slowest time by focal length, and whether a stabiliser lengthens it. */
function floorsOf({ shutterFloor }: Schools): Partial<Setup['light']['floors']> {
  if (shutterFloor === 'usual') return {};
  return { perFocalLength: 2, stabiliserCounts: shutterFloor === 'twice' };
}

/** How wide open, by the style or a stop. */
function opened({ camera, intent }: Setup, kit: Kit, { wideOpen, groups }: Schools): Partial<Setup['intent']> {
  const chosen = (fNumber: number) => ({ stop: { kind: 'chosen' as const, fNumber } });
  if (groups !== 'usual' && intent.picture === 'group') {
    const style = wideOpen === 'always' || wideOpen === 'usual' ? {} : { style: wideOpen };
    if (groups === 'openAsFacesAllow' || groups === 'lensBest') return { style: groups };
    return { ...style, ...chosen(groups === 'f8' ? 8 : 5.6) };
  }
  if (wideOpen === 'usual') return {};
  if (wideOpen !== 'always') return { style: wideOpen };
  const lens = kit.lenses.find(({ id }) => id === camera.lensId);
  return lens ? chosen(lens.widestFNumber) : {};
}

/** What the camera points with, and what is turned for it. */
function pointing({ setup, kit }: PlanInput, { surface, placement, picker }: Schools): Partial<Camera> {
  const isSlr = kit.bodies.find(({ id }) => id === setup.camera.bodyId)?.kind === 'slr';
  const changes: Partial<Camera> = {};
  if (surface === 'curved') changes.focusSurface = 'curved';
  if (placement === 'turn') changes.recompose = 'wrists';
  if (picker === 'eyeDetection' && !isSlr) changes.focusArea = 'eyeDetection';
  if (picker === 'automaticWhenMoving' && somebodyMoves(setup)) changes.focusArea = isSlr ? 'tracking' : 'eyeDetection';
  return changes;
}

/** How it focuses, meters and shoots. */
function focusing({ camera }: Setup, { trigger, mode, manual, exposure, metering, drive }: Schools): Partial<Camera> {
  const changes: Partial<Camera> = {};
  if (trigger === 'thumb') changes.trigger = 'thumb';
  if (mode !== 'usual') changes.focusMode = mode;
  if (manual === 'tripod' && camera.stance === 'tripod') changes.focusMethod = 'magnifier';
  if (manual === 'never' && camera.focusMethod !== 'ordinaryPoint') changes.focusMethod = 'crossPoint';
  if (exposure !== 'usual') changes.exposureMode = exposure;
  if (metering !== 'usual') changes.metering = metering;
  if (drive === 'burst') changes.drive = 'burst';
  return changes;
}
