import { instantOf } from '../job/events.js';
import { conductorsById } from '../job/lookup.js';
import { neutralFamilies } from '../job/neutral-families.js';
import { breakersKey, pointsKey, stanceKey } from '../job/readings.js';
import type { Circuit } from '../job/schema/job.js';
import type { Conductor, Reading } from '../job/schema/survey.js';
import { outcomeOfValue } from '../practice/instruments.js';
import { profileOf } from '../practice/profiles.js';
import { looksLikeGround } from '../practice/wire.js';
import type { BoxInstant } from './instant.js';
import { labelClashes } from './label-clashes.js';
import { isEarth } from './live-readings.js';
import { materialStops } from './material-stops.js';
import { smallConductors } from './small-conductors.js';
import type { Stop, StopCode } from './vocabulary.js';

/** A dead short to a meter, ohm: what is read at most between things that are one. */
const JOINED_OHMS = 1;

type Found = Pick<Stop, 'code'> & { conductorIds?: readonly string[]; circuitIds?: readonly string[] };

/**
 * Every stop of a box at an instant, ticked or derived, each code once; what was cleared and not shown again
 * is left out.
 */
export function stopsOf(at: BoxInstant): Stop[] {
  const standing = [
    ...(at.box.hazards ?? []).map((code): Found => ({ code })),
    ...fromMaterials(at),
    ...fromLabels(at),
    ...fromCircuits(at),
    ...tooSmall(at),
  ].filter(({ code }) => at.clearedAt(code) === null);
  const stops = new Map<StopCode, Stop>();
  for (const { code, conductorIds = [], circuitIds = [] } of [...standing, ...fromReadings(at)]) {
    const stop = stops.get(code) ?? { code, conductorIds: [], circuitIds: [] };
    stops.set(code, stop);
    stop.conductorIds.push(...conductorIds.filter((id) => !stop.conductorIds.includes(id)));
    stop.circuitIds.push(...circuitIds.filter((id) => !stop.circuitIds.includes(id)));
  }
  return [...stops.values()];
}

function fromMaterials({ box }: BoxInstant): Found[] {
  return box.conductors.flatMap((conductor) =>
    materialStops(conductor).map((code) => ({ code, conductorIds: [conductor.id] })),
  );
}

function fromLabels({ box, job }: BoxInstant): readonly Found[] {
  return labelClashes(box, job);
}

/** What the circuits of the circle are, and how they share neutrals. */
function fromCircuits({ job, circle }: BoxInstant): Found[] {
  const own = job.circuits.filter(({ id }) => circle.has(id));
  const found: Found[] = [];
  const seen = new Set<ReadonlySet<string>>();
  for (const circuit of own) {
    const family = neutralFamilies(job).of(circuit.id);
    if (family.size < 2 || seen.has(family)) continue;
    seen.add(family);
    const members = job.circuits.filter(({ id }) => family.has(id));
    const oneLeg = members.filter(
      (one) => one.leg && members.some((other) => other !== one && other.leg === one.leg),
    );
    if (oneLeg.length > 0) found.push({ code: 'one-leg', circuitIds: idsOf(oneLeg) });
    if (members.some(({ commonTrip }) => commonTrip === false))
      found.push({ code: 'no-common-trip', circuitIds: idsOf(members) });
  }
  const other = own.filter(({ source }) => source === 'inverter' || source === 'generator');
  if (other.length > 0) found.push({ code: 'other-source', circuitIds: idsOf(other) });
  return found;
}

const idsOf = (circuits: readonly Circuit[]) => circuits.map(({ id }) => id);

function tooSmall({ box, job }: BoxInstant): Found[] {
  const small = smallConductors(box, job);
  if (small.length === 0) return [];
  return [
    {
      code: 'conductor-too-small',
      conductorIds: small.map(({ conductorId }) => conductorId),
      circuitIds: [...new Set(small.map(({ circuitId }) => circuitId))],
    },
  ];
}

function fromReadings(at: BoxInstant): Found[] {
  return [...liveWhileOff(at), ...reversedPolarity(at), ...neutralOnEarth(at), ...contradiction(at)];
}

/** Readings that say anything of a hazard: those after it was last cleared. */
function readingsFor(
  { readings, clearedAt }: Pick<BoxInstant, 'readings' | 'clearedAt'>,
  code: StopCode,
): Reading[] {
  const cleared = clearedAt(code);
  return readings.readings.filter((reading) => cleared === null || instantOf(reading) > cleared);
}

