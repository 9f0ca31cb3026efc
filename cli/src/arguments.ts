import { parseArgs } from 'node:util';
import { dayNumber, Instant, SYMPTOMS, type Symptoms } from '@inventario/core';

/** A mistake of the caller or of the file: one line on standard error, exit code 2. */
export class UnusableError extends Error {
  constructor(
    readonly pointer: string,
    readonly what: string,
  ) {
    super(`${pointer === '' ? '""' : pointer}: ${what.replaceAll(/\s+/g, ' ')}`);
  }
}

type OptionName = 'box' | 'position' | 'symptom' | 'planned' | 'at' | 'from' | 'days';

/** What a command is for, which options it takes beside `--text`, and how it is called. */
interface CommandUse {
  says: string;
  options: readonly OptionName[];
  /** Whether it reads a job file. */
  file: boolean;
  example: string;
}

const COMMANDS = {
  check: {
    says: 'Lists everything wrong with a job file, each with its JSON Pointer.',
    options: [],
    file: true,
    example: 'inventario check house.inventario.json --text',
  },
  fill: {
    says: 'Box fill with every allowance, depth and packing, as found or as planned.',
    options: ['box', 'planned'],
    file: true,
    example: 'inventario fill house.inventario.json --planned --box=b1',
  },
  identify: {
    says: 'Roles of the conductors with their grades, conflicts, and the tests to make next.',
    options: ['box'],
    file: true,
    example: 'inventario identify house.inventario.json --box=b1 --text',
  },
  match: {
    says: 'Every device of the catalogue at every place that wants one, with the reasons.',
    options: ['box'],
    file: true,
    example: 'inventario match house.inventario.json --box=b1',
  },
  homeplan: {
    says: 'The house as one decision: a plan for each school. With a box, what is chosen there.',
    options: ['box'],
    file: true,
    example: 'inventario homeplan house.inventario.json --text',
  },
  wire: {
    says: 'How each box with a choice is put together, joint by joint, and whether that is proved.',
    options: ['box'],
    file: true,
    example: 'inventario wire house.inventario.json --box=b1 --text',
  },
  diagnose: {
    says: 'Why a device does not work: causes by what was seen, and the reading that tells them apart.',
    options: ['box', 'position', 'symptom'],
    file: true,
    example: 'inventario diagnose house.inventario.json --box=b1 --symptom indicator=off --symptom load=off',
  },
  runsheet: {
    says: 'The day in batches with the fewest trips to the panel, against box by box.',
    options: [],
    file: true,
    example: 'inventario runsheet house.inventario.json --text',
  },
  power: {
    says: 'What is on, what is proved dead and what may be touched, at an instant.',
    options: ['box', 'at'],
    file: true,
    example: 'inventario power house.inventario.json --at=2026-05-04T09:12:00Z',
  },
  names: {
    says: 'What every channel is called, what speaks against it, and the words that will work.',
    options: ['box'],
    file: true,
    example: 'inventario names house.inventario.json --text',
  },
  schedule: {
    says: 'Every firing of the rules over some dates, with the sun, and what clashes.',
    options: ['from', 'days'],
    file: true,
    example: 'inventario schedule house.inventario.json --from=2026-03-27 --days=3 --text',
  },
  schema: {
    says: 'The JSON Schema of the job file.',
    options: [],
    file: false,
    example: 'inventario schema > job-file.schema.json',
  },
} as const satisfies Record<string, CommandUse>;

export type Command = keyof typeof COMMANDS;

const OPTIONS: Record<
  OptionName,
  { type: 'string' | 'boolean'; multiple?: boolean; use: string; says: string }
> = {
  box: { type: 'string', use: '--box=ID', says: 'only this box' },
  position: { type: 'string', use: '--position=N', says: 'which device, where the box has several' },
  symptom: { type: 'string', multiple: true, use: '--symptom=KIND=VALUE', says: 'as often as needed' },
  planned: { type: 'boolean', use: '--planned', says: 'the selected devices in place of the existing ones' },
  at: { type: 'string', use: '--at=INSTANT', says: 'ISO 8601 in UTC; without it the latest of the file' },
  from: { type: 'string', use: '--from=DATE', says: 'the first local date, YYYY-MM-DD' },
  days: { type: 'string', use: '--days=N', says: 'how many dates, 1 to 400' },
};

