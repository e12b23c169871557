/** The fonts of pages, as their packages hold them: static ones, a script each; the first that has a character draws it. */
const archivo = (weight: number) => [
  `@fontsource/archivo/files/archivo-latin-${weight}-normal.woff`,
  `@fontsource/archivo/files/archivo-latin-ext-${weight}-normal.woff`
];
const others = (weight: number) =>
  ['greek', 'greek-ext', 'cyrillic', 'cyrillic-ext', 'vietnamese'].map(
    (script) => `@fontsource/noto-sans/files/noto-sans-${script}-${weight}-normal.woff`
  );

export const fontFiles = {
  text: [...archivo(400), ...others(400)],
  bold: [...archivo(600), ...others(600)],
  narrow: [
    '@fontsource/archivo-narrow/files/archivo-narrow-latin-700-normal.woff',
    '@fontsource/archivo-narrow/files/archivo-narrow-latin-ext-700-normal.woff',
    ...others(600)
  ]
} as const;
