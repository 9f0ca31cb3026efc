import { type FoundNets, foundNets, type NetName } from '../electrics/found-nets.js';
import { settledBox } from '../identify/settled.js';
import { figuresInUse } from '../job/figures.js';
import { type JobLookup, labelsOf, placeKey } from '../job/lookup.js';
import type { Device, MultiLocation, Terminal } from '../job/schema/catalogue.js';
import type { Group, Selection } from '../job/schema/job.js';
import type { Colour, Strategy } from '../job/schema/primitives.js';
import type { Box, Position } from '../job/schema/survey.js';
import { assignChannels } from '../loads/channels.js';
import { profileOf } from '../practice/profiles.js';
import { KeptWhile, sameEntries } from '../units/kept.js';
import { joinsLineToLoad, oldDeviceGoes } from './comes-out.js';

/*
 * A light worked from several places is wired as one. What is at one end and wanted at the other goes over an
 * old traveler; which one carries what is settled here, for all boxes of the group at once.
 *
 *     foot: line, neutral ══[ t1 | t2 | neutral ]══ head: load, neutral
 *     device at the head wants a line:   t1 is on line:c2 in both boxes, t2 is capped in both
 *     tied through, device at the foot:  t1 is on load:l1 in both boxes, the head joins it to its load
 *     companion:                         one more carries its signal, and is on no other net
 */

/** What a group makes of one of its places. */
interface PlaceUse {
  boxId: string;
  position: number;
  /** What feeds the load, what helps it, or a switch that only passes on or stays. */
  role: 'main' | 'partner' | 'none';
  /** The circuit it is on. */
  circuitId: string | undefined;
  /** The old device comes out. */
  out: boolean;
  /** The net of each terminal of its device. */
  terminals: ReadonlyMap<Terminal, NetName | undefined>;
  /** The net of each traveler of its box, by conductor. */
  travelers: ReadonlyMap<string, NetName>;
  /** Nets of the box that become one with another: bulbs on constant power. */
  joins: { from: readonly NetName[]; to: NetName } | null;
}

/** Why a group cannot be wired as chosen. */
interface GroupGap {
  code: 'no-main' | 'strategies-differ' | 'partner-not-chosen' | 'too-few-travelers' | 'far-switch-idle';
  boxId: string | null;
}

export interface GroupUse {
  groupId: string;
  strategy: Strategy;
  places: readonly PlaceUse[];
  /** A traveler that is made a neutral, by box and conductor: it is marked so at both ends. */
  madeNeutral: readonly { boxId: string; conductorId: string }[];
  /** Any traveler that carries something else than before. */
  reused: readonly { boxId: string; conductorId: string; net: NetName }[];
  gaps: readonly GroupGap[];
}

/** A place of the group with what was found and chosen there. */
interface GroupPlace {
  box: Box;
  position: Position;
  found: FoundNets;
  selection: Selection | undefined;
  device: Device | null;
  loadNets: readonly NetName[];
}

/** One way from end to end: a traveler, or several that a switch between them joined. */
interface Path {
  /** `traveler:g:n` in every box it runs through. */
  nets: ReadonlySet<NetName>;
  colours: ReadonlySet<Colour>;
}

const kept = new KeptWhile<Group, GroupUse>(sameEntries);

/** What a group with choices makes of its places; the same for every box that asks. */
export function groupUse(group: Group, known: JobLookup): GroupUse {
  const places = placesOf(group, known);
  const { practice, circuits, brief } = known.job;
  const restsOn = [
    practice,
    circuits,
    brief,
    ...places.flatMap(({ box, selection, device }) => [box, selection, device]),
    ...group.loadIds.map((id) => known.loads.get(id)),
  ];
  return kept.of(group, restsOn, () => new GroupWiring(group, places, known).use());
}

function placesOf(group: Group, known: JobLookup): GroupPlace[] {
  return group.places.flatMap(({ boxId, position: index }) => {
    const surveyed = known.boxes.get(boxId);
    const position = surveyed?.positions.find((entry) => entry.index === index);
    if (!surveyed || !position) return [];
    const { box } = settledBox(surveyed, known);
    const found = foundNets(box, known);
    const selection = known.selections.get(placeKey(boxId, index));
    const device = known.devices.get(selection?.deviceId ?? '') ?? null;
    const ids = position.loadIds.length > 0 ? position.loadIds : group.loadIds;
    const loadNets = [...new Set(ids.flatMap((id) => found.loadNet(index, [id]) ?? []))];
    return [{ box, position, found, selection, device, loadNets }];
  });
}

