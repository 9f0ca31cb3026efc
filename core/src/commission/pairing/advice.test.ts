import { describe, expect, test } from '@jest/globals';
import { Random } from '../../test-support/random.js';
import { nextAction } from './advice.js';
import {
  beliefFrom,
  causeShares,
  chanceOfBad,
  chanceOfJoining,
  type Evidence,
  firstBelief,
  updated,
} from './belief.js';
import {
  CAUSE_FACTS,
  CAUSES,
  LOOK_FACTS,
  LOOKS,
  type Look,
  REMEDY_FACTS,
  type Remedy,
  SEEN,
  type Way,
} from './causes.js';
import { causeOfRemedy, causesOf, chanceOfSeeing } from './chances.js';

const WAYS: Way[] = ['wifi', 'hub'];

function someEvidence(random: Random, way: Way, length: number): Evidence[] {
  const remedies = causesOf(way).map((cause) => CAUSE_FACTS[cause].remedy);
  const looks = LOOKS.filter((look) => look === 'listed' || causesOf(way).includes(LOOK_FACTS[look].cause));
  return Array.from(
    { length },
    (): Evidence =>
      random.pick<() => Evidence>([
        () => ({ kind: 'tried', seen: random.pick(SEEN.filter((seen) => seen !== 'joined')) }),
        () => ({ kind: 'looked', look: random.pick(looks), bad: random.chance(0.4) }),
        () => ({ kind: 'done', remedy: random.pick(remedies) }),
        () => ({ kind: 'cannot', remedy: random.pick(remedies) }),
      ])(),
  );
}

describe('the tables', () => {
  test('every row of what a try comes to sums to 1, and every cause has a remedy of its own', () => {
    for (const cause of [null, ...CAUSES])
      expect(SEEN.reduce((sum, seen) => sum + chanceOfSeeing(cause, seen), 0)).toBeCloseTo(1, 10);
    expect(new Set(CAUSES.map((cause) => CAUSE_FACTS[cause].remedy)).size).toBe(CAUSES.length);
    for (const cause of CAUSES) expect(causeOfRemedy(CAUSE_FACTS[cause].remedy)).toBe(cause);
    expect(causeOfRemedy('again')).toBeNull();
  });
});

/** All explanations spelled out, weighed by the words of the tables; shares no code with the belief. */
function plainShares(way: Way, evidence: readonly Evidence[]) {
  const causes = CAUSES.filter((cause) => CAUSE_FACTS[cause].ways.includes(way));
  const prior = (cause: (typeof CAUSES)[number]) => CAUSE_FACTS[cause].prior[way] ?? 0;
  let worlds: { has: Set<string>; p: number }[] = [];
  for (const one of [null, ...causes])
    for (const other of [null, ...causes]) {
      if (one === null && other !== null) continue;
      if (one !== null && other !== null && causes.indexOf(other) <= causes.indexOf(one)) continue;
      const has = new Set([one, other].filter((cause) => cause !== null));
      const p = causes.reduce(
        (product, cause) => product * (has.has(cause) ? prior(cause) : 1 - prior(cause)),
        1,
      );
      worlds.push({ has, p });
    }
  let seenLast: string | null = null;
  const first = (has: Set<string>) => causes.find((cause) => has.has(cause)) ?? null;
  const sees = (has: Set<string>, seen: (typeof SEEN)[number]) =>
    (first(has) ? 1 : 0.07) * chanceOfSeeing(first(has), seen);
  for (const entry of evidence) {
    if (entry.kind === 'tried') {
      seenLast = entry.seen;
      worlds = worlds.map(({ has, p }) => ({ has, p: p * sees(has, entry.seen) }));
    } else if (entry.kind === 'looked') {
      const bad = (has: Set<string>) => {
        if (entry.look === 'listed') {
          const stop = first(has);
          return 1 - (stop === null ? 0.4 : CAUSE_FACTS[stop].listed);
        }
        const { cause, hit, falseAlarm } = LOOK_FACTS[entry.look];
        return has.has(cause) ? hit : falseAlarm;
      };
      worlds = worlds.map(({ has, p }) => ({ has, p: p * (entry.bad ? bad(has) : 1 - bad(has)) }));
    } else if (entry.kind === 'done') {
      const cause = CAUSES.find((one) => CAUSE_FACTS[one].remedy === entry.remedy) ?? '';
      worlds = worlds.flatMap(({ has, p }) => {
        if (!has.has(cause)) return [{ has, p }];
        const left = new Set([...has].filter((one) => one !== cause));
        const { works } = REMEDY_FACTS[entry.remedy];
        return [
          { has: left, p: p * works },
          { has, p: p * (1 - works) },
        ];
      });
    }
  }
  const sum = worlds.reduce((total, { p }) => total + p, 0);
  return {
    seenLast,
    shareOf: (cause: string) =>
      worlds.reduce((total, { has, p }) => (has.has(cause) ? total + p : total), 0) / sum,
  };
}

