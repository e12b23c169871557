import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { bestFocusBetween, blurDiscDiameter, blurInObjectSpace } from './blur';
import { formatDisc, fullFrameDiagonalMm, oneArcMinute, circleOfConfusion, traditionalBlurAngle } from './criterion';
import { depthOfField } from './depthOfField';
import {
  defocusAllowance,
  diffractionDisc,
  lensDisc,
  motionDisc,
  motionTrack,
  pixelDisc,
  totalDisc,
  verdict,
  type LensCharacter
} from './sharpness';
import { exactFNumber, stopsBetween } from './stops';
import {
  angleOfView,
  distanceForFraming,
  effectiveFNumber,
  focusFromSensor,
  framedSize,
  imageDistance,
  imageShift,
  magnification,
  shiftedFocus
} from './thinLens';

const foot = 304.8;
const fullFrame = { widthMm: 36, heightMm: 24, pixelsWide: 7008 };

const focalLength = fc.double({ min: 14, max: 400, noNaN: true });
const aperture = fc.double({ min: 0.95, max: 32, noNaN: true });
const disc = fc.double({ min: 0.003, max: 0.06, noNaN: true });
const distance = fc.double({ min: 1000, max: 50_000, noNaN: true });

describe('thin lens', () => {
  it('images an object at 2f at 2f, life size (Gaussian lens formula, Kingslake)', () => {
    expect(imageDistance(50, 100)).toBeCloseTo(100, 12);
    expect(magnification(50, 100)).toBeCloseTo(1, 12);
    expect(effectiveFNumber(2.8, 1)).toBeCloseTo(5.6, 12);
  });

  it('sees 39.6° across 36 mm with a 50 at infinity (textbook: 2 atan(36/100))', () => {
    expect((angleOfView(50, Infinity, 36) * 180) / Math.PI).toBeCloseTo(39.6, 1);
  });

  it('images what lies at the focal point, or nearer, at infinity', () => {
    expect(imageDistance(50, 50)).toBe(Infinity);
    expect(magnification(50, 50)).toBe(Infinity);
    // Pupils of half and twice the size: the focal point lies at f/P.
    expect(imageDistance(50, 100, 0.5)).toBe(Infinity);
    expect(magnification(50, 25, 2)).toBe(Infinity);
    expect(imageDistance(50, Infinity)).toBe(50);
  });

  it('has an error of the plane on the sensor, and the plane of an error', () => {
    // By hand, 50 mm: m(1000) = 50/950, m(1100) = 50/1050; f (m₁ − m₂) = 0.2506 mm.
    expect(imageShift(50, 1000, 1100)).toBeCloseTo(50 * (50 / 950 - 50 / 1050), 12);
    expect(imageShift(50, 1000, 900)).toBeLessThan(0);
    fc.assert(
      fc.property(
        focalLength,
        fc.double({ min: 1000, max: 20_000, noNaN: true }),
        fc.double({ min: 1000, max: 20_000, noNaN: true }),
        fc.constantFrom(0.6, 1, 1.7),
        (f, s, z, P) => {
          expect(shiftedFocus(f, s, imageShift(f, s, z, P), P) / z).toBeCloseTo(1, 6);
          // Near s it is (z − s) m².
          const m = magnification(f, s, P);
          expect(imageShift(f, s, s + 0.01, P) / (0.01 * m * m)).toBeCloseTo(1, 3);
        }
      )
    );
    // Further than infinity there is none.
    expect(shiftedFocus(50, 1000, 50 * magnification(50, 1000))).toBe(Infinity);
    expect(shiftedFocus(50, 1000, 10)).toBe(Infinity);
  });

  it('gives the distance from the framing and the framing back', () => {
    expect(distanceForFraming(85, 600, 24)).toBeCloseTo(2210, 9);
    fc.assert(
      fc.property(focalLength, fc.double({ min: 100, max: 5000, noNaN: true }), (f, height) => {
        expect(framedSize(f, distanceForFraming(f, height, 24), 24)).toBeCloseTo(height, 6);
      })
    );
  });
});

