import { expect, test } from '@jest/globals';
import { reduce } from '../job/edit/reduce.js';
import { newJob } from '../job/new-job.js';
import { EXAMPLES, exampleJob } from '../test-support/examples.js';
import { catalogueDocument, namedStill, readCatalogue, takeIn } from './document.js';
import { CATALOGUE_LISTS } from './kinds.js';
import { catalogueRows, recordsFromRows } from './rows.js';

const empty = () =>
  newJob('job', 'Job', 'gb', undefined, {
    devices: [],
    hubs: [],
    parts: [],
    connectors: [],
    enclosures: [],
    platforms: [],
  });

test.each(EXAMPLES)(
  'the catalogue of %s goes out and into another job unchanged, as JSON and list by list as rows',
  (name) => {
    const { catalogue } = exampleJob(name);
    const job = empty();
    const taken = readCatalogue(JSON.stringify(catalogueDocument(catalogue)), job);
    if (!taken.ok) throw new Error(JSON.stringify(taken.problems));
    const result = reduce(job, { parts: taken.parts });
    if (!result.ok) throw new Error(result.refusal.code);
    for (const list of CATALOGUE_LISTS) {
      for (const record of catalogue[list]) expect(result.job.catalogue[list]).toContainEqual(record);
      // A table of text, as a spreadsheet gives it back.
      const rows = catalogueRows(catalogue[list]).map((row) =>
        Object.fromEntries(Object.entries(row).map(([key, cell]) => [key, String(cell)])),
      );
      expect(recordsFromRows(list, rows)).toEqual(JSON.parse(JSON.stringify(catalogue[list])));
    }
  },
);

test('a known id is replaced, and counted as such', () => {
  const job = exampleJob('pantry');
  const [device] = job.catalogue.devices;
  expect(takeIn({ devices: [{ ...device, price: 1 }] }, job)).toMatchObject({
    ok: true,
    added: 0,
    replaced: 1,
  });
});

test.each<[string, string, RegExp]>([
  ['not JSON', '{', /^ is not JSON/],
  ['another format', '{"format": "x"}', /^\/format must be/],
  ['another version', '{"format": "inventario/catalogue", "version": 9}', /^\/version is 9/],
  ['no catalogue', '{"format": "inventario/catalogue", "version": 1}', /^\/catalogue is missing/],
  [
    'a wrong field',
    '{"format": "inventario/catalogue", "version": 1, "catalogue": {"hubs": [{"id": "h"}]}}',
    /^\/catalogue\/hubs\/0\/name is missing/,
  ],
])('%s is refused, with the field', (_, text, says) => {
  const taken = readCatalogue(text, empty());
  expect(taken.ok).toBe(false);
  if (!taken.ok) expect(`${taken.problems[0]?.path} ${taken.problems[0]?.message}`).toMatch(says);
});

test('a reference to nothing is refused, with the field', () => {
  const job = exampleJob('pantry');
  const taken = takeIn({ devices: [{ ...job.catalogue.devices[0], id: 'new', hubId: 'nowhere' }] }, job);
  expect(taken).toMatchObject({ ok: false, problems: [{ path: '/catalogue/devices/1/hubId' }] });
});

test('a cell that is no number of a number’s column is named, not taken for nothing', () => {
  const job = exampleJob('pantry');
  const [hub] = recordsFromRows('hubs', [
    { id: 'h', name: 'H', price: 'cheap', radio: 'mesh', platforms: '', deviceLimit: '5', wired: 'TRUE' },
  ]);
  expect(hub).toMatchObject({ deviceLimit: 5, wired: true });
  expect(takeIn({ hubs: [hub as object] }, job)).toMatchObject({ ok: false });
});

test('a record that something names is not to be taken out; what names it is told', () => {
  const job = exampleJob('shed');
  expect(namedStill(job, 'devices', 'pw-15').map((problem) => problem.path)).toEqual([
    '/selections/0/deviceId',
  ]);
  expect(namedStill(job, 'hubs', 'ha-hub').map((problem) => problem.path)).toContain('/brief/hubsOwned/0');
  expect(namedStill(job, 'connectors', 'lv-2')).toEqual([]);
  job.brief = { ...job.brief, pins: [{ boxId: 'shed', position: 1, deviceId: 'ha-1000' }] };
  job.selections = [];
  expect(namedStill(job, 'devices', 'ha-1000').map((problem) => problem.path)).toEqual([
    '/brief/pins/0/deviceId',
  ]);
});
