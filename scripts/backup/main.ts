// ./inventario-backup save FILE | restore FILE [--yes]
import { resolve } from 'node:path';
import { Household } from '../household.js';
import { readSettings } from '../settings.js';
import { lineOf, StartError, StoppedError } from '../start-error.js';
import { restore } from './restore.js';
import { save } from './save.js';

const household = new Household();
for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP'] as const)
  process.on(signal, () => void household.end().then(() => process.exit(2)));

try {
  const [command, file, ...rest] = process.argv.slice(2);
  const sure = rest.length === 1 && rest[0] === '--yes';
  if (
    (command !== 'save' && command !== 'restore') ||
    file === undefined ||
    (rest.length > 0 && !(command === 'restore' && sure))
  )
    throw new StartError('Say "save FILE" or "restore FILE [--yes]".');
  const settings = readSettings(process.env);
  const path = resolve(process.env.INVENTARIO_FROM ?? '.', file);
  if (command === 'save') await save(path, settings, household);
  else await restore(path, sure, settings, household);
  await household.end();
  console.log(command === 'save' ? `Saved to ${file}.` : `Restored from ${file}.`);
  process.exit(0);
} catch (error) {
  await household.end();
  if (!(error instanceof StoppedError)) console.error(`inventario: ${lineOf(error)}`);
  process.exit(2);
}
