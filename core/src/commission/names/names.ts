import type { JobLookup } from '../../job/lookup.js';
import { findingsOf } from './findings.js';
import { nameGround } from './ground.js';
import { NamesInUse } from './names-in-use.js';
import { shownName, suggestedNames } from './suggestions.js';
import type { ChannelName, NamedChannel, Phrase } from './vocabulary.js';

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
