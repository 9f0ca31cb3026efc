import { type JobLookup, labelsOf, placeKey } from '../job/lookup.js';
import type { Device } from '../job/schema/catalogue.js';
import type { Box, Position } from '../job/schema/survey.js';
import { SYMPTOMS, type SymptomKind, type SymptomOf } from './vocabulary.js';

/** One thing to be seen of a device once its circuit is on. */
export interface FunctionCheck {
  code: 'breaker' | 'indicator' | 'wall' | 'each' | 'dims' | 'sensor' | 'socket' | 'far' | 'neighbours';
  /** Senses, loads, or how many; empty where it says itself. */
  what: readonly string[];
}

/** What a sound device shows of each kind. */
const SOUND: { readonly [Kind in SymptomKind]: SymptomOf<Kind> } = {
  indicator: 'on',
  control: 'ok',
  load: 'follows',
  neighbour: 'ok',
  breaker: 'holds',
  far: 'works',
  feel: 'none',
  restarts: 'no',
};

/** Kinds of symptoms, each with the values in question. */
type Fails = { readonly [Kind in SymptomKind]?: readonly SymptomOf<Kind>[] };

const but = <Kind extends SymptomKind>(kind: Kind): readonly SymptomOf<Kind>[] =>
  (SYMPTOMS[kind] as readonly SymptomOf<Kind>[]).filter((value) => value !== SOUND[kind]);

/** What may be seen of a device where a check fails. */
export const FAILS_AS: Readonly<Record<FunctionCheck['code'], Fails>> = {
  breaker: { breaker: but('breaker'), feel: but('feel') },
  indicator: { indicator: but('indicator'), restarts: but('restarts') },
  wall: { control: ['none'], load: ['off', 'on'] },
  each: { control: ['partial'] },
  dims: { load: ['dim', 'flicker', 'glow'] },
  sensor: { control: ['none'] },
  socket: { load: ['off', 'on'] },
  far: { far: but('far') },
  neighbours: { neighbour: but('neighbour') },
};

/** Loads that want something plugged in to be seen. */
const PLUGGED: ReadonlySet<string> = new Set(['receptacle']);

/** What is tried of a device by its kind, in the order of the looks. */
export function functionChecks(
  box: Box,
  position: Position,
  device: Device,
  known: JobLookup,
): FunctionCheck[] {
  const loads = position.loadIds.flatMap((id) => known.loads.get(id) ?? []);
  const plugged = loads.filter(({ kind }) => PLUGGED.has(kind));
  const checks: FunctionCheck[] = [];
  const add = (code: FunctionCheck['code'], what: readonly string[] = [], wanted = true) => {
    if (wanted) checks.push({ code, what });
  };
  add('breaker');
  add('indicator', [], (device.indicator ?? 'fixed') !== 'none');
  add(
    'wall',
    loads.map(({ name }) => name),
    device.channels.length > 0,
  );
  add(
    'each',
    device.channels.map(({ id, name }) => name ?? String(id)),
    device.channels.length > 1,
  );
  add(
    'dims',
    [],
    device.channels.some(({ kind }) => kind === 'dimmer'),
  );
  add('sensor', device.senses ?? [], (device.senses?.length ?? 0) > 0);
  add(
    'socket',
    plugged.map(({ name }) => name),
    plugged.length > 0,
  );
  add('far', [], known.groups.has(placeKey(box.id, position.index)));
  add('neighbours', [], hasNeighbours(box, position));
  return checks;
}

/** Other positions, or a line that goes on from here. */
function hasNeighbours(box: Box, position: Position): boolean {
  const goesOn = [...labelsOf(box).values()].some(({ role }) => role === 'line-on');
  return (
    goesOn || box.positions.some(({ index, existing }) => index !== position.index && existing !== 'none')
  );
}
