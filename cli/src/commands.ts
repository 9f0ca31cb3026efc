import {
  againstChoice,
  assessBox,
  type Box,
  type BoxWiring,
  confirmedRoles,
  conflictWords,
  ESTIMATE_NOTE,
  fillLineWords,
  GATES,
  hinderText,
  homePlans,
  identifyBox,
  Job,
  labelProblems,
  latestInstant,
  lookup,
  matchBox,
  nearMisses,
  netName,
  netWords,
  nextTestWhy,
  noteWords,
  type Problem,
  powerOf,
  readJobFile,
  ruleNote,
  sentence,
  settling,
  stopText,
  wiringFindingWords,
  wiringOfBox,
  wiringOfHouse,
} from '@inventario/core';
import { z } from 'zod';
import { UnusableError } from './arguments.js';
import { table } from './table.js';

/** What a command prints: the document, and a table of it for people. */
export interface Output {
  json: unknown;
  /** @param width of the terminal */
  text: (width: number) => string;
}

export function check(text: string): Output {
  const result = readJobFile(text);
  if (!result.ok && result.unusable) throw firstError(result.problems);
  const problems = [
    ...result.problems,
    ...(result.ok ? [...labelProblems(result.job), ...nearMisses(result.job)] : []),
  ];
  const ok = !problems.some((problem) => problem.severity === 'error');
  return {
    json: { ok, problems },
    text: (width) =>
      problems.length === 0
        ? 'ok'
        : `${ok ? 'ok, with warnings' : 'not ok'}\n${table(
            ['severity', 'path', 'message'],
            problems.map((problem) => [problem.severity, problem.path || '""', problem.message]),
            width,
          )}`,
  };
}

export function fill(text: string, boxId: string | undefined, planned: boolean): Output {
  const { job, boxes } = usable(text, boxId);
  const known = lookup(job);
  const results = boxes.map((box) => assessBox(box, known, planned ? 'planned' : 'found'));
  const note = ruleNote(job);
  return {
    json: { boxes: results.map((result) => ({ ...result, note })) },
    text: (width) =>
      [
        ...results.flatMap((result) => [
          `${result.boxId}: ${result.verdict} (${result.method})`,
          table(
            ['allowance', 'clause', 'count', 'each mL', 'mL'],
            result.lines.map((line) => [fillLineWords(line), line.clause, line.count, line.eachMl, line.ml]),
            width,
          ),
          `used ${result.usedMl ?? '-'} of ${result.capacityMl ?? '-'} mL, remaining ` +
            `${result.remainingMl ?? '-'} mL`,
          `depth: needs ${result.depth.neededMm} of ${result.depth.availableMm ?? '-'} mm, ` +
            `${result.depth.verdict}; packing ${result.packing.occupancy ?? '-'}, ` +
            `${result.packing.verdict}. ${ESTIMATE_NOTE}`,
          '',
        ]),
        note,
      ].join('\n'),
  };
}

export function identify(text: string, boxId: string | undefined): Output {
  const { job, boxes } = usable(text, boxId);
  const known = lookup(job);
  const results = boxes.map((box) => {
    const result = identifyBox(box, known);
    return {
      ...result,
      conflicts: result.conflicts.map((conflict) => ({
        ...conflict,
        message: conflictWords(box, known, conflict),
      })),
      next: result.next.map((next) => ({ ...next, why: nextTestWhy(box, known, next) })),
      notes: result.notes.map((note) => ({ ...note, message: noteWords(note) })),
    };
  });
  return {
    json: { boxes: results },
    text: (width) =>
      results
        .map((result) =>
          [
            result.boxId,
            table(
              ['conductor', 'role', 'p', 'grade', 'loads', 'circuit'],
              result.conductors.map((conductor) => [
                conductor.id,
                conductor.role,
                conductor.probability.toFixed(4),
                conductor.grade,
                conductor.loadIds.join(' '),
                conductor.circuitId,
              ]),
              width,
            ),
            ...result.conflicts.map((conflict) => conflict.message),
            ...result.notes.map((note) => note.message),
            ...(result.next[0]
              ? [`next: ${result.next[0].tool} ${result.next[0].points.join(' to ')}. ${result.next[0].why}`]
              : []),
          ].join('\n'),
        )
        .join('\n\n'),
  };
}

