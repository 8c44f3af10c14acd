/** Circles, types counted: ESLint's `import-x/no-cycle` passes over `import type`. */
module.exports = {
  forbidden: [
    {
      name: 'no-circle',
      severity: 'error',
      comment: 'Imports only go down: two files that need each other are one, or want a third below them.',
      from: {},
      to: { circular: true },
    },
    {
      name: 'not-in-the-lock-file',
      severity: 'error',
      comment: 'A package that is imported stands in package.json.',
      from: { path: '^src', pathNot: '[.]test[.]tsx?$|^src/testing' },
      to: { dependencyTypes: ['npm-no-pkg', 'npm-unknown', 'npm-dev'], dependencyTypesNot: ['type-only'] },
    },
  ],
  options: {
    doNotFollow: { path: 'node_modules' },
    tsPreCompilationDeps: true,
    tsConfig: { fileName: 'tsconfig.json' },
    enhancedResolveOptions: { exportsFields: ['exports'], conditionNames: ['import', 'node', 'default'] },
  },
};
