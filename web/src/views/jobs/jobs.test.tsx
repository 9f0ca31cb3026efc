import '@testing-library/jest-dom/jest-globals';
import 'fake-indexeddb/auto';
import type { JobSummary } from '@inventario/core';
import { afterEach, beforeEach, describe, expect, test } from '@jest/globals';
import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { cleanup, fireEvent, render, screen, waitFor, within } from '@testing-library/react';
import { MemoryRouter, Route, Routes } from 'react-router';
import { PreferencesProvider } from '../../data/preferences.js';
import { keptStore } from '../../data/session/kept-store.js';
import { dialog, pickRadio, press, type } from '../../test-support/by-hand.js';
import { exampleJob } from '../../test-support/example-job.js';
import { SayProvider } from '../../ui/say.js';
import { JobsView } from './jobs.js';

interface Asked {
  method: string;
  path: string;
  body: unknown;
}

/** A server that lists what it was given, and answers the rest as a test says. */
class JobServer {
  readonly asked: Asked[] = [];
  away = false;
  answers: (asked: Asked) => { status: number; body: unknown } | undefined = () => undefined;

  constructor(public jobs: JobSummary[]) {}

  readonly fetch = async (address: unknown, init?: RequestInit): Promise<Response> => {
    if (this.away) throw new TypeError('network');
    const asked: Asked = {
      method: init?.method ?? 'GET',
      path: String(address),
      body: typeof init?.body === 'string' ? JSON.parse(init.body) : init?.body,
    };
    this.asked.push(asked);
    const { status, body } = this.answers(asked) ?? this.usual(asked);
    return {
      ok: status < 300,
      status,
      headers: { get: () => null },
      json: async () => JSON.parse(JSON.stringify(body)),
      text: async () => JSON.stringify(body),
    } as unknown as Response;
  };

  private usual({ method, path }: Asked) {
    if (path.startsWith('/api/jobs') && method === 'GET' && !/\/api\/jobs\/[^?]/.test(path))
      return { status: 200, body: this.jobs };
    if (path === '/api/catalogue') return { status: 200, body: exampleJob('pantry').catalogue };
    return { status: 200, body: {} };
  }
}

const summary = (id: string, more: Partial<JobSummary> = {}): JobSummary => ({
  id,
  name: `House ${id}`,
  practice: 'us',
  updatedAt: new Date().toISOString(),
  rooms: 2,
  boxes: 3,
  blocker: null,
  stages: {} as JobSummary['stages'],
  ...more,
});

let server: JobServer;
beforeEach(() => {
  server = new JobServer([]);
  globalThis.fetch = server.fetch as typeof fetch;
});
afterEach(async () => {
  cleanup();
  for (const job of await keptStore().jobs()) await keptStore().forget(job.id);
});

function list(...jobs: JobSummary[]) {
  server.jobs = jobs;
  return render(
    <QueryClientProvider client={new QueryClient({ defaultOptions: { queries: { retry: false } } })}>
      <PreferencesProvider>
        <SayProvider>
          <MemoryRouter>
            <Routes>
              <Route path="/" element={<JobsView />} />
              <Route path="*" element={<p>elsewhere</p>} />
            </Routes>
          </MemoryRouter>
        </SayProvider>
      </PreferencesProvider>
    </QueryClientProvider>,
  );
}

const fileOf = (name: string, text: string) =>
  Object.assign(new File([text], name, { type: 'application/json' }), { text: async () => text });
const takeIn = (file: File) =>
  fireEvent.change(screen.getByLabelText('Job file'), { target: { files: [file] } });

describe('the list', () => {
  test('says how far each job is and what holds it up', async () => {
    list(summary('a', { blocker: 'proof', stages: { surveyed: { done: 2, of: 3 } } as never }), summary('b'));
    const first = (await screen.findByRole('heading', { name: 'House a' })).closest('article') as HTMLElement;
    expect(first).toHaveTextContent('surveyed 2/3');
    expect(first).toHaveTextContent('Held up by: proof.');
    const other = screen.getByRole('heading', { name: 'House b' }).closest('article') as HTMLElement;
    expect(other).toHaveTextContent('Nothing holds it up.');
  });

  test('nothing yet says what to do', async () => {
    list();
    expect(await screen.findByText(/Begin with a new job/)).toBeInTheDocument();
    expect(screen.queryByLabelText('Search by name')).toBeNull();
  });

  test('many are searched by name, on the server', async () => {
    list(...Array.from({ length: 9 }, (_, at) => summary(`j${at}`)));
    fireEvent.change(await screen.findByLabelText('Search by name'), { target: { value: 'mill' } });
    await waitFor(() => expect(server.asked.some(({ path }) => path.includes('mill'))).toBe(true));
    // The one in which the search stands does not go away when little is found.
    server.jobs = [];
    fireEvent.change(screen.getByLabelText('Search by name'), { target: { value: 'millstone' } });
    expect(await screen.findByText('No job is called so.')).toBeInTheDocument();
  });

  test('a server that is not reached is no reason to stop: what is kept here is listed', async () => {
    const job = exampleJob('pantry');
    await keptStore().write(job.id, { base: { job, sequence: 3, generation: 'g' } });
    server.away = true;
    list();
    expect(await screen.findByText('The server is not reached')).toBeInTheDocument();
    const here = await screen.findByRole('region', { name: 'On this device' });
    expect(within(here).getByRole('link', { name: job.name })).toHaveAttribute('href', `/jobs/${job.id}`);
    server.away = false;
    server.jobs = [summary('back')];
    press('Try again');
    expect(await screen.findByRole('heading', { name: 'House back' })).toBeInTheDocument();
  });
});

