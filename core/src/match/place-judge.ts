import type { Device } from '../job/schema/catalogue.js';
import type { Strategy } from '../job/schema/primitives.js';
import { type TerminalNeeds, terminalNeeds } from '../loads/terminal-needs.js';
import { needsAlone, stoppedAlone } from './alone.js';
import { type Candidate, judged } from './candidate.js';
import { Closing } from './closing.js';
import { withFreedTravelers } from './freed-travelers.js';
import { type GroupSeat, groupSeat, travelerRule } from './multi-location.js';
import { type GroupPlace, partnerAt } from './partners.js';
import { type PlaceFacts, placeFacts } from './place.js';
import { NO_REASONS, type Reason } from './reason.js';
import { batteryOnlyRule, colourRule, feelRule, needRule, platformRule, sensorRule } from './rules/client.js';
import { hazardRule } from './rules/hazard.js';
import { loadRules } from './rules/load.js';
import {
  hubRule,
  type NetworkElsewhere,
  networkElsewhere,
  radioRule,
  routerRule,
  signalRule,
} from './rules/network.js';
import { flushRule, plateNeighbours, plateRule, shadeRule } from './rules/plate.js';
import { bodyRule, depthRule, gangsRule } from './rules/space.js';
import { groundRule, lineLoadRule, neutralRule, practiceRule, voltageRule } from './rules/supply.js';

/** A device in a strategy, and what it wants of the conductors at the place. */
interface Asked {
  device: Device;
  strategy: Strategy;
  needs: TerminalNeeds;
  /** Takes what the device would need beside itself. */
  parts: string[];
  role?: GroupSeat['role'];
}

/**
 * Judges devices at one place; keeps what many of them share. `by-itself` leaves out what depends on the
 * devices beside it and on those of the rest of the house: whoever decides for several places together asks
 * that of them all.
 */
export class PlaceJudge {
  private readonly closing: Closing;
  private others: GroupPlace[] | undefined;
  private elsewhere: NetworkElsewhere | undefined;
  private neighbours: ReturnType<typeof plateNeighbours> | undefined;

  constructor(
    readonly place: PlaceFacts,
    private readonly scope: 'in-place' | 'by-itself' = 'in-place',
  ) {
    this.closing = new Closing(place);
  }

  candidate(device: Device, strategy: Strategy): Candidate {
    return this.place.group ? this.inGroup(device, strategy) : this.alone(device, strategy);
  }

  private alone(device: Device, strategy: Strategy): Candidate {
    const stopped = stoppedAlone(device, strategy);
    if (stopped) return judged(device, strategy, stopped);
    const parts: string[] = [];
    const ask = { device, strategy, needs: needsAlone(device, strategy), parts };
    const reasons = this.rules(this.place, ask);
    reasons.push(...this.ofTheHouse([device]));
    return judged(device, strategy, reasons, parts);
  }

  private inGroup(device: Device, strategy: Strategy): Candidate {
    const answer = groupSeat(device, strategy, this.place);
    if ('block' in answer) return judged(device, strategy, [answer.block]);
    const { seat } = answer;
    const parts: string[] = [];
    const reasons = this.inSeat(device, strategy, seat, parts);
    const main = seat.role === 'partner' ? this.mainElsewhere() : undefined;
    if (seat.role === 'partner' && !main) reasons.push(noMain(strategy));
    const partners = this.otherPlaces().map((other) =>
      partnerAt(other, { device, strategy, seat, asMain: other === main }),
    );
    for (const { reason } of partners) if (reason) reasons.push(reason);
    const devices = partners.flatMap(({ deviceId }) => this.place.known.devices.get(deviceId ?? '') ?? []);
    reasons.push(...this.ofTheHouse([device, ...devices]));
    return judged(
      device,
      strategy,
      reasons,
      parts,
      partners.map(({ boxId, position, deviceId }) => ({ boxId, position, deviceId })),
    );
  }