/** A place that does not work, and what was seen there. */
export interface Doubt {
  boxId: string;
  /** Absent: that of the one planned device. */
  position: number | undefined;
  symptoms: Symptoms;
}

/** What was asked: a page of help, the version, or a command with its options. */
export type Asked =
  | { kind: 'help'; about: Command | null }
  | { kind: 'version' }
  | {
      kind: 'command';
      command: Command;
      /** `-` is standard input; absent where the command reads none. */
      file: string | undefined;
      box: string | undefined;
      text: boolean;
      planned: boolean;
      /** ms; the instant `power` speaks of. */
      at: number | undefined;
      /** The dates `schedule` speaks of: the number of the first (1 January 1970 is 0), and how many. */
      dates: { fromDay: number; days: number } | undefined;
      /** The place and what was seen there, for `diagnose`. */
      doubt: Doubt | undefined;
    };

/**
 * `fill house.inventario.json --planned --box b1`, `--help`, `fill --help` and the like.
 * @throws UnusableError
 */
export function readArguments(words: readonly string[]): Asked {
  const [command, ...rest] = words;
  if (command === '--help' || command === '-h') return { kind: 'help', about: null };
  if (command === '--version') return { kind: 'version' };
  if (!isCommand(command))
    throw new UnusableError(
      '',
      `the command ${command === undefined ? 'is missing' : `"${command}" is unknown`}; ` +
        `known are ${Object.keys(COMMANDS).join(', ')}; --help tells more`,
    );
  if (rest.includes('--help') || rest.includes('-h')) return { kind: 'help', about: command };
  const { values, positionals } = parsed(command, rest);
  const use: CommandUse = COMMANDS[command];
  const [file, ...more] = positionals;
  if (file !== undefined && !use.file) more.unshift(file);
  if (more[0] !== undefined) throw new UnusableError('', `"${more[0]}" is one argument too many`);
  if (use.file && file === undefined)
    throw new UnusableError('', `${command} needs the name of a job file, or - for standard input`);
  return {
    kind: 'command',
    command,
    file,
    box: values.box as string | undefined,
    text: values.text === true,
    planned: values.planned === true,
    at: values.at === undefined ? undefined : instantOption(String(values.at)),
    dates: command === 'schedule' ? dateOptions(values) : undefined,
    doubt: command === 'diagnose' ? doubtOptions(values) : undefined,
  };
}

function isCommand(word: string | undefined): word is Command {
  return word !== undefined && Object.hasOwn(COMMANDS, word);
}

function parsed(command: Command, args: string[]) {
  const own: readonly OptionName[] = COMMANDS[command].options;
  const options: Record<string, { type: 'string' | 'boolean'; multiple?: boolean }> = {
    text: { type: 'boolean' },
  };
  for (const name of own)
    options[name] = { type: OPTIONS[name].type, multiple: OPTIONS[name].multiple === true };
  try {
    return parseArgs({ args, options, allowPositionals: true });
  } catch (error) {
    throw new UnusableError('', optionMistake(error as NodeJS.ErrnoException, command, args));
  }
}

/** What the parser found wrong, in the words of this command. */
function optionMistake({ code, message }: NodeJS.ErrnoException, command: Command, args: string[]): string {
  const named = /'(--?[^' =]+)/.exec(message)?.[1] ?? '';
  const word = args.find((arg) => arg === named || arg.startsWith(`${named}=`)) ?? named;
  if (code === 'ERR_PARSE_ARGS_UNKNOWN_OPTION') return `the option "${word}" is unknown to ${command}`;
  const known = Object.entries(OPTIONS).find(([name]) => `--${name}` === named)?.[1];
  return known?.type === 'string'
    ? `the option ${named} is given without its value: ${known.use}`
    : `the option ${named} takes no value`;
}

