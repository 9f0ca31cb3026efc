// Builds the web application, the server and the stand-in site, unless what is built is of the present
// sources.
import { spawnSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { existsSync, readdirSync, readFileSync, statSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { brotliCompressSync, gzipSync } from 'node:zlib';
import { type BuildFailure, build as esbuild, type Plugin } from 'esbuild';
import { TakenError, takeFolder } from './running.js';
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

/**
 * Builds what is not built of the present sources. Whoever comes while somebody builds waits for that and
 * finds it done.
 */
export async function buildAll(): Promise<void> {
  if (isBuilt()) return;
  const giveBack = await inTurn();
  try {
    if (!isBuilt()) await build();
  } finally {
    giveBack();
  }
}

const isBuilt = () =>
  existsSync(STAMP) && existsSync('web/dist/index.html') && readFileSync(STAMP, 'utf8') === fingerprint();

async function inTurn(): Promise<() => void> {
  for (;;) {
    try {
      return takeFolder('server/dist', 'is being built');
    } catch (error) {
      if (!(error instanceof TakenError)) throw error;
      await new Promise((done) => setTimeout(done, 300));
    }
  }
}

async function build(): Promise<void> {
  const wanted = fingerprint();
  console.log('Building ...');
  await bundle('server/src/main.ts', 'server/dist/main.mjs');
  await bundle('server/src/heavy/heavy-worker.ts', 'server/dist/heavy-worker.mjs');
  await bundle('standin/src/main.ts', 'standin/dist/main.mjs');
  // Whoever asks for the build, a test runner with an environment of its own too, gets the one that is
  // delivered.
  const env = { ...process.env, NODE_ENV: 'production' };
  const web = spawnSync('npx', ['vite', 'build', '--logLevel', 'warn'], {
    cwd: 'web',
    encoding: 'utf8',
    env,
  });
  if (web.status !== 0)
    throw new StartError(
      'The web application does not build: ' +
        `${`${web.stdout}${web.stderr}`.trim().split('\n').slice(-8).join(' | ')}`,
    );
  compress('web/dist');
  writeFileSync(STAMP, wanted);
}

/** Our own packages are bundled, everything from node_modules stays where it is. */
async function bundle(entry: string, outfile: string): Promise<void> {
  const external: Plugin = {
    name: 'packages-stay',
    setup(bundler) {
      bundler.onResolve({ filter: /^[^./]/ }, ({ path }) =>
        path.startsWith('@inventario/') ? undefined : { path, external: true },
      );
    },
  };
  const how = {
    bundle: true,
    platform: 'node',
    target: 'node20',
    format: 'esm',
    sourcemap: true,
    logLevel: 'silent',
  } as const;
  try {
    await esbuild({ ...how, entryPoints: [entry], outfile, plugins: [external] });
  } catch (error) {
    const [first] = (error as BuildFailure).errors ?? [];
    const where = first?.location ? ` (${first.location.file}:${first.location.line})` : '';
    throw new StartError(`${entry} does not build: ${first?.text ?? String(error)}${where}`);
  }
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
