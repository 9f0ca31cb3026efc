import { expect, test } from '@jest/globals';
import { lookup } from '../job/lookup.js';
import type { Job } from '../job/schema/job.js';
import type { Box } from '../job/schema/survey.js';
import { wideBox } from '../test-support/hidden-box.js';
import { identifyBox } from './identify.js';
import { identificationRestsOn } from './rests-on.js';

const { job, box: wide } = wideBox();
// Few readings weigh as many explanations, and faster.
const box = { ...wide, readings: wide.readings.slice(0, 6) };

function withBox(changed: Box): Job {
  return { ...job, boxes: [changed] };
}

const BESIDE_THE_POINT: [string, Box][] = [
  ['its volume', { ...box, enclosure: { ...box.enclosure, capacity: { from: 'marked', in3: 99 } } }],
  ['its depth', { ...box, enclosure: { ...box.enclosure, depth: 99 } }],
  ['its name', { ...box, name: 'Elsewhere' }],
  ['a note', { ...box, notes: 'paint over the screws' }],
  ['its condition and hazards', { ...box, condition: ['loose'], hazards: ['cloth'] }],
  ['its signal', { ...box, signal: { rssi: -60 } }],
  ['the labels', { ...box, labels: [] }],
];

test.each(BESIDE_THE_POINT)('the roles do not rest on %s, and come out the same without it', (_, changed) => {
  const other = withBox(changed);
  expect(identificationRestsOn(changed, lookup(other))).toEqual(
    identificationRestsOn(box, lookup(withBox(box))),
  );
  expect(identifyBox(changed, lookup(other))).toEqual(identifyBox(box, lookup(withBox(box))));
});

const TO_THE_POINT: [string, Box][] = [
  ['a reading', { ...box, readings: box.readings.slice(1) }],
  [
    'a colour',
    {
      ...box,
      conductors: box.conductors.map((conductor, at) =>
        at === 0 ? { ...conductor, colour: 'blue' } : conductor,
      ),
    },
  ],
  ['its circuits', { ...box, circuitIds: [] }],
  [
    'what a position works',
    { ...box, positions: box.positions.map((position) => ({ ...position, loadIds: [] })) },
  ],
];

test.each(TO_THE_POINT)('the roles rest on %s', (_, changed) => {
  expect(identificationRestsOn(changed, lookup(withBox(changed))).ofBox).not.toEqual(
    identificationRestsOn(box, lookup(withBox(box))).ofBox,
  );
});

test('a list of the job that is another object is another ground to rest on', () => {
  const before = identificationRestsOn(box, lookup(withBox(box))).ofJob;
  const after = identificationRestsOn(box, lookup({ ...withBox(box), events: [...job.events] })).ofJob;
  expect(after.filter((list, at) => list !== before[at])).toHaveLength(1);
});
