// Every check one after the other; each runner's counts are added up and said last.
import { spawnSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';

interface Counts {
  passed: number;
  failed: number;
}

const reports = mkdtempSync(join(tmpdir(), 'inventario-check-'));
const total: Counts = { passed: 0, failed: 0 };

function run(command: string, args: readonly string[], env: Record<string, string> = {}): boolean {
  return spawnSync(command, args, { stdio: 'inherit', env: { ...process.env, ...env } }).status === 0;
}

/** A check without counts of its own counts as one. */
function single(name: string, command: string, ...args: string[]): void {
  console.log(`\n== ${name}`);
  const good = run(command, args);
  total[good ? 'passed' : 'failed'] += 1;
}

/** A test runner; when its report is missing or says nothing ran, that is a failure. */
function counted(
  name: string,
  report: string,
  start: (file: string) => boolean,
  read: (report: unknown) => Counts,
): void {
  console.log(`\n== ${name}`);
  const file = join(reports, report);
  const good = start(file);
  let counts: Counts;
  try {
    counts = read(JSON.parse(readFileSync(file, 'utf8')));
  } catch {
    counts = { passed: 0, failed: 1 };
  }
  if (counts.failed === 0 && (!good || counts.passed === 0)) counts.failed = 1;
  total.passed += counts.passed;
  total.failed += counts.failed;
}

single('formatting and lint', 'npx', 'biome', 'check', '--colors=off', '.');
single('types', 'npx', 'tsc', '-b');
single(
  'arrows between the workspaces',
  'npx',
  'depcruise',
  '--config',
  '.dependency-cruiser.cjs',
  'core',
  'server',
  'web',
  'standin',
  'cli',
  'demo',
);
single('unused code', 'npx', 'knip', '--no-progress');
single('shape', 'npx', 'tsx', 'scripts/shape/main.ts');
counted(
  'units and server',
  'jest.json',
  (file) =>
    run('npx', ['jest', '--json', `--outputFile=${file}`, '--silent'], {
      NODE_OPTIONS: '--experimental-vm-modules --disable-warning=ExperimentalWarning',
    }),
  (report) => {
    const { numPassedTests, numFailedTests, numRuntimeErrorTestSuites } = report as Record<string, number>;
    return { passed: numPassedTests ?? 0, failed: (numFailedTests ?? 0) + (numRuntimeErrorTestSuites ?? 0) };
  },
);
counted(
  'journeys',
  'journeys.json',
  (file) =>
    run('npx', ['playwright', 'test', '--config', 'e2e/playwright.config.ts'], {
      INVENTARIO_JOURNEY_REPORT: file,
    }),
  (report) => {
    const { expected = 0, unexpected = 0, flaky = 0 } = (report as { stats: Record<string, number> }).stats;
    return { passed: expected + flaky, failed: unexpected };
  },
);

rmSync(reports, { recursive: true, force: true });
console.log(`\n${total.passed} passed, ${total.failed} failed`);
process.exit(total.failed === 0 ? 0 : 1);
