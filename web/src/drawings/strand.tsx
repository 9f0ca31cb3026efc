import type { Colour } from '@inventario/core';
import { INSULATION } from './insulation.js';

/** The board's own; what is drawn here stands on it. */
const EDGE = 'var(--edge)';

/**
 * A conductor along a path: a dark edge, the insulation in its real colour, and the second colour where there
 * is one.
 * @param clear drawn over what it passes in front of, with the board showing on both sides
 */
export function Strand({
  d,
  colour,
  width = 9,
  clear = false,
}: {
  d: string;
  colour: Colour;
  width?: number;
  clear?: boolean;
}) {
  const common = { d, fill: 'none', strokeLinecap: 'round' as const, strokeLinejoin: 'round' as const };
  return (
    <g>
      {clear && <path {...common} stroke="var(--board)" strokeWidth={width + 8} strokeLinecap="butt" />}
      <path
        {...common}
        stroke={EDGE}
        strokeWidth={width + 2.4}
        strokeDasharray={colour === 'unknown' ? '5 5' : undefined}
      />
      {colour !== 'unknown' && <path {...common} stroke={INSULATION[colour].fill} strokeWidth={width} />}
      {colour === 'green-yellow' && (
        <path
          {...common}
          stroke={INSULATION.yellow.fill}
          strokeWidth={width}
          strokeDasharray="6 8"
          strokeLinecap="butt"
        />
      )}
      {colour === 'bare' && <path {...common} stroke="#f0c294" strokeWidth={width / 4} />}
    </g>
  );
}

/** The code of a conductor's colour, on a collar round it. */
export function Collar({ x, y, colour }: { x: number; y: number; colour: Colour }) {
  const { fill, code, ink } = INSULATION[colour];
  const width = code.length > 2 ? 34 : 26;
  return (
    <g>
      <rect
        x={x - width / 2}
        y={y - 9}
        width={width}
        height="18"
        rx="4"
        fill={fill}
        stroke={EDGE}
        strokeWidth="1.6"
        strokeDasharray={colour === 'unknown' ? '3 3' : undefined}
      />
      <text x={x} y={y + 5} textAnchor="middle" fontSize="14" fontWeight="700" fill={ink}>
        {code}
      </text>
    </g>
  );
}

/** A short piece of the conductor beside its name in lists, on the tone of the board. */
export function Swatch({ colour }: { colour: Colour }) {
  return (
    <svg aria-hidden="true" width="44" height="24" viewBox="0 0 44 24" className="board shrink-0 rounded">
      <Strand d="M5 12H39" colour={colour} width={8} />
      <Collar x={22} y={12} colour={colour} />
    </svg>
  );
}
