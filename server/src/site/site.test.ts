import type { ChannelState, JoinRequest } from '@inventario/core';
import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { type TestApp, testApp } from '../test-support/test-app.js';

let server: TestApp;
beforeAll(async () => {
  server = await testApp();
});
afterAll(() => server.close());

const post = (url: string, payload: object) => server.app.inject({ method: 'POST', url, payload });
const states = async () =>
  (await server.app.inject('/api/site/states')).json() as { connected: boolean; states: ChannelState[] };

/** Asks until it is so; the limit of the test is the only clock. */
async function until(test: () => Promise<boolean>): Promise<void> {
  while (!(await test())) await new Promise((later) => setTimeout(later, 20));
}

const request: JoinRequest = {
  deviceId: 'pw-15',
  place: 'door/1',
  radio: 'wifi',
  deviceBands: ['2.4'],
  phoneBand: '2.4',
  rssi: -55,
  hubId: null,
  powered: true,
  channels: [{ id: 1, watts: 60, dims: false }],
};

async function join(more: Partial<JoinRequest> = {}): Promise<void> {
  await until(async () => {
    const { id } = (await post('/api/site/joins', { ...request, ...more })).json();
    let state = 'running';
    while (state === 'running') state = (await server.app.inject(`/api/site/joins/${id}`)).json().state;
    return state === 'joined';
  });
}

test('state and commands go over MQTT; a broker that dies and comes back loses nothing', async () => {
  expect((await states()).connected).toBe(false);
  const first = await server.startBroker();
  await until(async () => (await states()).connected);
  await join();
  await until(async () => (await states()).states.length === 1);
  const told = await post('/api/site/commands', { place: 'door/1', channel: 1, on: true, from: 'app' });
  expect(told.json().ms).toBeGreaterThanOrEqual(0);
  expect((await states()).states).toMatchObject([{ place: 'door/1', on: true, watts: 60 }]);

  await first.close();
  await until(async () => !(await states()).connected);
  // What was told before is still there, and said to be old.
  expect((await states()).states).toMatchObject([{ place: 'door/1', on: true }]);
  const refused = await post('/api/site/commands', { place: 'door/1', channel: 1, on: false, from: 'app' });
  expect([refused.statusCode, refused.json().error.code]).toEqual([502, 'site-unreachable']);
  // Meanwhile somebody presses at the wall, and another device joins.
  server.site.site.command({ place: 'door/1', channel: 1, on: false, from: 'wall' });
  await join({ place: 'loft/2' });

  await server.startBroker();
  await until(async () => (await states()).connected);
  await until(async () => (await states()).states.length === 2);
  expect((await states()).states.find(({ place }) => place === 'door/1')?.on).toBe(false);
});

test('what joined channels tell comes as server-sent events', async () => {
  await join();
  const address = await server.app.listen({ port: 0, host: '127.0.0.1' });
  const stop = new AbortController();
  const answer = await fetch(`${address}/api/site/stream`, { signal: stop.signal });
  const reader = answer.body?.getReader();
  let text = '';
  const read = async (test: () => boolean) => {
    while (!test()) text += new TextDecoder().decode((await reader?.read())?.value);
  };
  await read(() => text.includes('event: broker'));
  server.site.site.command({ place: 'door/1', channel: 1, on: true, from: 'wall' });
  await read(() => /event: state\ndata: .*"on":true/.test(text));
  stop.abort();
});

test('what is not joined is told so, and what is wrong is named', async () => {
  const none = await post('/api/site/updates', { place: 'attic/1' });
  expect([none.statusCode, none.json().error.code]).toEqual([404, 'not-joined']);
  const bad = await post('/api/site/looks', { place: 'nowhere', look: 'listed' });
  expect([bad.statusCode, bad.json().error.problems[0].path]).toEqual([400, '/place']);
  expect((await post('/api/site/looks', { place: 'attic/1', look: 'light' })).json()).toEqual({ bad: null });
  expect((await post('/api/site/deeds', { place: 'attic/1', deed: 'press-mode' })).json()).toEqual({
    outcome: 'done',
  });
});
