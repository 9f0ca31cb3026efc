import { COLOUR_WORDS, type JobLookup, netWords, type WiringPicture } from '@inventario/core';
import { useId, useMemo } from 'react';
import { ConnectorHatching } from '../fan-parts.js';
import { certaintyOf, RoleMark } from '../role-mark.js';
import { Collar, Strand } from '../strand.js';
import { layWiring, type PlacedPanel, type WiringLayout } from './layout.js';

/** No larger than this, however much room there is. */
const LARGEST = 1;

/** What of a wiring is lit: names of ends and terminals, and `joint:J1`. Null: all of it. */
export type Lit = ReadonlySet<string> | null;

/**
 * A box put together: cables above in their real colours, joints as hatched bars with what goes in, devices
 * below with their terminals as printed. What nobody touches is pale.
 */
export function WiringDrawing({
  picture,
  known,
  lit,
  onPick,
  label,
  panelName,
}: {
  picture: WiringPicture;
  known: JobLookup;
  lit: Lit;
  /** A joint (`joint:J1`) or a device (`position-1`) was touched. */
  onPick?: (key: string) => void;
  label: string;
  panelName: (position: number | null) => string;
}) {
  const lines = useMemo(
    () => new Map(picture.joints.map((joint) => [joint.id, barLines(joint, known)])),
    [picture, known],
  );
  const layout = useMemo(() => layWiring(picture, (id) => lines.get(id) ?? []), [picture, lines]);
  const pattern = useId();
  const isLit = (names: readonly string[]) => lit === null || names.some((name) => lit.has(name));
  const pale = (on: boolean, stays: boolean) => (on ? (stays ? 0.5 : 1) : 0.16);
  return (
    <svg
      className="board mx-auto block h-auto w-full rounded-lg print:max-h-[110mm]"
      viewBox={`0 0 ${layout.width} ${layout.height}`}
      style={{ maxWidth: layout.width * LARGEST }}
      aria-label={label}
    >
      <ConnectorHatching id={pattern} />
      {layout.bars.map((bar) => (
        <g key={bar.jointId} opacity={pale(isLit([`joint:${bar.jointId}`]), bar.stays)}>
          <rect x={bar.from} y={bar.y - 8} width={bar.to - bar.from} height="16" rx="8" fill="var(--joint)" />
          <rect
            x={bar.from}
            y={bar.y - 8}
            width={bar.to - bar.from}
            height="16"
            rx="8"
            fill={`url(#${pattern})`}
          />
        </g>
      ))}
      {layout.strands.map(({ names, d, colour, width, stays }) => (
        <g key={`${names.join()}${d}`} opacity={pale(isLit(names), stays)}>
          <Strand d={d} colour={colour} width={width} clear />
        </g>
      ))}
      <Dots layout={layout} isLit={isLit} />
      <PieceTags layout={layout} isLit={isLit} />
      <Caps layout={layout} isLit={isLit} />
      <Heads layout={layout} isLit={isLit} />
      {layout.panels.map((panel) => (
        <Panel
          key={panel.key}
          panel={panel}
          name={panelName(panel.position)}
          isLit={isLit}
          {...(onPick ? { onPick } : {})}
        />
      ))}
      {layout.bars.map((bar) => (
        <BarWords
          key={bar.jointId}
          bar={bar}
          lines={lines.get(bar.jointId) ?? []}
          opacity={isLit([`joint:${bar.jointId}`]) ? 1 : 0.25}
          isFirst={lit?.has(`joint:${bar.jointId}`) === true}
          {...(onPick ? { onPick } : {})}
        />
      ))}
    </svg>
  );
}

type IsLit = (names: readonly string[]) => boolean;

/** Over a bar: which joint, of what, how many go in, and in what. */
function barLines(
  { number, net, count, connector }: WiringPicture['joints'][number],
  known: JobLookup,
): string[] {
  const size = connector?.id.replace(/^usual-/, '') ?? 'no connector takes it';
  return [`${number} ${netWords(net, known)}`, `${count} in, ${size}`];
}

