import { existsSync, readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { describe, expect, it } from 'vitest';
import { bodySchema, lensSchema } from '../kit/schema';
import { fits } from '../kit/fits';
import { bodyFrom, lensFrom } from './fromLensfun';
import { maxLensfunBytes, readLensfun, type BodyEntry, type LensEntry } from './lensfun';

/** Debian's package of the database, which the tests install and nobody ships. */
const database = '/usr/share/lensfun/version_1';

const file = (inside: string) => `<lensdatabase version="1">${inside}</lensdatabase>`;
const lens = (model: string, inside = '<mount>Aa</mount>') =>
  `<lens><maker>Ostera</maker><model>${model}</model>${inside}<cropfactor>1</cropfactor></lens>`;
function read(text: string) {
  const result = readLensfun(text);
  if (!result.ok) throw new Error(result.reason);
  return result;
}
const firstLens = (text: string) => read(file(text)).entries[0] as LensEntry;
const reason = (text: string) => {
  const result = readLensfun(text);
  return result.ok ? '' : result.reason;
};

describe('a lens of the database', () => {
  it.each([
    ['50mm f/1.4', 50, 50, 1.4, null],
    ['Ostera 24-105mm F3.5-5.6 Z', 24, 105, 3.5, 5.6],
    ['85mmF2', 85, 85, 2, null],
    ['70-200mm 1:2.8', 70, 200, 2.8, null],
    ['MC Trianon 2,8/135', 135, 135, 2.8, null],
    ['28mm 2.0 Macro', 28, 28, 2, null],
    ['F707 40mm', 40, 40, null, null]
  ])('%s is read from its name', (model, shortestMm, longestMm, widestFNumber, widestAtLong) => {
    expect(firstLens(lens(model))).toMatchObject({ shortestMm, longestMm, widestFNumber, widestAtLong });
  });

  it('is what the database says where it says it', () => {
    const said = '<mount>Aa</mount><mount>Bb</mount><focal min="6" max="24"/><aperture min="2" max="8"/>';
    expect(firstLens(lens('Fixed &amp; compatibles', said))).toEqual({
      kind: 'lens',
      name: 'Ostera Fixed & compatibles',
      mounts: ['Aa', 'Bb'],
      shortestMm: 6,
      longestMm: 24,
      widestFNumber: 2,
      widestAtLong: null,
      smallestFNumber: 8
    });
    const measured = '<mount>Aa</mount><calibration><distortion focal="18"/><distortion focal="55"/></calibration>';
    expect(firstLens(lens('Kit zoom', measured))).toMatchObject({ shortestMm: 18, longestMm: 55, widestFNumber: null });
  });

  it('becomes a lens of the kit; its opening is asked for where nobody says it', () => {
    const zoom = lensFrom(firstLens(lens('24-105mm f/3.5-5.6')), 'a');
    expect(lensSchema.safeParse(zoom).error).toBeUndefined();
    expect(zoom).toMatchObject({ mount: 'Aa', widestFNumber: 3.5, widestAtLong: 5.6, smallestFNumber: 22 });
    const unsaid = firstLens(lens('40mm Special'));
    expect(() => lensFrom(unsaid, 'b')).toThrow('is missing');
    expect(lensFrom(unsaid, 'b', 2.8).widestFNumber).toBe(2.8);
  });
});

describe('a camera of the database', () => {
  const camera = (inside: string) => `<camera><maker>Ostera</maker><model lang="de">Eins</model>${inside}</camera>`;
  const one = (text: string) => read(file(text)).entries[0] as BodyEntry;

  it('is named plainly, and its sensor follows from the crop factor', () => {
    const found = one(
      camera('<model>One</model><model lang="en">The One</model><mount>Aa</mount><cropfactor>1.5</cropfactor>')
    );
    expect(found).toMatchObject({ name: 'Ostera One', mount: 'Aa', cropFactor: 1.5 });
    expect(bodyFrom(found, 'x').sensor).toMatchObject({ widthMm: 24, heightMm: 16 });
    const fourThirds = one(camera('<model>T</model><mount>4/3 Aa</mount><cropfactor>2</cropfactor>'));
    // Diagonal 43.27/2 mm in 4 : 3.
    expect(bodyFrom(fourThirds, 'y').sensor).toMatchObject({ widthMm: 17.31, heightMm: 12.98 });
    expect(bodySchema.safeParse(bodyFrom(fourThirds, 'y')).success).toBe(true);
  });

  it('takes lenses of the mounts its own is compatible with', () => {
    const mounts = '<mount><name>Aa</name><compat>Bb</compat><compat>Cc</compat></mount>';
    const found = one(mounts + camera('<model>One</model><mount>Aa</mount><cropfactor>1</cropfactor>'));
    expect(found.alsoTakes).toEqual(['Bb', 'Cc']);
    const body = bodyFrom(found, 'x');
    expect(['Aa', 'Bb', 'Dd'].map((mount) => fits(body, { mount }))).toEqual([true, true, false]);
  });
});

describe('what cannot be read', () => {
  it('of one entry is told, and the others are taken', () => {
    const wrong = [
      lens('Nameless focal'),
      lens('105-24mm f/4'),
      lens('50mm f/1.8', ''),
      lens('3000mm f/8'),
      lens('50mm', '<mount>Aa</mount><aperture min="8" max="2"/>'),
      '<camera><maker>Ostera</maker><model>One</model><mount>Aa</mount></camera>',
      '<camera><model>Two</model><cropfactor>1</cropfactor></camera>',
      '<lens><mount>Aa</mount></lens>'
    ];
    const found = read(file(wrong.join('') + lens('50mm f/1.8')));
    expect(found.entries.map((entry) => entry.name)).toEqual(['Ostera 50mm f/1.8']);
    expect(found.left.map((item) => item.reason)).toEqual([
      'its crop factor is missing',
      'it has no mount',
      'it has no focal length',
      'its focal lengths run backwards',
      'it has no mount',
      'its focal length is out of range',
      'its widest opening is smaller than its smallest',
      'it has no name'
    ]);
  });

  it('as a whole is refused in a sentence', () => {
    const bomb = `<!DOCTYPE l [<!ENTITY a "aaaaaaaaaa"><!ENTITY b "&a;&a;">]>${file(lens('&b;'))}`;
    expect(reason(bomb)).toBe('It declares its own entities, which Focalis refuses.');
    expect(reason(file(lens('50mm f/2')).slice(0, -30))).toMatch(/^It is cut off or no XML \(line 1: /);
    expect(reason('<svg></svg>')).toBe('It is XML, but no Lensfun database.');
    expect(reason('{"json": 1}')).toMatch(/no XML/);
    expect(reason('  ')).toBe('It is empty.');
    expect(reason('x'.repeat(maxLensfunBytes + 1))).toBe('It has more than 20 MB.');
    expect(reason(`${'<a>'.repeat(20_000)}${'</a>'.repeat(20_000)}`)).not.toBe('');
  });

  it('is nothing of markup in a name', () => {
    expect(firstLens(lens('50mm f/2 &lt;b&gt;x&lt;/b&gt;')).name).toBe('Ostera 50mm f/2 b x /b');
  });
});

it.skipIf(!existsSync(database))(
  'every file of Debian’s package of the database is read, and nearly all entries taken',
  () => {
    const files = readdirSync(database).filter((name) => name.endsWith('.xml'));
    const all = files.map((name) => read(readFileSync(join(database, name), 'utf8')));
    const entries = all.flatMap((result) => result.entries);
    const bodies = entries.filter((entry) => entry.kind === 'body');
    const lenses = entries.filter((entry) => entry.kind === 'lens');
    const left = all.flatMap((result) => result.left);
    // Seen in liblensfun-data-v1 0.3.3: 883 cameras and 1,172 lenses, three of these without any focal length.
    expect(bodies.length).toBeGreaterThanOrEqual(883);
    expect(lenses.length + left.length).toBeGreaterThanOrEqual(1172);
    expect(left.length).toBeLessThan(lenses.length / 100);
    expect(lenses.filter((entry) => entry.widestFNumber !== null).length).toBeGreaterThan(lenses.length * 0.75);
    for (const [index, entry] of entries.entries()) {
      const schema = entry.kind === 'body' ? bodySchema : lensSchema;
      const made =
        entry.kind === 'body'
          ? bodyFrom(entry, `b-${index}`)
          : lensFrom(entry, `l-${index}`, entry.widestFNumber ?? 2.8);
      expect(schema.safeParse(made).error, entry.name).toBeUndefined();
    }
  }
);
