import { NO_REASONS, type Reason } from '../../findings/finding.js';
import type { Device } from '../../job/schema/catalogue.js';
import type { PlaceFacts } from '../place.js';
import type { TerminalNeeds } from '../terminal-needs.js';

export function practiceRule(place: PlaceFacts, device: Device): readonly Reason[] {
  const { practice } = place.known.job;
  if (device.practices.includes(practice)) return NO_REASONS;
  return [{ rule: 'practice', outcome: 'block', code: 'practice.other', facts: { practice, made: device.practices } }];
}

export function voltageRule(place: PlaceFacts, device: Device, needs: TerminalNeeds): readonly Reason[] {
  // A battery control may stand beside a joint of line and load; the mains is nothing to it.
  if (!needs.line || device.power === 'battery') return NO_REASONS;
  const [from = 0, to = 0] = device.volts;
  if (place.circuits.length === 0) return [{ rule: 'voltage', outcome: 'unproved', code: 'voltage.no-circuit', facts: { from, to } }];
  const outside = place.circuits.find((circuit) => circuit.volts < from || circuit.volts > to);
  if (!outside) return NO_REASONS;
  // With two circuits in question the wrong one may not be the one that feeds the place.
  const outcome = place.circuits.length > 1 ? 'unproved' : 'block';
  return [{ rule: 'voltage', outcome, code: 'voltage.outside', facts: { volts: outside.volts, from, to, breaker: outside.breaker } }];
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
    case 'unknown':
      return [{ rule: 'neutral', outcome: 'unproved', code: 'neutral.unknown', facts: {} }];
  }
}

export function groundRule(place: PlaceFacts, device: Device): readonly Reason[] {
  const need = device.needs.ground;
  if (need === 'none' || place.ground === 'present') return NO_REASONS;
  if (place.ground === 'looks')
    return need === 'required' ? [{ rule: 'ground', outcome: 'unproved', code: 'ground.by-colour', facts: {} }] : NO_REASONS;
  if (place.ground === 'unknown') return [{ rule: 'ground', outcome: 'unproved', code: 'ground.unknown', facts: { need } }];
  return need === 'required'
    ? [{ rule: 'ground', outcome: 'block', code: 'ground.absent', facts: {} }]
    : [{ rule: 'ground', outcome: 'unproved', code: 'ground.local-code', facts: {} }];
}

export function lineLoadRule(place: PlaceFacts, device: Device, needs: TerminalNeeds): readonly Reason[] {
  const reasons: Reason[] = [];
  if (needs.line && !(device.interchangeableLineLoad && needs.load)) {
    if (place.line === 'absent') reasons.push({ rule: 'line-load', outcome: 'block', code: 'line-load.no-line', facts: {} });
    else if (place.line === 'unknown') reasons.push({ rule: 'line-load', outcome: 'unproved', code: 'line-load.line-unknown', facts: {} });
  }
  if (needs.load && !device.interchangeableLineLoad) {
    if (place.load === 'absent') reasons.push({ rule: 'line-load', outcome: 'block', code: 'line-load.no-load', facts: {} });
    else if (place.load === 'unknown') reasons.push({ rule: 'line-load', outcome: 'unproved', code: 'line-load.load-unknown', facts: {} });
  }
  if (device.interchangeableLineLoad && needs.load && (place.line === 'absent' || place.load === 'absent'))
    reasons.push({
      rule: 'line-load',
      outcome: 'block',
      code: place.line === 'absent' ? 'line-load.no-line' : 'line-load.no-load',
      facts: {},
    });
  return reasons;
}
