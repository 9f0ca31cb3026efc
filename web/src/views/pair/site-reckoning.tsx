import {
  type DeviceStands,
  ENOUGH_BARS,
  failureText,
  LOOK_WORDS,
  placeText,
  plural,
  REMEDY_WORDS,
  signalAt,
  wayOf,
} from '@inventario/core';
import { useQuery } from '@tanstack/react-query';
import { api } from '../../data/api.js';
import { timeOf } from '../../parts/times.js';
import { Accounts } from './accounts.js';

/** What was recorded of the device in the hand, what the router says, and what waits. */
export function SiteReckoning({ devices, held }: { devices: readonly DeviceStands[]; held?: DeviceStands }) {
  return (
    <div className="flex flex-col gap-4">
      {held && <Story stands={held} />}
      <Router devices={devices} />
      <Accounts />
      <p className="text-sm text-soft">
        Everything is kept for good: {devices.reduce((sum, { attempts }) => sum + attempts, 0)} tries so far.
        A device that shows heat, crackle or scorch is not paired but switched off at the breaker.
      </p>
    </div>
  );
}

/** The history of one device, the latest first. */
function Story({ stands }: { stands: DeviceStands }) {
  return (
    <section>
      <h2 className="mb-1 font-bold">{placeText(stands.task)}, so far</h2>
      {stands.story.length === 0 ? (
        <p>Nothing was tried yet.</p>
      ) : (
        <ol aria-label="Its story" className="text-sm">
          {stands.story.toReversed().map((entry) => (
            <li
              key={'attempt' in entry ? entry.attempt.id : entry.mark.id}
              className="border-t border-rule py-1.5"
            >
              <span className="text-soft">{timeOf(entry.at)}: </span>
              {'attempt' in entry ? attemptWords(entry.attempt) : markWords(entry.mark)}
            </li>
          ))}
        </ol>
      )}
    </section>
  );
}

type Attempt = Extract<DeviceStands['story'][number], { attempt: unknown }>['attempt'];
type Mark = Extract<DeviceStands['story'][number], { mark: unknown }>['mark'];

function attemptWords(attempt: Attempt): string {
  const took = attempt.seconds === undefined ? '' : ` after ${attempt.seconds} s`;
  const facts = [
    ...(attempt.band ? [`phone on ${attempt.band} GHz`] : []),
    ...(attempt.rssi === undefined ? [] : [`${attempt.rssi} dBm`]),
    ...(attempt.light ? [`light: ${attempt.light}`] : []),
    ...(attempt.listed === undefined ? [] : [attempt.listed ? 'on the list of clients' : 'not on the list']),
  ].join(', ');
  const came = attempt.outcome === 'joined' ? `joined${took}` : `did not join${took}`;
  const why = attempt.outcome === 'failed' ? ` ${failureText(attempt.reason)}` : '';
  return `${came}${facts ? ` (${facts})` : ''}.${why}`;
}

const MARK_WORDS = {
  ready: 'In pairing mode',
  updated: 'Updated',
  'update-stuck': 'The update is stuck',
  resumed: 'Taken up again',
  reset: 'Set back to new',
} as const;

function markWords({ what, reason, bad, note }: Mark): string {
  const remedy = REMEDY_WORDS[reason as keyof typeof REMEDY_WORDS];
  const look = LOOK_WORDS[reason as keyof typeof LOOK_WORDS];
  switch (what) {
    case 'looked':
      return look ? `${look.asks} ${bad ? look.bad : look.good}.` : 'Looked at it.';
    case 'changed':
      return `${remedy?.done ?? reason}.`;
    case 'cannot':
      return `Not to be done here: ${remedy?.does ?? reason}.`;
    case 'parked':
      return `Parked: ${failureText(reason)}`;
    default:
      return `${MARK_WORDS[what]}${note ? ` (${note})` : ''}.`;
  }
}

function Router({ devices }: { devices: readonly DeviceStands[] }) {
  const site = useQuery({ queryKey: ['site'], queryFn: api.site, refetchInterval: 4000, retry: false });
  const waiting = devices.filter(({ joinedAt, task }) => joinedAt === null && wayOf(task) === 'wifi');
  const weak = [
    ...new Set(
      waiting
        .filter(({ task }) => (signalAt(task.box)?.bars ?? ENOUGH_BARS) < ENOUGH_BARS)
        .map(({ task }) => placeText(task)),
    ),
  ];
  return (
    <>
      <section>
        <h2 className="mb-1 font-bold">Router</h2>
        {site.data ? (
          <>
            <p>
              {site.data.name}: {site.data.clients} of {site.data.clientLimit} clients, bands{' '}
              {`${site.data.bands.join(' and ')} GHz`}.
            </p>
            <p className="text-soft">
              {plural(waiting.length, 'Wi-Fi device')} still to join
              {site.data.clients + waiting.length > site.data.clientLimit ? ': more than it takes.' : '.'}
            </p>
          </>
        ) : (
          <p>
            {site.isError
              ? 'The house does not answer. By hand everything can be recorded all the same.'
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
    </>
  );
}
