import { describe, expect, test } from '@jest/globals';
import { reduce } from '../../job/edit/reduce.js';
import { lookup } from '../../job/lookup.js';
import type { Job } from '../../job/schema/job.js';
import { exampleJob } from '../../test-support/examples.js';
import { accountTasks, hubTasks } from '../hubs.js';
import { judgeWatts } from '../live-watts.js';
import { settingTasks } from '../settings.js';
import { nextToPair, routerDark } from '../walk.js';
import { evidenceOf, storyOf } from './evidence.js';
import { knownBeforehand } from './known.js';
import { pairingManner } from './manner.js';
import { pairingNext } from './pairing-next.js';
import { type Addition, additionParts, namingParts } from './record.js';
import { deviceStands } from './stands.js';
import { deviceTasks, tasksByRoom } from './tasks.js';

const at = (minute: number) => `2026-05-04T09:${String(minute).padStart(2, '0')}:00Z`;

/** The long room with nothing commissioned yet. */
function fresh(): Job {
  const job = exampleJob('long-room');
  job.pairings = [];
  job.automations = [];
  job.opposites = [];
  return job;
}

const taskAt = (job: Job, key: string) => {
  const task = deviceTasks(lookup(job)).find((one) => one.key === key);
  if (!task) throw new Error(`No device at ${key}`);
  return task;
};
const standsAt = (job: Job, key: string) => deviceStands(taskAt(job, key), lookup(job));
const nextAt = (job: Job, key: string) => pairingNext(standsAt(job, key), lookup(job));

let made = 0;
/** The job after something was recorded of a channel. */
function after(job: Job, key: string, addition: Addition, channel = 1): Job {
  const task = taskAt(job, key).channels.find((one) => one.channel.id === channel);
  if (!task) throw new Error(`No channel ${channel} at ${key}`);
  const result = reduce(job, { parts: additionParts(task, addition, () => `made-${++made}`) });
  if (!result.ok) throw new Error(JSON.stringify(result.refusal));
  return result.job;
}
function named(job: Job, key: string, name: string, channel = 1): Job {
  const task = taskAt(job, key).channels.find((one) => one.channel.id === channel);
  const result = reduce(job, { parts: task ? namingParts(task, { name }, () => `made-${++made}`) : [] });
  if (!result.ok) throw new Error(JSON.stringify(result.refusal));
  return result.job;
}
const joined = (minute: number) => ({
  attempts: [{ id: `a${minute}`, at: at(minute), outcome: 'joined' as const }],
});
const failedFor = (reason: string, minute: number) => ({
  attempts: [{ id: `a${minute}`, at: at(minute), outcome: 'failed' as const, reason }],
});
const mark = (
  what: 'updated' | 'parked' | 'resumed' | 'reset' | 'ready' | 'looked' | 'changed' | 'cannot',
  minute: number,
  more = {},
) => ({
  marks: [{ id: `m${minute}`, at: at(minute), what, ...more }],
});

