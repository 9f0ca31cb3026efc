import type { Colour } from '@inventario/core';
import { INSULATION } from './insulation.js';

/**
 * A conductor along a path: an outline that shows on both themes, the insulation, and the second colour where
 * there is one.
 */
export function Strand({ d, colour, width = 7 }: { d: string; colour: Colour; width?: number }) {
  const common = { d, fill: 'none', strokeLinecap: 'round' as const };
  return (
    <g>
      <path
        {...common}
        stroke="var(--outline)"
        strokeWidth={width + 2}
        strokeDasharray={colour === 'unknown' ? '5 5' : undefined}
      />
      {colour !== 'unknown' && <path {...common} stroke={INSULATION[colour]} strokeWidth={width} />}
      {colour === 'green-yellow' && (
        <path
          {...common}
          stroke={INSULATION.yellow}
          strokeWidth={width}
          strokeDasharray="6 8"
          strokeLinecap="butt"
        />
      )}
      {colour === 'bare' && <path {...common} stroke="#f0c294" strokeWidth={width / 4} />}
    </g>
  );
}

/** A short piece of the conductor beside its name in lists. */
export function Swatch({ colour }: { colour: Colour }) {
  return (
    <svg aria-hidden="true" width="28" height="14" viewBox="0 0 28 14" className="shrink-0">
      <Strand d="M5 7H23" colour={colour} width={8} />
    </svg>
  );
}
