import { describe, expect, test } from '@jest/globals';
import { stopFindings } from '../findings/stop-sentences.js';
import type { Job } from '../job/schema/job.js';
import type { Box } from '../job/schema/survey.js';
import { looksLeft, nextLook, remaining, type SearchAnswer } from '../survey/breaker-search.js';
import { putBackList } from '../survey/put-back.js';
import { exampleJob } from '../test-support/examples.js';
import { circuitsThatMatter, proofOf, provedEvent } from './proof.js';

const at = (minute: number) => `2026-05-04T09:${String(minute).padStart(2, '0')}:00Z`;
const switched = (minute: number, circuitId: string, state: string) => ({
  id: `s${minute}${circuitId}`,
  kind: 'switched',
  circuitId,
  state,
  at: at(minute),
});
const proved = (minute: number, stage = 'device-out') => ({
  id: `p${minute}`,
  kind: 'proved',
  boxId: 'shed',
  stage,
  volts: 119,
  at: at(minute),
});

/** The shed is fed by c5 and c6; c9 feeds nothing anybody knows. */
function shed(events: Job['events'], change: (job: Job) => void = () => {}) {
  const job = { ...exampleJob('shed'), events };
  change(job);
  return proofOf(job.boxes[0] as Box, job);
}

describe('a proof of dead', () => {
  const off = [switched(1, 'c5', 'off'), switched(1, 'c6', 'off')];

  test('holds with all circuits off before it, and tells its stage and the tester’s volts', () => {
    expect(shed([...off, proved(2)])).toEqual({ stage: 'device-out', since: at(2), volts: 119, hinderedBy: [] });
    expect(shed([...off, proved(2, 'face')]).stage).toBe('face');
    expect(shed(off).stage).toBeNull();
  });

  test('needs both circuits of a box on two breakers', () => {
    expect(shed([switched(1, 'c5', 'off'), proved(2)])).toMatchObject({ stage: null, hinderedBy: [{ circuitId: 'c6', why: 'unknown' }] });
  });

  test('ends when any of its circuits goes on, and does not come back by switching off again', () => {
    expect(shed([...off, proved(2), switched(3, 'c6', 'on')])).toMatchObject({
      stage: null,
      hinderedBy: [{ circuitId: 'c6', why: 'on-since' }],
    });
    expect(shed([...off, proved(2), switched(3, 'c6', 'on'), switched(4, 'c6', 'off')]).stage).toBeNull();
    expect(shed([...off, proved(2), switched(3, 'c6', 'on'), switched(4, 'c6', 'off'), proved(5)]).stage).toBe('device-out');
  });

  test('ends when a circuit that shares a neutral, or one no box is known to be on, goes on', () => {
    const more = (job: Job) => {
      job.circuits.push(
        { ...(job.circuits[0] as Job['circuits'][number]), id: 'c7', sharesNeutralWith: ['c5'] },
        { ...(job.circuits[0] as Job['circuits'][number]), id: 'c9' },
      );
    };
    const job = exampleJob('shed');
    more(job);
    expect(circuitsThatMatter(job.boxes[0] as Box, job)).toEqual(['c5', 'c6', 'c7', 'c9']);
    expect(shed([...off, proved(2), switched(3, 'c7', 'on')], more).stage).toBeNull();
    expect(shed([...off, proved(2), switched(3, 'c9', 'on')], more).stage).toBeNull();
    expect(shed([switched(0, 'c9', 'on'), ...off, proved(2)], more).stage).toBe('device-out');
  });

  test('a correction takes it away and never makes one', () => {
    expect(shed([...off, proved(2), { kind: 'correction', of: 's1c5' }]).stage).toBeNull();
    expect(shed([...off, proved(2), { kind: 'correction', of: 'p2' }]).stage).toBeNull();
  });
});

