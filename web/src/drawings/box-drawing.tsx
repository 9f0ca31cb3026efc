import { lengthText, plural, type UnitSystem } from '@inventario/core';
import type { BoxGeometry } from './box-geometry.js';

const MARGIN = 14;
const GAP = 26;
/** Figures in the drawing's own units: of at least 14 px where it is as wide as a phone. */
const LETTERS = 11;
const ON_A_PHONE = 14 / 330;
/** A body less deep than this, mm, is narrower than its figure. */
const NARROW = 40;

/**
 * The box's face and, beside it and to the same scale, its section: the wall on the left, the box going into
 * it to the right.
 */
export function BoxDrawing({
  geometry,
  units,
  planned,
}: {
  geometry: BoxGeometry;
  units: UnitSystem;
  planned: boolean;
}) {
  const { face, section } = geometry;
  const inside = section.depth ?? Math.max(40, section.body + section.clearance);
  const total = section.setBack + section.rings.reduce((sum, ring) => sum + ring, 0) + inside;
  const needed = section.body + section.clearance;
  const reach = Math.max(total, needed);
  const width = MARGIN * 2 + face.width + GAP + reach + 8;
  const height = MARGIN * 2 + face.height + 16;
  const open = section.depth !== null && needed > total;
  const says = [
    `Face ${lengthText(face.width, units)} wide and ${lengthText(face.height, units)} ` +
      `high${face.assumed ? ', assumed' : ''}, with ${plural(geometry.controls.length, 'position')}.`,
    section.depth === null
      ? 'Depth not measured.'
      : `Depth behind the finished face ${lengthText(total, units)}.`,
    section.deepest === null
      ? ''
      : `${planned ? 'As planned' : 'As found'} the deepest body takes ${lengthText(section.body, units)} ` +
        'and its conductors ' +
        `${lengthText(section.clearance, units)}${open ? ', which is more than there is' : ''}.`,
  ].join(' ');

  return (
    <svg
      role="img"
      aria-label={says}
      viewBox={`0 0 ${width} ${height}`}
      className="max-h-60 w-full text-ink"
      style={{ fontFamily: 'var(--font-sans)', fontSize: Math.max(LETTERS, width * ON_A_PHONE) }}
    >
      <g transform={`translate(${MARGIN} ${MARGIN})`}>
        <FaceDrawing geometry={geometry} />
        <Size x1={0} x2={face.width} y={face.height + 6} text={lengthText(face.width, units)} />
      </g>
      <g transform={`translate(${MARGIN + face.width + GAP} ${MARGIN})`}>
        <line x1="0" x2="0" y1="-8" y2={face.height + 8} stroke="currentColor" strokeWidth="2.4" />
        {section.depth !== null && <BoxOutline section={section} height={face.height} />}
        {section.deepest !== null && (
          <DeepestBody
            section={section}
            height={face.height}
            text={lengthText(section.body, units)}
            planned={planned}
          />
        )}
        {open && (
          <line
            x1={total}
            x2={needed}
            y1={face.height / 2}
            y2={face.height / 2}
            stroke="var(--stop)"
            strokeWidth="3"
          />
        )}
        <Size
          x1={0}
          x2={total}
          y={face.height + 6}
          text={section.depth === null ? 'not measured' : lengthText(total, units)}
        />
      </g>
      <defs>
        <pattern id="folded" width="4" height="4" patternUnits="userSpaceOnUse" patternTransform="rotate(35)">
          <line x1="0" y1="0" x2="0" y2="4" stroke="currentColor" strokeWidth="1.1" />
        </pattern>
      </defs>
    </svg>
  );
}

/** The opening with what sits in it, and where a hand works it. */
function FaceDrawing({ geometry: { face, bodies, controls } }: { geometry: BoxGeometry }) {
  return (
    <>
      <rect
        width={face.width}
        height={face.height}
        rx="2"
        fill="var(--well)"
        stroke="currentColor"
        strokeWidth="1.4"
        strokeDasharray={face.assumed ? '3 2' : undefined}
      />
      {bodies.map((body) => (
        <rect
          key={body.positions.join()}
          x={body.x}
          y={body.y}
          width={body.width}
          height={body.height}
          rx="1.5"
          fill="var(--sheet)"
          stroke="currentColor"
          strokeWidth="0.8"
        />
      ))}
      {controls.map((control) => (
        <g key={control.position}>
          <circle
            cx={control.x}
            cy={control.y}
            r="8"
            fill="var(--ground)"
            stroke="currentColor"
            strokeWidth="0.8"
          />
          <text x={control.x} y={control.y + 4} textAnchor="middle" fontWeight="700" fill="currentColor">
            {control.position}
          </text>
        </g>
      ))}
    </>
  );
}

/** The body that goes in deepest, with the conductors folded behind it. */
function DeepestBody({
  section,
  height,
  text,
  planned,
}: {
  section: BoxGeometry['section'];
  height: number;
  text: string;
  planned: boolean;
}) {
  return (
    <>
      <rect
        x="0"
        y={height * 0.12}
        width={section.body}
        height={height * 0.76}
        fill="var(--sheet)"
        stroke="currentColor"
        strokeWidth="0.8"
        strokeDasharray={planned ? '4 1.5' : undefined}
      />
      <rect
        x={section.body}
        y={height * 0.18}
        width={section.clearance}
        height={height * 0.64}
        fill="url(#folded)"
        stroke="currentColor"
        strokeWidth="0.5"
      />
      {/* In a flat body the figure stands upright, or it would cross its outline. */}
      <text
        x={section.body / 2}
        y={height / 2}
        dy="4"
        textAnchor="middle"
        fontWeight="600"
        fill="currentColor"
        transform={section.body < NARROW ? `rotate(-90 ${section.body / 2} ${height / 2})` : undefined}
      >
        {text}
      </text>
    </>
  );
}

function BoxOutline({ section, height }: { section: BoxGeometry['section']; height: number }) {
  let x = section.setBack;
  const parts = [...section.rings, section.depth ?? 0].map((depth) => {
    const part = { from: x, to: x + depth };
    x += depth;
    return part;
  });
  return (
    <>
      {section.setBack > 0 && (
        <line
          x1="0"
          x2={section.setBack}
          y1="0"
          y2="0"
          stroke="currentColor"
          strokeWidth="0.6"
          strokeDasharray="1.5 1.5"
        />
      )}
      {Object.entries(parts).map(([at, { from, to }]) => (
        <path
          key={at}
          d={
            Number(at) === parts.length - 1
              ? `M${from} 0H${to}V${height}H${from}`
              : `M${from} 0H${to} M${from} ${height}H${to} M${to} 0V4 M${to} ${height}V${height - 4}`
          }
          fill="none"
          stroke="currentColor"
          strokeWidth="1.4"
        />
      ))}
    </>
  );
}

function Size({ x1, x2, y, text }: { x1: number; x2: number; y: number; text: string }) {
  return (
    <g>
      <path
        d={`M${x1} ${y - 2}V${y + 2}M${x1} ${y}H${x2}M${x2} ${y - 2}V${y + 2}`}
        stroke="var(--soft)"
        strokeWidth="0.6"
      />
      <text x={(x1 + x2) / 2} y={y + 12} textAnchor="middle" fill="var(--soft)">
        {text}
      </text>
    </g>
  );
}
