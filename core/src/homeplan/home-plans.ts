import { type JobLookup, lookup, placeKey } from '../job/lookup.js';
import type { Job } from '../job/schema/job.js';
import { type Cluster, clustersOf, withoutPlanned } from './clusters.js';
import { fewestFamilies } from './families.js';
import { admits } from './schools.js';
import { type Solved, solve, standingOn } from './solve.js';
import { plannedPlaces, unitsOf } from './units.js';
import { WhyUnserved } from './unserved.js';
import { type HousePlan, type PlanChoice, SCHOOLS, type School } from './vocabulary.js';

/** The house under each school. Prices and labour from the job's catalogue and money; minor units. */
export function homePlans(job: Job, schools: readonly School[] = SCHOOLS): HousePlan[] {
  const known = lookup(job);
  const planned = plannedPlaces(known);
  const standing = withoutPlanned(known, planned);
  const clusters = clustersOf(unitsOf(standing), standing);
  const cheapest = solve(clusters, () => true, standing);
  const why = new WhyUnserved(standing);
  return schools.map((school) =>
    planOf(school, solveSchool(school, clusters, cheapest, standing), clusters, standing, why),
  );
}

function solveSchool(
  school: School,
  clusters: readonly Cluster[],
  cheapest: Solved,
  known: JobLookup,
): Solved {
  switch (school) {
    case 'lowest-cost':
      return cheapest;
    case 'fewest-families':
      return fewestFamilies(clusters, cheapest, known);
    case 'one-mesh-hub': {
      const hubs = new Set(clusters.flatMap((cluster) => [...cluster.hubs]));
      const plans = ['', ...hubs].map((hub) => solve(clusters, (way) => admits(school, way, hub), known));
      return plans.reduce((best, plan) =>
        plan.served > best.served || (plan.served === best.served && plan.cost < best.cost) ? plan : best,
      );
    }
    default:
      return solve(clusters, (way) => admits(school, way), known);
  }
}

function planOf(
  school: School,
  solved: Solved,
  clusters: readonly Cluster[],
  known: JobLookup,
  why: WhyUnserved,
): HousePlan {
  const choices = choicesInOrder(solved, known);
  const taken = new Set(choices.map(({ boxId, position }) => placeKey(boxId, position)));
  const missing = clusters
    .flatMap((cluster) => cluster.units.flatMap((unit) => unit.places))
    .filter((place) => place.smart && !taken.has(placeKey(place.boxId, place.position)));
  const exact = solved.exact && clusters.every((cluster) => cluster.complete);
  return {
    school,
    ...costsOf(solved, known),
    served: solved.served,
    unserved: missing.map(({ boxId, position }) => ({
      boxId,
      position,
      why: why.rules(school, { boxId, position }, choices),
    })),
    choices,
    families: [...new Set(solved.ways.flatMap((way) => [...way.families]))].sort(),
    spares: sparesOf(choices, known),
    proof: exact ? 'optimal' : { gap: Math.max(0, Math.ceil((solved.cost - solved.bound) / 60)) },
  };
}

/** In the order of the file's boxes, then of positions. */
function choicesInOrder(solved: Solved, { job }: JobLookup): PlanChoice[] {
  const order = new Map(job.boxes.map((box, at) => [box.id, at]));
  const chosen = new Map(
    solved.ways.flatMap((way) =>
      way.choices.map((choice) => [placeKey(choice.boxId, choice.position), choice] as const),
    ),
  );
  return [...chosen.values()].sort(
    (a, b) => (order.get(a.boxId) ?? 0) - (order.get(b.boxId) ?? 0) || a.position - b.position,
  );
}

/** What a plan takes of money, time, hubs and the router; labour is rounded once, over the whole. */
function costsOf(
  { ways }: Solved,
  known: JobLookup,
): Pick<
  HousePlan,
  'total' | 'devices' | 'hubs' | 'parts' | 'labour' | 'labourMinutes' | 'hubIds' | 'router'
> {
  const { brief, money, catalogue } = known.job;
  const sum = (of: (way: Solved['ways'][number]) => number) =>
    ways.reduce((total, way) => total + of(way), 0);
  const used = catalogue.hubs.filter(({ id }) => ways.some((way) => way.onHub.has(id)));
  const bought = used.filter(({ id }) => !brief?.hubsOwned?.includes(id));
  const devices = sum((way) => way.devices);
  const parts = sum((way) => way.parts);
  const labourMinutes = sum((way) => way.minutes);
  const hubs = bought.reduce((total, hub) => total + hub.price, 0);
  const labour = Math.floor((labourMinutes * (money?.labourPerHour ?? 0)) / 60 + 0.5);
  return {
    total: devices + hubs + parts + labour,
    devices,
    hubs,
    parts,
    labour,
    labourMinutes,
    hubIds: used.map(({ id }) => id),
    router: {
      clients:
        (brief?.wifi?.clientsNow ?? 0) +
        standingOn(known).wifi +
        sum((way) => way.wifi) +
        bought.filter((hub) => !hub.wired).length,
      limit: brief?.wifi?.clientLimit ?? null,
    },
  };
}

/** As many of each model as the client wants to keep. */
function sparesOf(choices: readonly PlanChoice[], known: JobLookup): HousePlan['spares'] {
  const count = known.job.brief?.spares ?? 0;
  const models = [...new Set(choices.flatMap((choice) => choice.deviceId ?? []))];
  return count === 0
    ? []
    : models.map((deviceId) => ({
        deviceId,
        count,
        price: count * (known.devices.get(deviceId)?.price ?? 0),
      }));
}