describe('a proof made on a device of ours', () => {
  const off = [switched(1, 'c5', 'off'), switched(1, 'c6', 'off')];
  /** The shed proved dead by a device that knew these events, in a record that came to hold those. */
  function provedKnowing(knew: Job['events'], recorded: (proof: Job['events'][number]) => Job['events']) {
    const job = { ...exampleJob('shed'), events: knew };
    const proof = provedEvent(job.boxes[0] as Box, job, { id: 'p', at: at(5), stage: 'device-out', volts: 120 });
    expect(proof).not.toBeNull();
    return shed(recorded(proof as Job['events'][number])).stage;
  }

  test('holds while nothing is known that it did not know', () => {
    expect(provedKnowing(off, (proof) => [...off, proof])).toBe('device-out');
    const before = [switched(0, 'c5', 'on'), ...off];
    expect(provedKnowing(before, (proof) => [...before, proof])).toBe('device-out');
  });

  test('cannot be made while a circuit of the box is on, or not known to be off', () => {
    for (const events of [[], [switched(1, 'c5', 'off')], [...off, switched(2, 'c6', 'on')]]) {
      const job = { ...exampleJob('shed'), events };
      expect(provedEvent(job.boxes[0] as Box, job, { id: 'p', at: at(5), stage: 'face', volts: 120 })).toBeNull();
    }
  });

  test.each([
    ['later by the clock', 9],
    ['earlier by a clock that is slow', 0],
  ])('an "on" of another device withdraws it, %s and wherever it arrives', (_, minute) => {
    const on = switched(minute, 'c6', 'on');
    const offAgain = switched(minute + 1, 'c6', 'off');
    for (const recorded of [
      (proof: Job['events'][number]) => [on, ...off, proof],
      (proof: Job['events'][number]) => [...off, on, offAgain, proof],
      (proof: Job['events'][number]) => [...off, proof, on],
      (proof: Job['events'][number]) => [...off, proof, on, offAgain],
    ])
      expect(provedKnowing(off, recorded)).toBeNull();
  });

  test('a struck "off" withdraws it; a struck "on" of another device does not bring it back', () => {
    expect(provedKnowing(off, (proof) => [...off, proof, { kind: 'correction', of: 's1c5' }])).toBeNull();
    const on = switched(7, 'c6', 'on');
    expect(provedKnowing(off, (proof) => [...off, proof, on, { kind: 'correction', of: on.id }])).toBeNull();
  });
});

describe('which breaker is it', () => {
  test.each([2, 3, 7, 16])('of %i breakers it is found in as few looks as can be, whichever it is', (count) => {
    const ids = Array.from({ length: count }, (_, index) => `c${index}`);
    for (const truth of ids) {
      const answers: SearchAnswer[] = [];
      let off = new Set<string>();
      for (let look = nextLook(ids, answers, (id) => off.has(id)); look; look = nextLook(ids, answers, (id) => off.has(id))) {
        off = new Set(look.off);
        answers.push({ off: look.off, alive: !off.has(truth) });
      }
      expect(remaining(ids, answers)).toEqual([truth]);
      expect(answers.length).toBeLessThanOrEqual(looksLeft(ids, []));
    }
  });

  test('answers that contradict each other leave none: a box on two breakers', () => {
    expect(
      remaining(
        ['a', 'b'],
        [
          { off: ['a'], alive: true },
          { off: ['b'], alive: true },
        ],
      ),
    ).toEqual([]);
  });
});

test('the way back names every end once', () => {
  const box = exampleJob('galley').boxes[0] as Box;
  const list = putBackList(box);
  expect(list).toHaveLength(box.conductors.reduce((sum, conductor) => sum + (conductor.ends?.length ?? 1), 0));
  expect(list.map((line) => line.says)).toContain('black of Cable sink: to terminal b of position 1');
});

test('stop findings come from what was ticked and from what the conductors and the box show', () => {
  const box = exampleJob('pantry').boxes[0] as Box;
  expect(stopFindings(box)).toEqual([]);
  const first = { ...(box.conductors[0] as Box['conductors'][number]), material: 'aluminium' as const, insulation: 'cloth' as const };
  expect(
    stopFindings({ ...box, hazards: ['water'], conductors: [first], enclosure: { ...box.enclosure, material: 'metal', grounded: false } }),
  ).toEqual(['water', 'aluminium', 'cloth', 'unbonded-metal']);
});
