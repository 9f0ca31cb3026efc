import { type FoundNets, foundNets, type NetName } from '../electrics/found-nets.js';
import { figuresInUse } from '../job/figures.js';
import type { JobLookup } from '../job/lookup.js';
import { placeKey } from '../job/lookup.js';
import type { Terminal } from '../job/schema/catalogue.js';
import type { Load } from '../job/schema/job.js';
import type { Box } from '../job/schema/survey.js';
import { assignChannels } from '../loads/channels.js';
import type { PlannedDevice } from './comes-out.js';

/** Which net each terminal of a planned device goes to; undefined where the findings do not say. */
export function terminalNets(
  box: Box,
  plan: PlannedDevice,
  known: JobLookup,
): Map<Terminal, NetName | undefined> {
  const nets = new DeviceNets(box, plan, known);
  return new Map(plan.device.terminals.map((terminal) => [terminal, nets.of(terminal)]));
}

/** Asked terminal by terminal, in the order of the device. */
class DeviceNets {
  private readonly found: FoundNets;
  private readonly circuit: string | undefined;
  private readonly isPair: boolean;
  private readonly fed: readonly { channel: { id: number }; loads: Load[] }[];
  private readonly travelers: NetName[];
  private lines = 0;
  private readonly served = new Map<NetName, number>();

  constructor(
    box: Box,
    private readonly plan: PlannedDevice,
    private readonly known: JobLookup,
  ) {
    const { position, device, selection } = plan;
    this.found = foundNets(box, known);
    this.circuit = this.found.supplyOf(position.index);
    this.isPair = (known.circuits.get(this.circuit ?? '')?.poles ?? 1) > 1;
    const loads = position.loadIds.flatMap((id) => known.loads.get(id) ?? []);
    this.fed = assignChannels(device, loads, figuresInUse(known.job).margin, selection.channels).fed;
    const group = known.groups.get(placeKey(box.id, position.index));
    this.travelers = group
      ? [...this.found.names].filter((net) => net.startsWith(`traveler:${group.id}:`)).sort()
      : [];
  }

  of(terminal: Terminal): NetName | undefined {
    switch (terminal.role) {
      case 'line':
        return this.line(terminal);
      case 'neutral':
        return this.circuit && this.found.neutralOf(this.circuit, this.known.job);
      case 'load':
        return this.load(terminal);
      case 'ground':
        return this.found.names.has('ground') ? 'ground' : undefined;
      case 'traveler':
        return this.travelers.shift();
      case 'sense':
        return undefined;
    }
  }

  /**
   * A contact of its own switches the line that fed its load at the old switch. The second of two lines
   * without a channel is for the other leg of a pair.
   */
  private line({ channel }: Terminal): NetName | undefined {
    const load = channel === undefined ? undefined : this.loadNet(channel);
    const before = load === undefined ? undefined : this.found.circuitBefore(this.plan.position.index, load);
    const own = before ?? this.circuit;
    if (own === undefined) return undefined;
    if (channel === undefined) this.lines += 1;
    return this.isPair && this.lines > 1 ? `line:${own}#2` : `line:${own}`;
  }

  private load({ channel }: Terminal): NetName | undefined {
    const net = this.loadNet(channel ?? this.plan.device.channels[0]?.id);
    if (net === undefined || !this.isPair) return net;
    const times = this.served.get(net) ?? 0;
    this.served.set(net, times + 1);
    return times > 0 ? `${net}#2` : net;
  }

  private loadNet(channel: number | undefined): NetName | undefined {
    const loads = this.fed.find((entry) => entry.channel.id === channel)?.loads ?? [];
    return this.found.loadNet(
      this.plan.position.index,
      loads.map(({ id }) => id),
    );
  }
}
