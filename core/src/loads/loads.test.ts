import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import type { Channel, Device } from '../job/schema/catalogue.js';
import type { Load } from '../job/schema/job.js';
import { Random } from '../test-support/random.js';
import { assignChannels } from './channels.js';
import { demand } from './demand.js';
import { rateChannel } from './rating.js';

const load = (
  id: string,
  kind: Load['kind'],
  count: number,
  wattsEach: number,
  more: Partial<Load> = {},
): Load => ({
  id,
  name: id,
  roomId: 'room',
  kind,
  count,
  wattsEach,
  ...more,
});
const channel = (id: number, kind: Channel['kind'], ...ratings: Channel['ratings']): Channel => ({
  id,
  kind,
  ratings,
});
const device = (...channels: Channel[]) => ({ channels, volts: [110, 127] }) as unknown as Device;

describe('what a load draws', () => {
  test('eight 9 W drivers at a power factor of 0.7: 72 W, 102.9 VA, 0.857 A at 120 V', () => {
    const drawn = demand(load('a', 'led', 8, 9), 120);
    expect(drawn.watts).toBe(72);
    expect(drawn.voltAmperes).toBeCloseTo(102.857, 3);
    expect(drawn.amps).toBeCloseTo(0.857, 3);
  });

  test('a power factor that was read rules over the usual one', () => {
    expect(demand(load('a', 'led', 1, 90, { powerFactor: 0.9 }), 120).voltAmperes).toBeCloseTo(100, 9);
  });

  test('without volts there are no amperes, and no division by nothing', () => {
    expect(demand(load('a', 'heater', 1, 1000), 0).amps).toBe(0);
  });
});

describe('a channel against its ratings', () => {
  const dimmer = channel(
    1,
    'dimmer',
    { kinds: ['led'], unit: 'W', limit: [150, 120, 90] },
    { kinds: ['resistive'], unit: 'W', limit: [600, 500, 400] },
  );

  test('mixed loads share: 75 of 150 W of drivers and 180 of 600 W of filaments make 0.8, within the margin', () => {
    const result = rateChannel(dimmer, [load('a', 'led', 5, 15), load('b', 'resistive', 3, 60)], 120, 0, 0.8);
    expect(result.share).toBeCloseTo(0.8, 9);
    expect(result.verdict).toBe('ok');
  });

  test('a broken side lowers the limit: the same on 120 and 500 W is 0.985, beyond the margin', () => {
    const result = rateChannel(dimmer, [load('a', 'led', 5, 15), load('b', 'resistive', 3, 60)], 120, 1, 0.8);
    expect(result.share).toBeCloseTo(75 / 120 + 180 / 500, 9);
    expect(result.verdict).toBe('margin');
  });

  test('both sides broken: 0.833 and 0.45 are over', () => {
    const result = rateChannel(dimmer, [load('a', 'led', 5, 15), load('b', 'resistive', 3, 60)], 120, 2, 0.8);
    expect(result.share).toBeCloseTo(75 / 90 + 180 / 400, 9);
    expect(result.verdict).toBe('over');
  });

  test('of several ratings of a kind the tightest counts', () => {
    const relay = channel(
      1,
      'relay',
      { kinds: ['led'], unit: 'W', limit: [500] },
      { kinds: ['led'], unit: 'A', limit: [1] },
    );
    const result = rateChannel(relay, [load('a', 'led', 10, 10)], 120, 0, 0.8);
    expect(result.shares[0]).toMatchObject({ unit: 'A', limit: 1 });
    expect(result.share).toBeCloseTo(100 / 0.7 / 120, 9);
    expect(result.verdict).toBe('over');
  });

  test('with a motor on a relay 0.8 is the limit, not a margin', () => {
    const relay = channel(1, 'relay', { kinds: ['motor', 'resistive'], unit: 'A', limit: [5] });
    const motor = rateChannel(relay, [load('a', 'motor', 1, 306)], 120, 0, 0.8);
    expect(motor.share).toBeCloseTo(0.85, 9);
    expect(motor.verdict).toBe('over');
    expect(rateChannel(relay, [load('a', 'resistive', 1, 510)], 120, 0, 0.8).verdict).toBe('margin');
  });

  test('a kind without a rating is named, not waved through', () => {
    expect(
      rateChannel(dimmer, [load('a', 'motor', 1, 10)], 120, 0, 0.8).unrated.map((entry) => entry.id),
    ).toEqual(['a']);
  });

  test('more load never takes up less, and the order of loads changes nothing', () => {
    fc.assert(
      fc.property(
        fc.array(fc.integer({ min: 1, max: 200 }), { minLength: 1, maxLength: 6 }),
        fc.integer({ min: 0, max: 2 }),
        (watts, sides) => {
          const loads = watts.map((each, at) => load(`l${at}`, at % 2 ? 'led' : 'resistive', 1, each));
          const whole = rateChannel(dimmer, loads, 120, sides, 0.8).share;
          expect(rateChannel(dimmer, loads.slice(1), 120, sides, 0.8).share).toBeLessThan(whole);
          expect(rateChannel(dimmer, [...loads].reverse(), 120, sides, 0.8).share).toBeCloseTo(whole, 9);
        },
      ),
    );
  });
});

describe('loads to channels', () => {
  const light = channel(1, 'dimmer', { kinds: ['led', 'resistive'], unit: 'W', limit: [150] });
  const fan = channel(2, 'fan-speed', { kinds: ['fan-ac'], unit: 'A', limit: [1.5] });

  test('one channel takes everything on the position', () => {
    const { fed, unfed } = assignChannels(
      device(light),
      [load('a', 'led', 1, 9), load('b', 'fan-ac', 1, 60)],
      0.8,
    );
    expect(fed[0]?.loads.map((entry) => entry.id)).toEqual(['a', 'b']);
    expect(unfed).toEqual([]);
  });

  test('the fan finds the fan channel, whatever the order', () => {
    const loads = [load('lamp', 'led', 1, 9), load('fan', 'fan-ac', 1, 60)];
    for (const order of [loads, [...loads].reverse()]) {
      const { fed } = assignChannels(device(light, fan), order, 0.8);
      expect(fed.map((entry) => [entry.channel.id, entry.loads[0]?.id])).toEqual([
        [1, 'lamp'],
        [2, 'fan'],
      ]);
    }
  });

  test('what was chosen stands, though the fan channel would have suited', () => {
    const { fed } = assignChannels(
      device(light, fan),
      [load('lamp', 'led', 1, 9), load('fan', 'fan-ac', 1, 60)],
      0.8,
      { 1: 'fan' },
    );
    expect(fed.find((entry) => entry.channel.id === 1)?.loads.map((entry) => entry.id)).toEqual(['fan']);
  });

  test('every load is fed once or said to be left over', () => {
    const random = new Random(5);
    for (let run = 0; run < 200; run++) {
      const loads = Array.from({ length: random.int(0, 5) }, (_, at) =>
        load(`l${at}`, random.pick(['led', 'fan-ac', 'resistive', 'motor'] as const), 1, 40),
      );
      const channels = Array.from({ length: random.int(1, 3) }, (_, at) => ({
        ...random.pick([light, fan]),
        id: at + 1,
      }));
      const { fed, unfed } = assignChannels(device(...channels), loads, 0.8);
      const all = [...fed.flatMap((entry) => entry.loads), ...unfed].map((entry) => entry.id).sort();
      expect(all).toEqual(loads.map((entry) => entry.id).sort());
      expect(new Set(fed.map((entry) => entry.channel.id)).size).toBe(fed.length);
    }
  });
});