describe('the way of a device, from first light to the client’s words', () => {
  test('step by step, each from what was recorded', () => {
    let job = fresh();
    expect(standsAt(job, 'gate/1').step).toBe('wired');
    job.events = [
      { id: 'e1', kind: 'mounted', boxId: 'gate', at: at(0) },
      { id: 'e2', kind: 'switched', circuitId: 'd1', state: 'on', at: at(1) },
    ];
    expect(standsAt(job, 'gate/1').step).toBe('ready');
    job = after(job, 'gate/1', mark('ready', 2));
    expect(standsAt(job, 'gate/1').step).toBe('joined');
    job = after(job, 'gate/1', joined(3));
    expect([standsAt(job, 'gate/1').step, nextAt(job, 'gate/1').kind]).toEqual(['updated', 'update']);
    job = after(job, 'gate/1', mark('updated', 4));
    expect(nextAt(job, 'gate/1').kind).toBe('name');
    job = named(job, 'gate/1', 'Gate lamp');
    expect(nextAt(job, 'gate/1')).toMatchObject({ kind: 'reach', platform: 'Orrery', twice: false });
    const found = (route: 'direct' | 'maker', minute: number, outcome: 'found' | 'missing' = 'found') => ({
      reached: [{ platform: 'Orrery', at: at(minute), outcome, route }],
    });
    job = after(job, 'gate/1', found('maker', 5));
    expect(nextAt(job, 'gate/1').kind).toBe('try');
    job = after(job, 'gate/1', found('direct', 6));
    expect(nextAt(job, 'gate/1')).toMatchObject({ kind: 'reach', twice: true });
    job = after(job, 'gate/1', found('direct', 7, 'missing'));
    job = after(job, 'gate/1', found('maker', 7));
    for (const path of ['wall', 'app', 'voice'] as const) {
      expect(nextAt(job, 'gate/1')).toMatchObject({ kind: 'try', path: { path } });
      const platform = path === 'voice' ? { platform: 'Orrery' } : {};
      job = after(job, 'gate/1', { tried: [{ path, ...platform, at: at(8), ok: true, ms: 300 }] });
    }
    expect([standsAt(job, 'gate/1').step, nextAt(job, 'gate/1').kind]).toEqual(['done', 'done']);
  });

  test('an app that was only wished for is asked about at the end, and is no part of being done', () => {
    let job = after(after(fresh(), 'door/1', joined(1)), 'door/1', mark('updated', 2));
    job.events = [
      { id: 'e1', kind: 'mounted', boxId: 'door', at: at(0) },
      { id: 'e2', kind: 'switched', circuitId: 'd1', state: 'on', at: at(0) },
    ];
    for (const channel of [1, 2]) {
      job = named(job, 'door/1', `Lamps of hearth ${channel}`, channel);
      const reached = [{ platform: 'Orrery', at: at(3), outcome: 'found' as const }];
      job = after(job, 'door/1', { reached }, channel);
    }
    for (let next = nextAt(job, 'door/1'); next.kind === 'try'; next = nextAt(job, 'door/1')) {
      const { path, platform } = next.path;
      const tried = [{ path, ...(platform ? { platform } : {}), at: at(4), ok: true }];
      job = after(job, 'door/1', { tried }, next.channel.task.channel.id);
    }
    const wished = { platform: 'Hearthside', channel: { task: { channel: { id: 1 } } } };
    expect(nextAt(job, 'door/1')).toMatchObject({ kind: 'done', wished });
    for (const channel of [1, 2]) {
      expect(standsAt(job, 'door/1').step).toBe('done');
      const reached = [{ platform: 'Hearthside', at: at(5), outcome: 'missing' as const }];
      job = after(job, 'door/1', { reached }, channel);
    }
    expect(nextAt(job, 'door/1')).toEqual({ kind: 'done', wished: null });
  });

  test('a device of two channels joins once; each channel has its name, its apps and its trials', () => {
    let job = after(after(fresh(), 'door/1', joined(1)), 'door/1', mark('updated', 2));
    job = named(job, 'door/1', 'Table lamps');
    expect(nextAt(job, 'door/1')).toMatchObject({ kind: 'name', channel: { task: { channel: { id: 2 } } } });
  });

  test('parked has its reason, and is taken up again; set back to new it joins anew, and its history stays', () => {
    let job = after(fresh(), 'gate/1', failedFor('owned', 1));
    expect(standsAt(job, 'gate/1')).toMatchObject({ failing: true, joinedAt: null, attempts: 1 });
    job = after(job, 'gate/1', mark('parked', 2, { reason: 'registered-elsewhere' }));
    expect(nextAt(job, 'gate/1')).toEqual({ kind: 'parked', reason: 'registered-elsewhere' });
    job = after(job, 'gate/1', mark('resumed', 3));
    job = after(job, 'gate/1', joined(4));
    expect(standsAt(job, 'gate/1').joinedAt).toBe(at(4));
    job = after(job, 'gate/1', mark('reset', 5));
    expect(standsAt(job, 'gate/1')).toMatchObject({ joinedAt: null, attempts: 2 });
    expect(storyOf(taskAt(job, 'gate/1'))).toHaveLength(5);
    expect(evidenceOf(storyOf(taskAt(job, 'gate/1')))).toEqual([]);
  });

  test('the word of another program counts while there is no try', () => {
    const job = exampleJob('long-room');
    expect(standsAt(job, 'gate/1').joinedAt).toBe('');
    expect(standsAt(job, 'gate/1').done.has('joined')).toBe(true);
  });

  test('another device at the place begins anew; what was recorded of the old one stays in the job', () => {
    const job = after(fresh(), 'gate/1', joined(1));
    const selections = job.selections.map((one) =>
      one.boxId === 'gate' ? { ...one, deviceId: 'zi-double' } : one,
    );
    const replaced = { ...job, selections };
    expect(standsAt(replaced, 'gate/1').joinedAt).toBeNull();
    expect(replaced.pairings).toHaveLength(1);
  });
});

