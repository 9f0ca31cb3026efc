import type { IdentifiedConductor, IdentifyConflict, IdentifyNote } from '../../identify/answer.js';
import type { NextTest } from '../../identify/asking/next-tests.js';
import type { JobLookup } from '../../job/lookup.js';
import type { Box } from '../../job/schema/survey.js';
import { profileOf } from '../../practice/profiles.js';
import type { Words } from '../../practice/words.js';
import { pointWords, readingWords } from '../../survey/reading-words.js';

const PURPOSE: Record<NextTest['why']['purpose'], (what: string, words: Words) => string> = {
  fed: () => 'tells whether the box is fed at all, and by which conductor',
  line: (what, words) => `tells whether ${what} is fed from elsewhere and so is the ${words.roles.line}`,
  gone: (what) => `shows that ${what} goes dead with its breaker`,
  load: (what) => `shows what controls ${what}`,
  neutral: (what, words) => `tells whether ${what} is the ${words.roles.neutral}`,
  ground: (what, words) => `proves ${what} as ${words.ground}`,
  traveler: (what) => `shows whether ${what} changes with the far switch`,
  onward: (what) => `shows what goes dead when ${what} is apart`,
  apart: (what) => `tells ${what} from the others of its joint`,
};

/** One sentence of why a test is proposed. */
export function nextTestWhy(box: Box, known: JobLookup, next: NextTest): string {
  const what = pointWords(box, known, next.why.subject);
  const purpose = PURPOSE[next.why.purpose](what, profileOf(known.job).words);
  switch (next.why.code) {
    case 'tells-most':
      return `It ${purpose}.`;
    case 'missing-evidence':
      return `Little is in doubt, but proof is missing: it ${purpose}.`;
    case 'first-look':
      return `Lead the indicator over every conductor: it ${purpose}.`;
    case 'looks-ahead':
      return `Alone it settles nothing; with one more test after it, it ${purpose}.`;
  }
}

export function conflictWords(box: Box, known: JobLookup, conflict: IdentifyConflict): string {
  const [odd, ...clashes] = conflict.readingIds.map((id) =>
    box.readings.find((reading) => reading.id === id),
  );
  const first = odd ? readingWords(box, known, odd) : '';
  const rest = clashes.flatMap((reading) => (reading ? [readingWords(box, known, reading)] : []));
  const settle = conflict.open
    ? ' Make the test again before trusting either.'
    : ' It has been settled by later readings.';
  return rest.length > 0
    ? `These cannot both hold: ${first} / ${rest.join(' / ')}.${settle}`
    : `This reading does not go with the rest: ${first}.${settle}`;
}

const NOTES: Record<IdentifyNote['code'], string> = {
  'tests-estimated':
    'This box can still be many things: what the next tests tell is reckoned from the 200 likeliest of them.',
  'live-while-off':
    'Something here is live although every breaker of the box is off. No dead test before its source is found.',
  'reversed-polarity':
    'The core in the neutral’s colour is live and its partner is earth: line and neutral are exchanged before this box.',
  'no-supply-seen':
    'Everything read quiet with a breaker on: the wrong breaker, a dead tester, or no line here. Nothing follows about any conductor.',
  'cap-reached': 'There are more ways to explain this box than were looked at; record more of its joints.',
  'cannot-tell': 'The tests that are safe here cannot tell these conductors further apart.',
  'no-usual-wiring': 'No usual wiring explains this box as it is recorded: check joints and terminals.',
  'passes-through': 'What passes through unbroken is told by its looks alone.',
};

export function noteWords(note: IdentifyNote): string {
  return NOTES[note.code];
}

const MISSING: Record<NonNullable<IdentifiedConductor['missing']>, string> = {
  reading: 'nothing has been read on it',
  probability: 'the readings leave other roles open',
  conflict: 'a reading contradicts another',
  rival: 'no meter reading has ruled its rival out',
  evidence: 'the proof this role asks for is not there yet',
};

/**
 * Why a conductor is what it is, in a sentence or two: the readings it rests on, and what is still missing.
 */
export function reasonWords(box: Box, known: JobLookup, conductor: IdentifiedConductor): string {
  const readings = conductor.because.slice(0, 3).flatMap((id) => {
    const reading = box.readings.find((entry) => entry.id === id);
    return reading ? [readingWords(box, known, reading)] : [];
  });
  const rests =
    readings.length > 0 ? `Rests on ${readings.join('; ')}.` : 'Only its colour and place speak for it.';
  return conductor.missing && conductor.grade !== 'confirmed'
    ? `${rests} Not yet proved: ${MISSING[conductor.missing]}.`
    : rests;
}
