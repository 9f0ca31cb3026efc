import type { Colour, PictureCore, PictureTerminal, Port, WiringPicture } from '@inventario/core';

import { orderOf, rowsOf, spanOf, type Track } from './track-order.js';

/*
 * Where everything of a wiring is drawn. Cables come in above, devices stand below, and every joint is a bar
 * between: what is in it comes down to it from a cable or up to it from a terminal.
 *
 *      feed          lamp
 *     BK WH G       BK WH G
 *      |  |  |       |  |  |
 *      |  |  ==J3====|==|==|==      what passes a bar without ending in it is drawn in front of it
 *      |  ===J2======|==|   |
 *      ==J1==        |  |   |
 *        |           |  |   |
 *       LINE  NEUT  LOAD   GND
 */

const COLUMN = 34;
const CABLE_GAP = 20;
const PANEL_GAP = 26;
const MARGIN = 26;
/** Heights: where a core leaves its cable, what stands above the first bar, a bar with its words, a panel. */
const SHEATH = 38;
const HEAD = 104;
const ROW = 56;
const PANEL = 64;
const CAP = 30;
/** Width of a letter in the words of a bar, about. */
const LETTER = 7.3;
/** Sideways between two wires on one terminal. */
const BESIDE = 9;

interface PlacedStrand {
  /** What it is lit by: its own name, and the joint or terminal it ends at. */
  names: string[];
  d: string;
  colour: Colour;
  width: number;
  stays: boolean;
}

interface PlacedBar {
  jointId: string;
  from: number;
  to: number;
  y: number;
  /** What ends in it: a dot each. */
  dots: number[];
  stays: boolean;
}

interface PlacedTerminal {
  terminal: PictureTerminal;
  x: number;
  y: number;
}

export interface PlacedPanel {
  key: string;
  position: number | null;
  kind: WiringPicture['panels'][number]['kind'];
  x: number;
  y: number;
  width: number;
  terminals: PlacedTerminal[];
}

export interface WiringLayout {
  width: number;
  height: number;
  cables: { id: string; letter: string; word: string; from: number; to: number }[];
  cores: { core: PictureCore; x: number }[];
  bars: PlacedBar[];
  panels: PlacedPanel[];
  strands: PlacedStrand[];
  /** Names of pieces that are made, beside where they end. */
  tags: { name: string; x: number; y: number }[];
  /** Ends that are capped. */
  caps: { name: string; x: number; y: number; up: boolean; stays: boolean }[];
}

/** @param wordsOf what is written over a bar: its longest line decides how much room it takes */
export function layWiring(
  picture: WiringPicture,
  wordsOf: (jointId: string) => readonly string[],
): WiringLayout {
  return new Laying(picture, wordsOf).layout();
}

class Laying {
  private readonly coreX = new Map<string, number>();
  private readonly terminalX = new Map<string, number>();
  /** Wires that end on a terminal, in the order they came. */
  private readonly atTerminal = new Map<string, number>();
  private readonly tracks = new Map<string, Track>();
  private readonly jumpers: { name: string; colour: Colour; x: number; from: string; to: string }[] = [];
  private width = 0;

  constructor(
    private readonly picture: WiringPicture,
    private readonly wordsOf: (jointId: string) => readonly string[],
  ) {}

  layout(): WiringLayout {
    const cables = this.placeColumns();
    this.makeTracks();
    // The words of a bar may reach beyond the last column.
    for (const track of this.tracks.values()) this.width = Math.max(this.width, spanOf(track)[1] + 10);
    const order = orderOf([...this.tracks.values()]);
    const rows = rowsOf(order);
    const rowY = (track: Track) => HEAD + CAP + 26 + (rows.get(track) ?? 0) * ROW;
    const count = Math.max(0, ...rows.values()) + (order.length > 0 ? 1 : 0);
    const panelY = HEAD + CAP + 14 + count * ROW;
    const strands: PlacedStrand[] = [];
    const bars: PlacedBar[] = [];
    for (const track of order) {
      const y = rowY(track);
      strands.push(...this.strandsOf(track, y, panelY));
      if (track.jointId !== null) bars.push(barOf(track, y, this.picture));
    }
    for (const { name, colour, x, from, to } of this.jumpers) {
      const [one, other] = [this.tracks.get(from), this.tracks.get(to)];
      if (!one || !other) continue;
      const [a, b] = [rowY(one), rowY(other)];
      strands.push({ names: [name, from, to], d: `M${x} ${a}V${b}`, colour, width: 7, stays: false });
    }
    const caps = this.caps(panelY);
    strands.push(...this.stubs(panelY));
    return {
      width: this.width,
      height: panelY + PANEL + 26,
      cables,
      cores: this.picture.cables.flatMap(({ cores }) =>
        cores.map((core) => ({ core, x: this.coreX.get(core.name) ?? 0 })),
      ),
      bars,
      panels: this.panels(panelY),
      strands,
      tags: this.tags(panelY, rowY),
      caps,
    };
  }

