/** Remedies that are one thing or another. */
import { withCamera } from '../../setup/moves';
import { degrees } from '../../maths/vector';
import { distanceForFraming, framedSize } from '../../optics/thinLens';
import { mountings } from '../../kit/fits';
import { defaultFlash } from '../../setup/defaults';
import { frameSize, pictureSize } from '../../setup/framing';
import { atSameSpot } from '../../setup/sameFraming';
import { turnFromLens, viewpoint } from '../../setup/scene';
import type { Person, Setup } from '../../setup/schema';
import { usefulFocalLengths } from '../lineUp';
import { movePeople, standingAt, type RemedyChoice, type Context } from './remedy';

type Options = RemedyChoice['options'];

const choice = (kind: RemedyChoice['kind'], options: Options, unit: RemedyChoice['unit'] = 'none'): RemedyChoice => ({
  kind,
  unit,
  options
});
/** The only way of it, where it is open. */
const only = (isOpen: boolean, setup: Setup, effort: number): Options =>
  isOpen ? [{ setup, subject: '', effort }] : [];

/** Every choice with its options, in order of effort. */
export function choices(context: Context): RemedyChoice[] {
  const { setup } = context;
  const { camera, intent, light } = setup;
  const deciding = setup.people.filter((person) => person.importance !== 'maySoft');
  const moving = deciding.some(isRestless);
  // Whoever touches is not cut between two frames.
  const apart = !moving && deciding.every((person) => person.posture !== 'embracing');
  const isTwo = intent.frames === 'one' && apart && deciding.length + setup.things.length > 1;
  return [
    choice('nearEyeAlone', nearEyes(context)),
    choice('shorterShutter', only(light.shutterS !== null, { ...setup, light: { ...light, shutterS: null } }, 0.1)),
    choice('flash', flashes(context)),
    choice('movePoint', only(camera.recompose !== 'none', withCamera(setup, { recompose: 'none' }), 0.1)),
    choice(
      'continuousFocus',
      only(moving && camera.focusMode === 'single', withCamera(setup, { focusMode: 'continuous' }), 0.1)
    ),
    choice('focusMethod', focusings(context)),
    choice('steadier', stances(context)),
    choice('changeLens', otherLenses(context), 'mm'),
    choice('widerFromHere', widerLenses(context)),
    choice('twoFrames', only(isTwo, { ...setup, intent: { ...intent, frames: 'two' } }, 4)),
    choice('stitch', moving ? [] : stitches(context))
  ];
}

const isRestless = (person: Person): boolean =>
  person.towardsMmPerS !== 0 || person.acrossMmPerS !== 0 || person.mood !== 'still';

/** Surer ways of focusing. */
function focusings({ setup }: Context): Options {
  const now = setup.camera.focusMethod;
  return (['crossPoint', 'magnifier'] as const)
    .filter((method) => method !== now && !(method === 'crossPoint' && now === 'magnifier'))
    .map((focusMethod) => ({
      setup: withCamera(setup, { focusMethod }),
      subject: focusMethod,
      effort: focusMethod === 'magnifier' ? 0.6 : 0.2
    }));
}

const stanceEffort = { braced: 0.2, kneeling: 0.3, monopod: 1.5, tripod: 3 } as const;

/** Steadier ways of holding the camera. */
function stances({ setup, habits }: Context): Options {
  const { holdMm } = habits;
  return (['braced', 'kneeling', 'monopod', 'tripod'] as const)
    .filter((stance) => holdMm[stance] < holdMm[setup.camera.stance])
    .map((stance) => ({ setup: withCamera(setup, { stance }), subject: stance, effort: stanceEffort[stance] }));
}

/** A face turned further than this has a near eye to settle for, degrees (common practice, no source). */
const turnedDeg = 15;

/** Whoever keeps the window shut, with their near eye alone asked for. */
function nearEyes({ setup, plan, body, lens }: Context): Options {
  const { lower } = plan;
  const id = lower.kind === 'point' || lower.kind === 'odds' ? lower.subjectId : '';
  const person = setup.people.find((item) => item.id === id);
  const view = viewpoint(setup, body, lens.pupilMagnification);
  if (!person || person.sharp === 'nearEye' || Math.abs(degrees(turnFromLens(view, person))) < turnedDeg) return [];
  const changed = movePeople(setup, (item) => (item.id === id ? { sharp: 'nearEye' } : {}));
  return [{ setup: changed, subject: person.name, effort: 0.25 }];
}

