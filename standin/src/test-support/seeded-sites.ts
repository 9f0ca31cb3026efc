import {
  type Advice,
  type Cause,
  causesOf,
  type Evidence,
  type JoiningRemedy,
  type Look,
  nextAction,
  type Way,
} from '@inventario/core';
import { DEEDS, EYE, LISTS, LUCK, SAYS, STOPS } from '../behaviour.js';
import { HiddenTruth } from '../hidden.js';
import { Seeded } from '../random.js';

/** How often each cause stands in the way of a device of one site, and how often it is beyond help. */
export interface FaultDistribution {
  stands: Record<Way, Partial<Record<Cause, number>>>;
  beyondHelp: Partial<Record<Cause, number>>;
}

/** Sites differ: in one the password is forever mistyped, in another the walls are thick. */
function someDistribution(random: Seeded): FaultDistribution {
  const usual: Record<Way, Partial<Record<Cause, number>>> = {
    wifi: {
      'no-power': 0.02,
      broken: 0.015,
      'not-in-mode': 0.12,
      'mobile-data': 0.07,
      'needs-alternate': 0.05,
      'registered-elsewhere': 0.06,
      'wrong-band': 0.14,
      'wrong-password': 0.13,
      'weak-signal': 0.1,
      'router-full': 0.04,
    },
    hub: {
      'no-power': 0.02,
      broken: 0.015,
      'hub-missing': 0.02,
      'hub-closed': 0.15,
      'not-in-mode': 0.14,
      'needs-alternate': 0.03,
      'registered-elsewhere': 0.1,
      'weak-signal': 0.1,
      'hub-full': 0.03,
    },
  };
  const varied = (shares: Partial<Record<Cause, number>>) =>
    Object.fromEntries(
      Object.entries(shares).map(([cause, share]) => [
        cause,
        Math.min(0.6, share * 3 ** (2 * random.next() - 1)),
      ]),
    );
  return {
    stands: { wifi: varied(usual.wifi), hub: varied(usual.hub) },
    beyondHelp: {
      broken: 1,
      'registered-elsewhere': 0.25,
      'weak-signal': 0.25,
      'router-full': 0.3,
      'hub-full': 0.3,
      'hub-missing': 0.4,
    },
  };
}

export interface SeededDevice {
  way: Way;
  causes: Cause[];
  beyondHelp: ReadonlySet<Cause>;
}

/** The devices of one seeded site, each with what hides behind it. */
export function seededSite(
  seed: number,
  devices = 12,
): { distribution: FaultDistribution; devices: SeededDevice[] } {
  const random = new Seeded(seed);
  const distribution = someDistribution(random);
  return {
    distribution,
    devices: Array.from({ length: devices }, () => {
      const way: Way = random.chance(0.6) ? 'wifi' : 'hub';
      const causes = causesOf(way).filter((cause) => random.chance(distribution.stands[way][cause] ?? 0));
      const beyondHelp = causes.filter((cause) => random.chance(distribution.beyondHelp[cause] ?? 0));
      return { way, causes, beyondHelp: new Set(beyondHelp) };
    }),
  };
}

/** How one device ended: in the network, or put aside for a reason; with how many tries. */
export interface Ending {
  joined: boolean;
  attempts: number;
  looks: number;
  reason: Cause | null;
}

/** Follows the product's next best action to the end. */
export function followAdvice(device: SeededDevice, seed: number): Ending {
  const truth = new HiddenTruth(device.causes, device.beyondHelp, new Seeded(seed));
  const evidence: Evidence[] = [];
  let [attempts, looks] = [0, 0];
  for (let step = 0; step < 80; step += 1) {
    const advice: Advice = nextAction(device.way, evidence);
    if (advice.kind === 'park') return { joined: false, attempts, looks, reason: advice.reason };
    if (advice.kind === 'look') {
      looks += 1;
      evidence.push({ kind: 'looked', look: advice.look, bad: truth.look(advice.look) });
    } else if (advice.kind === 'do') {
      const came = truth.deed(advice.remedy);
      evidence.push({ kind: came, remedy: advice.remedy });
    } else {
      attempts += 1;
      const { seen } = truth.attempt();
      evidence.push({ kind: 'tried', seen });
      if (seen === 'joined') return { joined: true, attempts, looks, reason: null };
    }
  }
  throw new Error(`The advice for ${device.causes.join(' and ')} comes to no end`);
}

