import '@testing-library/jest-dom/jest-globals';
import type { Job } from '@inventario/core';
import { describe, expect, test } from '@jest/globals';
import { fireEvent, screen, waitFor, within } from '@testing-library/react';
import { pickRadio, press, shown } from '../../test-support/by-hand.js';
import { exampleJob } from '../../test-support/example-job.js';
import { DayView } from './day.js';

const loft = (change: (job: Job) => void = () => undefined): Job => {
  const job = exampleJob('sail-loft');
  change(job);
  return job;
};
const day = (job = loft()) => shown(job, <DayView />, '/day');

/** The batch in which a box stands. */
const batchOf = (box: string) =>
  screen.getAllByRole('list', { name: /^Boxes of batch/ }).find((list) => within(list).queryByText(box));

/** A box by its menu into another batch. */
async function move(box: string, to: string) {
  fireEvent.click(screen.getByRole('button', { name: `Batch of ${box}` }));
  fireEvent.click(await screen.findByRole('menuitem', { name: to }));
}

describe('the day', () => {
  test('batches with their trips, circuits, times and who is without light; against box by box', async () => {
    await day(loft((job) => Object.assign(job, { run: { ...job.run, starts: '07:30' } })));
    expect((await screen.findAllByText('13 trips to the panel, box by box 22')).length).toBeGreaterThan(0);
    expect(screen.getByText('13 trips to the panel, not 22')).toBeInTheDocument();
    expect(screen.getByText('Fewer are not possible')).toBeInTheDocument();
    expect(screen.getByText(/^07:30 to /)).toBeInTheDocument();
    expect(screen.getAllByText(/^Without light/)).toHaveLength(2);
    expect(screen.getByText(/1 of them batch 1’s last/)).toBeInTheDocument();
  });

  test('the router is named, and pairing waits for it', async () => {
    await day(loft((job) => Object.assign(job, { brief: { ...job.brief, wifi: { routerCircuit: 's1' } } })));
    expect(await screen.findByText('The router goes dark too: pairing waits')).toBeInTheDocument();
    expect(screen.getByText(/after batch 1, when the router is back/)).toBeInTheDocument();
  });

  test('a box in another batch says what that costs; undone, the trips are as before', async () => {
    const scene = await day();
    await screen.findByText('Fewer are not possible');
    const [bench = ''] = scene
      .job()
      .boxes.filter(({ id }) => id === 'bench')
      .map(({ name }) => name);
    await move(bench, 'To a batch of its own');
    expect(await screen.findByText(/moved: \d+ trips? more\./)).toBeInTheDocument();
    expect(scene.job().run?.batches).toHaveLength(3);
    expect(await screen.findByText('The batches stand as somebody arranged them.')).toBeInTheDocument();
    press('Back to the fewest trips');
    await waitFor(() => expect(scene.job().run?.batches).toBeUndefined());
  });

  test('a box that feeds another stays where it is, and it is said why', async () => {
    const scene = await day();
    await screen.findByText('Fewer are not possible');
    const nameOf = (id: string) => scene.job().boxes.find((box) => box.id === id)?.name ?? '';
    const target = batchOf(nameOf('rack'))?.getAttribute('aria-label')?.replace('Boxes of batch ', '');
    await move(nameOf('door'), `To batch ${target}`);
    expect(await screen.findByText(/one of these boxes feeds the other/)).toBeInTheDocument();
    expect(scene.job().run?.batches).toBeUndefined();
  });

  test('how many are open, by how many hands, from when', async () => {
    const scene = await day();
    await screen.findByText('Fewer are not possible');
    press('One less');
    await waitFor(() => expect(scene.job().run?.openAtOnce).toBe(2));
    pickRadio('Installers', 'Two');
    await waitFor(() => expect(scene.job().run?.installers).toBe(2));
    expect((await screen.findAllByText(/second installer/)).length).toBeGreaterThan(0);
    fireEvent.change(screen.getByLabelText('Start'), { target: { value: '09:15' } });
    await waitFor(() => expect(scene.job().run?.starts).toBe('09:15'));
    fireEvent.click(screen.getByRole('switch', { name: 'Test before folding' }));
    await waitFor(() => expect(scene.job().run?.testBeforeFold).toBe(false));
  });

  test('before leaving: what is ready stays ticked', async () => {
    const scene = await day();
    await screen.findByText('Fewer are not possible');
    pickRadio('Page', 'Before leaving');
    const tester = await screen.findByRole('button', { name: /^Two-pole tester/ });
    expect(tester).toHaveAttribute('aria-pressed', 'false');
    fireEvent.click(tester);
    await waitFor(() => expect(scene.job().run?.ready).toEqual(['tester']));
    expect(screen.getByRole('button', { name: /^Two-pole tester/ })).toHaveAttribute('aria-pressed', 'true');
    expect(screen.getByRole('heading', { name: /Signal, before the power goes off/ })).toBeInTheDocument();
  });

  test('with everything mounted nothing is left', async () => {
    await day(
      loft((job) => {
        for (const { id } of job.boxes) job.events.push({ id: `m-${id}`, kind: 'mounted', boxId: id });
      }),
    );
    expect(await screen.findByText('Nothing is left to be worked on')).toBeInTheDocument();
  });
});