describe('depth of field', () => {
  it('is about 5 ft at 20 ft and just over 1 ft at 10 ft for a 50 at f/1.8 (common practice, no source)', () => {
    const depth = (s: number) => {
      const { near, far } = depthOfField(50, 1.8, 0.03, s);
      return (far - near) / foot;
    };
    expect(depth(20 * foot)).toBeCloseTo(5.31, 1);
    expect(depth(10 * foot)).toBeCloseTo(1.3, 1);
  });

  it('has its hyperfocal distance at 10.467 m for a 50 at f/8 (textbook formula, Kingslake)', () => {
    // f²/(N C) + f
    const H = 2500 / 0.24 + 50;
    expect(H).toBeCloseTo(10_466.7, 1);
    expect(depthOfField(50, 8, 0.03, H * 0.9999).far).toBeGreaterThan(1e7);
    expect(depthOfField(50, 8, 0.03, H * 1.0001).far).toBe(Infinity);
    // Focused there, everything from half that distance on is sharp (Kingslake; Ray).
    expect(depthOfField(50, 8, 0.03, H).near / H).toBeCloseTo(0.5, 2);
  });

  it('agrees with near, far = s f²/(f² ± N C (s − f))', () => {
    fc.assert(
      fc.property(focalLength, aperture, disc, distance, (f, N, C, s) => {
        const { near, far } = depthOfField(f, N, C, s);
        expect(near).toBeCloseTo((s * f * f) / (f * f + N * C * (s - f)), 5);
        const below = f * f - N * C * (s - f);
        if (below > 1e-3) expect(far / ((s * f * f) / below)).toBeCloseTo(1, 6);
      })
    );
  });

  it('always has near ≤ focus ≤ far, and the blur at a limit is the disc', () => {
    fc.assert(
      fc.property(focalLength, aperture, disc, distance, (f, N, C, s) => {
        const { near, far } = depthOfField(f, N, C, s);
        expect(near).toBeLessThanOrEqual(s);
        expect(far).toBeGreaterThanOrEqual(s);
        expect(blurDiscDiameter(f, N, s, near)).toBeCloseTo(C, 8);
        if (far < 1e7) expect(blurDiscDiameter(f, N, s, far)).toBeCloseTo(C, 6);
      })
    );
  });

  it('never widens when the lens is opened', () => {
    fc.assert(
      fc.property(focalLength, aperture, aperture, disc, distance, (f, a, b, C, s) => {
        const open = depthOfField(f, Math.min(a, b), C, s);
        const closed = depthOfField(f, Math.max(a, b), C, s);
        expect(open.near).toBeGreaterThanOrEqual(closed.near - 1e-9);
        expect(open.far).toBeLessThanOrEqual(closed.far * (1 + 1e-12));
      })
    );
  });
});

describe('blur disc', () => {
  it('gives the far eye of a face turned 45° 36 µm at f/2.8 and 25 µm at f/4 (common practice: not quite, good)', () => {
    const farEye = 1800 + 63 * Math.sin(Math.PI / 4);
    expect(blurDiscDiameter(85, 2.8, 1800, farEye) * 1000).toBeCloseTo(36, 0);
    expect(blurDiscDiameter(85, 4, 1800, farEye) * 1000).toBeCloseTo(25, 0);
  });

  it('holds the turned face at f/4, nearly at f/2.8 and not at f/1.2 (common practice, no source)', () => {
    const ratio = (N: number) => blurDiscDiameter(85, exactFNumber(N), 1800, 1844.5) / 0.03;
    expect([1.2, 2.8, 4].map((N) => verdict(ratio(N)))).toEqual(['soft', 'touchSoft', 'sharp']);
  });

  it('is as wide as the lens opening at twice the focus distance in object space (Merklinger 1990)', () => {
    expect(blurInObjectSpace(50, 2, 3000, 6000)).toBeCloseTo(25, 12);
  });

  it('is the object-space patch times its magnification', () => {
    fc.assert(
      fc.property(focalLength, aperture, distance, distance, (f, N, s, z) => {
        const magnificationAtZ = imageDistance(f, s) / z;
        expect(blurInObjectSpace(f, N, s, z) * magnificationAtZ).toBeCloseTo(blurDiscDiameter(f, N, s, z), 9);
      })
    );
  });

  it('of a point at infinity is the limit of ever further points', () => {
    expect(blurDiscDiameter(85, 1.4, 2000, 1e12)).toBeCloseTo(blurDiscDiameter(85, 1.4, 2000, Infinity), 6);
  });
});

