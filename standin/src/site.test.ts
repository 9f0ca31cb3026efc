import type { JoinRequest } from '@inventario/core';
import { afterEach, describe, expect, test } from '@jest/globals';
import { connectAsync } from 'mqtt';
import { buildSite } from './app.js';
import { startBroker } from './broker.js';
import { Scenario } from './scenario.js';
import { Site } from './site.js';

const request: JoinRequest = {
  deviceId: 'pw-15',
  place: 'door/1',
  radio: 'wifi',
  deviceBands: ['2.4'],
  phoneBand: '2.4',
  rssi: -55,
  hubId: null,
  powered: true,
  channels: [{ id: 1, watts: 60, dims: true }],
};

/** A site whose clock stands still until it is moved. */
function siteAt(scenario: Partial<Record<keyof Scenario, unknown>> = {}) {
  const clock = { now: 0 };
  const site = new Site(Scenario.parse({ seed: 3, ...scenario }), () => clock.now);
  const tryOnce = (more: Partial<JoinRequest> = {}) => {
    const { id } = site.start({ ...request, ...more });
    clock.now += 20_000;
    return site.join(id);
  };
  /** Until it is in: luck may be against one try. */
  const join = (more: Partial<JoinRequest> = {}) => {
    for (let turn = 0; turn < 5; turn += 1) if (tryOnce(more)?.state === 'joined') return;
    throw new Error('It does not join');
  };
  return { clock, site, tryOnce, join };
}

describe('the stand-in site', () => {
  test('a join takes a few seconds, tells how far it is and ends as a client of the router', () => {
    const { site, clock, join } = siteAt({ router: { clientLimit: 12, otherClients: 10 } });
    const { id } = site.start(request);
    clock.now = 1000;
    expect(site.join(id)).toMatchObject({ state: 'running', step: 'found', listed: null });
    expect(site.join(id)?.progress).toBeGreaterThan(0.2);
    join();
    expect(site.state().clients).toBe(11);
    join();
    expect(site.state().clients).toBe(11);
  });

  test.each<[string, string[], Partial<JoinRequest>, object]>([
    ['the wrong band', ['no-network', 'not-found', 'lost'], { phoneBand: '5' }, {}],
    ['no power', ['not-found', 'lost'], { powered: false }, {}],
    ['a weak signal', ['no-network', 'not-found', 'lost', 'joined'], { rssi: -88 }, {}],
    ['a full router', ['full', 'no-network', 'lost'], {}, { router: { clientLimit: 9 } }],
    ['a hub that is away', ['not-found', 'no-network'], { hubId: 'h' }, { hubs: { h: { online: false } } }],
    [
      'a hub that does not listen',
      ['not-found', 'lost'],
      { hubId: 'h' },
      { hubs: { h: { joining: false } } },
    ],
    ['a full hub', ['full', 'no-network'], { hubId: 'h' }, { hubs: { h: { deviceLimit: 0 } } }],
    [
      'a former owner',
      ['owned', 'lost', 'not-found'],
      {},
      { faults: { 'door/1': ['registered-elsewhere'] } },
    ],
    ['a password', ['refused', 'no-network', 'lost'], {}, { faults: { 'door/1': ['wrong-password'] } }],
  ])('%s keeps it out, in the words of an app', (_name, words, more, scenario) => {
    const { tryOnce, site } = siteAt(scenario);
    const { clients } = site.state();
    const { state, reason } = tryOnce(more) ?? {};
    expect(words).toContain(reason ?? 'joined');
    if (state === 'failed') expect(site.state().clients).toBe(clients);
  });

  test('what is put right lets it in; what is beyond help does not', () => {
    const faults = { 'door/1': ['wrong-password'], 'loft/1': ['registered-elsewhere'] };
    const { site, tryOnce, join } = siteAt({ faults, beyondHelp: { 'loft/1': ['registered-elsewhere'] } });
    expect(tryOnce()?.state).toBe('failed');
    expect(tryOnce({ place: 'loft/1' })?.state).toBe('failed');
    for (let turn = 0; turn < 4; turn += 1) expect(site.deed('door/1', 'type-password')).toBe('done');
    join();
    expect(site.deed('loft/1', 'release')).toBe('cannot');
    expect(tryOnce({ place: 'loft/1' })?.state).toBe('failed');
  });

  test('the signal is that of the distance, the floors and the metal, until a repeater stands between', () => {
    const { tryOnce, join, site } = siteAt({
      router: { spot: { x: 0, y: 0, floor: 0 } },
      places: { 'door/1': { x: 9, y: 12, floor: 1, metal: true }, 'hall/1': { x: 3, y: 0, floor: 0 } },
    });
    join({ place: 'hall/1', rssi: -90 });
    const states = Array.from({ length: 6 }, () => tryOnce({ rssi: -40 })?.state);
    expect(states.filter((state) => state === 'failed').length).toBeGreaterThan(3);
    expect(site.deed('door/1', 'bring-closer')).toBe('done');
    join({ rssi: -40 });
  });

  test('the password counts by upper and lower case, until it is typed anew', () => {
    const { site, tryOnce, join } = siteAt({ router: { password: 'Oil and Lamp' } });
    expect(site.type('door/1', 'oil and lamp')).toEqual({ right: false });
    expect(['refused', 'no-network', 'lost']).toContain(tryOnce()?.reason);
    site.deed('door/1', 'type-password');
    join();
  });

  test('who listens is told of tries, and of what assistants found and heard', () => {
    const { site, clock } = siteAt();
    const told: string[] = [];
    site.listen((event) => told.push(event.kind === 'join' ? `join ${event.join.state}` : event.kind));
    for (let turn = 0; turn < 5 && !told.includes('join joined'); turn += 1) {
      site.start(request);
      clock.now += 500;
      site.tellTries();
      clock.now += 20_000;
      site.tellTries();
      site.tellTries();
    }
    expect(told.slice(0, 1)).toEqual(['join running']);
    expect(told.filter((kind) => kind === 'join joined')).toHaveLength(1);
    site.find({ place: 'door/1', channel: 1, platform: 'Orrery', name: 'Hall', room: 'Hall' });
    site.say('Orrery', 'turn on hall');
    expect(told.slice(-3)).toEqual(['found', 'state', 'heard']);
  });

  test('a hand at the device: its button, its cut-out, set back to new; its light tells', () => {
    const { site, tryOnce, join } = siteAt({ faults: { 'door/1': ['not-in-mode', 'needs-alternate'] } });
    const light = () => site.behindThePlates()[0]?.light;
    tryOnce();
    expect([light(), site.hand('door/1', 'press')?.light]).toEqual(['idle', 'pairing']);
    expect(tryOnce()?.state).toBe('failed');
    expect(site.hand('door/1', 'press-alternate')?.light).toBe('alternate');
    expect(site.hand('door/1', 'cut-out')?.light).toBe('dark');
    expect(tryOnce()?.reason).not.toBeNull();
    site.hand('door/1', 'cut-in');
    join();
    expect(light()).toBe('joined');
    expect(site.set('door/1', 1, 'Fade', '1 s')).toEqual({ name: 'Fade' });
    expect(site.behindThePlates()[0]?.channels[0]?.settings).toEqual({ Fade: '1 s' });
    expect(site.hand('door/1', 'reset')?.light).toBe('pairing');
    expect([site.hand('none/1', 'press'), site.set('door/1', 1, 'Fade', 1)]).toEqual([undefined, undefined]);
  });

  test('the router and the hub answer a look, eyes do not lie in the machine', () => {
    const { site, tryOnce } = siteAt({ router: { clientLimit: 9, otherClients: 9 } });
    tryOnce();
    const bad = Array.from({ length: 20 }, () => site.look('door/1', 'router-count'));
    expect(bad.filter(Boolean).length).toBeGreaterThan(15);
    expect(site.look('door/1', 'light')).toBeNull();
    expect(site.look('nowhere/1', 'router-count')).toBeNull();
  });

  test('apps find it by its name, over two routes where it is told twice; words work it and its meter tells', () => {
    const { site, join } = siteAt({ foundTwice: ['door/1/1'], draws: { 'door/1/1': 0.5 } });
    const find = { place: 'door/1', channel: 1, platform: 'Orrery', name: 'Hall lamp', room: 'Hall' };
    expect(site.find(find)).toEqual({ routes: [], room: null });
    join();
    expect(site.find(find)).toEqual({ routes: ['direct', 'maker'], room: 'Hall' });
    expect(site.say('Orrery', 'Turn on hall  LAMP!').answers).toEqual([{ place: 'door/1', channel: 1 }]);
    expect(site.say('Orrery', 'turn on lamp').answers).toEqual([]);
    expect(site.states()).toMatchObject([{ place: 'door/1', channel: 1, on: true, watts: 30 }]);
  });

  test('an update stops as often as the scenario says', () => {
    const { site, join } = siteAt({ stuckUpdates: { 'door/1': 1 } });
    expect(site.update('door/1')).toBeUndefined();
    join();
    expect(site.update('door/1')).toMatchObject({ outcome: 'stuck' });
    expect(site.update('door/1')).toEqual({ outcome: 'done', version: '1.1' });
  });
});

