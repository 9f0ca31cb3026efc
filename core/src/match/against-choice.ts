import type { JobLookup } from '../job/lookup.js';
import type { AgainstChoice } from '../wire/wiring.js';
import { placeFacts } from './place.js';
import { PlaceJudge } from './place-judge.js';

/** Rules that ask for what the wiring itself finds: it says by its own codes what is missing. */
const OF_THE_WIRING: ReadonlySet<string> = new Set([
  'neutral',
  'ground',
  'line-load',
  'channels',
  'multi-location',
  'minimum-load',
  'hazard',
]);

/** What the match has against the choice at each place, beside what the wiring asks for itself. */
export const againstChoice =
  (known: JobLookup): AgainstChoice =>
  (boxId, index) => {
    const box = known.boxes.get(boxId);
    const position = box?.positions.find((entry) => entry.index === index);
    const selection = known.selections.get(`${boxId}/${index}`);
    const device = known.devices.get(selection?.deviceId ?? '');
    if (!box || !position || !selection || !device) return [];
    const { reasons } = new PlaceJudge(placeFacts(box, position, known)).candidate(
      device,
      selection.strategy,
    );
    const blocked = reasons.filter(({ outcome, rule }) => outcome === 'block' && !OF_THE_WIRING.has(rule));
    return [...new Set(blocked.map(({ rule }) => rule))];
  };
