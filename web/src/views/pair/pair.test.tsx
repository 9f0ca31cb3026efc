import '@testing-library/jest-dom/jest-globals';
import type { Job } from '@inventario/core';
import { beforeEach, describe, expect, test } from '@jest/globals';
import { screen, waitFor, within } from '@testing-library/react';
import { dialog, pickListed, pickRadio, press, shown, type } from '../../test-support/by-hand.js';
import { exampleJob } from '../../test-support/example-job.js';
import { PairView } from './pair.js';

const SITE = { name: 'The house', clients: 9, clientLimit: 30, bands: ['2.4', '5'], hubs: [] };

/** The job's server with a house behind it, which answers as the test says. */
async function pairing(job: Job, answers: Record<string, object[]> = {}, address = '/pair') {
  const asked: { path: string; body: Record<string, unknown> | null }[] = [];
  const answer = (body: object) =>
    ({
      ok: !('error' in body),
      status: 'error' in body ? 404 : 200,
      headers: { get: () => null },
      json: async () => body,
      text: async () => JSON.stringify(body),
    }) as unknown as Response;
  const house = (path: string, init?: RequestInit) => {
    if (!path.includes('/site')) return null;
    const what = path.split('/site')[1]?.split('/')[1] ?? 'router';
    asked.push({ path, body: init?.body ? JSON.parse(String(init.body)) : null });
    const next = answers[what]?.shift();
    return next ? Promise.resolve(answer(next)) : Promise.reject(new TypeError('network'));
  };
  const scene = await shown(job, <PairView />, address, '/pair', house);
  return { ...scene, asked };
}

const running = {
  id: 'j1',
  state: 'running',
  step: 'keys',
  progress: 0.5,
  seconds: 2,
  reason: null,
  listed: null,
};
const joined = { ...running, state: 'joined', step: 'done', progress: 1, seconds: 9, listed: true };
const failed = {
  ...joined,
  state: 'failed',
  step: 'searching',
  seconds: 30,
  reason: 'no-network',
  listed: false,
};

/** The long room, mounted and powered, with nothing commissioned yet. */
function room(): Job {
  const job = exampleJob('long-room');
  job.pairings = [];
  job.automations = [];
  job.opposites = [];
  job.events = [
    ...job.boxes.map(({ id }) => ({ id: `m-${id}`, kind: 'mounted', boxId: id, at: '2026-05-04T08:00:00Z' })),
    { id: 'on', kind: 'switched', circuitId: 'd1', state: 'on', at: '2026-05-04T08:05:00Z' },
  ];
  return job;
}

const attempts = (job: Job) => job.pairings.flatMap((pairing) => pairing.attempts ?? []);
const marks = (job: Job) => job.pairings.flatMap((pairing) => pairing.marks ?? []);

beforeEach(() => localStorage.removeItem('pairing'));

