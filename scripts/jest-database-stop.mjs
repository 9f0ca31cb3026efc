import { rmSync } from 'node:fs';

export default async function stop() {
  const { database, folder } = globalThis.testDatabase ?? {};
  await database?.stop();
  if (folder) rmSync(folder, { recursive: true, force: true });
}
