import { expect, test, type Page } from '@playwright/test';
import { blurDiscDiameter } from '../src/core/optics/blur';
import { imageDistance } from '../src/core/optics/thinLens';
import { call, openProof } from './proof/page';
import type { Dot } from './proof/harness';
import type { LensState } from '../src/render/lens/lensView';

// The renderer against the core: what is measured in the picture must be what the equations say. SwiftShader draws here.
test.describe.configure({ timeout: 900_000 });
test.beforeEach(({ page }) => openProof(page));

const lens: LensState = {
  focalLengthMm: 85,
  fNumber: 1.4,
  focusMm: 2500,
  pupilMagnification: 1,
  pictureWidthMm: 36,
  pictureHeightMm: 24
};
const size = 480;
const pxPerMm = size / lens.pictureWidthMm;
const v = imageDistance(lens.focalLengthMm, lens.focusMm);

/** Where a point lands in the picture, px from its left and top. */
const landing = ({ x, y, z }: Dot) => ({
  x: size / 2 + ((x * v) / z) * pxPerMm,
  y: (size * 24) / 36 / 2 - ((y * v) / z) * pxPerMm
});
/** A point at a depth that lands at shares of the picture from its middle. */
const landingAt = (shareX: number, shareY: number, z: number): Dot => ({
  x: (shareX * 36 * z) / v,
  y: (shareY * 24 * z) / v,
  z
});

interface Image {
  readonly light: readonly number[];
  readonly width: number;
  readonly height: number;
}

/** The disc about a place: its middle, the diameter of the disc of the same area, and the reach in each direction. */
function measure(image: Image, at: { x: number; y: number }, within: number) {
  const pixel = (x: number, y: number) => image.light[y * image.width + x] ?? 0;
  const near = (visit: (x: number, y: number, light: number) => void) => {
    for (let y = Math.max(0, Math.floor(at.y - within)); y <= Math.min(image.height - 1, at.y + within); y++)
      for (let x = Math.max(0, Math.floor(at.x - within)); x <= Math.min(image.width - 1, at.x + within); x++)
        visit(x, y, pixel(x, y));
  };
  let sum = 0;
  let sx = 0;
  let sy = 0;
  let squares = 0;
  near((x, y, light) => {
    sum += light;
    sx += light * (x + 0.5);
    sy += light * (y + 0.5);
    squares += light * light;
  });
  // A disc of one brightness has this plateau, whatever its edge.
  const plateau = squares / sum;
  let area = 0;
  near((_x, _y, light) => void (area += light > plateau / 2 ? 1 : 0));
  const middle = { x: sx / sum, y: sy / sum };
  const reach = (angle: number) => {
    let r = 0;
    while (
      r < within &&
      pixel(Math.floor(middle.x + Math.cos(angle) * r), Math.floor(middle.y + Math.sin(angle) * r)) > plateau / 2
    )
      r += 0.25;
    return r;
  };
  return { middle, diameter: 2 * Math.sqrt(area / Math.PI), reach };
}

async function pointAt(page: Page, dot: Dot, options: Partial<Parameters<typeof run>[2]> = {}) {
  return run(page, dot, { views: 256, size, ...options });
}
const run = (
  page: Page,
  dot: Dot,
  options: {
    views: number;
    size: number;
    barrelShift?: number;
    stopsDown?: number;
    pupil?: { blades: number; roundness: number; rim: number };
    look?: { yawDeg: number; pitchDeg: number };
    fNumber?: number;
  }
) => {
  const { fNumber = lens.fNumber, ...rest } = options;
  return call(page, 'points', [dot], 2.6, { ...lens, fNumber }, rest);
};

test('bright points draw the discs of the core, at many depths and places', async ({ page }) => {
  const places = [
    [0, 0],
    [0.32, 0.3],
    [-0.34, -0.28]
  ] as const;
  for (const z of [1100, 2000, 5000, 12_000]) {
    const expected = blurDiscDiameter(lens.focalLengthMm, lens.fNumber, lens.focusMm, z) * pxPerMm;
    const dots = places.map(([shareX, shareY]) => landingAt(shareX, shareY, z));
    // Small against the disc it makes, or the disc is that of a ball and not of a point.
    const radiusPx = Math.min(2.6, Math.max(0.8, expected / 14));
    const image = await call(page, 'points', dots, radiusPx, lens, { views: 256, size });
    for (const dot of dots) {
      const found = measure(image, landing(dot), expected * 0.8 + 12);
      const said = `${z} mm: ${found.diameter} for ${expected}`;
      expect(Math.abs(found.diameter - expected), said).toBeLessThan(Math.max(1, expected * 0.03));
      expect(Math.hypot(found.middle.x - landing(dot).x, found.middle.y - landing(dot).y)).toBeLessThan(1);
    }
  }
});