export function match(text: string, boxId: string | undefined): Output {
  const { job, boxes } = usable(text, boxId);
  const known = lookup(job);
  const places = boxes
    .flatMap((box) => matchBox(box, known))
    .map((place) => ({
      ...place,
      devices: place.devices.map((candidate) => ({
        ...candidate,
        reasons: candidate.reasons.map((reason) => ({
          rule: reason.rule,
          outcome: reason.outcome,
          text: sentence(reason, job.practice),
          facts: reason.facts,
          ...(settling(reason) ? { settledBy: settling(reason)?.says } : {}),
        })),
      })),
    }));
  return {
    json: { places },
    text: (width) =>
      places
        .map(
          (place) =>
            `${place.boxId}, position ${place.position}\n${table(
              ['device', 'strategy', 'verdict', 'why'],
              place.devices.map((device) => [
                device.deviceId,
                device.strategy,
                device.verdict,
                device.reasons.map((reason) => reason.text).join(' '),
              ]),
              width,
            )}`,
        )
        .join('\n\n'),
  };
}

/** The plans are of the whole house; with a box, only what they choose there is listed. */
export function homeplan(text: string, boxId: string | undefined): Output {
  const { job, boxes } = usable(text, boxId);
  const listed = new Set(boxes.map((box) => box.id));
  const plans = homePlans(job).map((plan) => ({
    ...plan,
    choices: plan.choices.filter((choice) => listed.has(choice.boxId)),
    unserved: plan.unserved.filter((place) => listed.has(place.boxId)),
  }));
  return {
    json: { plans },
    text: (width) =>
      plans
        .map((plan) =>
          [
            `${plan.school}: ${plan.total} (devices ${plan.devices}, hubs ${plan.hubs}, ` +
              `parts ${plan.parts}, labour ${plan.labour}), ` +
              (plan.proof === 'optimal' ? 'optimal' : `at most ${plan.proof.gap} over the least`),
            table(
              ['box', 'position', 'device', 'strategy', 'with'],
              plan.choices.map((choice) => [
                choice.boxId,
                choice.position,
                choice.deviceId ?? 'stays',
                choice.strategy,
                choice.with.join(' '),
              ]),
              width,
            ),
            ...plan.unserved.map(
              (place) => `${place.boxId}, position ${place.position}: nothing, because of ${place.why}`,
            ),
          ].join('\n'),
        )
        .join('\n\n'),
  };
}

/** @param at ms; absent: the latest instant of the file */
export function power(text: string, boxId: string | undefined, at: number | undefined): Output {
  const { job, boxes } = usable(text, boxId);
  const known = lookup(job);
  const instant = at ?? latestInstant(job);
  const { circuits, boxes: all } = powerOf(job, {
    ...(instant === null ? {} : { at: instant }),
    confirmedOf: (box) => confirmedRoles(box, known),
  });
  const listed = boxes.map((box) => {
    const power = all.find((entry) => entry.boxId === box.id) as (typeof all)[number];
    return {
      ...power,
      hinders: power.hinders.map((hinder) => ({ ...hinder, message: hinderText(hinder, box, job) })),
      stops: power.stops.map((stop) => ({ ...stop, message: stopText(stop, box, job) })),
    };
  });
  return {
    json: { circuits, boxes: listed },
    text: (width) =>
      [
        table(
          ['circuit', 'state', 'since'],
          circuits.map(({ circuitId, state, since }) => [circuitId, state, since ?? '-']),
          width,
        ),
        ...listed.map((box) =>
          [
            `${box.boxId}: dead ${box.dead}${box.since === null ? '' : ` since ${box.since}`}`,
            `open gates: ${GATES.filter((gate) => box.gates[gate]).join(', ') || 'none'}`,
            ...box.stops.map((stop) => `stop, ${stop.code}: ${stop.message}`),
            ...box.hinders.map((hinder) => `${hinder.code}: ${hinder.message}`),
          ].join('\n'),
        ),
      ].join('\n\n'),
  };
}

