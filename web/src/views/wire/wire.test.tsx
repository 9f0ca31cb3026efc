import '@testing-library/jest-dom/jest-globals';
import type { Job, JobEvent } from '@inventario/core';
import { afterEach, beforeEach, describe, expect, jest, test } from '@jest/globals';
import { screen, waitFor, within } from '@testing-library/react';
import { pickRadio, press, shown, type } from '../../test-support/by-hand.js';
import { exampleJob } from '../../test-support/example-job.js';
import { HouseWiringView } from './house-wiring.js';
import { WireView } from './wire.js';

const now = () => new Date().toISOString();

/** The pantry, its breaker off and the box proved, or nothing of that. */
function pantry(proved: boolean): Job {
  const job = { ...exampleJob('pantry'), events: [] as JobEvent[] };
  if (!proved) return job;
  const off = { id: 'off-1', kind: 'switched', circuitId: 'c4', state: 'off', at: now() };
  const proof = {
    id: 'proof-1',
    kind: 'proved',
    boxId: 'pantry',
    stage: 'device-out',
    circuitIds: ['c4'],
    volts: 120,
    voltsAfter: 120,
    offs: { c4: 'off-1' },
    ons: { c4: 0 },
    at: now(),
  };
  return { ...job, events: [off, proof] };
}

const wire = (job: Job, boxId = 'pantry') =>
  shown(job, <WireView />, `/box/${boxId}/wire`, '/box/:boxId/wire');

/** The step in hand, by what it is called. */
const step = (title: string | RegExp) =>
  waitFor(() =>
    expect(screen.getByText(/^Step \d+ of/).parentElement?.querySelector('strong')).toHaveTextContent(title),
  );

beforeEach(() => {
  Element.prototype.scrollIntoView = jest.fn();
});
afterEach(() => {
  jest.restoreAllMocks();
});

describe('a box to wire', () => {
  test('no step can be done before the box is proved, and it says so', async () => {
    await wire(pantry(false));
    expect(await screen.findByText('Ready: proved in every state')).toBeInTheDocument();
    await step('Prove it dead');
    press('After');
    expect(screen.getByText('Not yet: this is done dead, and proved.')).toBeInTheDocument();
    expect(screen.queryByRole('button', { name: 'Done' })).toBeNull();
  });

  test('steps are recorded as they are done, taken back by a correction, and noted', async () => {
    const scene = await wire(pantry(true));
    await step('Photograph it as found');
    press('Done');
    await step(/^Flags on/);
    expect(scene.job().events.at(-1)).toMatchObject({ kind: 'wired', boxId: 'pantry', step: 'photograph' });
    press('Before');
    press('It is not done');
    expect(scene.job().events.at(-1)).toMatchObject({ kind: 'correction' });
    press('Done, with a note');
    const dialog = await screen.findByRole('dialog');
    type('Note', 'flash needed', dialog);
    press('Done, and noted');
    await waitFor(() =>
      expect(scene.job().events.at(-1)).toMatchObject({ step: 'photograph', note: 'flash needed' }),
    );
  });

  test('the last step closes the box', async () => {
    const scene = await wire(pantry(true));
    await step('Photograph it as found');
    for (let turn = 0; turn < 60; turn++) {
      const done = screen.queryByRole('button', { name: /^Done(:|$)/ });
      if (!done) break;
      press(/^Done(:|$)/);
    }
    // The test wants its breaker on, and what comes after it a proof of its own.
    await step('Off, and proved dead again');
    expect(scene.job().events.some(({ kind }) => kind === 'mounted')).toBe(false);
  });

  test('the way back puts every wire where it was, and the card says where each lead goes', async () => {
    await wire(pantry(true));
    await step('Photograph it as found');
    press(/terminals/);
    expect(screen.getByRole('table')).toHaveTextContent(/LINE.*lead.*joint \d+, line/);
    press(/Read it as a list/);
    expect(screen.getAllByText(/^Joint \d+, neutral: /)).not.toHaveLength(0);
    pickRadio('Way', 'As found');
    expect(await screen.findAllByText('Back as it was found')).not.toHaveLength(0);
    press(/All steps/);
    expect(screen.getAllByText(/Take the new device out/)).not.toHaveLength(0);
  });

  test('what is not ready has its reason and the way to change it', async () => {
    await wire(exampleJob('sail-loft'), 'door');
    expect(await screen.findAllByText('Not ready')).not.toHaveLength(0);
    const [list] = screen.getAllByRole('list', { name: 'What is found' });
    expect(list).toHaveTextContent('is not identified');
    expect(within(list as HTMLElement).getByRole('link', { name: 'Test it' })).toHaveAttribute(
      'href',
      expect.stringContaining('/box/door?test=1'),
    );
    expect(screen.queryByText(/^Step/)).toBeNull();
  });

  test('a box that nothing is chosen for says so', async () => {
    await wire({ ...exampleJob('pantry'), selections: [] });
    expect(await screen.findAllByText('Nothing is chosen for this box')).not.toHaveLength(0);
  });
});

describe('the house', () => {
  test('has each plan with its state, and what is missing', async () => {
    await shown(exampleJob('sail-loft'), <HouseWiringView />, '/wiring', '/wiring');
    expect(await screen.findAllByText(/^4 of 5 plans ready/)).not.toHaveLength(0);
    expect(screen.getAllByRole('link', { name: /door.*Not ready/i })).toHaveLength(1);
  });

  test('without a choice there is a way to the plans', async () => {
    await shown({ ...exampleJob('pantry'), selections: [] }, <HouseWiringView />, '/wiring', '/wiring');
    expect(await screen.findByText('Nothing is chosen yet')).toBeInTheDocument();
  });
});
