/**
 * How a made-up assistant hears: the words that switch, around the name as a whole, whatever the case and the
 * punctuation. Null where the words are not for this name.
 */
export function wordsFor(words: string, name: string): boolean | null {
  const said = heard(words);
  const own = heard(name);
  if (said === `turn on ${own}` || said === `${own} on`) return true;
  if (said === `turn off ${own}` || said === `${own} off`) return false;
  return null;
}

const heard = (text: string) =>
  text
    .normalize('NFKC')
    .toLowerCase()
    .replaceAll(/[\p{P}\p{S}]/gu, '')
    .replaceAll(/\s+/gu, ' ')
    .trim();
