import type { CircuitPower } from '@inventario/core';

/**
 * On is a filled disc with a bolt, off a ring with a bar, unknown a dashed ring: told by shape before colour.
 */
export function PowerShape({ state }: { state: CircuitPower['state'] }) {
  return (
    <svg aria-hidden="true" viewBox="0 0 20 20" className="size-5 shrink-0">
      {state === 'on' && (
        <>
          <circle cx="10" cy="10" r="9" fill="currentColor" />
          <path d="M11.5 3.5L6 11h3.5l-1 5.5L14 9h-3.5z" fill="var(--sheet)" />
        </>
      )}
      {state === 'off' && (
        <path d="M10 2a8 8 0 1 1-.01 0zM5 10h10" fill="none" stroke="currentColor" strokeWidth="2.4" />
      )}
      {state === 'unknown' && (
        <circle
          cx="10"
          cy="10"
          r="8"
          fill="none"
          stroke="currentColor"
          strokeWidth="2"
          strokeDasharray="3 3"
        />
      )}
    </svg>
  );
}
