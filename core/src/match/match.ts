import { type Reason, type Verdict, verdictOf } from '../findings/finding.js';
import { type JobLookup, lookup, placeKey, wantsSmart } from '../job/lookup.js';
import type { Device, MultiLocation } from '../job/schema/catalogue.js';
import type { Job } from '../job/schema/job.js';
import type { Strategy } from '../job/schema/primitives.js';
import type { Box, Position } from '../job/schema/survey.js';
import { Closing } from './closing.js';
import { withFreedTravelers } from './freed-travelers.js';
import { type GroupPart, groupPart, travelerRule, withoutDevice } from './multi-location.js';
import { type PlaceFacts, placeFacts } from './place.js';
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
import { type TerminalNeeds, terminalNeeds } from './terminal-needs.js';

/** One device, in one strategy, at one place. */
export interface Candidate {
  deviceId: string;
  strategy: Strategy;
  verdict: Verdict;
  with: readonly string[];
  partners: readonly { boxId: string; position: number; deviceId: string | null }[];
  reasons: readonly Reason[];
}

export interface PlaceMatch {
  boxId: string;
  position: number;
  devices: Candidate[];
}

export const ALONE: readonly Strategy[] = ['single', 'bulb-controller', 'module'];
export const IN_GROUP: readonly Strategy[] = [
  'both-ends',
  'keep-mechanical',
  'companion',
  'tie-through',
  'bulb-controller',
  'module',
  'linked',
];

/** Every place that wants a smart device against every device of the catalogue, blocked ones too. */
export function matchJob(job: Job): PlaceMatch[] {
  const known = lookup(job);
  return job.boxes.flatMap((box) => matchBox(box, known));
}

export function matchBox(box: Box, known: JobLookup): PlaceMatch[] {
  return box.positions.filter(wantsSmart).map((position) => ({
    boxId: box.id,
    position: position.index,
    devices: matchPlace(box, position, known),
  }));
}

export function matchPlace(box: Box, position: Position, known: JobLookup): Candidate[] {
  const place = placeFacts(box, position, known);
  const judge = new PlaceJudge(place);
  const strategies = place.group ? IN_GROUP : ALONE;
  const candidates: Candidate[] = [];
  for (const device of known.job.catalogue.devices)
    for (const strategy of strategies) candidates.push(judge.candidate(device, strategy));
  return candidates;
}

