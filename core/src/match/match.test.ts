import { describe, expect, test } from '@jest/globals';
import { contentsAsPlanned } from '../enclosure/as-planned.js';
import { fill } from '../enclosure/fill.js';
import { SENTENCE_CODES, sentence } from '../findings/sentences.js';
import { lookup } from '../job/lookup.js';
import type { Device } from '../job/schema/catalogue.js';
import type { Job } from '../job/schema/job.js';
import type { Box } from '../job/schema/survey.js';
import { EXAMPLES, exampleJob } from '../test-support/examples.js';
import { Random } from '../test-support/random.js';
import { manyDevices, randomHouse } from '../test-support/random-house.js';
import { matchJob } from './match.js';
import { placeFacts } from './place.js';
import { FillAtPlace } from './rules/space.js';

type Change = (job: Job, box: Box, device: Device) => void;

/** The pantry, where every conductor is told and its device fits, with one thing changed. */
function pantry(change: Change = () => {}) {
  const job = exampleJob('pantry');
  const box = job.boxes[0] as Box;
  const chosen = job.selections[0]?.deviceId;
  const device = job.catalogue.devices.find((entry) => entry.id === chosen) as Device;
  box.labels = box.conductors
    .filter((conductor) => conductor.cableId)
    .map((conductor) => {
      const [, cable, colour] = conductor.id.split('-');
      if (colour === 'bare') return { conductorId: conductor.id, role: 'ground' };
      if (colour === 'white') return { conductorId: conductor.id, role: 'neutral', circuitId: box.circuitIds[0] as string };
      return cable === 'feed'
        ? { conductorId: conductor.id, role: 'line', circuitId: box.circuitIds[0] as string }
        : { conductorId: conductor.id, role: 'load', loadIds: job.loads.map((load) => load.id) };
    });
  change(job, box, device);
  const candidate = matchJob(job)[0]?.devices.find((entry) => entry.deviceId === device.id && entry.strategy === 'single');
  if (!candidate) throw new Error('the pantry is not matched');
  return {
    verdict: candidate.verdict,
    said: candidate.reasons.map((reason) => `${reason.outcome} ${reason.code}`),
    texts: candidate.reasons.map((reason) => sentence(reason, job.practice)),
  };
}

test('the pantry as it is: it fits, and nothing is said', () => {
  expect(pantry()).toMatchObject({ verdict: 'fits', said: [] });
});

