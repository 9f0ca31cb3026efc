import { contactsOf } from '../../electrics/arranged.js';
import type { JobLookup } from '../../job/lookup.js';
import { looseEnds } from '../../job/loose-ends.js';
import type { Position } from '../../job/schema/survey.js';
import { Graph, terminalNode } from './graph.js';
import { type Contact, Runs, type State, type StateRun } from './states.js';
import type { BoxToProve } from './vocabulary.js';

/** Contacts of devices found in a box, as far as they stay. */
export function foundContacts(
  { box }: BoxToProve,
  stays: (index: number) => boolean,
  known: JobLookup,
): Contact[] {
  return box.positions
    .filter(({ index }) => stays(index))
    .flatMap((position) => [
      ...contactsOf({
        index: position.index,
        existing: position.existing,
        nets: terminalsInUse(box, position),
        roles: rolesOf(position, known),
      }).map(({ from, to, when }) => ({
        key: `${box.id}/${position.index}`,
        from: terminalNode(box.id, `${position.index}.${from}`),
        to: terminalNode(box.id, `${position.index}.${to}`),
        when,
      })),
      ...bridgesOf(position).map(([from, to]) => ({
        key: `${box.id}/${position.index}`,
        from: terminalNode(box.id, `${position.index}.${from}`),
        to: terminalNode(box.id, `${position.index}.${to}`),
        when: 'any' as const,
      })),
    ]);
}

/** What the terminals of a smart device already there are for. */
function rolesOf({ existing, deviceId }: Position, known: JobLookup): ReadonlyMap<string, string> | null {
  const device = existing === 'smart' ? known.devices.get(deviceId ?? '') : undefined;
  return device ? new Map(device.terminals.map(({ id, role }) => [id, role])) : null;
}

/** A receptacle joins its two halves, as far as their tabs are in. */
function bridgesOf({ existing, breakOff }: Position): [string, string][] {
  if (existing !== 'receptacle') return [];
  return [
    ...(breakOff === undefined ? [['hot', 'hot2'] as [string, string]] : []),
    ...(breakOff === 'both' ? [] : [['neutral', 'neutral2'] as [string, string]]),
  ];
}

function terminalsInUse(box: BoxToProve['box'], { index, leads = [] }: Position): Map<string, unknown> {
  const used = new Map<string, unknown>();
  for (const { at } of looseEnds(box))
    if (at.position === index && at.terminal !== undefined) used.set(at.terminal, true);
  for (const { terminal } of leads) used.set(terminal, true);
  return used;
}

/**
 * How the boxes behaved as found, in a state of what stays: told only where the switches that come out make
 * no difference.
 */
export class FoundBehaviour {
  private readonly graph: Graph;
  private readonly runs: Runs;
  private readonly leaving: string[];
  private readonly kept = new Map<string, { open: StateRun; closed: StateRun }>();

  constructor(
    found: readonly BoxToProve[],
    private readonly planned: readonly BoxToProve[],
    known: JobLookup,
  ) {
    this.graph = new Graph(found, known);
    const contacts = found.flatMap((entry) => foundContacts(entry, () => true, known));
    this.runs = new Runs(this.graph, contacts, known);
    this.leaving = planned.flatMap(({ box, out }) => [...out].map((index) => `${box.id}/${index}`));
  }

  isGrounded(node: string): boolean {
    return this.graph.joined.find(node) === this.graph.joined.find('E');
  }

  private at(state: State): { open: StateRun; closed: StateRun } {
    const stays = [...state.closed].filter((key) => !key.includes('#'));
    const key = `${[...state.breakersOn].sort().join()}|${stays.sort().join()}`;
    let runs = this.kept.get(key);
    if (!runs) {
      const closed = (more: readonly string[]) =>
        this.runs.run({ breakersOn: state.breakersOn, closed: new Set([...stays, ...more]) });
      runs = { open: closed([]), closed: closed(this.leaving) };
      this.kept.set(key, runs);
    }
    return runs;
  }

  /** Null where what comes out made the difference, or nothing like it was there. */
  lit(state: State, id: string, conductorId: string, boxId: string): boolean | null {
    const consumer = this.graph.consumers.find(
      (entry) => entry.id === id && entry.conductorId === conductorId && entry.boxId === boxId,
    );
    if (!consumer) return null;
    const { open, closed } = this.at(state);
    const [one, other] = [open, closed].map((run) => run.isLit(consumer.hot, consumer.back));
    return one === other ? (one ?? null) : null;
  }

  /** Poles that a terminal of a device that stays was on, whatever the switches that come out. */
  keptTerminals(state: State): { boxId: string; node: string; poles: string[] }[] {
    const { open, closed } = this.at(state);
    return this.planned.flatMap(({ box, out }) =>
      box.positions
        .filter(({ index }) => !out.has(index))
        .flatMap((position) =>
          [...terminalsInUse(box, position).keys()].map((terminal) => {
            const node = terminalNode(box.id, `${position.index}.${terminal}`);
            const poles = [...this.graph.poles].filter(
              (pole) => open.same(node, pole) && closed.same(node, pole),
            );
            return { boxId: box.id, node, poles };
          }),
        ),
    );
  }
}