function Dots({ layout, isLit }: { layout: WiringLayout; isLit: IsLit }) {
  return layout.bars.map(({ jointId, dots, y, stays }) => (
    <g key={jointId} opacity={isLit([`joint:${jointId}`]) ? (stays ? 0.5 : 1) : 0.16}>
      {dots.map((x) => (
        <circle key={x} cx={x} cy={y} r="5.5" fill="var(--onjoint)" stroke="var(--edge)" strokeWidth="1.6" />
      ))}
    </g>
  ));
}

/** The names of pieces that are made, where they end. */
function PieceTags({ layout, isLit }: { layout: WiringLayout; isLit: IsLit }) {
  return layout.tags.map(({ name, x, y }) => (
    <text
      key={name}
      x={x}
      y={y}
      fontSize="11"
      fontWeight="700"
      fill="var(--ink)"
      paintOrder="stroke"
      stroke="var(--board)"
      strokeWidth="3"
      opacity={isLit([name]) ? 1 : 0.3}
    >
      {name}
    </text>
  ));
}

/** A cap: a dome over the end. */
function Caps({ layout, isLit }: { layout: WiringLayout; isLit: IsLit }) {
  return layout.caps.map(({ name, x, y, up, stays }) => (
    <path
      key={name}
      opacity={isLit([name]) ? (stays ? 0.5 : 1) : 0.16}
      d={
        up
          ? `M${x - 9} ${y + 4}V${y - 4}A9 9 0 0 1 ${x + 9} ${y - 4}V${y + 4}Z`
          : `M${x - 9} ${y - 4}V${y + 4}A9 9 0 0 0 ${x + 9} ${y + 4}V${y - 4}Z`
      }
      fill="var(--joint)"
      stroke="var(--edge)"
      strokeWidth="1.4"
    />
  ));
}

/** The cables as they come in, with the mark and the colour of each core. */
function Heads({ layout, isLit }: { layout: WiringLayout; isLit: IsLit }) {
  return (
    <>
      {layout.cables.map(({ id, letter, word, from, to }) => (
        <g key={id}>
          <text
            x={(from + to) / 2}
            y="17"
            textAnchor="middle"
            fontSize="15"
            fontWeight="700"
            fill="var(--ink)"
          >
            {shortened([word, letter].filter(Boolean).join(' '), (to - from + 34) / 8)}
          </text>
          <rect
            x={from - 14}
            y="24"
            width={to - from + 28}
            height="14"
            rx="6"
            fill="var(--well)"
            stroke="var(--edge)"
          />
        </g>
      ))}
      {layout.cores.map(({ core, x }) => (
        <g key={core.name} opacity={isLit([core.name]) ? (core.stays ? 0.6 : 1) : 0.25}>
          <title>{COLOUR_WORDS[core.colour]}</title>
          <g transform={`translate(${x - 12} 42)`}>
            <RoleMark
              role={core.label?.role ?? 'unknown'}
              traveler={core.label?.traveler}
              size={24}
              certainty={core.label ? certaintyOf(core.label) : 'guess'}
            />
          </g>
          <Collar x={x} y={82} colour={core.colour} />
        </g>
      ))}
    </>
  );
}

