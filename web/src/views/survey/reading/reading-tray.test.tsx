import '@testing-library/jest-dom/jest-globals';
import { type Box, conductorWords, type Job, newBox, presetContents } from '@inventario/core';
import { beforeEach, describe, expect, test } from '@jest/globals';
import { fireEvent, screen, waitFor, within } from '@testing-library/react';
import { useState } from 'react';
import { useJob } from '../../../data/job-context.js';
import { pickListed, pickRadio, press, shown } from '../../../test-support/by-hand.js';
import { exampleJob } from '../../../test-support/example-job.js';
import { type Bench, newBench } from './reading-state.js';
import { ReadingTray } from './reading-tray.js';

/** A switch fed at the box: a feed and a switched lamp, one breaker. */
function oneBox(state: 'on' | 'off' | null): Job {
  const job = exampleJob('pantry');
  const [circuit] = job.circuits;
  const [load] = job.loads;
  if (!circuit || !load) throw new Error('the pantry has a circuit and a load');
  let serial = 0;
  const box: Box = {
    ...newBox({ id: 'b', roomId: job.rooms[0]?.id ?? '', name: 'Door', order: 1 }, 'us'),
    ...presetContents({ preset: 'power-at-switch', practice: 'us', size: '14AWG' }, () => `c${++serial}`),
    circuitIds: [circuit.id],
    readings: [],
  };
  box.positions = box.positions.map((position) => ({ ...position, loadIds: [load.id] }));
  job.boxes = [box];
  job.circuits = [circuit];
  job.selections = [];
  job.groups = [];
  job.runs = [];
  job.pairings = [];
  job.events = [];
  if (state)
    job.events.push({
      id: 'e1',
      kind: 'switched',
      circuitId: circuit.id,
      state,
      at: new Date().toISOString(),
    } as Job['events'][number]);
  return job;
}

let bench: Bench;
function Tray({ first }: { first: Partial<Bench> }) {
  const { known } = useJob();
  const box = known.boxes.get('b') as Box;
  const [now, setNow] = useState<Bench>({ ...newBench(box), mode: 'read', ...first });
  bench = now;
  return <ReadingTray box={box} bench={now} roleOf={() => undefined} onBench={setNow} />;
}
const tray = (job: Job, first: Partial<Bench> = {}) => shown(job, <Tray first={first} />);
const held = (job: Job) => String(job.boxes[0]?.conductors[0]?.id);
/** The hands-off steps, each ticked. */
function standClear() {
  for (const step of screen.getAllByRole('checkbox')) fireEvent.click(step);
  press('Done: read it from here');
}

let job: Job;
beforeEach(() => {
  job = oneBox('off');
});

describe('the tray of a reading', () => {
  test('with nothing in hand asks for a conductor; lamps can be noted all the same', async () => {
    const { job: now } = await tray(job);
    expect(screen.getByText('Touch the conductor to read.')).toBeInTheDocument();
    const [load] = job.loads;
    press(`${load?.name} lit`);
    expect(now().boxes[0]?.readings).toMatchObject([{ tool: 'lamp', points: [load?.id], value: 'lit' }]);
    expect(now().boxes[0]?.readings[0]?.breakers).toEqual({ [String(job.circuits[0]?.id)]: 'off' });
  });

  test('the breakers stand as the power bar has them', async () => {
    await tray(oneBox(null));
    const list = screen.getByRole('list', { name: 'Breakers, from the power bar' });
    expect(within(list).getByText(/unknown/)).toBeInTheDocument();
  });

  test('quiet with its breaker off is recorded, with how the box stood', async () => {
    const { job: now } = await tray(job, { held: held(job) });
    const [box] = job.boxes;
    expect(
      screen.getByText(`On ${conductorWords(box as Box, held(job))}`, { exact: false }),
    ).toBeInTheDocument();
    press('quiet');
    expect(now().boxes[0]?.readings).toMatchObject([
      { tool: 'indicator', points: [held(job)], value: 'quiet', arrangement: 'in-place' },
    ]);
    expect(await screen.findByText('Recorded: quiet.')).toBeInTheDocument();
  });

  test('alert with its breaker off is a wire live from elsewhere: stop', async () => {
    await tray(job, { held: held(job) });
    press('alert');
    expect(await screen.findByText(/It is live with its breakers off: stop\./)).toBeInTheDocument();
    expect(await screen.findByRole('heading', { name: /^Stop: / })).toBeInTheDocument();
    // Ohms are read dead: not now.
    pickRadio('Instrument', 'ohms');
    expect(await screen.findByText(/Find what feeds it first/)).toBeInTheDocument();
  });

  test('one touch records the sweep of all the others', async () => {
    const { job: now } = await tray(job, { held: held(job) });
    press(/^Alert on this one, the other \d+ quiet$/);
    const readings = now().boxes[0]?.readings ?? [];
    expect(readings.filter(({ value }) => value === 'alert').map(({ points }) => points)).toEqual([
      [held(job)],
    ]);
    const quiet = readings.filter(({ value }) => value === 'quiet').flatMap(({ points }) => points);
    expect(quiet).not.toContain(held(job));
    expect(quiet.length).toBeGreaterThan(1);
    expect(new Set(quiet).size).toBe(quiet.length);
  });

  test('all quiet is one touch too, and one step back', async () => {
    const { job: now } = await tray(job, { held: held(job) });
    press(/^All \d+ quiet$/);
    expect((now().boxes[0]?.readings ?? []).every(({ value }) => value === 'quiet')).toBe(true);
    press('Undo');
    expect(now().boxes[0]?.readings).toEqual([]);
  });
});

