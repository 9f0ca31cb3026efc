import { readFileSync, writeSync } from 'node:fs';
import { readArguments, UnusableError } from './arguments.js';
import { check, fill, homeplan, identify, match, type Output, power, schema } from './commands.js';

function run(words: readonly string[]): Output & { wantsText: boolean } {
  const line = readArguments(words);
  const output = (): Output => {
    switch (line.command) {
      case 'schema':
        return schema();
      case 'check':
        return check(read(line.file));
      case 'fill':
        return fill(read(line.file), line.box, line.planned);
      case 'identify':
        return identify(read(line.file), line.box);
      case 'homeplan':
        return homeplan(read(line.file), line.box);
      case 'power':
        return power(read(line.file), line.box, line.at);
      default:
        return match(read(line.file), line.box);
    }
  };
  return { ...output(), wantsText: line.text };
}

function read(file: string | undefined): string {
  try {
    return readFileSync(file ?? '', 'utf8').replace(/^\uFEFF/, '');
  } catch (error) {
    throw new UnusableError(
      '',
      `"${file}" cannot be read: ${error instanceof Error ? error.message : String(error)}`,
    );
  }
}

/**
 * Written piece by piece: a pipe may take less than all at once, and the process must not end before it has.
 */
function print(descriptor: 1 | 2, text: string): void {
  const bytes = Buffer.from(`${text}\n`);
  let done = 0;
  while (done < bytes.length) {
    try {
      done += writeSync(descriptor, bytes, done);
    } catch (error) {
      const { code } = error as NodeJS.ErrnoException;
      if (code === 'EPIPE') return;
      if (code !== 'EAGAIN') throw error;
    }
  }
}

try {
  const output = run(process.argv.slice(2));
  print(1, output.wantsText ? output.text() : JSON.stringify(output.json, null, 1));
} catch (error) {
  if (!(error instanceof UnusableError)) throw error;
  print(2, error.message);
  process.exitCode = 2;
}
