/**
 * The sheets of the Bench, in mm: what is printed is what is looked for afterwards. Markers are those of the dictionary ARUCO_MIP_36h12
 * (Garrido-Jurado et al., Generation of fiducial marker dictionaries using mixed integer linear programming, 2016), drawn and found by js-aruco2.
 */
import aruco from 'js-aruco2';
import { seededRandom } from '../maths/random';

export const dictionaryName = 'ARUCO_MIP_36h12';
const codes = new aruco.AR.Dictionary(dictionaryName).codeList;
/** Modules along a side of a marker: six of code, one of black about them. */
const modules = 8;

export interface PlacedMarker {
  readonly id: number;
  /** Its upper left corner and its side. */
  readonly x: number;
  readonly y: number;
  readonly side: number;
}

/** Flat colour: 0 black to 1 white, as light. */
export interface Polygon {
  readonly points: readonly (readonly [x: number, y: number])[];
  readonly tone: number;
}

export interface SheetArea {
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
}

/** A piece of paper that lies in one plane. */
export interface SheetPiece {
  readonly width: number;
  readonly height: number;
  readonly markers: readonly PlacedMarker[];
  readonly polygons: readonly Polygon[];
}

const rectangle = ({ x, y, width, height }: SheetArea, tone: number): Polygon => ({
  points: [
    [x, y],
    [x + width, y],
    [x + width, y + height],
    [x, y + height]
  ],
  tone
});

/** The black square of a marker and the white ones in it. @throws RangeError when the dictionary has no such marker */
export function markerPolygons({ id, x, y, side }: PlacedMarker): Polygon[] {
  const code = codes[id];
  if (code === undefined) throw new RangeError(`There is no marker ${id}.`);
  const module = side / modules;
  const white = [...code].flatMap((bit, index): Polygon[] => {
    const [column, row] = [index % (modules - 2), Math.floor(index / (modules - 2))];
    const at = { x: x + (column + 1) * module, y: y + (row + 1) * module, width: module, height: module };
    return bit === '1' ? [rectangle(at, 1)] : [];
  });
  return [rectangle({ x, y, width: side, height: side }, 0), ...white];
}

/** Both halves of the focus sheet are as large; it fits half of A4 and of Letter with a printer's margin. */
const half = { width: 120, height: 186 } as const;
const upright = { side: 24, firstId: 0 } as const;
const leaning = { side: 18, firstId: 4 } as const;

/** Where to aim: the middle of the drawn eye, from the upper left of the upright half. */
export const aim = { x: 60, y: 82 } as const;

/** The texture of the leaning half. */
export const texture: SheetArea = { x: 23, y: 0, width: 74, height: 186 };

/** A circle as a polygon. */
const circle = (x: number, y: number, r: number, tone: number, count = 72): Polygon => ({
  points: Array.from({ length: count }, (_, index) => {
    const angle = (2 * Math.PI * index) / count;
    return [x + r * Math.cos(angle), y + r * Math.sin(angle)] as const;
  }),
  tone
});