  /**
   * The rules for a device in its seat of a group strategy. A partner wants only what the strategy lists for
   * it.
   */
  inSeat(device: Device, strategy: Strategy, seat: GroupSeat, parts: string[]): Reason[] {
    const own = terminalNeeds(device);
    const wanted = seat.entry.partner ?? {};
    const needs: TerminalNeeds =
      seat.role === 'main'
        ? own
        : {
            line: wanted.line ?? own.line,
            load: false,
            neutral: wanted.neutral ?? own.neutral,
            travelers: wanted.travelers ?? 0,
          };
    const others = this.otherPlaces().map((other) => other.place);
    // Tied through, the traveler that the far end is joined to is the one that carries the line on or the
    // load back.
    const reserved = strategy === 'tie-through' ? 0 : (wanted.travelers ?? 0);
    const { place, notes } = withFreedTravelers(this.place, others, needs, reserved);
    return [
      ...this.rules(place, { device, strategy, needs, parts, role: seat.role }),
      ...travelerRule(this.place, seat, strategy),
      ...notes,
    ];
  }

  private rules(place: PlaceFacts, asked: Asked): Reason[] {
    const { device, strategy, needs, parts, role = 'main' } = asked;
    const inBox = device.mount === 'box';
    const main = role === 'main';
    const beside = this.scope === 'in-place';
    const reasons: Reason[] = [];
    const ask = (found: readonly Reason[]) => {
      for (const reason of found) reasons.push(reason);
    };
    ask(hazardRule(place));
    ask(practiceRule(place, device));
    ask(voltageRule(place, device, needs));
    ask(neutralRule(place, device, needs));
    ask(groundRule(place, device));
    ask(lineLoadRule(place, device, needs));
    if (main) ask(loadRules(place, device, strategy, parts, beside ? undefined : 0));
    if (inBox) {
      if (beside) ask(gangsRule(place, device));
      ask(bodyRule(place, device));
      ask(depthRule(place, device));
    }
    if (beside) {
      ask(this.closing.fillRule(device));
      ask(this.closing.packingRule(device));
      if (inBox) {
        this.neighbours ??= plateNeighbours(place);
        ask(plateRule(device, this.neighbours, place.box));
        ask(shadeRule(device, this.neighbours));
        ask(flushRule(device, this.neighbours));
      }
    }
    // A partner without a radio speaks through its main device.
    if (place.need.connected !== false && (main || device.radio !== 'none')) {
      ask(radioRule(place, device));
      ask(signalRule(place, device));
      ask(platformRule(place, device));
    }
    ask(feelRule(place, device));
    ask(colourRule(place, device));
    ask(needRule(place, device, strategy, main));
    ask(sensorRule(place, device));
    ask(batteryOnlyRule(device));
    return reasons;
  }

  /**
   * What the house as a whole has to bear: hubs and the router, with the devices that would come together.
   */
  private ofTheHouse(devices: readonly Device[]): readonly Reason[] {
    const { known, need } = this.place;
    if (this.scope === 'by-itself' || need.connected === false) return NO_REASONS;
    this.elsewhere ??= networkElsewhere(this.place);
    const hubs = hubRule(known, devices, this.elsewhere);
    const router = routerRule(known, devices, this.elsewhere);
    return router.length === 0 ? hubs : [...hubs, ...router];
  }

  /** The place of the group, other than this one, whose device feeds the load. */
  mainElsewhere(): GroupPlace | undefined {
    const others = this.otherPlaces();
    return (
      others.find((other) => other.place.load === 'present') ??
      others.find((other) => other.place.load === 'unknown')
    );
  }

  otherPlaces(): GroupPlace[] {
    if (!this.others) {
      const { group, known, box, position } = this.place;
      this.others = (group?.places ?? []).flatMap((place) => {
        if (place.boxId === box.id && place.position === position.index) return [];
        const other = known.boxes.get(place.boxId);
        const at = other?.positions.find((candidate) => candidate.index === place.position);
        if (!other || !at) return [];
        const facts = placeFacts(other, at, known);
        return [{ place: facts, judge: new PlaceJudge(facts, this.scope) }];
      });
    }
    return this.others;
  }
}

const noMain = (strategy: Strategy): Reason => ({
  rule: 'multi-location',
  outcome: 'block',
  code: 'multi-location.no-main',
  facts: { strategy },
});
