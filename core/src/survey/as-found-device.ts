import { z } from 'zod';
import type { EditPart } from '../job/edit/edit.js';
import { putPart, setParts } from '../job/edit/parts.js';
import type { JobLookup } from '../job/lookup.js';
import { type Device, type Terminal, TerminalRole } from '../job/schema/catalogue.js';
import { Id, Name, type PracticeId } from '../job/schema/primitives.js';
import type { Box, Position } from '../job/schema/survey.js';
import { existingTerminals } from '../job/terminals.js';
import { profileOf } from '../practice/profiles.js';
import { withExisting } from './corrections.js';

/**
 * What one sees of an old smart device in a box: the mark beside each terminal, and what it is for where that
 * can be read.
 */
export interface FoundTerminal {
  id: string;
  mark: string;
  role: Terminal['role'];
}

/** The terminals most old smart switches have; others are added, and what cannot be read stays out. */
export const USUAL_FOUND_TERMINALS: readonly FoundTerminal[] = [
  { id: 'L', mark: 'L', role: 'line' },
  { id: 'LD', mark: 'LOAD', role: 'load' },
  { id: 'N', mark: 'N', role: 'neutral' },
  { id: 'G', mark: 'G', role: 'ground' },
  { id: 'T', mark: 'T', role: 'traveler' },
];

/** The device is in no catalogue: what stands on it is recorded instead. */
export const UNLISTED = 'unlisted';

/** An old smart device as a person enters it, with what the client's rules know it by. */
export const FoundDeviceEntry = z
  .object({
    deviceId: z.string(),
    maker: Name,
    model: Name,
    terminals: z.array(z.object({ id: Id, mark: Name, role: TerminalRole })),
    name: Name,
    hub: Name,
    removed: z.boolean(),
  })
  .refine(({ deviceId, model }) => deviceId !== UNLISTED || model.trim() !== '', {
    path: ['model'],
    error: 'Say what stands on it: a model, or a few words of what it looks like.',
  });
export type FoundDeviceEntry = z.infer<typeof FoundDeviceEntry>;

/**
 * The record of a smart device that is in no catalogue, as it was found in a box. It is made for no practice,
 * so that no plan ever buys it; body and form of its terminals are the usual ones until somebody measures
 * them.
 */
function asFoundDevice(
  id: string,
  { maker, model, terminals }: Pick<FoundDeviceEntry, 'maker' | 'model' | 'terminals'>,
  practice: PracticeId,
): Device {
  const { from, to } = profileOf({ practice }).supply;
  const loads = terminals.filter(({ role }) => role === 'load');
  return {
    id,
    maker: maker.trim() || 'Unmarked',
    model: model.trim(),
    family: 'as found',
    price: 0,
    practices: [],
    volts: [from, to],
    gangs: 1,
    mount: 'box',
    body: { width: 44, height: 68, depth: 38 },
    radio: 'none',
    platforms: [],
    terminals: terminals.map((terminal) => ({
      ...terminal,
      form: 'screw' as const,
      ...(terminal.role === 'load'
        ? { channel: loads.findIndex((load) => load.id === terminal.id) + 1 }
        : {}),
    })),
    needs: { neutral: terminals.some(({ role }) => role === 'neutral'), ground: 'none' },
    channels: loads.map((_, at) => ({ id: at + 1, kind: 'relay' as const, ratings: [] })),
  };
}

/** The edit that puts a found smart device at a position, with its record where no catalogue has it. */
export function foundDeviceParts(
  box: Box,
  position: Position,
  found: FoundDeviceEntry,
  known: JobLookup,
  newId: () => string,
): EditPart[] {
  const made = found.deviceId === UNLISTED ? asFoundDevice(newId(), found, known.job.practice) : undefined;
  const { leads, replaces, ...rest } = position;
  const [name, hub] = [found.name.trim(), found.hub.trim()];
  const next: Position = {
    ...rest,
    existing: 'smart',
    deviceId: made?.id ?? found.deviceId,
    ...(name === ''
      ? {}
      : { replaces: { ...replaces, name, hub: hub || undefined, removed: found.removed } }),
  };
  const devices = made ? new Map([...known.devices, [made.id, made]]) : known.devices;
  return [
    ...(made ? [putPart('device', made.id, made)] : []),
    ...setParts(
      'box',
      box.id,
      box,
      withExisting(box, position.index, next, existingTerminals(next, devices)),
    ),
  ];
}