/** Alive with every circuit of the box off, the source not found: with the breakers that could feed it. */
export function liveWhileOff(at: Pick<BoxInstant, 'job' | 'readings' | 'clearedAt' | 'stateOf'>): Found[] {
  const cleared = at.clearedAt('live-while-off');
  return at.readings.live
    .filter(({ source, at: instant }) => source === null && (cleared === null || instant > cleared))
    .map(({ reading, conductorIds }) => ({
      code: 'live-while-off' as const,
      conductorIds,
      circuitIds: at.job.circuits.flatMap(({ id }) =>
        reading.breakers?.[id] !== 'off' && at.stateOf(id) !== 'off' ? [id] : [],
      ),
    }));
}

/**
 * In a cable of two cores the one in the neutral's colour is alive to earth, and its partner is earth itself:
 * line and neutral are exchanged somewhere before.
 */
export function reversedPolarity(
  at: Pick<BoxInstant, 'box' | 'job' | 'readings' | 'clearedAt' | 'provedVolts'>,
): Found[] {
  const { box, job, provedVolts } = at;
  const readings = readingsFor(at, 'reversed-polarity');
  const toEarth = (id: string, is: (reading: Reading) => boolean) =>
    readings.some(
      (reading) =>
        reading.points.length === 2 &&
        reading.points.includes(id) &&
        reading.points.some((point) => point !== id && isEarth(box, point)) &&
        is(reading),
    );
  const alive = ({ tool, value, breakers }: Reading) =>
    (tool === 'volts' || tool === 'volts-low-z') &&
    outcomeOfValue(tool, value, profileOf(job), provedVolts) === 'supply' &&
    Object.values(breakers ?? {}).includes('on');
  const earthed = ({ tool, value }: Reading) =>
    tool === 'ohms' && typeof value === 'number' && value <= JOINED_OHMS;
  return box.cables.flatMap((cable): Found[] => {
    const cores = box.conductors.filter(
      (conductor) => conductor.cableId === cable.id && !looksLikeGround(conductor),
    );
    if (cores.length !== 2) return [];
    return cores.flatMap((core, index): Found[] => {
      const partner = cores[1 - index] as Conductor;
      if (!isNeutralColour(core, partner) || !toEarth(core.id, alive) || !toEarth(partner.id, earthed))
        return [];
      return [{ code: 'reversed-polarity', conductorIds: [core.id, partner.id] }];
    });
  });
}

/** White; blue, unless black is there to be the neutral; black beside red. */
function isNeutralColour({ colour }: Conductor, partner: Conductor): boolean {
  return (
    colour === 'white' ||
    (colour === 'blue' && partner.colour !== 'black') ||
    (colour === 'black' && partner.colour === 'red')
  );
}

/** Its breaker opens the neutral too, is off, and the neutral is earth all the same. */
function neutralOnEarth(at: BoxInstant): Found[] {
  const { box, job } = at;
  const isolating = job.circuits.filter(({ isolatesNeutral }) => isolatesNeutral);
  if (isolating.length === 0) return [];
  return readingsFor(at, 'neutral-ground-joined').flatMap(({ tool, value, breakers, points }): Found[] => {
    if (
      tool !== 'ohms' ||
      typeof value !== 'number' ||
      value > JOINED_OHMS ||
      !points.some((point) => isEarth(box, point))
    )
      return [];
    return points.flatMap((point): Found[] => {
      const circuitId = isEarth(box, point) ? null : at.neutralCircuitOf(point);
      const off = isolating.some(({ id }) => id === circuitId && breakers?.[id] === 'off');
      return circuitId && off
        ? [{ code: 'neutral-ground-joined', conductorIds: [point], circuitIds: [circuitId] }]
        : [];
    });
  });
}

/** One and the same test has given each of two outcomes twice. */
function contradiction(at: BoxInstant): Found[] {
  const { box, job, provedVolts } = at;
  const tests = new Map<string, { reading: Reading; outcomes: Map<string, number> }>();
  for (const reading of readingsFor(at, 'contradiction')) {
    const outcome = outcomeOfValue(reading.tool, reading.value, profileOf(job), provedVolts);
    if (outcome === null) continue;
    const key = [reading.tool, pointsKey(reading), stanceKey(reading), breakersKey(reading)].join('|');
    const test = tests.get(key) ?? { reading, outcomes: new Map<string, number>() };
    tests.set(key, test);
    test.outcomes.set(outcome, (test.outcomes.get(outcome) ?? 0) + 1);
  }
  return [...tests.values()].flatMap(({ reading, outcomes }): Found[] =>
    [...outcomes.values()].filter((count) => count >= 2).length >= 2
      ? [
          {
            code: 'contradiction',
            conductorIds: reading.points.filter((point) => conductorsById(box).has(point)),
          },
        ]
      : [],
  );
}
