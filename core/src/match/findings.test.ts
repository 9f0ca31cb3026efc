import { describe, expect, test } from '@jest/globals';
import { sentence } from '../findings/words/reasons.js';
import { settling } from '../findings/words/settling.js';
import type { Device } from '../job/schema/catalogue.js';
import type { Job } from '../job/schema/job.js';
import type { Box } from '../job/schema/survey.js';
import { assignChannels } from '../loads/channels.js';
import { exampleJob } from '../test-support/examples.js';
import { matchJob } from './match.js';

/** The verdict of a device at the first place of a changed example, with its reasons as `outcome code`. */
function judged(
  name: string,
  change: (job: Job, box: Box) => void,
  of: { deviceId?: string; strategy?: string; boxId?: string } = {},
) {
  const job = exampleJob(name);
  change(job, job.boxes[0] as Box);
  const place = matchJob(job).find((entry) => of.boxId === undefined || entry.boxId === of.boxId);
  const candidate = place?.devices.find(
    (entry) => entry.deviceId === (of.deviceId ?? 'pw-20') && entry.strategy === (of.strategy ?? 'single'),
  );
  if (!candidate) throw new Error(`${name} has no such candidate`);
  const said = candidate.reasons.map((reason) => `${reason.outcome} ${reason.code}`);
  const texts = candidate.reasons.map((reason) => sentence(reason, job.practice));
  return { verdict: candidate.verdict, said, texts, reasons: candidate.reasons };
}

const relabel = (box: Box, conductorId: string, more: Partial<Box['labels'][number]>) => {
  box.labels = box.labels.map((label) => (label.conductorId === conductorId ? { ...label, ...more } : label));
};

describe('what counts as a finding', () => {
  test('a role that readings confirm counts where nobody labelled it', () => {
    expect(
      judged('pantry', (_, box) => {
        box.labels = [];
      }).said.filter((reason) => !reason.includes('ground')),
    ).toEqual([]);
    const blind = judged('pantry', (_, box) => {
      box.labels = [];
      box.readings = [];
    });
    expect(blind.said).toContain('unproved line-load.line-unknown');
  });

  test('a white labelled line on in a joint of neutrals: nothing fits, and the label is named', () => {
    const { verdict, said, texts } = judged('pantry', (_, box) => {
      box.readings = [];
      relabel(box, 'pantry-lamps-white', { role: 'line-on' });
    });
    expect(verdict).toBe('no');
    expect(said).toEqual(expect.arrayContaining(['unproved hazard.stop', 'block neutral.doubtful']));
    expect(texts.join(' ')).toContain('is joined with what is labelled as another net');
  });

  test('line and load labelled the wrong way round, against readings that confirm them: stopped, and the reading is said', () => {
    const { verdict, said, texts, reasons } = judged('pantry', (_, box) => {
      relabel(box, 'pantry-feed-black', { role: 'load', loadIds: ['l-pantry'], circuitId: undefined });
      relabel(box, 'pantry-lamps-black', { role: 'line', loadIds: undefined, circuitId: 'c4' });
    });
    expect(verdict).toBe('no');
    expect(said).toEqual(
      expect.arrayContaining(['block line-load.line-doubtful', 'block line-load.load-doubtful']),
    );
    expect(texts.join(' ')).toMatch(/a reading contradicts it: .*pantry|a reading contradicts it: /);
    expect(reasons.every((reason) => reason.outcome !== 'block' || settling(reason) !== null)).toBe(true);
  });

  test('travelers labelled before their group was made are of the only group in the box', () => {
    const verdicts = (change: (job: Job) => void) => {
      const job = exampleJob('stairs');
      change(job);
      return matchJob(job).map(({ boxId, devices }) => [
        boxId,
        devices.map(({ deviceId, strategy, verdict }) => [deviceId, strategy, verdict]),
      ]);
    };
    const before = verdicts((job) => {
      for (const box of job.boxes)
        box.labels = box.labels.map((label) => {
          const { groupId, ...rest } = label;
          return label.role === 'traveler' ? rest : label;
        });
    });
    expect(before).toEqual(verdicts(() => {}));
  });

  test('a neutral shared by circuits of one common trip is the neutral of each of them', () => {
    const shared = (commonTrip: boolean | undefined) =>
      judged(
        'shed',
        (job, box) => {
          job.circuits = job.circuits.map((circuit) => ({
            ...circuit,
            sharesNeutralWith: job.circuits.flatMap(({ id }) => (id === circuit.id ? [] : [id])),
            ...(commonTrip === undefined ? {} : { commonTrip }),
          }));
          box.labels = box.labels.map((label) =>
            label.role === 'neutral' ? { ...label, circuitId: 'c6' } : label,
          );
        },
        { deviceId: 'pw-15' },
      );
    expect(shared(true)).toMatchObject({ verdict: 'fits', said: [] });
    expect(shared(undefined).said).toContain('block neutral.other-circuit');
  });
});

