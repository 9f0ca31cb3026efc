import { type Device, deviceName, lengthText, type UnitSystem } from '@inventario/core';
import { Strand } from './strand.js';

/** Pixels for one mm of the body. */
const SCALE = 2.4;
const ROW = 32;
const LEAD = 52;
const TEXT = 168;

/**
 * A device from behind: its body to scale, and each connection with the mark on it; a lead in its own colour
 * and as long as it says, a screw, clamp or push-in as a round on the edge. Connections leave the body evenly
 * and fan out to their names.
 */
export function DeviceFace({ device, units }: { device: Device; units: UnitSystem }) {
  const length = (mm: number) => lengthText(mm, units);
  const { body, terminals } = device;
  const width = body.width * SCALE;
  const height = body.height * SCALE;
  const rows = terminals.length * ROW;
  const total = Math.max(height, rows) + 8;
  const top = (total - height) / 2;
  const firstRow = (total - rows) / 2;
  const text = terminals.map(
    (terminal) =>
      `${terminal.mark ?? terminal.id}: ${terminal.role}, ` +
      `${terminal.form}${terminal.colour ? `, ${terminal.colour}` : ''}`,
  );
  return (
    <svg
      role="img"
      aria-label={
        `${deviceName(device)}, ${length(body.width)} by ${length(body.height)} by ${length(body.depth)}; ` +
        `${text.join('; ') || 'no terminals'}`
      }
      viewBox={`0 0 ${width + LEAD + TEXT} ${total + 24}`}
      className="h-auto w-full max-w-sm"
    >
      <rect
        x={2}
        y={top}
        width={width}
        height={height}
        rx={5}
        fill="var(--sheet)"
        stroke="var(--ink)"
        strokeWidth={2}
      />
      <text x={2} y={total + 18} fontSize={14} fill="var(--soft)">
        {length(body.width)} x {length(body.height)}, {length(body.depth)} deep
      </text>
      {terminals.map((terminal, at) => {
        const from = top + (height * (at + 0.5)) / terminals.length;
        const y = firstRow + (at + 0.5) * ROW;
        const reach = width + 14 + ((LEAD - 14) * Math.min(200, terminal.length ?? 150)) / 200;
        return (
          <g key={terminal.id}>
            {terminal.form === 'lead' ? (
              <Strand
                d={`M${width - 10} ${from}C${width + 16} ${from} ${width + 8} ${y} ${reach} ${y}`}
                colour={terminal.colour ?? 'unknown'}
                width={7}
              />
            ) : (
              <>
                <path
                  d={`M${width - 10} ${from}L${width + LEAD - 4} ${y}`}
                  stroke="var(--rule)"
                  strokeWidth={1.5}
                />
                <circle
                  cx={width - 12}
                  cy={from}
                  r={9}
                  fill="var(--well)"
                  stroke="var(--ink)"
                  strokeWidth={1.5}
                />
                {terminal.form === 'screw' && (
                  <path d={`M${width - 18} ${from}H${width - 6}`} stroke="var(--ink)" strokeWidth={1.5} />
                )}
              </>
            )}
            <text x={width + LEAD + 6} y={y - 1} fontSize={14} fontWeight={700} fill="var(--ink)">
              {terminal.mark ?? terminal.id}
            </text>
            <text x={width + LEAD + 6} y={y + 14} fontSize={14} fill="var(--soft)">
              {[terminal.role, terminal.size, terminal.strip ? `strip ${length(terminal.strip)}` : '']
                .filter(Boolean)
                .join(', ')}
            </text>
          </g>
        );
      })}
    </svg>
  );
}
