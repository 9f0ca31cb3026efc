import { expect, test } from '@jest/globals';
import type { JobEvent } from '../job/schema/job.js';
import type { Reading } from '../job/schema/survey.js';
import { causeEvent, symptomsTold, testedEvent, testedReadings, triedEvent } from './told.js';

const place = { boxId: 'bench', position: 1 };
const at = (minute: number) => ({
  id: `e${minute}`,
  at: new Date(Date.UTC(2026, 4, 4, 9, minute)).toISOString(),
});
const reading = {
  id: 'r1',
  tool: 'lamp',
  arrangement: 'device-out',
  points: ['l1'],
  value: 'lit',
} as Reading;

test('what was last told counts, of this place, and nothing once it works', () => {
  const events: JobEvent[] = [triedEvent(place, { load: 'off', indicator: 'on' }, at(1))];
  expect(symptomsTold({ events }, place)).toEqual({ load: 'off', indicator: 'on' });
  expect(symptomsTold({ events }, { ...place, position: 2 })).toEqual({});
  const works = [...events, triedEvent(place, null, at(2))];
  expect(symptomsTold({ events: works }, place)).toEqual({});
  const struck = [...works, { id: 'k', kind: 'correction', of: 'e2' }];
  expect(symptomsTold({ events: struck }, place)).toEqual({ load: 'off', indicator: 'on' });
  const odd = [
    { ...at(3), kind: 'tried', ...place, result: 'fails', symptoms: { load: 'green', mood: 'bad' } },
  ];
  expect(symptomsTold({ events: odd as JobEvent[] }, place)).toEqual({});
});

test('readings count until the cause is found', () => {
  const events: JobEvent[] = [testedEvent(place, reading, at(1))];
  expect(testedReadings({ events }, place)).toEqual([reading]);
  expect(testedReadings({ events }, { ...place, position: 2 })).toEqual([]);
  const found = [...events, causeEvent(place, 'load-loose', at(2))];
  expect(testedReadings({ events: found }, place)).toEqual([]);
  expect(testedReadings({ events: [...found, testedEvent(place, reading, at(3))] }, place)).toHaveLength(1);
});
