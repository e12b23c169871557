/** A drawing on a page, as vectors. */
import { clip, endPath, popGraphicsState, pushGraphicsState, rectangle, rgb, type Color, type PDFPage } from 'pdf-lib';
import { colourOf, type DrawingBox, type Drawing, type Paint } from '../core/paper/primitives';
import type { Fonts } from './fonts';

/** A colour such as "#c2341d". */
export function colorOf(paint: Paint): Color {
  const value = Number.parseInt(colourOf(paint).slice(1), 16);
  return rgb((value >> 16) / 255, ((value >> 8) & 255) / 255, (value & 255) / 255);
}

/** Draws into a box of the page (points, its y from the bottom), as large as fits, in its middle. */
export function drawInto(page: PDFPage, fonts: Fonts, drawing: Drawing, box: DrawingBox): void {
  const scale = Math.min(box.width / drawing.width, box.height / drawing.height);
  const left = box.x + (box.width - drawing.width * scale) / 2;
  const top = box.y + (box.height + drawing.height * scale) / 2;
  const within = ({ x, y, width, height }: DrawingBox, draw: () => void) => {
    page.pushOperators(
      pushGraphicsState(),
      rectangle(left + x * scale, top - (y + height) * scale, width * scale, height * scale),
      clip(),
      endPath()
    );
    draw();
    page.pushOperators(popGraphicsState());
  };
  const whole: DrawingBox = { x: 0, y: 0, width: drawing.width, height: drawing.height };
  within(whole, () => {
    for (const mark of drawing.marks) {
      if (mark.kind === 'text') {
        const align = mark.anchor === 'end' ? 'right' : mark.anchor === 'middle' ? 'middle' : 'left';
        const at = {
          x: left + mark.x * scale,
          y: top - mark.y * scale,
          style: mark.strong ? 'bold' : 'text',
          size: mark.size * scale
        } as const;
        fonts.draw(page, mark.text, { ...at, color: colorOf(mark.tone), align });
        continue;
      }
      const { d, fill, stroke, opacity, width, dash } = mark;
      const draw = () =>
        page.drawSvgPath(d, {
          x: left,
          y: top,
          scale,
          ...(fill ? { color: colorOf(fill) } : {}),
          // The page's own scale is taken for lines too.
          ...(stroke ? { borderColor: colorOf(stroke), borderWidth: width ?? 1 } : {}),
          ...(dash ? { borderDashArray: [...dash] } : {}),
          ...(opacity === undefined ? {} : { opacity, borderOpacity: opacity })
        });
      if (mark.within) within(mark.within, draw);
      else draw();
    }
  });
}
