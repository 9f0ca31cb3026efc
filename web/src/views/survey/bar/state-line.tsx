import { ARRANGEMENT_WORDS } from '@inventario/core';
import { useJob } from '../../../data/job-context.js';
import { PowerShape } from '../../../parts/power-shape.js';
import { useHand } from '../hand/use-hand.js';

/** How the box stands, as the reading will record it. */
export function StateLine() {
  const { known } = useJob();
  const { box, power, circuits, stands, bench } = useHand();
  const own = circuits.filter(({ circuitId }) => power.circle.includes(circuitId));
  const switches = Object.entries(bench.switches).map(([key, state]) => {
    const [boxId, position] = key.includes('/') ? key.split('/') : [null, key];
    const at = boxId
      ? ` at ${known.boxes.get(boxId)?.name ?? boxId}`
      : box.positions.length > 1
        ? ` ${position}`
        : '';
    return `switch${at} ${state}`;
  });
  const out = bench.out.map((id) => `${known.loads.get(id)?.name ?? id} out`);
  const which = stands.position !== null && box.positions.length > 1 ? ` ${stands.position}` : '';
  return (
    <p className="flex flex-wrap items-center gap-x-3 text-sm">
      <span className="font-semibold">
        Box state: {ARRANGEMENT_WORDS[stands.arrangement]}
        {stands.arrangement === 'device-out' && which}
      </span>
      {own.map(({ circuitId, state }) => (
        <span
          key={circuitId}
          className={
            state === 'on'
              ? 'flex items-center gap-1 font-semibold text-live'
              : state === 'off'
                ? 'flex items-center gap-1 font-semibold text-off'
                : 'flex items-center gap-1'
          }
        >
          <PowerShape state={state} />
          {known.circuits.get(circuitId)?.breaker} {state === 'unknown' ? 'not known' : state}
        </span>
      ))}
      {[...switches, ...out].map((text) => (
        <span key={text}>{text}</span>
      ))}
    </p>
  );
}
