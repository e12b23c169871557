import js from '@eslint/js';
import globals from 'globals';
import svelte from 'eslint-plugin-svelte';
import ts from 'typescript-eslint';

/** As svelte.config.js compiles our own files; said again because the linter's cache takes no function. */
const runes = { compilerOptions: { runes: true } };

/** Modules that belong to the interface; the core may not know them. */
const interfaceModules = [
  'svelte',
  'svelte/*',
  '$app/*',
  '$lib',
  '$lib/*',
  '$env/*',
  '@sveltejs/*',
  'flowbite*',
  'three',
  'three/*',
  'dexie',
  'd3-*',
  // Statistics of plain numbers.
  '!d3-array',
  'plotly*',
  '**/lib/**',
  '**/routes/**',
  '**/workers/**'
];

/** Older than the bound on length, and still to be split: a file leaves this list, none joins it. */
const stillLarge = ['src/lib/drills/JudgeDrill.svelte', 'src/routes/frames/**/+page.svelte'];

export default ts.config(
  {
    ignores: [
      'node_modules/',
      '.svelte-kit/',
      'build/',
      'test-results/',
      'static/models/',
      'playwright-report/',
      '.stamps/'
    ]
  },
  js.configs.recommended,
  ...ts.configs.strict,
  ...svelte.configs.recommended,
  {
    languageOptions: { globals: { ...globals.browser, ...globals.node } },
    rules: {
      'no-undef': 'off',
      '@typescript-eslint/no-explicit-any': 'error',
      '@typescript-eslint/no-unused-vars': ['error', { argsIgnorePattern: '^_', varsIgnorePattern: '^_' }],
      '@typescript-eslint/no-non-null-assertion': 'error',
      'svelte/no-navigation-without-resolve': 'off',
      'no-console': 'error'
    }
  },
  {
    files: ['**/*.svelte', '**/*.svelte.ts'],
    languageOptions: { parserOptions: { parser: ts.parser, extraFileExtensions: ['.svelte'], svelteConfig: runes } }
  },
  {
    // Rules that need types: a promise nobody waits for, a switch that forgets a case. Not for components: each makes the whole
    // program anew there, a second apiece; svelte-check has their types.
    files: ['src/**/*.ts', 'tests/**/*.ts', 'benchmarks/**/*.ts'],
    languageOptions: { parserOptions: { projectService: true, extraFileExtensions: ['.svelte'] } },
    rules: {
      '@typescript-eslint/no-floating-promises': 'error',
      '@typescript-eslint/no-misused-promises': ['error', { checksVoidReturn: { attributes: false } }],
      '@typescript-eslint/switch-exhaustiveness-check': ['error', { considerDefaultExhaustiveForUnions: true }]
    }
  },
  {
    // Maps and sets there are replaced, never changed: they need no reactivity of their own.
    files: ['src/lib/data/**', 'src/lib/state/**'],
    rules: { 'svelte/prefer-svelte-reactivity': 'off' }
  },
  {
    // What does not fit is split by idea. Tables, and tight loops with a reason beside them, say so where they stand.
    files: ['src/core/**/*.ts'],
    ignores: ['**/*.test.ts', 'src/core/formats/versions/**', 'src/core/testing/**'],
    rules: {
      'max-lines-per-function': ['error', { max: 60, skipBlankLines: true, skipComments: true }],
      complexity: ['error', 20]
    }
  },
  { files: ['**/*.svelte'], ignores: stillLarge, rules: { 'max-lines': ['error', 250] } },
  {
    files: ['src/core/**/*.ts'],
    rules: {
      'no-restricted-imports': [
        'error',
        { patterns: [{ group: interfaceModules, message: 'The core imports nothing of the interface.' }] }
      ],
      'no-restricted-globals': ['error', 'window', 'document', 'localStorage', 'indexedDB', 'fetch', 'performance'],
      'no-restricted-properties': [
        'error',
        { object: 'Math', property: 'random', message: 'Pass randomness in.' },
        { object: 'Date', property: 'now', message: 'Pass the time in.' }
      ],
      'no-restricted-syntax': [
        'error',
        { selector: "NewExpression[callee.name='Date'][arguments.length=0]", message: 'Pass the time in.' }
      ]
    }
  },
  {
    files: ['src/**/*.{ts,svelte}'],
    ignores: ['src/lib/data/**', 'src/core/**', 'src/**/*.test.ts'],
    rules: {
      'no-restricted-imports': ['error', { paths: [{ name: 'dexie', message: 'Only src/lib/data knows Dexie.' }] }]
    }
  },
  {
    files: ['src/render/**/*.ts', 'src/modelling/**/*.ts'],
    rules: {
      'no-restricted-imports': [
        'error',
        {
          patterns: [
            {
              group: ['svelte', 'svelte/*', '$app/*', '$lib', '$lib/*', '**/lib/**', '**/routes/**', 'dexie'],
              message: 'The renderer knows the core, not the interface.'
            }
          ]
        }
      ]
    }
  },
  {
    files: ['src/lib/**/*.{ts,svelte}', 'src/routes/**/*.{ts,svelte}'],
    ignores: ['src/lib/data/**', 'src/**/*.test.ts'],
    rules: {
      'no-restricted-imports': [
        'error',
        {
          paths: [
            { name: 'dexie', message: 'Only src/lib/data knows Dexie.' },
            { name: 'three', message: 'Only src/render knows three.' }
          ]
        }
      ]
    }
  },
  {
    files: ['scripts/**', 'src/server/planCommand.ts', 'src/modelling/build.ts', 'benchmarks/**'],
    rules: { 'no-console': 'off' }
  }
);
