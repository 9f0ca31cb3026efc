import { foundNets, type NetName } from '../electrics/found-nets.js';
import { figuresInUse } from '../job/figures.js';
import type { JobLookup } from '../job/lookup.js';
import { placeKey } from '../job/lookup.js';
import type { Device, Terminal } from '../job/schema/catalogue.js';
import type { Load, Selection } from '../job/schema/job.js';
import type { Box, Position } from '../job/schema/survey.js';
import { assignChannels } from '../loads/channels.js';

/** A device meant for a position. */
export interface PlannedDevice {
  position: Position;
  device: Device;
  selection: Pick<Selection, 'strategy' | 'with' | 'channels'>;
}

/** Which net each terminal of a planned device goes to; undefined where the findings do not say. */
export function terminalNets(
  box: Box,
  plan: PlannedDevice,
  known: JobLookup,
): Map<Terminal, NetName | undefined> {
  const found = foundNets(box, known);
  const { position, device, selection } = plan;
  const circuit = found.circuitOf(position.index);
  const loads = position.loadIds.flatMap((id) => known.loads.get(id) ?? []);
  const { fed } = assignChannels(device, loads, figuresInUse(known.job).margin, selection.channels);
  const group = known.groups.get(placeKey(box.id, position.index));
  const travelers = group
    ? [...found.names].filter((net) => net.startsWith(`traveler:${group.id}:`)).sort()
    : [];
  let traveler = 0;

  const netFor = (terminal: Terminal): NetName | undefined => {
    switch (terminal.role) {
      case 'line':
        return circuit && `line:${circuit}`;
      case 'neutral':
        return circuit && found.neutralOf(circuit, known.job);
      case 'load':
        return found.loadNet(
          position.index,
          channelLoads(fed, terminal, device).map((load) => load.id),
        );
      case 'ground':
        return found.names.has('ground') ? 'ground' : undefined;
      case 'traveler':
        return travelers[traveler++];
      case 'sense':
        return undefined;
    }
  };
  return new Map(device.terminals.map((terminal) => [terminal, netFor(terminal)]));
}

function channelLoads(
  fed: { channel: { id: number }; loads: Load[] }[],
  terminal: Terminal,
  device: Device,
): Load[] {
  const id = terminal.channel ?? device.channels[0]?.id;
  return fed.find((entry) => entry.channel.id === id)?.loads ?? [];
}
