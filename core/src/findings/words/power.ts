import { lookup } from '../../job/lookup.js';
import type { Job } from '../../job/schema/job.js';
import type { Box } from '../../job/schema/survey.js';
import type { BoxPower, Gate, Hinder } from '../../power/vocabulary.js';
import { readingWords } from '../../survey/reading-words.js';
import { listed, STOP_WORDS } from './stops.js';

type Said = (names: {
  breaker: string;
  box: Box;
  job: Job;
  readingId: string | null;
  circuitId: string | null;
}) => string;

const HINDERS: Record<Hinder['code'], Said> = {
  'not-proved': ({ breaker, box, circuitId }) =>
    circuitId !== null
      ? `Breaker ${breaker} was not off from before the proof, or the proof does not name it: prove again.`
      : box.circuitIds.length === 0
        ? 'No circuit is named for this box: it cannot be proved dead.'
        : 'Not proved dead yet.',
  'face-only': () => 'Proved at the face only: once more with the device out.',
  'circuit-on': ({ breaker }) => `Breaker ${breaker} is on.`,
  'circuit-unknown': ({ breaker }) => `Breaker ${breaker} is not recorded off.`,
  'neighbour-on': ({ breaker }) =>
    `Breaker ${breaker} is on; it shares a neutral with this box, or was found in it.`,
  'neighbour-unknown': ({ breaker }) =>
    `Breaker ${breaker} is not recorded off; it shares a neutral with this box, or was found in it.`,
  'on-unknown-to-prover': ({ breaker }) =>
    `Breaker ${breaker} went on, and whoever proved the box did not know: prove again.`,
  'unassigned-on': ({ breaker }) =>
    `Breaker ${breaker} belongs to no box yet and is on, or went on since: its return may run here.`,
  'live-reading': ({ breaker, box, job, readingId, circuitId }) => {
    const reading = box.readings.find((entry) => entry.id === readingId);
    const what = reading ? readingWords(box, lookup(job), reading) : 'A reading';
    return circuitId === null
      ? `${what}: alive with every breaker of the box off, and its source is not found.`
      : `${what}: breaker ${breaker} was found behind it; prove the box again.`;
  },
  hazard: () => 'A stop stands at this box.',
  closed: () => 'The box was mounted since it was proved.',
  old: () => 'It was proved over twelve hours ago: prove again.',
  corrected: ({ breaker, circuitId }) =>
    circuitId === null
      ? 'The record of this box was corrected since: prove again.'
      : `What was recorded of breaker ${breaker} was corrected since: prove again.`,
};

/** One sentence of what hinders. */
export function hinderText({ code, circuitId, readingId }: Hinder, box: Box, job: Job): string {
  const breaker = job.circuits.find(({ id }) => id === circuitId)?.breaker ?? circuitId ?? '';
  return HINDERS[code]({ breaker, box, job, readingId, circuitId });
}

/** Why a tester that read its known source so, V, before and after proves nothing. */
export function sourceDoubtText(volts: number, voltsAfter: number): string {
  return `The source read ${volts} V before and ${voltsAfter} V now: the tester cannot be trusted. Change its batteries and begin again.`;
}

const GATE_WORDS: Record<Gate, string> = {
  open: 'handle conductors',
  ohms: 'measure ohms',
  joint: 'open a joint without a neutral',
  neutral: 'open a neutral',
  energise: 'switch on for a hands-off check',
};

/**
 * Why a gate is shut, in a sentence; null where it is open. The worst first: a stop, then what is not dead,
 * then what else.
 */
export function gateText(gate: Gate, power: BoxPower, box: Box, job: Job): string | null {
  if (power.gates[gate]) return null;
  const what = `Not yet: ${GATE_WORDS[gate]}.`;
  if (power.dead !== 'device-out') {
    const [first] = [...power.hinders].filter(({ code }) => code !== 'hazard' && code !== 'unassigned-on');
    return first ? `${what} ${hinderText(first, box, job)}` : what;
  }
  if (power.stops[0]) return `${what} ${STOP_WORDS[power.stops[0].code].name}.`;
  if (gate === 'energise')
    return `${what} Device ${listed(power.carriesNeutral.map(String))} carries a neutral: out with it, that neutral is open.`;
  const stray = power.hinders.find(({ code }) => code === 'unassigned-on');
  return stray ? `${what} ${hinderText(stray, box, job)}` : what;
}
