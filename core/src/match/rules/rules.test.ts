import { describe, expect, test } from '@jest/globals';
import { lookup } from '../../job/lookup.js';
import type { Channel, Device, Hub } from '../../job/schema/catalogue.js';
import type { Job, Load } from '../../job/schema/job.js';
import type { Box, Position } from '../../job/schema/survey.js';
import type { TerminalNeeds } from '../../loads/terminal-needs.js';
import { exampleJob } from '../../test-support/examples.js';
import { type PlaceFacts, placeFacts } from '../place.js';
import type { Reason } from '../reason.js';
import { batteryOnlyRule, colourRule, feelRule, needRule, platformRule, sensorRule } from './client.js';
import { hazardRule } from './hazard.js';
import { loadRules } from './load.js';
import { hubRule, networkElsewhere, radioRule, routerRule, signalRule } from './network.js';
import { flushRule, plateNeighbours, plateRule, shadeRule } from './plate.js';
import { bodyRule, depthRule, gangsRule } from './space.js';
import { groundRule, lineLoadRule, neutralRule, practiceRule, voltageRule } from './supply.js';

/** The pantry's place, with one thing changed in the job before it is looked at. */
function placeOf(change: (job: Job) => void = () => {}): PlaceFacts {
  const job = exampleJob('pantry');
  change(job);
  const box = job.boxes[0] as Box;
  return placeFacts(box, box.positions[0] as Position, lookup(job));
}

/** The device that fits there, with one thing changed. */
function deviceOf(more: Partial<Device> = {}): Device {
  const job = exampleJob('pantry');
  const chosen = job.selections[0]?.deviceId;
  return { ...(job.catalogue.devices.find(({ id }) => id === chosen) as Device), ...more };
}

const said = (reasons: readonly Reason[]) => reasons.map(({ outcome, code }) => `${outcome} ${code}`);
const brief = (more: Job['brief']) =>
  placeOf((job) => {
    job.brief = more;
  });

describe('client', () => {
  test.each([
    ['must', 'block platform.must'],
    ['nice', 'warn platform.nice'],
  ] as const)('an assistant it does not work with that is a %s', (want, expected) => {
    const place = brief({ platforms: [{ name: 'Nowhere', want }] });
    expect(said(platformRule(place, deviceOf({ platforms: ['Else'] })))).toEqual([expected]);
    expect(platformRule(place, deviceOf({ platforms: ['Nowhere'] }))).toEqual([]);
  });

  test('a place that wants no connection wants no assistant', () => {
    const place = brief({ platforms: [{ name: 'Nowhere', want: 'must' }] });
    expect(platformRule({ ...place, need: { connected: false } }, deviceOf())).toEqual([]);
  });

  test.each<[NonNullable<Job['brief']>['feel'], Partial<Device>, string[]]>([
    [{ actuators: ['dial'] }, { actuator: 'paddle' }, ['warn feel.actuator']],
    [{ actuators: ['dial', 'paddle'] }, { actuator: 'paddle' }, []],
    [{ silent: true }, { audible: true }, ['warn feel.audible']],
    [{ silent: true }, { audible: false }, []],
    [{ upIsOn: true }, { upIsOn: false }, ['warn feel.up-is-on']],
    [{ indicator: 'none' }, { indicator: 'always' as never }, ['warn feel.indicator']],
    [{ indicator: 'dimmable' }, { indicator: 'none' }, ['warn feel.indicator']],
    [{ indicator: 'any' }, { indicator: 'none' }, []],
    [{ onLevel: 'full' }, { onLevel: 'last' }, ['warn feel.on-level']],
    [{ microphone: false }, { microphone: true }, ['warn feel.microphone']],
    [{ microphone: true }, { microphone: true }, []],
  ])('%j against %j', (feel, device, expected) => {
    expect(said(feelRule(brief({ feel }), deviceOf(device)))).toEqual(expected);
  });

  test('what a record does not say is not held against it, and at the fitting nobody feels it', () => {
    const place = brief({ feel: { silent: true, actuators: ['dial'], onLevel: 'full', indicator: 'none' } });
    const silent = deviceOf();
    for (const key of ['audible', 'actuator', 'onLevel', 'indicator'] as const) delete silent[key];
    expect(feelRule(place, silent)).toEqual([]);
    expect(feelRule(place, deviceOf({ mount: 'fitting', actuator: 'paddle', audible: true }))).toEqual([]);
  });

  test.each<[string[], string[]]>([
    [['white'], ['warn colour.other']],
    [['white', 'black'], []],
    [[], []],
  ])('made in %j for a client who wants black', (colours, expected) => {
    expect(said(colourRule(brief({ colour: 'black' }), deviceOf({ colours })))).toEqual(expected);
  });

  test.each<[PlaceFacts['need'], string[]]>([
    [{ scenes: true }, ['block need.scenes']],
    [{ dim: 'must' }, ['block need.dim']],
    [{ dim: 'nice' }, ['warn need.dim-nice']],
    [{ fanSpeed: true }, ['block need.fan-speed']],
    [{ constantPower: true }, ['block need.constant-power']],
    [{}, []],
  ])('a plain relay where %j is asked for', (need, expected) => {
    const relay = deviceOf({ scenes: false, channels: [{ id: 1, kind: 'relay', ratings: [] } as Channel] });
    expect(said(needRule({ ...placeOf(), need }, relay, 'single', true))).toEqual(expected);
    // A partner answers for what stands at its own place only.
    const partner = said(needRule({ ...placeOf(), need }, relay, 'single', false));
    expect(partner).toEqual(expected.filter((reason) => reason === 'block need.scenes'));
  });

  test('a sensor that is missing is named', () => {
    const place = { ...placeOf(), need: { senses: ['motion'] } as PlaceFacts['need'] };
    expect(sensorRule(place, deviceOf({ senses: [] }))[0]).toMatchObject({
      code: 'sensor.missing',
      facts: { missing: ['motion'] },
    });
    expect(sensorRule(place, deviceOf({ senses: ['motion'] as never }))).toEqual([]);
  });

  test('a control on a battery is a matter for the local code', () => {
    expect(said(batteryOnlyRule(deviceOf({ power: 'battery', terminals: [] })))).toEqual([
      'warn battery-only.local-code',
    ]);
    expect(batteryOnlyRule(deviceOf())).toEqual([]);
  });
});

