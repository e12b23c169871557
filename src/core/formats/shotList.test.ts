import fc from 'fast-check';
import Papa from 'papaparse';
import { describe, expect, it } from 'vitest';
import { planSetup } from '../call/planSetup';
import { defaultHabits } from '../habits/habits';
import { builtInKit } from '../kit/builtInKit';
import { withoutNames } from '../setup/withoutNames';
import { demoSetup } from '../testing/demo';
import { runs } from '../testing/runs';
import { decoded, readCsv, writeCsv } from './csv';
import { guessMapping, readShots, readShotTable, writeShotList } from './shotList';

const setup = demoSetup('West door');
const result = planSetup({ setup, kit: builtInKit, stopStep: 'third', habits: defaultHabits });
const plan = result.kind === 'plan' ? result : null;
const row = { setup, plan, placeName: 'West door', startsAt: 820 };
const table = (text: string) => {
  const read = readShotTable(text);
  if (typeof read === 'string') throw new Error(read);
  return read;
};

describe('comma-separated values', () => {
  it('come back as they were, whatever is in them (random)', () => {
    const cell = fc.oneof(
      fc.string({ maxLength: 12 }),
      fc.constantFrom('=1+1', "'=1", '-x', '+', '@a', '-5', 'a,b', 'a"b', 'line\nbreak', "''", "'")
    );
    const rows = fc.array(
      fc.array(
        cell.map((text) => text.trim()),
        { minLength: 2, maxLength: 4 }
      ),
      {
        minLength: 2,
        maxLength: 6
      }
    );
    fc.assert(
      fc.property(rows, (drawn) => {
        fc.pre(drawn.every((cells) => cells.join('').trim() !== '' && cells[0] !== ''));
        const read = readCsv(writeCsv(drawn), 100);
        expect(read).toEqual({ header: drawn[0], rows: drawn.slice(1) });
      }),
      { numRuns: runs(200) }
    );
  });

  it('run nothing: a cell that begins like a formula does so no more', () => {
    const text = writeCsv([
      ['a', 'b'],
      ['=HYPERLINK("x")', '-5']
    ]);
    const [, cells] = Papa.parse<string[]>(text).data;
    expect(cells).toEqual([`'=HYPERLINK("x")`, '-5']);
  });

  it('are read in whatever encoding they were written', () => {
    const text = 'Name\r\nZoë – Bräutigam\r\n';
    const utf16 = new Uint8Array([0xff, 0xfe, ...Buffer.from(text, 'utf16le')]);
    expect(decoded(utf16)).toEqual({ text, encoding: 'UTF-16' });
    expect(decoded(new TextEncoder().encode(text))).toEqual({ text, encoding: 'UTF-8' });
    const windows = Uint8Array.from([0x4e, 0x61, 0x6d, 0x65, 0x0a, 0x5a, 0x6f, 0xeb]);
    expect(decoded(windows)).toEqual({ text: 'Name\nZoë', encoding: 'Windows-1252' });
  });

  it('say in a sentence why they cannot be read', () => {
    expect(readShotTable('')).toMatch(/no rows/);
    expect(readShotTable('Name\n')).toMatch(/no rows/);
    expect(readShotTable('Name\n"never closed\n')).toMatch(/quotation mark/);
    const long = `Name\n${'x\n'.repeat(100_000)}`;
    const wide = `${'x,'.repeat(100_000)}\n`;
    expect(readShotTable(wide)).toBe('The file has more than 200 columns.');
    expect(readShotTable(`Name\n${wide}`)).toBe('The file has more than 200 columns.');
    expect(readShotTable(`Name\n"${'x,'.repeat(300_000)}`)).toMatch(/quotation mark/);
    expect(readShotTable(long)).toBe('The file has more than 300 rows; a job holds 300 setups.');
  });
});

describe('the shot list', () => {
  it('has the call of each setup, and comes back as the same setups', () => {
    const text = writeShotList([row], builtInKit, 'metric', true);
    const { header, rows } = table(text);
    const cells = Object.fromEntries(header.map((heading, index) => [heading, rows[0]?.[index]]));
    expect(cells).toMatchObject({
      Name: 'West door',
      Time: '13:40',
      People: 'Ines',
      Aperture: 'f/2.8',
      Place: 'West door'
    });
    expect(cells['Focus on']).toContain('Ines');
    const { shots, problems } = readShots(rows, guessMapping(header));
    expect(problems).toEqual([]);
    expect(shots).toEqual([
      {
        name: 'West door',
        notes: setup.notes,
        place: 'West door',
        people: ['Ines'],
        count: 1,
        schedule: { startsAt: '13:40', fixed: false, minutes: 15, priority: 'must' }
      }
    ]);
  });

  it('leaves names and places at home unless they are ticked', () => {
    const hidden = withoutNames(setup);
    const plan = planSetup({ setup: hidden, kit: builtInKit, stopStep: 'third', habits: defaultHabits });
    if (plan.kind !== 'plan') throw new Error('no plan');
    const text = writeShotList([{ ...row, setup: hidden, plan, placeName: '' }], builtInKit, 'metric', false);
    expect(text).not.toContain('Ines');
    const { header, rows } = table(text);
    const cell = (heading: string) => rows[0]?.[header.indexOf(heading)];
    expect(cell('People')).toBe('');
    expect(cell('Place')).toBe('');
    expect(cell('Focus on')).toBe('Person 1’s near eye');
    expect(cell('Notes')).toMatch(/^someone alone in the doorway/);
  });

  it('from elsewhere says of every row that cannot be taken why, and takes the others', () => {
    const text = [
      'Shot;When;Min;Who;Where',
      'Rings;2.30 pm;10;Ines; Tobiah',
      ';14:00;5;;',
      'Cake;soon;5;;',
      'Dance;20:10;0;;',
      'Couple;;;"Ines; Tobiah";Nave'
    ].join('\n');
    const { header, rows } = table(text);
    const { shots, problems } = readShots(rows, guessMapping(header));
    expect(shots.map((shot) => [shot.name, shot.schedule.startsAt, shot.people])).toEqual([
      ['Rings', '14:30', ['Ines']],
      ['Couple', null, ['Ines', 'Tobiah']]
    ]);
    expect(problems).toEqual([
      { row: 3, reason: 'It has no name.' },
      { row: 4, reason: '"soon" is no time.' },
      { row: 5, reason: '"0" is no number of minutes from 1 to 600.' }
    ]);
  });

  it('without a name column has nothing to take', () => {
    const { header, rows } = table('Something,Else\na,b\n');
    const { shots, problems } = readShots(rows, guessMapping(header));
    expect(shots).toEqual([]);
    expect(problems).toHaveLength(1);
  });
});
