import {
  CAUSE_WORDS,
  type DeviceStands,
  type DeviceTask,
  LOOK_WORDS,
  nextToPair,
  PATH_WORDS,
  type PairingNext,
  parkingReasonOf,
  placeText,
  REMEDY_WORDS,
} from '@inventario/core';
import { useState } from 'react';
import { Link } from 'react-router';
import { useJob } from '../../data/job-context.js';
import { NameKeys } from '../../parts/name-keys.js';
import { paths } from '../../parts/paths.js';
import { Button, buttonClass } from '../../ui/button.js';
import { AccountKeys } from './accounts.js';
import { ReachKeys, TryKeys, TwiceKeys, UpdateKeys } from './after-join-keys.js';
import { FailedSheet } from './failed-sheet.js';
import { JoinKeys } from './join-keys.js';
import type { PairingWork } from './use-pairing.js';

interface BarProps {
  stands: DeviceStands;
  next: PairingNext;
  work: PairingWork;
  onHold: (task: DeviceTask) => void;
}

/** What comes next for the device in the hand. */
export function PairHead({ stands, next }: Pick<BarProps, 'stands' | 'next'>) {
  return (
    <p className="leading-tight">
      <span className="text-sm text-soft">{placeText(stands.task)}, next</span>
      <strong className="block text-lg">{nextWords(next)}</strong>
    </p>
  );
}

function nextWords(next: PairingNext): string {
  switch (next.kind) {
    case 'parked':
      return `Parked: ${next.reason ? causeName(next.reason) : 'for later'}`;
    case 'hub':
      return `First its hub: ${next.hub.hub.name}`;
    case 'update':
      return next.stuck > 0 ? 'Its update is stuck' : 'Update it';
    case 'name':
      return 'Name it';
    case 'account':
      return `First the account of ${next.account.maker}`;
    case 'reach':
      return next.twice ? `${next.platform} has it twice` : `Is it in ${next.platform}?`;
    case 'try':
      return `Try it ${PATH_WORDS[next.path.path]}${next.path.platform ? `, ${next.path.platform}` : ''}`;
    case 'done':
      return 'Done: it works in every way';
    case 'join':
      return adviceWords(next.advice);
  }
}

function adviceWords(advice: Extract<PairingNext, { kind: 'join' }>['advice']): string {
  if (advice.kind === 'try') return 'Join it';
  if (advice.kind === 'do') return REMEDY_WORDS[advice.remedy].does;
  if (advice.kind === 'look') return LOOK_WORDS[advice.look].asks;
  return `Park it: ${CAUSE_WORDS[advice.reason].name}`;
}

const causeName = (reason: string) =>
  reason in CAUSE_WORDS ? CAUSE_WORDS[reason as keyof typeof CAUSE_WORDS].name : reason;

/** The keys for it: one of them is dark. Below it what can be said at any time. */
export function PairKeys(props: BarProps) {
  const { known } = useJob();
  const { stands, next, work, onHold } = props;
  const after = nextToPair(known, stands.task.key);
  const [isFailing, setFailing] = useState(false);
  const isTold = next.kind === 'join' && next.advice.kind !== 'try' && !work.running;
  return (
    <div className="flex flex-col gap-2">
      {work.failed && <p role="status">{work.failed}</p>}
      <Keys {...props} onFailed={() => setFailing(true)} />
      <div className="grid grid-cols-2 gap-1.5 sm:flex">
        {isTold && (
          <>
            <Button className="sm:flex-1" onClick={() => work.attempt({ outcome: 'joined' })}>
              It joined
            </Button>
            <Button className="sm:flex-1" onClick={() => setFailing(true)}>
              It did not
            </Button>
          </>
        )}
        {after && (
          <Button className="sm:flex-2" onClick={() => onHold(after)}>
            Next: {placeText(after)}
          </Button>
        )}
        {next.kind !== 'parked' && next.kind !== 'done' && <ParkKey work={work} next={next} />}
        {stands.joinedAt !== null && (
          <Button onClick={() => work.mark('reset')} title="It was set back to new: it has to join again">
            Set back to new
          </Button>
        )}
      </div>
      {isFailing && <FailedSheet work={work} onClose={() => setFailing(false)} />}
    </div>
  );
}

function Keys(props: BarProps & { onFailed: () => void }) {
  const { job } = useJob();
  const { next, work } = props;
  switch (next.kind) {
    case 'parked':
      return (
        <Button kind="main" className="min-h-14 text-lg" onClick={() => work.mark('resumed')}>
          Take it up again
        </Button>
      );
    case 'hub':
      return (
        <a href="#hubs" className={buttonClass('main', 'min-h-14 text-lg')}>
          To the hub
        </a>
      );
    case 'join':
      return <JoinKeys {...props} next={next} />;
    case 'update':
      return <UpdateKeys work={work} next={next} />;
    case 'account':
      return <AccountKeys account={next.account} />;
    case 'name':
      return <NameKeys at={next.channel.task} />;
    case 'reach':
      return next.twice ? <TwiceKeys work={work} next={next} /> : <ReachKeys work={work} next={next} />;
    case 'try':
      return <TryKeys work={work} next={next} />;
    case 'done':
      return (
        <>
          {next.wished && (
            <>
              <p>{next.wished.platform} was wished for too: is it there?</p>
              <ReachKeys work={work} next={next.wished} />
            </>
          )}
          <Link className={buttonClass('plain')} to={paths.tune(job.id)}>
            Tune it
          </Link>
        </>
      );
  }
}

function ParkKey({ work, next }: { work: PairingWork; next: PairingNext }) {
  return (
    <Button
      onClick={() => work.mark('parked', { reason: parkingReasonOf(next) })}
      title="Put it aside and come back"
    >
      Park it
    </Button>
  );
}
