import { describe, expect, test } from '@jest/globals';
import { lookup } from '../../job/lookup.js';
import type { Job } from '../../job/schema/job.js';
import type { Box, Reading } from '../../job/schema/survey.js';
import { exampleJob } from '../../test-support/examples.js';
import { hiddenBox } from '../../test-support/hidden-box.js';
import { Random } from '../../test-support/random.js';
import { identifyBox } from '../identify.js';
import { problemOf } from '../problem/problem.js';
import { ROLES } from '../problem/vocabulary.js';
import { bestWithRole, type Entry, type Posterior, posteriorOf } from '../weighing/posterior.js';

/** A worked example's first box with other readings. */
function box(name: string, readings: Partial<Reading>[], change: (job: Job, box: Box) => void = () => {}) {
  const job = exampleJob(name);
  const own = job.boxes[0] as Box;
  own.readings = readings.map((reading, at) => ({
    id: `r${at}`,
    at: `2026-05-04T10:${String(at).padStart(2, '0')}:00Z`,
    tool: 'ohms',
    arrangement: 'device-out',
    position: 1,
    breakers: Object.fromEntries(own.circuitIds.map((id) => [id, 'off'])),
    points: [],
    value: 'open',
    ...reading,
  })) as Reading[];
  change(job, own);
  return { job, box: own, result: identifyBox(own, lookup(job)) };
}
const of = (result: ReturnType<typeof identifyBox>, id: string) => {
  const found = result.conductors.find((entry) => entry.id === id);
  if (!found) throw new Error(`no conductor ${id}`);
  return found;
};

describe('what was found wrong by hand', () => {
  test('a lamp’s wire to a known earth reads its filament, and that is no conflict', () => {
    // 3 x 13 W at 120 V: 369 ohm at work, 31 cold.
    const { result } = box('pantry', [{ points: ['pantry-lamps-black', 'reference'], value: 31 }]);
    expect(result.conflicts).toEqual([]);
    expect(of(result, 'pantry-lamps-black')).toMatchObject({ role: 'load' });
    // A dead line with whatever is left on along it could read so too.
    expect(of(result, 'pantry-lamps-black').probability).toBeGreaterThan(0.6);
  });

  test('a reference is proved through a chain: earth to ground, ground to box, box to neutral', () => {
    const metal = (_: Job, own: Box) => {
      own.enclosure = { ...own.enclosure, material: 'metal', grounded: true };
    };
    const chain = [
      { points: ['pantry-feed-bare', 'reference'], value: 0.3 },
      { points: ['pantry-feed-bare', 'box'], value: 0.2 },
      { points: ['pantry-feed-white', 'box'], value: 0.3 },
      { points: ['pantry-feed-white', 'box'], value: 0.3, loads: { 'l-pantry': 'out' } },
    ];
    expect(of(box('pantry', chain, metal).result, 'pantry-feed-white')).toMatchObject({
      role: 'neutral',
      grade: 'confirmed',
    });
    // A link of it missing, nothing is proved.
    expect(of(box('pantry', chain.slice(1), metal).result, 'pantry-feed-white').grade).not.toBe('confirmed');
  });

  test('a ground that reads open to a lamp behind a driver is a ground all the same', () => {
    const { result } = box(
      'pantry',
      [{ points: ['pantry-feed-bare', 'pantry-lamps-black'], value: 'open' }],
      (job) => {
        Object.assign(job.loads[0] as object, { kind: 'led' });
      },
    );
    expect(of(result, 'pantry-feed-bare')).toMatchObject({ role: 'ground' });
    expect(of(result, 'pantry-feed-bare').probability).toBeGreaterThan(0.99);
  });

  test('an open neutral is as expected where its breaker opens it', () => {
    const isolating = (job: Job) => {
      for (const circuit of job.circuits) circuit.isolatesNeutral = true;
    };
    const readings: Partial<Reading>[] = [
      { tool: 'indicator', points: ['pantry-feed-black'], value: 'alert', breakers: { c4: 'on' } },
      { points: ['pantry-feed-white', 'reference'], value: 'open' },
      { points: ['pantry-feed-white', 'reference'], value: 'open' },
    ];
    expect(box('pantry', readings, isolating).result.conflicts).toEqual([]);
    expect(of(box('pantry', readings, isolating).result, 'pantry-feed-white').role).toBe('neutral');
  });

  test('a live reading and the one that finds its breaker are two tests, not a contradiction', () => {
    const job = exampleJob('cellar');
    const sump = job.boxes.find(({ id }) => id === 'sump') as Box;
    expect(identifyBox(sump, lookup(job)).conflicts).toEqual([]);
  });

  test('two under one screw are a line carried on before they are loads', () => {
    const { result } = box('pantry', [], (_, own) => {
      own.cables.push({ id: 'more' });
      const [feed] = own.conductors as [Box['conductors'][number]];
      own.conductors.push(
        { ...feed, id: 'more-black', cableId: 'more' },
        { ...feed, id: 'more-white', cableId: 'more', colour: 'white', at: { joint: 'pantry-jw' } },
      );
    });
    for (const id of ['pantry-feed-black', 'more-black']) {
      const share = (role: string) =>
        of(result, id).role === role
          ? of(result, id).probability
          : (of(result, id).alternatives.find((entry) => entry.role === role)?.probability ?? 0);
      expect(share('line') + share('line-on')).toBeGreaterThan(0.8);
      expect(share('load')).toBeLessThan(0.1);
    }
  });

  test('the first test in an unread box is a look with the indicator, and one sweep answers it', () => {
    const { job, box: own, result } = box('pantry', []);
    expect(result.next[0]).toMatchObject({
      tool: 'indicator',
      arrangement: 'device-out',
      position: 1,
      breakers: { c4: 'on' },
      why: { code: 'first-look' },
    });
    const sweep = own.conductors
      .filter(({ colour }) => colour !== 'bare')
      .map(({ id }, at) => ({
        id: `s${at}`,
        at: '2026-05-04T10:00:00Z',
        tool: 'indicator',
        arrangement: 'device-out',
        position: 1,
        breakers: { c4: 'on' },
        points: [id],
        value: id === 'pantry-feed-black' ? 'alert' : 'quiet',
      }));
    const read = { ...own, readings: sweep as Reading[] };
    const after = identifyBox(read, lookup({ ...job, boxes: [read] }));
    expect(of(after, 'pantry-feed-black')).toMatchObject({ role: 'line', grade: 'indicated' });
    expect(after.next.every(({ why }) => why.code !== 'first-look')).toBe(true);
  });

  test('a test once made is not proposed again because a switch of another position was named beside it, or none was', () => {
    const first = (switches: Reading['switches']) => {
      const shed = exampleJob('shed');
      const own = shed.boxes[0] as Box;
      own.readings = [];
      const look = (readings: Reading[]) =>
        identifyBox({ ...own, readings }, lookup({ ...shed, boxes: [{ ...own, readings }] }));
      const [next] = look([]).next;
      if (!next) throw new Error('an unread box has a test to make');
      const made = {
        id: 'made',
        at: '2026-05-04T10:00:00Z',
        tool: next.tool,
        arrangement: next.arrangement,
        position: next.position ?? undefined,
        breakers: next.breakers,
        ...(switches ? { switches } : {}),
        points: next.points,
        value: 'alert',
      } as Reading;
      return look([made]).next.filter(
        ({ tool, arrangement, points }) =>
          tool === made.tool && arrangement === made.arrangement && points.join() === made.points.join(),
      );
    };
    const beside: Reading['switches'][] = [undefined, {}, { '2': 'on' }, { '1': 'off', '2': 'off' }];
    for (const switches of beside) expect(first(switches)).toEqual([]);
  });

  test('a cable that stands alone names a device that can be taken out, and is asked once', () => {
    const spare = (readings: Partial<Reading>[]) =>
      box('pantry', readings, (_, own) => {
        own.cables.push({ id: 'alone' });
        own.conductors.push({
          id: 'alone-red',
          cableId: 'alone',
          size: '14AWG',
          colour: 'red',
          at: { capped: true },
        });
      });
    const proposed = (result: ReturnType<typeof identifyBox>) =>
      result.next.filter(({ points }) => points.includes('alone-red'));
    const [next] = proposed(spare([]).result);
    expect(next).toMatchObject({ arrangement: 'device-out', position: 1 });
    const again = spare([
      { tool: 'indicator', points: ['alone-red'], value: 'quiet', breakers: { c4: 'on' }, position: 1 },
    ]);
    expect(proposed(again.result).filter(({ tool }) => tool === 'indicator')).toEqual([]);
  });

  test('more conductors than any usual cable has: what is left out is said', () => {
    const { result } = box('pantry', [], (_, own) => {
      own.cables.push({ id: 'pipe' });
      for (let at = 0; at < 9; at++)
        own.conductors.push({
          id: `pipe-${at}`,
          cableId: 'pipe',
          size: '14AWG',
          colour: 'black',
          at: { capped: true },
        });
    });
    expect(result.notes.map(({ code }) => code)).toContain('cap-reached');
  });
});

