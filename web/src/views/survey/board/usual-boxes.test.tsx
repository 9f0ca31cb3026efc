import '@testing-library/jest-dom/jest-globals';
import { type Box, type Job, newBox } from '@inventario/core';
import { beforeEach, describe, expect, test } from '@jest/globals';
import { fireEvent, screen, waitFor, within } from '@testing-library/react';
import { ownPresets } from '../../../data/own-presets.js';
import { dialog, press, shown } from '../../../test-support/by-hand.js';
import { exampleJob } from '../../../test-support/example-job.js';
import { SurveyView } from '../survey.js';

/** The box of the pantry, labelled, and an empty one beside it. */
function twoBoxes(): Job {
  const job = exampleJob('pantry');
  const [first] = job.boxes as [Box];
  const empty = newBox(
    { id: 'new', roomId: first.roomId, name: 'Entry, new', order: 9 },
    'us',
    first.circuitIds,
  );
  return { ...job, boxes: [first, { ...empty, signal: { bars: 4 } }] };
}
const at = (job: Job, boxId: string) => shown(job, <SurveyView />, `/box/${boxId}`, '/box/:boxId');
const made = (job: Job) => job.boxes.find(({ id }) => id === 'new') as Box;

beforeEach(() => localStorage.clear());

/** One of the entries behind "More for this box". */
async function pickMore(name: RegExp) {
  press('More for this box');
  fireEvent.click(await screen.findByRole('menuitem', { name }));
}

describe('usual boxes', () => {
  test('a preset is taken from its drawing; nothing in it is called feed or lamp yet', async () => {
    const { job: now } = await at(twoBoxes(), 'new');
    press(/^Power at the switch Two cables/);
    expect(made(now()).conductors).toHaveLength(6);
    expect(made(now()).cables.every(({ label }) => label === undefined)).toBe(true);
    expect(await screen.findByRole('button', { name: /^A cable cable A/ })).toBeInTheDocument();
  });

  test('like that one: conductors and joints of their own, its labels as guesses', async () => {
    const job = twoBoxes();
    const [like] = job.boxes as [Box];
    const { job: now } = await at(job, 'new');
    await pickMore(/^Like that one/);
    press(like.name, await dialog());
    const box = made(now());
    expect(box.conductors).toHaveLength(like.conductors.length);
    expect(box.labels).toEqual([]);
    expect(box.guesses?.map(({ role }) => role)).toEqual(like.labels.map(({ role }) => role));
    const ids = new Set(like.conductors.map(({ id }) => id));
    expect(box.guesses?.some(({ conductorId }) => ids.has(conductorId))).toBe(false);
  });

  test('a box is kept as one of mine, offered in another, and deleted again', async () => {
    const job = twoBoxes();
    const [like] = job.boxes as [Box];
    await at(job, like.id);
    await pickMore(/^Keep as a usual box of mine/);
    expect(ownPresets('us').map(({ name }) => name)).toEqual([like.name]);
    expect(JSON.stringify(ownPresets('us'))).not.toContain(job.loads[0]?.id);
  });

  test('one of mine is taken like that box; another practice does not see it', async () => {
    const job = twoBoxes();
    const [like] = job.boxes as [Box];
    localStorage.setItem(
      'own-presets',
      JSON.stringify([
        { id: 'p', name: 'Old pantry', practice: 'us', box: { ...like, labels: [], readings: [] } },
        { id: 'q', name: 'Broken', practice: 'us', box: { id: 'q' } },
        { id: 'r', name: 'Elsewhere', practice: 'gb', box: like },
      ]),
    );
    const { job: now } = await at(job, 'new');
    expect(screen.queryByText('Broken')).toBeNull();
    expect(screen.queryByText('Elsewhere')).toBeNull();
    press(/^Old pantry/);
    await waitFor(() => expect(made(now()).conductors).toHaveLength(like.conductors.length));
  });

  test('a kept one is deleted from the list', async () => {
    const job = twoBoxes();
    const [like] = job.boxes as [Box];
    localStorage.setItem(
      'own-presets',
      JSON.stringify([{ id: 'p', name: 'Old pantry', practice: 'us', box: like }]),
    );
    await at(job, 'new');
    press('Delete Old pantry from my usual boxes');
    await waitFor(() => expect(screen.queryByRole('button', { name: /^Old pantry/ })).toBeNull());
    expect(ownPresets('us')).toEqual([]);
  });
});

describe('the table of the same data', () => {
  test('says each conductor with its mark and how surely, and takes it into the hand', async () => {
    const job = twoBoxes();
    const [box] = job.boxes as [Box];
    await at(job, box.id);
    press('Table');
    const table = await screen.findByRole('table', { name: 'Conductors' });
    const rows = within(table).getAllByRole('row').slice(1);
    expect(rows).toHaveLength(box.conductors.length);
    fireEvent.click(within(rows[0] as HTMLElement).getAllByRole('button')[0] as HTMLElement);
    expect(await screen.findByRole('button', { name: 'Put it down' })).toBeInTheDocument();
    press('Drawing');
    expect(document.querySelectorAll('[data-conductor]')).toHaveLength(box.conductors.length);
  });
});