describe('hazard', () => {
  test('aluminium is a no; whatever else stops is not proved until it is cleared', () => {
    expect(hazardRule(placeOf())).toEqual([]);
    const stopped = { ...placeOf(), stops: ['aluminium', 'live-while-off'] as PlaceFacts['stops'] };
    expect(said(hazardRule(stopped))).toEqual(['block hazard.aluminium', 'unproved hazard.stop']);
  });
});

describe('supply', () => {
  const needs = (more: Partial<TerminalNeeds> = {}) =>
    ({ line: true, load: true, neutral: true, ...more }) as TerminalNeeds;

  test('made for another practice', () => {
    expect(said(practiceRule(placeOf(), deviceOf({ practices: ['gb'] })))).toEqual(['block practice.other']);
  });

  test.each<[PlaceFacts['neutral'], string[]]>([
    ['present', []],
    ['absent', ['block neutral.absent']],
    ['other', ['block neutral.other-circuit']],
    ['untold', ['unproved neutral.circuit-untold']],
    ['by-traveler', ['unproved neutral.by-traveler']],
    ['doubtful', ['block neutral.doubtful']],
    ['unknown', ['unproved neutral.unknown']],
  ])('a neutral that is %s', (neutral, expected) => {
    const place = { ...placeOf(), neutral };
    expect(said(neutralRule(place, deviceOf(), needs()))).toEqual(expected);
    expect(neutralRule(place, deviceOf(), needs({ neutral: false }))).toEqual([]);
  });

  test.each<[PlaceFacts['ground'], string[], string[]]>([
    ['present', [], []],
    ['looks', ['unproved ground.by-colour'], []],
    ['unknown', ['unproved ground.unknown'], ['unproved ground.unknown']],
    ['absent', ['block ground.absent'], ['unproved ground.local-code']],
    ['doubtful', ['block ground.doubtful'], ['unproved ground.doubtful']],
  ])('a ground that is %s, required or recommended', (ground, required, recommended) => {
    const place = { ...placeOf(), ground };
    const device = (need: Device['needs']['ground']) =>
      deviceOf({ needs: { ...deviceOf().needs, ground: need } });
    expect(said(groundRule(place, device('required')))).toEqual(required);
    expect(said(groundRule(place, device('recommended' as never)))).toEqual(recommended);
    expect(groundRule(place, device('none'))).toEqual([]);
  });

  test.each<[number, string[]]>([
    [120, []],
    [100, []],
    [99.9, ['block voltage.outside']],
    [240, ['block voltage.outside']],
  ])('%d V on a device of 100 to 130 V', (volts, expected) => {
    const place = placeOf((job) => {
      for (const circuit of job.circuits) circuit.volts = volts;
    });
    expect(said(voltageRule(place, deviceOf({ volts: [100, 130] }), needs()))).toEqual(expected);
  });

  test('of two circuits in question the wrong one may not be the one; with none nobody knows', () => {
    const [circuit] = placeOf().circuits;
    if (!circuit) throw new Error('the pantry has a circuit');
    const two = { ...placeOf(), circuits: [circuit, { ...circuit, id: 'x', volts: 240 }] };
    expect(said(voltageRule(two, deviceOf({ volts: [100, 130] }), needs()))).toEqual([
      'unproved voltage.outside',
    ]);
    expect(said(voltageRule({ ...two, circuits: [] }, deviceOf(), needs()))).toEqual([
      'unproved voltage.no-circuit',
    ]);
  });

  test.each<[Pick<PlaceFacts, 'line' | 'load'>, boolean, string[]]>([
    [{ line: 'present', load: 'present' }, false, []],
    [{ line: 'absent', load: 'present' }, false, ['block line-load.no-line']],
    [{ line: 'unknown', load: 'present' }, false, ['unproved line-load.line-unknown']],
    [{ line: 'unknown', load: 'unknown' }, true, []],
    [{ line: 'absent', load: 'absent' }, false, ['block line-load.no-line', 'block line-load.no-load']],
    [{ line: 'absent', load: 'absent' }, true, ['block line-load.no-line']],
    [{ line: 'doubtful', load: 'present' }, true, ['block line-load.line-doubtful']],
  ])('%j, interchangeable %s', (found, interchangeableLineLoad, expected) => {
    const device = deviceOf({ interchangeableLineLoad });
    expect(said(lineLoadRule({ ...placeOf(), ...found }, device, needs()))).toEqual(expected);
  });
});

