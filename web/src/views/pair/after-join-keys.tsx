import { PATH_WORDS, type PairingNext, UPDATE_HELP_WORDS } from '@inventario/core';
import { instant } from '../../data/ids.js';
import { useJob } from '../../data/job-context.js';
import { Button } from '../../ui/button.js';
import type { PairingWork } from './use-pairing.js';

/** Its firmware: done, or stuck and what then helps. */
export function UpdateKeys({
  work,
  next,
}: {
  work: PairingWork;
  next: Extract<PairingNext, { kind: 'update' }>;
}) {
  return (
    <div className="flex flex-col gap-1.5">
      {next.help && <p>{UPDATE_HELP_WORDS[next.help]}</p>}
      <div className="grid grid-cols-2 gap-1.5">
        {work.overHouse ? (
          <Button
            kind="main"
            className="col-span-2 min-h-14 text-lg"
            onClick={() => void work.overHouse?.update()}
          >
            Update it
          </Button>
        ) : (
          <>
            <Button kind="main" className="min-h-14" onClick={() => work.mark('updated')}>
              It is up to date
            </Button>
            <Button className="min-h-14" onClick={() => work.mark('update-stuck')}>
              It is stuck
            </Button>
          </>
        )}
      </div>
    </div>
  );
}

type Reach = Extract<PairingNext, { kind: 'reach' }>;
type Reaching = Pick<Reach, 'channel' | 'platform'>;

/** Whether an app has it. */
export function ReachKeys({ work, next }: { work: PairingWork; next: Reaching }) {
  const { known } = useJob();
  const { channel, platform } = next;
  const room = known.rooms.get(channel.task.box.roomId)?.name ?? '';
  const reached = (outcome: 'found' | 'missing') =>
    work.add(
      channel.task,
      {
        reached: [
          {
            platform,
            at: instant(),
            outcome,
            ...(outcome === 'found' ? { room } : {}),
          },
        ],
      },
      `${channel.name}: ${outcome} in ${platform}`,
    );
  return (
    <div className="grid grid-cols-2 gap-1.5">
      {work.overHouse && (
        <Button
          kind="main"
          className="col-span-2 min-h-14 text-lg"
          onClick={() => void work.overHouse?.find(channel.task, platform, channel.name ?? '')}
        >
          Look in {platform}
        </Button>
      )}
      <Button kind={work.overHouse ? 'plain' : 'main'} className="min-h-14" onClick={() => reached('found')}>
        Found, in {room}
      </Button>
      <Button className="min-h-14" onClick={() => reached('missing')}>
        Missing
      </Button>
    </div>
  );
}

/** An app has it over two routes: one goes. */
export function TwiceKeys({ work, next }: { work: PairingWork; next: Reach }) {
  const { channel, platform } = next;
  const routes = [
    ...new Set(
      (channel.task.record?.reached ?? [])
        .filter((entry) => entry.platform === platform && entry.outcome === 'found')
        .map(({ route }) => route),
    ),
  ];
  /** It is gone over the one, and there still over the others: the last word is that it is found. */
  const takeOut = (gone: (typeof routes)[number]) => {
    const ordered = [gone, ...routes.filter((route) => route !== gone)];
    const reached = ordered.map((route) => ({
      platform,
      at: instant(),
      outcome: route === gone ? ('missing' as const) : ('found' as const),
      ...(route ? { route } : {}),
    }));
    work.add(channel.task, { reached }, `${channel.name}: taken out of ${platform} over one route`);
  };
  return (
    <div className="flex flex-col gap-1.5">
      <p>It would answer twice. Take it out of {platform} over one route, and say over which.</p>
      <div className="flex flex-wrap gap-1.5">
        {routes.map((route, nth) => (
          <Button
            key={route ?? 'unknown'}
            kind={nth === 0 ? 'main' : 'plain'}
            className="min-h-14 flex-1"
            onClick={() => takeOut(route)}
          >
            Taken out: {ROUTE_WORDS[route ?? 'unknown']}
          </Button>
        ))}
      </div>
    </div>
  );
}

const ROUTE_WORDS = {
  direct: 'directly',
  maker: 'over the maker’s account',
  hub: 'over the hub',
  unknown: 'the other one',
} as const;

/** One way of working it, tried. */
export function TryKeys({ work, next }: { work: PairingWork; next: Extract<PairingNext, { kind: 'try' }> }) {
  const { channel, path } = next;
  const { task } = channel;
  const words = `turn on ${channel.name ?? ''}`;
  const tried = (ok: boolean) =>
    work.add(
      task,
      {
        tried: [
          {
            path: path.path,
            ...(path.platform ? { platform: path.platform } : {}),
            at: instant(),
            ok,
          },
        ],
      },
      `${channel.name}: ${ok ? 'works' : 'does not work'} ${PATH_WORDS[path.path]}`,
    );
  const { overHouse } = work;
  const bySite =
    overHouse && path.path === 'voice' && path.platform !== null
      ? () => void overHouse.say(task, path.platform ?? '', words)
      : overHouse && path.path === 'app'
        ? () => void overHouse.command(task, true)
        : null;
  return (
    <div className="grid grid-cols-2 gap-1.5">
      {path.path === 'voice' && <p className="col-span-2">Say: “{words}”.</p>}
      {path.ok === false && <p className="col-span-2">It did not work {PATH_WORDS[path.path]} last time.</p>}
      {bySite && (
        <Button kind="main" className="col-span-2 min-h-14 text-lg" onClick={bySite}>
          {path.path === 'voice' ? `Say it to ${path.platform}` : 'Switch it on'}
        </Button>
      )}
      <Button kind={bySite ? 'plain' : 'main'} className="min-h-14" onClick={() => tried(true)}>
        It works
      </Button>
      <Button className="min-h-14" onClick={() => tried(false)}>
        It does not
      </Button>
    </div>
  );
}