export function wire(text: string, boxId: string | undefined): Output {
  const { job, boxes } = usable(text, boxId);
  const known = lookup(job);
  const against = againstChoice(known);
  const [only] = boxId === undefined ? [] : boxes;
  const one = only && job.selections.some((selection) => selection.boxId === only.id);
  const wirings = only
    ? one
      ? [wiringOfBox(only, known, against)].flatMap((wiring) => wiring ?? [])
      : []
    : wiringOfHouse(known, against);
  const printed = wirings.map((wiring) =>
    wiringAsPrinted(wiring, (finding) => wiringFindingWords(wiring, finding, known)),
  );
  return {
    json: { boxes: printed },
    text: (width) =>
      printed
        .map((wiring) =>
          [
            `${wiring.boxId}: ${wiring.ready ? 'ready' : wiring.proof.ok ? 'proved' : 'not ready'}`,
            table(
              ['joint', 'net', 'members', 'connector'],
              wiring.joints.map((joint) => [
                joint.id,
                netWords(joint.net, known),
                joint.members.join(' '),
                joint.connectorId ?? 'none',
              ]),
              width,
            ),
            ...wiring.made.map(
              ({ id, kind, from, to, size, length }) =>
                `${kind} ${id}, ${size}, ${length} mm: ${from} to ${to}`,
            ),
            ...wiring.landed.map(({ terminal, conductorId }) => `${conductorId} on ${terminal}`),
            `capped: ${wiring.capped.join(' ') || 'none'}; kept: ${wiring.kept.join(' ') || 'none'}; ` +
              `removed: ${wiring.removed.join(' ') || 'none'}`,
            ...wiring.atFitting.map(({ loadId, partId }) => `${partId} at the fitting of ${loadId}`),
            ...wiring.proof.findings.map(({ severity, message }) => `${severity}: ${message}`),
          ].join('\n'),
        )
        .join('\n\n'),
  };
}

/** The plan of a box as it is printed: nets by their names, each end where it stands. */
function wiringAsPrinted(
  { boxId, plan, findings, ok, ready }: BoxWiring,
  words: (finding: BoxWiring['findings'][number]) => string,
) {
  return {
    boxId,
    joints: plan.joints.map(({ id, net, members, connector }) => ({
      id,
      net: netName(net),
      members,
      connectorId: connector?.id ?? null,
    })),
    made: plan.made.map(({ id, kind, from, to, size, length }) => ({ id, kind, from, to, size, length })),
    landed: plan.landed,
    capped: plan.capped,
    kept: plan.kept.map(({ conductorId }) => conductorId),
    removed: plan.removed,
    atFitting: plan.wired.atFitting,
    ready,
    proof: {
      ok,
      findings: findings.map((finding) => ({
        severity: finding.severity,
        code: finding.code,
        message: words(finding),
        about: finding.about,
        position: finding.position,
      })),
    },
  };
}

export function schema(): Output {
  const json = z.toJSONSchema(Job, { io: 'input', unrepresentable: 'any' });
  return { json, text: () => JSON.stringify(json, null, 2) };
}

export function usable(text: string, boxId: string | undefined): { job: Job; boxes: readonly Box[] } {
  const result = readJobFile(text);
  if (!result.ok) throw firstError(result.problems);
  const { job } = result;
  if (boxId === undefined) return { job, boxes: job.boxes };
  const box = job.boxes.find((candidate) => candidate.id === boxId);
  if (!box) throw new UnusableError('/boxes', `has no box with the id "${boxId}"`);
  return { job, boxes: [box] };
}

function firstError(problems: readonly Problem[]): UnusableError {
  const error = problems.find((problem) => problem.severity === 'error');
  return new UnusableError(error?.path ?? '', error?.message ?? 'cannot be used');
}
