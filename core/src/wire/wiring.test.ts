import { describe, expect, test } from '@jest/globals';
import { netWords, wiringFindingWords, wiringSentences } from '../findings/words/wiring.js';
import { lookup } from '../job/lookup.js';
import type { Device, Terminal } from '../job/schema/catalogue.js';
import type { Job } from '../job/schema/job.js';
import type { Box, Label } from '../job/schema/survey.js';
import { againstChoice } from '../match/against-choice.js';
import { exampleJob } from '../test-support/examples.js';
import { netName } from './once-wired.js';
import { type BoxWiring, wiringOfHouse } from './wiring.js';

const wired = (job: Job): BoxWiring[] => wiringOfHouse(lookup(job), againstChoice(lookup(job)));
const only = (job: Job): BoxWiring => wired(job)[0] as BoxWiring;
const codes = ({ findings }: BoxWiring) => findings.map(({ code }) => code);
const netsOf = ({ plan }: BoxWiring) =>
  Object.fromEntries(plan.joints.map(({ net, members }) => [netName(net), [...members].sort()]));

/** An example with one thing of its first box otherwise. */
function changed(name: string, change: (box: Box, job: Job) => void): Job {
  const job = structuredClone(exampleJob(name));
  change(job.boxes[0] as Box, job);
  return job;
}

const labelOf = (box: Box, id: string): Label =>
  box.labels.find(({ conductorId }) => conductorId === id) as Label;
const chosen = (job: Job, at = 0): Device =>
  job.catalogue.devices.find(({ id }) => id === job.selections[at]?.deviceId) as Device;
const terminals = (device: Device, more: Partial<Terminal>): void => {
  device.terminals = device.terminals.map((terminal) => ({ ...terminal, ...more }));
};

describe('one device', () => {
  test('with leads: a joint for each net, nothing made, nothing left over', () => {
    const wiring = only(exampleJob('pantry'));
    expect(netsOf(wiring)).toEqual({
      'line:c4': ['1.L', 'pantry-feed-black'],
      'load:l-pantry': ['1.LD', 'pantry-lamps-black'],
      'neutral:c4': ['1.N', 'pantry-feed-white', 'pantry-lamps-white'],
      ground: ['1.G', 'pantry-feed-bare', 'pantry-lamps-bare'],
    });
    expect([wiring.plan.made, wiring.plan.capped, wiring.ok, wiring.ready]).toEqual([[], [], true, true]);
  });

  test('with screws of one: what is alone lands, what is joined comes over a pigtail', () => {
    const { plan, ok } = only(
      changed('pantry', (_box, job) => terminals(chosen(job), { form: 'screw', holds: 1 })),
    );
    const landed = Object.fromEntries(
      plan.landed.map(({ terminal, conductorId }) => [terminal, conductorId]),
    );
    expect(landed['1.L']).toBe('pantry-feed-black');
    expect(landed['1.LD']).toBe('pantry-lamps-black');
    expect(plan.made.map(({ to }) => to).sort()).toEqual(['1.G', '1.N']);
    expect(plan.made.map(({ id }) => id)).toContain(landed['1.N']);
    expect(ok).toBe(true);
  });

  test('with screws that hold three: all of a net on one; a ground never runs on through a device', () => {
    const { plan, ok } = only(
      changed('pantry', (_box, job) => terminals(chosen(job), { form: 'clamp', holds: 3 })),
    );
    expect(
      plan.landed.filter(({ terminal }) => terminal === '1.N').map(({ conductorId }) => conductorId),
    ).toEqual(['pantry-feed-white', 'pantry-lamps-white']);
    expect(plan.joints.map(({ net }) => net)).toEqual(['ground']);
    expect(ok).toBe(true);
  });

  test('without a ground terminal: a lone earth ends on the box’s own screw', () => {
    const job = changed('pantry', (box, of) => {
      const device = chosen(of);
      device.terminals = device.terminals.filter(({ role }) => role !== 'ground');
      device.needs = { ...device.needs, ground: 'none' };
      box.enclosure = { ...box.enclosure, material: 'metal', grounded: false };
      box.conductors = box.conductors.filter(({ id }) => id !== 'pantry-lamps-bare');
      box.labels = box.labels.filter(({ conductorId }) => conductorId !== 'pantry-lamps-bare');
    });
    const { plan, ok } = only(job);
    expect(plan.landed).toContainEqual({ terminal: 'box', conductorId: 'pantry-feed-bare' });
    expect(ok).toBe(true);
  });

  test('in a metal box that nothing was bonded to: a pigtail bonds it', () => {
    const job = changed('pantry', (box) => {
      box.enclosure = { ...box.enclosure, material: 'metal', grounded: false };
    });
    const { plan, ok } = only(job);
    expect(plan.made).toMatchObject([{ kind: 'pigtail', to: 'box', net: 'ground' }]);
    expect(plan.landed).toContainEqual({ terminal: 'box', conductorId: plan.made[0]?.id });
    expect(ok).toBe(true);
  });

  test('an unused lead is capped, and a part at the fitting stands with its load', () => {
    const job = changed('pantry', (_box, of) => {
      const device = chosen(of);
      device.terminals.push({ id: 'S', role: 'sense', form: 'lead', optional: true });
      of.catalogue.parts.push(
        { id: 'by', name: 'Bypass', kind: 'bypass', price: 1, where: 'fitting' },
        { id: 'cap', name: 'Capacitor', kind: 'capacitor', price: 1, where: 'box' },
      );
      of.selections = of.selections.map((selection) => ({ ...selection, with: ['by', 'cap'] }));
    });
    const wiring = only(job);
    expect(wiring.plan.capped).toEqual(['1.S']);
    expect(wiring.plan.wired.atFitting).toEqual([{ loadId: 'l-pantry', partId: 'by' }]);
    expect(netsOf(wiring)['load:l-pantry']).toContain('1.cap.1');
    expect(netsOf(wiring)['neutral:c4']).toContain('1.cap.2');
    expect(wiring.ok).toBe(true);
  });
});

