import { nodeOf } from '../electrics/found-nets.js';
import { Joined } from '../electrics/joined.js';
import { labelsOf } from '../job/lookup.js';
import { neutralFamilies } from '../job/neutral-families.js';
import type { Job } from '../job/schema/job.js';
import type { At, Box, Label } from '../job/schema/survey.js';
import { looksLikeGround } from '../practice/wire.js';
import { KeptWhile, sameEntries } from '../units/kept.js';
import type { ConfirmedRole } from './instant.js';

/** Labels that cannot all be true of what hangs together. */
export interface LabelClash {
  code: 'contradiction' | 'borrowed-neutral' | 'neutral-ground-joined';
  conductorIds: string[];
  circuitIds: string[];
}

interface Member {
  id: string;
  label: Label | undefined;
  isGround: boolean;
}

/**
 * Where labels of joined conductors exclude each other. Joined: in one joint, under one screw, or on both
 * ends of a pigtail.
 *
 *     white "neutral" ──┐
 *     white "neutral" ──┼── j2        one net cannot be a neutral and carry the line on: contradiction
 *     white "line on" ──┘
 */
export function labelClashes(box: Box, job: Pick<Job, 'circuits'>): readonly LabelClash[] {
  return kept.of(box, [job.circuits], () => findClashes(box, job));
}

const kept = new KeptWhile<Box, readonly LabelClash[]>(sameEntries);

function findClashes(box: Box, job: Pick<Job, 'circuits'>): LabelClash[] {
  const found: LabelClash[] = [];
  const families = neutralFamilies(job);
  const lent = box.circuitIds.length === 1 ? box.circuitIds[0] : undefined;
  const circuitOf = (member: Member) => member.label?.circuitId ?? lent;
  for (const { members, onScrew } of joinedMembers(box)) {
    const told = members.filter(({ label }) => label !== undefined);
    const contradicting = told.filter((one) =>
      told.some((other) => exclude(one.label as Label, other.label as Label, lent)),
    );
    if (contradicting.length > 0)
      found.push({ code: 'contradiction', conductorIds: contradicting.map(({ id }) => id), circuitIds: [] });
    const neutrals = told.filter(({ label }) => label?.role === 'neutral');
    const apart = neutrals.filter((one) =>
      neutrals.some((other) => {
        const [a, b] = [circuitOf(one), circuitOf(other)];
        return a !== undefined && b !== undefined && !families.of(a).has(b);
      }),
    );
    if (apart.length > 0)
      found.push({
        code: 'borrowed-neutral',
        conductorIds: apart.map(({ id }) => id),
        circuitIds: [...new Set(apart.flatMap((member) => circuitOf(member) ?? []))],
      });
    const grounds = members.filter(({ isGround }) => isGround);
    if (neutrals.length > 0 && (grounds.length > 0 || onScrew))
      found.push({
        code: 'neutral-ground-joined',
        conductorIds: [...neutrals, ...grounds].map(({ id }) => id),
        circuitIds: [],
      });
  }
  return found;
}

/**
 * What is joined in the box as found, with the labels of its members; tails and jumpers join, caps do not.
 */
function joinedMembers(box: Box): { members: Member[]; onScrew: boolean }[] {
  const labels = labelsOf(box);
  const joined = new Joined();
  const node = (at: At): string | null => (at.capped ? null : nodeOf(at));
  for (const { ends } of box.conductors) {
    const [from, to] = (ends ?? []).map(node);
    if (from && to) joined.merge(from, to);
  }
  for (const position of box.positions)
    for (const lead of position.leads ?? []) {
      const at = node(lead.at);
      if (at) joined.merge(at, `terminal:${position.index}.${lead.terminal}`);
    }
  const groups = new Map<string, Member[]>();
  for (const conductor of box.conductors) {
    const told = labels.get(conductor.id);
    const label = told && told.role !== 'unknown' && told.role !== 'spare' ? told : undefined;
    const isGround = told && told.role !== 'unknown' ? told.role === 'ground' : looksLikeGround(conductor);
    const nodes = new Set(
      (conductor.ends ?? (conductor.at ? [conductor.at] : []))
        .flatMap((at) => node(at) ?? [])
        .map((at) => joined.find(at)),
    );
    for (const at of nodes)
      groups.set(at, [...(groups.get(at) ?? []), { id: conductor.id, label, isGround }]);
  }
  const screw = joined.find('box');
  return [...groups].map(([at, members]) => ({ members, onScrew: at === screw }));
}

type Net = 'line' | 'switched' | 'neutral' | 'ground' | 'traveler';

/** A switched line that comes back from the far switch stands with the load it feeds. */
const NET: Partial<Record<Label['role'], Net>> = {
  line: 'line',
  'line-on': 'line',
  load: 'switched',
  'switched-line': 'switched',
  neutral: 'neutral',
  ground: 'ground',
  traveler: 'traveler',
};

/**
 * Whether two labels cannot both stand in one net. Neutral with ground, and neutrals of two circuits, have
 * names of their own.
 */
function exclude(one: Label, other: Label, lent: string | undefined): boolean {
  const [a, b] = [NET[one.role], NET[other.role]];
  if (a === undefined || b === undefined) return false;
  if (a !== b) return !(['neutral', 'ground'].includes(a) && ['neutral', 'ground'].includes(b));
  const differ = (p: unknown, q: unknown) => p !== undefined && q !== undefined && p !== q;
  if (a === 'line') return differ(one.circuitId ?? lent, other.circuitId ?? lent);
  if (a === 'traveler') return differ(one.groupId, other.groupId) || differ(one.traveler, other.traveler);
  return false;
}

/** A label that readings confirm to be wrong. */
export interface RefutedLabel {
  conductorId: string;
  label: Label;
  confirmed: ConfirmedRole;
}

/**
 * Labels against what the readings confirm: another net, another load, another circuit. A traveler labelled
 * neutral is none: it says what the installer will make of it.
 */
export function refutedLabels(
  box: Box,
  job: Pick<Job, 'circuits'>,
  confirmed: ReadonlyMap<string, ConfirmedRole>,
): RefutedLabel[] {
  if (confirmed.size === 0) return [];
  return [...labelsOf(box).values()].flatMap((label) => {
    const role = confirmed.get(label.conductorId);
    return role && label.role !== 'unknown' && refutes(role, label, job)
      ? [{ conductorId: label.conductorId, label, confirmed: role }]
      : [];
  });
}

function refutes(confirmed: ConfirmedRole, label: Label, job: Pick<Job, 'circuits'>): boolean {
  if (confirmed.role === 'traveler' && label.role === 'neutral') return false;
  const [own, told] = [NET[confirmed.role], NET[label.role]];
  if (own !== told) return true;
  if (own === 'switched')
    return Boolean(
      label.loadIds?.length &&
        confirmed.loadIds.length > 0 &&
        !label.loadIds.some((id) => confirmed.loadIds.includes(id)),
    );
  if ((own !== 'line' && own !== 'neutral') || label.circuitId === undefined || confirmed.circuitId === null)
    return false;
  return own === 'line'
    ? label.circuitId !== confirmed.circuitId
    : !neutralFamilies(job).of(label.circuitId).has(confirmed.circuitId);
}
