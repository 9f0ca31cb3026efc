import '@testing-library/jest-dom/jest-globals';
import { type Box, type Job, newBox, presetContents } from '@inventario/core';
import { beforeEach, describe, expect, test } from '@jest/globals';
import { fireEvent, screen, waitFor, within } from '@testing-library/react';
import { pickListed, pickRadio, press, shown, type } from '../../../test-support/by-hand.js';
import { exampleJob } from '../../../test-support/example-job.js';
import { SurveyView } from '../survey.js';

/** A switch fed at the box, 20 A on its breaker, everything of the survey recorded but what the wires are. */
function oneBox(state: 'on' | 'off' | null, more: Partial<Box> = {}): Job {
  const job = exampleJob('pantry');
  const [circuit] = job.circuits;
  const [load] = job.loads;
  if (!circuit || !load) throw new Error('the pantry has a circuit and a load');
  let serial = 0;
  const fresh = newBox({ id: 'b', roomId: job.rooms[0]?.id ?? '', name: 'Door', order: 1 }, 'us');
  const box: Box = {
    ...fresh,
    ...presetContents({ preset: 'power-at-switch', practice: 'us', size: '12AWG' }, () => `c${++serial}`),
    enclosure: { ...fresh.enclosure, capacity: { from: 'marked', in3: 18 }, depth: 70 },
    circuitIds: [circuit.id],
    signal: { bars: 3 },
    ...more,
  };
  box.positions = box.positions.map((position) => ({
    ...position,
    loadIds: position.loadIds.length > 0 || more.positions ? position.loadIds : [load.id],
  }));
  const at = new Date().toISOString();
  const events = state ? [{ id: 'e1', kind: 'switched', circuitId: circuit.id, state, at }] : [];
  return {
    ...job,
    boxes: [box],
    circuits: [circuit],
    selections: [],
    groups: [],
    runs: [],
    pairings: [],
    events: events as Job['events'],
  };
}

const survey = (job: Job) => shown(job, <SurveyView />, '/box/b', '/box/:boxId');
const boxOf = (job: Job) => job.boxes[0] as Box;
const asked = (words: string | RegExp) =>
  waitFor(() => expect(screen.getAllByRole('status').some((at) => at.textContent?.match(words))).toBe(true));
const conductor = (at: number) =>
  document.querySelectorAll<HTMLElement>('[data-conductor]')[at] as HTMLElement;
const key = (name: string | RegExp) => screen.findByRole('button', { name });

beforeEach(() => localStorage.clear());

