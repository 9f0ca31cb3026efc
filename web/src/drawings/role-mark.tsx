import type { Label, Role } from '@inventario/core';
import { createContext, useContext } from 'react';

/**
 * Marks of our own for what a conductor is: a shape and a letter, never a colour, so that they survive a bad
 * printer and any eye.
 *
 *   line          flag pointing on       L     energy comes this way
 *   line-on       flag with a second one L+    and goes on to somewhere else
 *   switched-line flag with a notch      L/    only through a switch elsewhere
 *   load          round                  S     what the switch works
 *   neutral       broad bar              N
 *   ground        wedge standing on a line G     E where the trade says earth
 *   traveler      lozenge with its number
 *   spare         dashed square          –
 *   unknown       dashed round           ?
 */
const SHAPES: Record<Role, { d: string; letter: string; x?: number; y?: number }> = {
  line: { d: 'M4 6H20L29 16L20 26H4Z', letter: 'L', x: 14 },
  'line-on': { d: 'M2 6H16L24 16L16 26H2Z M20 6L28 16L20 26', letter: 'L', x: 10 },
  'switched-line': { d: 'M4 6H13L16 11L19 6H20L29 16L20 26H4Z', letter: 'L', x: 14, y: 22.5 },
  load: { d: 'M16 4A12 12 0 1 1 15.99 4Z', letter: 'S' },
  neutral: { d: 'M2 9H30V23H2Z', letter: 'N', y: 20.5 },
  ground: { d: 'M6 4H26L20 24H12Z M8 28H24', letter: 'G', y: 18 },
  traveler: { d: 'M16 2L30 16L16 30L2 16Z', letter: 'T' },
  spare: { d: 'M6 6H26V26H6Z', letter: '–' },
  unknown: { d: 'M16 5A11 11 0 1 1 15.99 5Z', letter: '?' },
};

/** The letter a ground is marked with in the practice of the job. */
export const GroundLetter = createContext('G');

/**
 * How surely it is meant. `labelled`: the installer's word; `by-eye`: the same, taken from its looks;
 * `confirmed`: proved by readings; `indicated`: likely; `guess`: its looks alone.
 */
export type Certainty = 'labelled' | 'by-eye' | 'confirmed' | 'indicated' | 'guess';

/** What the sureness of a mark is called, everywhere. */
export const CERTAINTY_WORDS: Record<Certainty, string> = {
  labelled: 'labelled',
  'by-eye': 'labelled by eye',
  confirmed: 'proved',
  indicated: 'likely',
  guess: 'by its looks',
};

/** A label is the installer's word, traced or taken by eye. */
export function certaintyOf(label: Label): Certainty {
  return label.byEye ? 'by-eye' : 'labelled';
}

/**
 * Three marks that cannot be taken for each other, on a bad printer or at arm's length either:
 *
 *     my word   a white flag on a staff (a broken staff: taken by eye)
 *     proved    filled
 *     likely    a dashed outline, empty
 *     looks     no shape, the letter alone with a question mark
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
  const ground = useContext(GroundLetter);
  const { d, letter: usual, x = 16, y = 21 } = SHAPES[role];
  const letter = role === 'ground' ? ground : usual;
  const text = role === 'traveler' && traveler ? String(traveler) : letter;
  if (role === 'unknown' || certainty === 'guess')
    return (
      <svg aria-hidden="true" width={size} height={size} viewBox="0 0 32 32" className="shrink-0">
        <text x="16" y="21" textAnchor="middle" fontSize="15" fontWeight="600" fill="currentColor">
          {role === 'unknown' ? '?' : `${text}?`}
        </text>
      </svg>
    );
  const filled = certainty === 'confirmed';
  const likely = certainty === 'indicated';
  const staff = certainty === 'labelled' || certainty === 'by-eye';
  return (
    <svg aria-hidden="true" width={size} height={size} viewBox="0 0 32 32" className="shrink-0">
      <path
        d={d}
        fill={filled ? 'currentColor' : likely ? 'none' : 'var(--sheet)'}
        stroke="currentColor"
        strokeWidth={likely ? 1.8 : 2.4}
        strokeLinejoin="round"
        strokeDasharray={likely || role === 'spare' ? '3.5 3' : undefined}
      />
      {staff && (
        <path
          d="M1.6 1V31"
          stroke="currentColor"
          strokeWidth="3.2"
          strokeDasharray={certainty === 'by-eye' ? '6 4' : undefined}
        />
      )}
      <text
        x={x}
        y={y}
        textAnchor="middle"
        fontSize="15"
        fontWeight="700"
        fill={filled ? 'var(--sheet)' : 'currentColor'}
        fontFamily="var(--font-sans)"
      >
        {text}
      </text>
    </svg>
  );
}

const LEGEND: Role = 'load';

/** What the marks of a drawing mean. */
export function MarkLegend({ byEye = false }: { byEye?: boolean }) {
  const shown: Certainty[] = [
    'labelled',
    ...(byEye ? (['by-eye'] as const) : []),
    'confirmed',
    'indicated',
    'guess',
  ];
  return (
    <ul aria-label="What the marks mean" className="flex flex-wrap items-center gap-x-2 text-sm">
      {shown.map((certainty) => (
        <li key={certainty} className="flex items-center gap-1 whitespace-nowrap">
          <RoleMark role={LEGEND} size={30} certainty={certainty} />
          {CERTAINTY_WORDS[certainty]}
        </li>
      ))}
    </ul>
  );
}
