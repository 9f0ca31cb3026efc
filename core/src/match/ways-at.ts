import type { JobLookup } from '../job/lookup.js';
import type { Device } from '../job/schema/catalogue.js';
import type { Group } from '../job/schema/job.js';
import type { Strategy } from '../job/schema/primitives.js';
import type { Box, Position } from '../job/schema/survey.js';
import { BoxTogether } from './box-together.js';
import { ALONE, type Candidate, type Choice, IN_GROUP, OF_THE_WAY } from './candidate.js';
import { matchPlace } from './match.js';
import { groupSeat, withoutDevice } from './multi-location.js';
import { type GroupPlace, judgePartner, partnerDevices, type Sought } from './partners.js';
import { placeFacts } from './place.js';
import { PlaceJudge } from './place-judge.js';
import { verdictOf } from './reason.js';

/*
 * The one door for whoever decides for several places at once: every way to serve a place or a group by
 * itself, whether a box bears several choices together, and what stops a device where it ends without one.
 */

export type { BoxTogether, Choice };

/** What is decided as one: a place outside groups, or the places of a group. */
export type Wanted = { box: Box; position: Position } | { group: Group };

/**
 * Every way to serve it that no rule stops as far as it goes by itself, each as its choices. What shares a
 * box is asked of {@link boxTogether}, hubs and router of the whole house.
 * @param known a lookup whose selections leave out the places that are to be decided
 */
export function waysAt(wanted: Wanted, known: JobLookup): Choice[][] {
  return 'group' in wanted ? waysOfGroup(wanted.group, known) : waysAlone(wanted, known);
}

function waysAlone({ box, position }: { box: Box; position: Position }, known: JobLookup): Choice[][] {
  const judge = new PlaceJudge(placeFacts(box, position, known), 'by-itself');
  const ways: Choice[][] = [];
  for (const device of known.job.catalogue.devices)
    for (const strategy of ALONE) {
      const candidate = judge.candidate(device, strategy);
      if (fits(candidate.verdict)) ways.push([choiceOf(judge.place, device.id, strategy, candidate.with)]);
    }
  return ways;
}

function waysOfGroup(group: Group, known: JobLookup): Choice[][] {
  const ways: Choice[][] = [];
  for (const { boxId, position: index } of group.places) {
    const box = known.boxes.get(boxId);
    const position = box?.positions.find((entry) => entry.index === index);
    if (!box || !position) continue;
    const judge = new PlaceJudge(placeFacts(box, position, known), 'by-itself');
    for (const device of known.job.catalogue.devices)
      for (const strategy of IN_GROUP)
        for (const choices of withMain(judge, device, strategy)) ways.push(choices);
  }
  return ways;
}

/** Every way with this device as the one that feeds the load, each partner that suits at each other place. */
function withMain(judge: PlaceJudge, device: Device, strategy: Strategy): Choice[][] {
  const { place } = judge;
  const answer = groupSeat(device, strategy, place);
  if ('block' in answer || answer.seat.role !== 'main') return [];
  const { seat } = answer;
  const parts: string[] = [];
  if (!fits(verdictOf(judge.inSeat(device, strategy, seat, parts), parts))) return [];
  let choices: Choice[][] = [[choiceOf(place, device.id, strategy, parts)]];
  for (const other of judge.otherPlaces()) {
    const there = partnersAt(other, { device, strategy, seat, asMain: false });
    choices = choices.flatMap((before) => there.map((choice) => [...before, choice]));
  }
  return choices;
}

function partnersAt(other: GroupPlace, sought: Sought): Choice[] {
  const { strategy, seat } = sought;
  const without = withoutDevice(strategy, seat.entry, other.place);
  if (without) return without.reason ? [] : [choiceOf(other.place, null, strategy)];
  return partnerDevices(sought, other.place.known).flatMap((partner) => {
    const answer = judgePartner(other, partner, strategy, seat.entry);
    return !('block' in answer) && verdictOf(answer.reasons, []) === 'fits'
      ? [choiceOf(other.place, partner.id, strategy)]
      : [];
  });
}

const fits = (verdict: Candidate['verdict']) => verdict === 'fits' || verdict === 'fits-with';

const choiceOf = (
  { box, position }: { box: Box; position: Position },
  deviceId: string | null,
  strategy: Strategy,
  parts: readonly string[] = [],
): Choice => ({ boxId: box.id, position: position.index, deviceId, strategy, with: parts });

/** Whether a box bears several choices at once; made once a box and asked for each set of them. */
export function boxTogether(box: Box, known: JobLookup): BoxTogether {
  return new BoxTogether(box, known);
}

/** What stops a device at a place, in one strategy; no rule: nothing does. */
export interface Stopped {
  device: Device;
  strategy: Strategy;
  rules: ReadonlySet<string>;
  /** What stops it says that this is no way for the device, and little of the place. */
  ofTheWay: boolean;
  /** Other places would get something with it. */
  partnered: boolean;
}

/** What stops every device at a place, with the house as the lookup has it. */
export function stopsAt(
  { boxId, position }: { boxId: string; position: number },
  known: JobLookup,
): Stopped[] {
  const box = known.boxes.get(boxId);
  const at = box?.positions.find((entry) => entry.index === position);
  if (!box || !at) return [];
  const found: Stopped[] = [];
  for (const { deviceId, strategy, reasons, partners } of matchPlace(box, at, known)) {
    const device = known.devices.get(deviceId);
    if (!device) continue;
    const rules = new Set<string>();
    let ofTheWay = false;
    for (const { outcome, rule, code } of reasons) {
      if (outcome !== 'block' && outcome !== 'unproved') continue;
      rules.add(rule);
      ofTheWay ||= OF_THE_WAY.has(code);
    }
    found.push({ device, strategy, rules, ofTheWay, partnered: partners.length > 0 });
  }
  return found;
}
