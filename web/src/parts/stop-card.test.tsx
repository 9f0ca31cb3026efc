import '@testing-library/jest-dom/jest-globals';
import { type Box, type Job, newBox, presetContents } from '@inventario/core';
import { expect, test } from '@jest/globals';
import { screen, waitFor, within } from '@testing-library/react';
import { useJob } from '../data/job-context.js';
import { press, shown, type } from '../test-support/by-hand.js';
import { exampleJob } from '../test-support/example-job.js';
import { StopCard } from './stop-card.js';

/** A box whose own breaker, 1, is off and in which a wire shows alert all the same; 2 and 3 are on. */
function liveWhileOff(): Job {
  const job = exampleJob('pantry');
  const [circuit] = job.circuits;
  if (!circuit) throw new Error('the pantry has a circuit');
  job.circuits = ['1', '2', '3'].map((breaker) => ({
    ...circuit,
    id: `k${breaker}`,
    breaker,
    label: breaker,
    amps: 15,
  }));
  let serial = 0;
  const box: Box = {
    ...newBox({ id: 'b', roomId: job.rooms[0]?.id ?? '', name: 'Door', order: 1 }, 'us'),
    ...presetContents({ preset: 'power-at-switch', practice: 'us', size: '14AWG' }, () => `c${++serial}`),
    circuitIds: ['k1'],
  };
  const at = new Date(Date.now() - 60_000).toISOString();
  box.readings = [
    {
      id: 'r1',
      at,
      tool: 'indicator',
      method: 'non-contact',
      arrangement: 'in-place',
      breakers: { k1: 'off' },
      points: [String(box.conductors[0]?.id)],
      value: 'alert',
    } as Box['readings'][number],
  ];
  job.events = ['1', '2', '3'].map((breaker) => ({
    id: `e${breaker}`,
    kind: 'switched',
    circuitId: `k${breaker}`,
    state: breaker === '1' ? 'off' : 'on',
    at: new Date(Date.now() - 120_000).toISOString(),
  })) as Job['events'];
  return { ...job, boxes: [box], selections: [], groups: [], runs: [], pairings: [] };
}

function Card() {
  const { known } = useJob();
  return <StopCard box={known.boxes.get('b') as Box} />;
}

test('one breaker more off, look again: the one that it was belongs to the box', async () => {
  const { job: now } = await shown(liveWhileOff(), <Card />);
  const stop = screen.getByRole('alert', { name: 'Stop' });
  expect(stop).toHaveTextContent('Which breaker feeds it?');
  press('2 is off now', stop);
  expect(now().events.at(-1)).toMatchObject({ kind: 'switched', circuitId: 'k2', state: 'off' });
  press('Still live', stop);
  expect(await screen.findByText('Not breaker 2: leave it off and try the next.')).toBeInTheDocument();
  press('3 is off now');
  press('No longer live');
  expect(await screen.findByText('Breaker 3 feeds it.')).toBeInTheDocument();
  const found = await screen.findByRole('region', { name: 'Breaker found' });
  expect(found).toHaveTextContent('Breaker 3 feeds this box too.');
  press('Add breaker 3 to the box', found);
  await waitFor(() => expect(now().boxes[0]?.circuitIds).toEqual(['k1', 'k3']));
  expect(now().events.at(-1)).toMatchObject({ kind: 'traced', circuitId: 'k3' });
});

test('another breaker can be tried before the look is made', async () => {
  await shown(liveWhileOff(), <Card />);
  press('2 is off now');
  press('Another breaker');
  expect(screen.getByRole('button', { name: /3 is off now/ })).toBeInTheDocument();
});

test('that it was put right is the word of somebody, with how', async () => {
  const { job: now } = await shown(liveWhileOff(), <Card />);
  press('It has been put right');
  const record = screen.getByRole('button', { name: 'Record' });
  expect(record).toBeDisabled();
  type('Who put it right, and how', 'Ada parted the joint');
  press('Record');
  expect(now().events.at(-1)).toMatchObject({ kind: 'cleared', boxId: 'b', note: 'Ada parted the joint' });
  await waitFor(() => expect(screen.queryByRole('alert', { name: 'Stop' })).toBeNull());
  expect(within(document.body).getByText(/has to be proved dead again/)).toBeInTheDocument();
});
