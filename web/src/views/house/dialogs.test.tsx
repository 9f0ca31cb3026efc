import '@testing-library/jest-dom/jest-globals';
import { roomsInOrder } from '@inventario/core';
import { describe, expect, test } from '@jest/globals';
import { fireEvent, screen, waitFor, within } from '@testing-library/react';
import { LoadDialog } from '../../parts/load-dialog.js';
import { closeList, dialog, pickListed, pickRadio, press, shown, type } from '../../test-support/by-hand.js';
import { exampleJob } from '../../test-support/example-job.js';
import { laidOut } from '../../test-support/laid-out.js';
import { HouseView } from './house.js';

describe('a room', () => {
  test('without a name is not kept, and says so at its field', async () => {
    const { job: now } = await shown(exampleJob('stairs'), <HouseView />);
    const before = now().rooms.length;
    press('Add a room');
    const form = await dialog();
    type('Name', '   ', form);
    press('Add the room', form);
    expect(await within(form).findByRole('alert')).toHaveTextContent('Give the room a name.');
    expect(within(form).getByLabelText('Name')).toHaveAttribute('aria-invalid', 'true');
    type('Name', 'Boot room', form);
    await waitFor(() => expect(within(form).queryByRole('alert')).toBeNull());
    press('Add the room', form);
    await waitFor(() => expect(now().rooms).toHaveLength(before + 1));
    const last = now().rooms.at(-1);
    expect(last).toMatchObject({ name: 'Boot room', floor: 0 });
    expect(last?.order).toBeGreaterThan(
      Math.max(
        ...now()
          .rooms.slice(0, -1)
          .map(({ order }) => order),
      ),
    );
  });

  test('a floor that is no whole number holds it up; nothing typed is lost', async () => {
    const { job: now } = await shown(exampleJob('stairs'), <HouseView />);
    const before = now().rooms.length;
    press('Add a room');
    const form = await dialog();
    type('Name', 'Turret', form);
    type('Floor', '1.5', form);
    press('Add the room', form);
    expect(await within(form).findByRole('alert')).toHaveTextContent(/whole/);
    expect(now().rooms).toHaveLength(before);
    expect(within(form).getByLabelText('Name')).toHaveValue('Turret');
    type('Floor', '2', form);
    press('Add the room', form);
    await waitFor(() => expect(now().rooms.at(-1)).toMatchObject({ name: 'Turret', floor: 2 }));
  });

  test('stands where it is moved to, by the keyboard', async () => {
    const job = exampleJob('stairs');
    job.rooms = ['One', 'Two', 'Three'].map((name, at) => ({ id: `r${at}`, name, floor: 0, order: at + 1 }));
    job.boxes = [];
    job.groups = [];
    job.runs = [];
    job.loads = [];
    job.selections = [];
    job.events = [];
    job.pairings = [];
    const { job: now } = await shown(job, <HouseView />);
    laidOut();
    const handle = screen.getByRole('button', { name: 'Move Two' });
    handle.focus();
    fireEvent.keyDown(handle, { code: 'Space' });
    await screen.findByText('Two, place 2 of 3.');
    await new Promise((done) => setTimeout(done, 0));
    fireEvent.keyDown(document, { code: 'ArrowUp' });
    await screen.findByText('Two, place 1 of 3.');
    fireEvent.keyDown(document, { code: 'Space' });
    const walked = () => roomsInOrder(now()).map(({ name }) => name);
    await waitFor(() => expect(walked()).toEqual(['Two', 'One', 'Three']));
  });
});