describe('over HTTP and MQTT', () => {
  const closing: (() => Promise<unknown>)[] = [];
  afterEach(async () => {
    for (const close of closing.splice(0)) await close();
  });

  test('a bad request names its field, and a bad scenario too', async () => {
    const app = buildSite();
    const post = (url: string, payload: object) => app.inject({ method: 'POST', url, payload });
    const bad = await post('/joins', { ...request, rssi: 5 });
    expect([bad.statusCode, bad.json().problems[0].path]).toEqual([400, '/rssi']);
    expect((await app.inject('/joins/none')).statusCode).toBe(404);
    expect((await post('/updates', { place: 'door/1' })).statusCode).toBe(404);
    const started = await post('/joins', request);
    expect(started.statusCode).toBe(202);
    expect((await app.inject(`/joins/${started.json().id}`)).json().state).toBe('running');
    const scenario = await app.inject({
      method: 'PUT',
      url: '/scenario',
      payload: { faults: { 'a/1': ['gone'] } },
    });
    expect([scenario.statusCode, scenario.json().problems[0].path]).toEqual([400, '/faults/a~11/0']);
    expect((await app.inject('/')).body).toContain('The made-up house');
  });

  test('a client of MQTT hears a joined channel, and switches it', async () => {
    const app = buildSite(Scenario.parse({ speed: 1000 }));
    const broker = await startBroker(app.site, 0);
    const client = await connectAsync(broker.url);
    closing.push(
      () => client.endAsync(true),
      () => broker.close(),
      () => app.close(),
    );
    const heard: { on: boolean; watts: number }[] = [];
    client.on('message', (_, payload) => heard.push(JSON.parse(payload.toString())));
    await client.subscribeAsync('home/+/+/+/state');
    const until = async (test: () => boolean) => {
      while (!test()) await new Promise((later) => setTimeout(later, 10));
    };
    await until(() => {
      const { id } = app.site.start(request);
      return app.site.join(id)?.state === 'joined' || app.site.states().length > 0;
    });
    await until(() => heard.length > 0);
    await client.publishAsync('home/door/1/1/set', 'nonsense');
    await client.publishAsync('home/door/1/1/set', JSON.stringify({ on: true, level: 50 }));
    await until(() => heard.some(({ on, watts }) => on && watts === 30));
  });
});
