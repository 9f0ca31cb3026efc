// Builds the web application, the server and the stand-in site, unless what is built is of the present sources.
import { spawnSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { existsSync, readdirSync, readFileSync, statSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { brotliCompressSync, gzipSync } from 'node:zlib';
import { build } from 'esbuild';
import { StartError } from './start-error.js';

const SOURCES = [
  'core/src',
  'server/src',
  'standin/src',
  'demo/src',
  'web/src',
  'web/public',
  'web/index.html',
  'web/vite.config.ts',
  'package-lock.json',
];
const STAMP = 'server/dist/built-from';

function fingerprint(): string {
  const hash = createHash('sha256');
  const visit = (path: string) => {
    if (!existsSync(path)) return;
    if (statSync(path).isDirectory()) for (const name of readdirSync(path).sort()) visit(join(path, name));
    else if (!/\.test\.tsx?$/.test(path)) hash.update(path).update(readFileSync(path));
  };
  for (const source of SOURCES) visit(source);
  return hash.digest('hex');
}

export async function buildAll(): Promise<void> {
  const wanted = fingerprint();
  if (existsSync(STAMP) && readFileSync(STAMP, 'utf8') === wanted && existsSync('web/dist/index.html')) return;
  console.log('Building ...');
  const common = { bundle: true, platform: 'node', target: 'node20', format: 'esm', sourcemap: true, logLevel: 'warning' } as const;
  // Our own packages are bundled, everything from node_modules stays where it is.
  const external = {
    name: 'packages-stay',
    setup(bundler: import('esbuild').PluginBuild) {
      bundler.onResolve({ filter: /^[^./]/ }, ({ path }) => (path.startsWith('@inventario/') ? undefined : { path, external: true }));
    },
  };
  await build({ ...common, entryPoints: ['server/src/main.ts'], outfile: 'server/dist/main.mjs', plugins: [external] });
  await build({
    ...common,
    entryPoints: ['server/src/heavy/heavy-worker.ts'],
    outfile: 'server/dist/heavy-worker.mjs',
    plugins: [external],
  });
  await build({ ...common, entryPoints: ['standin/src/main.ts'], outfile: 'standin/dist/main.mjs', plugins: [external] });
  // Whoever asks for the build, a test runner with an environment of its own too, gets the one that is delivered.
  const env = { ...process.env, NODE_ENV: 'production' };
  const web = spawnSync('npx', ['vite', 'build', '--logLevel', 'warn'], { cwd: 'web', encoding: 'utf8', env });
  if (web.status !== 0)
    throw new StartError(`The web application does not build: ${`${web.stdout}${web.stderr}`.trim().split('\n').slice(-8).join(' | ')}`);
  compress('web/dist');
  writeFileSync(STAMP, wanted);
}

/** Text files beside their brotli and gzip, which the server prefers. */
function compress(folder: string): void {
  for (const name of readdirSync(folder)) {
    const path = join(folder, name);
    if (statSync(path).isDirectory()) compress(path);
    else if (/\.(js|css|html|svg|json|webmanifest)$/.test(name)) {
      writeFileSync(`${path}.gz`, gzipSync(readFileSync(path), { level: 9 }));
      writeFileSync(`${path}.br`, brotliCompressSync(readFileSync(path)));
    }
  }
}
