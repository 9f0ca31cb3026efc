import { plural } from '@inventario/core';
import { RefreshCw, RotateCcw } from 'lucide-react';
import { useEffect, useState } from 'react';
import { Link, useLocation, useNavigate, useRouteError } from 'react-router';
import { keptStore } from '../data/session/kept-store.js';
import { paths } from '../parts/paths.js';
import { Button } from '../ui/button.js';
import { Empty } from '../ui/empty.js';

/** A view that failed: what is kept, and the ways on. Never the framework's own page. */
export function ViewError() {
  const error = useRouteError();
  const navigate = useNavigate();
  const location = useLocation();
  const [unsent, setUnsent] = useState<number | 'untold'>(0);
  useEffect(() => {
    console.error('a view failed', error);
    keptStore()
      .jobs()
      .then(
        (jobs) => setUnsent(jobs.reduce((sum, job) => sum + job.unsent, 0)),
        () => setUnsent('untold'),
      );
  }, [error]);
  const notLoaded = error instanceof TypeError && /import|module|fetch/i.test(error.message);
  return (
    <main className="min-w-0 flex-1 overflow-y-auto p-4">
      <Empty title="This view stopped">
        <p>
          {notLoaded
            ? 'A part of the application could not be loaded: the server is away, or has a newer version by now.'
            : 'The fault is the program’s, not yours.'}{' '}
          {unsent === 'untold'
            ? 'This device’s store does not open: what was not sent may exist in this page only.'
            : 'What you recorded is kept on this ' +
              `device${unsent ? `, ${plural(unsent, 'edit')} of it still to be sent` : ''}.`}
        </p>
        <div className="flex flex-wrap gap-2">
          <Button
            kind="main"
            icon={RotateCcw}
            onClick={() =>
              navigate(`${location.pathname}${location.search}`, {
                replace: true,
                state: { again: Date.now() },
              })
            }
          >
            Try again
          </Button>
          <Button icon={RefreshCw} onClick={() => window.location.reload()}>
            Reload the page
          </Button>
          <Link className="inline-flex min-h-11 items-center underline" to={paths.jobs}>
            All jobs
          </Link>
        </div>
        <details className="text-sm text-soft">
          <summary>What the program says</summary>
          {error instanceof Error ? error.message : String(error)}
        </details>
      </Empty>
    </main>
  );
}
