import { describe, expect, test } from '@jest/globals';
import { EXAMPLES, exampleJob, exampleText } from '../test-support/examples.js';
import { nearMisses } from './near-misses.js';
import { readJobDocument, readJobFile } from './read.js';

type Document = Record<string, unknown>;

/**
 * A copy of the document with one thing done to it. `path` is a JSON Pointer to what is replaced; undefined
 * takes it out.
 */
function spoiled(path: string, value: unknown): Document {
  const document = JSON.parse(exampleText('stairs')) as Document;
  const steps = path.slice(1).split('/');
  const last = steps.pop() as string;
  const holder = steps.reduce<Document>((inner, step) => inner[step] as Document, document);
  if (value === undefined) delete holder[last];
  else holder[last] = value;
  return document;
}

test.each(EXAMPLES)('%s is read without a problem and kept verbatim', (name) => {
  const text = exampleText(name);
  const result = readJobFile(text);
  expect(result.problems).toEqual([]);
  expect(result.ok && JSON.stringify(result.job)).toBe(JSON.stringify(JSON.parse(text)));
});

describe('what cannot be used at all', () => {
  test.each([
    ['{', ''],
    ['[]', ''],
    ['null', ''],
    ['{}', '/format'],
    ['{"format":"other"}', '/format'],
    ['{"format":"inventario/job"}', '/version'],
    ['{"format":"inventario/job","version":2}', '/version'],
    ['{"format":"inventario/job","version":"1"}', '/version'],
  ])('%s', (text, path) => {
    expect(readJobFile(text)).toMatchObject({ ok: false, unusable: true, problems: [{ path }] });
  });
});

describe('what is wrong is named by its pointer', () => {
  test.each<[string, unknown, RegExp]>([
    ['/practice', undefined, /is missing/],
    ['/practice', 'fr', /"us", "ca", "gb", "modular"/],
    ['/name', 7, /string/],
    ['/boxes', {}, /array/],
    ['/boxes/0/enclosure/gangs', 0, /at least 1/],
    ['/boxes/0/enclosure/gangs', '1', /number/],
    ['/boxes/0/enclosure/depth', -1, /at least 0/],
    ['/boxes/0/enclosure/depth', undefined, /is missing/],
    ['/boxes/0/enclosure/capacity/from', 'guessed', /from/],
    ['/boxes/0/enclosure/capacity', { from: 'marked' }, /mL|in3/],
    ['/boxes/0/conductors/0/size', '13AWG', /one of/],
    ['/boxes/0/conductors/0/at', { joint: 'foot-jl', capped: true }, /exactly one/],
    ['/boxes/0/conductors/0/at', undefined, /is missing/],
    ['/boxes/0/conductors/0/at', { position: 1 }, /terminal|missing/],
    ['/boxes/0/conductors/0/at/joint', 'nowhere', /joint "nowhere"/],
    ['/boxes/0/conductors/0/cableId', 'nowhere', /cable "nowhere"/],
    ['/boxes/0/conductors/1/id', 'foot-feed-black', /second time/],
    ['/boxes/0/id', 'bad id', /letters/],
    ['/boxes/0/roomId', 'nowhere', /room "nowhere"/],
    ['/boxes/0/circuitIds/0', 'nowhere', /circuit "nowhere"/],
    ['/boxes/0/positions/0/loadIds/0', 'nowhere', /load "nowhere"/],
    ['/boxes/0/positions/0', { index: 1, existing: 'smart', loadIds: [] }, /missing/],
    ['/boxes/0/readings/0/value', 'lit', /number of volts/],
    ['/boxes/0/readings/0/value', 99999, /between 0 and 1000 V/],
    ['/boxes/0/readings/0/value', -1, /between 0 and 1000 V/],
    ['/overrides', [{ figure: 'depth.leads', value: 0 }], /must be above 0/],
    ['/boxes/0/readings/0/at', 'yesterday', /instant/],
    ['/boxes/0/readings/0/points/0', 'nowhere', /nowhere/],
    ['/boxes/0/readings/0/breakers', { nowhere: 'on' }, /circuit "nowhere"/],
    ['/boxes/0/readings/0/switches', { 'head/7': 'up' }, /switch "head\/7"/],
    ['/boxes/0/labels/0/conductorId', 'nowhere', /conductor "nowhere"/],
    ['/boxes/0/labels/0/role', 'hot', /one of/],
    ['/runs/0/ends/1/cableId', 'nowhere', /cable "nowhere"/],
    ['/groups/0/places/1/position', 9, /position 9/],
    ['/selections/0/deviceId', 'nowhere', /device "nowhere"/],
    ['/selections/0/strategy', 'both', /one of/],
    ['/brief/platforms/0/name', 'Nowhere', /platform "Nowhere"/],
    ['/brief/hubsOwned/0', 'nowhere', /hub "nowhere"/],
    ['/catalogue/devices/0/price', 1.5, /integer/],
    ['/catalogue/devices/0/platforms/0', 'Nowhere', /platform/],
    ['/catalogue/devices/0/hubId', 'nowhere', /hub "nowhere"/],
    ['/catalogue/devices/0/terminals/1/channel', 9, /channel 9/],
    ['/catalogue/devices/0/multiLocation/0/partnerIds/0', 'nowhere', /device "nowhere"/],
    ['/catalogue/connectors/0/mL', undefined, /mL/],
  ])('%s = %j', (path, value, message) => {
    const result = readJobDocument(spoiled(path, value));
    expect(result.ok).toBe(false);
    const near = result.problems.filter(
      (problem) =>
        problem.severity === 'error' && (problem.path.startsWith(path) || path.startsWith(problem.path)),
    );
    expect(near.map((problem) => problem.message).join('; ')).toMatch(message);
    expect(near[0]?.path.startsWith(path)).toBe(true);
  });
});

