import { contentsAsPlanned } from '../enclosure/as-planned.js';
import { fill } from '../enclosure/fill.js';
import { packing } from '../enclosure/space.js';
import { figuresInUse } from '../job/figures.js';
import { type JobLookup, placeKey } from '../job/lookup.js';
import type { Device } from '../job/schema/catalogue.js';
import type { Selection } from '../job/schema/job.js';
import type { Box, Position } from '../job/schema/survey.js';
import { removedSides } from '../loads/fins.js';
import { chosenPlaces } from '../wire/comes-out.js';
import { bodyMl, deepDevicesCount, packingSignature, QuickFill, signature } from './closing.js';
import { placeFacts } from './place.js';
import { loadRules } from './rules/load.js';
import { plateNeighbours, plateRule } from './rules/plate.js';
import { gangsRule } from './rules/space.js';

/**
 * Whether a box bears a set of choices at once: what no device can be asked alone. The same rules as at a
 * single place, asked of every planned device with all the others beside it; answers are kept by what of the
 * devices they depend on.
 */
export class BoxTogether {
  private readonly faces = new Map<string, boolean>();
  private readonly closing = new Map<string, boolean>();
  /** mL in the box beside the bodies of the planned devices. */
  private readonly beside = new Map<string, number | null>();
  private readonly carries = new Map<string, string>();
  private readonly quick: QuickFill | null;
  private readonly keys = new Map<string, { face: string; count: string; bodyMl: number }>();

  constructor(
    private readonly box: Box,
    /** Selections of positions that are not decided here stand; those that are decided must not be in it. */
    private readonly known: JobLookup,
  ) {
    this.quick = QuickFill.for(box, known);
  }

  bears(choices: readonly Selection[]): boolean {
    if (!choices.some((choice) => choice.deviceId !== null)) return true;
    return this.facesBear(choices) && this.closes(choices);
  }

  /** Choices alike in this are alike to every rule asked here. */
  alike(choice: Selection): string {
    const { face, count, bodyMl } = this.keyOf(choice);
    return `${choice.position}:${face}~${count}~${this.countsConductors() ? '' : bodyMl}`;
  }

  private countsConductors(): boolean {
    return figuresInUse(this.known.job).fill !== null;
  }

  private keyOf(choice: Selection): { face: string; count: string; bodyMl: number } {
    const id = `${choice.position}/${choice.deviceId}/${choice.strategy}`;
    let key = this.keys.get(id);
    if (!key) {
      key = this.makeKey(choice);
      this.keys.set(id, key);
    }
    return key;
  }

  private makeKey(choice: Selection): { face: string; count: string; bodyMl: number } {
    const device = this.known.devices.get(choice.deviceId ?? '');
    if (!device) return { face: '-', count: '-', bodyMl: 0 };
    const inBox = device.mount === 'box';
    const face = inBox
      ? [
          device.gangs,
          device.opening ?? '',
          device.ownPlate ? device.family : '',
          device.fins ? this.carriesWith(choice, device) : '',
        ].join(';')
      : device.mount;
    return {
      face,
      count: this.countsConductors()
        ? signature(device, deepDevicesCount(this.known.job))
        : packingSignature(device),
      bodyMl: bodyMl(device),
    };
  }

  /** Whether its rating still carries the loads with no, one and two sides taken off. */
  private carriesWith(choice: Selection, device: Device): string {
    const id = `${choice.position}/${device.id}/${choice.strategy}`;
    let known = this.carries.get(id);
    if (known === undefined) {
      const place = placeFacts(this.box, this.position(choice) as Position, this.known);
      const carries = (sides: number) =>
        !loadRules(place, device, choice.strategy, [], sides).some((reason) => reason.outcome === 'block');
      known = [0, 1, 2].map((sides) => (carries(sides) ? '+' : '-')).join('');
      this.carries.set(id, known);
    }
    return known;
  }

  private position(choice: Selection): Position | undefined {
    return this.box.positions.find((entry) => entry.index === choice.position);
  }

  private withChoices(choices: readonly Selection[]): JobLookup {
    const selections = new Map(this.known.selections);
    for (const choice of choices) selections.set(placeKey(this.box.id, choice.position), choice);
    return { ...this.known, selections };
  }

  /** Gangs, plate and lost fins. */
  private facesBear(choices: readonly Selection[]): boolean {
    const key = choices.map((choice) => `${choice.position}:${this.keyOf(choice).face}`).join('|');
    let answer = this.faces.get(key);
    if (answer === undefined) {
      answer = this.askFaces(choices);
      this.faces.set(key, answer);
    }
    return answer;
  }

  private askFaces(choices: readonly Selection[]): boolean {
    const { box } = this;
    const known = this.withChoices(choices);
    return choices.every((choice) => {
      const device = known.devices.get(choice.deviceId ?? '');
      const position = this.position(choice);
      if (device?.mount !== 'box' || !position) return true;
      const place = placeFacts(box, position, known);
      if ([...gangsRule(place, device), ...plateRule(device, plateNeighbours(place), box)].length > 0)
        return false;
      return (
        !device.fins || this.carriesWith(choice, device)[removedSides(box, position, device, known)] === '+'
      );
    });
  }

  /**
   * The code's count where there is one, else the estimate of packing: what the bodies leave is the same for
   * all of one size of terminals.
   */
  private closes(choices: readonly Selection[]): boolean {
    const key = choices.map((choice) => `${choice.position}:${this.keyOf(choice).count}`).join('|');
    if (this.countsConductors()) {
      let answer = this.closing.get(key);
      if (answer === undefined) {
        const known = this.withChoices(choices);
        const planned = chosenPlaces(this.box, known);
        answer =
          (this.quick?.of(planned) ?? fill(contentsAsPlanned(this.box, planned, known))).verdict === 'ok';
        this.closing.set(key, answer);
      }
      return answer;
    }
    const bodies = choices.reduce((sum, choice) => sum + this.keyOf(choice).bodyMl, 0);
    let left = this.beside.get(key);
    if (left === undefined) {
      const contents = this.contents(choices);
      const { occupancy, shares } = packing(contents);
      const { closes } = figuresInUse(this.known.job).packing;
      const others = shares.bodiesMl - bodies + shares.connectorsMl + shares.conductorsMl;
      left = occupancy === null ? null : (contents.capacity.ml ?? 0) * closes - others;
      this.beside.set(key, left);
    }
    return left !== null && bodies <= left + 1e-6;
  }

  private contents(choices: readonly Selection[]) {
    const known = this.withChoices(choices);
    return contentsAsPlanned(this.box, chosenPlaces(this.box, known), known);
  }
}
