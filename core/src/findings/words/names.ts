import type { NameFinding } from '../../commission/names/vocabulary.js';
import type { JobLookup } from '../../job/lookup.js';
import { listed } from './stops.js';
import { targetWords } from './targets.js';

/** A finding about a name, in a sentence. */
export function nameFindingText(finding: NameFinding, known: JobLookup): string {
  const others = listed(finding.with.map((id) => targetWords(id, known)));
  switch (finding.code) {
    case 'unnamed':
      return 'It has no name yet.';
    case 'default':
      return 'This is the name it came with; nobody will know which one it is.';
    case 'duplicate':
      return `${others} ${finding.with.length > 1 ? 'have' : 'has'} the same name: all of them would answer.`;
    case 'sounds-alike':
      return `It sounds like ${others}: an assistant may take one for the other.`;
    case 'equals-room':
      return `It is the name of the room ${others}: the whole room would answer.`;
    case 'reserved':
      return `${finding.platform} keeps "${finding.word}" for itself.`;
    case 'differs':
      return `${finding.platform} shows it as "${finding.word}".`;
    case 'take-over':
      return 'The old device’s name is not in use any more: rules that used it would stop.';
    case 'old-still-there':
      return 'The old device of this name is still in its hub: take it out first.';
  }
}
