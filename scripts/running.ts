// Who works on a data folder: one start, one restore, and nobody beside it.
import { linkSync, mkdirSync, readFileSync, renameSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { StartError } from './start-error.js';

/** Somebody else works there. */
export class TakenError extends StartError {}

interface Mark {
  pid: number;
  /**
   * When the process began, in ticks since the machine did: a number of its own for a pid that is used again.
   */
  began: string;
  doing: string;
}

/**
 * Takes the data folder for this process. A mark left by one that is gone is taken over.
 * @param doing said to whoever comes second: `is running on this data`
 * @returns gives it back
 */
export function takeFolder(folder: string, doing: string): () => void {
  try {
    mkdirSync(folder, { recursive: true });
  } catch {
    throw new StartError(`The data folder ${folder} cannot be written; choose another with INVENTARIO_DATA.`);
  }
  const path = join(folder, 'running.json');
  const own = `${path}.${process.pid}`;
  const mark: Mark = { pid: process.pid, began: beganAt(process.pid) ?? '', doing };
  try {
    writeFileSync(own, JSON.stringify(mark), { mode: 0o600 });
  } catch (error) {
    if ((error as { code?: string }).code === 'ENOSPC') throw error;
    throw new StartError(`The data folder ${folder} cannot be written; choose another with INVENTARIO_DATA.`);
  }
  try {
    for (let tries = 0; tries < 20; tries++) {
      try {
        linkSync(own, path);
        return () => {
          if (readMark(path)?.pid === process.pid) rmSync(path, { force: true });
        };
      } catch {
        const other = readMark(path);
        if (other && isAlive(other))
          throw new TakenError(
            `Inventario ${other.doing} already (process ${other.pid}); end that one first.`,
          );
        // Only one of two that find the same mark moves it away.
        try {
          renameSync(path, `${own}.old`);
          rmSync(`${own}.old`, { force: true });
        } catch {
          // The other one was quicker.
        }
      }
    }
    throw new StartError(
      `The mark of a running Inventario in ${path} cannot be taken over; remove it when none is running.`,
    );
  } finally {
    rmSync(own, { force: true });
  }
}

/** Whether somebody works on the data folder now. */
export function isTaken(folder: string): boolean {
  const mark = readMark(join(folder, 'running.json'));
  return mark !== undefined && isAlive(mark);
}

function readMark(path: string): Mark | undefined {
  try {
    return JSON.parse(readFileSync(path, 'utf8')) as Mark;
  } catch {
    return undefined;
  }
}

const isAlive = ({ pid, began }: Mark) => beganAt(pid) === began;

/** When a process began; nothing when there is none of that number. */
function beganAt(pid: number): string | undefined {
  try {
    const stat = readFileSync(`/proc/${pid}/stat`, 'utf8');
    return stat.slice(stat.lastIndexOf(')') + 2).split(' ')[19];
  } catch {
    return undefined;
  }
}
