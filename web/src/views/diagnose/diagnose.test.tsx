import '@testing-library/jest-dom/jest-globals';
import type { Job, JobEvent } from '@inventario/core';
import { beforeEach, describe, expect, jest, test } from '@jest/globals';
import { cleanup, fireEvent, screen, waitFor, within } from '@testing-library/react';
import { instant } from '../../data/ids.js';
import { press, shown } from '../../test-support/by-hand.js';
import { exampleJob } from '../../test-support/example-job.js';
import { DiagnoseView } from './diagnose.js';

const now = () => instant();
const diagnose = (events: object[] = [], place = 'bench/diagnose/1') => {
  const job: Job = { ...exampleJob('sail-loft'), events: events as JobEvent[] };
  return shown(job, <DiagnoseView />, `/box/${place}`, '/box/:boxId/diagnose/:position');
};

/** A tile of a kind. */
const touch = (question: string, answer: string) =>
  fireEvent.click(
    within(screen.getByRole('group', { name: question })).getByRole('button', { name: answer }),
  );
const causes = async () =>
  within((await screen.findAllByRole('region', { name: 'Causes' }))[0] as HTMLElement);

/** The bench’s breaker off, and the box proved with its device out. */
const proved = [
  { id: 'off-1', kind: 'switched', circuitId: 's4', state: 'off', at: now() },
  {
    id: 'proof-1',
    kind: 'proved',
    boxId: 'bench',
    stage: 'device-out',
    circuitIds: ['s4'],
    volts: 120,
    voltsAfter: 120,
    offs: { s4: 'off-1' },
    ons: { s4: 0, s1: 0, s2: 0, s5: 0 },
    at: now(),
  },
];

beforeEach(() => {
  Element.prototype.scrollIntoView = jest.fn();
});

describe('it does not work', () => {
  test('tiles, causes by what they show, and the test that splits them, closed until it is safe', async () => {
    await diagnose();
    expect(screen.queryByRole('region', { name: 'Causes' })).toBeNull();
    touch('Its light', 'lit');
    touch('Its key works the load', 'not at all');
    touch('The lamp, worked from the wall', 'never goes off');
    const list = await causes();
    expect(await list.findByText('Line and load touch, or are joined')).toBeInTheDocument();
    expect(list.getAllByText('Shows all of it').length).toBeGreaterThan(1);
    expect(screen.getByText('Best next test')).toBeInTheDocument();
    expect(screen.getByText(/^Not yet: first the box is dead/)).toBeInTheDocument();
    expect(screen.queryByRole('button', { name: 'Dark' })).toBeNull();
    // What is touched again is not known any more.
    touch('The lamp, worked from the wall', 'never goes off');
    await waitFor(() =>
      expect(
        within(screen.getByRole('group', { name: 'The lamp, worked from the wall' })).getByRole('button', {
          name: 'never goes off',
        }),
      ).toHaveAttribute('aria-pressed', 'false'),
    );
  });

  test('a result is kept with what was seen, moves the causes, and what it was is kept too', async () => {
    const scene = await diagnose(proved);
    touch('Its light', 'lit');
    touch('Its key works the load', 'not at all');
    touch('The lamp, worked from the wall', 'never goes off');
    // Dead and proved, it is switched on for the look; not before.
    expect(screen.queryByRole('button', { name: 'Dark' })).toBeNull();
    fireEvent.click(await screen.findByRole('button', { name: /^Record: switched on/ }));
    fireEvent.click(await screen.findByRole('button', { name: 'Dark' }));
    await waitFor(() =>
      expect(scene.job().events.slice(-2)).toMatchObject([
        { kind: 'tried', result: 'fails', symptoms: { indicator: 'on', control: 'none', load: 'on' } },
        { kind: 'tested', boxId: 'bench', position: 1, reading: { tool: 'lamp', value: 'dark' } },
      ]),
    );
    const box = scene.job().boxes.find(({ id }) => id === 'bench');
    expect(box?.readings).toEqual(exampleJob('sail-loft').boxes.find(({ id }) => id === 'bench')?.readings);
    expect(await screen.findByText('Read so far')).toBeInTheDocument();
    const list = await causes();
    fireEvent.click(await list.findByRole('button', { name: /The contact is welded/ }));
    expect(await screen.findByText('Switch off, take the device out, and prove dead.')).toBeInTheDocument();
    // It is on for the look: no hand goes in before it is off and proved anew.
    expect(screen.getByText('Not yet dead and proved')).toBeInTheDocument();
    press('It was this, and is put right');
    await waitFor(() =>
      expect(scene.job().events.at(-1)).toMatchObject({ kind: 'cause', cause: 'relay-welded', position: 1 }),
    );
  });

  test('a closed box whose breaker is on is no look: it is opened dead first', async () => {
    const mounted = { id: 'm1', kind: 'mounted', boxId: 'bench', at: now() };
    const on = { id: 'on-1', kind: 'switched', circuitId: 's4', state: 'on', at: now() };
    await diagnose([...proved, mounted, on]);
    touch('Its light', 'lit');
    touch('The lamp, worked from the wall', 'never goes off');
    expect(await screen.findByText(/^Not yet: first the box is dead/)).toBeInTheDocument();
    for (const name of ['Dark', 'Alert', 'Quiet']) expect(screen.queryByRole('button', { name })).toBeNull();
  });

  test('danger stops at once: no live test', async () => {
    await diagnose(proved);
    touch('To the hand and ear', 'hot');
    const stop = await screen.findByRole('alert', { name: 'Stop' });
    expect(stop).toHaveTextContent(/leave it off/);
    expect(screen.queryByText(/breaker \S+ on/)).toBeNull();
  });

  test('begins with what was told when it was tried', async () => {
    await diagnose([
      {
        id: 't1',
        kind: 'tried',
        boxId: 'bench',
        position: 1,
        result: 'fails',
        symptoms: { load: 'off' },
        at: now(),
      },
    ]);
    expect(
      within(screen.getByRole('group', { name: 'The lamp, worked from the wall' })).getByRole('button', {
        name: 'never comes on',
      }),
    ).toHaveAttribute('aria-pressed', 'true');
    expect(await screen.findAllByRole('region', { name: 'Causes' })).not.toHaveLength(0);
  });

  test('a place without a device on wires leads to pairing; one that is gone back to the work', async () => {
    const scene = await diagnose([], 'bench/diagnose/2');
    expect(await screen.findByText('No device on wires is planned here')).toBeInTheDocument();
    cleanup();
    scene.close();
    await diagnose([], 'bench/diagnose/9');
    expect(await screen.findByText('This place is not in the job any more')).toBeInTheDocument();
  });
});
