import '@testing-library/jest-dom/jest-globals';
import type { Job } from '@inventario/core';
import { describe, expect, test } from '@jest/globals';
import { screen, waitFor, within } from '@testing-library/react';
import { press, shown, type } from '../test-support/by-hand.js';
import { exampleJob } from '../test-support/example-job.js';
import { BoardView } from './board/board.js';
import { FiguresView } from './figures/figures.js';
import { FitView } from './fit/fit.js';
import { HouseView } from './house/house.js';
import { PanelView } from './panel/panel.js';
import { SurveyView } from './survey/survey.js';

const survey = (job: Job) => shown(job, <SurveyView />, `/box/${job.boxes[0]?.id}`, '/box/:boxId');

describe('a box being surveyed', () => {
  test('what is read off it is written down, and the count follows at once', async () => {
    const job = exampleJob('pantry');
    const { job: now } = await survey(job);
    await waitFor(() => expect(screen.getAllByText('OK').length).toBeGreaterThan(0));
    press(/^Enclosure/);
    type('Marked in the box, in³', '9');
    expect(now().boxes[0]?.enclosure.capacity).toMatchObject({ from: 'marked', in3: 9 });
    await waitFor(() => expect(screen.getAllByText(/exceeded/i).length).toBeGreaterThan(0));
    type('Depth inside', '2.5');
    expect(now().boxes[0]?.enclosure.depth).toBeCloseTo(63.5, 1);
  });

  test('a slip is said at the field, and what stood before stands', async () => {
    const { job: now } = await survey(exampleJob('pantry'));
    const before = now().boxes[0]?.enclosure.depth;
    press(/^Enclosure/);
    type('Depth inside', 'deep');
    expect(screen.getByText('This is not a number.')).toBeInTheDocument();
    expect(now().boxes[0]?.enclosure.depth).toBe(before);
  });

  test('its name and what it is fed by', async () => {
    const { job: now } = await survey(exampleJob('pantry'));
    type('Box', 'By the shelves');
    expect(now().boxes[0]?.name).toBe('By the shelves');
  });

  test('a box that is gone says so', async () => {
    await shown(exampleJob('pantry'), <SurveyView />, '/box/none', '/box/:boxId');
    expect(screen.getByText('This box is not in the job any more')).toBeInTheDocument();
  });
});

describe('the house', () => {
  test('a room is added, renamed and taken out with what hangs on it', async () => {
    const job = exampleJob('pantry');
    const { job: now } = await shown(job, <HouseView />);
    press('Add a room');
    let dialog = await screen.findByRole('dialog');
    press(/^Add the room/, dialog);
    expect(await within(dialog).findByRole('alert')).toBeInTheDocument();
    type('Name', 'Loft', dialog);
    press(/^Add the room/, dialog);
    await waitFor(() => expect(now().rooms).toHaveLength(2));
    press('Delete Loft');
    expect(now().rooms).toHaveLength(1);
    press('Job details');
    dialog = await screen.findByRole('dialog');
    type('Name', '', dialog);
    press('Done', dialog);
    expect(await within(dialog).findByRole('alert')).toHaveTextContent('Give the job a name');
    expect(now().name).toBe(job.name);
  });
});

describe('the board', () => {
  test('rooms down, stages across; a choice against advice is marked', async () => {
    const job = exampleJob('pantry');
    const [selection] = job.selections;
    if (selection) selection.against = 'the client insists';
    await shown(job, <BoardView />);
    expect(await screen.findByRole('row', { name: /^Entry/ })).toBeInTheDocument();
    expect(screen.getByRole('region', { name: 'Against advice' })).toHaveTextContent('the client insists');
  });
  test('an empty house says what to do', async () => {
    const job = exampleJob('pantry');
    Object.assign(job, { rooms: [], boxes: [], loads: [], selections: [], photos: [], events: [] });
    await shown(job, <BoardView />);
    expect(await screen.findByText('An empty house')).toBeInTheDocument();
  });
});

test('the panel shows each breaker with what is known of it', async () => {
  const job = exampleJob('shed');
  job.events.push({
    id: 'e1',
    kind: 'switched',
    circuitId: job.circuits[0]?.id as string,
    state: 'off',
    at: '2026-05-04T09:12:00Z',
  });
  await shown(job, <PanelView />);
  const panel = screen.getByRole('region', { name: /panel$/ });
  expect(within(panel).getAllByRole('listitem').length).toBeGreaterThanOrEqual(2);
  expect(panel).toHaveTextContent(/off/);
});

describe('fit', () => {
  test('the box that does not close stands first, and opens to its ways out', async () => {
    const job = exampleJob('galley');
    await shown(job, <FitView />, '/fit/galley', '/fit/:boxId?');
    const chart = await screen.findByRole('table', { name: 'Boxes by their trouble' });
    expect(within(chart).getAllByRole('row')[1]).toHaveTextContent('box fill exceeded');
    expect(await screen.findByRole('list', { name: 'Ways out' })).toBeInTheDocument();
  });
});

describe('figures', () => {
  test('a figure of the job’s own is set with its note and given back', async () => {
    const { job: now } = await shown(exampleJob('pantry'), <FiguresView />);
    press('Set our own: Volume a conductor of 12 AWG counts');
    const dialog = await screen.findByRole('dialog');
    type('In this job', '2.5', dialog);
    press('Use it in this job', dialog);
    expect(await within(dialog).findByRole('alert')).toHaveTextContent('Say why, with its source.');
    type('Why, with its source', 'The county counts more', dialog);
    press('Use it in this job', dialog);
    await waitFor(() =>
      expect(now().overrides).toMatchObject([
        { figure: 'fill.allowance.12AWG', note: 'The county counts more' },
      ]),
    );
    press(/^Back to the usual figure/);
    expect(now().overrides ?? []).toEqual([]);
  });
});
