import { readFileSync, writeSync } from 'node:fs';
import { type Asked, type Doubt, helpText, readArguments, UnusableError } from './arguments.js';
import { check, fill, homeplan, identify, match, type Output, power, schema, wire } from './commands.js';
import { names, schedule } from './commissioning.js';
import { diagnose, runsheet } from './day.js';
import { fitted } from './table.js';
import { versionText } from './version.js';

/** What is printed on standard output for what was asked. */
function answerTo(asked: Asked): string {
  if (asked.kind === 'help') return helpText(asked.about);
  if (asked.kind === 'version') return versionText;
  const output = computed(asked);
  if (!asked.text) return JSON.stringify(output.json, null, 1);
  const width = terminalWidth();
  const text = output.text(width);
  // A schema in lines of a terminal's width would be no schema.
  return asked.command === 'schema' ? text : fitted(text, width);
}

function computed(asked: Extract<Asked, { kind: 'command' }>): Output {
  const { file, box } = asked;
  switch (asked.command) {
    case 'schema':
      return schema();
    case 'check':
      return check(read(file));
    case 'fill':
      return fill(read(file), box, asked.planned);
    case 'identify':
      return identify(read(file), box);
    case 'homeplan':
      return homeplan(read(file), box);
    case 'power':
      return power(read(file), box, asked.at);
    case 'match':
      return match(read(file), box);
    case 'wire':
      return wire(read(file), box);
    case 'diagnose':
      return diagnose(read(file), asked.doubt as Doubt);
    case 'runsheet':
      return runsheet(read(file));
    case 'names':
      return names(read(file), box);
    case 'schedule':
      return schedule(read(file), asked.dates ?? NO_DATES);
  }
}

/** Only `schedule` asks for dates, and it is not called without. */
const NO_DATES = { fromDay: 0, days: 0 };

/** Columns of the terminal, else as the environment says; a file or a pipe takes lines of any length. */
function terminalWidth(): number {
  const told = process.stdout.columns ?? Number.parseInt(process.env.COLUMNS ?? '', 10);
  return told >= 40 ? told : Number.MAX_SAFE_INTEGER;
}

const STANDARD_INPUT = 0;

function read(file: string | undefined): string {
  try {
    return readFileSync(file === '-' ? STANDARD_INPUT : (file ?? ''), 'utf8').replace(/^\uFEFF/, '');
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
  print(1, answerTo(readArguments(process.argv.slice(2))));
} catch (error) {
  if (!(error instanceof UnusableError)) throw error;
  print(2, error.message);
  process.exitCode = 2;
}
