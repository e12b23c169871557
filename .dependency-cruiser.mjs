/** No cycle between folders, nor between modules, imports of types included; checked by `npm run lint`. */
export default {
  forbidden: [
    {
      name: 'no-folder-cycles',
      comment: 'Folders form no cycle: move what both need to where neither knows the other.',
      severity: 'error',
      scope: 'folder',
      from: {},
      to: { circular: true }
    },
    {
      name: 'no-module-cycles',
      severity: 'error',
      from: {},
      to: { circular: true }
    }
  ],
  options: {
    doNotFollow: { path: 'node_modules' },
    exclude: { path: ['\\.test\\.ts$', '^src/.*/testing/', 'node_modules', '^\\.svelte-kit'] },
    tsPreCompilationDeps: true,
    tsConfig: { fileName: 'tsconfig.json' },
    enhancedResolveOptions: {
      extensions: ['.ts', '.svelte', '.svelte.ts', '.js', '.json'],
      conditionNames: ['svelte', 'import']
    }
  }
};