class GroupWiring {
  private readonly strategy: Strategy;
  private readonly main: GroupPlace | undefined;
  private readonly entry: MultiLocation | undefined;
  private readonly circuitId: string | undefined;
  private readonly paths: Path[];
  private readonly gaps: GroupGap[] = [];
  private readonly signals: NetName[] = [];
  /** What a path carries once wired; a path that is not in it is capped at both ends. */
  private readonly carried = new Map<Path, NetName>();
  private neutralPath: Path | undefined;

  constructor(
    private readonly group: Group,
    private readonly places: readonly GroupPlace[],
    private readonly known: JobLookup,
  ) {
    this.main = this.findMain();
    const chosen = this.main?.selection ?? places.find(({ selection }) => selection)?.selection;
    this.strategy = chosen?.strategy ?? 'linked';
    this.entry = this.main?.device?.multiLocation?.find(({ strategy }) => strategy === this.strategy);
    this.circuitId =
      this.main?.found.supplyOf(this.main.position.index) ??
      places.flatMap(({ found, position }) => found.supplyOf(position.index) ?? [])[0];
    this.paths = this.findPaths();
  }

  use(): GroupUse {
    this.sayWhatIsMissing();
    this.allocate();
    const places = this.places.map((place) => this.placeUse(place));
    const reused = this.places.flatMap(({ box, found }) =>
      [...found.netByConductor].flatMap(([conductorId, net]) => {
        const path = net.startsWith('traveler:') ? this.pathOf(net) : undefined;
        const now = path && this.carried.get(path);
        return now !== undefined && now !== net && !now.startsWith('traveler:')
          ? [{ boxId: box.id, conductorId, net: now }]
          : [];
      }),
    );
    return {
      groupId: this.group.id,
      strategy: this.strategy,
      places,
      reused,
      madeNeutral: reused.filter(({ net }) => net.startsWith('neutral:')),
      gaps: this.gaps,
    };
  }

  /** Bulbs, and modules at the fitting, are fed always: no device of the group switches a wire. */
  private get fedAlways(): boolean {
    return this.strategy === 'bulb-controller' || this.strategy === 'module';
  }

  /** The place whose device feeds the load: where the load comes out, if a device there can. */
  private findMain(): GroupPlace | undefined {
    const able = this.places.filter(
      ({ device }) => device?.mount === 'box' && device.terminals.some(({ role }) => role === 'load'),
    );
    const mainAt = (place: GroupPlace) =>
      place.device?.multiLocation?.find(({ strategy }) => strategy === place.selection?.strategy)?.mainAt;
    const atLine = able.find((place) => mainAt(place) === 'line' && this.lineAt(place) !== undefined);
    return atLine ?? able.find(({ loadNets }) => loadNets.length > 0) ?? able[0];
  }

  private lineAt({ found, position }: GroupPlace): string | undefined {
    return found.supplyOf(position.index);
  }

  private sayWhatIsMissing(): void {
    const chosen = this.places.flatMap(({ selection }) => selection ?? []);
    if (new Set(chosen.map(({ strategy }) => strategy)).size > 1)
      this.gaps.push({ code: 'strategies-differ', boxId: null });
    if (!this.main && !this.fedAlways) this.gaps.push({ code: 'no-main', boxId: null });
    for (const place of this.places) {
      if (place === this.main) continue;
      if (!place.selection && !this.stays(place))
        this.gaps.push({ code: 'partner-not-chosen', boxId: place.box.id });
      else if (place.selection && !place.device && this.wantsPartner(place))
        this.gaps.push({ code: 'partner-not-chosen', boxId: place.box.id });
    }
  }

  private isMiddle(place: GroupPlace): boolean {
    const at = this.places.indexOf(place);
    return place.position.existing === 'four-way' || (at > 0 && at < this.places.length - 1);
  }

  /** How the strategy treats a place between the ends; undefined: like any other. */
  private middle(place: GroupPlace): MultiLocation['middle'] {
    return this.isMiddle(place) ? this.entry?.middle : undefined;
  }

  private tied(place: GroupPlace): boolean {
    return (
      this.fedAlways ||
      this.middle(place) === 'tie' ||
      (this.strategy === 'tie-through' && place !== this.main)
    );
  }

  /** The mechanical switch stays at its wires. */
  private stays(place: GroupPlace): boolean {
    if (place === this.main || place.device?.mount === 'box' || this.tied(place)) return false;
    return this.strategy === 'keep-mechanical' || this.middle(place) === 'keep';
  }

  private wantsPartner(place: GroupPlace): boolean {
    return !this.stays(place) && !this.tied(place);
  }

