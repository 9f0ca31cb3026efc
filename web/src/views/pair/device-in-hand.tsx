import {
  type DeviceStands,
  deviceName,
  lightWords,
  PAIRING_STEP_WORDS,
  PAIRING_STEPS,
  pairingManner,
  placeText,
  RADIO_WORDS,
  signalAt,
} from '@inventario/core';
import { Pencil } from 'lucide-react';
import { useState } from 'react';
import { Link } from 'react-router';
import { useJob } from '../../data/job-context.js';
import { IndicatorLight } from '../../drawings/indicator-light.js';
import { SignalBars } from '../../drawings/signal-bars.js';
import { paths } from '../../parts/paths.js';
import { Button } from '../../ui/button.js';
import { classes } from '../../ui/classes.js';
import { CorrectManner } from './correct-manner.js';
import { LiveChannels } from './live-channels.js';

/** The device in the hand: where it is on its way, what its light is to show, what to press. */
export function DeviceInHand({ stands }: { stands: DeviceStands }) {
  const { known } = useJob();
  const { task } = stands;
  const { box, device } = task;
  const [isCorrecting, setCorrecting] = useState(false);
  const manner = pairingManner(device);
  const signal = signalAt(box);
  const hub = known.hubs.get(device.hubId ?? '');
  const joined = stands.joinedAt !== null;
  const light = joined ? manner.joinedLight : manner.light;
  return (
    <section aria-label="In the hand" className="mb-4 rounded-lg border-2 border-ink bg-sheet p-3">
      <div className="flex items-start gap-3">
        {light ? (
          <IndicatorLight light={light} />
        ) : (
          <div className="size-18 shrink-0 rounded-lg border border-dashed border-edge" aria-hidden />
        )}
        <div className="min-w-0 flex-1">
          <h2 className="text-lg leading-tight font-bold">{placeText(stands.task)}</h2>
          <p className="text-soft">{deviceName(device)}</p>
          <p>
            {light
              ? `${joined ? 'Joined, it shows' : 'In pairing mode it shows'} ${lightWords(light)}.`
              : 'What its light shows is not in its record.'}
          </p>
          <DeadAtTheWall stands={stands} />
        </div>
        <Button
          kind="quiet"
          icon={Pencil}
          iconOnly
          title="Correct the steps"
          onClick={() => setCorrecting(true)}
        >
          {`Correct the steps of ${device.model}`}
        </Button>
      </div>
      <Way stands={stands} />
      <ul className="mt-2 grid gap-x-4 gap-y-1 sm:grid-cols-2">
        <li>
          <b>Press:</b> {manner.press ?? manner.steps.join('; ') ?? 'not in its record'}
        </li>
        <li>
          <b>Wants:</b>{' '}
          {hub ? `${hub.name}, joining` : `${RADIO_WORDS[device.radio]}${bandWords(device.wifiBands)}`}
        </li>
        <li className="flex items-center gap-2">
          <b>Signal there:</b>
          {signal ? (
            <>
              <SignalBars bars={signal.bars} /> {signal.rssi} dBm
            </>
          ) : (
            'not read'
          )}
        </li>
        <li>
          <b>Usually takes:</b> {manner.minutes} minutes
          {manner.asOf && <span className="text-soft">, as of {manner.asOf}</span>}
        </li>
      </ul>
      {joined && <LiveChannels stands={stands} />}
      {isCorrecting && <CorrectManner device={device} onClose={() => setCorrecting(false)} />}
    </section>
  );
}

const bandWords = (bands: readonly string[] | undefined) =>
  bands?.length ? `, ${bands.join(' or ')} GHz` : '';

/** The steps of its way: done, now, still to come; told by shape and word. */
function Way({ stands }: { stands: DeviceStands }) {
  return (
    <ol aria-label="Its way" className="mt-2 flex flex-wrap gap-1 text-sm">
      {PAIRING_STEPS.map((step) => {
        const done = stands.done.has(step);
        const now = stands.step === step;
        return (
          <li
            key={step}
            aria-current={now ? 'step' : undefined}
            className={classes(
              'rounded-full border px-2 py-0.5',
              done && 'border-edge bg-well',
              now && 'border-2 border-ink font-bold',
              !done && !now && 'border-dashed border-edge text-soft',
            )}
          >
            {done ? '✓ ' : ''}
            {PAIRING_STEP_WORDS[step]}
          </li>
        );
      })}
    </ol>
  );
}

/** What does not work at the wall either is no matter of pairing. */
function DeadAtTheWall({ stands: { task } }: { stands: DeviceStands }) {
  const { job } = useJob();
  if (task.device.mount !== 'box') return null;
  return (
    <Link
      className="inline-flex min-h-11 items-center underline"
      to={paths.diagnose(job.id, task.box.id, task.position.index)}
    >
      It does not work at the wall either
    </Link>
  );
}
