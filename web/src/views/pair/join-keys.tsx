import {
  adviceWhy,
  LOOK_WORDS,
  lightWords,
  MACHINE_LOOKS,
  type PairingNext,
  pairingManner,
  REMEDY_WORDS,
} from '@inventario/core';
import { Button } from '../../ui/button.js';
import type { PairingWork } from './use-pairing.js';

/** The next try, what is done or looked at before it, or that it is given up for now. */
export function JoinKeys({
  next,
  work,
  onFailed,
}: {
  next: Extract<PairingNext, { kind: 'join' }>;
  work: PairingWork;
  onFailed: () => void;
}) {
  const { advice } = next;
  if (work.running)
    return (
      <div className="flex items-center gap-3" role="status">
        <progress
          value={work.running.progress}
          max={1}
          aria-label="How far it is"
          className="h-3 min-w-24 flex-1 accent-ink"
        />
        <span>{STEP_WORDS[work.running.step]}</span>
      </div>
    );
  return (
    <div className="flex flex-col gap-2">
      {advice.kind === 'do' && <p>{howWords(advice.remedy, work)}</p>}
      <p className="text-sm text-soft">{adviceWhy(advice)}</p>
      {advice.kind === 'try' && (
        <div className="grid grid-cols-2 gap-1.5">
          {work.overHouse ? (
            <Button
              kind="main"
              className="col-span-2 min-h-14 text-lg"
              onClick={() => void work.overHouse?.join()}
            >
              Join it
            </Button>
          ) : (
            <>
              <Button
                kind="main"
                className="min-h-14 text-lg"
                onClick={() => work.attempt({ outcome: 'joined' })}
              >
                It joined
              </Button>
              <Button className="min-h-14 text-lg" onClick={onFailed}>
                It did not
              </Button>
            </>
          )}
        </div>
      )}
      {advice.kind === 'do' && (
        <div className="grid grid-cols-[2fr_1fr] gap-1.5">
          <Button kind="main" className="min-h-14" onClick={() => void work.done(advice.remedy)}>
            Done: {REMEDY_WORDS[advice.remedy].done}
          </Button>
          <Button className="min-h-14" onClick={() => work.mark('cannot', { reason: advice.remedy })}>
            Cannot here
          </Button>
        </div>
      )}
      {advice.kind === 'look' && <LookKeys look={advice.look} work={work} />}
      {advice.kind === 'park' && (
        <Button
          kind="main"
          className="min-h-14 text-lg"
          onClick={() => work.mark('parked', { reason: advice.reason })}
        >
          Park it, and go on
        </Button>
      )}
    </div>
  );
}

/** How it is done; with the words of the device's own record where they say what to press. */
function howWords(remedy: keyof typeof REMEDY_WORDS, { first }: PairingWork): string {
  const { press, light, alternate } = pairingManner(first.device);
  const own = remedy === 'alternate-mode' ? alternate : remedy === 'press-mode' ? { press, light } : null;
  if (!own?.press) return REMEDY_WORDS[remedy].how;
  return `${own.press}${own.light ? `, until the light shows ${lightWords(own.light)}` : ''}.`;
}

const STEP_WORDS = {
  searching: 'looking for the device',
  found: 'found it',
  keys: 'exchanging keys',
  address: 'asking for an address',
  done: 'joined',
} as const;

function LookKeys({ look, work }: { look: keyof typeof LOOK_WORDS; work: PairingWork }) {
  const words = LOOK_WORDS[look];
  const seen = (bad: boolean) => work.mark('looked', { reason: look, bad });
  return (
    <div className="grid grid-cols-2 gap-1.5">
      <Button kind="main" className="min-h-14 first-letter:uppercase" onClick={() => seen(false)}>
        {words.good}
      </Button>
      <Button className="min-h-14 first-letter:uppercase" onClick={() => seen(true)}>
        {words.bad}
      </Button>
      {work.overHouse && MACHINE_LOOKS.has(look) && (
        <Button className="col-span-2" onClick={() => void work.overHouse?.look(look)}>
          Ask the router and the hub
        </Button>
      )}
    </div>
  );
}