/** Another place of the same group. */
export interface GroupPlace {
  place: PlaceFacts;
  judge: PlaceJudge;
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
    const otherWay = strategyReasons(device, strategy);
    if (otherWay)
      return {
        deviceId: device.id,
        strategy,
        verdict: 'no',
        with: NO_PARTS,
        partners: NO_PARTNERS,
        reasons: otherWay,
      };
    const parts: string[] = [];
    const reasons = this.rules(this.place, device, strategy, alonesNeeds(device, strategy), parts);
    this.ofTheHouse([device], reasons);
    return {
      deviceId: device.id,
      strategy,
      verdict: verdictOf(reasons, parts),
      with: parts,
      partners: NO_PARTNERS,
      reasons,
    };
  }

  private inGroup(device: Device, strategy: Strategy): Candidate {
    const answer = groupPart(device, strategy, this.place);
    if ('block' in answer)
      return {
        deviceId: device.id,
        strategy,
        verdict: 'no',
        with: NO_PARTS,
        partners: NO_PARTNERS,
        reasons: [answer.block],
      };
    const { part } = answer;
    const parts: string[] = [];
    const reasons = this.asPart(device, strategy, part, parts);
    const partners: { boxId: string; position: number; deviceId: string | null }[] = [];
    const devices = [device];
    const mainPlace = part.role === 'partner' ? this.mainElsewhere() : undefined;
    if (part.role === 'partner' && !mainPlace)
      reasons.push({
        rule: 'multi-location',
        outcome: 'block',
        code: 'multi-location.no-main',
        facts: { strategy },
      });
    for (const other of this.otherPlaces()) {
      const { boxId, position, deviceId, reason } = partnerAt(
        other,
        device,
        strategy,
        part,
        other === mainPlace,
      );
      partners.push({ boxId, position, deviceId });
      const partner = this.place.known.devices.get(deviceId ?? '');
      if (partner) devices.push(partner);
      if (reason) reasons.push(reason);
    }
    this.ofTheHouse(devices, reasons);
    return {
      deviceId: device.id,
      strategy,
      verdict: verdictOf(reasons, parts),
      with: parts,
      partners,
      reasons,
    };
  }

  /**
   * The rules for a device in its part of a group strategy. A partner wants only what the strategy lists for
   * it.
   */
  asPart(device: Device, strategy: Strategy, part: GroupPart, parts: string[]): Reason[] {
    const own = terminalNeeds(device);
    const wanted = part.entry.partner ?? {};
    const needs: TerminalNeeds =
      part.role === 'main'
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
      ...this.rules(place, device, strategy, needs, parts, part.role),
      ...travelerRule(this.place, part, strategy),
      ...notes,
    ];
  }

  private rules(
    place: PlaceFacts,
    device: Device,
    strategy: Strategy,
    needs: TerminalNeeds,
    parts: string[],
    role: GroupPart['role'] = 'main',
  ): Reason[] {
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
  private ofTheHouse(devices: readonly Device[], reasons: Reason[]): void {
    const { known, need } = this.place;
    if (this.scope === 'by-itself' || need.connected === false) return;
    this.elsewhere ??= networkElsewhere(this.place);
    for (const reason of hubRule(known, devices, this.elsewhere)) reasons.push(reason);
    for (const reason of routerRule(known, devices, this.elsewhere)) reasons.push(reason);
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

/**
 * A wireless controller of bulbs needs their line and load to be joined in the box, and so both to be known.
 */
function alonesNeeds(device: Device, strategy: Strategy): TerminalNeeds {
  const joins = strategy === 'bulb-controller' && device.bulbController && device.terminals.length === 0;
  return joins ? { line: true, load: true, neutral: false, travelers: 0 } : terminalNeeds(device);
}

const NO_PARTS: readonly string[] = [];
const NO_PARTNERS: Candidate['partners'] = [];
const block = (rule: Reason['rule'], code: string): readonly Reason[] => [
  { rule, outcome: 'block', code, facts: {} },
];
const OTHER_WAY = {
  notAController: block('bulb-family', 'bulb-family.not-a-controller'),
  notAModule: block('body', 'body.not-a-module'),
  atTheFitting: block('body', 'body.at-the-fitting'),
  surface: block('body', 'body.surface'),
};

/**
 * Reasons that speak of the way, not of the device: they tell less than what a possible way is stopped by.
 */
export const OF_THE_WAY: ReadonlySet<string> = new Set([
  'bulb-family.not-a-controller',
  'body.not-a-module',
  'body.at-the-fitting',
  'body.surface',
  'multi-location.not-offered',
  'multi-location.wrong-end',
]);

/**
 * Outside a group: a device in a box cannot be a module at the fitting, and only some can keep bulbs on
 * constant power.
 */
function strategyReasons(device: Device, strategy: Strategy): readonly Reason[] | undefined {
  if (
    strategy === 'bulb-controller' &&
    !device.bulbController &&
    !device.channels.some((channel) => channel.alwaysOnMode && channel.kind !== 'dimmer')
  )
    return OTHER_WAY.notAController;
  if (strategy === 'module' && device.mount !== 'fitting') return OTHER_WAY.notAModule;
  if (strategy === 'single' && device.mount === 'fitting') return OTHER_WAY.atTheFitting;
  if (strategy === 'single' && device.mount === 'surface') return OTHER_WAY.surface;
  return undefined;
}

/** The first partner device that suits at another place of the group, or why none does. */
function partnerAt(
  other: GroupPlace,
  device: Device,
  strategy: Strategy,
  part: GroupPart,
  wantsMain: boolean,
): { boxId: string; position: number; deviceId: string | null; reason?: Reason } {
  const { box, position } = other.place;
  const where = { boxId: box.id, position: position.index };
  const without = wantsMain ? undefined : withoutDevice(strategy, part.entry, other.place);
  if (without) return { ...where, deviceId: null, ...(without.reason ? { reason: without.reason } : {}) };
  let worst: readonly Reason[] | undefined;
  let unproved: { deviceId: string; reasons: readonly Reason[] } | undefined;
  const candidates = partnerDevices(device, strategy, part, wantsMain, other.place.known);
  for (const candidate of candidates) {
    const judged = judgePartner(other, candidate, strategy, wantsMain ? undefined : part.entry);
    if ('block' in judged) {
      worst ??= [judged.block];
      continue;
    }
    const verdict = verdictOf(judged.reasons, []);
    if (verdict === 'fits') return { ...where, deviceId: candidate.id };
    const telling = judged.reasons.filter(
      (reason) => reason.outcome === (verdict === 'no' ? 'block' : 'unproved'),
    );
    if (verdict === 'unproved') unproved ??= { deviceId: candidate.id, reasons: telling };
    else worst ??= telling;
  }
  const facts = {
    box: box.name,
    position: position.index,
    // Every rule that stops it there, not the first.
    because:
      [...new Set((unproved?.reasons ?? worst ?? []).map(({ rule }) => rule))].join(', ') || 'multi-location',
    place: placeKey(box.id, position.index),
  };
  if (unproved)
    return {
      ...where,
      deviceId: unproved.deviceId,
      reason: { rule: 'multi-location', outcome: 'unproved', code: 'multi-location.partner-unproved', facts },
    };
  return {
    ...where,
    deviceId: candidates[0]?.id ?? null,
    reason: { rule: 'multi-location', outcome: 'block', code: 'multi-location.partner', facts },
  };
}

/**
 * A device in its part at another place of the group.
 *
 * @param listedBy the main device's record, which speaks for a partner that has none of its own; undefined:
 * it is to be the main device
 * @param parts takes what a main device would need there
 */
export function judgePartner(
  other: GroupPlace,
  candidate: Device,
  strategy: Strategy,
  listedBy: MultiLocation | undefined,
  parts: string[] = [],
): { block: Reason } | { reasons: readonly Reason[] } {
  const answer = groupPart(candidate, strategy, other.place);
  const own =
    'part' in answer
      ? answer.part.entry
      : answer.block.code === 'multi-location.not-offered'
        ? listedBy
        : undefined;
  if (!own) return answer as { block: Reason };
  return {
    reasons: other.judge.asPart(
      candidate,
      strategy,
      { role: listedBy ? 'partner' : 'main', entry: own },
      parts,
    ),
  };
}

/**
 * Devices that may stand at another place of the group, in the order of the record: a partner asks for a main
 * device where the load is.
 */
export function partnerDevices(
  device: Device,
  strategy: Strategy,
  part: GroupPart,
  wantsMain: boolean,
  known: JobLookup,
): Device[] {
  const listed = (part.entry.partnerIds ?? []).flatMap((id) => known.devices.get(id) ?? []);
  if (wantsMain) {
    const naming = known.job.catalogue.devices.filter((other) =>
      other.multiLocation?.some(
        (entry) => entry.strategy === strategy && entry.partnerIds?.includes(device.id),
      ),
    );
    const alike = strategy === 'both-ends' || strategy === 'linked' ? [device] : [];
    return [...new Set([...listed, ...naming, ...alike])].filter(feedsLoad);
  }
  if (part.role === 'partner') return [device, ...listed.filter((other) => !feedsLoad(other))];
  return listed.length > 0 ? listed : [device];
}

function feedsLoad(device: Device): boolean {
  return device.terminals.some((terminal) => terminal.role === 'load');
}