function Panel({
  panel,
  name,
  isLit,
  onPick,
}: {
  panel: PlacedPanel;
  name: string;
  isLit: IsLit;
  onPick?: (key: string) => void;
}) {
  const { key, kind, x, y, width, terminals } = panel;
  const any = isLit([key, ...terminals.map(({ terminal }) => terminal.name)]);
  const pick = onPick && kind === 'planned' ? () => onPick(key) : undefined;
  return (
    <g
      opacity={any ? (kind === 'stays' ? 0.6 : 1) : 0.3}
      {...(pick
        ? {
            role: 'button',
            tabIndex: 0,
            'aria-label': `Light ${name}`,
            onClick: pick,
            onKeyDown: (event: React.KeyboardEvent) => {
              if (event.key === 'Enter' || event.key === ' ') pick();
            },
          }
        : {})}
    >
      <rect
        x={x}
        y={y}
        width={width}
        height="52"
        rx="6"
        fill="var(--well)"
        stroke="var(--edge)"
        strokeWidth="1.6"
      />
      {terminals.map(({ terminal, x: at }) => (
        <g key={terminal.name} opacity={isLit([key, terminal.name]) ? 1 : 0.35}>
          <Post x={at} y={y} form={terminal.form} />
          <text
            x={at}
            y={y + 27}
            textAnchor="middle"
            fontSize="12"
            fontWeight="700"
            fill="var(--ink)"
            {...fitted(terminal.mark)}
          >
            {terminal.mark}
          </text>
          {terminal.strip !== null && (
            <text x={at} y={y + 43} textAnchor="middle" fontSize="11" fill="var(--ink)">
              {terminal.strip}
            </text>
          )}
        </g>
      ))}
      <text x={x + width / 2} y={y + 69} textAnchor="middle" fontSize="14" fontWeight="600" fill="var(--ink)">
        {shortened(name, (width + 20) / 7.4)}
      </text>
    </g>
  );
}

const fitted = (mark: string) =>
  mark.length > 4 ? { textLength: 31, lengthAdjust: 'spacingAndGlyphs' as const } : {};

/** What a wire ends on, by its form. */
function Post({ x, y, form }: { x: number; y: number; form: string }) {
  const common = { fill: 'var(--sheet)', stroke: 'var(--edge)', strokeWidth: 1.6 };
  if (form === 'lead') return <rect x={x - 4} y={y - 3} width="8" height="8" rx="2" {...common} />;
  if (form === 'clamp') return <rect x={x - 8} y={y - 6} width="16" height="14" rx="2" {...common} />;
  if (form === 'push-in') return <path d={`M${x - 8} ${y - 6}h16v14h-16Z M${x} ${y - 6}v8`} {...common} />;
  return (
    <g>
      <circle cx={x} cy={y} r="8" {...common} />
      <path d={`M${x - 5} ${y + 3}l10 -6`} stroke="var(--edge)" strokeWidth="2" />
    </g>
  );
}

function BarWords({
  bar,
  lines,
  opacity,
  isFirst,
  onPick,
}: {
  bar: WiringLayout['bars'][number];
  lines: readonly string[];
  opacity: number;
  /** It is what is looked for. */
  isFirst: boolean;
  onPick?: (key: string) => void;
}) {
  const key = `joint:${bar.jointId}`;
  const width = Math.max(...lines.map((line) => line.length)) * 7.3 + 8;
  return (
    <g
      opacity={opacity}
      {...(isFirst ? { 'data-lit': '' } : {})}
      {...(onPick
        ? {
            role: 'button',
            tabIndex: 0,
            'aria-label': `Light joint ${lines.join(', ')}`,
            onClick: () => onPick(key),
            onKeyDown: (event: React.KeyboardEvent) => {
              if (event.key === 'Enter' || event.key === ' ') onPick(key);
            },
          }
        : {})}
    >
      <rect x={bar.from - 4} y={bar.y - 12} width={bar.to - bar.from + 8} height="24" fill="transparent" />
      <path d={tagPath(bar.from + 2, bar.y - 12, width)} fill="var(--sheet)" stroke="var(--edge)" />
      <text x={bar.from + 7} y={bar.y - 27} fontSize="12.5" fontWeight="700" fill="var(--ink)">
        {lines[0]}
      </text>
      <text x={bar.from + 7} y={bar.y - 15.5} fontSize="11" fill="var(--ink)">
        {lines[1]}
      </text>
    </g>
  );
}

const shortened = (text: string, letters: number) =>
  text.length > letters ? `${text.slice(0, Math.max(1, Math.floor(letters) - 1))}…` : text;

/** The outline of a tag that points down at its bar. */
const tagPath = (x: number, y: number, width: number) =>
  `M${x} ${y}v-24q0 -4 4 -4h${width - 8}q4 0 4 4v20q0 4 -4 4H${x + 12}l-6 6Z`;