describe('space', () => {
  test('a device wider than what is free beside its place', () => {
    const place = placeOf((job) => {
      const [box] = job.boxes;
      if (box) box.enclosure.gangs = 1;
    });
    expect(gangsRule(place, deviceOf({ gangs: 1 }))).toEqual([]);
    expect(gangsRule(place, deviceOf({ gangs: 2 }))[0]).toMatchObject({ facts: { gangs: 2, free: 1 } });
  });

  test.each([
    [0, ['unproved depth.not-read']],
    [200, []],
    [20, ['block depth.too-deep']],
  ])('a box %d mm deep', (depth, expected) => {
    const place = placeOf((job) => {
      const [box] = job.boxes;
      if (box) box.enclosure = { ...box.enclosure, depth, rings: [], setBack: 0 };
    });
    expect(said(depthRule(place, deviceOf()))).toEqual(expected);
  });

  test('depth that is met exactly is met', () => {
    const device = deviceOf();
    const probe = depthRule(
      placeOf((job) => {
        const [box] = job.boxes;
        if (box) box.enclosure = { ...box.enclosure, depth: 1, rings: [], setBack: 0 };
      }),
      device,
    )[0];
    const needed = Number(probe?.facts.needed);
    const exact = placeOf((job) => {
      const [box] = job.boxes;
      if (box) box.enclosure = { ...box.enclosure, depth: needed, rings: [], setBack: 0 };
    });
    expect(depthRule(exact, device)).toEqual([]);
  });

  test('a body larger than a measured opening', () => {
    const place = placeOf((job) => {
      const [box] = job.boxes;
      if (box)
        box.enclosure.capacity = {
          from: 'measured',
          width: 40,
          height: 60,
          depth: 50,
        } as Box['enclosure']['capacity'];
    });
    const body = { width: 39, height: 60, depth: 20 };
    expect(bodyRule(place, deviceOf({ gangs: 1, body }))).toEqual([]);
    expect(said(bodyRule(place, deviceOf({ gangs: 1, body: { ...body, height: 61 } })))).toEqual([
      'block body.too-large',
    ]);
  });
});

