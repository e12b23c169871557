import exifr from 'exifr';
import { describe, expect, it } from 'vitest';
import { withFacts } from '../formats/pngText';
import { textHash, appearanceFor } from '../people/appearance';
import { builtInKit } from '../kit/builtInKit';
import { newPerson, newSetup } from './defaults';
import { edgeFindings } from './edges';
import { focusPoints, focusPointWords, pointFinder } from './focusPoint';
import { projector } from './projection';
import { viewpoint } from './scene';
import { type Body } from '../kit/schema';
import { lookSchema } from './schema';

const body = builtInKit.bodies[0] as Body;

describe('focus points', () => {
  const grid = { columns: 13, rows: 9, widthShare: 0.92, heightShare: 0.9, sensitive: 'all' } as const;

  it('are counted from the middle, as the body is held', () => {
    const points = focusPoints(grid, 'landscape');
    expect(points).toHaveLength(117);
    const middle = pointFinder(points)(0.5, 0.5);
    expect(middle && focusPointWords(middle)).toBe('the centre point');
    const spacing = 0.92 / 12;
    const aside = pointFinder(points)(0.5 + 4 * spacing, 0.5 - 2 * (0.9 / 8));
    expect(aside && focusPointWords(aside)).toBe('point 4 right, 2 up');
    const upright = focusPoints(grid, 'portrait');
    expect(Math.max(...upright.map((point) => point.right))).toBe(4);
    expect(Math.max(...upright.map((point) => point.up))).toBe(6);
  });

  it('are sensitive all over, in the middle columns, in the centre alone, or nowhere', () => {
    const count = (sensitive: 'all' | 'middleColumns' | 'centre' | 'none', orientation: 'landscape' | 'portrait') =>
      focusPoints({ ...grid, sensitive }, orientation).filter((point) => point.sensitive);
    for (const held of ['landscape', 'portrait'] as const) {
      expect(count('all', held)).toHaveLength(117);
      // Five of thirteen columns: ±2 of ±6.
      expect(count('middleColumns', held)).toHaveLength(45);
      expect(count('centre', held)).toMatchObject([{ right: 0, up: 0 }]);
      expect(count('none', held)).toEqual([]);
    }
    // Held upright, the columns lie across.
    expect(Math.max(...count('middleColumns', 'portrait').map((point) => point.up))).toBe(2);
    expect(Math.max(...count('middleColumns', 'landscape').map((point) => point.right))).toBe(2);
  });

  it('do not reach beyond their grid', () => {
    const few = focusPoints(
      { columns: 11, rows: 5, widthShare: 0.5, heightShare: 0.34, sensitive: 'all' },
      'landscape'
    );
    expect(pointFinder(few)(0.9, 0.5)).toBeNull();
    expect(pointFinder(few)(0.74, 0.5)).not.toBeNull();
    // Half a step beyond the last point is reached, more is not.
    expect(pointFinder(few)(0.77, 0.5)).not.toBeNull();
    expect(pointFinder(few)(0.78, 0.5)).toBeNull();
    // Inside the grid every place has a point.
    expect(pointFinder(few)(0.525, 0.4575)).not.toBeNull();
    expect(pointFinder([])(0.5, 0.5)).toBeNull();
  });
});

describe('edges', () => {
  const found = (heightMm: number, lateralMm = 0) => {
    const setup = newSetup('s', 'S', {
      people: [newPerson('a', 'Ada', { lateralMm })],
      camera: { ...newSetup('b', 'B').camera, heightMm, placement: { kind: 'framing', framing: 'headAndShoulders' } }
    });
    const view = viewpoint(setup, body);
    return edgeFindings(setup, projector(view, setup.camera, body, view.distance)).map((item) => item.what);
  };

  it('finds a head that is cut, one without room, and nothing where there is room', () => {
    expect(found(1550)).toEqual([]);
    expect(found(1330)).toEqual(['headCut']);
    expect(found(1385)).toEqual(['headNear']);
    expect(found(1550, 420)).toEqual(['headCut']);
  });
});

describe('looks', () => {
  it('are always the same for one person, valid, and varied among many', () => {
    const looks = Array.from({ length: 60 }, (_, n) => appearanceFor(`person-${n}`));
    expect(appearanceFor('person-7')).toEqual(looks[7]);
    for (const look of looks) expect(lookSchema.safeParse(look).success).toBe(true);
    expect(new Set(looks.map((look) => look.skin)).size).toBeGreaterThan(4);
    expect(new Set(looks.map((look) => look.outfit)).size).toBeGreaterThan(3);
    expect(textHash('a')).not.toBe(textHash('b'));
  });
});

describe('a picture file with its settings', () => {
  // The smallest PNG: one grey pixel (ISO/IEC 15948).
  const png = Buffer.from(
    'iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAAAAAA6fptVAAAACklEQVR4nGNoAAAAggCBd81ytgAAAABJRU5ErkJggg==',
    'base64'
  );
  const facts = {
    title: 'Under the palms & <more>',
    description: 'f/2.8 on Tobiah’s near eye, from 3.6 m.',
    focalLengthMm: 85,
    fNumber: 2.83,
    subjectDistanceMm: 3630,
    exposureTimeS: 1 / 500
  };

  it('is read back by a metadata reader that knows nothing of it', async () => {
    const read = (await exifr.parse(Buffer.from(withFacts(png, facts)), { xmp: true, mergeOutput: true })) as Record<
      string,
      unknown
    >;
    expect(JSON.stringify(read)).toContain('Under the palms');
    expect(JSON.stringify(read)).toContain('3.6 m');
    expect(JSON.stringify(read)).toContain('850/10');
  });

  it('is refused when it is no PNG', () => {
    expect(() => withFacts(new Uint8Array(40), facts)).toThrow('not a PNG');
  });
});
