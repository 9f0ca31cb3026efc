import '@testing-library/jest-dom/jest-globals';
import type { Circuit, Job } from '@inventario/core';
import { describe, expect, test } from '@jest/globals';
import { screen, waitFor, within } from '@testing-library/react';
import { dialog, press, shown } from '../../test-support/by-hand.js';
import { exampleJob } from '../../test-support/example-job.js';
import { PanelView } from './panel.js';

/** A panel of so many breakers, and one box of which nobody knows what feeds it. */
function panelOf(count: number, change: (circuits: Circuit[]) => void = () => {}): Job {
  const job = exampleJob('pantry');
  const [first] = job.circuits;
  const [box] = job.boxes;
  if (!first || !box) throw new Error('the pantry has a circuit and a box');
  job.circuits = Array.from({ length: count }, (_, at) => ({
    ...first,
    id: `k${at + 1}`,
    breaker: String(at + 1),
    label: `Circuit ${at + 1}`,
  }));
  change(job.circuits);
  job.boxes = [{ ...box, circuitIds: [], labels: [], readings: [] }];
  job.events = [];
  job.runs = [];
  job.selections = [];
  job.pairings = [];
  return job;
}

describe('the panel', () => {
  test('without a breaker leads to where it is read', async () => {
    await shown(panelOf(0), <PanelView />);
    expect(screen.getByText('No breakers recorded')).toBeInTheDocument();
    expect(screen.getByRole('button', { name: 'Which breaker is it?' })).toBeDisabled();
  });

  test('hangs as on the wall: odd ones left, even ones right', async () => {
    await shown(panelOf(5), <PanelView />);
    const panel = screen.getByRole('region', { name: /panel$/ });
    const [left, right] = within(panel).getAllByRole('list');
    const numbers = (list: HTMLElement | undefined) =>
      within(list as HTMLElement)
        .getAllByRole('listitem')
        .map(({ textContent }) => /\d+/.exec(textContent ?? '')?.[0]);
    expect(numbers(left)).toEqual(['1', '3', '5']);
    expect(numbers(right)).toEqual(['2', '4']);
  });

  test('breakers that share a neutral stand side by side', async () => {
    const job = panelOf(5, (circuits) => {
      const [first, , , , fifth] = circuits;
      if (first && fifth) first.sharesNeutralWith = [fifth.id];
    });
    await shown(job, <PanelView />);
    const [left] = within(screen.getByRole('region', { name: /panel$/ })).getAllByRole('list');
    const labels = within(left as HTMLElement)
      .getAllByRole('listitem')
      .map(({ textContent }) => /Circuit (\d)/.exec(textContent ?? '')?.[1]);
    expect(labels).toEqual(['1', '5', '3']);
  });
});

describe('which breaker is it', () => {
  test('half of those in question go off, look by look, until one is left; what was switched is in the log', async () => {
    const job = panelOf(4);
    const { job: now } = await shown(job, <PanelView />);
    press('Which breaker is it?');
    const said = await dialog();
    expect(said).toHaveTextContent('4 breakers in question; at most 2 more looks.');
    press('Gone', said);
    expect(said).toHaveTextContent('2 breakers in question; at most 1 more looks.');
    expect(now().events.filter(({ kind }) => kind === 'switched')).toHaveLength(4);
    press('Still alive', said);
    const record = await within(said).findByRole('button', { name: /^Record: / });
    const breaker = /breaker (\d)/.exec(record.textContent ?? '')?.[1];
    record.click();
    await waitFor(() => expect(now().boxes[0]?.circuitIds).toEqual([`k${breaker}`]));
    expect(now().events.at(-1)).toMatchObject({ kind: 'traced', circuitId: `k${breaker}` });
    await waitFor(() => expect(screen.queryByRole('dialog')).toBeNull());
  });

  test('an answer can be taken back', async () => {
    await shown(panelOf(4), <PanelView />);
    press('Which breaker is it?');
    const said = await dialog();
    expect(within(said).queryByRole('button', { name: 'Take the last answer back' })).toBeNull();
    press('Gone', said);
    press('Take the last answer back', said);
    expect(said).toHaveTextContent('4 breakers in question');
  });

  test('says that gone is not dead', async () => {
    await shown(panelOf(2), <PanelView />);
    press('Which breaker is it?');
    expect(await dialog()).toHaveTextContent('Gone is not dead: prove it at the box');
  });
});
