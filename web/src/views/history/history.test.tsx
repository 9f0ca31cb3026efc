import '@testing-library/jest-dom/jest-globals';
import { type Job, setParts } from '@inventario/core';
import { describe, expect, test } from '@jest/globals';
import { screen, waitFor } from '@testing-library/react';
import { press, shown } from '../../test-support/by-hand.js';
import { exampleJob } from '../../test-support/example-job.js';
import { HistoryView } from './history.js';

/** The history as the server has it: `null`, it is away. */
function history(job: Job, entries: object[] | null, search = '') {
  let away = entries === null;
  const scene = shown(job, <HistoryView />, `/history${search}`, '/history', (path) => {
    if (!path.includes('/history')) return null;
    if (away) return Promise.reject(new TypeError('network'));
    return Promise.resolve({
      ok: true,
      status: 200,
      headers: { get: () => null },
      json: async () => entries ?? [],
    } as unknown as Response);
  });
  return {
    scene,
    comeBack: () => {
      away = false;
    },
  };
}

const renamed = (job: Job, from: string) => {
  const [box] = job.boxes;
  if (!box) throw new Error('the job has a box');
  return {
    sequence: 4,
    at: '2026-05-04T09:12:00.000Z',
    deviceId: 'd-other',
    label: `Box named ${box.name}`,
    parts: setParts('box', box.id, { ...box, name: from }, { name: box.name }),
    inverse: setParts('box', box.id, box, { name: from }),
  };
};

describe('the history', () => {
  test('of a job nobody has changed says when it will say something', async () => {
    await history(exampleJob('pantry'), []).scene;
    expect(await screen.findByText('Nothing has been changed yet')).toBeInTheDocument();
  });

  test('is on the server: away, it says so and can be asked again', async () => {
    const { scene, comeBack } = history(exampleJob('pantry'), null);
    await scene;
    // It is asked for again by itself a few times before it gives up.
    expect(await screen.findByText('The history cannot be read now')).toBeInTheDocument();
    expect(screen.getByText('It is kept on the server, which is not reached.')).toBeInTheDocument();
    comeBack();
    press('Try again');
    expect(await screen.findByText('Nothing has been changed yet')).toBeInTheDocument();
  });

  test('names what was done', async () => {
    const job = exampleJob('pantry');
    await history(job, [renamed(job, 'Old name')]).scene;
    await waitFor(() => expect(screen.getAllByRole('listitem').length).toBeGreaterThan(0));
    expect(screen.getByText(/device ther$/)).toBeInTheDocument();
    expect(screen.getByText(new RegExp(`Box named ${job.boxes[0]?.name}`))).toBeInTheDocument();
  });
});
