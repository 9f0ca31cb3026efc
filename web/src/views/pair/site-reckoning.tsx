import { ENOUGH_BARS, type PairingTask, plural, signalAt } from '@inventario/core';
import { useQuery } from '@tanstack/react-query';
import { api } from '../../data/api.js';
import { useJob } from '../../data/job-context.js';

/** What the router says, and what waits. */
export function SiteReckoning({ tasks }: { tasks: readonly PairingTask[] }) {
  const { job } = useJob();
  const site = useQuery({ queryKey: ['site'], queryFn: api.site, refetchInterval: 2000, retry: false });
  const weak = [
    ...new Set(
      tasks
        .filter(
          (task) => task.device.radio === 'wifi' && (signalAt(task.box)?.bars ?? ENOUGH_BARS) < ENOUGH_BARS,
        )
        .map((task) => task.box.name),
    ),
  ];
  const wifi = tasks.filter((task) => task.device.radio === 'wifi' && task.state !== 'joined').length;
  const attempts = job.pairings.reduce((sum, pairing) => sum + (pairing.attempts?.length ?? 0), 0);
  return (
    <div className="flex flex-col gap-4">
      <section>
        <h2 className="mb-1 font-bold">Router</h2>
        {site.data ? (
          <>
            <p>
              {site.data.clients} of {site.data.clientLimit} clients, bands{' '}
              {`${site.data.bands.join(' and ')} GHz`}.
            </p>
            <p className="text-soft">
              {plural(wifi, 'Wi-Fi device')} still to join
              {site.data.clients + wifi > site.data.clientLimit ? ': more than it takes.' : '.'}
            </p>
          </>
        ) : (
          <p>
            {site.isError
              ? 'The site does not answer. What was recorded is kept; joining has to wait.'
              : 'Asking the router …'}
          </p>
        )}
      </section>
      {weak.length > 0 && (
        <section>
          <h2 className="mb-1 font-bold">Weak signal</h2>
          <p>{weak.join(', ')}: under two bars. A repeater or extender first, or pair on the bench.</p>
        </section>
      )}
      <p className="text-sm text-soft">
        Attempts are kept for good: {attempts} so far. A device that shows heat, crackle or scorch is not
        paired but switched off at the breaker.
      </p>
    </div>
  );
}