describe('what the next thing rests on', () => {
  test('tries, looks and remedies are evidence, whoever wrote them', () => {
    let job = after(fresh(), 'gate/1', failedFor('no-network', 1));
    job = after(job, 'gate/1', mark('looked', 2, { reason: 'band', bad: true }));
    job = after(job, 'gate/1', mark('changed', 3, { reason: 'join-24' }));
    job = after(job, 'gate/1', failedFor('wrong-password', 4));
    job = after(job, 'gate/1', failedFor('unreachable', 5));
    job = after(job, 'gate/1', failedFor('it sulks', 6));
    job = after(job, 'gate/1', mark('cannot', 7, { reason: 'type-password' }));
    expect(evidenceOf(storyOf(taskAt(job, 'gate/1')))).toEqual([
      { kind: 'tried', seen: 'no-network', listed: undefined },
      { kind: 'looked', look: 'band', bad: true },
      { kind: 'done', remedy: 'join-24' },
      { kind: 'tried', seen: 'refused' },
      { kind: 'looked', look: 'password', bad: true },
      { kind: 'cannot', remedy: 'type-password' },
    ]);
    expect(nextAt(job, 'gate/1').kind).toBe('join');
  });

  test('the record of the house speaks before the first try: power, signal, band, router, what joined already', () => {
    const job = fresh();
    const around = { phoneBand: '5' as const, router: { clients: 64, clientLimit: 64 } };
    const before = (one: Job, surroundings = {}) =>
      knownBeforehand(taskAt(one, 'gate/1'), lookup(one), surroundings);
    expect(before(job, around)).toMatchObject({
      'wrong-band': 0.95,
      'router-full': 0.95,
      'weak-signal': 0.02,
    });
    const dark = {
      ...job,
      events: [{ id: 'e', kind: 'switched', circuitId: 'd1', state: 'off', at: at(1) }],
    };
    expect(before(dark)).toMatchObject({ 'no-power': 0.95, 'router-full': 0.01 });
    expect(before(after(job, 'door/1', joined(2)))).toMatchObject({ 'wrong-password': 0.03 });
    expect(pairingNext(standsAt(dark, 'gate/1'), lookup(dark))).toMatchObject({
      kind: 'join',
      advice: { kind: 'do', remedy: 'power-on' },
    });
  });
});

describe('the walk', () => {
  test('the next device is in the same room, then in the nearest; parked and joined ones are passed', () => {
    let job = fresh();
    const next = (from?: string) => nextToPair(lookup(job), from)?.key;
    expect([next(), next('door/1'), next('gate/1')]).toEqual(['door/1', 'nook/1', 'nook/1']);
    job = after(job, 'nook/1', mark('parked', 1));
    expect(next('door/1')).toBe('gate/1');
    job = after(job, 'door/1', joined(2));
    job = after(job, 'gate/1', joined(3));
    // All are joined or parked: what is not finished comes.
    expect(next('door/1')).toBe('gate/1');
    expect(tasksByRoom(lookup(job)).map(({ room }) => room.id)).toEqual(['long', 'snug', 'porch']);
  });

  test('while the router’s circuit is off, what joins over it waits', () => {
    const job = fresh();
    job.brief = { ...job.brief, wifi: { routerCircuit: 'd1' } };
    expect(routerDark(lookup(job))).toBeNull();
    job.events = [{ id: 'e', kind: 'switched', circuitId: 'd1', state: 'off', at: at(1) }];
    expect(routerDark(lookup(job))).toEqual(['d1']);
    expect(nextToPair(lookup(job))).toBeNull();
  });
});

