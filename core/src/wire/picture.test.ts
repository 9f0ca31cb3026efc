import { expect, test } from '@jest/globals';
import { lookup } from '../job/lookup.js';
import { Random } from '../test-support/random.js';
import { trueHouse } from '../test-support/true-house.js';
import { jointNumber } from './joint-number.js';
import { wiringPicture } from './picture.js';
import { wiringOfHouse } from './wiring.js';

test('a picture shows every conductor, terminal, joint and piece of the plan, each where the plan has it', () => {
  for (let seed = 1; seed <= 60; seed++) {
    const { job, name } = trueHouse(new Random(seed));
    const known = lookup(job);
    for (const wiring of wiringOfHouse(known, () => [])) {
      const { box, plan } = wiring;
      const { cables, panels, joints, pieces } = wiringPicture(wiring, known);
      const cores = cables.flatMap((cable) => cable.cores);
      expect([seed, name, cores.map((core) => core.name).sort()]).toEqual([
        seed,
        name,
        box.conductors.flatMap(({ id, cableId }) => (cableId === undefined ? [] : [id])).sort(),
      ]);
      expect(joints.map(({ id }) => id)).toEqual(plan.joints.map(({ id }) => id));
      expect(new Set(joints.map(({ number }) => number)).size).toBe(joints.length);
      const shown = new Set(
        [...cores, ...pieces, ...panels.flatMap(({ terminals }) => terminals)].map((end) => end.name),
      );
      for (const { members } of plan.joints) for (const member of members) expect(shown).toContain(member);
      for (const { id, members } of plan.joints) {
        const into = [
          ...cores.filter(({ to }) => to && 'joint' in to && to.joint === id),
          ...panels.flatMap(({ terminals }) =>
            terminals.filter(({ to, colour }) => colour !== null && to && 'joint' in to && to.joint === id),
          ),
          ...pieces.flatMap(({ from, to }) =>
            [from, to].filter((port) => 'joint' in port && port.joint === id),
          ),
        ];
        expect([seed, id, into.length]).toEqual([seed, id, members.length]);
      }
    }
  }
});

test('joints of the box as found keep their number, new ones count on', () => {
  const { job } = trueHouse(new Random(3));
  const known = lookup(job);
  const [wiring] = wiringOfHouse(known, () => []);
  if (!wiring) throw new Error('the house has a wiring');
  expect(wiring.box.joints.map(({ id }) => jointNumber(wiring, id))).toEqual(
    wiring.box.joints.map((_, at) => at + 1),
  );
  const fresh = wiring.plan.joints.filter(({ id }) => !wiring.box.joints.some((joint) => joint.id === id));
  for (const { id } of fresh) expect(jointNumber(wiring, id)).toBeGreaterThan(wiring.box.joints.length);
});