describe('the belief', () => {
  test.each(Array.from({ length: 30 }, (_, seed) => seed))(
    'is that of all explanations spelled out, seed %i',
    (seed) => {
      const random = new Random(seed);
      const way = random.pick(WAYS);
      const evidence = someEvidence(random, way, random.int(0, 8));
      const plain = plainShares(way, evidence);
      for (const { cause, p } of causeShares(beliefFrom(firstBelief(way), evidence)))
        expect([cause, Math.abs(p - plain.shareOf(cause)) < 1e-9]).toEqual([cause, true]);
    },
  );

  test('the chance of joining after a remedy is that of the belief it leads to', () => {
    const random = new Random(7);
    for (let round = 0; round < 40; round += 1) {
      const way = random.pick(WAYS);
      const belief = beliefFrom(firstBelief(way), someEvidence(random, way, 5));
      for (const cause of causesOf(way)) {
        const { remedy } = CAUSE_FACTS[cause];
        const after = updated(belief, { kind: 'done', remedy });
        expect(chanceOfJoining(belief, remedy)).toBeCloseTo(chanceOfJoining(after, 'again'), 10);
      }
      for (const look of LOOKS) expect(chanceOfBad(belief, look)).toBeLessThanOrEqual(1);
    }
  });
});

describe('the next best action', () => {
  const first = (evidence: Evidence[], way: Way = 'wifi') => nextAction(way, evidence);

  test('a device nobody tried: is its light the right one? Then it is tried', () => {
    expect(first([])).toMatchObject({ kind: 'look', look: 'light' });
    const looked: Evidence[] = LOOKS.filter((look) => look !== 'listed').map((look) => ({
      kind: 'looked',
      look,
      bad: false,
    }));
    expect(first(looked)).toMatchObject({ kind: 'try' });
  });

  test('what is known beforehand counts: a phone on the wrong band is put right before the first try', () => {
    expect(nextAction('wifi', [], { 'wrong-band': 0.95 })).toMatchObject({ kind: 'do', remedy: 'join-24' });
    expect(nextAction('hub', [], { 'hub-closed': 0.97 })).toMatchObject({
      kind: 'do',
      remedy: 'open-hub',
    });
  });

  test.each<[string, Evidence[], Way, Remedy | Look]>([
    [
      'a refused password is looked at or typed anew',
      [{ kind: 'tried', seen: 'refused' }],
      'wifi',
      'type-password',
    ],
    ['one that is owned elsewhere is released', [{ kind: 'tried', seen: 'owned' }], 'hub', 'release'],
    ['a hub without room is given some', [{ kind: 'tried', seen: 'full' }], 'hub', 'free-hub'],
    [
      'lost, and named by the router: the phone left the network',
      [{ kind: 'tried', seen: 'lost', listed: true }],
      'wifi',
      'data-off',
    ],
    [
      'nothing found through a hub: does the hub listen?',
      [{ kind: 'tried', seen: 'not-found' }],
      'hub',
      'hub-open',
    ],
  ])('%s', (_name, evidence, way, wanted) => {
    const advice = first(evidence, way);
    expect(advice.kind === 'do' ? advice.remedy : advice.kind === 'look' ? advice.look : advice.kind).toBe(
      wanted,
    );
  });

  test('what cannot be put right here ends it, with that as the reason', () => {
    const evidence: Evidence[] = [
      { kind: 'tried', seen: 'owned' },
      { kind: 'cannot', remedy: 'release' },
    ];
    expect(first(evidence)).toMatchObject({ kind: 'park', reason: 'registered-elsewhere' });
  });

  describe('a device that nothing finds, whatever is done', () => {
    /** Follows the advice to its end, with tries that find nothing. */
    const follow = (way: Way, replacing: 'done' | 'cannot') => {
      const evidence: Evidence[] = [];
      for (let step = 0; step < 120; step += 1) {
        const advice = nextAction(way, evidence);
        if (advice.kind === 'park') return { evidence, reason: advice.reason };
        if (advice.kind === 'look') evidence.push({ kind: 'looked', look: advice.look, bad: false });
        else if (advice.kind === 'try') evidence.push({ kind: 'tried', seen: 'not-found' });
        else
          evidence.push({
            kind: advice.remedy === 'replace' ? replacing : 'done',
            remedy: advice.remedy,
          });
      }
      throw new Error('The advice comes to no end');
    };
    const replacedAt = (evidence: readonly Evidence[]) =>
      evidence.findIndex(
        (entry) => entry.kind !== 'tried' && entry.kind !== 'looked' && entry.remedy === 'replace',
      );

    test.each(WAYS)('another unit is asked for; without one it is put aside as broken: %s', (way) => {
      const { evidence, reason } = follow(way, 'cannot');
      expect(replacedAt(evidence)).toBeGreaterThan(0);
      expect(reason).toBe('broken');
    });

    test.each(WAYS)('where another is not found either, it was not the unit: %s', (way) => {
      const { evidence } = follow(way, 'done');
      const since = evidence.slice(0, replacedAt(evidence) + 1);
      const after = nextAction(way, [...since, { kind: 'tried', seen: 'not-found' }]);
      expect(after.causes[0]?.cause).not.toBe('broken');
    });
  });

  test('the same advice never comes twice without a change, and comes to an end', () => {
    const random = new Random(11);
    for (let round = 0; round < 60; round += 1) {
      const way = random.pick(WAYS);
      const evidence: Evidence[] = [];
      let given: string[] = [];
      let ended = false;
      for (let step = 0; step < 120 && !ended; step += 1) {
        const advice = nextAction(way, evidence);
        const name = JSON.stringify([
          advice.kind,
          advice.kind === 'do' ? advice.remedy : advice.kind === 'look' ? advice.look : '',
        ]);
        // A second try without a change is the one repetition that tells something.
        const before = given.filter((one) => one === name).length;
        expect([name, before]).toEqual([name, advice.kind === 'try' ? Math.min(before, 1) : 0]);
        given.push(name);
        if (advice.kind === 'park') ended = true;
        else if (advice.kind === 'try') {
          evidence.push({ kind: 'tried', seen: random.pick(SEEN.slice(0, 6)) });
          // The list of clients may say something else after every try.
          given = given.filter((one) => !one.includes('listed'));
        } else if (advice.kind === 'look') {
          const bad = random.chance(0.3);
          evidence.push({ kind: 'looked', look: advice.look, bad });
          // What looks bad again after it was put right is a change.
          if (bad) given = [];
        } else {
          const cannot = random.chance(0.2);
          evidence.push({ kind: cannot ? 'cannot' : 'done', remedy: advice.remedy });
          if (!cannot) given = [name];
        }
      }
      expect(ended).toBe(true);
    }
  });
});
