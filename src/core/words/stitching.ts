/** How to take a stitched wide view, step by step. */
import type { Projection, Stitching } from '../technique/stitching';
import { formatLength, type LengthUnit } from '../units/length';

const projectionWords: Readonly<Record<Projection, string>> = {
  flat: 'flat',
  cylinder: 'on a cylinder',
  sphere: 'on a sphere'
};

const degrees = (value: number): string => `${value < 10 ? value.toFixed(1) : Math.round(value)}°`;

export function stitchSteps(stitched: Stitching, unit: LengthUnit): readonly string[] {
  const { frames, angleDeg, turnDeg, equivalent, megapixels, projection, nearestMm } = stitched;
  const columns = Math.max(...frames.map(({ column }) => column)) + 1;
  const rows = Math.max(...frames.map(({ row }) => row)) + 1;
  const turns = [
    ...(columns > 1 ? [`${degrees(turnDeg.across)} across`] : []),
    ...(rows > 1 ? [`${degrees(turnDeg.down)} up or down`] : [])
  ].join(', ');
  return [
    `Focus on the subject, then switch to manual focus; set exposure and white balance by hand too, and leave all of it for every frame.`,
    `First the frame with the subject, then round it: ${frames.length} frames, ${columns} across and ${rows} high.${turns === '' ? '' : ` Turn by ${turns} from frame to frame.`}`,
    nearestMm === null
      ? 'Turn around the lens, not around yourself; small shifts disappear in the blur at this aperture.'
      : `Turn about the lens, not about yourself: in the hand, what is nearer than ${formatLength(nearestMm, unit)} will not fit together; on a pivot under the entrance pupil everything does.`,
    'Whoever moves is in one frame only. Shoot the whole round two or three times: stitching sometimes fails.',
    `Correct the lens alike in all frames, then stitch ${projectionWords[projection]}: ${Math.round(angleDeg.across)}° by ${Math.round(angleDeg.down)}°, like a ${Math.round(equivalent.focalLengthMm)} mm f/${equivalent.fNumber.toFixed(equivalent.fNumber < 1 ? 2 : 1)}, up to ${Math.round(megapixels)} megapixels.`
  ];
}
