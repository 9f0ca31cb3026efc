import type { Device } from '../../job/schema/catalogue.js';
import type { Role } from '../../job/schema/primitives.js';
import type { TerminalNeeds } from '../../loads/terminal-needs.js';
import { conductorWords } from '../../survey/conductor-names.js';
import { readingWords } from '../../survey/reading-words.js';
import type { PlaceFacts } from '../place.js';
import { NO_REASONS, type Reason } from '../reason.js';

export function practiceRule(place: PlaceFacts, device: Device): readonly Reason[] {
  const { practice } = place.known.job;
  if (device.practices.includes(practice)) return NO_REASONS;
  return [
    {
      rule: 'practice',
      outcome: 'block',
      code: 'practice.other',
      facts: { practice, made: device.practices },
    },
  ];
}

export function voltageRule(place: PlaceFacts, device: Device, needs: TerminalNeeds): readonly Reason[] {
  // A battery control may stand beside a joint of line and load; the mains is nothing to it.
  if (!needs.line || device.power === 'battery') return NO_REASONS;
  const [from = 0, to = 0] = device.volts;
  if (place.circuits.length === 0)
    return [{ rule: 'voltage', outcome: 'unproved', code: 'voltage.no-circuit', facts: { from, to } }];
  const outside = place.circuits.find((circuit) => circuit.volts < from || circuit.volts > to);
  if (!outside) return NO_REASONS;
  // With two circuits in question the wrong one may not be the one that feeds the place.
  const outcome = place.circuits.length > 1 ? 'unproved' : 'block';
  return [
    {
      rule: 'voltage',
      outcome,
      code: 'voltage.outside',
      facts: { volts: outside.volts, from, to, breaker: outside.breaker },
    },
  ];
}

export function neutralRule(place: PlaceFacts, _device: Device, needs: TerminalNeeds): readonly Reason[] {
  if (!needs.neutral) return NO_REASONS;
  const breaker = place.circuit?.breaker ?? null;
  switch (place.neutral) {
    case 'present':
      return NO_REASONS;
    case 'absent':
      return [{ rule: 'neutral', outcome: 'block', code: 'neutral.absent', facts: {} }];
    case 'other':
      return [{ rule: 'neutral', outcome: 'block', code: 'neutral.other-circuit', facts: { breaker } }];
    case 'untold':
      return [{ rule: 'neutral', outcome: 'unproved', code: 'neutral.circuit-untold', facts: { breaker } }];
    case 'by-traveler':
      return [{ rule: 'neutral', outcome: 'unproved', code: 'neutral.by-traveler', facts: {} }];
    case 'doubtful':
      return [
        {
          rule: 'neutral',
          outcome: 'block',
          code: 'neutral.doubtful',
          facts: doubtFacts(place, ['neutral']),
        },
      ];
    case 'unknown':
      return [{ rule: 'neutral', outcome: 'unproved', code: 'neutral.unknown', facts: {} }];
  }
}

export function groundRule(place: PlaceFacts, device: Device): readonly Reason[] {
  const need = device.needs.ground;
  if (need === 'none' || place.ground === 'present') return NO_REASONS;
  if (place.ground === 'doubtful')
    return [
      {
        rule: 'ground',
        outcome: need === 'required' ? 'block' : 'unproved',
        code: 'ground.doubtful',
        facts: doubtFacts(place, ['ground']),
      },
    ];
  if (place.ground === 'looks')
    return need === 'required'
      ? [{ rule: 'ground', outcome: 'unproved', code: 'ground.by-colour', facts: {} }]
      : NO_REASONS;
  if (place.ground === 'unknown')
    return [{ rule: 'ground', outcome: 'unproved', code: 'ground.unknown', facts: { need } }];
  return need === 'required'
    ? [{ rule: 'ground', outcome: 'block', code: 'ground.absent', facts: {} }]
    : [{ rule: 'ground', outcome: 'unproved', code: 'ground.local-code', facts: {} }];
}

export function lineLoadRule(place: PlaceFacts, device: Device, needs: TerminalNeeds): readonly Reason[] {
  const reasons: Reason[] = [];
  const add = (code: string, outcome: 'block' | 'unproved', facts: Reason['facts'] = {}) =>
    reasons.push({ rule: 'line-load', outcome, code: `line-load.${code}`, facts });
  const either = device.interchangeableLineLoad === true && needs.load;
  if (needs.line) {
    if (place.line === 'doubtful') add('line-doubtful', 'block', doubtFacts(place, ['line', 'line-on']));
    else if (place.line === 'absent') add('no-line', 'block');
    else if (place.line === 'unknown' && !either) add('line-unknown', 'unproved');
  }
  if (needs.load) {
    if (place.load === 'doubtful')
      add('load-doubtful', 'block', doubtFacts(place, ['load', 'switched-line']));
    else if (place.load === 'absent' && !(either && reasons.length > 0)) add('no-load', 'block');
    else if (place.load === 'unknown' && !either) add('load-unknown', 'unproved');
  }
  return reasons;
}

/**
 * Which label is doubtful, and what contradicts it: readings by their ids, else the labels it is joined with.
 */
function doubtFacts(place: PlaceFacts, roles: readonly Role[]): Reason['facts'] {
  const own = place.doubts.filter(({ label }) => roles.includes(label.role));
  const [first] = own;
  return {
    box: place.box.id,
    conductors: own.map(({ conductorId }) => conductorWords(place.box, conductorId, place.known.job)),
    against: first?.against ?? 'label',
    readings: own.flatMap(({ readingIds }) => readingIds),
    said: own.flatMap(({ readingIds }) =>
      readingIds.flatMap((id) => {
        const reading = place.box.readings.find((entry) => entry.id === id);
        return reading ? [readingWords(place.box, place.known, reading)] : [];
      }),
    ),
  };
}
