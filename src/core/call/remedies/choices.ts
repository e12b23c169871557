/** Remedies that are one thing or another. */
import { distanceForFraming, framedSize } from '../../optics/thinLens';
import { mountings } from '../../kit/fits';
import { frameSize, pictureSize } from '../../setup/framing';
import type { Camera } from '../../setup/schema';
import { usefulFocalLengths } from '../lineUp';
import { standingAt, withCamera, type Choice, type Context } from './remedy';

/** Every choice with its options, in order of effort. */
export function choices(context: Context): Choice[] {
  const { setup, habits } = context;
  const { camera, intent } = setup;
  const hold = (stance: Camera['stance']) => habits.holdMm[stance];
  const stanceEffort: Readonly<Record<Camera['stance'], number>> = {
    standing: 0,
    braced: 0.2,
    kneeling: 0.3,
    monopod: 1.5,
    tripod: 3
  };
  const stances = (['braced', 'kneeling', 'monopod', 'tripod'] as const).filter(
    (stance) => hold(stance) < hold(camera.stance)
  );
  const sharper = (['crossPoint'] as const).filter(
    (method) => habits.focusShare[method] < habits.focusShare[camera.focusMethod]
  );
  const byHand = camera.focusMethod === 'magnifier' ? [] : (['magnifier'] as const);
  const methods = [...sharper, ...byHand];
  const moving = setup.people.some((person) => person.towardsMmPerS !== 0);
  return [
    {
      kind: 'movePoint',
      unit: 'none',
      options:
        camera.recompose === 'none'
          ? []
          : [{ setup: withCamera(setup, { recompose: 'none' }), subject: '', effort: 0.1 }]
    },
    {
      kind: 'continuousFocus',
      unit: 'none',
      options:
        moving && camera.focusMode === 'single'
          ? [{ setup: withCamera(setup, { focusMode: 'continuous' }), subject: '', effort: 0.1 }]
          : []
    },
    {
      kind: 'focusMethod',
      unit: 'none',
      options: methods.map((focusMethod) => ({
        setup: withCamera(setup, { focusMethod }),
        subject: focusMethod,
        effort: focusMethod === 'magnifier' ? 0.6 : 0.2
      }))
    },
    {
      kind: 'steadier',
      unit: 'none',
      options: stances.map((stance) => ({
        setup: withCamera(setup, { stance }),
        subject: stance,
        effort: stanceEffort[stance]
      }))
    },
    { kind: 'changeLens', unit: 'mm', options: otherLenses(context) },
    {
      kind: 'twoFrames',
      unit: 'none',
      options:
        intent.frames === 'one' && setup.people.length + setup.things.length > 1
          ? [{ setup: { ...setup, intent: { ...intent, frames: 'two' } }, subject: '', effort: 4 }]
          : []
    },
    { kind: 'stitch', unit: 'none', options: stitches(context) }
  ];
}

/** Every other lens at the same framing; the amount is where to stand. */
function otherLenses({ setup, kit, lens, body, distance }: Context): Choice['options'] {
  const { height } = pictureSize(body, setup.camera);
  const framed = framedSize(setup.camera.focalLengthMm, distance, height);
  return mountings(kit, body)
    .filter((other) => other.lens.id !== lens.id)
    .flatMap(({ lens: other, adapterIds, seen }) =>
      usefulFocalLengths(seen).map((focalLengthMm) => {
        const amount = distanceForFraming(focalLengthMm, framed, height);
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

const stitchOverlap = 0.3;

/** The same view from the same place with a longer lens in several frames: more opening for the same angle. */
function stitches({ setup, kit, body, distance }: Context): Choice['options'] {
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
      if (columns > 8 || rowsOfFrames > 8) return [];
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
