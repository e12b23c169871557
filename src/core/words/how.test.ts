import { describe, expect, it } from 'vitest';
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { how, howKeys } from './how';

describe('how each figure is computed', () => {
  it('is said of every one, with what it rests on, short enough to be read standing', () => {
    for (const key of howKeys) {
      const { title, text, source } = how[key];
      expect(title, key).not.toBe('');
      expect(text.length, key).toBeLessThan(270);
      expect(text.match(/[.!?](?= |$)/g)?.length, key).toBeLessThanOrEqual(2);
      expect(source, key).toMatch(/\.$/);
    }
    expect(Object.keys(how).sort()).toEqual([...howKeys].sort());
  });

  it('names only sources that the description of the model names too', () => {
    const model = readFileSync(join(import.meta.dirname, '../../../docs/model.md'), 'utf8');
    const names = ['Kingslake', 'Ray', 'Conrad', 'Merklinger', 'Hopkins', 'Goodman', 'Svenson and Barnes', 'ISO 2720'];
    const said = Object.values(how)
      .map(({ source }) => source)
      .join(' ');
    for (const name of names) {
      expect(said, name).toContain(name);
      expect(model, name).toContain(name);
    }
  });
});
