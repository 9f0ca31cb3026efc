import type { JobLookup } from '../job/lookup.js';
import type { Box, Reading } from '../job/schema/survey.js';
import { conductorWords } from './conductor-names.js';

/** How a box stands. */
export const ARRANGEMENT_WORDS: Record<Reading['arrangement'], string> = {
  'in-place': 'in place',
  'device-out': 'device out',
  lifted: 'one lifted',
  parted: 'all joints open',
};

const TOOL_WORDS: Record<Reading['tool'], string> = {
  indicator: 'indicator',
  volts: 'volts, high impedance',
  'volts-low-z': 'volts, low impedance',
  ohms: 'ohms',
  lamp: 'lamp',
  breaker: 'breaker',
};

export function pointWords(box: Box, known: JobLookup, point: string): string {
  const slash = point.indexOf('/');
  const far = slash < 0 ? undefined : known.boxes.get(point.slice(0, slash));
  if (far) return `${conductorWords(far, point.slice(slash + 1), known.job)} in ${far.name}`;
  return (
    known.loads.get(point)?.name ??
    (known.circuits.has(point)
      ? `breaker ${known.circuits.get(point)?.breaker}`
      : conductorWords(box, point, known.job))
  );
}

/** `volts, low impedance, the black of feed to a known earth: 118.9 V, device out, breaker 4 on`. */
export function readingWords(
  box: Box,
  known: JobLookup,
  reading: Pick<
    Reading,
    'tool' | 'points' | 'arrangement' | 'breakers' | 'switches' | 'lifted' | 'loads' | 'position'
  > & {
    value?: Reading['value'];
  },
): string {
  const unit = reading.tool.startsWith('volts')
    ? ' V'
    : reading.tool === 'ohms' && typeof reading.value === 'number'
      ? ' ohm'
      : '';
  const value = reading.value === undefined ? '' : `: ${reading.value}${unit}`;
  return (
    `${TOOL_WORDS[reading.tool]}, ` +
    `${reading.points.map((point) => pointWords(box, known, point)).join(' to ')}${value}; ` +
    `${stateWords(box, known, reading)}`
  );
}

/** How the box stands for a test: `device out, breaker 4 on, switch 1 off`. */
function stateWords(
  box: Box,
  known: JobLookup,
  test: Pick<Reading, 'arrangement' | 'position' | 'lifted' | 'breakers' | 'switches' | 'loads'>,
): string {
  const arrangement = {
    ...ARRANGEMENT_WORDS,
    'device-out': `device ${test.position && box.positions.length > 1 ? `${test.position} ` : ''}out`,
    lifted: `${(test.lifted ?? []).map((id) => conductorWords(box, id, known.job)).join(' and ')} lifted`,
  }[test.arrangement];
  const breakers = Object.entries(test.breakers ?? {}).map(
    ([id, state]) => `breaker ${known.circuits.get(id)?.breaker ?? id} ${state}`,
  );
  const switches = Object.entries(test.switches ?? {}).map(([key, state]) => {
    const [boxId, position] = key.includes('/') ? key.split('/') : [null, key];
    return boxId
      ? `switch at ${known.boxes.get(boxId)?.name ?? boxId} ${state}`
      : box.positions.length > 1
        ? `switch ${position} ${state}`
        : `switch ${state}`;
  });
  const out = Object.entries(test.loads ?? {}).flatMap(([id, state]) =>
    state === 'out' ? [`${known.loads.get(id)?.name ?? id} out`] : [],
  );
  return [arrangement, ...breakers, ...switches, ...out].join(', ');
}