describe('the facts of a box, one touch each', () => {
  test('what the switch controls: a load of the room, or a new one named after room and kind', async () => {
    const job = oneBox('on', { positions: [{ index: 1, existing: 'single-pole', loadIds: [] }] });
    const { job: now } = await survey(job);
    await asked('What does the switch control?');
    press(/^New load/);
    press('heater');
    const name = `${job.rooms[0]?.name} heater`;
    expect(screen.getByText(name)).toBeInTheDocument();
    type('How many', 'many');
    expect(screen.getByRole('button', { name: 'Add it' })).toBeDisabled();
    type('How many', '2');
    type('Each', '750');
    press('Add it');
    const load = now().loads.at(-1);
    expect(load).toMatchObject({ name, kind: 'heater', count: 2, wattsEach: 750, roomId: boxOf(job).roomId });
    expect(boxOf(now()).positions[0]?.loadIds).toEqual([load?.id]);
  });

  test('signal as bars, or as dBm with the minus put before it', async () => {
    const { signal, ...rest } = boxOf(oneBox('on'));
    const job = {
      ...oneBox('on'),
      boxes: [
        {
          ...rest,
          positions: [{ index: 1, existing: 'single-pole' as const, loadIds: ['l'], need: { smart: true } }],
        },
      ],
    };
    job.loads = job.loads.map((load, at) => (at === 0 ? { ...load, id: 'l' } : load));
    const { job: now, undo } = await survey(job);
    await asked('Signal here');
    press('2 bars');
    expect(boxOf(now()).signal).toEqual({ bars: 2 });
    undo();
    await asked('Signal here');
    press(/^-123/);
    for (const digit of ['6', '4']) press(digit);
    press(/^Record 64/);
    expect(boxOf(now()).signal).toEqual({ rssi: -64 });
  });

  test('volume and depth as chips, typed where none fits; the line above says what was read', async () => {
    const fresh = newBox({ id: 'b', roomId: 'r', name: 'Door', order: 1 }, 'us');
    localStorage.setItem('box-mode', 'label');
    const { job: now } = await survey(oneBox('off', { enclosure: fresh.enclosure }));
    await asked('Volume and depth of the box');
    press(/^18\.00 in³.*marked/);
    await asked('Depth of the box');
    press(/^123 depth/);
    type(/^Depth inside/, '99');
    expect(screen.getByText('No switch box is that deep.')).toBeInTheDocument();
    type(/^Depth inside/, '2.75');
    press(/^Record 2.75/);
    expect(boxOf(now()).enclosure).toMatchObject({ capacity: { from: 'marked', in3: 18 }, depth: 69.85 });
    expect(screen.getByRole('button', { name: /^Enclosure .*2\.75 in deep/ })).toBeInTheDocument();
  });
});

describe('a test, step by step', () => {
  test('the lamp follows its switch: both states are written down at once', async () => {
    const job = oneBox('on');
    const { job: now } = await survey(job);
    await asked('Work the switch');
    press(/^follows it/);
    expect(boxOf(now()).readings.map(({ tool, value, switches }) => [tool, value, switches])).toEqual([
      ['lamp', 'lit', { '1': 'on' }],
      ['lamp', 'dark', { '1': 'off' }],
    ]);
  });

  test('a breaker is switched by the touch that says so; hands off is said once, before it goes on', async () => {
    const job = oneBox('off');
    const at = new Date().toISOString();
    job.events.push({ id: 'e2', kind: 'stands', boxId: 'b', state: 'device-out', position: 1, at } as never);
    const { job: now } = await survey(job);
    await asked('Prove it dead, device out');
    press('121 V');
    press(/under 5 V, 121 V again$/);
    await asked('Switch breaker');
    expect(screen.getByText(/Box guarded, house told, everyone clear/)).toBeInTheDocument();
    press(/^All clear, breaker .* is on$/);
    expect(now().events.at(-1)).toMatchObject({ kind: 'switched', state: 'on' });
    await asked('touch what alerts');
  });

  test('what alerted is touched, and every other conductor was quiet', async () => {
    const job = oneBox('on');
    const at = new Date().toISOString();
    job.events.push({ id: 'e2', kind: 'stands', boxId: 'b', state: 'device-out', position: 1, at } as never);
    const { job: now } = await survey(job);
    await asked('touch what alerts');
    fireEvent.click(conductor(3));
    const alive = boxOf(job).conductors[3]?.id;
    const readings = boxOf(now()).readings;
    expect(readings.map(({ value }) => value).sort()).toEqual(['alert', 'quiet', 'quiet', 'quiet']);
    expect(readings.find(({ value }) => value === 'alert')).toMatchObject({
      points: [alive],
      arrangement: 'device-out',
      position: 1,
    });
    await asked(/^(?!.*touch what alerts)/);
  });

  test('several that alert are touched one by one, and told together', async () => {
    const job = oneBox('on');
    const at = new Date().toISOString();
    job.events.push({ id: 'e2', kind: 'stands', boxId: 'b', state: 'device-out', position: 1, at } as never);
    const { job: now } = await survey(job);
    await asked('touch what alerts');
    press('Several alert');
    const tell = await key(/^0 alert/);
    expect(tell).toBeDisabled();
    fireEvent.click(conductor(0));
    fireEvent.click(conductor(3));
    press('2 alert, the other 2 quiet');
    expect(boxOf(now()).readings.filter(({ value }) => value === 'alert')).toHaveLength(2);
  });

  test('all quiet is one touch, and one step back', async () => {
    const job = oneBox('on');
    const at = new Date().toISOString();
    job.events.push({ id: 'e2', kind: 'stands', boxId: 'b', state: 'device-out', position: 1, at } as never);
    const { job: now, undo } = await survey(job);
    await asked('touch what alerts');
    press('All 4 quiet');
    expect(boxOf(now()).readings).toHaveLength(4);
    undo();
    expect(boxOf(now()).readings).toEqual([]);
  });

  test('what is put off makes room for the next, and is not lost', async () => {
    await survey(oneBox('on'));
    await asked('Work the switch');
    press(/^Later/);
    await asked(/^(?!.*Work the switch)/);
    press('Start this test', screen.getByRole('complementary', { name: 'Reckoning' }));
    await asked('Work the switch');
    expect(screen.queryByRole('button', { name: 'Start this test' })).toBeNull();
  });
});