/** An eye to aim at, as wide as half the sheet: lids, iris with rays, pupil, catchlight, lashes. Every edge of it is one that autofocus likes. */
function drawnEye(): Polygon[] {
  const { x, y } = aim;
  const [wide, tall] = [44, 24];
  /** Along the upper lid, and back along the lower one, as arcs of a parabola. */
  const lid = (share: number, scale: number): [number, number] => {
    const u = 2 * share - 1;
    return [x + wide * u, y - tall * scale * (1 - u * u)];
  };
  const steps = Array.from({ length: 41 }, (_, index) => index / 40);
  const opening = [...steps.map((s) => lid(s, 1)), ...[...steps].reverse().map((s) => lid(s, -0.75))];
  const grow = ([px, py]: readonly [number, number], by: number): [number, number] => [
    px + (by * (px - x)) / wide,
    py + by * Math.sign(py - y || -1)
  ];
  const outline: Polygon = { points: opening.map((point) => grow(point, 2.4)), tone: 0 };
  const rays = Array.from({ length: 30 }, (_, index): Polygon => {
    const angle = (2 * Math.PI * index) / 30;
    const [c, s] = [Math.cos(angle), Math.sin(angle)];
    const at = (r: number, off: number): [number, number] => [x + r * c - off * s, y + r * s + off * c];
    return { points: [at(9.5, -0.25), at(16, -0.5), at(16, 0.5), at(9.5, 0.25)], tone: 1 };
  });
  const lashes = Array.from({ length: 11 }, (_, index): Polygon => {
    const share = 0.08 + (0.84 * index) / 10;
    const [px, py] = lid(share, 1);
    const lean = 9 * (share - 0.5);
    return {
      points: [
        [px - 0.9, py - 1],
        [px + 0.9, py - 1],
        [px + lean + 0.5, py - 12],
        [px + lean - 0.5, py - 12]
      ],
      tone: 0
    };
  });
  return [
    outline,
    { points: opening, tone: 1 },
    circle(x, y, 17.5, 0),
    circle(x, y, 16.5, 0.12),
    ...rays,
    circle(x, y, 8.5, 0),
    circle(x + 6, y - 6.5, 3, 1),
    ...lashes
  ];
}

/** Little rectangles of many sizes, turned at random, the same on every sheet: it has detail at every size, in every direction. */
function drawnTexture(): Polygon[] {
  const random = seededRandom(20_261);
  const { x, y, width, height } = texture;
  const perMm2 = 0.85;
  return Array.from({ length: Math.round(perMm2 * width * height) }, (): Polygon => {
    const [long, wide] = [0.45 + 0.9 * random() ** 2, 0.32 + 0.4 * random()];
    const reach = Math.hypot(long, wide) / 2;
    const cx = x + reach + (width - 2 * reach) * random();
    const cy = y + reach + (height - 2 * reach) * random();
    const angle = Math.PI * random();
    const [c, s] = [Math.cos(angle), Math.sin(angle)];
    const at = (u: number, v: number): [number, number] => [
      cx + (u * long * c - v * wide * s) / 2,
      cy + (u * long * s + v * wide * c) / 2
    ];
    return { points: [at(-1, -1), at(1, -1), at(1, 1), at(-1, 1)], tone: 0 };
  });
}

const corner = (id: number, x: number, y: number, side: number): PlacedMarker => ({ id, x, y, side });

function uprightHalf(): SheetPiece {
  const { side, firstId } = upright;
  const [right, bottom] = [half.width - side, half.height - side];
  const markers = [
    [0, 0],
    [right, 0],
    [0, bottom],
    [right, bottom]
  ].map(([x = 0, y = 0], index) => corner(firstId + index, x, y, side));
  return { ...half, markers, polygons: [...markers.flatMap(markerPolygons), ...drawnEye()] };
}

function leaningHalf(): SheetPiece {
  const { side, firstId } = leaning;
  const [right, middle, bottom] = [half.width - side, (half.height - side) / 2, half.height - side];
  const markers = [0, middle, bottom].flatMap((y, row) => [
    corner(firstId + 2 * row, 0, y, side),
    corner(firstId + 2 * row + 1, right, y, side)
  ]);
  return { ...half, markers, polygons: [...markers.flatMap(markerPolygons), ...drawnTexture()] };
}

/** Light of the greys of the edge sheet: contrast 4 to 1, as ISO 12233 has it for slanted edges. */
export const edgeTones = { dark: 0.18, light: 0.72 } as const;
/** The edges' angle, degrees: about five, so that no row of pixels meets them alike. */
export const edgeAngleDeg = 5;
/** The dark square on its light ground. */
const edgeSquare = { x: 90, y: 102, side: 84, ground: 132 } as const;
export const edgePages = 9;
const edgeFirstId = 20;
const edgeSide = 30;
/** Steps for the tone curve, as light. */
export const greySteps = [0.03, 0.06, 0.12, 0.18, 0.3, 0.45, 0.72, 0.9] as const;
export const greyStepAreas: readonly SheetArea[] = greySteps.map((_, index) => ({
  x: 36 + index * 13.5,
  y: 184,
  width: 13.5,
  height: 16
}));