/**
 * One who knows how often each cause stands in the way at this site and how everything behaves. After a try
 * that failed it looks at everything at once, puts right what is likelier there than not, and whatever is
 * likeliest; it never takes what it cannot put right for an end before it has tried all it can.
 */
export function oracle(device: SeededDevice, distribution: FaultDistribution, seed: number): Ending {
  const truth = new HiddenTruth(device.causes, device.beyondHelp, new Seeded(seed));
  const causes = STOPS.filter((cause) => causesOf(device.way).includes(cause));
  let sets = subsets(causes, 3).map((set) => ({ set, p: setShare(set, causes, distribution, device.way) }));
  const weigh = (weight: (set: readonly Cause[]) => number) => {
    const weighed = sets.map(({ set, p }) => ({ set, p: p * weight(set) }));
    const sum = weighed.reduce((total, { p }) => total + p, 0);
    sets = weighed.map(({ set, p }) => ({ set, p: p / sum }));
  };
  const refused = new Set<Cause>();
  let [attempts, looks] = [0, 0];
  while (attempts < 12) {
    attempts += 1;
    const { seen } = truth.attempt();
    if (seen === 'joined') return { joined: true, attempts, looks, reason: null };
    weigh((set) => said(set, seen));
    const lookedAt = [...new Set(Object.keys(EYE))] as Exclude<Look, 'listed'>[];
    for (const look of lookedAt.filter((one) => causes.includes(EYE[one].cause))) {
      looks += 1;
      const bad = truth.look(look);
      weigh((set) => {
        const { cause, misses, imagines } = EYE[look];
        const isBad = set.includes(cause) ? 1 - misses : imagines;
        return bad ? isBad : 1 - isBad;
      });
    }
    const listed = !truth.look('listed');
    weigh((set) => (listed ? LISTS[set[0] ?? 'luck'] : 1 - LISTS[set[0] ?? 'luck']));
    const share = (cause: Cause) =>
      sets.reduce((sum, { set, p }) => (set.includes(cause) ? sum + p : sum), 0);
    const open = causes.filter((cause) => cause !== 'broken' && !refused.has(cause));
    const byShare = [...open].sort((a, b) => share(b) - share(a));
    const doing = byShare.filter((cause, rank) => share(cause) > 0.5 || (rank === 0 && share(cause) > 0.02));
    for (const cause of doing) {
      const remedy = Object.keys(DEEDS).find(
        (one) => DEEDS[one as JoiningRemedy]?.cause === cause,
      ) as JoiningRemedy;
      if (truth.deed(remedy) === 'cannot') refused.add(cause);
      else sets = without(sets, cause, DEEDS[remedy]?.works ?? 1);
    }
    const hopeless = causes.find((cause) => (refused.has(cause) || cause === 'broken') && share(cause) > 0.9);
    if (hopeless) return { joined: false, attempts, looks, reason: hopeless };
  }
  return { joined: false, attempts, looks, reason: null };
}

function subsets(causes: readonly Cause[], most: number): Cause[][] {
  const sets: Cause[][] = [[]];
  for (const cause of causes) for (const set of [...sets]) if (set.length < most) sets.push([...set, cause]);
  return sets;
}

function setShare(
  set: readonly Cause[],
  causes: readonly Cause[],
  { stands }: FaultDistribution,
  way: Way,
): number {
  return causes.reduce((p, cause) => {
    const share = stands[way][cause] ?? 0;
    return p * (set.includes(cause) ? share : 1 - share);
  }, 1);
}

function said(set: readonly Cause[], seen: keyof (typeof SAYS)['luck']): number {
  const shares = SAYS[set[0] ?? 'luck'];
  const sum = Object.values(shares).reduce((total, share) => total + share, 0);
  return ((shares[seen] ?? 0) / sum) * (set.length === 0 ? LUCK : 1);
}

function without(sets: { set: Cause[]; p: number }[], cause: Cause, works: number) {
  const merged = new Map<string, { set: Cause[]; p: number }>();
  for (const { set, p } of sets)
    for (const [left, share] of [
      [set.filter((one) => one !== cause), works],
      [set, 1 - works],
    ] as const) {
      const key = left.join();
      merged.set(key, {
        set: left,
        p: (merged.get(key)?.p ?? 0) + p * (set.includes(cause) ? share : left === set ? 0 : 1),
      });
    }
  return [...merged.values()];
}