describe('what the findings do not tell', () => {
  test('is named, and its lead is capped', () => {
    const job = changed('pantry', (box) => {
      box.labels = box.labels.filter(({ conductorId }) => conductorId !== 'pantry-lamps-black');
      box.readings = [];
    });
    const wiring = only(job);
    expect(wiring.ok).toBe(false);
    expect(codes(wiring)).toContain('unidentified');
    expect(wiring.plan.capped).toEqual(expect.arrayContaining(['1.LD', 'pantry-lamps-black']));
    const [finding] = wiring.findings.filter(({ code }) => code === 'unidentified');
    expect(finding && wiringFindingWords(wiring, finding, lookup(job))).toMatch(
      /not identified: test|being identified/,
    );
  });

  test('counts as told where the readings confirm it', () => {
    const job = changed('pantry', (box) => {
      box.labels = [];
    });
    const wiring = only(job);
    expect(wiring.ok).toBe(true);
    expect(netsOf(wiring)['neutral:c4']).toContain('1.N');
  });

  test('a label that a reading contradicts stops the plan, and says so', () => {
    const job = changed('pantry', (box) => {
      labelOf(box, 'pantry-lamps-black').role = 'line';
      labelOf(box, 'pantry-lamps-black').loadIds = [];
    });
    expect(codes(only(job))).toContain('contradicted');
    expect(only(job).ok).toBe(false);
  });

  test('a neutral of another circuit is never borrowed', () => {
    const job = changed('shed', (box) => {
      for (const label of box.labels)
        if (label.role === 'neutral' && label.circuitId === 'c6') label.role = 'spare';
    });
    const wiring = only(job);
    expect(codes(wiring)).toContain('borrowed-neutral');
    expect(wiring.plan.capped).toContain('2.N');
    expect(wiring.plan.terminals.get('1.N')).toBe('neutral:c5');
  });

  test('what was joined with others and is known to nobody is not cut off unsaid', () => {
    const job = changed('galley', (box) => {
      box.labels = box.labels.filter(({ conductorId }) => conductorId !== 'galley-on-white');
    });
    const wiring = only(job);
    expect(wiring.ok).toBe(false);
    expect(wiring.findings).toContainEqual(
      expect.objectContaining({ code: 'unidentified', about: ['galley-on-white'] }),
    );
  });
});