describe('hubs and accounts come first', () => {
  const withHub = () => {
    const job = fresh();
    const [device] = job.catalogue.devices;
    job.catalogue.hubs = [
      { id: 'hub', name: 'Hub', price: 0, radio: 'mesh', platforms: ['Orrery'], deviceLimit: 1, wired: true },
    ];
    if (device) Object.assign(device, { radio: 'mesh', hubId: 'hub' });
    return job;
  };

  test('a hub goes through its steps, and its devices wait for it', () => {
    const job = withHub();
    const step = () => hubTasks(lookup(job))[0]?.step;
    expect([step(), nextAt(job, 'door/1').kind]).toEqual(['placed', 'hub']);
    job.hubs = [{ id: 'h', hubId: 'hub', placed: at(1) }];
    expect(step()).toBe('online');
    job.hubs = [{ id: 'h', hubId: 'hub', placed: at(1), online: at(2) }];
    expect([step(), nextAt(job, 'door/1').kind]).toEqual(['updated', 'join']);
    job.hubs = [{ id: 'h', hubId: 'hub', placed: at(1), online: at(2), updated: at(3) }];
    expect(step()).toBe('linked');
    const links = [
      { platform: 'Orrery', at: at(4), outcome: 'failed' as const },
      { platform: 'Orrery', at: at(5), outcome: 'linked' as const },
    ];
    job.hubs = [{ id: 'h', hubId: 'hub', placed: at(1), online: at(2), updated: at(3), links }];
    expect(step()).toBe('done');
    expect(knownBeforehand(taskAt(job, 'nook/1'), lookup(after(job, 'door/1', joined(6))))).toMatchObject({
      'hub-full': 0.95,
      'hub-missing': 0.01,
    });
  });

  test('a maker whose cloud is asked for needs one account, linked once for all devices', () => {
    const job = fresh();
    expect(accountTasks(lookup(job))).toEqual([]);
    for (const device of job.catalogue.devices) device.control = 'both';
    const before = accountTasks(lookup(job));
    expect(before.map(({ maker, devices, step }) => [maker, devices, step])).toEqual([
      ['Zinnet', 2, 'made'],
      ['Wrenlock', 1, 'made'],
    ]);
    job.accounts = [{ id: 'a', maker: 'Zinnet', holder: 'client' }];
    expect(accountTasks(lookup(job))[0]?.step).toBe('linked');
  });
});

test('settings that can spoil the light come first; what the record of the device lists is there too', () => {
  const job = fresh();
  const [, device] = job.catalogue.devices;
  if (device) {
    device.channels = [{ id: 1, kind: 'dimmer', ratings: [] }];
    device.settings = [{ name: 'Whistle', values: ['soft', 'loud'] }, 'nonsense'];
  }
  const set = after(job, 'gate/1', { settings: [{ name: 'Bulb type', value: 'LED', for: 'the client' }] });
  const [channel] = taskAt(set, 'gate/1').channels;
  const tasks = channel ? settingTasks(channel, lookup(set)) : [];
  expect(tasks.map(({ code }) => code).slice(0, 3)).toEqual(['bulb-type', 'calibration', 'low-end']);
  expect(tasks[0]).toMatchObject({ value: 'LED', for: 'the client' });
  expect(tasks.at(-1)).toMatchObject({ code: 'own', name: 'Whistle', values: ['soft', 'loud'] });
});

test('watts that are told are judged by the lamps on record', () => {
  const job = fresh();
  const [channel] = taskAt(job, 'door/1').channels;
  if (!channel) throw new Error('no channel');
  const judged = (watts: number, more = {}) =>
    judgeWatts(channel, { on: true, level: null, watts, ...more }, lookup(job));
  expect(judged(17)).toEqual({ verdict: 'as-expected' });
  expect(judged(6)).toEqual({ verdict: 'less', expected: 18, lamps: 2 });
  expect(judged(0)).toEqual({ verdict: 'none', expected: 18 });
  expect(judged(60)).toEqual({ verdict: 'more', expected: 18 });
  expect(judged(3, { on: false })).toEqual({ verdict: 'unknown' });
  expect(judged(3, { level: 20 })).toEqual({ verdict: 'unknown' });
});

test('how a model is paired is read from its record; what is written otherwise counts as not known', () => {
  const light = { colours: ['amber', 'green'], rhythm: 'slow' };
  expect(pairingManner({ pairing: { steps: ['Hold', 3], light, press: 'Hold', minutes: 2 } })).toMatchObject({
    steps: ['Hold'],
    light,
    press: 'Hold',
    minutes: 2,
  });
  expect(pairingManner({ pairing: { light: 'blinks', minutes: 'few' }, hubId: 'h' })).toMatchObject({
    light: null,
    press: null,
    minutes: 3,
  });
});