describe('what stops work stops a verdict', () => {
  test.each([
    ['scorch', 'unproved', 'unproved hazard.stop'],
    ['aluminium', 'no', 'block hazard.aluminium'],
  ] as const)('%s', (hazard, verdict, said) => {
    const result = judged('pantry', (_, box) => {
      box.hazards = [hazard];
    });
    expect(result).toMatchObject({ verdict, said: [said] });
    expect(
      judged('pantry', (job, box) => {
        box.hazards = [hazard];
        job.events.push({
          id: 'put-right',
          kind: 'cleared',
          boxId: box.id,
          at: '2026-05-04T12:00:00Z',
          hazard,
        } as Job['events'][number]);
      }),
    ).toMatchObject({ verdict: 'fits', said: [] });
  });

  test('a wire that is live with its breaker off, found by a reading', () => {
    const { said } = judged('pantry', (_, box) => {
      box.readings.push({
        id: 'alive',
        at: '2026-05-05T09:00:00Z',
        tool: 'indicator',
        arrangement: 'in-place',
        breakers: { c4: 'off' },
        points: ['pantry-lamps-black'],
        value: 'alert',
      });
    });
    expect(said).toContain('unproved hazard.stop');
  });
});

describe('two loads of one position, each on a wire of its own', () => {
  /** The pantry's switch works a lamp and a fan, and a device of two channels is in the catalogue. */
  function fanAndLight(change: (job: Job, box: Box, device: Device) => void = () => {}) {
    return judged(
      'pantry',
      (job, box) => {
        box.readings = [];
        job.loads.push({
          id: 'l-fan',
          name: 'Pantry fan',
          roomId: 'entry',
          kind: 'exhaust-fan',
          count: 1,
          wattsEach: 40,
        });
        box.cables.push({ id: 'pantry-fan' });
        const [own] = box.conductors as [Box['conductors'][number]];
        box.conductors.push({
          ...own,
          id: 'pantry-fan-black',
          cableId: 'pantry-fan',
          at: { position: 1, terminal: 'b2' },
        });
        box.labels.push({ conductorId: 'pantry-fan-black', role: 'load', loadIds: ['l-fan'] });
        Object.assign(box.positions[0] as object, {
          existing: 'double-single-pole',
          loadIds: ['l-pantry', 'l-fan'],
        });
        const device = job.catalogue.devices.find(({ id }) => id === 'pw-20') as Device;
        const second = {
          ...device.channels[0],
          id: 2,
          ratings: [{ kinds: ['exhaust-fan', 'resistive'], limit: [200], unit: 'W' }],
        };
        device.channels = [device.channels[0], second] as Device['channels'];
        device.terminals.push({ id: 'LD2', role: 'load', form: 'lead', channel: 2 });
        change(job, box, device);
      },
      {},
    );
  }

  test('are two loads, not none: the device of two channels is offered', () => {
    expect(fanAndLight().said.filter((reason) => reason.startsWith('block'))).toEqual([]);
  });

  test('on one wire they cannot be controlled apart', () => {
    const { said } = fanAndLight((_, box) => {
      box.labels = box.labels.filter(({ conductorId }) => conductorId !== 'pantry-fan-black');
      relabel(box, 'pantry-lamps-black', { loadIds: ['l-pantry', 'l-fan'] });
      box.conductors = box.conductors.filter(({ id }) => id !== 'pantry-fan-black');
      box.cables = box.cables.filter(({ id }) => id !== 'pantry-fan');
    });
    expect(said).toContain('block channels.one-wire');
  });

  test('go to the channels that can carry them, whatever the order', () => {
    const rated = (id: number, kinds: string[], limit: number) => ({
      id,
      kind: 'relay',
      ratings: [{ kinds, limit: [limit], unit: 'W' }],
    });
    const device = {
      volts: [110, 127],
      channels: [rated(1, ['led'], 400), rated(2, ['led'], 50)],
    } as unknown as Device;
    const lamp = (id: string, watts: number) => ({
      id,
      name: id,
      roomId: 'r',
      kind: 'led' as const,
      count: 1,
      wattsEach: watts,
      powerFactor: 1,
    });
    for (const loads of [
      [lamp('small', 30), lamp('large', 300)],
      [lamp('large', 300), lamp('small', 30)],
    ])
      expect(
        assignChannels(device, loads, 0.8).fed.map(({ channel, loads: own }) => [channel.id, own[0]?.id]),
      ).toEqual([
        [1, 'large'],
        [2, 'small'],
      ]);
  });
});

test('dimming wished at one end of a stair counts at the other', () => {
  const wish = (job: Job) => {
    const head = job.boxes.find(({ id }) => id === 'head') as Box;
    const foot = job.boxes.find(({ id }) => id === 'foot') as Box;
    Object.assign(head.positions[0] as object, { need: { smart: true, dim: 'must' } });
    Object.assign(foot.positions[0] as object, { need: { smart: true, dim: 'no' } });
    for (const device of job.catalogue.devices)
      device.channels = device.channels.map((channel) => ({ ...channel, kind: 'relay' }));
  };
  const { said } = judged('stairs', wish, { boxId: 'foot', deviceId: 'pw-pair', strategy: 'both-ends' });
  expect(said).toContain('block need.dim');
});

test.each([
  ['dimmer', 'exhaust-fan', 'block load-kind.never'],
  ['fan-speed', 'resistive', 'block load-kind.never'],
  ['relay', 'fan-dc', 'warn load-kind.uneasy'],
] as const)('a %s channel before %s, whatever its record says', (kind, load, wanted) => {
  const { said } = judged('pantry', (job) => {
    Object.assign(job.loads[0] as object, { kind: load });
    const device = job.catalogue.devices.find(({ id }) => id === 'pw-20') as Device;
    device.channels = device.channels.map((channel) => ({
      ...channel,
      kind,
      ratings: channel.ratings.map((rating) => ({ ...rating, kinds: [...rating.kinds, load] })),
    }));
  });
  expect(said).toContain(wanted);
});