  /**
   * Ways from end to end. One number in every box is one way; where the numbers differ on either side of a
   * place between, those of like order are joined there.
   */
  private findPaths(): Path[] {
    const prefix = `traveler:${this.group.id}:`;
    const own = this.places.map(({ found }) =>
      [...found.names].filter((net) => net.startsWith(prefix)).sort(),
    );
    const through = (own[0] ?? []).filter((net) => own.every((nets) => nets.includes(net)));
    if (through.length > 0 || own.length < 3) return through.map((net) => this.path([net]));
    const hops = own.slice(1).map((nets, at) => nets.filter((net) => own[at]?.includes(net)));
    const count = Math.min(...hops.map((nets) => nets.length));
    return Array.from({ length: count }, (_, at) => this.path(hops.flatMap((nets) => nets[at] ?? [])));
  }

  private path(nets: readonly NetName[]): Path {
    const colours = new Set<Colour>();
    for (const { box, found } of this.places)
      for (const { id, colour } of box.conductors)
        if (nets.includes(found.netByConductor.get(id) ?? '')) colours.add(colour);
    return { nets: new Set(nets), colours };
  }

  private pathOf(net: NetName): Path | undefined {
    return this.paths.find(({ nets }) => nets.has(net));
  }

  /** May be marked as a neutral, by the colour it has in every box. */
  private mayBeNeutral({ colours }: Path): boolean {
    const allowed = profileOf(this.known.job).neutralColours;
    return allowed === 'any' || [...colours].every((colour) => allowed.includes(colour));
  }

  private free(): Path[] {
    return this.paths.filter((path) => !this.carried.has(path));
  }

  /** Takes a free way for a net; one that could be a neutral last. */
  private carry(net: NetName | null, asNeutral = false): NetName | undefined {
    const free = this.free();
    const path = asNeutral
      ? free.find((entry) => this.mayBeNeutral(entry))
      : (free.find((entry) => !this.mayBeNeutral(entry)) ?? free[0]);
    if (!path) {
      this.gaps.push({ code: 'too-few-travelers', boxId: null });
      return undefined;
    }
    const carries = net ?? ([...path.nets][0] as NetName);
    this.carried.set(path, carries);
    if (asNeutral) this.neutralPath = path;
    return carries;
  }

  private allocate(): void {
    const line = this.circuitId === undefined ? undefined : `line:${this.circuitId}`;
    if (this.fedAlways) {
      const apart = this.places.some((place) => this.lineHere(place) && place.loadNets.length === 0);
      const fed = this.places.some((place) => !this.lineHere(place) && place.loadNets.length > 0);
      if (line && apart && fed) this.carry(line);
      return;
    }
    const { main } = this;
    if (!main?.device) return;
    const working = this.places.filter(
      (place) => place.device?.mount === 'box' && place.selection && !this.stays(place),
    );
    const neutral = working.some((place) => this.wants(place, 'neutral') && !this.neutralAt(place))
      ? this.places.map((place) => this.neutralAt(place)).find((net) => net !== undefined)
      : undefined;
    if (neutral !== undefined && this.free().some((path) => this.mayBeNeutral(path)))
      this.carry(neutral, true);
    const lineWanted = working.some((place) => this.wants(place, 'line') && !this.lineHere(place));
    if (this.strategy === 'keep-mechanical') this.throughFarSwitch(main, line, lineWanted);
    else {
      const lender = this.places.some((place) => this.lineHere(place));
      if (lineWanted && line && lender) this.carry(line);
      const elsewhere = this.places.find(({ loadNets }) => loadNets.length > 0);
      if (main.loadNets.length === 0 && elsewhere?.loadNets[0]) this.carry(elsewhere.loadNets[0]);
    }
    const signals = main.device.terminals.filter(({ role }) => role === 'traveler').length;
    const heard =
      this.strategy === 'keep-mechanical' || this.strategy === 'companion' || this.allHear(working);
    for (let at = 0; heard && at < signals; at++) {
      const net = this.carry(null);
      if (net !== undefined) this.signals.push(net);
    }
  }

  /** Devices at both ends that speak over a wire each have a terminal for it. */
  private allHear(working: readonly GroupPlace[]): boolean {
    return (
      this.strategy === 'both-ends' &&
      working.length > 1 &&
      working.every(({ device }) => device?.terminals.some(({ role }) => role === 'traveler'))
    );
  }

  /**
   * The far switch stays as drawn. Where the device has to be fed, or to feed, through it, both travelers go
   * to one terminal: in either position of the far switch there is a way.
   */
  private throughFarSwitch(main: GroupPlace, line: NetName | undefined, lineWanted: boolean): void {
    const far = this.places.find(({ loadNets }) => loadNets.length > 0)?.loadNets[0];
    const net = lineWanted ? line : main.loadNets.length === 0 ? far : undefined;
    if (net === undefined) return;
    for (const path of this.free()) this.carried.set(path, net);
    if (this.paths.length === 0) this.gaps.push({ code: 'too-few-travelers', boxId: null });
    else this.gaps.push({ code: 'far-switch-idle', boxId: null });
  }

