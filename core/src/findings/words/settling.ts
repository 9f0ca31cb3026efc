import type { Role } from '../../job/schema/primitives.js';
import type { Reason } from '../../match/reason.js';

/**
 * What would settle a finding that is not proved yet: a test that tells a role, or a thing that somebody has
 * to record.
 */
export type Settling =
  | { by: 'test'; role: Role; says: string }
  | { by: 'record'; where: 'box' | 'position' | 'load' | 'circuit' | 'signal' | 'partner'; says: string };

const test = (role: Role, says: string): Settling => ({ by: 'test', role, says });
const record = (where: Extract<Settling, { by: 'record' }>['where'], says: string): Settling => ({
  by: 'record',
  where,
  says,
});

const SETTLED_BY: Record<string, Settling> = {
  'neutral.unknown': test(
    'neutral',
    'Supply volts on a low-impedance meter from the proved line, or at most 1 ohm to a proved reference, loads excluded.',
  ),
  'hazard.stop': record('box', 'Have it put right, and record that at the box.'),
  'neutral.by-traveler': record(
    'box',
    'Ask what the local code says; then label that core neutral at both ends.',
  ),
  'neutral.doubtful': record('box', 'Settle the label: correct it, or make the test again.'),
  'ground.doubtful': record('box', 'Settle the label: correct it, or make the test again.'),
  'line-load.line-doubtful': record('box', 'Settle the label: correct it, or make the test again.'),
  'line-load.load-doubtful': record('box', 'Settle the label: correct it, or make the test again.'),
  'neutral.circuit-untold': test('neutral', 'A lifted-lamp test that shows which circuit’s return it is.'),
  'ground.unknown': test('ground', 'At most 1 ohm to a proved reference or a bonded box, dead.'),
  'ground.by-colour': test('ground', 'At most 1 ohm to a proved reference or a bonded box, dead.'),
  'ground.local-code': record('box', 'Ask what the local code says, and note it.'),
  'line-load.line-unknown': test(
    'line',
    'Supply volts to a proved reference on a low-impedance meter, gone with its breaker.',
  ),
  'line-load.load-unknown': test(
    'load',
    'Whether its lamp follows the old switch, or ohms to its neutral that open with the lamp out.',
  ),
  'load-kind.unknown': record('position', 'Name what the position controls.'),
  'dimmable.unknown': record('load', 'Read on the lamps whether they may be dimmed.'),
  'voltage.no-circuit': record('circuit', 'Find its breaker by switching.'),
  'voltage.outside': test('line', 'Which of the two circuits feeds this position.'),
  'depth.not-read': record('box', 'Measure the depth of the box.'),
  'fill.not-read': record('box', 'Read the volume marked in the box.'),
  'fill.no-standing': record('box', 'Find the volume marked in the box, or its standard size.'),
  'packing.not-read': record('box', 'Measure the box.'),
  'signal.not-read': record('signal', 'Read the signal at the box before the power goes off.'),
  'signal.weak': record('signal', 'Read the signal again with an extender or repeater in place.'),
  'bulb-family.unknown': record('load', 'Read on the bulbs which family they are of.'),
  'multi-location.travelers': test('traveler', 'What changes with the far switch, or end-to-end ohms, dead.'),
  'multi-location.far-travelers': test(
    'traveler',
    'What changes with the switch here, or end-to-end ohms, dead.',
  ),
  'multi-location.partner-unproved': record('partner', 'Settle the other place of the group.'),
  'control-point.no-target': record('position', 'Name what it controls.'),
  'control-point.nothing-chosen': record('partner', 'Choose for that place first.'),
};

/**
 * Null for a finding that is proved, one way or the other; a doubtful label stops, and can be settled all the
 * same.
 */
export function settling(reason: Pick<Reason, 'code' | 'outcome'>): Settling | null {
  const open = reason.outcome === 'unproved' || reason.code.endsWith('doubtful');
  return open ? (SETTLED_BY[reason.code] ?? null) : null;
}
