// One MariaDB for all server tests, in a folder of its own. Plain JavaScript, since Jest loads it before its
// transforms.
import { mkdtempSync } from 'node:fs';
import { tsImport } from 'tsx/esm/api';

export default async function start() {
  const { freePort, startDatabase } = await tsImport('./database.ts', import.meta.url);
  const folder = mkdtempSync('/tmp/inventario-test-');
  const database = await startDatabase(folder, await freePort(), true);
  process.env.INVENTARIO_TEST_DATABASE = JSON.stringify(database.address);
  globalThis.testDatabase = { database, folder };
}
