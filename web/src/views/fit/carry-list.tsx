import {
  type Box,
  type ChannelCarry,
  type CircuitCarry,
  carryOfCircuit,
  carryOfHouse,
  demand,
  energyOfHouse,
  moneyText,
  plural,
  wireSizeText,
} from '@inventario/core';
import { useMemo } from 'react';
import { useEnergy } from '../../data/energy.js';
import { useJob } from '../../data/job-context.js';
import { TariffField } from '../../parts/tariff-field.js';
import { classes } from '../../ui/classes.js';
import { NumberField } from '../../ui/field.js';

const round = (value: number, digits = 1) => value.toFixed(digits).replace(/\.0+$/, '');

/** What each channel of a box's devices would carry, against its rating in its own unit. */
export function ChannelList({ box }: { box: Box }) {
  const { known } = useJob();
  const carried = carryOfHouse(known).filter((entry) => entry.boxId === box.id);
  if (carried.length === 0)
    return <p className="text-sm text-soft">No device is chosen here yet, so nothing is carried.</p>;
  return (
    <ul className="flex flex-col gap-2">
      {carried.map((entry) => (
        <li key={`${entry.position}|${entry.channel}`} className="border-t border-rule pt-2 text-sm">
          <ChannelLine entry={entry} />
        </li>
      ))}
    </ul>
  );
}

function ChannelLine({ entry }: { entry: ChannelCarry }) {
  const { known } = useJob();
  const device = known.devices.get(entry.deviceId);
  const { rating, most, minimum } = entry;
  const [first] = rating.shares;
  const part = known.job.catalogue.parts.find((other) => other.id === minimum?.bypassPartId);
  return (
    <>
      <p className="font-semibold">
        Position {entry.position}, {device?.model}
        {(device?.channels.length ?? 0) > 1 && `, channel ${entry.channel}`}
      </p>
      <Bar share={rating.share} limit={rating.limit} />
      <p>
        {entry.loads.map((load) => load.name).join(' and ') || 'No load named'}
        {first && `: ${round(first.quantity)} of ${round(first.limit)} ${first.unit}`}
        {rating.shares.length > 1 && ` and ${rating.shares.length - 1} more, shares added`}
        {entry.removedSides > 0 && `, ${plural(entry.removedSides, 'side')} broken off`}.
      </p>
      {rating.unrated.length > 0 && (
        <p className="font-semibold text-stop">
          No rating for {rating.unrated.map((load) => load.name).join(', ')}.
        </p>
      )}
      {most && (
        <p className="text-soft">
          {most.allowed === 0
            ? 'Not one such lamp is allowed.'
            : `At most ${most.allowed} of these; ${most.withinMargin} keep the margin.`}
        </p>
      )}
      {minimum && !minimum.enough && (
        <p className="font-semibold text-stop">
          {round(minimum.watts)} W is less than the {round(minimum.needed)} W it needs
          {part ? `: ${part.name} at the fitting makes up for it` : ', and no part makes up for it'}.
        </p>
      )}
      {minimum?.bypassed && <p className="text-soft">Its minimum is met by the bypass part.</p>}
    </>
  );
}

/** Circuits with what is known to hang on them. */
export function CircuitList() {
  const { job, known } = useJob();
  const circuits = useMemo(
    () => job.circuits.map((circuit) => ({ circuit, carry: carryOfCircuit(circuit, known) })),
    [job, known],
  );
  return (
    <ul className="flex flex-col gap-2">
      {circuits.map(({ circuit, carry }) => (
        <li key={circuit.id} className="text-sm">
          <p>
            <strong>Breaker {circuit.breaker}</strong> {circuit.label}:{' '}
            {`${round(carry.amps)} of ${circuit.amps} A`}
          </p>
          <Bar share={carry.share} limit={1} />
          <CircuitNotes carry={carry} breaker={circuit.amps} />
        </li>
      ))}
    </ul>
  );
}

function CircuitNotes({ carry, breaker }: { carry: CircuitCarry; breaker: number }) {
  const { known } = useJob();
  return (
    <>
      {carry.verdict === 'over' && <p className="font-semibold text-stop">More than the breaker allows.</p>}
      {carry.unsure.length > 0 && (
        <p className="text-soft">
          On this or another breaker: {carry.unsure.map((load) => load.name).join(', ')}.
        </p>
      )}
      {carry.conductor && (
        <p className="font-semibold text-stop">
          {wireSizeText(carry.conductor.size)} in {known.boxes.get(carry.conductor.boxId)?.name} goes{' '}
          {`with ${carry.conductor.amps} A`}, not {breaker} A: read both again, and ask a licensed
          electrician.
        </p>
      )}
    </>
  );
}

/** What running and waiting cost in a year, from hours and a tariff that are asked here. */
export function EnergyCost() {
  const { job, known } = useJob();
  const { hours, tariff, setHours, setTariff } = useEnergy();
  const use = energyOfHouse(known, () => hours, tariff > 0 ? tariff : null);
  const currency = job.money?.currency;
  const most = [...use.running].sort((a, b) => b.kWh - a.kWh).slice(0, 3);
  return (
    <div className="flex flex-col gap-2 text-sm">
      <div className="grid grid-cols-2 gap-2">
        <NumberField label="Hours a day" unit="h" max={24} value={hours} onNumber={setHours} />
        <TariffField tariff={tariff} setTariff={setTariff} />
      </div>
      <p>
        Running {round(use.total.runningKWh, 0)} kWh a year, standby {round(use.total.standbyKWh, 1)} kWh
        {use.total.cost !== null && `, together ${moneyText(Math.round(use.total.cost), currency)}`}.
      </p>
      {most.length > 0 && (
        <p className="text-soft">
          Most of it:{' '}
          {most
            .map(({ loadId, kWh }) => {
              const load = known.loads.get(loadId);
              return `${load?.name} ${round(kWh, 0)} kWh (${round(load ? demand(load, 0).watts : 0)} W)`;
            })
            .join(', ')}
          .
        </p>
      )}
    </div>
  );
}

function Bar({ share, limit }: { share: number; limit: number }) {
  const of = Math.min(share / limit, 1.5);
  return (
    <svg
      aria-hidden="true"
      viewBox="0 0 100 8"
      preserveAspectRatio="none"
      className="my-1 h-2 w-full text-ink"
    >
      <rect width={Math.min(of, 1) * 66} height="8" fill="currentColor" opacity="0.75" />
      {of > 1 && <rect x="66" width={(of - 1) * 68} height="8" fill="var(--stop)" />}
      <path d="M52.8 0V8" stroke="currentColor" strokeWidth="0.6" strokeDasharray="1.5 1" />
      <path d="M66 0V8" stroke="currentColor" strokeWidth="1.2" />
    </svg>
  );
}

/** A word on the marks of the bars above. */
export function BarLegend({ className }: { className?: string }) {
  return (
    <p className={classes('text-sm text-soft', className)}>
      The line is the limit, the dashes the margin below it.
    </p>
  );
}