describe('by hand', () => {
  test('nothing chosen: the way to the board', async () => {
    const job = room();
    job.selections = [];
    await pairing(job);
    expect(screen.getByText('Nothing to pair yet')).toBeInTheDocument();
    expect(screen.getByRole('link', { name: 'To the board' })).toHaveAttribute('href', `/jobs/${job.id}`);
  });

  test('a room without any network: seen, joined, updated, named, found, tried', async () => {
    const { job: now } = await pairing(room(), {}, '/pair?at=gate/1');
    const hand = screen.getByRole('region', { name: 'In the hand' });
    expect(within(hand).getByRole('heading')).toHaveTextContent('Porch, inner wall');
    expect(within(hand).getByText(/Wants/).closest('li')).toHaveTextContent('2.4 GHz');
    // Is its light the right one? Then it is tried.
    for (let turn = 0; turn < 6 && screen.queryByText('Join it') === null; turn += 1) {
      const [good] = screen.getAllByRole('button').filter((button) => button.className.includes('bg-strong'));
      good?.click();
      await waitFor(() => expect(marks(now()).length).toBe(turn + 1));
    }
    press('It joined');
    await screen.findByText('Update it');
    press('It is up to date');
    await screen.findByRole('textbox', { name: /^Name/ });
    type(/^Name/, 'Porch');
    expect(await screen.findByText(/It is the name of the room/)).toBeInTheDocument();
    press(/^Rather/);
    press('Name it so');
    await screen.findByText('Is it in Orrery?');
    press(/^Found, in/);
    for (const words of ['Try it from the wall', 'Try it in the app', 'Try it by voice, Orrery']) {
      await screen.findByText(words);
      press('It works');
    }
    expect(await screen.findByText('Done: it works in every way')).toBeInTheDocument();
    expect(attempts(now())).toMatchObject([{ outcome: 'joined', by: 'hand', band: '2.4', rssi: -64 }]);
    expect(now().pairings[0]?.tried?.map(({ path }) => path)).toEqual(['wall', 'app', 'voice']);
  });

  test('one that fails: what the app said, what the light showed; then the next thing, and the reason it is parked for', async () => {
    const { job: now } = await pairing(room(), {}, '/pair?at=gate/1');
    press('It did not');
    const sheet = await dialog();
    type(/light showed/, 'red, quick', sheet);
    pickRadio(/list of clients/, 'no', sheet);
    press('belongs to somebody else', sheet);
    await waitFor(() =>
      expect(attempts(now())).toMatchObject([
        { outcome: 'failed', reason: 'owned', light: 'red, quick', listed: false },
      ]),
    );
    expect(await screen.findByText('Have it let go')).toBeInTheDocument();
    press('Cannot here');
    await screen.findByText('Park it: registered elsewhere');
    press('Park it, and go on');
    expect(await screen.findByText('Parked: registered elsewhere')).toBeInTheDocument();
    expect(marks(now()).map(({ what, reason }) => [what, reason])).toEqual([
      ['cannot', 'release'],
      ['parked', 'registered-elsewhere'],
    ]);
    expect(screen.getByRole('list', { name: 'Its story' })).toHaveTextContent(
      'The app: belongs to somebody else.',
    );
    press('Take it up again');
    await waitFor(() => expect(marks(now())).toHaveLength(3));
  });

  test('the device in the hand stays there when it has joined', async () => {
    const { job: now } = await pairing(room());
    expect(screen.getByRole('heading', { level: 2, name: 'Long room, door' })).toBeInTheDocument();
    press('It joined');
    await waitFor(() => expect(attempts(now())).toHaveLength(1));
    expect(screen.getByRole('heading', { level: 2, name: 'Long room, door' })).toBeInTheDocument();
  });

  test('the next device is one touch away, and its light is drawn', async () => {
    const job = room();
    for (const device of job.catalogue.devices)
      device.pairing = { press: 'Hold the key', light: { colours: ['amber', 'green'], rhythm: 'slow' } };
    await pairing(job, {}, '/pair?at=door/1');
    expect(screen.getByRole('img', { name: 'The light: amber and green, slow' })).toBeInTheDocument();
    press('Next: Snug, chimney side');
    const hand = await screen.findByRole('heading', { name: 'Snug, chimney side', level: 2 });
    expect(hand).toBeInTheDocument();
  });

  test('what is found otherwise than the record says is corrected for the model, as of today', async () => {
    const { job: now } = await pairing(room(), {}, '/pair?at=gate/1');
    press('Correct the steps of Plain key');
    const sheet = await dialog();
    type('What to press', 'Both keys at once', sheet);
    await pickListed(/^Rhythm/, 'quick', sheet);
    press('Keep for this model', sheet);
    await waitFor(() =>
      expect(now().catalogue.devices.find(({ id }) => id === 'wr-plain')?.pairing).toMatchObject({
        press: 'Both keys at once',
        light: { colours: ['white'], rhythm: 'quick' },
        asOf: expect.stringMatching(/^\d{4}-/),
      }),
    );
  });

  test('while the router’s circuit is off, Wi-Fi devices wait', async () => {
    const job = room();
    job.brief = { ...job.brief, wifi: { routerCircuit: 'd1' } };
    job.events = [
      ...job.events,
      { id: 'off', kind: 'switched', circuitId: 'd1', state: 'off', at: '2026-05-04T09:00:00Z' },
    ];
    await pairing(job);
    expect(screen.getByText(/router’s circuit, breaker 5, is off/)).toBeInTheDocument();
    expect(screen.getByText('Give it power')).toBeInTheDocument();
    expect(screen.getAllByText('waits for the router')).toHaveLength(3);
  });

  test('hubs come first, one step after the other', async () => {
    const job = room();
    job.catalogue.hubs = [
      {
        id: 'hub',
        name: 'Cairn',
        price: 0,
        radio: 'mesh',
        platforms: ['Orrery'],
        deviceLimit: 9,
        wired: true,
      },
    ];
    for (const device of job.catalogue.devices) Object.assign(device, { radio: 'mesh', hubId: 'hub' });
    const { job: now } = await pairing(job);
    expect(screen.getByText('First its hub: Cairn')).toBeInTheDocument();
    for (const step of ['placed', 'online', 'updated']) {
      press(`It is ${step}`);
      await waitFor(() => expect(now().hubs[0]).toHaveProperty(step));
    }
    press('Linked to Orrery');
    await waitFor(() =>
      expect(now().hubs[0]?.links).toMatchObject([{ platform: 'Orrery', outcome: 'linked' }]),
    );
    expect(screen.queryByRole('region', { name: 'Hubs first' })).toBeNull();
  });
});