describe('several devices', () => {
  test('a shared neutral is pigtailed to each, on whatever holds it', () => {
    const job = changed('shed', (box, of) => {
      of.circuits = of.circuits.map((circuit) => ({
        ...circuit,
        sharesNeutralWith: [circuit.id === 'c5' ? 'c6' : 'c5'],
        commonTrip: true,
      }));
      for (const label of box.labels) if (label.role === 'neutral') label.circuitId = 'c5';
      for (const device of of.catalogue.devices) terminals(device, { form: 'clamp', holds: 4 });
    });
    const { plan, ok } = only(job);
    for (const terminal of ['1.N', '2.N'])
      expect(plan.landed.filter((entry) => entry.terminal === terminal)).toHaveLength(1);
    expect(ok).toBe(true);
  });

  test('two circuits never meet but in the ground', () => {
    const nets = Object.keys(netsOf(only(exampleJob('shed'))));
    for (const net of ['line:c5', 'line:c6', 'neutral:c5', 'neutral:c6']) expect(nets).toContain(net);
  });
});

describe('a stair', () => {
  const strategyOf = (job: Job, strategy: Job['selections'][number]['strategy'], far: string | null) => {
    const main = chosen(job);
    main.multiLocation = [
      { strategy, mainAt: 'either', partner: { line: true, neutral: false, travelers: 0 }, middle: 'tie' },
    ];
    job.selections = job.selections.map((selection, at) => ({
      ...selection,
      strategy,
      deviceId: at === 0 ? main.id : far,
    }));
    return job;
  };

  test('with a companion: one traveler for its signal, the other capped at both ends', () => {
    const [foot, head] = wired(exampleJob('stairs')) as [BoxWiring, BoxWiring];
    expect(netsOf(foot)['traveler:stairs:1']).toEqual(['1.T', 'foot-link-red']);
    expect(netsOf(head)['traveler:stairs:1']).toEqual(['1.T', 'head-link-red']);
    expect([foot.plan.capped, head.plan.capped]).toEqual([['foot-link-white'], ['head-link-white']]);
  });

  test('tied through where the main device has its own: all of the link is capped at the far end', () => {
    const [foot, head] = wired(strategyOf(exampleJob('stairs'), 'tie-through', null)) as [
      BoxWiring,
      BoxWiring,
    ];
    expect([foot.ok, head.ok]).toEqual([true, true]);
    expect(head.plan.capped).toEqual(
      expect.arrayContaining(['head-link-black', 'head-link-red', 'head-link-white']),
    );
  });

  test('a neutral over the white traveler is said, and marked at both ends', () => {
    const job = exampleJob('stairs');
    const main = chosen(job);
    main.multiLocation = [{ strategy: 'both-ends', partner: { line: true, neutral: true, travelers: 0 } }];
    job.selections = job.selections.map((selection) => ({
      ...selection,
      deviceId: main.id,
      strategy: 'both-ends',
    }));
    const [foot, head] = wired(job) as [BoxWiring, BoxWiring];
    expect(netsOf(head)['neutral:c2']).toEqual(['1.N', 'head-link-white']);
    expect(netsOf(foot)['neutral:c2']).toContain('foot-link-white');
    expect([foot, head].map(codes)).toEqual([['made-neutral'], ['made-neutral']]);
    expect([foot.ok, head.ok]).toEqual([true, true]);
    // It is the installer's to settle, by labelling that core.
    expect([foot.ready, head.ready]).toEqual([false, false]);
  });

  test('without a device at the far end, where the strategy wants one, is not ready in either box', () => {
    const job = exampleJob('stairs');
    job.selections = job.selections.slice(0, 1);
    const [foot] = wired(job) as [BoxWiring];
    expect(foot.ok).toBe(false);
    expect(codes(foot)).toContain('partner-not-chosen');
  });
});

test('read aloud it names every joint, by what one sees', () => {
  const job = exampleJob('pantry');
  const known = lookup(job);
  const wiring = only(job);
  const sentences = wiringSentences(wiring, known);
  expect(sentences).toHaveLength(wiring.plan.joints.length);
  for (const { net } of wiring.plan.joints)
    expect(sentences.some((sentence) => sentence.includes(netWords(net, known)))).toBe(true);
});
