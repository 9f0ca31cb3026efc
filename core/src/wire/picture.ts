import type { JobLookup } from '../job/lookup.js';
import { looseEnds } from '../job/loose-ends.js';
import type { Terminal } from '../job/schema/catalogue.js';
import type { Colour } from '../job/schema/primitives.js';
import type { Label } from '../job/schema/survey.js';
import { profileOf } from '../practice/profiles.js';
import { cableNames, conductorsInOrder } from '../survey/conductor-names.js';
import { jointNumber } from './joint-number.js';
import { type NetKey, netName } from './once-wired.js';
import type { WiringToDo } from './steps.js';

/*
 * A wiring as nodes, ports and routes, before anybody places it on a sheet. Ports are the cores of cables,
 * the terminals of panels, and joints; a route leads from one port to another.
 */

export interface PictureCore {
  name: string;
  colour: Colour;
  label: Label | null;
  /** Where it ends; null: it passes through unbroken. */
  to: Port | null;
  /** Nobody touches it. */
  stays: boolean;
}

interface PictureCable {
  id: string;
  /** `A`, where the box has several. */
  letter: string;
  word: string;
  cores: PictureCore[];
}

export interface PictureTerminal {
  name: string;
  /** As it is printed on the device. */
  mark: string;
  form: Terminal['form'] | 'unknown';
  /** Of a lead. */
  colour: Colour | null;
  strip: number | null;
  to: Port | null;
  role: Terminal['role'] | null;
}

/** A device, one that stays, or the box with its screw: something terminals are on. */
interface PicturePanel {
  key: string;
  position: number | null;
  kind: 'planned' | 'stays' | 'box';
  terminals: PictureTerminal[];
}

interface PictureJoint {
  id: string;
  /** As it is called: those of the box as found keep their number. */
  number: number;
  net: NetKey;
  /** How many ends go in. */
  count: number;
  connector: { id: string; kind: string; conductors: readonly [number, number] } | null;
  stays: boolean;
}

/** A pigtail or jumper between two ports. */
interface PicturePiece {
  name: string;
  colour: Colour;
  from: Port;
  to: Port;
  made: boolean;
}

export type Port = { joint: string } | { terminal: string } | { cap: true };

export interface WiringPicture {
  cables: PictureCable[];
  panels: PicturePanel[];
  joints: PictureJoint[];
  pieces: PicturePiece[];
}

/** What a wiring looks like: cables above, devices below, joints between. */
export function wiringPicture(wiring: WiringToDo, known: JobLookup): WiringPicture {
  return new Picture(wiring, known).all();
}

class Picture {
  /** The places where each end stands, by name; a piece has two. */
  private readonly ports = new Map<string, Port[]>();
  private readonly still = new Set<string>();

  constructor(
    private readonly wiring: WiringToDo,
    private readonly known: JobLookup,
  ) {
    const { plan } = wiring;
    const put = (name: string, port: Port) => this.ports.set(name, [...(this.ports.get(name) ?? []), port]);
    for (const joint of plan.joints)
      for (const name of joint.members) {
        put(name, { joint: joint.id });
        if (joint.kept) this.still.add(name);
      }
    for (const { terminal, conductorId } of plan.landed) {
      put(conductorId, { terminal });
      put(terminal, { terminal });
    }
    for (const { conductorId, at } of plan.kept) {
      put(conductorId, { terminal: at });
      this.still.add(conductorId);
    }
    for (const name of plan.capped) put(name, { cap: true });
    for (const { conductor, at } of looseEnds(wiring.box)) if (at.capped) this.still.add(conductor.id);
  }

  all(): WiringPicture {
    return {
      cables: this.cables(),
      panels: [...this.panels(), ...this.boxScrew()],
      joints: this.wiring.plan.joints.map(({ id, net, members, connector, kept }) => ({
        id,
        number: jointNumber(this.wiring, id),
        net: netName(net),
        count: members.length,
        connector: connector && { id: connector.id, kind: connector.kind, conductors: connector.conductors },
        stays: kept,
      })),
      pieces: this.pieces(),
    };
  }