describe('after it has joined', () => {
  /** The porch key, in its network and named. */
  function inside(): Job {
    const job = room();
    job.pairings = [
      {
        id: 'p5',
        boxId: 'gate',
        position: 1,
        deviceId: 'wr-plain',
        channel: 1,
        name: 'Gate lamp',
        attempts: [{ id: 'a1', at: '2026-05-04T09:00:00Z', outcome: 'joined' }],
      },
    ];
    return job;
  }

  test('an update that is stuck has something to try, and is told when it is done', async () => {
    const { job: now } = await pairing(inside(), {}, '/pair?at=gate/1');
    press('It is stuck');
    expect(await screen.findByText('Its update is stuck')).toBeInTheDocument();
    expect(screen.getByText(/Take its power away at the cut-out/)).toBeInTheDocument();
    press('It is stuck');
    expect(await screen.findByText(/Bring the signal nearer/)).toBeInTheDocument();
    press('It is stuck');
    expect(await screen.findByText(/Leave it on power overnight/)).toBeInTheDocument();
    press('It is up to date');
    await waitFor(() => expect(marks(now()).at(-1)?.what).toBe('updated'));
    press('Missing');
    await waitFor(() =>
      expect(now().pairings[0]?.reached).toMatchObject([{ platform: 'Orrery', outcome: 'missing' }]),
    );
    expect(screen.getByText('Is it in Orrery?')).toBeInTheDocument();
  });

  test('a maker whose cloud is asked for has its account first, linked once for all its devices', async () => {
    const job = inside();
    for (const device of job.catalogue.devices) device.control = 'both';
    const { job: now } = await pairing(job, {}, '/pair?at=gate/1');
    press('It is up to date');
    expect(await screen.findByText('First the account of Wrenlock')).toBeInTheDocument();
    press('It is the client’s');
    await waitFor(() => expect(now().accounts).toMatchObject([{ maker: 'Wrenlock', holder: 'client' }]));
    press('Linked to Orrery');
    expect(await screen.findByText('Is it in Orrery?')).toBeInTheDocument();
    expect(now().accounts[0]?.links).toMatchObject([{ platform: 'Orrery', outcome: 'linked' }]);
  });

  test('set back to new it joins anew, and what was before stays on record', async () => {
    const { job: now } = await pairing(inside(), {}, '/pair?at=gate/1');
    press('Set back to new');
    await screen.findByRole('button', { name: 'Park it' });
    expect(screen.queryByRole('button', { name: 'Set back to new' })).toBeNull();
    press('It joined');
    await waitFor(() => expect(attempts(now())).toHaveLength(2));
    expect(screen.getByRole('list', { name: 'Its story' })).toHaveTextContent('Set back to new.');
  });
});

