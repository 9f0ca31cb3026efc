import type { JoinRequest } from '@inventario/core';
import { describe, expect, test } from '@jest/globals';
import { buildSite } from './app.js';
import { Site } from './site.js';

const request: JoinRequest = {
  deviceId: 'pw-15',
  place: 'door/1',
  radio: 'wifi',
  deviceBands: ['2.4'],
  phoneBand: '2.4',
  rssi: -55,
  needsHub: false,
  powered: true,
};

function siteAt(options = {}) {
  const clock = { now: 0 };
  return {
    clock,
    site: new Site({ clientLimit: 12, otherClients: 10, hubs: true, speed: 1, ...options }, () => clock.now),
  };
}

describe('the stand-in site', () => {
  test('a join takes a few seconds, tells how far it is and ends as a client of the router', () => {
    const { site, clock } = siteAt();
    const { id } = site.start(request);
    clock.now = 1000;
    expect(site.join(id)).toMatchObject({ state: 'running', step: 'found' });
    expect(site.join(id)?.progress).toBeCloseTo(1000 / 3100, 6);
    clock.now = 3100;
    expect(site.join(id)).toMatchObject({ state: 'joined', progress: 1, seconds: 3.1 });
    expect(site.state().clients).toBe(11);
    site.start(request);
    clock.now = 9000;
    expect(site.state().clients).toBe(11);
  });

  test.each<[string, Partial<JoinRequest>, object]>([
    ['wrong-band', { phoneBand: '5' }, {}],
    ['weak-signal', { rssi: -84 }, {}],
    ['not-in-pairing-mode', { powered: false }, {}],
    ['no-hub', { needsHub: true, radio: 'mesh' }, { hubs: false }],
    ['router-full', {}, { clientLimit: 10 }],
  ])('fails for %s, and can be tried again', (reason, more, options) => {
    const { site, clock } = siteAt(options);
    const { id } = site.start({ ...request, ...more });
    clock.now = 20_000;
    expect(site.join(id)).toMatchObject({ state: 'failed', reason });
    expect(site.state().clients).toBe(10);
    if (reason === 'wrong-band') {
      const again = site.start(request);
      clock.now = 40_000;
      expect(site.join(again.id)).toMatchObject({ state: 'joined' });
    }
  });

  test('a weak signal that still gets through takes longer', () => {
    const { site, clock } = siteAt();
    const { id } = site.start({ ...request, rssi: -76 });
    clock.now = 3500;
    expect(site.join(id)?.state).toBe('running');
  });
});

test('over HTTP a bad request names its field', async () => {
  const app = buildSite();
  const bad = await app.inject({ method: 'POST', url: '/joins', payload: { ...request, rssi: 5 } });
  expect([bad.statusCode, bad.json().problems[0].path]).toEqual([400, '/rssi']);
  expect((await app.inject('/joins/none')).statusCode).toBe(404);
  const started = await app.inject({ method: 'POST', url: '/joins', payload: request });
  expect(started.statusCode).toBe(202);
  expect((await app.inject(`/joins/${started.json().id}`)).json().state).toBe('running');
});