describe('a job', () => {
  const more = async (entry: string) => {
    press('More for House a');
    fireEvent.click(await screen.findByRole('menuitem', { name: entry }));
  };

  test('taken out goes to the bin and can be put back', async () => {
    list(summary('a'));
    await screen.findByRole('heading', { name: 'House a' });
    await more('Delete this job');
    expect(await screen.findByText('House a is in the bin for 30 days.')).toBeInTheDocument();
    expect(server.asked).toContainEqual(expect.objectContaining({ method: 'DELETE', path: '/api/jobs/a' }));
    press('Put it back');
    await waitFor(() => expect(server.asked.some(({ path }) => path === '/api/jobs/a/return')).toBe(true));
  });

  test('what the server refuses is said in its words', async () => {
    list(summary('a'));
    server.answers = ({ method }) =>
      method === 'DELETE'
        ? { status: 409, body: { error: { code: 'busy', message: 'The job is being written.' } } }
        : undefined;
    await screen.findByRole('heading', { name: 'House a' });
    await more('Delete this job');
    expect(await screen.findByText('The job is being written.')).toBeInTheDocument();
  });
});

describe('a new job', () => {
  test('is kept on this device and opens at the house', async () => {
    list();
    press('New job');
    const form = await dialog();
    press('Make the job', form);
    expect(await within(form).findByRole('alert')).toHaveTextContent('Give the job a name');
    type('Name of the job', '  Mill cottage ', form);
    pickRadio(/^Practice/, /^Canad/i, form);
    press('Make the job', form);
    expect(await screen.findByText('elsewhere')).toBeInTheDocument();
    const [made] = await keptStore().jobs();
    expect(made).toMatchObject({ name: 'Mill cottage', made: true });
    const { base } = await keptStore().job(made?.id ?? '');
    expect(base?.job).toMatchObject({ practice: 'ca', name: 'Mill cottage' });
    expect(base?.job.catalogue.devices.length).toBeGreaterThan(0);
  });
});

describe('a file taken in', () => {
  test('goes to the server, a mark at its beginning or not', async () => {
    list();
    await screen.findByText('No jobs yet');
    server.answers = ({ method }) =>
      method === 'POST' ? { status: 201, body: { id: 'pantry-2' } } : undefined;
    takeIn(fileOf('pantry.json', `\uFEFF${JSON.stringify(exampleJob('pantry'))}`));
    expect(await screen.findByText('“pantry.json” is in as pantry-2.')).toBeInTheDocument();
    const sent = server.asked.find(({ method }) => method === 'POST');
    expect(sent?.body).toMatchObject({ name: exampleJob('pantry').name });
  });

  test('that is no JSON says so, and nothing is sent', async () => {
    list();
    await screen.findByText('No jobs yet');
    takeIn(fileOf('notes.json', 'two switches by the door'));
    expect(await dialog()).toHaveTextContent('It is not JSON');
    expect(screen.getByText('Nothing here was changed.')).toBeInTheDocument();
    expect(server.asked.some(({ method }) => method === 'POST')).toBe(false);
  });

  test('with wrong fields names each of them', async () => {
    list();
    await screen.findByText('No jobs yet');
    server.answers = ({ method }) =>
      method === 'POST'
        ? {
            status: 400,
            body: {
              error: {
                code: 'invalid',
                message: 'The file does not hold together.',
                problems: [
                  { path: '/boxes/0/gangs', message: 'is not a number' },
                  { path: '', message: 'has no rooms' },
                ],
              },
            },
          }
        : undefined;
    takeIn(fileOf('house.json', '{}'));
    const said = await dialog();
    expect(said).toHaveTextContent('The file does not hold together.');
    expect(said).toHaveTextContent('/boxes/0/gangs is not a number');
    expect(said).toHaveTextContent('(whole file) has no rooms');
  });

  test('of a job that is here already asks: a copy, or in its place', async () => {
    list();
    await screen.findByText('No jobs yet');
    let first = true;
    server.answers = ({ method }) => {
      if (method !== 'POST') return undefined;
      if (!first) return { status: 201, body: { id: 'copy' } };
      first = false;
      return { status: 409, body: { error: { code: 'job-exists', message: 'It is here.' } } };
    };
    takeIn(fileOf('house.json', '{}'));
    const asked = await dialog();
    expect(asked).toHaveTextContent('This job is here already');
    press('Import it as a copy', asked);
    expect(await screen.findByText('“house.json” is in as copy.')).toBeInTheDocument();
    const tries = server.asked.filter(({ method }) => method === 'POST');
    expect(tries).toHaveLength(2);
    expect(tries[1]?.path).toContain('copy');
    await waitFor(() => expect(screen.queryByRole('dialog')).toBeNull());
  });
});

describe('this device', () => {
  test('says what it keeps; what was sent can be taken off, what was not cannot', async () => {
    const job = exampleJob('pantry');
    const made = { ...exampleJob('shed'), name: 'Made here' };
    await keptStore().write(job.id, { base: { job, sequence: 3, generation: 'g' } });
    await keptStore().write(made.id, { base: { job: made, sequence: 0, generation: null } });
    list();
    await screen.findByRole('region', { name: 'On this device' });
    press('This device');
    const said = await dialog();
    expect(await within(said).findByText(/browser does not tell/)).toBeInTheDocument();
    expect(within(said).getByText('not on the server yet')).toBeInTheDocument();
    expect(within(said).queryByRole('button', { name: 'Take Made here off this device' })).toBeNull();
    press(`Take ${job.name} off this device`, said);
    await waitFor(async () => expect((await keptStore().jobs()).map(({ id }) => id)).toEqual([made.id]));
  });
});
