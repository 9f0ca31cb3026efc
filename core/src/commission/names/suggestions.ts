import type { JobLookup } from '../../job/lookup.js';
import { hasOldName, ownFindings } from './findings.js';
import { folded, heard } from './fold.js';
import { NamesInUse } from './names-in-use.js';
import type { NamedChannel, NameFinding, NameGround } from './vocabulary.js';
import { type OwnWords, ownWords, possibleNames } from './words.js';

/** Findings that another name would not put right. */
const NOT_BY_NAME: ReadonlySet<NameFinding['code']> = new Set(['differs', 'old-still-there']);

/**
 * Another name for each channel whose own has a finding that a name can put right: it has none, with the
 * names as they are and with every other suggestion taken too. Old names to be taken over go first.
 * @returns by the channel's id
 */
export function suggestedNames(
  ground: NameGround,
  findings: ReadonlyMap<string, readonly NameFinding[]>,
): ReadonlyMap<string, string> {
  const inUse = new NamesInUse(ground);
  const possible = new PossibleNames(ground.known);
  const wanting = ground.channels.filter((at) =>
    findings.get(at.id)?.some(({ code }) => !NOT_BY_NAME.has(code)),
  );
  const suggestions = new Map<string, string>();
  const suggest = (at: NamedChannel, name: string) => {
    suggestions.set(at.id, name);
    inUse.add(at.id, heard(name));
  };
  for (const at of wanting) {
    const old = at.position.replaces?.name ?? '';
    if (!at.first || folded(old) === '' || hasOldName(at, folded(old), ground)) continue;
    if (isFree(old, at, ground, inUse)) suggest(at, old);
  }
  for (const at of wanting) {
    if (suggestions.has(at.id)) continue;
    const name = possible.firstFor(
      at,
      (said) => folded(said) !== at.heard?.folded && isFree(said, at, ground, inUse),
    );
    if (name !== undefined) suggest(at, name);
  }
  return suggestions;
}

function isFree(name: string, at: NamedChannel, ground: NameGround, inUse: NamesInUse): boolean {
  const text = folded(name);
  if (inUse.same(at.id, text).length > 0 || ownFindings(text, at, ground).length > 0) return false;
  return !inUse.isAlike(at.id, heard(name));
}

/**
 * Names by the words they are made of. Many channels share theirs: each goes on behind what the last one
 * took, since nearly all before that is taken or sounds like it.
 */
class PossibleNames {
  private readonly thought = new Map<string, Generator<string>>();

  constructor(private readonly known: JobLookup) {}

  firstFor(at: NamedChannel, isFit: (name: string) => boolean): string | undefined {
    const own = ownWords(at, this.known);
    const key = JSON.stringify(own);
    return this.next(key, own, isFit) ?? this.next(key, own, isFit);
  }

  /** The next fitting one; behind the last of them the next call begins anew. */
  private next(key: string, own: OwnWords, isFit: (name: string) => boolean): string | undefined {
    const names = this.thought.get(key) ?? possibleNames(own);
    this.thought.set(key, names);
    for (let { value, done } = names.next(); !done; { value, done } = names.next())
      if (isFit(value)) return value;
    this.thought.delete(key);
    return undefined;
  }
}

/** What an app shows for a channel, or is to show. */
export function shownName(at: NamedChannel, platform: string, suggestion: string | undefined): string {
  const shown = at.pairing?.names?.[platform] ?? '';
  if (folded(shown) !== '') return shown;
  return at.name ?? suggestion ?? at.box.name;
}
