import '@testing-library/jest-dom/jest-globals';
import type { Job } from '@inventario/core';
import { expect, test } from '@jest/globals';
import { fireEvent, screen, within } from '@testing-library/react';
import { press, shown } from '../test-support/by-hand.js';
import { exampleJob } from '../test-support/example-job.js';
import { PowerBar } from './power-bar.js';

/** The box's own breaker is off, one other is on, one is off, and of one nobody said. */
function panel(): Job {
  const job = exampleJob('pantry');
  const [own] = job.circuits;
  if (!own) throw new Error('the pantry has a circuit');
  const others = ['21', '22', '23'].map((breaker) => ({ ...own, id: `c${breaker}`, breaker, label: 'Yard' }));
  const at = new Date().toISOString();
  const switched = (circuitId: string, state: 'on' | 'off') => ({
    id: `e-${circuitId}`,
    kind: 'switched',
    circuitId,
    state,
    at,
  });
  return {
    ...job,
    circuits: [...others, own],
    events: [
      switched(own.id, 'off'),
      switched('c21', 'on'),
      switched('c22', 'off'),
    ] as unknown as Job['events'],
  };
}

test('what feeds this box, what is on, and the rest counted in words, opened at a touch', async () => {
  const job = panel();
  const own = job.circuits.at(-1);
  const { job: now } = await shown(job, <PowerBar boxId={job.boxes[0]?.id} />);
  const bar = screen.getByRole('region', { name: 'Power' });
  const names = () =>
    within(bar)
      .getAllByRole('button')
      .map((button) => button.textContent ?? '');
  expect(names()).toHaveLength(3);
  expect(names()[0]).toContain(`${own?.breaker} `);
  expect(names()[0]).toContain('feeds this box');
  expect(names()[1]).toContain('21 Yard: on');
  expect(names()[2]).toBe('1 off, 1 not known');
  press('1 off, 1 not known', bar);
  expect(names().slice(2)).toEqual([
    expect.stringContaining('22 Yard: off'),
    expect.stringContaining('23 Yard: not known'),
    'fewer',
  ]);
  fireEvent.click(within(bar).getByRole('button', { name: /^23 Yard/ }));
  fireEvent.click(await screen.findByRole('button', { name: 'Switched off' }));
  expect(now().events.at(-1)).toMatchObject({ kind: 'switched', circuitId: 'c23', state: 'off' });
});
