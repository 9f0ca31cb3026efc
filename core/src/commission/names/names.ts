import type { JobLookup } from '../../job/lookup.js';
import { findingsOf } from './findings.js';
import { heard } from './fold.js';
import { nameGround } from './ground.js';
import { NamesInUse } from './names-in-use.js';
import { shownName, suggestedNames } from './suggestions.js';
import type { ChannelName, NamedChannel, NameFinding, Phrase } from './vocabulary.js';

/**
 * The name of every channel of every chosen device with a radio: what speaks against it, a better one where
 * there is one, and the words that will work on each platform of the brief. In the file's order of boxes and
 * positions and the device's of channels.
 */
export function namesOf(known: JobLookup): ChannelName[] {
  const ground = nameGround(known);
  const inUse = new NamesInUse(ground);
  const findings = new Map(ground.channels.map((at) => [at.id, findingsOf(at, ground, inUse)]));
  const suggestions = suggestedNames(ground, findings);
  return ground.channels.map((at) => ({
    boxId: at.box.id,
    position: at.position.index,
    channel: at.channel.id,
    name: at.name,
    findings: findings.get(at.id) ?? [],
    suggestion: suggestions.get(at.id) ?? null,
    phrases: phrasesOf(at, suggestions.get(at.id)),
  }));
}

/** What to say to each platform, or which two scenes to make there. */
function phrasesOf(at: NamedChannel, suggestion: string | undefined): Phrase[] {
  return at.platforms.map(({ name: platform, phrasePerAction }) => {
    const name = shownName(at, platform, suggestion);
    return phrasePerAction
      ? { platform, on: `${name} on`, off: `${name} off`, scenes: true }
      : { platform, on: `turn on ${name}`, off: `turn off ${name}`, scenes: false };
  });
}

/** What would speak against a name while it is typed, as if the channel had it already. */
export function namesWith(known: JobLookup, at: { id: string }, name: string): NameFinding[] {
  const ground = nameGround(known);
  const said = heard(name);
  const named = said.folded === '' ? null : said;
  const channels = ground.channels.map((channel) =>
    channel.id === at.id ? { ...channel, heard: named, name: named ? name : null } : channel,
  );
  const typed = { ...ground, channels };
  const own = channels.find(({ id }) => id === at.id);
  return own ? findingsOf(own, typed, new NamesInUse(typed)) : [];
}
