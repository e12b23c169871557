/** A drawing as plain marks, the same for a file of vectors and for a page. */

/** What a mark is coloured by, as on the screen. */
export type Tone = 'ink' | 'soft' | 'line' | 'paper' | 'pencil' | 'cool';

/** On white paper (the studio's colours). */
export const tones: Readonly<Record<Tone, string>> = {
  ink: '#141414',
  soft: '#505050',
  line: '#bcbcbc',
  paper: '#ffffff',
  pencil: '#c2341d',
  cool: '#24587a'
};

/** A tone, or a colour of its own: "#808080". */
export type Paint = Tone | `#${string}`;
const isColour = (paint: Paint): paint is `#${string}` => paint.startsWith('#');
export const colourOf = (paint: Paint): string => (isColour(paint) ? paint : tones[paint]);

export interface DrawingBox {
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
}

interface PathMark {
  readonly kind: 'path';
  /** In the language of SVG's paths. */
  readonly d: string;
  readonly fill?: Paint;
  readonly stroke?: Paint;
  /** 0 to 1, of both. */
  readonly opacity?: number;
  readonly width?: number;
  readonly dash?: readonly number[];
  /** Shown only inside this. */
  readonly within?: DrawingBox;
}

interface TextMark {
  readonly kind: 'text';
  readonly x: number;
  readonly y: number;
  readonly text: string;
  readonly size: number;
  readonly anchor: 'start' | 'middle' | 'end';
  readonly tone: Tone;
  readonly strong?: boolean;
}

export type Mark = PathMark | TextMark;

/** Its unit is a CSS px; y goes down. */
export interface Drawing {
  readonly width: number;
  readonly height: number;
  /** What it shows, for whoever cannot see it. */
  readonly title: string;
  readonly marks: readonly Mark[];
}

const short = (value: number) => String(Number(value.toFixed(2)));

/** An ellipse turned by some degrees clockwise, as a path. */
export function ellipse(cx: number, cy: number, rx: number, ry: number, turnDeg = 0): string {
  const turn = (turnDeg * Math.PI) / 180;
  const [dx, dy] = [rx * Math.cos(turn), rx * Math.sin(turn)];
  const arc = (x: number, y: number) => `A${short(rx)} ${short(ry)} ${short(turnDeg)} 0 1 ${short(x)} ${short(y)}`;
  return `M${short(cx - dx)} ${short(cy - dy)}${arc(cx + dx, cy + dy)}${arc(cx - dx, cy - dy)}Z`;
}

export function rectangle({ x, y, width, height }: DrawingBox): string {
  return `M${short(x)} ${short(y)}H${short(x + width)}V${short(y + height)}H${short(x)}Z`;
}
