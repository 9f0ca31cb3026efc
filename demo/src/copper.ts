import {
  type At,
  type Box,
  type Colour,
  type Conductor,
  type Job,
  type Label,
  type PracticeId,
  profileOf,
  type Role,
  type Run,
} from '@inventario/core';

type Position = Box['positions'][number];
type Told = Partial<Label> & { colour?: Colour };

/** A box laid out core by core, for wirings that no usual box shows. Ids are made from the box's own. */
export class CopperBox {
  private readonly cables: Box['cables'] = [];
  private readonly conductors: Conductor[] = [];
  private readonly joints: Box['joints'] = [];
  private readonly positions: Position[] = [];
  private readonly labels: Label[] = [];
  private readonly netJoints = new Map<string, string>();
  private serial = 0;

  constructor(
    readonly id: string,
    private readonly roomId: string,
    private readonly name: string,
    private readonly circuitIds: string[],
    private readonly practice: PracticeId = 'us',
  ) {}

  private newId(): string {
    this.serial += 1;
    return `${this.id}-${this.serial}`;
  }

  private get colours() {
    return profileOf({ practice: this.practice }).colours.today;
  }

  /** A joint of the box, one a net. */
  joint(net: string): At {
    let id = this.netJoints.get(net);
    if (id === undefined) {
      id = this.newId();
      this.netJoints.set(net, id);
      this.joints.push({ id, connector: this.practice === 'us' ? 'twist-on' : 'lever' });
    }
    return { joint: id };
  }

  cable(label?: string): string {
    const id = this.newId();
    this.cables.push({ id, ...(label ? { label } : {}), entry: 'top' });
    return id;
  }

  /** @param role null: nobody labelled it */
  core(cableId: string, role: Role | null, at: At, { colour, ...told }: Told = {}): string {
    const id = this.newId();
    const { line, neutral, ground, load } = this.colours;
    const usual: Partial<Record<Role, Colour>> = { line, 'line-on': line, neutral, ground, load };
    const size = this.practice === 'us' ? ('14AWG' as const) : ('1.5mm2' as const);
    this.conductors.push({ id, cableId, size, colour: colour ?? usual[role ?? 'line'] ?? 'red', at });
    if (role !== null) this.labels.push({ conductorId: id, role, ...told });
    return id;
  }

  tail(from: At, to: At): void {
    const size = this.practice === 'us' ? ('14AWG' as const) : ('1.5mm2' as const);
    this.conductors.push({ id: this.newId(), size, colour: this.colours.line, ends: [from, to] });
  }

  /** What comes from the panel: line, neutral and ground. */
  feed(circuitId: string, line: At, neutral: At = this.joint(`n:${circuitId}`)): void {
    const cable = this.cable();
    this.core(cable, 'line', line, { circuitId });
    this.core(cable, 'neutral', neutral, { circuitId });
    this.core(cable, 'ground', this.joint('ground'));
  }

  /** Line and neutral on to another box. */
  onward(circuitId: string, line: At, label?: string): { cable: string; cores: string[] } {
    const cable = this.cable(label);
    return {
      cable,
      cores: [
        this.core(cable, 'line-on', line, { circuitId }),
        this.core(cable, 'neutral', this.joint(`n:${circuitId}`), { circuitId }),
        this.core(cable, 'ground', this.joint('ground')),
      ],
    };
  }

  lamp(circuitId: string, loadIds: string[], hot: At, colour?: Colour): void {
    const cable = this.cable();
    this.core(cable, 'load', hot, { loadIds, ...(colour ? { colour } : {}) });
    this.core(cable, 'neutral', this.joint(`n:${circuitId}`), { circuitId });
    this.core(cable, 'ground', this.joint('ground'));
  }

  position(existing: Position['existing'], loadIds: string[], more: Partial<Position> = {}): number {
    const index = this.positions.length + 1;
    this.positions.push({ index, existing, loadIds, need: { smart: true }, ...more });
    return index;
  }

  box(order: number, enclosure: Partial<Box['enclosure']> = {}): Box {
    const gangs = Math.max(1, this.positions.length);
    return {
      id: this.id,
      roomId: this.roomId,
      name: this.name,
      order,
      circuitIds: this.circuitIds,
      enclosure: {
        gangs,
        material: 'plastic',
        grounded: false,
        capacity: { from: 'marked', mL: 420 + 260 * gangs },
        depth: 88,
        internalClamps: false,
        supportFittings: 0,
        ...enclosure,
      },
      signal: { rssi: -58 },
      cables: this.cables,
      conductors: this.conductors,
      joints: this.joints,
      positions: this.positions,
      readings: [],
      labels: this.labels,
    };
  }
}

/** A core that runs from one box to another: what it is at either end, and where it ends there. */
export interface LinkCore {
  roles: [Role, Role];
  at: [At, At];
  told?: Told;
}

/** A cable between two boxes, with the run that says so. */
export function linked(id: string, [from, to]: [CopperBox, CopperBox], cores: readonly LinkCore[]): Run {
  const [one, other] = [from.cable(), to.cable()];
  const pairs = cores.map(({ roles, at, told }): [string, string] => [
    from.core(one, roles[0], at[0], told),
    to.core(other, roles[1], at[1], told),
  ]);
  from.core(one, 'ground', from.joint('ground'));
  to.core(other, 'ground', to.joint('ground'));
  return {
    id,
    ends: [
      { boxId: from.id, cableId: one },
      { boxId: to.id, cableId: other },
    ],
    pairs,
    known: 'tested',
  };
}

/** The cores two three-way switches work over. */
export const travelersOf = (
  groupId: string,
  [from, to]: [number, number],
  colours: [Colour, Colour],
): LinkCore[] =>
  colours.map((colour, at) => ({
    roles: ['traveler', 'traveler'],
    at: [
      { position: from, terminal: `t${at + 1}` },
      { position: to, terminal: `t${at + 1}` },
    ],
    told: { groupId, traveler: at + 1, colour },
  }));

export const common = (position: number): At => ({ position, terminal: 'common' });

/** What a job of one room after another is made of. */
export const load = (
  id: string,
  name: string,
  roomId: string,
  more: Partial<Job['loads'][number]> = {},
): Job['loads'][number] => ({
  id,
  name,
  roomId,
  kind: 'led',
  count: 4,
  wattsEach: 9,
  dimmable: true,
  ...more,
});
