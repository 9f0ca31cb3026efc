/**
 * Arrows point one way: core knows nobody; cli, standin, demo, server and web know core; web and server meet
 * over HTTP only.
 */
const apart = (from, to, comment) => ({
  name: `${from}-not-to-${to.replaceAll('|', '-')}`,
  comment,
  severity: 'error',
  from: { path: `^${from}/` },
  to: { path: `^(${to})/` },
});
module.exports = {
  forbidden: [
    apart('core', 'cli|standin|demo|server|web|e2e|scripts', 'the core imports nothing of ours'),
    {
      name: 'core-is-pure',
      severity: 'error',
      comment: 'no Node, no interface in the core',
      from: { path: '^core/src/', pathNot: 'test-support|\\.test\\.ts$' },
      to: { dependencyTypes: ['core'] },
    },
    {
      name: 'core-packages',
      severity: 'error',
      comment: 'small pure packages without data of a machine: schemas, edit distance',
      from: { path: '^core/src/', pathNot: 'test-support|\\.test\\.ts$' },
      to: { path: 'node_modules', pathNot: 'node_modules/(zod|fastest-levenshtein)/' },
    },
    apart('web', 'cli|standin|demo|server|e2e|scripts', 'web speaks to server over HTTP'),
    apart('server', 'cli|web|e2e|scripts', 'server knows core, and demo for its first job'),
    {
      name: 'server-to-site-by-http',
      severity: 'error',
      comment: 'only tests start the stand-in site',
      from: { path: '^server/src/', pathNot: 'test-support' },
      to: { path: '^standin/' },
    },
    apart('cli', 'standin|demo|server|web|e2e|scripts', 'the command line knows core only'),
    apart('standin', 'cli|demo|server|web|e2e|scripts', 'the site knows core only'),
    apart('demo', 'cli|standin|server|web|e2e|scripts', 'the demo knows core only'),
    { name: 'no-circles', severity: 'error', from: {}, to: { circular: true } },
  ],
  options: {
    doNotFollow: { path: 'node_modules' },
    exclude: { path: '(dist|node_modules)/' },
    tsPreCompilationDeps: true,
    tsConfig: { fileName: 'tsconfig.base.json' },
    enhancedResolveOptions: {
      exportsFields: ['exports'],
      conditionNames: ['import'],
      extensions: ['.ts', '.tsx', '.js', '.mjs'],
    },
  },
};