describe('a reading of one’s own choice', () => {
  const inHand = async (job: Job) => {
    const scene = await survey(job);
    await asked(/./);
    press(/^Later/);
    fireEvent.click(conductor(0));
    await asked('Black, cable A, first from left');
    return scene;
  };

  test('alert with its breaker off is a wire live from elsewhere: stop, and no dead test', async () => {
    const job = oneBox('off');
    const { job: now } = await survey(job);
    fireEvent.click(conductor(0));
    press('alert');
    expect(boxOf(now()).readings).toMatchObject([
      { tool: 'indicator', value: 'alert', arrangement: 'in-place' },
    ]);
    expect(await screen.findByRole('heading', { name: /^Stop: / })).toBeInTheDocument();
    pickRadio('Instrument', 'ohms');
    expect(await screen.findByText(/Find what feeds it first/)).toBeInTheDocument();
  });

  test('with the device out and a breaker on: hands off first, in every step', async () => {
    const job = oneBox('on');
    const at = new Date().toISOString();
    job.events.push({ id: 'e2', kind: 'stands', boxId: 'b', state: 'device-out', position: 1, at } as never);
    const { job: now } = await inHand(job);
    expect(screen.queryByRole('button', { name: 'alert' })).toBeNull();
    press('All clear: read it from here');
    press('alert');
    expect(boxOf(now()).readings).toMatchObject([{ value: 'alert', arrangement: 'device-out' }]);
  });

  test('ohms are read dead: the proof stands where the result would', async () => {
    const { job: now } = await survey(oneBox('off'));
    fireEvent.click(conductor(0));
    pickRadio('Instrument', 'ohms');
    expect(await screen.findByText('Ohms are read dead. Prove it first.')).toBeInTheDocument();
    expect(screen.queryByRole('button', { name: 'open' })).toBeNull();
    expect(boxOf(now()).readings).toEqual([]);
  });

  test('a volt read goes in with both its points, typed where no key has it', async () => {
    const { job: now } = await inHand(oneBox(null));
    pickRadio('Instrument', 'volts');
    if (screen.queryByText('All clear: read it from here')) press('All clear: read it from here');
    await pickListed(/^To/, 'the box');
    press(/^123/);
    type(/^Voltage/, '9999');
    expect(screen.getByRole('alert')).toHaveTextContent(/No house of this supply shows more/);
    type(/^Voltage/, '48.5');
    press('Record 48.5 V');
    expect(boxOf(now()).readings).toMatchObject([
      { tool: 'volts', points: [conductorId(now()), 'box'], value: 48.5 },
    ]);
  });

  const conductorId = (job: Job) => boxOf(job).conductors[0]?.id;
});

