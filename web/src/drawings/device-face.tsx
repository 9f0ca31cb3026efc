import type { Device } from '@inventario/core';
import { Strand } from './strand.js';

const SCALE = 1.5;
const LEAD = 46;
const ROW = 30;

/**
 * A device from behind: its body to scale, and each connection with the mark on it; a lead in its own colour and as long as it says,
 * a screw, clamp or push-in as a round on the edge.
 */
export function DeviceFace({ device }: { device: Device }) {
  const { body, terminals } = device;
  const width = body.width * SCALE;
  const height = Math.max(body.height * SCALE, terminals.length * ROW + 12);
  const right = width + LEAD + 150;
  const text = terminals.map(
    (terminal) => `${terminal.mark ?? terminal.id}: ${terminal.role}, ${terminal.form}${terminal.colour ? `, ${terminal.colour}` : ''}`,
  );
  return (
    <svg
      role="img"
      aria-label={`${device.maker} ${device.model}, ${body.width} by ${body.height} by ${body.depth} mm; ${text.join('; ') || 'no terminals'}`}
      viewBox={`0 0 ${right + 8} ${height + 28}`}
      className="h-auto w-full max-w-sm"
    >
      <rect x={2} y={2} width={width} height={height} rx={5} fill="var(--sheet)" stroke="var(--ink)" strokeWidth={2} />
      <text x={width / 2 + 2} y={height + 20} textAnchor="middle" fontSize={13} fill="var(--soft)">
        {body.width} x {body.height} x {body.depth} mm
      </text>
      {terminals.map((terminal, at) => {
        const y = 22 + at * ROW;
        const lead = terminal.form === 'lead';
        const end = width + 10 + (lead ? Math.min(LEAD, (LEAD * (terminal.length ?? 150)) / 150) : 0);
        return (
          <g key={terminal.id}>
            {lead ? (
              <Strand d={`M${width - 6} ${y}H${end}`} colour={terminal.colour ?? 'unknown'} width={7} />
            ) : (
              <>
                <circle cx={width - 8} cy={y} r={8} fill="var(--well)" stroke="var(--ink)" strokeWidth={1.5} />
                {terminal.form === 'screw' && <path d={`M${width - 13} ${y}H${width - 3}`} stroke="var(--ink)" strokeWidth={1.5} />}
              </>
            )}
            <text x={width + LEAD + 18} y={y - 1} fontSize={13} fontWeight={700} fill="var(--ink)">
              {terminal.mark ?? terminal.id}
            </text>
            <text x={width + LEAD + 18} y={y + 13} fontSize={11} fill="var(--soft)">
              {terminal.role}
              {terminal.strip ? `, strip ${terminal.strip} mm` : ''}
              {terminal.size ? `, ${terminal.size}` : ''}
            </text>
          </g>
        );
      })}
    </svg>
  );
}