  /** Cores above, terminals below, the narrower of the two in the middle. */
  private placeColumns(): WiringLayout['cables'] {
    const { cables, panels } = this.picture;
    const widthOf = (counts: readonly number[], gap: number) =>
      counts.reduce((sum, count) => sum + count * COLUMN, 0) + Math.max(0, counts.length - 1) * gap;
    const above = widthOf(
      cables.map(({ cores }) => cores.length),
      CABLE_GAP,
    );
    const below = widthOf(
      panels.map(({ terminals }) => terminals.length),
      PANEL_GAP,
    );
    const inner = Math.max(above, below, 6 * COLUMN);
    this.width = inner + 2 * MARGIN;
    let x = MARGIN + (inner - above) / 2 + COLUMN / 2;
    const placed = cables.map(({ id, letter, word, cores }) => {
      const from = x;
      for (const { name } of cores) {
        this.coreX.set(name, x);
        x += COLUMN;
      }
      const to = x - COLUMN;
      x += CABLE_GAP;
      return { id, letter, word, from, to };
    });
    let at = MARGIN + (inner - below) / 2 + COLUMN / 2;
    for (const { terminals } of panels) {
      for (const { name } of terminals) {
        this.terminalX.set(name, at);
        at += COLUMN;
      }
      at += PANEL_GAP;
    }
    return placed;
  }

  private track(key: string, jointId: string | null): Track {
    let track = this.tracks.get(key);
    if (!track) {
      const words =
        jointId === null ? 0 : Math.max(0, ...this.wordsOf(jointId).map((line) => line.length)) * LETTER;
      track = { key, jointId, above: [], below: [], across: [], words };
      this.tracks.set(key, track);
    }
    return track;
  }

  private makeTracks(): void {
    for (const { id } of this.picture.joints) this.track(`joint:${id}`, id);
    for (const { cores } of this.picture.cables) for (const core of cores) this.trackCore(core);
    for (const { terminals } of this.picture.panels)
      for (const terminal of terminals)
        if (terminal.to && 'joint' in terminal.to && terminal.colour !== null)
          this.track(`joint:${terminal.to.joint}`, terminal.to.joint).below.push({
            x: this.terminalX.get(terminal.name) ?? 0,
            name: terminal.name,
            colour: terminal.colour,
            stays: false,
            terminal: terminal.name,
          });
    for (const piece of this.picture.pieces) this.trackPiece(piece);
  }

  private trackCore({ name, colour, to, stays }: PictureCore): void {
    const x = this.coreX.get(name) ?? 0;
    if (!to || 'cap' in to) return;
    if ('joint' in to) this.track(`joint:${to.joint}`, to.joint).above.push({ x, name, colour, stays });
    else {
      const track = this.track(`direct:${name}`, null);
      track.above.push({ x, name, colour, stays });
      track.below.push({ x: this.onTerminal(to.terminal), name, colour, stays, terminal: to.terminal });
    }
  }

  private trackPiece({ name, colour, from, to, made }: WiringPicture['pieces'][number]): void {
    const [one, other] = [keyOf(from), keyOf(to)];
    const down = (port: Port, track: Track) => {
      if ('terminal' in port)
        track.below.push({
          x: this.onTerminal(port.terminal),
          name,
          colour,
          stays: !made,
          terminal: port.terminal,
        });
    };
    if (one.joint !== null && other.joint !== null) {
      this.width += 26;
      const x = this.width - MARGIN - 4;
      this.jumpers.push({ name, colour, x, from: `joint:${one.joint}`, to: `joint:${other.joint}` });
      for (const joint of [one.joint, other.joint]) this.track(`joint:${joint}`, joint).across.push(x);
      return;
    }
    const joint = one.joint ?? other.joint;
    const track = joint === null ? this.track(`piece:${name}`, null) : this.track(`joint:${joint}`, joint);
    down(from, track);
    down(to, track);
  }

  /** Several wires on one terminal stand side by side. */
  private onTerminal(name: string): number {
    const before = this.atTerminal.get(name) ?? 0;
    this.atTerminal.set(name, before + 1);
    return (this.terminalX.get(name) ?? 0) + (before === 0 ? 0 : before % 2 === 1 ? BESIDE : -BESIDE);
  }