  private lineHere({ found }: GroupPlace): boolean {
    return this.circuitId !== undefined && found.names.has(`line:${this.circuitId}`);
  }

  private neutralAt({ found }: GroupPlace): NetName | undefined {
    return this.circuitId === undefined ? undefined : found.neutralOf(this.circuitId, this.known.job);
  }

  /** Whether a device is to have a line or neutral: a partner only what the record of the strategy lists. */
  private wants(place: GroupPlace, role: 'line' | 'neutral'): boolean {
    const terminal = place.device?.terminals.find(
      (entry) => entry.role === role && entry.channel === undefined,
    );
    if (!terminal || terminal.optional) return false;
    return place === this.main || this.listed(place)?.[role] !== false;
  }

  private listed(place: GroupPlace): MultiLocation['partner'] {
    const own = place.device?.multiLocation?.find(({ strategy }) => strategy === this.strategy);
    return (own ?? this.entry)?.partner;
  }

  private placeUse(place: GroupPlace): PlaceUse {
    const { box, position, device } = place;
    const role = place === this.main ? 'main' : device?.mount === 'box' ? 'partner' : 'none';
    const stays = this.stays(place);
    const joins = this.joinsAt(place);
    return {
      boxId: box.id,
      position: position.index,
      role,
      circuitId: this.circuitId,
      out:
        device && place.selection
          ? oldDeviceGoes({ ...place, device, selection: place.selection })
          : this.tied(place) && place.selection !== undefined,
      terminals: new Map(
        (device?.mount === 'box' ? device.terminals : []).map((terminal) => [
          terminal,
          this.terminalNet(place, terminal),
        ]),
      ),
      travelers: stays ? new Map() : this.travelersAt(place),
      joins,
    };
  }

  private joinsAt(place: GroupPlace): PlaceUse['joins'] {
    const { selection, device } = place;
    if (!this.fedAlways || this.circuitId === undefined || place.loadNets.length === 0) return null;
    if (device && selection && !joinsLineToLoad({ ...place, device, selection })) return null;
    return { from: place.loadNets, to: `line:${this.circuitId}` };
  }

  private travelersAt({ box, found }: GroupPlace): Map<string, NetName> {
    const nets = new Map<string, NetName>();
    for (const [id, label] of labelsOf(box)) {
      const net = found.netByConductor.get(id);
      if (label.role !== 'traveler' || !net?.startsWith(`traveler:${this.group.id}:`)) continue;
      const path = this.pathOf(net);
      const now = path && this.carried.get(path);
      nets.set(id, now ?? `isolated:${id}`);
    }
    return nets;
  }

  private terminalNet(place: GroupPlace, terminal: Terminal): NetName | undefined {
    const main = place === this.main;
    switch (terminal.role) {
      case 'line':
        if (this.circuitId === undefined || !(main || this.wants(place, 'line'))) return undefined;
        return this.lineReaches(place) ? `line:${this.circuitId}` : undefined;
      case 'neutral':
        if (!(main || this.wants(place, 'neutral'))) return undefined;
        return this.neutralAt(place) ?? (this.neutralPath && this.carried.get(this.neutralPath));
      case 'load':
        return main ? this.loadOf(place, terminal) : undefined;
      case 'ground':
        return place.found.names.has('ground') ? 'ground' : undefined;
      case 'traveler':
        return this.signals[travelerIndex(place.device as Device, terminal)];
      case 'sense':
        return undefined;
    }
  }

  private lineReaches(place: GroupPlace): boolean {
    return this.lineHere(place) || [...this.carried.values()].includes(`line:${this.circuitId}`);
  }

  private loadOf(place: GroupPlace, terminal: Terminal): NetName | undefined {
    const device = place.device as Device;
    const ids = place.position.loadIds.length > 0 ? place.position.loadIds : this.group.loadIds;
    const loads = ids.flatMap((id) => this.known.loads.get(id) ?? []);
    const { fed } = assignChannels(
      device,
      loads,
      figuresInUse(this.known.job).margin,
      place.selection?.channels,
    );
    const channel = terminal.channel ?? device.channels[0]?.id;
    const own = fed.find((entry) => entry.channel.id === channel)?.loads.map(({ id }) => id) ?? [];
    if (own.length === 0) return undefined;
    if (place.loadNets.length > 0) return place.found.loadNet(place.position.index, own);
    return [...this.carried.values()].find((net) => net.startsWith('load:'));
  }
}

const travelerIndex = (device: Device, terminal: Terminal) =>
  device.terminals.filter(({ role }) => role === 'traveler').indexOf(terminal);
