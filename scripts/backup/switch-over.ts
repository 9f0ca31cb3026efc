// The last step of a restore: the prepared data take the place of the old. It is noted before it begins, and
// whoever comes next, the restore itself or a start, carries it to its end; without the note nothing has
// happened.
import { existsSync, mkdirSync, renameSync, rmSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { endOrphan } from '../database.js';

/** What is prepared beside its place, by the names under the data folder. */
const KEPT = ['database', 'photos'] as const;

export const paths = (dataFolder: string) => ({
  /** Where a restore prepares. */
  preparing: join(dataFolder, 'restoring'),
  /** The preparation is whole: renamed from `preparing`, in one step. */
  prepared: join(dataFolder, 'restored'),
  /** What stood there before, until all is in its place. */
  before: join(dataFolder, 'before-restore'),
});

/** Finishes a restore that was prepared; what was only half prepared is thrown away. */
export async function finishRestore(dataFolder: string): Promise<void> {
  const { preparing, prepared, before } = paths(dataFolder);
  if (existsSync(preparing)) {
    await endOrphan(join(preparing, 'database'), join(preparing, 'database', 'data'));
    rmSync(preparing, { recursive: true, force: true });
  }
  if (existsSync(prepared)) {
    await endOrphan(join(dataFolder, 'database'), join(dataFolder, 'database', 'data'));
    for (const name of KEPT) {
      if (!existsSync(join(prepared, name))) continue;
      rmSync(join(before, name), { recursive: true, force: true });
      renameIfThere(join(dataFolder, name), join(before, name));
      renameSync(join(prepared, name), join(dataFolder, name));
    }
    rmSync(prepared, { recursive: true, force: true });
  }
  rmSync(before, { recursive: true, force: true });
}

function renameIfThere(from: string, to: string): void {
  if (!existsSync(from)) return;
  mkdirSync(dirname(to), { recursive: true });
  renameSync(from, to);
}