describe('best focus between two depths', () => {
  it('is 5.179 m for faces at 4.5 to 6.1 m, which a 50 holds from f/2.45 (closed form; brute force below)', () => {
    const s = bestFocusBetween(4500, 6100);
    expect(s).toBeCloseTo(5179.2, 1);
    // N = f² (1/z0 − 1/z1) / (2 C (1 − f/s)), from c = A f s/(s − f) |1/s − 1/z|.
    const N = (2500 * (1 / 4500 - 1 / 6100)) / (2 * 0.03 * (1 - 50 / s));
    expect(N).toBeCloseTo(2.45, 2);
    const { near, far } = depthOfField(50, N, 0.03, s);
    expect(near).toBeCloseTo(4500, 6);
    expect(far).toBeCloseTo(6100, 6);
  });

  it('is beaten by no other plane', () => {
    const fraction = fc.double({ min: -0.5, max: 1.5, noNaN: true });
    fc.assert(
      fc.property(focalLength, aperture, distance, distance, fraction, (f, N, a, b, t) => {
        const worst = (s: number) => Math.max(blurDiscDiameter(f, N, s, a), blurDiscDiameter(f, N, s, b));
        const other = Math.max(f * 1.5, a + (b - a) * t);
        // s/(s − f) falls with s, which a plane slightly beyond the harmonic mean can use: hence the small allowance.
        const bound = worst(other) * (1 + (2 * f) / Math.min(a, b));
        expect(worst(bestFocusBetween(a, b))).toBeLessThanOrEqual(bound + 1e-9);
      })
    );
  });
});

describe('circle of confusion', () => {
  it('is 0.030 mm on full frame and 0.2 mm at 25 cm on the print (Ray; Kingslake)', () => {
    expect(circleOfConfusion({ kind: 'traditional' }, fullFrame)).toBeCloseTo(0.03, 12);
    expect(traditionalBlurAngle * 250).toBeCloseTo(0.2, 12);
    const print = { kind: 'seen', longEdgeMm: 250, distanceMm: 250, acuity: 'traditional' } as const;
    expect(circleOfConfusion(print, fullFrame)).toBeCloseTo(0.0288, 4);
  });

  it('scales with the format and tightens to one arc minute', () => {
    expect(formatDisc({ widthMm: 23.5, heightMm: 15.6, pixelsWide: 6000 })).toBeCloseTo(0.0196, 4);
    const strict = { kind: 'seen', longEdgeMm: 250, distanceMm: 250, acuity: 'arcMinute' } as const;
    expect(circleOfConfusion(strict, fullFrame) / 0.0288).toBeCloseTo(oneArcMinute / traditionalBlurAngle, 6);
    expect(circleOfConfusion({ kind: 'pixels', pixels: 2 }, fullFrame)).toBeCloseTo((2 * 36) / 7008, 9);
  });
});

describe('total sharpness', () => {
  it('has of diffraction an equivalent disc of 1.745 λ N: at f/16 15.4 µm', () => {
    expect(diffractionDisc(16) / (0.00055 * 16)).toBeCloseTo(1.745, 3);
    expect(diffractionDisc(16) * 1000).toBeCloseTo(15.4, 1);
  });

  it('finds MTF50 of a pixel and a motion track where sin(πx)/(πx) halves', () => {
    const half = 0.705 / 1.17;
    expect(Math.sin(Math.PI * half) / (Math.PI * half)).toBeCloseTo(0.5, 2);
    expect(pixelDisc(0.005)).toBe(motionDisc(0.005));
    expect(motionTrack(motionDisc(0.02))).toBeCloseTo(0.02, 12);
  });

  it.each<[LensCharacter, number]>([
    ['crisp', 1.4],
    ['ordinary', 1.8],
    ['ordinary', 2.8],
    ['weakWideOpen', 1.4]
  ])(
    'makes a %s f/%s lens best one and a half to four stops down (common practice: two to three)',
    (character, open) => {
      const widestFNumber = exactFNumber(open);
      const total = (N: number) =>
        totalDisc(lensDisc({ character, widestFNumber, formatDiagonalMm: fullFrameDiagonalMm }, N), diffractionDisc(N));
      const stops = Array.from({ length: 15 }, (_, i) => widestFNumber * 2 ** (i / 4));
      const best = stops.reduce((a, b) => (total(b) < total(a) ? b : a));
      expect(stopsBetween(widestFNumber, best)).toBeGreaterThanOrEqual(1.5);
      expect(stopsBetween(widestFNumber, best)).toBeLessThanOrEqual(4);
    }
  );

  it('takes a measured lens at its word, diffraction counted once', () => {
    const measured = [
      { fNumber: 2, lpPerMm: 40 },
      { fNumber: 4, lpPerMm: 80 }
    ];
    const at = (N: number) =>
      totalDisc(
        lensDisc({ character: 'crisp', widestFNumber: 2, formatDiagonalMm: fullFrameDiagonalMm, measured }, N),
        diffractionDisc(N)
      );
    expect(0.705 / at(2)).toBeCloseTo(40, 6);
    expect(0.705 / at(4)).toBeCloseTo(80, 6);
    expect(0.705 / at(2.83)).toBeGreaterThan(40);
    expect(at(8)).toBeGreaterThanOrEqual(at(4));
  });

  it('leaves for defocus what the other causes have not used', () => {
    expect(totalDisc(defocusAllowance(0.03, 0.018), 0.018)).toBeCloseTo(0.03, 12);
    expect(defocusAllowance(0.01, 0.02)).toBe(0);
  });
});