describe('a breaker that is on, or may be', () => {
  test.each(['on', null] as const)(
    'recorded %s: hands off, each step, before anything is entered',
    async (state) => {
      const live = oneBox(state);
      const { job: now } = await tray(live, { held: held(live), arrangement: 'device-out' });
      expect(screen.queryByRole('button', { name: 'alert' })).toBeNull();
      const done = screen.getByRole('button', { name: 'Done: read it from here' });
      expect(done).toBeDisabled();
      const [first] = screen.getAllByRole('checkbox');
      fireEvent.click(first as HTMLElement);
      expect(done).toBeDisabled();
      fireEvent.click(first as HTMLElement);
      standClear();
      press('alert');
      expect(now().boxes[0]?.readings).toMatchObject([{ value: 'alert', arrangement: 'device-out' }]);
    },
  );

  test('what was gone through holds until a breaker is switched', async () => {
    const live = oneBox('on');
    await tray(live, { held: held(live), arrangement: 'device-out' });
    standClear();
    expect(bench.stoodClear).not.toBeNull();
    expect(screen.getByRole('button', { name: 'alert' })).toBeInTheDocument();
  });
});

describe('a meter', () => {
  test('ohms are read dead: the proof stands where the result would', async () => {
    await tray(job, { held: held(job), tool: 'ohms' });
    expect(screen.getByText('Ohms are read dead. Prove it first.')).toBeInTheDocument();
    expect(screen.getByText('Not proved dead.')).toBeInTheDocument();
    expect(screen.queryByText('Open')).toBeNull();
  });

  test('has another end: a known earth, the box, or a conductor of a cable', async () => {
    await tray(job, { held: held(job), tool: 'volts' });
    const others = job.boxes[0]?.conductors.filter(({ cableId, id }) => cableId && id !== held(job)) ?? [];
    fireEvent.click(screen.getByRole('button', { name: /^To/ }));
    const options = (await screen.findAllByRole('option')).map(({ textContent }) => textContent);
    expect(options).toHaveLength(2 + others.length);
    expect(options[0]).toBe('a known earth, by test lead');
    expect(options).not.toContain(conductorWords(job.boxes[0] as Box, held(job)));
  });

  test('a volt read goes in with both its points', async () => {
    const { job: now } = await tray(job, { held: held(job), tool: 'volts' });
    await pickListed(/^To/, 'the box');
    press('0');
    press('Record 0 V');
    await waitFor(() =>
      expect(now().boxes[0]?.readings).toMatchObject([
        { tool: 'volts', points: [held(job), 'box'], value: 0 },
      ]),
    );
  });
});

describe('how the box stands', () => {
  test('a lamp taken out, a switch set: both go into the reading', async () => {
    const { job: now } = await tray(job, { held: held(job) });
    const [load] = job.loads;
    fireEvent.click(screen.getByRole('switch', { name: `${load?.name} out` }));
    pickRadio('Switch', 'on');
    press('quiet');
    expect(now().boxes[0]?.readings[0]).toMatchObject({
      loads: { [String(load?.id)]: 'out' },
      switches: { '1': 'on' },
    });
    fireEvent.click(screen.getByRole('switch', { name: `${load?.name} out` }));
    expect(bench.out).toEqual([]);
  });

  test('with its device out a switch is no fact of the reading', async () => {
    await tray(job, { held: held(job), arrangement: 'device-out' });
    expect(screen.queryByRole('radiogroup', { name: 'Switch' })).toBeNull();
  });
});