describe('labels', () => {
  const labelling = async (job: Job) => {
    localStorage.setItem('box-mode', 'label');
    return survey(job);
  };

  test('marks by looks are accepted in one touch, and stay marked as taken by eye', async () => {
    const { job: now } = await labelling(oneBox('off'));
    await asked(/marks by looks/);
    press('Accept these marks');
    const { labels } = boxOf(now());
    expect(labels.length).toBeGreaterThanOrEqual(4);
    expect(labels.every(({ byEye }) => byEye)).toBe(true);
    // What could be either is not among them.
    expect(labels.some(({ role }) => role === 'line' || role === 'load')).toBe(false);
    expect(conductor(1)).toHaveAccessibleName(/: neutral, by eye$/);
  });

  test('a hazard at the box, and no mark is offered', async () => {
    await labelling(oneBox('off', { hazards: ['scorch'] }));
    await asked('Stop: scorch marks');
    expect(screen.queryByRole('button', { name: 'Accept these marks' })).toBeNull();
  });

  test('the dark cores first, by a key each; then whites and grounds as sets', async () => {
    const { job: now } = await labelling(oneBox('off'));
    await asked(/marks by looks/);
    press('One by one');
    await asked('Label Black, cable A, first from left');
    fireEvent.keyDown(document.body, { key: 'l' });
    await asked('Black, cable B, fourth from left');
    fireEvent.keyDown(document.body, { key: 's' });
    await asked(/^Label as neutral: the white of feed A and the white of load B/);
    press('All 2 are neutral');
    await asked(/^Label as ground/);
    press('All 2 are ground');
    expect(boxOf(now()).labels.map(({ role, byEye }) => [role, byEye === true])).toEqual([
      ['line', false],
      ['load', false],
      ['neutral', true],
      ['neutral', true],
      ['ground', true],
      ['ground', true],
    ]);
  });
});

describe('ends', () => {
  const moving = async () => {
    const scene = await survey(oneBox('off'));
    pickRadio('What a touch does', 'Move ends');
    return scene;
  };
  const end = (at: number) => document.querySelectorAll<HTMLElement>('[data-end]')[at] as HTMLElement;

  test('touched, then its place touched: a joint, another end, a cap', async () => {
    const { job: now } = await moving();
    fireEvent.click(end(0));
    await asked(/Where does it go\? Black, cable A/);
    press('Into joint 1');
    expect(boxOf(now()).conductors[0]?.at).toEqual(boxOf(now()).conductors[1]?.at);
    fireEvent.click(end(0));
    press(/^Cap/);
    expect(boxOf(now()).conductors[0]?.at).toEqual({ capped: true });
    fireEvent.click(end(0));
    fireEvent.click(end(3));
    expect(boxOf(now()).conductors[0]?.at).toEqual({ position: 1, terminal: 'b' });
  });

  test('two capped ends put together are a joint; a joint is split', async () => {
    const { job: now } = await moving();
    for (const at of [0, 3]) {
      fireEvent.click(end(at));
      press(/^Cap/);
    }
    const joints = boxOf(now()).joints.length;
    fireEvent.click(end(0));
    fireEvent.click(end(3));
    expect(boxOf(now()).joints).toHaveLength(joints + 1);
    expect(boxOf(now()).conductors[0]?.at).toEqual(boxOf(now()).conductors[3]?.at);
    press(/^Joint 1:/);
    fireEvent.click(
      within(screen.getByRole('group', { name: /Split off/ })).getAllByRole('checkbox')[0] as HTMLElement,
    );
    press('Split the joint');
    expect(boxOf(now()).conductors[1]?.at).not.toEqual(boxOf(now()).conductors[4]?.at);
  });

  test('left where it is, it stays', async () => {
    const { job: now } = await moving();
    const before = boxOf(now()).conductors;
    fireEvent.click(end(0));
    press('Leave it');
    expect(boxOf(now()).conductors).toEqual(before);
  });
});