test('the best explanation that gives a conductor a role is the best of all that do, however hopeless', () => {
  for (const seed of [3, 4, 5, 6]) {
    const hidden = hiddenBox(new Random(seed), 'us', 1, true);
    const steps = identifyBox(hidden.box, lookup(hidden.job)).next.slice(0, 4);
    const read = { ...hidden.box, readings: steps.map((next, at) => hidden.answer(next, `m${at}`)) };
    const { problem, wiring } = problemOf(
      read,
      lookup({ ...hidden.job, boxes: [read, ...hidden.job.boxes.slice(1)] }),
    );
    const posterior = posteriorOf(problem, wiring) as Posterior;
    const all = posterior.enumeration.explanations.map((explanation) => {
      const evaluated = posterior.likelihood.evaluate(explanation);
      return { explanation, merit: evaluated ? explanation.prior * evaluated.best.weight : 0 };
    });
    problem.cores.forEach((_, core) => {
      for (const role of ROLES) {
        const own = all.filter(
          ({ explanation }) => explanation.classes[core] !== undefined && roleIs(explanation, core, role),
        );
        const found: Entry | null = bestWithRole(posterior, core, role);
        if (own.length === 0) expect(found).toBeNull();
        else expect(found?.merit).toBeCloseTo(Math.max(...own.map(({ merit }) => merit)), 12);
      }
    });
  }
});

function roleIs(explanation: Entry['explanation'], core: number, role: (typeof ROLES)[number]): boolean {
  const name = explanation.classes[core];
  const neutral = name === 'neutral-in' || name === 'neutral-out' || name === 'return';
  return role === 'neutral' ? neutral : name === role;
}
