import type { Reading } from '../job/schema/survey.js';
import { Joined } from './joined.js';

/** Where things are joined as found: what every arrangement takes apart in its own way. */
export interface Wiring {
  /** The node each core ends on; null: capped, on the box's screw, or passing through. */
  coreNode: (string | null)[];
  /** Tails and leads: which nodes they join, and the id they are lifted by. */
  links: { id: string; nodes: [string, string] }[];
  /** Nodes by position: the terminals of its device. */
  terminals: ReadonlyMap<number, string[]>;
  /**
   * Terminals a device joins inside itself whatever its state: the two halves of a receptacle with their tab.
   */
  bridged: { position: number; nodes: [string, string] }[];
}

/** The device at a position, as far as its contacts go. */
export interface ContactPosition {
  index: number;
  existing: string;
  /** What is at each terminal; absent: nothing there. */
  nets: ReadonlyMap<string, unknown>;
  /** Terminal roles of a catalogue device. */
  roles: ReadonlyMap<string, string> | null;
}

/** How a box is taken apart; `lifted` names cores, `joined` joints. */
export interface TakenApart {
  kind: Reading['arrangement'];
  position: number | null;
  lifted: ReadonlySet<number>;
  joined: ReadonlySet<string>;
}

/** A contact between two groups that a switch closes in one of its states. */
interface Contact {
  from: number;
  to: number;
  position: number;
  /**
   * `on`: closed while on; `up` and `down`: closed while a multi-location switch makes that contact; `any`:
   * nobody knows the state.
   */
  when: 'on' | 'up' | 'down' | 'any';
}

/** The box in one arrangement: which cores are one node, and the contacts left in place. */
export interface Arranged {
  /** Group of each core. */
  groupOf: number[];
  groups: number;
  contacts: Contact[];
  /** Members of each group, cores only. */
  sizes: number[];
}

/**
 * What hangs together in an arrangement, whatever the conductors are:
 *
 *     in place     everything as found, contacts by switch state
 *     device out   conductors on one position's terminals each alone, its tails on their joints, all closed
 *     lifted       in place but for the lifted
 *     parted       every insulated conductor alone, but for joints named as left closed
 */
export function arrange(
  positions: readonly ContactPosition[],
  wiring: Wiring,
  arrangement: TakenApart,
): Arranged {
  const { kind, lifted, joined } = arrangement;
  const out =
    kind === 'device-out'
      ? (arrangement.position ?? (positions.length === 1 ? (positions[0]?.index ?? null) : null))
      : null;
  const taken = new Set(out === null ? [] : (wiring.terminals.get(out) ?? []));
  const together = new Joined();
  const closed = (node: string) =>
    kind !== 'parted' || (node.startsWith('joint:') && joined.has(node.slice(6)));
  wiring.coreNode.forEach((node, core) => {
    if (node !== null && closed(node) && !taken.has(node) && !(kind === 'lifted' && lifted.has(core)))
      together.merge(`core:${core}`, node);
  });
  for (const link of wiring.links) {
    const [a, b] = link.nodes;
    if (closed(a) && closed(b) && !taken.has(a) && !taken.has(b)) together.merge(a, b);
  }
  if (kind !== 'parted')
    for (const entry of wiring.bridged) if (entry.position !== out) together.merge(...entry.nodes);

  const numbers = new Map<string, number>();
  const numberOf = (node: string) => {
    const root = together.find(node);
    let number = numbers.get(root);
    if (number === undefined) {
      number = numbers.size;
      numbers.set(root, number);
    }
    return number;
  };
  const groupOf = wiring.coreNode.map((_, core) => numberOf(`core:${core}`));
  const contacts: Contact[] = [];
  if (kind !== 'parted')
    for (const position of positions) {
      if (position.index === out) continue;
      const at = (terminal: string) =>
        position.nets.has(terminal) ? numberOf(`terminal:${position.index}.${terminal}`) : null;
      const add = (from: string, to: string, when: Contact['when']) => {
        const [a, b] = [at(from), at(to)];
        if (a !== null && b !== null) contacts.push({ from: a, to: b, position: position.index, when });
      };
      addContacts(position, add);
    }
  const sizes: number[] = Array(numbers.size).fill(0);
  for (const group of groupOf) sizes[group] = (sizes[group] as number) + 1;
  return { groupOf, groups: numbers.size, contacts, sizes };
}

/** The contacts of the device at a position, between its terminals. */
export function contactsOf(position: ContactPosition): { from: string; to: string; when: Contact['when'] }[] {
  const contacts: ReturnType<typeof contactsOf> = [];
  addContacts(position, (from, to, when) => contacts.push({ from, to, when }));
  return contacts;
}

function addContacts(
  position: ContactPosition,
  add: (from: string, to: string, when: Contact['when']) => void,
): void {
  switch (position.existing) {
    case 'three-way':
      add('common', 't1', 'up');
      add('common', 't2', 'down');
      return;
    case 'four-way':
      // Straight or crossed; pairs 1-2 and 3-4 on one side each.
      add('t1', 't3', 'up');
      add('t2', 't4', 'up');
      add('t1', 't4', 'down');
      add('t2', 't3', 'down');
      return;
    case 'double-pole':
    case 'double-single-pole':
      add('a1', 'b1', 'on');
      add('a2', 'b2', 'on');
      return;
    case 'fan-light':
      add('line', 'fan', 'on');
      add('line', 'light', 'on');
      return;
    case 'smart': {
      const lines = [...(position.roles ?? [])].filter(([, role]) => role === 'line').map(([id]) => id);
      for (const [id, role] of position.roles ?? [])
        if (role === 'load' && lines[0] !== undefined) add(lines[0], id, 'on');
      return;
    }
    case 'receptacle':
      return;
    default:
      if (position.nets.has('common')) {
        add('common', 't1', 'up');
        add('common', 't2', 'down');
      } else if (position.nets.has('a') || position.nets.has('b')) add('a', 'b', 'on');
      // Nobody knows which terminal is which; a device of two still makes one contact.
      else add('u1', 'u2', 'on');
  }
}
