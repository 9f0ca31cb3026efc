import { expect, test } from '@jest/globals';
import { lookup } from '../job/lookup.js';
import type { Job, JobEvent } from '../job/schema/job.js';
import { powerOf } from '../power/power.js';
import { provedEvent } from '../power/prove.js';
import { GATES } from '../power/vocabulary.js';
import { bareStep } from '../test-support/bare-step.js';
import { exampleJob } from '../test-support/examples.js';
import { plainPower } from '../test-support/plain-power.js';
import { Random } from '../test-support/random.js';
import { stepHinders, wiredEvent } from '../wire/progress.js';
import { type BoxToRun, batchStands } from './batch-steps.js';
import { asideEvent, batchEvent, batchInHand, holdEvent, holderOf } from './site-record.js';

const START = Date.parse('2026-05-04T08:00:00Z');

/** A phone with what it knows: what the server had when they last spoke, and what it has not sent. */
interface Phone {
  id: string;
  events: JobEvent[];
  unsent: JobEvent[];
  online: boolean;
  /** Its clock is wrong by so many minutes. */
  off: number;
}

const STEPS = [
  bareStep('prove', 'open', 'prove:open'),
  bareStep('open-joint', 'neutral', 'open-joint:neutral'),
  bareStep('joint', 'open', 'joint:open'),
  bareStep('test', 'energise', 'test:energise'),
  bareStep('prove-again', 'open', 'prove-again:open'),
  bareStep('plate', 'open', 'plate:open'),
];

/** Two phones on one job, each now and then without network, at work as far as their gates let them. */
class Site {
  readonly server: JobEvent[] = [];
  readonly phones: Phone[] = ['one', 'two'].map((id, at) => ({
    id,
    events: [],
    unsent: [],
    online: true,
    off: at * 2,
  }));
  readonly job = withoutLabels();
  private minute = 0;
  private serial = 0;
  readonly opened = new Map<string, number>();
  taken = 0;

  constructor(private readonly random: Random) {}

  turn(): void {
    const { random } = this;
    const phone = random.pick(this.phones);
    this.minute += random.int(0, 2);
    if (random.chance(0.08)) phone.online = !phone.online;
    else this.act(phone);
    this.meet(this.phones.filter(({ online }) => online));
  }

  /** What each has not sent is sent, and all of it is known to these. */
  meet(phones = this.phones): void {
    for (const phone of [...phones, ...phones]) this.speak(phone);
  }

  private speak(phone: Phone): void {
    this.server.push(...phone.unsent);
    phone.unsent = [];
    phone.events = [...this.server];
  }

  jobOf(phone: Phone): Job {
    return { ...this.job, events: [...phone.events, ...phone.unsent] };
  }

  now(): number {
    return START + this.minute * 60_000;
  }

  private made(phone: Phone) {
    this.serial += 1;
    return {
      id: `${phone.id}-${this.serial}`,
      at: new Date(this.now() + phone.off * 60_000).toISOString(),
      by: phone.id,
    };
  }

  /** Something a pair of hands would do, or a slip of them; what a gate keeps shut is not done. */
  private act(phone: Phone): void {
    const { random } = this;
    const job = this.jobOf(phone);
    const box = random.pick(job.boxes);
    const made = this.made(phone);
    const say = (event: JobEvent) => phone.unsent.push(event);
    const power = powerOf(job, { now: this.now() });
    const own = power.boxes.find(({ boxId }) => boxId === box.id) as (typeof power.boxes)[number];
    const circuit = random.pick(job.circuits);
    switch (random.int(0, 9)) {
      case 0:
        return void say({ ...made, kind: 'switched', circuitId: circuit.id, state: 'on' });
      case 1:
      case 2:
        return void say({ ...made, kind: 'switched', circuitId: circuit.id, state: 'off' });
      case 3:
      case 4: {
        const proof = provedEvent(box, job, own, {
          ...made,
          stage: random.chance(0.8) ? 'device-out' : 'face',
          volts: 119,
          voltsAfter: 119,
          under5: [],
        });
        if (proof) say(proof);
        return;
      }
      case 5:
        this.work(phone, made);
        return;
      case 6: {
        const last = phone.unsent.at(-1) ?? random.pick(job.events);
        if (last?.id && random.chance(0.3)) say({ ...made, kind: 'correction', of: last.id });
        return;
      }
      case 7: {
        const holder = holderOf(job, box.id);
        if (holder === null) {
          say(holdEvent('taken', box.id, made));
          this.taken += 1;
        } else if (holder === phone.id) say(holdEvent('left', box.id, made));
        return;
      }
      case 8:
        if (random.chance(0.3))
          say(
            batchEvent(
              job.boxes.slice(0, 3).map(({ id }) => id),
              made,
            ),
          );
        else if (random.chance(0.2)) say(asideEvent(box.id, 'a core is too short', made));
        return;
      default:
        if (random.chance(0.2) && own.gates.open) say({ ...made, kind: 'mounted', boxId: box.id });
    }
  }