describe('over the house', () => {
  const overSite = async (job: Job, answers: Record<string, object[]>) => {
    localStorage.setItem('pairing', 'site');
    const scene = await pairing(job, { router: [SITE, SITE, SITE], ...answers }, '/pair?at=gate/1');
    return scene;
  };
  /** Looks are answered by eye until the try itself is next. */
  async function upToTheTry(now: () => Job) {
    for (let turn = 0; turn < 6 && screen.queryByRole('button', { name: 'Join it' }) === null; turn += 1) {
      const before = marks(now()).length;
      const [good] = screen.getAllByRole('button').filter((button) => button.className.includes('bg-strong'));
      good?.click();
      await waitFor(() => expect(marks(now()).length).toBe(before + 1));
    }
  }

  test('a try shows how far it is, and keeps what came of it with the second witness', async () => {
    const { job: now, asked } = await overSite(room(), { joins: [running, failed] });
    await upToTheTry(now);
    press('Join it');
    expect(await screen.findByText('exchanging keys')).toBeInTheDocument();
    await waitFor(() =>
      expect(attempts(now())).toMatchObject([
        { outcome: 'failed', reason: 'no-network', listed: false, seconds: 30, by: 'site' },
      ]),
    );
    expect(asked.find(({ path }) => path.endsWith('/joins'))?.body).toMatchObject({
      place: 'gate/1',
      hubId: null,
      powered: true,
      channels: [{ id: 1, watts: 8, dims: false }],
    });
  });

  test('it joins, is updated, found and spoken to over the house', async () => {
    const { job: now } = await overSite(room(), {
      joins: [joined],
      updates: [
        { outcome: 'stuck', version: '1.0' },
        { outcome: 'done', version: '1.1' },
      ],
      finds: [{ routes: ['direct', 'maker'], room: 'Porch' }],
      commands: [{ ms: 80 }],
      sayings: [{ answers: [{ place: 'gate/1', channel: 1 }], ms: 640 }],
    });
    await upToTheTry(now);
    press('Join it');
    await screen.findByText('Update it', { selector: 'strong' });
    press('Update it');
    await screen.findByText('Its update is stuck');
    press('Update it');
    await screen.findByRole('textbox', { name: /^Name/ });
    press('Name it so');
    await screen.findByText('Is it in Orrery?');
    press('Look in Orrery');
    await screen.findByText('Orrery has it twice');
    press('Taken out: directly');
    await screen.findByText('Try it from the wall');
    press('It works');
    await screen.findByText('Try it in the app');
    press('Switch it on');
    await screen.findByText('Try it by voice, Orrery');
    press('Say it to Orrery');
    expect(await screen.findByText('Done: it works in every way')).toBeInTheDocument();
    expect(now().pairings[0]?.tried).toMatchObject([
      { path: 'wall', ok: true },
      { path: 'app', ok: true, ms: 80 },
      { path: 'voice', platform: 'Orrery', ok: true, ms: 640 },
    ]);
  });

  test('a house that is not reached is said, and nothing is lost', async () => {
    const { job: now } = await overSite(room(), {});
    await upToTheTry(now);
    press('Join it');
    await waitFor(() =>
      expect(attempts(now())).toMatchObject([{ outcome: 'failed', reason: 'unreachable' }]),
    );
    expect(await screen.findByText(/The house did not answer/)).toBeInTheDocument();
  });

  test('a device that was joined by hand is none that the house knows', async () => {
    const job = room();
    const place = { boxId: 'gate', position: 1, channel: 1, deviceId: 'wr-plain' };
    job.pairings = [
      {
        ...place,
        id: 'p1',
        state: 'joined',
        attempts: [{ id: 'a1', at: '2026-05-04T09:00:00Z', outcome: 'joined', by: 'hand' }],
      },
    ];
    await overSite(job, { updates: [{ error: { code: 'not-joined', message: 'No device' } }] });
    press('Update it');
    expect(await screen.findByText(/it was joined by hand, or elsewhere/)).toBeInTheDocument();
    expect(screen.getByText('Update it', { selector: 'strong' })).toBeInTheDocument();
  });
});
