import { describe, expect, it } from 'vitest';
import { Series, type Source } from './series.svelte';

const source = (name: string, text = name): Source => ({ name, file: () => Promise.resolve(new Blob([text])) });
const named = (series: Series<string>) => series.items.map(({ name }) => name);

describe('pictures of a series', () => {
  it('come in their order, whichever is read first; the same bytes are not read again', async () => {
    const series = new Series<string>();
    let release: (() => void) | undefined;
    const first = new Promise<void>((done) => (release = done));
    const adding = series.add(
      [source('a'), source('b'), source('c')],
      async (file) => {
        const text = await file.text();
        if (text === 'a') await first;
        if (text === 'c') release?.();
        return text;
      },
      'read'
    );
    await adding;
    expect(named(series)).toEqual(['a', 'b', 'c']);
    await series.add([source('b again', 'b'), source('d')], (file) => file.text(), 'read');
    expect(named(series)).toEqual(['a', 'b', 'c', 'd']);
    expect(series.problem).toBe('One photo was here already.');
  });

  it('end when one fails: it is said, and nothing stays busy though another was still being read', async () => {
    const series = new Series<string>();
    let release: (() => void) | undefined;
    const later = new Promise<void>((done) => (release = done));
    await series.add(
      [source('slow'), source('bad'), source('never')],
      async (file) => {
        const text = await file.text();
        if (text === 'bad') throw new Error('It cannot be read.');
        await later;
        return text;
      },
      'read'
    );
    expect(series.problem).toBe('It cannot be read.');
    expect(series.busy).toBe(false);
    release?.();
    await later;
    await new Promise((done) => setTimeout(done, 0));
    expect(series.busy).toBe(false);
    expect(named(series)).toEqual([]);
  });
});