  private strandsOf(track: Track, y: number, panelY: number): PlacedStrand[] {
    const key = track.key.startsWith('joint:') ? track.key : '';
    if (track.jointId !== null)
      return [
        ...track.above.map(({ x, name, colour, stays }) => ({
          names: [name, key],
          d: `M${x} ${SHEATH}V${y}`,
          colour,
          width: 8,
          stays,
        })),
        ...track.below.map(({ x, name, colour, stays, terminal }) => ({
          names: [name, key, terminal],
          d: `M${x} ${panelY}V${y}`,
          colour,
          width: terminal === name ? 6 : 7,
          stays,
        })),
      ];
    const [down] = track.above;
    const [first, second] = track.below;
    if (down && first)
      return [
        {
          names: [down.name, first.terminal],
          d: bent(down.x, SHEATH, y, first.x, panelY),
          colour: down.colour,
          width: 8,
          stays: down.stays,
        },
      ];
    if (first && second)
      return [
        {
          names: [first.name, first.terminal, second.terminal],
          d: bent(first.x, panelY, y, second.x, panelY),
          colour: first.colour,
          width: 7,
          stays: first.stays,
        },
      ];
    return [];
  }

  private tags(panelY: number, rowY: (track: Track) => number): WiringLayout['tags'] {
    const made = new Set(this.picture.pieces.filter((piece) => piece.made).map(({ name }) => name));
    const below = [...this.tracks.values()].flatMap((track) => track.below);
    return [
      ...below
        .filter(({ name }, at) => made.has(name) && below.findIndex((end) => end.name === name) === at)
        .map(({ name, x }) => ({ name, x: x + 7, y: panelY - 14 })),
      ...this.jumpers.flatMap(({ name, x, from }) => {
        const track = this.tracks.get(from);
        return track && made.has(name) ? [{ name, x: x + 7, y: rowY(track) + 22 }] : [];
      }),
    ];
  }

  private caps(panelY: number): WiringLayout['caps'] {
    return [
      ...this.picture.cables.flatMap(({ cores }) =>
        cores
          .filter(({ to }) => to !== null && 'cap' in to)
          .map(({ name, stays }) => ({
            name,
            x: this.coreX.get(name) ?? 0,
            y: HEAD + CAP,
            up: false,
            stays,
          })),
      ),
      ...this.picture.panels.flatMap(({ terminals }) =>
        terminals
          .filter(({ to, colour }) => colour !== null && to !== null && 'cap' in to)
          .map(({ name }) => ({
            name,
            x: this.terminalX.get(name) ?? 0,
            y: panelY - CAP + 6,
            up: true,
            stays: false,
          })),
      ),
    ];
  }

  /** What is drawn of a conductor that is capped, or passes through. */
  private stubs(panelY: number): PlacedStrand[] {
    const strands: PlacedStrand[] = [];
    for (const { cores } of this.picture.cables)
      for (const { name, to, colour, stays } of cores) {
        const x = this.coreX.get(name) ?? 0;
        if (to === null)
          strands.push({ names: [name], d: `M${x} ${SHEATH}V${HEAD + 12}`, colour, width: 8, stays: true });
        else if ('cap' in to)
          strands.push({ names: [name], d: `M${x} ${SHEATH}V${HEAD + CAP}`, colour, width: 8, stays });
      }
    for (const { terminals } of this.picture.panels)
      for (const { name, to, colour } of terminals)
        if (colour !== null && to !== null && 'cap' in to)
          strands.push({
            names: [name],
            d: `M${this.terminalX.get(name) ?? 0} ${panelY}v${-CAP + 6}`,
            colour,
            width: 6,
            stays: false,
          });
    return strands;
  }

  private panels(y: number): PlacedPanel[] {
    return this.picture.panels.map(({ key, position, kind, terminals }) => {
      const placed = terminals.map((terminal) => ({
        terminal,
        x: this.terminalX.get(terminal.name) ?? 0,
        y,
      }));
      const xs = placed.map(({ x }) => x);
      const [from, to] = [Math.min(...xs), Math.max(...xs)];
      return {
        key,
        position,
        kind,
        x: from - COLUMN / 2 + 1,
        y,
        width: to - from + COLUMN - 2,
        terminals: placed,
      };
    });
  }
}

const keyOf = (port: Port): { joint: string | null } => ({ joint: 'joint' in port ? port.joint : null });

function barOf(track: Track, y: number, picture: WiringPicture): PlacedBar {
  const dots = [...track.above.map(({ x }) => x), ...track.below.map(({ x }) => x), ...track.across];
  return {
    jointId: track.jointId ?? '',
    from: Math.min(...dots) - 14,
    to: Math.max(...dots) + 14,
    y,
    dots,
    stays: picture.joints.find(({ id }) => id === track.jointId)?.stays ?? false,
  };
}

/** Across at one height, with its corners rounded. */
function bent(x1: number, y1: number, across: number, x2: number, y2: number): string {
  if (Math.abs(x1 - x2) < 1) return `M${x1} ${y1}V${y2}`;
  const side = x2 > x1 ? 1 : -1;
  const r = Math.min(9, Math.abs(x2 - x1) / 2);
  const [in1, in2] = [y1 < across ? -r : r, y2 < across ? -r : r];
  return (
    `M${x1} ${y1}V${across + in1}Q${x1} ${across} ${x1 + side * r} ${across}` +
    `H${x2 - side * r}Q${x2} ${across} ${x2} ${across + in2}V${y2}`
  );
}