describe('each rule, by one change to a place where the device fits', () => {
  const without = (box: Box, ...roles: string[]) => {
    box.labels = box.labels.filter((label) => !roles.includes(label.role));
  };
  const retold = (box: Box, from: string, role: Box['labels'][number]['role']) => {
    box.labels = box.labels.map((label) => (label.role === from ? { conductorId: label.conductorId, role } : label));
  };
  test.each<[string, Change, string, RegExp]>([
    ['practice', (_, __, device) => Object.assign(device, { practices: ['gb'] }), 'block practice.other', /not made for United States/],
    ['voltage', (job) => Object.assign(job.circuits[0] as object, { volts: 277 }), 'block voltage.outside', /277 V/],
    [
      'voltage without a circuit',
      (_, box) => {
        box.circuitIds = [];
        box.labels = box.labels.map(({ circuitId, ...label }) => label);
      },
      'unproved voltage.no-circuit',
      /no circuit is named/,
    ],
    ['neutral not told yet', (_, box) => without(box, 'neutral'), 'unproved neutral.unknown', /none is identified yet/],
    ['neutral not there', (_, box) => retold(box, 'neutral', 'spare'), 'block neutral.absent', /none is one/],
    [
      'ground not there, recommended',
      (_, box) => {
        retold(box, 'ground', 'spare');
      },
      'unproved ground.local-code',
      /local code/,
    ],
    [
      'ground not there, required',
      (_, box, device) => {
        retold(box, 'ground', 'spare');
        device.needs.ground = 'required';
      },
      'block ground.absent',
      /requires a ground/,
    ],
    [
      'ground by colour, required',
      (_, box, device) => {
        without(box, 'ground');
        device.needs.ground = 'required';
      },
      'unproved ground.by-colour',
      /only colour/,
    ],
    ['line not told yet', (_, box) => without(box, 'line'), 'unproved line-load.line-unknown', /not identified yet/],
    ['load not there', (_, box) => retold(box, 'load', 'spare'), 'block line-load.no-load', /none is the load/],
    [
      'a kind it is not rated for',
      (job) => Object.assign(job.loads[0] as object, { kind: 'heater' }),
      'block load-kind.unrated',
      /not rated/,
    ],
    [
      'loads unknown',
      (_, box) => {
        for (const position of box.positions) position.loadIds = [];
      },
      'unproved load-kind.unknown',
      /not been recorded/,
    ],
    [
      'nothing to switch with',
      (_, __, device) =>
        Object.assign(device, { channels: [], terminals: device.terminals.filter((terminal) => terminal.role !== 'load') }),
      'block channels.none',
      /switches nothing/,
    ],
    ['over its rating', (job) => Object.assign(job.loads[0] as object, { count: 1000 }), 'block rating.over', /the limit is 100 %/],
    ['too wide', (_, __, device) => Object.assign(device, { gangs: 2 }), 'block gangs.too-wide', /2 gangs; 1 free/],
    [
      'body through a measured opening',
      (_, box) => {
        box.enclosure.capacity = { from: 'measured', width: 40, height: 60, depth: 60 };
      },
      'block body.too-large',
      /leaves 1.57 in/,
    ],
    [
      'too deep',
      (_, box) => {
        box.enclosure.depth = 40;
      },
      'block depth.too-deep',
      /the box has 1.57 in/,
    ],
    [
      'depth not read',
      (_, box) => {
        box.enclosure.depth = 0;
      },
      'unproved depth.not-read',
      /not been measured/,
    ],
    [
      'over-full',
      (_, box) => {
        box.enclosure.capacity = { from: 'marked', in3: 12 };
      },
      'block fill.over',
      /in³ over/,
    ],
    [
      'volume not read',
      (_, box) => {
        box.enclosure.capacity = { from: 'marked', in3: 0 };
      },
      'unproved fill.not-read',
      /has not been read/,
    ],
    [
      'an assistant it must have',
      (job, _, device) => {
        job.brief = { ...job.brief, platforms: [{ name: 'Elsewhere', want: 'must' }] };
        device.platforms = [];
      },
      'block platform.must',
      /must have Elsewhere/,
    ],
    [
      'an assistant it would be nice to have',
      (job) => {
        job.brief = { ...job.brief, platforms: [{ name: 'Elsewhere', want: 'nice' }] };
      },
      'warn platform.nice',
      /would like Elsewhere/,
    ],
  ])('%s', (_, change, said, text) => {
    const result = pantry(change);
    expect(result.said).toContain(said);
    expect(result.texts.join(' ')).toMatch(text);
    const [outcome] = said.split(' ');
    expect(result.verdict).toBe(outcome === 'block' ? 'no' : outcome === 'unproved' ? 'unproved' : 'fits');
  });
});

test('a neutral of the other circuit is not borrowed', () => {
  const result = pantry((job, box) => {
    job.circuits.push({ ...(job.circuits[0] as Job['circuits'][number]), id: 'c-other', breaker: '22' });
    box.circuitIds.push('c-other');
    box.labels = box.labels.map((label) => (label.role === 'neutral' ? { ...label, circuitId: 'c-other' } : label));
  });
  expect(result.said).toContain('block neutral.other-circuit');
  const untold = pantry((job, box) => {
    job.circuits.push({ ...(job.circuits[0] as Job['circuits'][number]), id: 'c-other', breaker: '22' });
    box.circuitIds.push('c-other');
    box.labels = box.labels.map(({ circuitId, ...label }) =>
      label.role === 'neutral' ? label : { ...label, ...(circuitId ? { circuitId } : {}) },
    );
  });
  expect(untold.said).toContain('unproved neutral.circuit-untold');
});

