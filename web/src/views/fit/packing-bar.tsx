import { type BoxAssessment, ESTIMATE_NOTE, type UnitSystem, volumeText } from '@inventario/core';

/** What takes up the room in the box: bodies, connectors, and the conductors as they fold. */
export function PackingBar({
  packing,
  capacityMl,
  units,
}: {
  packing: BoxAssessment['packing'];
  capacityMl: number | null;
  units: UnitSystem;
}) {
  const { bodiesMl, connectorsMl, conductorsMl } = packing.shares;
  const parts = [
    { name: 'bodies', ml: bodiesMl, opacity: 0.85 },
    { name: 'connectors', ml: connectorsMl, opacity: 0.55 },
    { name: 'conductors, folded', ml: conductorsMl, opacity: 0.3 },
  ];
  const total = parts.reduce((sum, part) => sum + part.ml, 0);
  const scale = Math.max(total, capacityMl ?? 0, 1);
  let x = 0;
  return (
    <figure>
      <svg aria-hidden="true" viewBox="0 0 100 8" preserveAspectRatio="none" className="h-4 w-full text-ink">
        {parts.map((part) => {
          const from = x;
          x += (100 * part.ml) / scale;
          return (
            <rect
              key={part.name}
              x={from}
              width={x - from}
              height="8"
              fill="currentColor"
              opacity={part.opacity}
            />
          );
        })}
        {capacityMl !== null && (
          <path
            d={`M${(100 * capacityMl) / scale} 0V8`}
            stroke={total > capacityMl ? 'var(--stop)' : 'currentColor'}
            strokeWidth="2"
            vectorEffect="non-scaling-stroke"
          />
        )}
      </svg>
      <figcaption className="text-sm text-soft">
        Room taken: {parts.map((part) => `${part.name} ${volumeText(part.ml, units)}`).join(', ')}
        {packing.occupancy !== null && `; ${Math.round(packing.occupancy * 100)} % of the box`}.{' '}
        {ESTIMATE_NOTE}
      </figcaption>
    </figure>
  );
}
