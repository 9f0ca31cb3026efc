import type { FillLine } from '../../enclosure/fill.js';
import type { FillRule } from '../../practice/counting.js';
import { profileOf } from '../../practice/profiles.js';
import type { PracticeId } from '../../terms/trade.js';
import { wireSizeText } from '../../units/wire-size.js';

/** What each allowance is for, in the trade's words. */
const FILL_RULE_WORDS: Record<FillRule, string> = {
  conductor: 'Conductors from outside',
  loop: 'Unbroken loops, counted twice',
  clamps: 'Cable clamps inside',
  support: 'Support fittings',
  device: 'Devices on their yokes',
  ground: 'Grounds together',
  'ground-extra': 'Grounds beyond four, a quarter each',
  'isolated-ground': 'Isolated grounds together',
  'terminal-block': 'Terminal blocks',
  connectors: 'Pairs of connectors',
};

/** `Conductors from outside, 12 AWG`. */
export function fillLineWords(line: FillLine): string {
  return `${FILL_RULE_WORDS[line.rule]}, ${wireSizeText(line.what)}`;
}

/** What stands beside depth and packing. */
export const ESTIMATE_NOTE = 'An estimate, not a code rule.';

/** What stands beside every figure of a rule: whose word is above it. */
export function ruleNote(job: { practice: PracticeId }): string {
  return ['The locally adopted code and the maker’s instructions rule.', ...profileOf(job).notes].join(' ');
}
