import { boxItself } from '../../enclosure/as-found.js';
import { contentsAsPlanned, plannedDevices, strapsAsPlanned } from '../../enclosure/as-planned.js';
import type { BoxContents } from '../../enclosure/contents.js';
import { type FillResult, fill } from '../../enclosure/fill.js';
import { NO_REASONS, type Reason } from '../../findings/finding.js';
import type { Device } from '../../job/schema/catalogue.js';
import type { Box, Position } from '../../job/schema/survey.js';
import { figuresInUse } from '../../practice/rule-figures.js';
import { unitsOf } from '../../units/present.js';
import { rounded } from '../../units/volume.js';
import type { NetName } from '../../wire/found-nets.js';
import { type JointPlan, planJoints } from '../../wire/plan.js';
import { type PlannedDevice, terminalNets } from '../../wire/terminal-nets.js';
import type { PlaceFacts } from '../place.js';

export function gangsRule(place: PlaceFacts, device: Device): readonly Reason[] {
  const free = freeGangs(place.box, place.position);
  if (device.gangs <= free) return NO_REASONS;
  return [{ rule: 'gangs', outcome: 'block', code: 'gangs.too-wide', facts: { gangs: device.gangs, free } }];
}

/** Gangs side by side a device may take here: its own, and empty or blank ones next to them. */
function freeGangs(box: Box, position: Position): number {
  const taken = new Set<number>();
  for (const other of box.positions) {
    if (other.index === position.index || other.existing === 'blank' || other.existing === 'none') continue;
    const from = other.gang ?? other.index;
    for (let gang = from; gang < from + (other.width ?? 1); gang++) taken.add(gang);
  }
  const first = position.gang ?? position.index;
  let from = first;
  let to = first + (position.width ?? 1) - 1;
  while (from > 1 && !taken.has(from - 1)) from -= 1;
  while (to < box.enclosure.gangs && !taken.has(to + 1)) to += 1;
  return to - from + 1;
}

export function bodyRule(place: PlaceFacts, device: Device): readonly Reason[] {
  const { opening } = boxItself(place.box, place.known.job);
  if (!opening) return NO_REASONS;
  const gangs = Math.max(device.gangs, place.position.width ?? 1);
  const width = (opening.width * Math.min(gangs, place.box.enclosure.gangs)) / place.box.enclosure.gangs;
  if (device.body.width <= width + 1e-9 && device.body.height <= opening.height + 1e-9) return NO_REASONS;
  const facts = { width: device.body.width, height: device.body.height, freeWidth: rounded(width, 1), freeHeight: opening.height };
  return [{ rule: 'body', outcome: 'block', code: 'body.too-large', facts }];
}

export function depthRule(place: PlaceFacts, device: Device): readonly Reason[] {
  const figures = figuresInUse(place.known.job).clearance;
  const clearance = device.terminals.some((terminal) => terminal.form === 'lead') ? figures.leads : figures.terminals;
  const needed = device.body.depth + clearance;
  const { availableDepth } = boxItself(place.box, place.known.job);
  const facts = { body: device.body.depth, clearance, needed, available: availableDepth };
  if (availableDepth === null) return [{ rule: 'depth', outcome: 'unproved', code: 'depth.not-read', facts }];
  return needed > availableDepth + 1e-9 ? [{ rule: 'depth', outcome: 'block', code: 'depth.too-deep', facts }] : NO_REASONS;
}

/**
 * The box with this device in it and the others as selected, else as found. Devices alike to the count share one answer a place,
 * whatever the strategy: where their terminals go is told by the findings, not by it.
 */
export class FillAtPlace {
  private readonly answers = new Map<string, FillResult>();
  private readonly others: PlannedDevice[];
  private shared: { contents: BoxContents; largest: JointPlan['largest'] } | undefined;

  constructor(private readonly place: PlaceFacts) {
    this.others = plannedDevices(place.box, place.known).filter((entry) => entry.position.index !== place.position.index);
  }

  rule(device: Device): readonly Reason[] {
    const { practice } = this.place.known.job;
    if (practice !== 'us' && practice !== 'ca') return NO_REASONS;
    const key = signature(device, practice === 'ca');
    let result = this.answers.get(key);
    if (!result) {
      result = this.fillWith(device);
      this.answers.set(key, result);
    }
    if (result.verdict === 'ok') return NO_REASONS;
    const facts = {
      used: result.usedMl,
      capacity: result.capacityMl,
      over: result.remainingMl === null ? null : -result.remainingMl,
      method: result.method,
      units: unitsOf(practice),
    };
    if (result.verdict === 'over') return [{ rule: 'fill', outcome: 'block', code: 'fill.over', facts }];
    return [{ rule: 'fill', outcome: 'unproved', code: result.capacityMl === null ? 'fill.not-read' : 'fill.no-standing', facts }];
  }

  /** The whole plan, or the quick way where it is known to come to the same; a test compares the two. */
  fillWith(device: Device, quick = connectorsDoNotCount(this.place)): FillResult {
    const { box, known } = this.place;
    const planned = [...this.others, { position: this.place.position, device, selection: { strategy: 'single' as const } }];
    if (!quick) return fill(contentsAsPlanned(box, planned, known));
    // What is in the box beside the yokes is the same for every device here, and so is the largest conductor of each net.
    this.shared ??= { contents: contentsAsPlanned(box, planned, known), largest: planJoints(box, planned, known).largest };
    const terminals = new Map<string, NetName | undefined>();
    for (const plan of planned)
      for (const [terminal, net] of terminalNets(box, plan, known)) terminals.set(`${plan.position.index}.${terminal.id}`, net);
    return fill({ ...this.shared.contents, straps: strapsAsPlanned(box, planned, { terminals, largest: this.shared.largest }, known) });
  }
}

/** `us` counts connectors only as terminal blocks, since 2023; where none can come up, the joints of a plan do not matter to the count. */
function connectorsDoNotCount({ box, known }: PlaceFacts): boolean {
  const { job } = known;
  if (job.practice !== 'us') return false;
  if (!figuresInUse(job).fill?.terminalBlocksCount) return true;
  return !job.brief?.connectors?.includes('terminal-block') && box.joints.every((joint) => joint.connector !== 'terminal-block');
}

const signatures = new WeakMap<Device, string>();

/** What of a device the count depends on: its width, its terminals and channels, and in `ca` its depth. */
function signature(device: Device, byDepth: boolean): string {
  let text = signatures.get(device);
  if (text === undefined) {
    const terminals = device.terminals.map((terminal) =>
      [terminal.role, terminal.form, terminal.size, terminal.holds, terminal.channel, terminal.optional].join(','),
    );
    text = [
      device.mount,
      device.gangs,
      device.channels.map((channel) => `${channel.kind}${channel.ratings.map((rating) => rating.kinds.join('')).join()}`).join(),
      ...terminals,
    ].join(';');
    signatures.set(device, text);
  }
  return byDepth ? `${text};${device.body.depth}` : text;
}