  private cables(): PictureCable[] {
    const { box } = this.wiring;
    const labels = new Map(box.labels.map((label) => [label.conductorId, label]));
    const inOrder = conductorsInOrder(box);
    return cableNames(box).map(({ cableId, letter, word }) => ({
      id: cableId,
      letter,
      word,
      cores: inOrder
        .filter((conductor) => conductor.cableId === cableId)
        .map(({ id, colour, unbroken }) => ({
          name: id,
          colour,
          label: labels.get(id) ?? null,
          to: unbroken ? null : (this.ports.get(id)?.[0] ?? null),
          stays: unbroken === true || this.still.has(id),
        })),
    }));
  }

  private panels(): PicturePanel[] {
    const { box, places, plan } = this.wiring;
    return box.positions.flatMap(({ index }): PicturePanel[] => {
      const place = places.find(({ position }) => position.index === index);
      const key = `position-${index}`;
      if (place?.device?.mount === 'box') {
        const parts = [...this.ports.keys()].filter(
          (name) => name.startsWith(`${index}.`) && name.split('.').length === 3,
        );
        return [
          {
            key,
            position: index,
            kind: 'planned',
            terminals: [
              ...place.device.terminals.map((terminal) => this.terminal(`${index}.${terminal.id}`, terminal)),
              ...parts.map((name) => this.partLead(name)),
            ],
          },
        ];
      }
      if (plan.wired.out.has(index)) return [];
      const terminals = this.keptTerminals(index);
      return terminals.length > 0 ? [{ key, position: index, kind: 'stays', terminals }] : [];
    });
  }

  private terminal(name: string, { mark, id, form, colour, strip, role }: Terminal): PictureTerminal {
    return {
      name,
      mark: mark ?? id,
      form,
      colour: form === 'lead' ? (colour ?? 'unknown') : null,
      strip: strip ?? null,
      to: this.ports.get(name)?.[0] ?? null,
      role,
    };
  }

  private partLead(name: string): PictureTerminal {
    const to = this.ports.get(name)?.[0] ?? null;
    const mark = name.split('.').slice(1).join(' ');
    return { name, mark, form: 'lead', colour: 'unknown', strip: null, to, role: null };
  }

  /** What is on the device that stays, as found, and what the plan puts there anew. */
  private keptTerminals(index: number): PictureTerminal[] {
    const { box, plan } = this.wiring;
    const leads = box.positions.find((position) => position.index === index)?.leads ?? [];
    const used = new Set([
      ...plan.kept.map(({ at }) => at),
      ...plan.landed.map(({ terminal }) => terminal),
      ...leads.map(({ terminal }) => `${index}.${terminal}`),
    ]);
    return [...used]
      .filter((name) => name.split('.')[0] === `${index}`)
      .sort()
      .map((name) => {
        const id = name.slice(`${index}.`.length);
        const lead = leads.some(({ terminal }) => terminal === id);
        return {
          name,
          mark: id,
          form: lead ? 'lead' : 'unknown',
          colour: lead ? 'unknown' : null,
          strip: null,
          to: lead ? (this.ports.get(name)?.[0] ?? null) : { terminal: name },
          role: null,
        };
      });
  }

  private boxScrew(): PicturePanel[] {
    const { plan } = this.wiring;
    const used =
      plan.kept.some(({ at }) => at === 'box') || plan.landed.some(({ terminal }) => terminal === 'box');
    const terminal: PictureTerminal = {
      name: 'box',
      mark: profileOf(this.known.job).words.groundMark,
      form: 'screw',
      colour: null,
      strip: null,
      to: { terminal: 'box' },
      role: 'ground',
    };
    return used ? [{ key: 'box', position: null, kind: 'box', terminals: [terminal] }] : [];
  }

  private pieces(): PicturePiece[] {
    const { box, plan } = this.wiring;
    const { colours } = profileOf(this.known.job);
    const between = (name: string, colour: Colour, made: boolean): PicturePiece[] => {
      const [from, to] = this.ports.get(name) ?? [];
      return from && to ? [{ name, colour, from, to, made }] : [];
    };
    const colourOf = (net: NetKey): Colour => {
      if (netName(net) === 'ground') return colours.today.ground;
      return net.startsWith('neutral:') ? colours.today.neutral : colours.today.line;
    };
    return [
      ...plan.made.flatMap(({ id, net }) => between(id, colourOf(net), true)),
      ...box.conductors.flatMap(({ id, cableId, colour }) =>
        cableId === undefined ? between(id, colour, false) : [],
      ),
    ];
  }
}
