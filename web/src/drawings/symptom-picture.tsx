import type { SymptomKind } from '@inventario/core';
import type { ReactNode } from 'react';

/** What is seen, as a small drawing: told by shape, so that it reads without colour. */
export function SymptomPicture({ kind, value }: { kind: SymptomKind; value: string }) {
  return (
    <svg aria-hidden="true" viewBox="0 0 48 40" className="h-10 w-12 shrink-0">
      <g fill="none" stroke="currentColor" strokeWidth="2" strokeLinecap="round" strokeLinejoin="round">
        {DRAWN[kind](value)}
      </g>
    </svg>
  );
}

const DRAWN: Record<SymptomKind, (value: string) => ReactNode> = {
  indicator: (value) => (
    <>
      <Face />
      <circle cx="24" cy="29" r="3" fill={value === 'off' ? 'none' : 'currentColor'} />
      {value === 'on' && <path d="M17 29h-2M31 29h2" />}
      {value === 'blink' && <path d="M17 25l-2-2M17 33l-2 2M31 25l2-2M31 33l2 2" />}
    </>
  ),
  control: (value) => (
    <>
      <Face x={3} />
      {value === 'none' ? <path d="M28 20h4M36 20h4" /> : <path d="M26 20h14M36 16l4 4-4 4" />}
      {value === 'partial' && <path d="M30 12l6 16" />}
    </>
  ),
  load: (value) => <Lamp look={value} />,
  neighbour: (value) => (
    <>
      <Lamp look={{ dead: 'off', bright: 'bright', dim: 'dim', ok: 'on' }[value] ?? 'on'} small />
      <path d="M4 34h12V22H4z" />
    </>
  ),
  breaker: (value) => (
    <>
      <path d="M14 4h20v32H14z" />
      {value === 'holds' ? <path d="M20 10h8v10h-8z" fill="currentColor" /> : <path d="M20 22h8v8h-8z" />}
      {value === 'trips-at-switching' && <path d="M38 12l-3 7h5l-3 8" />}
      {value === 'trips-at-on' && <path d="M40 10v8M40 23v1" />}
    </>
  ),
  far: (value) => (
    <>
      <Face x={1} narrow />
      <Face x={31} narrow />
      {value === 'works' && <path d="M20 20h8" />}
      {value === 'dead' && <path d="M20 16l8 8M28 16l-8 8" />}
      {value === 'one-way' && <path d="M20 16h8M20 24h2M26 24h2" />}
    </>
  ),
  feel: (value) => (
    <>
      {value === 'heat' && <path d="M14 34c-3-6 4-8 0-14M24 34c-3-6 4-8 0-14M34 34c-3-6 4-8 0-14" />}
      {value === 'crackle' && <path d="M26 4l-10 18h8l-4 14 14-20h-9z" />}
      {value === 'tingle' && <path d="M6 20h6l3-8 5 16 5-16 5 16 3-8h8" />}
      {value === 'tilted' && <path d="M16 6l20 4-5 26-20-4z" />}
      {value === 'none' && <path d="M14 21l7 7 14-15" />}
    </>
  ),
  restarts: (value) =>
    value === 'yes' ? <path d="M34 12a13 13 0 1 0 3 10M36 5v8h-8" /> : <path d="M14 21l7 7 14-15" />,
};

function Face({ x = 14, narrow = false }: { x?: number; narrow?: boolean }) {
  return <rect x={x} y="3" width={narrow ? 16 : 20} height="34" rx="3" />;
}

function Lamp({ look, small = false }: { look: string; small?: boolean }) {
  const rays = 'M24 1v3M10 6l2 2M38 6l-2 2M6 18h3M39 18h3';
  const isLit = look === 'on' || look === 'bright' || look === 'follows';
  return (
    <g transform={small ? 'translate(18 2) scale(0.62)' : undefined}>
      <path
        d="M18 27c-4-3-6-6-6-10a12 12 0 0 1 24 0c0 4-2 7-6 10v4H18zM19 36h10"
        fill={isLit ? 'currentColor' : 'none'}
      />
      {(isLit || look === 'flicker') && <path d={rays} />}
      {look === 'bright' && <path d="M14 2l1 2M34 2l-1 2M5 12l3 1M43 12l-3 1" />}
      {look === 'dim' && <path d="M18 18h12" />}
      {look === 'flicker' && <path d="M25 9l-4 8h6l-4 8" />}
      {look === 'glow' && <circle cx="24" cy="17" r="3" fill="currentColor" />}
      {look === 'follows' && <path d="M40 26l4 4-4 4M44 30h-9" />}
    </g>
  );
}
