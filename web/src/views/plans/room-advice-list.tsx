import { ADVICE_WORDS, moneyText, type RoomAdvice, type SideCost } from '@inventario/core';
import { useJob } from '../../data/job-context.js';

const ADVICE: Record<RoomAdvice['advice'], string> = {
  switch: 'Switches',
  bulbs: 'Bulbs',
  leave: 'Leave it',
};

/** Switch, bulbs or leave: the sum of either way, room by room. The installer decides. */
export function RoomAdviceList({ advice }: { advice: readonly RoomAdvice[] }) {
  const { job, known } = useJob();
  const { currency } = job.money ?? {};
  const side = (cost: SideCost | null, what: string) =>
    cost
      ? `${moneyText(cost.total, currency)}: ${cost.pieces} ${what} ${moneyText(cost.units, currency)}, ` +
        `parts and controls ${moneyText(cost.parts, currency)}, work ${moneyText(cost.labour, currency)}; ` +
        `${cost.clients} on the router`
      : 'nothing suits';
  return (
    <section aria-label="Switches, bulbs or leave" className="my-4 max-w-3xl">
      <h2 className="mb-1 text-lg font-bold">Switches, bulbs, or leave it?</h2>
      <ul>
        {advice.map((room) => (
          <li key={room.roomId} className="border-t border-rule py-1.5">
            <p>
              <span className="mr-2 font-semibold">{known.rooms.get(room.roomId)?.name}</span>
              <strong>{ADVICE[room.advice]}</strong>
              <span className="text-soft">
                {' '}
                {room.because.map((reason) => ADVICE_WORDS[reason]).join(' ')}
              </span>
            </p>
            {room.advice !== 'leave' && (
              <dl className="grid grid-cols-[5rem_1fr] text-sm tabular-nums">
                <dt className="text-soft">Switches</dt>
                <dd>{side(room.switches, room.switches?.pieces === 1 ? 'device for' : 'devices for')}</dd>
                <dt className="text-soft">Bulbs</dt>
                <dd>
                  {room.lamps === 0
                    ? 'no lamps here'
                    : side(room.bulbs, room.bulbs ? `x ${room.bulbs.bulb},` : '')}
                </dd>
              </dl>
            )}
          </li>
        ))}
      </ul>
    </section>
  );
}