  /** The step the run proposes, if its gate is open. */
  private work(phone: Phone, made: { id: string; at: string }): void {
    const job = this.jobOf(phone);
    const power = powerOf(job, { now: this.now() });
    const boxes: BoxToRun[] = (batchInHand(job)?.boxIds ?? []).map((boxId) => ({
      boxId,
      steps: STEPS,
      ready: true,
    }));
    const { next } = batchStands({ boxes, known: lookup(job), power, by: phone.id });
    if (next.kind === 'wire') {
      const holder = holderOf(job, next.boxId);
      expect([null, phone.id]).toContain(holder);
      const own = power.boxes.find(({ boxId }) => boxId === next.boxId);
      if (own && stepHinders(next.step, { job, power: own, circuits: power.circuits }) === null)
        phone.unsent.push(wiredEvent(next.boxId, next.step, made));
    }
    if (next.kind === 'switch')
      for (const circuitId of next.circuitIds)
        phone.unsent.push({
          ...made,
          id: `${made.id}-${circuitId}`,
          kind: 'switched',
          circuitId,
          state: next.to,
        });
  }
}

/** What is known of a box by its wires is another test's affair. */
function withoutLabels(): Job {
  const job = exampleJob('sail-loft');
  for (const box of job.boxes) {
    box.labels = [];
    box.readings = [];
  }
  return { ...job, boxes: job.boxes.slice(0, 3), events: [], photos: [] };
}

test('ten thousand steps of two phones: no gate is open that the plain rules close on what is known', () => {
  const opened = new Map<string, number>();
  const wrong: string[] = [];
  let [offline, taken] = [0, 0];
  for (let seed = 1; seed <= 100; seed++) {
    const site = new Site(new Random(seed));
    for (let turn = 0; turn < 100; turn++) {
      site.turn();
      for (const phone of site.phones) {
        // With network a phone knows all there is; without, what it knows is all it can go by.
        const job = site.jobOf(phone);
        const power = powerOf(job, { now: site.now() });
        if (!phone.online) offline += 1;
        else if (job.events.length !== site.server.length) wrong.push(`seed ${seed}, turn ${turn}: not sent`);
        for (const box of job.boxes) {
          const own = power.boxes.find(({ boxId }) => boxId === box.id);
          const plain = plainPower(job, box, site.now()).gates;
          for (const gate of GATES) {
            if (!own?.gates[gate]) continue;
            if (!plain[gate]) wrong.push(`seed ${seed}, turn ${turn}: ${gate} of ${box.id}, ${phone.id}`);
            opened.set(gate, (opened.get(gate) ?? 0) + 1);
          }
          for (const entry of STEPS) {
            const hinders = own && stepHinders(entry, { job, power: own, circuits: power.circuits });
            const isLook = entry.kind === 'test';
            if (hinders === null && entry.gate && !isLook && !plain[entry.gate])
              wrong.push(`seed ${seed}, turn ${turn}: ${entry.key} of ${box.id}, ${phone.id}`);
          }
        }
      }
    }
    // What both did without each other comes to one record, read alike by both.
    site.meet();
    const [one, two] = site.phones.map((phone) => powerOf(site.jobOf(phone), { now: site.now() }));
    expect(one).toEqual(two);
    taken += site.taken;
  }
  expect(wrong).toEqual([]);
  for (const gate of GATES) expect(opened.get(gate) ?? 0).toBeGreaterThan(100);
  expect(offline).toBeGreaterThan(2000);
  expect(taken).toBeGreaterThan(100);
});

test('a box taken by both without network is held by whoever is first in the record', () => {
  const events: JobEvent[] = [
    holdEvent('taken', 'bench', { id: 'a', at: '2026-05-04T09:05:00Z', by: 'one' }),
    holdEvent('taken', 'bench', { id: 'b', at: '2026-05-04T09:01:00Z', by: 'two' }),
  ];
  expect(holderOf({ events }, 'bench')).toBe('one');
  const left = holdEvent('left', 'bench', { id: 'c', at: '2026-05-04T09:06:00Z', by: 'two' });
  expect(holderOf({ events: [...events, left] }, 'bench')).toBe('one');
  const mine = holdEvent('left', 'bench', { id: 'd', at: '2026-05-04T09:07:00Z', by: 'one' });
  expect(holderOf({ events: [...events, mine] }, 'bench')).toBeNull();
  const aside = asideEvent('bench', '', { id: 'e', at: '2026-05-04T09:07:00Z' });
  expect(holderOf({ events: [...events, aside] }, 'bench')).toBeNull();
  const struck: JobEvent = { id: 'f', kind: 'correction', of: 'a' };
  expect(holderOf({ events: [...events, struck] }, 'bench')).toBe('two');
});