describe('a load', () => {
  test('is what the client calls it, of a kind, in a room', async () => {
    const job = exampleJob('pantry');
    const { job: now } = await shown(job, <HouseView />);
    press('Add a load');
    const form = await dialog();
    press('Add the load', form);
    expect(await within(form).findByRole('alert')).toHaveTextContent('a name the client would use');
    type('Name', 'Shelf strip', form);
    await pickListed(/^Kind/, 'filament lamps', form);
    type('How many', '3', form);
    type('Each', '4.5', form);
    pickRadio('Can it be dimmed?', 'yes, marked so', form);
    press('Add the load', form);
    await waitFor(() =>
      expect(now().loads.at(-1)).toMatchObject({
        name: 'Shelf strip',
        roomId: job.rooms[0]?.id,
        kind: 'resistive',
        count: 3,
        wattsEach: 4.5,
        dimmable: true,
      }),
    );
  });

  test('changed: what is not known is not written down as no', async () => {
    const job = exampleJob('pantry');
    const [load] = job.loads;
    if (!load) throw new Error('the pantry has a load');
    load.dimmable = true;
    const { job: now } = await shown(job, <LoadDialog id={load.id} onClose={() => {}} />);
    const form = await dialog();
    expect(within(form).getByRole('radio', { name: 'yes, marked so' })).toBeChecked();
    pickRadio('Can it be dimmed?', 'not known', form);
    press('Done', form);
    await waitFor(() => expect(now().loads[0]).not.toHaveProperty('dimmable'));
  });

  test('a new one is handed to whoever asked for it', async () => {
    const made: string[] = [];
    const { job: now } = await shown(
      exampleJob('pantry'),
      <LoadDialog id={null} onClose={() => {}} onMade={(id) => made.push(id)} />,
    );
    const form = await dialog();
    type('Name', 'Heater', form);
    press('Add the load', form);
    await waitFor(() => expect(made).toEqual([now().loads.at(-1)?.id]));
  });
});

describe('a circuit', () => {
  test('begins as the practice has it, and what nobody looked at stays untold', async () => {
    const { job: now } = await shown(exampleJob('pantry'), <HouseView />);
    press('Add a circuit');
    const form = await dialog();
    press('Add the circuit', form);
    expect(await within(form).findByRole('alert')).toHaveTextContent('Give the breaker its number.');
    type('Breaker', '21', form);
    type(/^Label/, 'Loft', form);
    press('Add the circuit', form);
    await waitFor(() => expect(now().circuits.at(-1)).toMatchObject({ breaker: '21', label: 'Loft' }));
    const made = now().circuits.at(-1);
    expect(made).toMatchObject({ amps: 15, volts: 120 });
    for (const untold of ['poles', 'protection', 'source', 'isolatesNeutral'])
      expect(made).not.toHaveProperty(untold);
  });

  test('no amperes are no circuit', async () => {
    const { job: now } = await shown(exampleJob('pantry'), <HouseView />);
    const before = now().circuits.length;
    press('Add a circuit');
    const form = await dialog();
    type('Breaker', '22', form);
    type('Rating', '0', form);
    press('Add the circuit', form);
    expect(await within(form).findByRole('alert')).toHaveTextContent('A circuit has amperes above 0.');
    type('Rating', 'much', form);
    expect(await within(form).findByText('This is not a number.')).toBeInTheDocument();
    press('Add the circuit', form);
    await waitFor(() =>
      expect(within(form).getByLabelText('Rating')).toHaveAttribute('aria-invalid', 'true'),
    );
    expect(now().circuits).toHaveLength(before);
  });

  test('a neutral shared is shared both ways, and given up both ways', async () => {
    const job = exampleJob('pantry');
    const [first] = job.circuits;
    if (!first) throw new Error('the pantry has a circuit');
    job.circuits = [
      { ...first, id: 'a', breaker: '1', label: 'A' },
      { ...first, id: 'b', breaker: '3', label: 'B', sharesNeutralWith: ['a'] },
    ];
    job.boxes = [];
    job.selections = [];
    job.events = [];
    const { job: now } = await shown(job, <HouseView />);
    const circuits = screen.getByRole('region', { name: 'Circuits' });
    press(/^1\b/, circuits);
    const form = await dialog();
    // Only the other one says so; it holds here all the same.
    expect(within(form).getByRole('button', { name: /^Shares its neutral with/ })).toHaveTextContent('3 B');
    fireEvent.click(within(form).getByRole('button', { name: /^Shares its neutral with/ }));
    fireEvent.click(await screen.findByRole('option', { name: '3 B' }));
    await closeList();
    press('Done', form);
    await waitFor(() => expect(now().circuits[1]?.sharesNeutralWith).toEqual([]));
    expect(now().circuits[0]?.sharesNeutralWith ?? []).toEqual([]);
  });
});

describe('the job', () => {
  test('an address emptied is absent, and the practice brings its edition', async () => {
    const job = exampleJob('pantry');
    job.address = '4 Fir Lane';
    const { job: now } = await shown(job, <HouseView />);
    press('Job details');
    const form = await dialog();
    type('Address', '', form);
    type('Client', 'Ada', form);
    pickRadio('Practice', /^Canad/i, form);
    press('Done', form);
    await waitFor(() => expect(now()).not.toHaveProperty('address'));
    expect(now().client).toMatchObject({ name: 'Ada' });
    expect(now().practice).toBe('ca');
  });
});
