import Papa from 'papaparse';
import { describe, expect, it } from 'vitest';
import { recordedFrame } from '../testing/recorded';
import { writeRecordCsv } from './recordCsv';
import { readRecordFile, writeRecordFile } from './recordFile';

const frames = [
  recordedFrame('a'),
  recordedFrame('b', {
    error: [-1, 1].map((side) => ({ q: side * 30, tau: 4, share: 0.5 })),
    people: [{ id: 'ines', name: '=Ines', sharp: false, placed: null, movement: null }],
    sharp: 'some'
  }),
  recordedFrame('c', { error: null, takenMs: null, odds: null })
];

describe('the record as a file', () => {
  it('comes back as it went', () => {
    expect(readRecordFile(writeRecordFile(frames))).toEqual({ ok: true, frames });
    expect(readRecordFile(`\uFEFF${writeRecordFile([])}`)).toEqual({ ok: true, frames: [] });
  });

  it('is refused with the field and the reason, whole or not at all', () => {
    const text = writeRecordFile(frames);
    const refused = (changed: string) => {
      const read = readRecordFile(changed);
      return read.ok ? 'taken' : `${read.field}: ${read.reason}`;
    };
    expect(refused(text.slice(0, -40))).toContain('isn’t a complete');
    expect(refused('[]')).toContain('not a Focalis record');
    expect(refused(text.replace('"focalis-record"', '"focalis-kit"'))).toContain('not a Focalis record');
    expect(refused(text.replace('"version": 1', '"version": 9'))).toContain('newer than this Focalis');
    expect(refused(text.replace('"fNumber": 1.4', '"fNumber": -2'))).toMatch(/frames.*fNumber/);
    expect(refused(writeRecordFile([...frames, recordedFrame('a')]))).toContain('Two frames share an id');
    expect(refused(text.replace('"id": "a"', '"__proto__": {}, "id": "a"'))).toContain('has no place');
    expect(refused(`${'['.repeat(40)}${']'.repeat(40)}`)).toContain('nested deeper');
  });

  it('as a table has a row a frame; nothing in it runs', () => {
    const { data } = Papa.parse<Record<string, string>>(writeRecordCsv(frames), { header: true, skipEmptyLines: true });
    expect(data.map((row) => [row['file'], row['error um'], row['side'], row['soft people']])).toEqual([
      ['a.jpg', '14', 'behind', ''],
      ['b.jpg', '30', 'open', "'=Ines"],
      ['c.jpg', '', '', '']
    ]);
  });
});
