import { labelsOf } from '../job/lookup.js';
import type { TerminalNeeds } from '../loads/terminal-needs.js';
import { profileOf } from '../practice/profiles.js';
import { neutralOf, type PlaceFacts } from './place.js';
import type { Reason } from './reason.js';

/**
 * What freed travelers bring to a place of a group. Where the switches go, their travelers can carry the line
 * on to the place that has none, or the load's wire back to the place where the device is; each is re-marked
 * at both ends. A neutral is never made up: it has to be found at the place, or labelled so by the installer.
 *
 *     foot: line, neutral ==[ t1 | t2 | neutral ]== head: load, neutral
 *     device at the head wants a line: t1 brings it; t2 stays for the partner's signal
 *
 * @param reserved travelers the strategy keeps for its partner
 */
export function withFreedTravelers(
  place: PlaceFacts,
  others: readonly PlaceFacts[],
  needs: TerminalNeeds,
  reserved: number,
): { place: PlaceFacts; notes: Reason[] } {
  let spare = place.travelers - reserved;
  let lent = place;
  const notes: Reason[] = [];
  const { known } = place;
  const lender = others.find((other) => other.line === 'present' && other.travelers > 0);
  if (needs.line && place.line === 'absent' && lender?.circuit && spare > 0) {
    spare -= 1;
    const { circuit } = lender;
    lent = {
      ...lent,
      line: 'present',
      circuit,
      circuits: [circuit],
      neutral: neutralOf(place.box, known, circuit.id, 'absent'),
    };
    notes.push({
      rule: 'multi-location',
      outcome: 'note',
      code: 'multi-location.line-by-traveler',
      facts: { from: lender.box.name },
    });
  }
  const fed = others.find((other) => other.load === 'present' && other.travelers > 0);
  if (needs.load && place.load === 'absent' && fed && spare > 0) {
    spare -= 1;
    lent = { ...lent, load: 'present', loadNets: fed.loadNets };
    notes.push({
      rule: 'multi-location',
      outcome: 'note',
      code: 'multi-location.load-by-traveler',
      facts: { to: fed.box.name },
    });
  }
  // A neutral that only an old traveler could bring is the installer's to settle: by labelling that core
  // neutral at both ends.
  const neutralElsewhere = others.some((other) => other.neutral === 'present' && other.travelers > 0);
  if (
    needs.neutral &&
    lent.neutral === 'absent' &&
    neutralElsewhere &&
    spare > 0 &&
    hasNeutralColoured(place)
  )
    lent = { ...lent, neutral: 'by-traveler' };
  return { place: lent, notes };
}

/** Whether a traveler of the box may be made a neutral by the colour of its core. */
function hasNeutralColoured({ box, known }: PlaceFacts): boolean {
  const allowed = profileOf(known.job).neutralColours;
  return box.conductors.some(
    ({ id, colour }) =>
      labelsOf(box).get(id)?.role === 'traveler' && (allowed === 'any' || allowed.includes(colour)),
  );
}
