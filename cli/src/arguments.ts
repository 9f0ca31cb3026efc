import { Instant } from '@inventario/core';

/** A mistake of the caller or of the file: one line on standard error, exit code 2. */
export class UnusableError extends Error {
  constructor(
    readonly pointer: string,
    readonly what: string,
  ) {
    super(`${pointer === '' ? '""' : pointer}: ${what.replaceAll(/\s+/g, ' ')}`);
  }
}

export interface CommandLine {
  command: string;
  file: string | undefined;
  box: string | undefined;
  text: boolean;
  planned: boolean;
  /** ms; the instant `power` speaks of. */
  at: number | undefined;
}

const COMMANDS = ['check', 'fill', 'identify', 'match', 'homeplan', 'power', 'schema'];

/** `fill house.inventario.json --planned --box b1` and the like. */
export function readArguments(words: readonly string[]): CommandLine {
  const [command, ...rest] = words;
  if (command === undefined || !COMMANDS.includes(command))
    throw new UnusableError(
      '',
      `the command ${command === undefined ? 'is missing' : `"${command}" is unknown`}; known are ${COMMANDS.join(', ')}`,
    );
  const line: CommandLine = {
    command,
    file: undefined,
    box: undefined,
    text: false,
    planned: false,
    at: undefined,
  };
  while (rest.length > 0) {
    const word = rest.shift() as string;
    if (word === '--text') line.text = true;
    else if (word === '--planned' && command === 'fill') line.planned = true;
    else if (word === '--at' && command === 'power') line.at = instantOption(rest.shift());
    else if (word === '--box' && command !== 'check' && command !== 'schema') {
      line.box = rest.shift();
      if (line.box === undefined) throw new UnusableError('', 'the option --box is given without an id');
    } else if (word.startsWith('--'))
      throw new UnusableError('', `the option "${word}" is unknown to ${command}`);
    else if (line.file === undefined && command !== 'schema') line.file = word;
    else throw new UnusableError('', `"${word}" is one argument too many`);
  }
  if (line.file === undefined && command !== 'schema')
    throw new UnusableError('', `${command} needs the name of a job file`);
  return line;
}

function instantOption(word: string | undefined): number {
  if (word === undefined) throw new UnusableError('', 'the option --at is given without an instant');
  if (!Instant.safeParse(word).success)
    throw new UnusableError(
      '',
      `the option --at must be an instant in UTC such as 2026-05-04T09:12:00Z, not "${word}"`,
    );
  return Date.parse(word);
}
