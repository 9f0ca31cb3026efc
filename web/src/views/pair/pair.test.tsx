import '@testing-library/jest-dom/jest-globals';
import type { Job } from '@inventario/core';
import { describe, expect, test } from '@jest/globals';
import { screen, waitFor, within } from '@testing-library/react';
import { pickRadio, press, shown } from '../../test-support/by-hand.js';
import { exampleJob } from '../../test-support/example-job.js';
import { PairView } from './pair.js';

interface Site {
  clients: number;
  clientLimit: number;
  bands: string[];
}

/** The job's server with a house behind it: a router, and joins that go as the test says. */
async function pairing(job: Job, answers: readonly object[] = [], site: Site | null = null) {
  const asked: { path: string; body: Record<string, unknown> | null }[] = [];
  const left = [...answers];
  const answer = (status: number, body: unknown) =>
    ({
      ok: status < 300,
      status,
      headers: { get: () => null },
      json: async () => body,
    }) as unknown as Response;
  const house = (path: string, init?: RequestInit) => {
    if (!path.includes('/site')) return null;
    asked.push({ path, body: init?.body ? JSON.parse(String(init.body)) : null });
    const next = path.includes('join') ? left.shift() : site;
    return next ? Promise.resolve(answer(200, next)) : Promise.reject(new TypeError('network'));
  };
  const scene = await shown(job, <PairView />, '/pair', '/pair', house);
  return { ...scene, asked };
}

const running = { id: 'j1', state: 'running', step: 'keys', progress: 0.5, seconds: 2, reason: null };
const joined = { id: 'j1', state: 'joined', step: 'done', progress: 1, seconds: 9, reason: null };
const failed = { ...joined, state: 'failed', step: 'searching', seconds: 30, reason: 'wrong-band' };

/** The shed, with both its breakers on record as on. */
function shed(): Job {
  const job = exampleJob('shed');
  job.pairings = [];
  return job;
}

describe('pairing', () => {
  test('nothing chosen: the way to the board', async () => {
    const job = shed();
    job.selections = [];
    await pairing(job);
    expect(screen.getByText('Nothing to pair yet')).toBeInTheDocument();
    expect(screen.getByRole('link', { name: 'To the board' })).toHaveAttribute('href', `/jobs/${job.id}`);
  });

  test('a device that joins is in, with what it took', async () => {
    const { job: now, asked } = await pairing(shed(), [running, joined]);
    const room = screen.getAllByRole('list')[0] as HTMLElement;
    const [task] = within(room).getAllByRole('button', { expanded: false });
    if (!task) throw new Error('a channel waits');
    expect(task).toHaveTextContent('not tried');
    task.click();
    await screen.findByRole('button', { name: 'Try to join' });
    pickRadio('The phone is on', '5 GHz');
    press('Try to join');
    expect(await screen.findByText('exchanging keys')).toBeInTheDocument();
    expect(screen.getByRole('button', { name: 'Joining …' })).toBeDisabled();
    await waitFor(() => expect(now().pairings).toHaveLength(1));
    expect(now().pairings[0]?.attempts).toMatchObject([{ outcome: 'joined', seconds: 9, band: '5' }]);
    const attempts = await screen.findByRole('list', { name: 'Attempts' });
    expect(attempts).toHaveTextContent('joined after 9 s, phone on 5 GHz');
    expect(asked.find(({ body }) => body)?.body).toMatchObject({ phoneBand: '5' });
    await waitFor(() => expect(screen.getByRole('button', { name: 'Join it again' })).toBeEnabled());
  });

  test('one that fails says why, and every try is kept', async () => {
    const { job: now } = await pairing(shed(), [failed, joined]);
    screen.getAllByRole('button', { expanded: false })[0]?.click();
    press(
      await screen
        .findByRole('button', { name: 'Try to join' })
        .then(({ textContent }) => String(textContent)),
    );
    await waitFor(() => expect(now().pairings[0]?.attempts).toHaveLength(1));
    expect(now().pairings[0]?.attempts?.[0]).toMatchObject({ outcome: 'failed', reason: 'wrong-band' });
    expect(await screen.findByText('failed')).toBeInTheDocument();
    await waitFor(() => expect(screen.getByRole('button', { name: 'Try again' })).toBeEnabled());
    press('Try again');
    await waitFor(() =>
      expect(now().pairings[0]?.attempts?.map(({ outcome }) => outcome)).toEqual(['failed', 'joined']),
    );
    expect(now().pairings).toHaveLength(1);
  });

  test('a house that is not reached is a try that failed, not a lost one', async () => {
    const { job: now } = await pairing(shed(), []);
    screen.getAllByRole('button', { expanded: false })[0]?.click();
    await screen.findByRole('button', { name: 'Try to join' });
    press('Try to join');
    await waitFor(() =>
      expect(now().pairings[0]?.attempts).toMatchObject([{ outcome: 'failed', reason: 'unreachable' }]),
    );
  });

  test('a breaker off is no power for the device: it is said before anybody tries', async () => {
    const job = shed();
    const [circuit] = job.circuits;
    if (!circuit) throw new Error('the shed has a circuit');
    job.events = [
      {
        id: 'off',
        kind: 'switched',
        circuitId: circuit.id,
        state: 'off',
        at: '2026-03-01T10:00:00Z',
      } as Job['events'][number],
    ];
    const { asked } = await pairing(job, [failed]);
    screen.getAllByRole('button', { expanded: false })[0]?.click();
    expect(await screen.findByText(/recorded off: the device has no power/)).toBeInTheDocument();
    press('Try to join');
    await waitFor(() => expect(asked.find(({ body }) => body)?.body).toMatchObject({ powered: false }));
  });
});

describe('the site', () => {
  test('a router with no room for what is still to join says so', async () => {
    const job = shed();
    for (const device of job.catalogue.devices) device.radio = 'wifi';
    await pairing(job, [], { clients: 30, clientLimit: 30, bands: ['2.4', '5'] });
    expect(await screen.findByText(/30 of 30 clients, bands 2.4 and 5 GHz/)).toBeInTheDocument();
    expect(screen.getByText(/more than it takes/)).toBeInTheDocument();
  });

  test('one that does not answer keeps nobody from recording', async () => {
    await pairing(shed());
    expect(await screen.findByText(/The site does not answer/)).toBeInTheDocument();
  });
});