describe('plate', () => {
  const beside = (device: Partial<Device> | undefined) => [
    {
      position: { ...(placeOf().position as Position), index: 2 },
      device: device === undefined ? undefined : deviceOf(device),
    },
  ];
  const twoGangs = { ...placeOf().box, enclosure: { ...placeOf().box.enclosure, gangs: 2 } };

  test('alone in its box nothing has to go with it', () => {
    expect(plateNeighbours(placeOf())).toEqual([]);
    expect(plateRule(deviceOf({ ownPlate: true }), [], twoGangs)).toEqual([]);
  });

  test.each<[Partial<Device>, Partial<Device> | undefined, string[]]>([
    [{ opening: 'tall' as never }, { opening: 'round' as never }, ['block plate.opening']],
    [{ opening: 'tall' as never }, { opening: 'tall' as never }, []],
    [{ opening: 'tall' as never }, undefined, []],
    [{ ownPlate: true, family: 'a' }, { ownPlate: false, family: 'a' }, ['block plate.own']],
    [{ ownPlate: true, family: 'a' }, { ownPlate: true, family: 'a' }, []],
    [{ ownPlate: true, family: 'a' }, { ownPlate: true, family: 'b' }, ['block plate.own']],
    [{ ownPlate: true, gangs: 2 }, {}, []],
  ])('%j beside %j', (device, other, expected) => {
    const own = deviceOf({ gangs: 1, opening: undefined as never, ...device });
    const there = other && { opening: undefined as never, ...other };
    expect(said(plateRule(own, beside(there), twoGangs))).toEqual(expected);
  });

  test('whites of two makers differ; what nobody recorded does not', () => {
    const shade = (value: string) => ({ shade: value }) as Partial<Device>;
    expect(said(shadeRule(deviceOf(shade('bright')), beside(shade('ivory'))))).toEqual(['warn shade.other']);
    expect(shadeRule(deviceOf(shade('bright')), beside(shade('bright')))).toEqual([]);
    expect(shadeRule(deviceOf(shade('bright')), beside(undefined))).toEqual([]);
  });

  test.each([
    [5, 6, []],
    [5, 6.1, ['warn flush.proud']],
    [5, 3.9, ['warn flush.proud']],
  ])('faces %d and %d mm proud', (proud, other, expected) => {
    expect(said(flushRule(deviceOf({ faceProud: proud }), beside({ faceProud: other })))).toEqual(expected);
  });
});

describe('network', () => {
  test.each<[Partial<Device>, Job['brief'], string[]]>([
    [{ radio: 'none' }, {}, ['block radio.none']],
    [{ radio: 'wifi' }, { radios: ['mesh'] }, ['block radio.not-wanted']],
    [{ radio: 'mesh' }, { radios: ['mesh'] }, []],
    [{ radio: 'wifi', wifiBands: ['2.4'] }, { wifi: { band24: false } }, ['block radio.no-band']],
    [{ radio: 'wifi', wifiBands: ['2.4', '5'] }, { wifi: { band24: false } }, []],
  ])('%j for %j', (device, wanted, expected) => {
    expect(said(radioRule(brief(wanted), deviceOf(device)))).toEqual(expected);
  });

  test.each<[Box['signal'], string[]]>([
    [undefined, ['unproved signal.not-read']],
    [{ bars: 3 }, []],
    [{ bars: 2 }, []],
    [{ bars: 1 }, ['unproved signal.weak']],
    [{ bars: 0 }, ['block signal.none']],
  ])('Wi-Fi with %j', (signal, expected) => {
    const place = placeOf((job) => {
      const [box] = job.boxes;
      if (!box) return;
      box.enclosure.material = 'plastic';
      if (signal) box.signal = signal;
      else delete box.signal;
    });
    expect(said(signalRule(place, deviceOf({ radio: 'wifi' })))).toEqual(expected);
  });

  const hub = { id: 'h', name: 'Hub', deviceLimit: 2, price: 100, wired: false } as Hub;
  const withHub = (more: Job['brief'] = {}) =>
    placeOf((job) => {
      job.catalogue.hubs = [hub];
      job.brief = more;
      job.selections = [];
    });
  const onHub = deviceOf({ radio: 'mesh', hubId: 'h' });

  test.each<[number, string[], number, string[]]>([
    [1, [], 0, ['note hub.to-buy']],
    [1, ['h'], 0, []],
    [1, [], 1, []],
    [1, [], 2, ['block hub.full']],
    [3, ['h'], 0, ['block hub.full']],
  ])('%i more on a hub of two, owned %j, %i there', (here, hubsOwned, there, expected) => {
    const { known } = withHub({ hubsOwned });
    const elsewhere = { wifi: 0, onHub: new Map(there > 0 ? [['h', there]] : []) };
    const devices = Array.from({ length: here }, () => onHub);
    expect(said(hubRule(known, devices, elsewhere))).toEqual(expected);
  });

  test.each<[number, number, string[]]>([
    [5, 10, []],
    [7, 10, []],
    [8, 10, ['warn router.near-limit']],
    [9, 10, ['warn router.near-limit']],
    [10, 10, ['block router.full']],
  ])('one Wi-Fi device more beside %i of %i clients', (clientsNow, clientLimit, expected) => {
    const { known } = withHub({ wifi: { clientsNow, clientLimit } });
    const here = [deviceOf({ radio: 'wifi' })];
    expect(said(routerRule(known, here, { wifi: 0, onHub: new Map() }))).toEqual(expected);
  });

  test('an unwired hub still to be bought is a client of the router too; one that is owned was counted', () => {
    const wifi = { clientsNow: 9, clientLimit: 9 };
    const nothing = { wifi: 0, onHub: new Map<string, number>() };
    expect(said(routerRule(withHub({ wifi }).known, [onHub], nothing))).toEqual(['block router.full']);
    expect(routerRule(withHub({ wifi, hubsOwned: ['h'] }).known, [onHub], nothing)).toEqual([]);
  });

  test('what is planned at the place itself is not elsewhere', () => {
    const place = placeOf();
    expect(networkElsewhere(place)).toEqual({ wifi: 0, onHub: new Map() });
  });
});

