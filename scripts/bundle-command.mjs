// Bundles the `inventario` command into one file, so that it starts fast and needs nothing but Node. Runs as
// npm's `prepare`.

import { existsSync } from 'node:fs';
import { build } from 'esbuild';

if (existsSync('cli/src/main.ts')) {
  await build({
    entryPoints: ['cli/src/main.ts'],
    outfile: 'cli/dist/inventario.mjs',
    bundle: true,
    platform: 'node',
    target: 'node20',
    format: 'esm',
    minifySyntax: true,
    logLevel: 'warning',
  });
}
