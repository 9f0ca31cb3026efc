import type { Job } from '@inventario/core';
import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { act, render } from '@testing-library/react';
import type { ReactNode } from 'react';
import { MemoryRouter, Route, Routes } from 'react-router';
import { engines } from '../data/engines.worker.js';
import { type JobEngines, OpenedJob } from '../data/job-context.js';
import { type BegunPlanner, PlannerWorker } from '../data/planner.js';
import { planner } from '../data/planner.worker.js';
import { PreferencesProvider } from '../data/preferences.js';
import { JobSession } from '../data/session/job-session.js';
import { SayProvider } from '../ui/say.js';
import { Server, toolsOf } from './one-job-server.js';

/**
 * A view on a job as it stands in the application: its own session, with a server that takes its edits, and
 * the real engines, which answer here instead of in workers.
 *
 * @param path where one is, below the job: `/brief`, `/box/b1/choose/1`
 * @param route its pattern
 * @param elsewhere answers what is asked of anything but the job's edits
 */
export async function renderJob(
  job: Job,
  view: ReactNode,
  path = '/',
  route = path,
  elsewhere: (path: string, init?: RequestInit) => Promise<Response> | null = () => null,
) {
  const server = new Server(job);
  globalThis.fetch = (async (address: unknown, init?: RequestInit) =>
    elsewhere(String(address), init) ?? server.fetch(address, init)) as typeof fetch;
  const queries = new QueryClient();
  const session = await JobSession.open(job.id, toolsOf(server));
  session.start();
  const here = () => ({
    remote: asked(engines) as unknown as JobEngines['verdicts']['remote'],
    synced: Promise.resolve(),
  });
  const own: JobEngines = {
    verdicts: here(),
    roles: here(),
    planner: new PlannerWorker(() => ({
      remote: asked(planner) as unknown as BegunPlanner['remote'],
      stop: () => {},
    })),
  };
  const shown = render(
    <QueryClientProvider client={queries}>
      <PreferencesProvider>
        <SayProvider>
          <MemoryRouter initialEntries={[`/jobs/${job.id}${path}`]}>
            <Routes>
              <Route
                path={`/jobs/:jobId${route}`}
                element={
                  <OpenedJob session={session} engines={own}>
                    {view}
                  </OpenedJob>
                }
              />
              <Route path="*" element={<p>elsewhere</p>} />
            </Routes>
          </MemoryRouter>
        </SayProvider>
      </PreferencesProvider>
    </QueryClientProvider>,
  );
  await act(async () => {});
  return {
    ...shown,
    server,
    job: () => session.state().job,
    undo: () => session.undo(),
    close: () => session.close(),
  };
}

/** Functions that answer as those of a worker do: later. */
function asked<Service extends object>(service: Service): Service {
  return new Proxy(service, {
    get: (target, name) => {
      const member = Reflect.get(target, name);
      return typeof member === 'function'
        ? async (...words: unknown[]) => member.apply(target, words)
        : member;
    },
  });
}
