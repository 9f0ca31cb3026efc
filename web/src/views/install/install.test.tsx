import '@testing-library/jest-dom/jest-globals';
import { holderOf, type Job, type JobEvent } from '@inventario/core';
import { afterEach, beforeEach, describe, expect, jest, test } from '@jest/globals';
import { fireEvent, screen, waitFor, within } from '@testing-library/react';
import { instant, thisDevice } from '../../data/ids.js';
import { press, shown, type } from '../../test-support/by-hand.js';
import { exampleJob } from '../../test-support/example-job.js';
import { InstallView } from './install.js';

const now = () => instant();

/** The pantry alone, its batch begun, with what else is recorded. */
function pantry(...more: JobEvent[]): Job {
  const batch = { id: 'b1', kind: 'batch', boxIds: ['pantry'], at: now() } as JobEvent;
  return { ...exampleJob('pantry'), events: [batch, ...more] };
}
const off: JobEvent = { id: 'off-1', kind: 'switched', circuitId: 'c4', state: 'off', at: now() };
const on: JobEvent = { id: 'on-1', kind: 'switched', circuitId: 'c4', state: 'on', at: now() };
const mounted: JobEvent = { id: 'm1', kind: 'mounted', boxId: 'pantry', at: now() };
const taken = (by: string): JobEvent => ({ id: 't1', kind: 'taken', boxId: 'pantry', by, at: now() });

const install = (job: Job) => shown(job, <InstallView />, '/install');
const more = async (entry: string) => {
  fireEvent.click(screen.getByRole('button', { name: /^More at/ }));
  fireEvent.click(await screen.findByRole('menuitem', { name: entry }));
};

beforeEach(() => {
  Element.prototype.scrollIntoView = jest.fn();
});
afterEach(() => {
  jest.restoreAllMocks();
});

