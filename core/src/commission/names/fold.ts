import { doubleMetaphone } from 'double-metaphone';
import { distance } from 'fastest-levenshtein';

/**
 * How an assistant hears a name: Unicode NFKC, lower case, without punctuation and symbols (nothing in their
 * place), white space collapsed and trimmed; accents stay. Empty where nothing of it can be said.
 *
 *     folded('Tom’s  LAMP!')   // 'toms lamp'
 */
export function folded(name: string): string {
  const kept = KEPT.get(name);
  if (kept !== undefined) return kept;
  const fold = foldedAnew(name);
  if (KEPT.size >= MOST_KEPT) KEPT.clear();
  KEPT.set(name, fold);
  return fold;
}

/** The same words come again for every name they are compared with. */
const KEPT = new Map<string, string>();
const MOST_KEPT = 20_000;

function foldedAnew(name: string): string {
  return name
    .normalize('NFKC')
    .toLowerCase()
    .replaceAll(/[\p{P}\p{S}]/gu, '')
    .replaceAll(/\s+/gu, ' ')
    .trim();
}

/** A name as it is compared with others. */
export interface Heard {
  folded: string;
  /** The whole primary Double Metaphone code of the folded name without spaces; empty where it has none. */
  code: string;
  /** Characters without spaces. */
  length: number;
  /** The folded name by characters, where some of them are two units of UTF-16; else undefined. */
  characters?: string[] | undefined;
}

const BEYOND_ONE_UNIT = /[\ud800-\udfff]/;

export function heard(name: string): Heard {
  const text = folded(name);
  const spoken = text.replaceAll(' ', '');
  const characters = BEYOND_ONE_UNIT.test(text) ? [...text] : undefined;
  return {
    folded: text,
    code: doubleMetaphone(spoken)[0],
    length: characters ? [...spoken].length : spoken.length,
    characters,
  };
}

/** From this many characters on, names one letter apart are taken for each other. */
const LONG_ENOUGH = 6;

/** Whether two names that are not the same sound alike: by their code, or one letter apart. */
export function soundAlike(one: Heard, other: Heard): boolean {
  if (one.folded === other.folded) return false;
  if (one.code !== '' && one.code === other.code) return true;
  return isLongEnough(one) && isLongEnough(other) && letterDistance(one, other) === 1;
}

export const isLongEnough = ({ length }: Heard) => length >= LONG_ENOUGH;

/** Counted in characters; the package counts units of UTF-16, which differ beyond the basic plane. */
function letterDistance(one: Heard, other: Heard): number {
  if (!one.characters && !other.characters) return distance(one.folded, other.folded);
  const signs = new Map<string, string>();
  const oneUnitEach = ({ characters, folded }: Heard) =>
    (characters ?? [...folded])
      .map((sign) => {
        const unit = signs.get(sign) ?? String.fromCharCode(0xe000 + signs.size);
        signs.set(sign, unit);
        return unit;
      })
      .join('');
  return distance(oneUnitEach(one), oneUnitEach(other));
}

/** Whether a name holds a word, or several in a row, as whole words; both folded. */
export function holdsWords(name: string, words: string): boolean {
  return words !== '' && ` ${name} `.includes(` ${words} `);
}
