import { chmodSync, mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';

/** A temporary folder that the database's own user may pass through. */
export function testFolder(name: string): string {
  const folder = mkdtempSync(join(tmpdir(), `inventario-${name}-`));
  chmodSync(folder, 0o711);
  return folder;
}