/** Light of one's own, where the light there is lets things blur or leaves them dark. */
function flashes({ setup, plan, distance }: Context): Options {
  const { light } = setup;
  const entry = plan.stops[plan.recommended];
  const because = plan.conflict?.kind === 'facesUnreachable' ? plan.conflict.because : '';
  const helps = because === 'shake' || because === 'movement' || (entry?.light.missingStops ?? 0) > 0.1;
  if (light.flash || light.level.kind === 'unknown' || !helps) return [];
  const flash = { ...defaultFlash, distanceMm: Math.round(distance) };
  return [{ setup: { ...setup, light: { ...light, flash } }, subject: '', effort: 1.2 }];
}

/** Every other lens at the same framing; the amount is where to stand. */
function otherLenses({ setup, kit, lens, body, distance }: Context): Options {
  const framed = framedSize(
    setup.camera.focalLengthMm,
    distance,
    pictureSize(body, setup.camera).height,
    lens.pupilMagnification
  );
  return mountings(kit, body)
    .filter((other) => other.lens.id !== lens.id)
    .flatMap(({ lens: other, adapterIds, seen }) =>
      usefulFocalLengths(seen).map((focalLengthMm) => {
        // A stitched view of another lens has another height.
        const { height } = pictureSize(body, { ...setup.camera, focalLengthMm });
        const amount = distanceForFraming(focalLengthMm, framed, height, other.pupilMagnification);
        const changed = withCamera(setup, { lensId: other.id, adapterIds, focalLengthMm, ...standingAt(amount) });
        return {
          setup: changed,
          subject: `${seen.name}${other.longestMm > other.shortestMm ? ` at ${focalLengthMm}` : ''}`,
          effort: 1 + Math.abs(amount - distance) / 4000,
          amount
        };
      })
    )
    .sort((a, b) => a.effort - b.effort);
}

/** A frame that shows more than twice as much is another picture (common practice, no source). */
const leastOfLength = 0.5;

/** Every shorter lens from where the camera is, the longest first: more depth of field before a frame is cropped. */
function widerLenses({ setup, kit, lens, body, distance }: Context): Options {
  const { camera } = setup;
  if (camera.stitch) return [];
  return mountings(kit, body)
    .flatMap(({ lens: other, adapterIds, seen }) =>
      usefulFocalLengths(seen)
        .filter((focalLengthMm) => focalLengthMm < camera.focalLengthMm / 1.1)
        .filter((focalLengthMm) => focalLengthMm >= camera.focalLengthMm * leastOfLength)
        .map((focalLengthMm) => {
          const instead = { lensId: other.id, adapterIds, focalLengthMm, lens: other, body };
          const changed = atSameSpot(setup, { body, P: lens.pupilMagnification }, instead);
          return {
            setup: withCamera(changed, standingAt(distance)),
            subject: `${seen.name}${other.longestMm > other.shortestMm ? ` at ${focalLengthMm}` : ''}`,
            effort: (other.id === lens.id ? 0.2 : 1) + Math.log2(camera.focalLengthMm / focalLengthMm),
            focalLengthMm
          };
        })
    )
    .sort((a, b) => b.focalLengthMm - a.focalLengthMm);
}

const stitchOverlap = 0.3;

/** People keep still for no more frames than these (common practice, no source). */
const mostStitched = 12;

/** The same view from the same place with a longer lens in several frames: more opening for the same angle. */
function stitches({ setup, kit, body, distance }: Context): Options {
  if (setup.camera.stitch) return [];
  const frame = frameSize(body, setup.camera.orientation);
  const f = setup.camera.focalLengthMm;
  const frames = (longer: number, side: number) => {
    const wanted = 2 * Math.atan(side / (2 * f));
    const each = 2 * Math.atan(side / (2 * longer));
    return Math.max(1, Math.ceil((wanted / each - 1) / (1 - stitchOverlap) + 1 - 1e-9));
  };
  return mountings(kit, body)
    .flatMap((other) => usefulFocalLengths(other.seen).map((focalLengthMm) => ({ ...other, focalLengthMm })))
    .filter(({ focalLengthMm }) => focalLengthMm > f * 1.2)
    .flatMap(({ lens, adapterIds, seen, focalLengthMm }) => {
      const columns = frames(focalLengthMm, frame.width);
      const rowsOfFrames = frames(focalLengthMm, frame.height);
      if (columns * rowsOfFrames > mostStitched) return [];
      const stitch = { columns, rows: rowsOfFrames, overlap: stitchOverlap };
      const changed = withCamera(setup, {
        lensId: lens.id,
        adapterIds,
        focalLengthMm,
        stitch,
        ...standingAt(distance)
      });
      return [
        {
          setup: changed,
          subject: `${columns} × ${rowsOfFrames} frames with the ${seen.name}`,
          effort: 6 + columns * rowsOfFrames * 0.2
        }
      ];
    })
    .sort((a, b) => a.effort - b.effort);
}