describe('lights worked from two places', () => {
  const stairs = (change: (job: Job) => void = () => {}) => {
    const job = exampleJob('stairs');
    change(job);
    const places = matchJob(job);
    return (boxId: string, deviceId: string, strategy: string) =>
      places.find((place) => place.boxId === boxId)?.devices.find((device) => device.deviceId === deviceId && device.strategy === strategy);
  };

  test('every strategy but single is judged for every device, and the partner is named', () => {
    const at = stairs();
    expect(at('foot', 'os-main', 'companion')).toMatchObject({ verdict: 'fits', partners: [{ boxId: 'head', deviceId: 'os-comp' }] });
    expect(at('foot', 'os-main', 'single')).toBeUndefined();
    expect(at('foot', 'os-main', 'both-ends')?.reasons).toMatchObject([{ code: 'multi-location.not-offered' }]);
  });

  /** The line comes to the foot, the light hangs at the head, and only travelers and a neutral run between. */
  const lineAtFoot = (job: Job) => {
    const [foot, head] = job.boxes as [Box, Box];
    foot.labels = foot.labels.map((label) =>
      label.role === 'load'
        ? { conductorId: label.conductorId, role: 'spare' }
        : label.role === 'line-on'
          ? { ...label, role: 'neutral' }
          : label,
    );
    head.labels = head.labels.map((label) =>
      label.role === 'line' ? { conductorId: label.conductorId, role: 'load', loadIds: ['stair-light'] } : label,
    );
    head.cables.push({ id: 'head-more' });
    head.conductors.push({ id: 'head-more-white', cableId: 'head-more', size: '14AWG', colour: 'white', at: { capped: true } });
    head.labels.push({ conductorId: 'head-more-white', role: 'neutral', circuitId: 'c2' });
  };

  test('a freed traveler brings the line to where the load is, and a note says so', () => {
    const at = stairs(lineAtFoot);
    expect(at('head', 'pw-pair', 'both-ends')).toMatchObject({
      verdict: 'fits',
      reasons: [{ code: 'multi-location.line-by-traveler', outcome: 'note', facts: { from: 'Stair foot' } }],
    });
    expect(at('head', 'os-main', 'companion')).toMatchObject({ verdict: 'fits' });
    expect(at('foot', 'os-main', 'companion')?.reasons).toMatchObject([{ code: 'multi-location.wrong-end' }]);
  });

  test('with one traveler, the partner’s signal leaves none for the line', () => {
    const at = stairs((job) => {
      lineAtFoot(job);
      for (const box of job.boxes)
        box.labels = box.labels.map((label) => (label.traveler === 2 ? { conductorId: label.conductorId, role: 'spare' } : label));
    });
    expect(at('head', 'os-main', 'companion')?.reasons.map((reason) => reason.code)).toContain('line-load.no-line');
    expect(at('head', 'pw-pair', 'both-ends')).toMatchObject({ verdict: 'fits' });
  });
});

test.each([71, 72, 73])('the quick count of a device in a box comes to the same as the whole plan (seed %i)', (seed) => {
  const random = new Random(seed);
  const shapes = EXAMPLES.flatMap((name) => exampleJob(name).catalogue.devices);
  const house = randomHouse(random, 40, {
    devices: manyDevices(random, shapes, 25),
    hubs: [],
    parts: [],
    connectors: [],
    enclosures: [],
    platforms: [],
  });
  const known = lookup(house);
  for (const box of house.boxes) {
    const position = box.positions[0] as Box['positions'][number];
    const at = new FillAtPlace(placeFacts(box, position, known));
    for (const device of house.catalogue.devices) {
      const plain = fill(contentsAsPlanned(box, [{ position, device, selection: { strategy: 'single' } }], known));
      expect({ seed, box: box.id, device: device.id, lines: at.fillWith(device, true).lines }).toEqual({
        seed,
        box: box.id,
        device: device.id,
        lines: plain.lines,
      });
    }
  }
});

test('every finding the engine makes on the examples and on random houses has its sentence in every practice', () => {
  const random = new Random(9);
  const shapes = EXAMPLES.flatMap((name) => exampleJob(name).catalogue.devices);
  const houses = [
    ...EXAMPLES.map(exampleJob),
    randomHouse(random, 30, {
      devices: manyDevices(random, shapes, 30),
      hubs: [],
      parts: [],
      connectors: [],
      enclosures: [],
      platforms: [],
    }),
  ];
  const met = new Set<string>();
  for (const house of houses)
    for (const { devices } of matchJob(house))
      for (const { reasons } of devices)
        for (const reason of reasons) {
          met.add(reason.code);
          for (const practice of ['us', 'gb'] as const) expect(sentence(reason, practice)).not.toMatch(/undefined|NaN|\[object/);
        }
  for (const code of met) expect(SENTENCE_CODES).toContain(code);
  expect(met.size).toBeGreaterThanOrEqual(20);
});
