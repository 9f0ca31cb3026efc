// Bundles the benchmark as what is delivered is bundled, then runs it: a loader that rewrites each file would
// be measured along.
import { resolve } from 'node:path';
import { build } from 'esbuild';

const outfile = resolve('scripts/dist/benchmark.mjs');
await build({
  entryPoints: ['scripts/benchmark/main.ts'],
  outfile,
  bundle: true,
  platform: 'node',
  target: 'node20',
  format: 'esm',
  logLevel: 'warning',
  plugins: [
    {
      name: 'packages-stay',
      setup({ onResolve }) {
        onResolve({ filter: /^[^./]/ }, ({ path }) =>
          path.startsWith('@inventario/') ? undefined : { path, external: true },
        );
      },
    },
  ],
});
await import(outfile);