function instantOption(word: string): number {
  if (!Instant.safeParse(word).success)
    throw new UnusableError(
      '',
      `the option --at must be an instant in UTC such as 2026-05-04T09:12:00Z, not "${word}"`,
    );
  return Date.parse(word);
}

const MOST_DATES = 400;

/** Both are needed; a date that is none and a number out of bounds name their option. */
function dateOptions(values: { from?: unknown; days?: unknown }): { fromDay: number; days: number } {
  const fromDay = typeof values.from === 'string' ? dayNumber(values.from) : null;
  if (fromDay === null)
    throw new UnusableError(
      '',
      `the option --from ${values.from === undefined ? 'is missing; it' : ''} must be a date such as ` +
        `2026-03-27${values.from === undefined ? '' : `, not "${values.from}"`}`,
    );
  const days = /^\d{1,6}$/.test(String(values.days)) ? Number(values.days) : 0;
  if (days < 1 || days > MOST_DATES)
    throw new UnusableError(
      '',
      `the option --days ${values.days === undefined ? 'is missing; it' : ''} must be a number from 1 to ` +
        `${MOST_DATES}${values.days === undefined ? '' : `, not "${values.days}"`}`,
    );
  return { fromDay, days };
}

/** The box is needed, and at least one symptom, a kind once. */
function doubtOptions(values: { box?: unknown; position?: unknown; symptom?: unknown }): Doubt {
  if (typeof values.box !== 'string')
    throw new UnusableError('', 'the option --box is missing: it names the box');
  const position = values.position === undefined ? undefined : Number(values.position);
  if (position !== undefined && !(Number.isInteger(position) && position > 0))
    throw new UnusableError('', `the option --position must be a number from 1, not "${values.position}"`);
  const words = Array.isArray(values.symptom) ? values.symptom.map(String) : [];
  if (words.length === 0)
    throw new UnusableError('', 'the option --symptom is missing: at least one is needed, such as load=off');
  const symptoms: Record<string, string> = {};
  for (const word of words) {
    const [kind = '', value = ''] = word.split(/=(.*)/s);
    const can: readonly string[] | undefined = Object.hasOwn(SYMPTOMS, kind)
      ? SYMPTOMS[kind as keyof typeof SYMPTOMS]
      : undefined;
    if (!can)
      throw new UnusableError(
        '',
        `the option --symptom: no kind is "${kind}"; known are ${Object.keys(SYMPTOMS).join(', ')}`,
      );
    if (!can.includes(value))
      throw new UnusableError(
        '',
        `the option --symptom: ${kind} is one of ${can.join(', ')}, not "${value}"`,
      );
    if (Object.hasOwn(symptoms, kind))
      throw new UnusableError('', `the option --symptom names ${kind} twice; a kind is named once`);
    symptoms[kind] = value;
  }
  return { boxId: values.box, position, symptoms };
}

/** The page of help for one command, or for all. */
export function helpText(about: Command | null): string {
  if (about === null)
    return [
      'inventario COMMAND FILE [options]',
      '',
      'Computes from a job file and prints JSON. FILE is a *.inventario.json, or - for standard input.',
      '',
      ...Object.entries(COMMANDS).map(([name, { says }]) => `  ${name.padEnd(10)}${says}`),
      '',
      '  --text     a readable table instead of JSON, as wide as the terminal',
      '  --help     this page; after a command, what that one takes',
      '  --version  the version of the program and of the job file',
      '',
      'Exit code 0 when it computed, whatever the verdict; 2, with one line that names the field, when the',
      'file cannot be used. Locally adopted codes and the maker’s instructions rule.',
    ].join('\n');
  const use: CommandUse = COMMANDS[about];
  const lines = use.options.map((name) => `  ${OPTIONS[name].use.padEnd(22)}${OPTIONS[name].says}`);
  return [
    `inventario ${about}${use.file ? ' FILE' : ''} [options]`,
    '',
    use.says,
    '',
    ...lines,
    '  --text                a readable table instead of JSON, as wide as the terminal',
    '',
    `For example: ${use.example}`,
  ].join('\n');
}