/** An edge of the square: from one corner to the next, and whether it stands (its normal lies across) or lies. */
export interface DrawnEdge {
  readonly from: readonly [number, number];
  readonly to: readonly [number, number];
  readonly stands: boolean;
}

const squareCorners = (): readonly (readonly [number, number])[] => {
  const angle = (edgeAngleDeg * Math.PI) / 180;
  const [c, s] = [Math.cos(angle), Math.sin(angle)];
  const r = edgeSquare.side / 2;
  return [
    [-r, -r],
    [r, -r],
    [r, r],
    [-r, r]
  ].map(([u = 0, v = 0]) => [edgeSquare.x + u * c - v * s, edgeSquare.y + u * s + v * c] as const);
};

export function drawnEdges(): DrawnEdge[] {
  const corners = squareCorners();
  return corners.map((from, index) => {
    const to = corners[(index + 1) % 4] ?? from;
    return { from, to, stands: index % 2 === 1 };
  });
}

/** Page 0 to 8 of the edge sheet: the same edges, markers of its own. @throws RangeError when there is none */
export function edgePage(page: number): SheetPiece {
  if (!Number.isInteger(page) || page < 0 || page >= edgePages) throw new RangeError(`There is no page ${page}.`);
  const [width, height] = [180, 226];
  const markers = [
    [0, 0],
    [width - edgeSide, 0],
    [0, height - edgeSide],
    [width - edgeSide, height - edgeSide]
  ].map(([x = 0, y = 0], index) => corner(edgeFirstId + 4 * page + index, x, y, edgeSide));
  const { x, y, ground } = edgeSquare;
  const about = { x: x - ground / 2, y: y - ground / 2, width: ground, height: ground };
  return {
    width,
    height,
    markers,
    polygons: [
      ...markers.flatMap(markerPolygons),
      rectangle(about, edgeTones.light),
      { points: squareCorners(), tone: edgeTones.dark },
      ...greyStepAreas.map((area, index) => rectangle(area, greySteps[index] ?? 0))
    ]
  };
}

/** The page a marker is on; null where it is on none of the edge sheet. */
export function edgePageOf(id: number): number | null {
  const page = Math.floor((id - edgeFirstId) / 4);
  return id >= edgeFirstId && page < edgePages ? page : null;
}

const ladderFirstId = 60;
export const ladderMarks = 7;
/** The mark a marker is of; null where it is of none. */
export const ladderMarkOf = (id: number): number | null =>
  id >= ladderFirstId && id < ladderFirstId + ladderMarks ? id - ladderFirstId : null;

/** Marks to stand in line, one an object: a marker, and edges a lens can focus on. */
export function ladderMark(index: number): SheetPiece {
  if (!Number.isInteger(index) || index < 0 || index >= ladderMarks) throw new RangeError(`There is no mark ${index}.`);
  const [width, height, side] = [80, 60, 36];
  const marker = corner(ladderFirstId + index, 2, 12, side);
  const bars = Array.from({ length: 9 }, (_, bar) =>
    rectangle({ x: 44 + bar * 4, y: 12 + (bar % 3) * 2, width: 2, height: 36 - (bar % 3) * 4 }, 0)
  );
  return { width, height, markers: [marker], polygons: [...markerPolygons(marker), ...bars] };
}

let halves: { readonly upright: SheetPiece; readonly leaning: SheetPiece } | undefined;
/** The two halves of the focus sheet. */
export const focusHalves = () => (halves ??= { upright: uprightHalf(), leaning: leaningHalf() });
