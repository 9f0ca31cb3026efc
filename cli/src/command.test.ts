import { spawnSync } from 'node:child_process';
import { mkdtempSync, readdirSync, readFileSync, rmSync, symlinkSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { build } from 'esbuild';

const examples = new URL('../../core/examples/', import.meta.url);
const folder = mkdtempSync(join(tmpdir(), 'inventario-command-'));
const bundle = join(folder, 'command.mjs');
const pantry = fileURLToPath(new URL('pantry.inventario.json', examples));
const loft = fileURLToPath(new URL('sail-loft.inventario.json', examples));

beforeAll(() =>
  build({
    entryPoints: [fileURLToPath(new URL('./main.ts', import.meta.url))],
    outfile: bundle,
    bundle: true,
    platform: 'node',
    format: 'esm',
    logLevel: 'error',
  }),
);
afterAll(() => rmSync(folder, { recursive: true, force: true }));

const run = (...words: string[]) => {
  const { status, stdout, stderr } = spawnSync(process.execPath, [bundle, ...words], { encoding: 'utf8' });
  return { status, stdout, stderr };
};
const write = (name: string, content: string) => {
  const path = join(folder, name);
  writeFileSync(path, content);
  return path;
};
const changed = (change: (job: Record<string, never>) => void) => {
  const job = JSON.parse(readFileSync(pantry, 'utf8'));
  change(job);
  return write('changed.json', JSON.stringify(job));
};

describe('what it prints', () => {
  test.each(readdirSync(examples).filter((name) => name.endsWith('.inventario.json')))(
    '%s: JSON and exit code 0 from every command, in text too',
    (name) => {
      const path = fileURLToPath(new URL(name, examples));
      for (const words of [
        ['check'],
        ['fill'],
        ['fill', '--planned'],
        ['identify'],
        ['match'],
        ['homeplan'],
        ['power'],
        ['wire'],
        ['runsheet'],
        ['names'],
        ['schedule', '--from', '2026-03-27', '--days=3'],
      ]) {
        const [command = '', ...rest] = words;
        const printed = run(command, path, ...rest);
        expect([printed.status, printed.stderr]).toEqual([0, '']);
        expect(Object.keys(JSON.parse(printed.stdout))).toEqual(
          {
            check: ['ok', 'problems'],
            fill: ['boxes'],
            identify: ['boxes'],
            match: ['places'],
            homeplan: ['plans'],
            power: ['circuits', 'boxes'],
            wire: ['boxes'],
            runsheet: ['batches', 'panelTrips', 'boxByBoxTrips', 'lowerBound', 'minutes'],
            names: ['names'],
            schedule: ['timeZone', 'days', 'firings', 'findings'],
          }[command] as string[],
        );
        expect(run(command, path, ...rest, '--text').stdout).not.toContain('{');
      }
    },
  );

  test('causes, the reading that splits them, and at danger the stop in place of every live test', () => {
    const asked = (...symptoms: string[]) =>
      JSON.parse(run('diagnose', loft, '--box=bench', ...symptoms.map((one) => `--symptom=${one}`)).stdout);
    const on = asked('indicator=on', 'control=none', 'load=on');
    expect(on).toMatchObject({
      stop: null,
      next: {
        tool: 'lamp',
        arrangement: 'device-out',
        position: 1,
        points: ['bench-lamp'],
        breakers: { s4: 'on' },
      },
    });
    expect(on.causes[0]).toEqual({
      cause: 'line-load-joined',
      position: 1,
      conductorIds: ['bench-arm-black'],
      probability: expect.any(Number),
      stop: false,
      predicts: { indicator: 'on', control: 'none', load: 'on' },
      fix: expect.stringContaining('prove dead'),
    });
    const trips = asked('breaker=trips-at-on');
    expect(trips.stop).toContain('leave it off');
    expect(Object.values(trips.next?.breakers ?? {})).not.toContain('on');
    expect(run('diagnose', loft, '--box=bench', '--symptom=feel=heat', '--text').stdout).toContain(
      'leave it off',
    );
  });

  test('one box, with every field of the shape', () => {
    const [box] = JSON.parse(run('fill', pantry, '--box', 'pantry').stdout).boxes;
    expect(box).toMatchObject({
      boxId: 'pantry',
      method: expect.stringMatching(/^nec-/),
      verdict: 'ok',
      lines: expect.arrayContaining([
        {
          rule: 'conductor',
          clause: '314.16(B)(1)',
          what: expect.any(String),
          count: expect.any(Number),
          eachMl: expect.any(Number),
          ml: expect.any(Number),
          size: expect.any(String),
        },
      ]),
      depth: { availableMm: expect.any(Number), neededMm: expect.any(Number), verdict: 'fits' },
      packing: { occupancy: expect.any(Number), verdict: expect.any(String) },
    });
    expect(JSON.parse(run('match', pantry, '--box', 'pantry').stdout).places).toHaveLength(1);
  });

  test('plans, with every field of the shape, one for each school', () => {
    const { plans } = JSON.parse(run('homeplan', pantry).stdout);
    expect(plans.map((plan: { school: string }) => plan.school)).toEqual([
      'lowest-cost',
      'no-hub',
      'one-mesh-hub',
      'makers-hub',
      'fewest-families',
    ]);
    expect(plans[0]).toMatchObject({
      total: 5950,
      devices: 3400,
      hubs: 0,
      parts: 0,
      labour: 2550,
      labourMinutes: 17,
      unserved: [],
      choices: [{ boxId: 'pantry', position: 1, deviceId: 'pw-20', strategy: 'single', with: [] }],
      hubIds: [],
      proof: 'optimal',
    });
    expect(plans[2].unserved).toEqual([{ boxId: 'pantry', position: 1, why: 'radio' }]);
  });

  test('what is not proved says what would settle it', () => {
    const path = changed((job) => {
      const [box] = (job as unknown as { boxes: Record<string, unknown>[] }).boxes;
      delete box?.signal;
    });
    const [place] = JSON.parse(run('match', path).stdout).places;
    const single = place.devices.find((device: { strategy: string }) => device.strategy === 'single');
    expect(single).toMatchObject({ verdict: 'unproved' });
    expect(single.reasons).toContainEqual(
      expect.objectContaining({ rule: 'signal', outcome: 'unproved', settledBy: expect.any(String) }),
    );
  });

  test('check lists what is wrong and says so without failing', () => {
    const path = changed((job) => Object.assign(job, { rooms: [{ id: 'x' }] }));
    const printed = run('check', path);
    expect(printed.status).toBe(0);
    expect(JSON.parse(printed.stdout)).toMatchObject({
      ok: false,
      problems: expect.arrayContaining([
        { path: '/rooms/0/name', message: expect.any(String), severity: 'error' },
      ]),
    });
  });

  test('power says what may be touched at an instant, and at the last one of the file without it', () => {
    const cellar = fileURLToPath(new URL('cellar.inventario.json', examples));
    const early = JSON.parse(run('power', cellar, '--at', '2026-04-14T15:25:00Z', '--box', 'sump').stdout);
    expect(early.circuits).toContainEqual({ circuitId: 'w4', state: 'unknown', since: null });
    expect(early.boxes).toMatchObject([
      {
        boxId: 'sump',
        dead: 'none',
        since: null,
        hinders: expect.arrayContaining([
          {
            code: 'live-reading',
            circuitId: null,
            readingId: 'sump-r1',
            message: expect.stringContaining('118.7 V'),
          },
        ]),
        stops: [
          {
            code: 'live-while-off',
            conductorIds: ['sump-out-red'],
            circuitIds: ['w4', 'w6'],
            message: expect.stringContaining('could feed it'),
          },
        ],
        gates: { open: false, ohms: false, joint: false, neutral: false, energise: false },
      },
    ]);
    const last = JSON.parse(run('power', cellar).stdout);
    expect(last).toEqual(JSON.parse(run('power', cellar, '--at', '2026-04-14T16:45:00.000Z').stdout));
  });

  test('a schedule asks for its dates, and for what of the site it needs', () => {
    const room = fileURLToPath(new URL('long-room.inventario.json', examples));
    for (const [words, says] of [
      [['--days', '3'], '--from is missing'],
      [['--from', '2026-02-30', '--days', '3'], '--from'],
      [['--from', '2026-02-03'], '--days is missing'],
      [['--from', '2026-02-03', '--days', '401'], '--days'],
      [['--from', '2026-02-03', '--days', '1.5'], '--days'],
      [['--from', '2026-02-03', '--days', '2', '--box', 'door'], '--box'],
    ] as const) {
      const { status, stdout, stderr } = run('schedule', room, ...words);
      expect([status, stdout, stderr.trim().split('\n').length]).toEqual([2, '', 1]);
      expect(stderr).toContain(says);
    }
    const job = JSON.parse(readFileSync(room, 'utf8'));
    delete job.site.latitude;
    const nowhere = write('nowhere.json', JSON.stringify(job));
    const asked = ['--from', '2026-02-03', '--days', '2'];
    expect(run('schedule', nowhere, ...asked).stderr).toMatch(/^\/site\/latitude: is missing/);
    delete job.site.timeZone;
    const timeless = write('timeless.json', JSON.stringify(job));
    expect(run('schedule', timeless, ...asked).stderr).toMatch(/^\/site\/timeZone: is missing/);
    job.site.timeZone = 'Mars/Base';
    const mars = write('mars.json', JSON.stringify(job));
    expect(run('names', mars).stderr).toMatch(/^\/site\/timeZone: must be a time zone/);
  });

  test('labels of one joint that contradict each other are an error of check, and stop no other command', () => {
    const path = changed((job) => {
      const [box] = (job as unknown as { boxes: { labels: Record<string, unknown>[] }[] }).boxes;
      for (const label of box?.labels ?? [])
        if (label.conductorId === 'pantry-lamps-white') label.role = 'line-on';
    });
    expect(JSON.parse(run('check', path).stdout)).toMatchObject({
      ok: false,
      problems: expect.arrayContaining([
        expect.objectContaining({ path: '/boxes/0/labels/4', severity: 'error' }),
      ]),
    });
    for (const command of ['fill', 'identify', 'match', 'homeplan', 'power', 'wire', 'runsheet'])
      expect(run(command, path).status).toBe(0);
    const [place] = JSON.parse(run('match', path).stdout).places;
    expect(place.devices.map((device: { verdict: string }) => device.verdict)).not.toContain('fits');
  });

  test('schema is the schema published under docs', () => {
    const printed = JSON.parse(run('schema').stdout);
    expect(printed).toEqual(
      JSON.parse(readFileSync(new URL('../../docs/job-file.schema.json', import.meta.url), 'utf8')),
    );
  });

  test('a file with a byte order mark is read', () => {
    expect(run('check', write('bom.json', `\uFEFF${readFileSync(pantry, 'utf8')}`)).status).toBe(0);
  });
});

describe('how it is called', () => {
  const script = fileURLToPath(new URL('../../inventario', import.meta.url));

  test('a file may come in on standard input', () => {
    const { status, stdout } = spawnSync(process.execPath, [bundle, 'fill', '-'], {
      encoding: 'utf8',
      input: readFileSync(pantry, 'utf8'),
    });
    expect(status).toBe(0);
    expect(stdout).toBe(run('fill', pantry).stdout);
  });

  test('through a link on the PATH, and through a link to that link', () => {
    const [link, further] = [join(folder, 'inventario-link'), join(folder, 'again')];
    symlinkSync(script, link);
    symlinkSync('inventario-link', further);
    for (const path of [link, further]) {
      const { stdout, stderr, status } = spawnSync(path, ['--version'], { encoding: 'utf8' });
      expect([status, stderr]).toEqual([0, '']);
      expect(stdout).toMatch(/^inventario \d+\.\d+\.\d+, job file version 1\n$/);
    }
  });

  test('help and version are answers, not mistakes', () => {
    expect(run('--help')).toMatchObject({
      status: 0,
      stderr: '',
      stdout: expect.stringContaining('COMMAND'),
    });
    expect(run('match', '--help').stdout).toContain('For example: inventario match');
  });

  test('text is as wide as the terminal says it is', () => {
    const { stdout } = spawnSync(process.execPath, [bundle, 'match', pantry, '--text'], {
      encoding: 'utf8',
      env: { ...process.env, COLUMNS: '72' },
    });
    const widths = stdout.split('\n').map((line) => line.length);
    expect(Math.max(...widths)).toBeLessThanOrEqual(72);
    expect(
      Math.max(
        ...run('match', pantry, '--text')
          .stdout.split('\n')
          .map((line) => line.length),
      ),
    ).toBeGreaterThan(72);
  });
});

describe('check names slips', () => {
  const problemsOf = (change: (job: Record<string, never>) => void) =>
    JSON.parse(run('check', changed(change)).stdout).problems;

  test('a state of a switching that is none is an error', () => {
    const events = [
      { id: 'e1', kind: 'switched', circuitId: 'c1', state: 'onn', at: '2026-05-04T09:12:00Z' },
    ];
    expect(problemsOf((job) => Object.assign(job, { events }))).toContainEqual(
      expect.objectContaining({ path: '/events/0/state', severity: 'error' }),
    );
  });

  test('a kind of event nobody knows is a warning', () => {
    const events = [{ id: 'e1', kind: 'swtiched', at: '2026-05-04T09:12:00Z' }];
    expect(problemsOf((job) => Object.assign(job, { events }))).toEqual([
      expect.objectContaining({ path: '/events/0/kind', severity: 'warning' }),
    ]);
  });

  test.each([
    ['with a letter too few', 'signl', 'signal'],
    ['in another case', 'Condition', 'condition'],
    ['with a hyphen', 'haz-ards', 'hazards'],
  ])('a field %s is a warning that says which is meant', (_, written, meant) => {
    const problems = problemsOf((job) => {
      const [box] = (job as unknown as { boxes: Record<string, unknown>[] }).boxes as [
        Record<string, unknown>,
      ];
      box[written] = box[meant] ?? [];
      delete box[meant];
    });
    expect(problems).toEqual([
      {
        path: `/boxes/0/${written}`,
        message: `is a field nothing here reads: "${meant}" may be meant`,
        severity: 'warning',
      },
    ]);
  });

  test('fields of other programs are no slips', () => {
    expect(
      problemsOf((job) => {
        const [box] = (job as unknown as { boxes: Record<string, unknown>[] }).boxes;
        Object.assign(box as object, { plaster: 'buff', 'x-colour': 'red' });
      }),
    ).toEqual([]);
  });
});

describe('exit code 2 with exactly one line that begins with the pointer', () => {
  test.each<[string, () => string[], string]>([
    ['no command', () => [], '""'],
    ['an unknown command', () => ['guess', pantry], '""'],
    ['no file', () => ['fill'], '""'],
    ['a file that is not there', () => ['fill', join(folder, 'none.json')], '""'],
    ['a folder', () => ['check', folder], '""'],
    ['two files', () => ['fill', pantry, pantry], '""'],
    ['an unknown option', () => ['fill', pantry, '--fast'], '""'],
    ['an option of another command', () => ['match', pantry, '--planned'], '""'],
    ['a box that is not there', () => ['fill', pantry, '--box', 'none'], '/boxes'],
    ['a box that is not there, for a plan', () => ['homeplan', pantry, '--box', 'none'], '/boxes'],
    [
      'a pin on nothing',
      () => [
        'homeplan',
        changed((job) => Object.assign(job, { brief: { pins: [{ boxId: 'none', position: 1 }] } })),
      ],
      '/brief/pins/0/boxId',
    ],
    ['a box without its id', () => ['fill', pantry, '--box'], '""'],
    ['an instant that is none', () => ['power', pantry, '--at', 'noon'], '"": the option --at'],
    [
      'an instant without its zone',
      () => ['power', pantry, '--at', '2026-04-14T15:25:00'],
      '"": the option --at',
    ],
    ['no instant', () => ['power', pantry, '--at'], '"": the option --at'],
    ['an instant for another command', () => ['fill', pantry, '--at', '2026-04-14T15:25:00Z'], '""'],
    ['no box to diagnose', () => ['diagnose', loft, '--symptom', 'load=off'], '"": the option --box'],
    ['no symptom', () => ['diagnose', loft, '--box', 'bench'], '"": the option --symptom'],
    ...[['load=green'], ['mood=bad'], ['load'], ['load=on', 'load=off']].map(
      (words): [string, () => string[], string] => [
        `the symptoms ${words.join(' and ')}`,
        () => ['diagnose', loft, '--box', 'bench', ...words.flatMap((word) => ['--symptom', word])],
        '"": the option --symptom',
      ],
    ),
    ...[[], ['--position', '9'], ['--position', 'left']].map((words): [string, () => string[], string] => [
      `a box of two devices with ${words.join(' ') || 'no position'}`,
      () => ['diagnose', loft, '--box', 'rack', '--symptom', 'load=off', ...words],
      '"": the option --position',
    ]),
    ['not JSON', () => ['check', write('broken.json', '{\n"format"')], '""'],
    ['another format', () => ['check', write('other.json', '{"format":"x"}')], '/format'],
    ['an unknown version', () => ['fill', changed((job) => Object.assign(job, { version: 9 }))], '/version'],
    ['a missing field', () => ['fill', changed((job) => delete job.practice)], '/practice'],
    ['a wrong type', () => ['match', changed((job) => Object.assign(job, { boxes: 'none' }))], '/boxes'],
    [
      'a missing reference',
      () => [
        'fill',
        changed((job) =>
          Object.assign(job, {
            selections: [{ boxId: 'nowhere', position: 1, deviceId: null, strategy: 'single' }],
          }),
        ),
      ],
      '/selections/0/boxId',
    ],
  ])('%s', (_, words, pointer) => {
    const printed = run(...words());
    expect(printed.status).toBe(2);
    expect(printed.stdout).toBe('');
    expect(printed.stderr).toMatch(/^[^\n]+\n$/);
    expect(printed.stderr.startsWith(pointer.includes(' ') ? pointer : `${pointer}: `)).toBe(true);
  });
});
