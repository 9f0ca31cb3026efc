import type { Colour, WireSize } from '../job/schema/primitives.js';
import type { At, Box, Conductor, Position } from '../job/schema/survey.js';

/**
 * The contents of a box in the making: cables with their conductors in order, joints,
 * pigtails. Cables have no name yet: a name would say what they are before anything was looked at.
 */
export class Sketch {
  readonly cables: Box['cables'] = [];
  readonly conductors: Conductor[] = [];
  readonly joints: Box['joints'] = [];
  breakOff: Position['breakOff'];

  constructor(
    private readonly size: WireSize,
    private readonly groundColour: Colour,
    private readonly connector: 'twist-on' | 'lever',
    private readonly newId: () => string,
    private readonly index: number,
  ) {}

  cable(): Cable {
    const id = this.newId();
    this.cables.push({ id });
    const cable: Cable = {
      wire: (colour, at) => {
        this.conductors.push({ id: this.newId(), cableId: id, size: this.size, colour, at });
        return cable;
      },
      ground: (at = { boxScrew: true }) => cable.wire(this.groundColour, at),
    };
    return cable;
  }

  joint(): At {
    const id = this.newId();
    this.joints.push({ id, connector: this.connector });
    return { joint: id };
  }

  /** A terminal of the preset's first position, or of one `gang` further on. */
  on(terminal: string, gang = 0): At {
    return { position: this.index + gang, terminal };
  }

  pigtail(colour: Colour, from: At, to: At): void {
    this.conductors.push({ id: this.newId(), size: this.size, colour, ends: [from, to] });
  }
}

interface Cable {
  wire(colour: Colour, at: At): Cable;
  /** The bare or green one; on the box's screw where nothing else is said. */
  ground(at?: At): Cable;
}
