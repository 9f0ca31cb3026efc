import type { Role } from '@inventario/core';

/**
 * Marks of our own for what a conductor is: a shape and a letter, never a colour, so that they survive a bad
 * printer and any eye.
 *
 *   line          flag pointing on       L     energy comes this way
 *   line-on       flag with a second one L+    and goes on to somewhere else
 *   switched-line flag with a notch      L/    only through a switch elsewhere
 *   load          round                  S     what the switch works
 *   neutral       broad bar              N
 *   ground        wedge standing on a line G
 *   traveler      lozenge with its number
 *   spare         dashed square          –
 *   unknown       dashed round           ?
 */
const SHAPES: Record<Role, { d: string; letter: string; dashed?: boolean; x?: number; y?: number }> = {
  line: { d: 'M4 6H20L29 16L20 26H4Z', letter: 'L', x: 14 },
  'line-on': { d: 'M2 6H16L24 16L16 26H2Z M20 6L28 16L20 26', letter: 'L', x: 10 },
  'switched-line': { d: 'M4 6H13L16 11L19 6H20L29 16L20 26H4Z', letter: 'L', x: 14, y: 22.5 },
  load: { d: 'M16 4A12 12 0 1 1 15.99 4Z', letter: 'S' },
  neutral: { d: 'M2 9H30V23H2Z', letter: 'N', y: 20.5 },
  ground: { d: 'M6 4H26L20 24H12Z M8 28H24', letter: 'G', y: 18 },
  traveler: { d: 'M16 2L30 16L16 30L2 16Z', letter: 'T' },
  spare: { d: 'M6 6H26V26H6Z', letter: '–', dashed: true },
  unknown: { d: 'M16 5A11 11 0 1 1 15.99 5Z', letter: '?', dashed: true },
};

/** How surely it is meant: a flag the installer set, or what the readings say and how surely. */
export type Certainty = 'labelled' | 'confirmed' | 'indicated' | 'guess';

/**
 * Labelled and indicated marks are drawn in line, confirmed ones are filled, guesses are dashed and grey:
 * told by shape, not colour.
 */
export function RoleMark({
  role,
  traveler,
  size = 32,
  certainty = 'labelled',
}: {
  role: Role;
  traveler?: number | undefined;
  size?: number;
  certainty?: Certainty;
}) {
  const { d, letter, dashed: open, x = 16, y = 21 } = SHAPES[role];
  const dashed = open || certainty === 'guess';
  const filled = certainty === 'confirmed';
  return (
    <svg
      aria-hidden="true"
      width={size}
      height={size}
      viewBox="0 0 32 32"
      className={certainty === 'guess' ? 'shrink-0 text-soft' : 'shrink-0'}
    >
      <path
        d={d}
        fill={filled ? 'currentColor' : dashed ? 'none' : 'var(--sheet)'}
        stroke="currentColor"
        strokeWidth="2.2"
        strokeLinejoin="round"
        strokeDasharray={dashed ? '3.5 3' : undefined}
      />
      <text
        x={x}
        y={y}
        textAnchor="middle"
        fontSize="14"
        fontWeight="700"
        fill={filled ? 'var(--sheet)' : 'currentColor'}
        fontFamily="var(--font-sans)"
      >
        {role === 'traveler' && traveler ? traveler : letter}
      </text>
    </svg>
  );
}