describe('load', () => {
  const lamp: Load = {
    id: 'l',
    name: 'Lamp',
    roomId: 'r',
    kind: 'led',
    count: 4,
    wattsEach: 10,
    dimmable: true,
  };
  const channel = (more: Partial<Channel> = {}): Channel => ({
    id: 1,
    kind: 'dimmer',
    ratings: [{ kinds: ['led', 'resistive'], limit: [100], unit: 'W' }],
    ...more,
  });
  const rules = (load: Partial<Load> | null, more: Partial<Channel> = {}, device: Partial<Device> = {}) => {
    const parts: string[] = [];
    const place = { ...placeOf(), loads: load === null ? [] : [{ ...lamp, ...load }] };
    const reasons = loadRules(place, deviceOf({ channels: [channel(more)], ...device }), 'single', parts, 0);
    return { said: said(reasons), parts, reasons };
  };

  test.each<[Partial<Load> | null, Partial<Channel>, string[]]>([
    [{}, {}, []],
    [null, {}, ['unproved load-kind.unknown']],
    [{ count: 11 }, {}, ['block rating.over']],
    [{ count: 10 }, {}, ['warn rating.margin']],
    [{ count: 8 }, {}, []],
    [{ dimmable: false }, {}, ['block dimmable.not']],
    [{ kind: 'resistive', dimmable: false }, { kind: 'relay' }, []],
    [{ kind: 'electronic' }, {}, ['block load-kind.unrated']],
  ])('%j on %j', (load, more, expected) => {
    expect(rules(load, more).said).toEqual(expected);
  });

  test('whether a lamp can be dimmed that nobody looked at is not proved; of filaments it is known', () => {
    const untold = { dimmable: undefined as never };
    expect(rules(untold).said).toEqual(['unproved dimmable.unknown']);
    expect(rules({ ...untold, kind: 'resistive' }).said).toEqual([]);
  });

  test('the figures of a channel that is over are in the finding', () => {
    expect(rules({ count: 11 }).reasons[0]?.facts).toMatchObject({
      percent: 110,
      quantity: 110,
      limit: 100,
      unit: 'W',
      limitPercent: 100,
      marginPercent: 80,
    });
  });

  test('a control without a channel needs something that switches elsewhere', () => {
    expect(rules({}, {}, { channels: [] }).said).toEqual(['block channels.none']);
    expect(rules(null, {}, { channels: [] }).said).toEqual([]);
  });

  test('two loads on one wire reach a device together', () => {
    const two = [lamp, { ...lamp, id: 'm', name: 'Other' }];
    const device = deviceOf({ channels: [channel(), channel({ id: 2 })] });
    const place = { ...placeOf(), loads: two };
    expect(said(loadRules({ ...place, oneWire: false }, device, 'single', [], 0))).toEqual([]);
    expect(said(loadRules({ ...place, oneWire: true }, device, 'single', [], 0))).toEqual([
      'block channels.one-wire',
    ]);
  });

  test.each<[string | undefined, string | undefined, string[]]>([
    ['a', 'a', []],
    [undefined, 'a', ['unproved bulb-family.unknown']],
    ['b', 'a', ['block bulb-family.other']],
  ])('bulbs of family %s under a control for %s', (bulbFamily, family, expected) => {
    const bulbs = { ...lamp, kind: 'smart-bulb', ...(bulbFamily ? { bulbFamily } : {}) } as Load;
    const device = deviceOf({ bulbController: true, bulbFamilies: [family] as never });
    expect(said(loadRules({ ...placeOf(), loads: [bulbs] }, device, 'bulb-controller', [], 0))).toEqual(
      expected,
    );
  });
});
