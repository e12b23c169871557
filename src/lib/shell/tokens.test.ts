/** What can be read in each theme: WCAG 2.2, 1.4.3 and 1.4.11, from the colours themselves. */
import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';

const css = readFileSync(new URL('../../app.css', import.meta.url), 'utf8');

type Tokens = Readonly<Record<string, string>>;

/** The colours that a rule sets. */
function tokensIn(text: string, selector: RegExp): Tokens {
  const body = new RegExp(`${selector.source}\\s*\\{([^}]*)\\}`).exec(text)?.[1] ?? '';
  return Object.fromEntries(
    [...body.matchAll(/--([a-z-]+):\s*(#[0-9a-f]{6}|var\(--[a-z-]+\))/g)].map(([, a, b]) => [a ?? '', b ?? ''])
  );
}
const [usual = '', more = ''] = css.split('@media (prefers-contrast: more)');
const root = tokensIn(usual, /:root/);
const themes: Readonly<Record<string, Tokens>> = {
  studio: root,
  dim: { ...root, ...tokensIn(usual, /\[data-theme='dim'\]/) },
  sun: { ...root, ...tokensIn(usual, /\[data-theme='sun'\]/) }
};
const contrasted: Readonly<Record<string, Tokens>> = {
  'studio, more contrast': { ...root, 'ink-soft': 'var(--ink)', ...tokensIn(more, /\n {2}:root(?!,)/) },
  'dim, more contrast': {
    ...themes['dim'],
    'ink-soft': 'var(--ink)',
    ...tokensIn(more, /\n {2}\[data-theme='dim'\](?! \{\n {4}--ink-soft)/)
  }
};

/** Relative luminance (WCAG 2.2, from sRGB). */
function luminance(tokens: Tokens, name: string): number {
  const value = tokens[name] ?? '';
  const other = /var\(--([a-z-]+)\)/.exec(value)?.[1];
  if (other) return luminance(tokens, other);
  const channels = [1, 3, 5].map((at) => parseInt(value.slice(at, at + 2), 16) / 255);
  const [r = NaN, g = NaN, b = NaN] = channels.map((c) => (c <= 0.04045 ? c / 12.92 : ((c + 0.055) / 1.055) ** 2.4));
  return 0.2126 * r + 0.7152 * g + 0.0722 * b;
}

function contrast(tokens: Tokens, a: string, b: string): number {
  const [dark = NaN, light = NaN] = [luminance(tokens, a), luminance(tokens, b)].sort((x, y) => x - y);
  return (light + 0.05) / (dark + 0.05);
}

describe.each(Object.entries({ ...themes, ...contrasted }))('the theme %s', (_, tokens) => {
  it.each([
    ['ink', 'surface'],
    ['ink', 'raised'],
    ['ink', 'band'],
    ['ink-soft', 'surface'],
    ['ink-soft', 'raised'],
    ['pencil', 'raised'],
    ['cool', 'surface'],
    ['cool', 'raised']
  ])('has text of %s on %s that can be read: 4.5 to 1', (text, ground) => {
    expect(contrast(tokens, text, ground)).toBeGreaterThanOrEqual(4.5);
  });

  it.each([
    ['pencil', 'surface'],
    ['cool', 'band']
  ])('has marks of %s that stand out from %s: 3 to 1', (mark, ground) => {
    expect(contrast(tokens, mark, ground)).toBeGreaterThanOrEqual(3);
  });
});

it('the colours are those of the rules', () => {
  for (const tokens of Object.values({ ...themes, ...contrasted }))
    for (const name of ['ink', 'ink-soft', 'surface', 'raised', 'band', 'pencil', 'cool'])
      expect(luminance(tokens, name), name).toBeGreaterThanOrEqual(0);
  expect(luminance(contrasted['dim, more contrast'] ?? {}, 'ink')).toBe(1);
});
