import { describe, expect, test } from '@jest/globals';
import { namesOf } from './commission/names/names.js';
import { dayNumber, instantText, wallText } from './commission/schedule/calendar.js';
import { scheduleOf } from './commission/schedule/schedule.js';
import { type PlaceInDoubt, placeInDoubtOf } from './diagnose/diagnose.js';
import { assessBoxes } from './enclosure/assess.js';
import { homePlans } from './homeplan/home-plans.js';
import { confirmedRoles } from './identify/confirmed.js';
import { identifyBox } from './identify/identify.js';
import { lookup } from './job/lookup.js';
import { againstChoice } from './match/against-choice.js';
import { matchJob } from './match/match.js';
import { latestInstant, powerOf } from './power/power.js';
import { bestSheet, type SheetBatch } from './runsheet/run-sheet.js';
import { EXAMPLES, exampleJob, expected } from './test-support/examples.js';
import { missingParts } from './test-support/part-of.js';
import { netName } from './wire/once-wired.js';
import { wiringOfHouse } from './wire/wiring.js';

describe.each(EXAMPLES)('the worked example %s', (name) => {
  const worked = expected(name);

  test.each(['fill', 'fill --planned'])('%s', (command) => {
    const printed = { boxes: assessBoxes(exampleJob(name), command === 'fill' ? 'found' : 'planned') };
    expect(missingParts(worked[command] ?? {}, printed)).toEqual([]);
  });

  for (const command of Object.keys(worked).filter((name) => name.startsWith('identify')))
    test(command, () => {
      const job = exampleJob(name);
      const known = lookup(job);
      const boxes = job.boxes
        .filter((box) => command.endsWith(`--box ${box.id}`))
        .map((box) => identifyBox(box, known));
      const grades = ['guess', 'indicated', 'confirmed'];
      const wanted = worked[command] as { boxes: { conductors: { id: string; grade?: string }[] }[] };
      // `grade` is the least it must be, except `guess`, which is exact.
      for (const [at, box] of wanted.boxes.entries())
        for (const conductor of box.conductors) {
          const printed = boxes[at]?.conductors.find((entry) => entry.id === conductor.id);
          if (
            printed &&
            conductor.grade &&
            conductor.grade !== 'guess' &&
            grades.indexOf(printed.grade) >= grades.indexOf(conductor.grade)
          )
            conductor.grade = printed.grade;
        }
      expect(missingParts(wanted, { boxes })).toEqual([]);
    });

  for (const command of Object.keys(worked).filter((name) => name.startsWith('diagnose')))
    test(command, () => {
      const seen = Object.fromEntries(
        [...command.matchAll(/--symptom (\w+)=(\S+)/g)].map(([, kind, value]) => [kind, value]),
      );
      const boxId = / --box (\S+)/.exec(command)?.[1] ?? '';
      const { place } = placeInDoubtOf({ boxId, position: 1 }, lookup(exampleJob(name))) ?? {};
      const { causes, stop } = (place as PlaceInDoubt).diagnosis({
        seen,
        readings: [],
      });
      const wanted = worked[command] as {
        shows: string[];
        contradicts: string[];
        causes: { cause: string; position?: number | null; predicts: Record<string, string> }[];
      };
      const predicted = (cause: string) => causes.filter((entry) => entry.cause === cause);
      for (const cause of wanted.shows) expect([cause, predicted(cause)[0]?.predicts]).toEqual([cause, seen]);
      const last = Math.max(...wanted.shows.map((cause) => causes.findIndex((one) => one.cause === cause)));
      for (const cause of wanted.contradicts)
        for (const entry of predicted(cause)) {
          expect([cause, entry.predicts]).not.toEqual([cause, seen]);
          expect([cause, causes.indexOf(entry) > last]).toEqual([cause, true]);
        }
      for (const { cause, predicts, ...rest } of wanted.causes) {
        const kinds = Object.keys(predicts).filter((kind) => kind in seen);
        const asked = Object.fromEntries(kinds.map((kind) => [kind, predicts[kind]]));
        expect(predicted(cause)[0]).toMatchObject({
          predicts: asked,
          ...('position' in rest ? { position: rest.position } : {}),
        });
      }
      expect(stop).toBe(false);
      expect(causes.reduce((sum, { probability }) => sum + probability, 0)).toBeCloseTo(1);
    });

  if (worked.runsheet)
    test('runsheet', () => {
      const { batches, ...printed } = bestSheet(lookup(exampleJob(name)));
      const { batches: wanted, ...rest } = worked.runsheet as { batches: SheetBatch[] };
      expect(missingParts(rest, printed)).toEqual([]);
      const asSets = (list: readonly SheetBatch[]) =>
        list
          .map(({ boxIds, circuitIds, panelTrips }) => ({
            boxIds: [...boxIds].sort(),
            circuitIds: [...circuitIds].sort(),
            panelTrips,
          }))
          .sort((one, other) => one.boxIds.join().localeCompare(other.boxIds.join()));
      expect(asSets(batches)).toEqual(asSets(wanted));
    });

  for (const command of Object.keys(worked).filter((name) => name.startsWith('power')))
    test(command, () => {
      const job = exampleJob(name);
      const known = lookup(job);
      const at = / --at (\S+)/.exec(command)?.[1];
      const printed = powerOf(job, {
        at: at === undefined ? (latestInstant(job) ?? 0) : Date.parse(at),
        confirmedOf: (box) => confirmedRoles(box, known),
      });
      const wanted = worked[command] as { boxes: { boxId: string; hinders: unknown[]; stops: unknown[] }[] };
      expect(missingParts(wanted, printed)).toEqual([]);
      // Hinders and stops are given whole.
      for (const { boxId, hinders, stops } of wanted.boxes) {
        const box = printed.boxes.find((entry) => entry.boxId === boxId);
        expect([boxId, box?.hinders.length, box?.stops.length]).toEqual([
          boxId,
          hinders.length,
          stops.length,
        ]);
      }
    });

  test('match', () => {
    expect(missingParts(worked.match ?? {}, { places: matchJob(exampleJob(name)) })).toEqual([]);
  });

  test('wire', () => {
    const known = lookup(exampleJob(name));
    const wirings = wiringOfHouse(known, againstChoice(known));
    for (const { boxId, nets, netsWithoutJoint = [], netsOneOf = [], proof } of wiresOf(worked.wire)) {
      const wiring = wirings.find((entry) => entry.boxId === boxId);
      const joints = new Set(wiring?.plan.joints.map(({ net }) => netName(net)));
      const landed = new Set(
        wiring?.plan.landed.flatMap(({ terminal }) => wiring.plan.terminals.get(terminal) ?? []).map(netName),
      );
      for (const net of nets) expect([net, joints.has(net) || landed.has(net)]).toEqual([net, true]);
      for (const net of nets.filter((entry) => !netsWithoutJoint.includes(entry)))
        expect([net, joints.has(net)]).toEqual([net, true]);
      if (netsOneOf.length > 0) expect(netsOneOf.some((net) => joints.has(net))).toBe(true);
      if (proof) expect([boxId, wiring?.ok, wiring?.findings]).toEqual([boxId, proof.ok, expect.anything()]);
    }
  });

  test('names, whole and in order', () => {
    const worked = (expected(name).names as { names: WorkedName[] } | undefined)?.names;
    if (!worked) return;
    const printed = namesOf(lookup(exampleJob(name)));
    expect(
      printed.map(({ findings, phrases, suggestion, ...rest }, at) => ({
        ...rest,
        findings: findings.map(({ code, platform, with: ids }) => ({ code, platform, with: ids })),
        phrases: phrases.map(({ platform, on, off }) => ({ platform, on, off })),
        ...(worked[at] && 'suggestion' in worked[at] ? { suggestion } : {}),
      })),
    ).toEqual(worked.map(({ working: _, ...entry }) => entry));
  });

  for (const command of Object.keys(worked).filter((entry) => entry.startsWith('schedule')))
    test(command, () => {
      const fromDay = dayNumber(/--from (\S+)/.exec(command)?.[1] ?? '') ?? 0;
      const toDay = fromDay + Number(/--days (\S+)/.exec(command)?.[1]);
      const printed = scheduleOf(lookup(exampleJob(name)), { fromDay, toDay });
      const wanted = worked[command] as Record<'days' | 'firings' | 'findings', { working?: string }[]>;
      expect(printed.days).toHaveLength(wanted.days.length);
      // The file has no rule of the sun within a minute of another, so the order is exact.
      expect(
        printed.firings.map(({ rule, at, wall, clock }) => ({
          automationId: rule.id,
          at: instantText(at),
          local: wallText(wall),
          clock,
        })),
      ).toEqual(wanted.firings.map(({ working: _, ...entry }) => entry));
      const inOrder = (entries: object[]) => entries.map((entry) => JSON.stringify(entry)).sort();
      expect(
        inOrder(
          printed.findings.map(({ code, automationIds, target, at, until }) => ({
            code,
            automationIds: [...automationIds].sort(),
            target,
            at: at === null ? null : instantText(at),
            until: until === null ? null : instantText(until),
          })),
        ),
      ).toEqual(inOrder(wanted.findings.map(({ working: _, ...entry }) => entry)));
    });

  test('homeplan', () => {
    expect(missingParts(worked.homeplan ?? {}, { plans: homePlans(exampleJob(name)) })).toEqual([]);
  });
});

interface WorkedName {
  findings: object[];
  phrases: object[];
  suggestion?: string | null;
  working?: string;
}

interface WorkedWire {
  boxId: string;
  nets: string[];
  netsWithoutJoint?: string[];
  netsOneOf?: string[];
  proof?: { ok: boolean };
}

const wiresOf = (worked: unknown): WorkedWire[] =>
  (worked as { boxes: WorkedWire[] } | undefined)?.boxes ?? [];

test('the comparison notices a wrong figure, a missing entry and a list that should be empty', () => {
  expect(missingParts({ a: 1 }, { a: 1.02 })).toHaveLength(1);
  expect(missingParts({ list: [{ id: 'x' }] }, { list: [{ id: 'y' }] })).toHaveLength(1);
  expect(missingParts({ list: [] }, { list: [1] })).toHaveLength(1);
});