describe('the batch in hand', () => {
  test('is begun from the sheet, and its breakers are switched off by one touch', async () => {
    const scene = await install({ ...exampleJob('pantry'), events: [] });
    fireEvent.click(await screen.findByRole('button', { name: 'Begin this batch' }));
    await waitFor(() => expect(scene.job().events).toMatchObject([{ kind: 'batch', boxIds: ['pantry'] }]));
    expect(await screen.findByText(/^Switch off: /)).toBeInTheDocument();
    expect(screen.getByText(/: not known$/)).toBeInTheDocument();
    press('Record: switched off');
    await waitFor(() =>
      expect(scene.job().events.at(-1)).toMatchObject({
        kind: 'switched',
        circuitId: 'c4',
        state: 'off',
        by: thisDevice(),
      }),
    );
    expect(await screen.findByText(/off, not proved by that/)).toBeInTheDocument();
  });

  test('a box is taken in hand, and no step is done before it is proved', async () => {
    const scene = await install(pantry(off));
    fireEvent.click(await screen.findByRole('button', { name: /^Take .* in hand$/ }));
    await waitFor(() => expect(holderOf(scene.job(), 'pantry')).toBe(thisDevice()));
    expect(await screen.findByText('in your hands')).toBeInTheDocument();
    expect(await screen.findByText('Prove it dead')).toBeInTheDocument();
    expect(screen.queryByRole('button', { name: 'Done' })).toBeNull();
    await more('Out of my hands');
    await waitFor(() => expect(holderOf(scene.job(), 'pantry')).toBeNull());
  });

  test('what another holds cannot be taken', async () => {
    await install(pantry(off, taken('another-phone')));
    expect(await screen.findByText('The rest is in other hands')).toBeInTheDocument();
    expect(screen.getByText('in other hands')).toBeInTheDocument();
    expect(screen.queryByRole('button', { name: /^Take/ })).toBeNull();
    expect(screen.queryByRole('button', { name: /^Record/ })).toBeNull();
  });

  test('one that cannot be finished is put aside with its reason, and leaves the batch', async () => {
    const scene = await install(pantry(off, taken(thisDevice())));
    await screen.findByText('in your hands');
    await more('It cannot be finished');
    const dialog = await screen.findByRole('dialog');
    expect(within(dialog).getByRole('link', { name: /way back/ })).toBeInTheDocument();
    expect(within(dialog).getByRole('button', { name: 'Put it aside' })).toBeDisabled();
    type('Why', 'a core is too short', dialog);
    press('Put it aside');
    await waitFor(() =>
      expect(scene.job().events.at(-1)).toMatchObject({ kind: 'aside', note: 'a core is too short' }),
    );
    expect(await screen.findByRole('button', { name: 'Begin this batch' })).toBeInTheDocument();
  });

  test('closed, on and tried by its kind; what does not work leads on', async () => {
    const scene = await install(pantry(mounted, on));
    expect(await screen.findByText(/^Try /)).toBeInTheDocument();
    expect(screen.getByText(/The breaker holds/)).toBeInTheDocument();
    expect(screen.getByRole('button', { name: 'It does not work' })).toBeInTheDocument();
    press('All of it works');
    await waitFor(() =>
      expect(scene.job().events.at(-1)).toMatchObject({ kind: 'tried', position: 1, result: 'works' }),
    );
    expect(await screen.findByText('Nothing is left to be installed')).toBeInTheDocument();
  });

  test('what is seen of a check that fails is kept, and leads on to why', async () => {
    const scene = await install(pantry(mounted, on));
    fireEvent.click(await screen.findByRole('button', { name: /^From the wall it works/ }));
    expect(screen.queryByRole('button', { name: 'follows' })).toBeNull();
    fireEvent.click(screen.getByRole('button', { name: 'never comes on' }));
    expect(screen.getByText('not so')).toBeInTheDocument();
    expect(screen.getByRole('button', { name: 'All of it works' })).toBeDisabled();
    press('It does not work');
    await waitFor(() =>
      expect(scene.job().events.at(-1)).toMatchObject({
        kind: 'tried',
        boxId: 'pantry',
        position: 1,
        result: 'fails',
        symptoms: { load: 'off' },
      }),
    );
  });

  test('two sides of the day: what comes after the batch, and how to stop in the middle', async () => {
    const batch = { id: 'b1', kind: 'batch', boxIds: ['bench'], at: now() } as JobEvent;
    const begun = { id: 'w1', kind: 'wired', boxId: 'bench', step: 'photograph', at: now() } as JobEvent;
    await install({ ...exampleJob('sail-loft'), events: [batch, begun] });
    const reckoning = within(screen.getByRole('complementary', { name: 'Reckoning' }));
    expect(await reckoning.findByText('After this batch')).toBeInTheDocument();
    expect(await reckoning.findByText(/trips to the panel, about/)).toBeInTheDocument();
    expect(reckoning.getByText(/1 box is begun: .* Cap every end, close or guard/)).toBeInTheDocument();
    expect(screen.getByText(/not proved by that|not known/)).toBeInTheDocument();
  });

  test('one that does not work yet leaves the batch, closed, and stays on the list', async () => {
    const scene = await install(pantry(mounted, on));
    await screen.findByText(/^Try /);
    await more('It does not work yet: aside');
    const dialog = await screen.findByRole('dialog');
    expect(within(dialog).queryByRole('link', { name: /way back/ })).toBeNull();
    type('Why', 'the lamp never comes on', dialog);
    press('Put it aside');
    await waitFor(() => expect(scene.job().events.at(-1)).toMatchObject({ kind: 'aside', boxId: 'pantry' }));
    expect(await screen.findByText('the lamp never comes on')).toBeInTheDocument();
  });

  test('before power comes on, what is open outside the batch is named', async () => {
    const batch = { id: 'b1', kind: 'batch', boxIds: ['foot', 'head'], at: now() } as JobEvent;
    const closed = ['foot', 'head'].map((boxId) => ({ id: `m-${boxId}`, kind: 'mounted', boxId, at: now() }));
    const held = { id: 'h1', kind: 'taken', boxId: 'door', by: 'another-phone', at: now() };
    const job = exampleJob('sail-loft');
    const [foot] = job.boxes.filter(({ id }) => id === 'foot');
    for (const box of job.boxes) if (box.id === 'door') box.circuitIds = foot?.circuitIds ?? [];
    await install({ ...job, events: [batch, ...closed, held] });
    expect(await screen.findByText(/^Switch on: /)).toBeInTheDocument();
    expect(screen.getByText(/is open on these breakers too: not on before/)).toBeInTheDocument();
  });

  test('a mounted box is opened again by a correction, and goes on dead', async () => {
    const scene = await install(pantry(mounted));
    expect(await screen.findByText(/^Switch on: /)).toBeInTheDocument();
    await more('It is not mounted: open again');
    await waitFor(() => expect(scene.job().events.at(-1)).toMatchObject({ kind: 'correction', of: 'm1' }));
    expect(await screen.findByText(/^Switch off: /)).toBeInTheDocument();
  });
});
