import { describe, expect, it } from 'vitest';
import { timetable, type DayItem } from '$core/day/timetable';
import { usualSchedule } from '$core/setup/schedule';
import { lensLanes, placePieces } from './ribbons';

const rows = (list: readonly (readonly [body: string, lens: string, place: string])[]) =>
  timetable(
    list.map(([bodyId, lensId, placeId], index): DayItem => ({
      id: `s${index}`,
      name: lensId,
      bodyId,
      lensId,
      placeId,
      schedule: usualSchedule
    }))
  ).entries;

const mark = (piece: { used: boolean; starts: boolean; ends: boolean } | null | undefined) =>
  piece ? `${piece.starts ? '[' : ''}${piece.used ? 'x' : '-'}${piece.ends ? ']' : ''}` : '';

describe('the ribbons beside the day', () => {
  it('carry a lens on while the other body is used, and break where it changes', () => {
    const entries = rows([
      ['main', '85', 'door'],
      ['second', '35', 'door'],
      ['main', '85', 'door'],
      ['main', '50', 'steps'],
      ['second', '35', 'steps']
    ]);
    const lanes = lensLanes(entries);
    expect(lanes.map(([main]) => mark(main))).toEqual(['[x', '-', 'x]', '[x]', '']);
    expect(lanes.map(([, second]) => mark(second))).toEqual(['', '[x', '-', '-', 'x]']);
  });

  it('break before a change, not after what is only carried', () => {
    const entries = rows([
      ['main', '85', 'door'],
      ['second', '35', 'door'],
      ['main', '50', 'door']
    ]);
    expect(lensLanes(entries).map(([main]) => mark(main))).toEqual(['[x', '-]', '[x]']);
  });

  it('of places break at each walk', () => {
    const entries = rows([
      ['main', '85', 'door'],
      ['main', '85', 'door'],
      ['main', '85', 'steps']
    ]);
    expect(placePieces(entries).map(mark)).toEqual(['[x', 'x]', '[x]']);
    expect(placePieces([])).toEqual([]);
  });
});