describe('pupils that are not alike', () => {
  /** A stop d behind a thin lens, traced paraxially: where its pupils lie and what rays through its rim draw. */
  function traced(f: number, d: number, stopMm: number) {
    // Seen from the front the stop appears at x = d f/(f − d), f/(f − d) times as large.
    const x = (d * f) / (f - d);
    const entrance = (stopMm * f) / (f - d);
    const imageOf = (fromPupil: number) => 1 / (1 / f - 1 / (fromPupil - x));
    return {
      P: stopMm / entrance,
      N: f / entrance,
      magnification: (s: number) => imageOf(s) / (s - x),
      disc: (s: number, z: number) => (stopMm * Math.abs(imageOf(z) - imageOf(s))) / (imageOf(z) - d)
    };
  }

  it('draw the discs and the size that paraxial rays through the stop draw, distances from the entrance pupil', () => {
    for (const [f, d] of [
      [85, 20],
      [135, -30],
      [50, 15]
    ] as const) {
      const { P, N, magnification: traceM, disc } = traced(f, d, 25);
      expect(P).toBeCloseTo((f - d) / f, 12);
      for (const [s, z] of [
        [1200, 1300],
        [2000, 1700],
        [5000, 90_000]
      ] as const) {
        expect(magnification(f, s, P)).toBeCloseTo(traceM(s), 12);
        expect(blurDiscDiameter(f, N, s, z, P)).toBeCloseTo(disc(s, z), 9);
        const C = disc(s, z);
        const { near, far } = depthOfField(f, N, C, s, P);
        expect(z > s ? far : near).toBeCloseTo(z, 3);
      }
    }
  });

  it('image nothing from within f/P, and life size and beyond it further out', () => {
    for (const P of [0.7, 1, 2]) {
      const edge = 50 / P;
      expect([imageDistance(50, edge, P), magnification(50, edge, P)]).toEqual([Infinity, Infinity]);
      expect([imageDistance(50, edge * 0.8, P), magnification(50, edge * 0.8, P)]).toEqual([Infinity, Infinity]);
      expect(magnification(50, edge + 5, P)).toBeCloseTo(10, 9);
      expect(imageDistance(50, edge + 5, P)).toBeCloseTo(10 * (edge + 5), 6);
      expect(imageDistance(50, Infinity, P)).toBe(50);
    }
  });

  it('focus closest where object and image together are as far from the sensor as written', () => {
    for (const [f, D] of [
      [85, 800],
      [50, 450],
      [100, 401]
    ] as const) {
      // x + 2f + f²/x, x from the front focal point (Newton).
      const x = focusFromSensor(f, D) - f;
      expect(x + 2 * f + (f * f) / x).toBeCloseTo(D, 6);
      expect(x).toBeGreaterThanOrEqual(f);
    }
    for (const D of [400, 399, 150, 0]) expect(focusFromSensor(100, D)).toBe(200);
  });

  it('shift where one stands for a framing, and where the closest focus lies', () => {
    const s = distanceForFraming(85, 600, 24, 0.7);
    expect(framedSize(85, s, 24, 0.7)).toBeCloseTo(600, 9);
    expect(s - distanceForFraming(85, 600, 24)).toBeCloseTo(85 / 0.7 - 85, 9);
    // From the sensor the same object plane is as far, whatever the pupils.
    const near = focusFromSensor(85, 800, 0.7);
    expect(near - 85 / 0.7).toBeCloseTo(focusFromSensor(85, 800) - 85, 9);
  });
});