test('what lies in the plane of focus stays a point, wherever the camera looks, where projection puts it', async ({
  page
}) => {
  const look = { yawDeg: 9, pitchDeg: -6 };
  const yaw = (look.yawDeg * Math.PI) / 180;
  const pitch = (look.pitchDeg * Math.PI) / 180;
  for (const [shareX, shareY] of [
    [0, 0],
    [0.4, 0.35],
    [-0.38, 0.3]
  ] as const) {
    const local = landingAt(shareX, shareY, lens.focusMm);
    // Tipped up by the pitch, then turned to the right by the yaw.
    const y = local.y * Math.cos(pitch) + local.z * Math.sin(pitch);
    const z = local.z * Math.cos(pitch) - local.y * Math.sin(pitch);
    const dot = { x: local.x * Math.cos(yaw) + z * Math.sin(yaw), y, z: z * Math.cos(yaw) - local.x * Math.sin(yaw) };
    const image = await run(page, dot, { views: 64, size, look });
    const found = measure(image, landing(local), 14);
    expect(Math.hypot(found.middle.x - landing(local).x, found.middle.y - landing(local).y)).toBeLessThan(1);
    expect(Math.abs(found.diameter - 5.2)).toBeLessThan(1);
  }
});

test('stopped down, the disc has the area of the core’s and the corners of the blades', async ({ page }) => {
  const dot = landingAt(0, 0, 1300);
  const expected = blurDiscDiameter(lens.focalLengthMm, 2.8, lens.focusMm, dot.z) * pxPerMm;
  const image = await pointAt(page, dot, { fNumber: 2.8, stopsDown: 2, pupil: { blades: 5, roundness: 0, rim: 0 } });
  const found = measure(image, landing(dot), expected);
  expect(Math.abs(found.diameter - expected)).toBeLessThan(Math.max(1, expected * 0.03));
  const reaches = Array.from({ length: 180 }, (_, n) => found.reach((n * Math.PI) / 90));
  // A pentagon's corner lies 1/cos 36° = 1.24 as far out as the middle of its side.
  const most = Math.max(...reaches);
  const least = Math.min(...reaches);
  expect(most / least).toBeGreaterThan(1.14);
  expect(most / least).toBeLessThan(1.36);
});

test('towards the corner the barrel cuts the discs along the radius; stopped down it does not', async ({ page }) => {
  const dot = landingAt(0.36, 0.34, 1300);
  const disc = blurDiscDiameter(lens.focalLengthMm, lens.fNumber, lens.focusMm, dot.z) * pxPerMm;
  const at = landing(dot);
  const out = Math.atan2(at.y - (size * 24) / 36 / 2, at.x - size / 2);
  const widths = async (options: Parameters<typeof pointAt>[2]) => {
    const { reach } = measure(await pointAt(page, dot, options), at, disc);
    return {
      radial: reach(out) + reach(out + Math.PI),
      tangential: reach(out + Math.PI / 2) + reach(out - Math.PI / 2)
    };
  };
  const open = await widths({ barrelShift: 0.5 });
  expect(open.radial / open.tangential).toBeLessThan(0.88);
  const closed = await widths({ barrelShift: 0.5, fNumber: 2.8, stopsDown: 2 });
  expect(Math.abs(closed.radial / closed.tangential - 1)).toBeLessThan(0.1);
});

/** Width of the steepest edge of a crop, px: its contrast over its steepest slope. */
function edgeWidth(grey: readonly number[], side: number): number {
  const slopes: number[] = [];
  for (let y = 1; y < side - 1; y++)
    for (let x = 1; x < side - 1; x++) {
      const n = y * side + x;
      const dx = ((grey[n + 1] ?? 0) - (grey[n - 1] ?? 0)) / 2;
      const dy = ((grey[n + side] ?? 0) - (grey[n - side] ?? 0)) / 2;
      slopes.push(Math.hypot(dx, dy));
    }
  const ordered = [...grey].sort((a, b) => a - b);
  const contrast =
    (ordered[Math.floor(ordered.length * 0.97)] ?? 0) - (ordered[Math.floor(ordered.length * 0.03)] ?? 0);
  slopes.sort((a, b) => b - a);
  const steepest = slopes.slice(0, Math.ceil(slopes.length * 0.002));
  return contrast / (steepest.reduce((sum, slope) => sum + slope, 0) / steepest.length);
}

test('what the core calls sharper has the narrower edges in the rendered eye', async ({ page }) => {
  const found: { ratio: number; width: number }[] = [];
  for (const stop of ['1.4', '2.4', '4', '8']) {
    const { grey, ratio } = await call(page, 'eye', 'West door', 'ines', 'farEye', stop, 150);
    found.push({ ratio, width: edgeWidth(grey, 150) });
  }
  const byRatio = [...found].sort((a, b) => a.ratio - b.ratio);
  const widths = byRatio.map(({ width }) => width);
  expect(widths, JSON.stringify(byRatio)).toEqual([...widths].sort((a, b) => a - b));
  // From sharp to soft.
  expect(byRatio[0]?.ratio).toBeLessThan(1.6);
  expect(byRatio[3]?.ratio).toBeGreaterThan(2.5);
  const near = await call(page, 'eye', 'West door', 'ines', 'nearEye', '1.4', 150);
  const far = found.find(({ ratio }) => ratio === byRatio[3]?.ratio);
  expect(edgeWidth(near.grey, 150)).toBeLessThan(far?.width ?? 0);
});

test('twenty changes leave no more behind than five', async ({ page }) => {
  const { before, after } = await call(page, 'many', 'Under the palms', 20);
  expect(after).toEqual(before);
});
