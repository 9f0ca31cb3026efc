import type { Logged } from '../job/events.js';
import type { BoxInstant, RecordedProof } from './instant.js';
import type { Hinder, Stop } from './vocabulary.js';

/** A proof is too old to open work after this, ms. */
const TOO_OLD = 12 * 3600 * 1000;

/**
 * Everything that keeps a box from being proved, ended its proof, or keeps it from being worked on: each that
 * holds, once for each circuit or reading, whatever else holds.
 */
export function hindersOf(at: BoxInstant, stops: readonly Stop[]): Hinder[] {
  const hinders = [
    ...circuitStates(at),
    ...notProved(at),
    ...onsSince(at),
    ...unassigned(at),
    ...corrected(at),
    ...liveReadings(at),
    ...closedOrOld(at),
    ...(at.proof?.stage === 'face' ? [hinder('face-only')] : []),
    ...(stops.length > 0 ? [hinder('hazard')] : []),
  ];
  const seen = new Set<string>();
  return hinders.filter(({ code, circuitId, readingId }) => {
    const key = `${code}|${circuitId}|${readingId}`;
    return !seen.has(key) && seen.add(key);
  });
}

function hinder(
  code: Hinder['code'],
  circuitId: string | null = null,
  readingId: string | null = null,
): Hinder {
  return { code, circuitId, readingId };
}

function circuitStates({ box, circle, stateOf }: BoxInstant): Hinder[] {
  const own = new Set(box.circuitIds);
  return [...circle].flatMap((id): Hinder[] => {
    const state = stateOf(id);
    if (state === 'off') return [];
    return [
      hinder(
        own.has(id)
          ? state === 'on'
            ? 'circuit-on'
            : 'circuit-unknown'
          : state === 'on'
            ? 'neighbour-on'
            : 'neighbour-unknown',
        id,
      ),
    ];
  });
}

/** No proof; or what is off now was not off from before it, or is not named by it. */
function notProved({ box, proof, circle, stateOf, record }: BoxInstant): Hinder[] {
  const none = !proof || box.circuitIds.length === 0 ? [hinder('not-proved')] : [];
  if (!proof) return none;
  const untold = [...circle].filter((id) => {
    if (stateOf(id) !== 'off') return false;
    const unnamed = box.circuitIds.includes(id) && !proof.circuitIds.includes(id);
    return unnamed || !wasOffBefore(proof, id, record);
  });
  return [...none, ...untold.map((id) => hinder('not-proved', id))];
}

/**
 * Whether a circuit was off from before a proof: the "off" that the proof names stands. Where it names none,
 * the last switching before it that was not struck is off, by the clock and in the file both.
 */
function wasOffBefore(proof: RecordedProof, circuitId: string, record: BoxInstant['record']): boolean {
  const standing = record.standing('switched', circuitId);
  const named = proof.offs[circuitId];
  if (named !== undefined) return standing.some(({ event }) => event.id === named && event.state === 'off');
  const byTime = standing.filter((entry) => !isSince(entry, proof, 'clock')).at(-1);
  const inFile = standing
    .filter((entry) => entry.index < proof.index)
    .reduce<Logged | undefined>(
      (last, entry) => (last && last.index > entry.index ? last : entry),
      undefined,
    );
  return byTime?.event.state === 'off' && inFile?.event.state === 'off';
}

/**
 * Not earlier by the clock, or later in the file; by the clock alone, one at the same instant is later where
 * it stands later.
 */
function isSince(entry: Logged, proof: Logged, by: 'clock' | 'either'): boolean {
  if (by === 'clock') return entry.at === proof.at ? entry.index > proof.index : entry.at > proof.at;
  return entry.at >= proof.at || entry.index > proof.index;
}

/**
 * Every "on" since a proof or unknown to its prover, struck ones too: beyond the number that the proof
 * counts, else by clock and file.
 */
function onsUnknown({ proof, record }: BoxInstant, circuitId: string): Logged[] {
  if (!proof) return [];
  const ons = record.all('switched', circuitId).filter(({ event }) => event.state === 'on');
  const knew = proof.ons[circuitId];
  return knew === undefined ? ons.filter((on) => isSince(on, proof, 'either')) : ons.slice(knew);
}

function onsSince(at: BoxInstant): Hinder[] {
  return [...at.circle]
    .filter((id) => onsUnknown(at, id).some((on) => !at.record.isStruck(on)))
    .map((id) => hinder('on-unknown-to-prover', id));
}

/** Whoever struck the "on" of a stray breaker may have switched it all the same. */
function unassigned(at: BoxInstant): Hinder[] {
  return at.unassigned
    .filter((id) => at.stateOf(id) === 'on' || onsUnknown(at, id).length > 0)
    .map((id) => hinder('unassigned-on', id));
}

/** A breaker of no box that went on since the proof, and not as its prover knew: that ends the proof. */
export function strayUnknownToProver(at: BoxInstant): boolean {
  return at.unassigned.some((id) => onsUnknown(at, id).length > 0);
}

/** A correction can end a proof, never give one back. */
function corrected(at: BoxInstant): Hinder[] {
  const { box, proof, record, circle, unassigned } = at;
  const lastProved = record.all('proved', box.id).at(-1);
  const struckProof = lastProved !== undefined && record.isStruck(lastProved);
  const struckMounting =
    proof !== null &&
    record.all('mounted', box.id).some((entry) => record.isStruck(entry) && isSince(entry, proof, 'either'));
  const offs = Object.entries(proof?.offs ?? {}).flatMap(([circuitId, id]) => {
    const off = record.byId.get(id);
    return off && record.isStruck(off) ? [circuitId] : [];
  });
  const ons = [...circle, ...unassigned].filter((id) => onsUnknown(at, id).some((on) => record.isStruck(on)));
  return [
    ...(struckProof || struckMounting ? [hinder('corrected')] : []),
    ...[...offs, ...ons].map((id) => hinder('corrected', id)),
  ];
}

/** Each live reading that no proof follows, or whose source is neither found nor cleared. */
function liveReadings({ readings, proof, clearedAt }: BoxInstant): Hinder[] {
  const cleared = clearedAt('live-while-off');
  return readings.live
    .filter(
      ({ at, source }) =>
        !(proof && proof.at > at) || !(source !== null || (cleared !== null && cleared >= at)),
    )
    .map(({ reading, source }) => hinder('live-reading', source, reading.id));
}

function closedOrOld({ box, proof, record, whole }: BoxInstant): Hinder[] {
  if (!proof) return [];
  const closed = record.standing('mounted', box.id).some((entry) => isSince(entry, proof, 'either'));
  return [...(closed ? [hinder('closed')] : []), ...(whole.now - proof.at > TOO_OLD ? [hinder('old')] : [])];
}
