import type { FillLine } from '../enclosure/fill.js';
import type { FillRule } from '../practice/fill-figures.js';

/** What each allowance is for, in the trade's words. */
export const FILL_RULE_WORDS: Record<FillRule, string> = {
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
  return `${FILL_RULE_WORDS[line.rule]}, ${line.what.replace(/(\d)(AWG|mm2)\b/, (_, digit: string, unit: string) => `${digit} ${unit === 'mm2' ? 'mm²' : unit}`)}`;
}

export const RULE_NOTES = {
  local: 'The locally adopted code and the maker’s instructions rule.',
  ca: 'Confirm against the edition in force.',
  estimate: 'An estimate, not a code rule.',
} as const;