describe('what a proof of dead, a clearing or a box left open says is held to its kind; what it leaves out is not', () => {
  const at = '2026-05-04T09:00:00Z';
  test.each<[string, Document, RegExp]>([
    ['stage', { kind: 'proved', stage: 'open' }, /"face", "device-out"/],
    ['volts', { kind: 'proved', volts: '119' }, /number/],
    ['voltsAfter', { kind: 'proved', voltsAfter: -1 }, /at least 0/],
    ['circuitIds', { kind: 'proved', circuitIds: 'c4' }, /array/],
    ['under5', { kind: 'proved', under5: ['ground'] }, /array/],
    ['offs', { kind: 'proved', offs: { c4: 7 } }, /string/],
    ['ons', { kind: 'proved', ons: { c4: 1.5 } }, /integer|whole|number/],
    ['hazard', { kind: 'cleared', hazard: 3 }, /string/],
    ['note', { kind: 'cleared', note: ['done'] }, /string/],
    ['boxId', { kind: 'stands', state: 'parted' }, /missing/],
    ['state', { kind: 'stands', boxId: 'b', state: 'flying' }, /"in-place", "device-out"/],
    ['position', { kind: 'stands', boxId: 'b', state: 'device-out', position: 'x' }, /number/],
    ['boxId', { kind: 'wired', step: 'tug' }, /missing/],
    ['step', { kind: 'wired', boxId: 'b' }, /missing/],
    ['step', { kind: 'wired', boxId: 'b', step: 7 }, /string/],
    ['note', { kind: 'wired', boxId: 'b', step: 'tug', note: {} }, /string/],
  ])('%s of %j', (field, event, message) => {
    const { ok, problems } = readJobDocument({
      ...exampleJob('pantry'),
      events: [{ id: 'e-new', at, ...event }],
    });
    expect({ ok, paths: problems.map(({ path }) => path.startsWith(`/events/0/${field}`)) }).toEqual({
      ok: false,
      paths: [true],
    });
    expect(problems[0]?.message).toMatch(message);
  });
  test('how a box was left is no kind of another program', () => {
    const job = exampleJob('pantry');
    const event = { id: 'e-new', at, kind: 'stands', boxId: job.boxes[0]?.id ?? '', state: 'parted' };
    const read = readJobDocument({ ...job, events: [event] });
    expect(read.problems).toEqual([]);
    expect(read.ok && nearMisses(read.job)).toEqual([]);
  });
  test.each(['proved', 'cleared', 'paused'])('%s alone is taken', (kind) => {
    expect(readJobDocument({ ...exampleJob('pantry'), events: [{ id: 'e-new', at, kind }] }).ok).toBe(true);
  });
});

test('a terminal the device does not have and an edition out of place are warnings', () => {
  const result = readJobDocument({ ...spoiled('/boxes/0/conductors/3/at/terminal', 'z9'), practice: 'ca' });
  expect(result.ok).toBe(true);
  expect(result.problems.map((problem) => problem.path)).toEqual([
    '/edition',
    '/boxes/0/conductors/3/at/terminal',
  ]);
});

test('unknown fields are kept at every level', () => {
  const document = spoiled('/boxes/0/enclosure/future', { a: [1] });
  const result = readJobDocument({ ...document, future: true });
  expect(result.ok && result.job).toMatchObject({ future: true });
  expect(result.ok && result.job.boxes[0]?.enclosure).toHaveProperty('future', { a: [1] });
});

test('ids are unique across kinds, the job’s own among them', () => {
  const job = exampleJob('pantry');
  const result = readJobDocument({ ...job, id: 'entry' });
  expect(result.ok).toBe(false);
  expect(result.problems).toMatchObject([{ path: '/rooms/0/id' }]);
});
