import '@testing-library/jest-dom/jest-globals';
import { describe, expect, test } from '@jest/globals';
import { fireEvent, screen, waitFor, within } from '@testing-library/react';
import { press, shown } from '../test-support/by-hand.js';
import { exampleJob } from '../test-support/example-job.js';
import { FlagsView } from '../views/flags/flags.js';
import { Walk } from './walk.js';

describe('the walk', () => {
  test('goes room by room, and each box says what holds it up', async () => {
    const job = exampleJob('pantry');
    await shown(job, <Walk />);
    const [room] = job.rooms;
    const section = screen.getByRole('region', { name: String(room?.name) });
    const stop = within(section).getByRole('link');
    expect(stop).toHaveAttribute('href', `/jobs/${job.id}/box/${job.boxes[0]?.id}`);
    await waitFor(() => expect(stop).not.toHaveTextContent('being worked out'));
    expect(within(stop).getByRole('img')).toHaveAccessibleName(/\d of \d stages done/);
  });

  test('a box is added where one stands, on the same breaker, and opened', async () => {
    const job = exampleJob('pantry');
    const { job: now } = await shown(job, <Walk />);
    press(`Add a box to ${job.rooms[0]?.name}`);
    expect(now().boxes).toHaveLength(2);
    expect(now().boxes[1]).toMatchObject({ roomId: job.rooms[0]?.id, conductors: [] });
    expect(now().boxes[1]?.circuitIds).toEqual(job.boxes[0]?.circuitIds);
    expect(await screen.findByText('elsewhere')).toBeInTheDocument();
  });

  test('one like the last has its cables, under ids of its own', async () => {
    const job = exampleJob('pantry');
    const { job: now } = await shown(job, <Walk />);
    fireEvent.click(screen.getByRole('button', { name: /like/ }));
    const [old, made] = now().boxes;
    expect(made?.conductors).toHaveLength(old?.conductors.length ?? 0);
    const ids = new Set(old?.conductors.map(({ id }) => id));
    expect(made?.conductors.some(({ id }) => ids.has(id))).toBe(false);
    expect(made?.readings).toEqual([]);
  });

  test('a room folds to one line with what it holds, and opens again', async () => {
    const job = exampleJob('pantry');
    await shown(job, <Walk />);
    const head = screen.getByRole('button', { name: new RegExp(`^${job.rooms[0]?.name}`) });
    const section = screen.getByRole('region', { name: String(job.rooms[0]?.name) });
    expect(within(section).getByRole('link')).toBeInTheDocument();
    fireEvent.click(head);
    expect(within(section).queryByRole('link')).toBeNull();
    expect(head).toHaveTextContent(/, 1 box$/);
    fireEvent.click(head);
    expect(within(section).getByRole('link')).toBeInTheDocument();
  });

  test('with no room yet says where they come from', async () => {
    const job = { ...exampleJob('pantry'), rooms: [], boxes: [], loads: [], selections: [], pairings: [] };
    await shown(job, <Walk />);
    expect(screen.getByText(/No rooms yet/)).toBeInTheDocument();
  });
});

describe('flags', () => {
  const flags = (job = exampleJob('pantry')) =>
    shown(job, <FlagsView />, `/flags/${job.boxes[0]?.id}`, '/flags/:boxId');

  test('one for each label, with its breaker', async () => {
    const job = exampleJob('pantry');
    await flags(job);
    const strip = screen.getByRole('list', { name: 'Flags' });
    expect(within(strip).getAllByRole('listitem')).toHaveLength(job.boxes[0]?.labels.length ?? 0);
    expect(strip).toHaveTextContent(`breaker ${job.circuits[0]?.breaker}`);
  });

  test('the way back as found is ticked end by end', async () => {
    await flags();
    const [back] = screen.getAllByRole('region', { name: 'Put back as found' });
    const ends = within(back as HTMLElement).getAllByRole('checkbox');
    expect(back).toHaveTextContent(`0 of ${ends.length} ends`);
    fireEvent.click(ends[0] as HTMLElement);
    fireEvent.click(ends[1] as HTMLElement);
    fireEvent.click(ends[0] as HTMLElement);
    expect(back).toHaveTextContent(`1 of ${ends.length} ends`);
  });

  test('none yet says so', async () => {
    const job = exampleJob('pantry');
    for (const box of job.boxes) box.labels = [];
    await flags(job);
    expect(screen.getByText('No conductor of this box is labelled yet.')).toBeInTheDocument();
  });
});
