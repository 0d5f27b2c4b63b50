/** Imports go one way: web, server, cli and demo use core; core uses only what computes. */
module.exports = {
  forbidden: [
    { name: 'core-is-alone', severity: 'error', from: { path: '^core/', pathNot: '\\.test\\.ts$|^core/testing/' }, to: { path: '^(web|server|cli|demo|e2e|scripts)/' } },
    {
      name: 'core-only-computes',
      comment: 'No input or output, no framework: what core may use from outside is listed here',
      severity: 'error',
      from: { path: '^core/', pathNot: '\\.test\\.ts$' },
      to: {
        dependencyTypes: ['npm', 'npm-dev', 'core', 'npm-no-pkg', 'unknown'],
        pathNot: '(^|/)(zod|fft\\.js|papaparse|suncalc|ics|fast-xml-parser|simple-statistics|ml-matrix|highs|mediabunny|@audio/decode-[a-z0-9]+)(/|$)',
      },
    },
    { name: 'nothing-imports-web', severity: 'error', from: { pathNot: '^web/' }, to: { path: '^web/' } },
    { name: 'only-down', severity: 'error', from: { path: '^(web|server|cli|demo)/' }, to: { path: '^(web|server|cli|demo|e2e)/', pathNot: '^$1/' } },
    {
      name: 'testing-stays-in-tests',
      severity: 'error',
      from: { path: '^(core|server)/', pathNot: '\\.test\\.ts$|^(core|server)/testing/' },
      to: { path: '^(core|server)/testing/' },
    },
    { name: 'no-circles', severity: 'error', from: {}, to: { circular: true } },
    { name: 'resolvable', severity: 'error', from: {}, to: { couldNotResolve: true, pathNot: '\\?|^bun:' } },
  ],
  options: {
    doNotFollow: { path: 'node_modules' },
    exclude: { path: '(^|/)dist/' },
    tsPreCompilationDeps: true,
    tsConfig: { fileName: 'tsconfig.base.json' },
    enhancedResolveOptions: {
      exportsFields: ['exports'],
      conditionNames: ['import', 'require', 'node', 'default', 'types'],
      extensions: ['.ts', '.tsx', '.mjs', '.js', '.json', '.css', '.d.ts'],
    },
  },
};
