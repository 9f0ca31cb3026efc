import type { JobLookup } from '../../job/lookup.js';
import { loadsOfChannel } from '../channel-loads.js';
import { folded } from './fold.js';
import type { NamedChannel } from './vocabulary.js';

/** A name is said in this many words at most. */
const MOST_WORDS = 4;

/** Words that tell two of a kind apart and sound unlike each other. */
const APART = (
  'main upper lower left right near far front back middle north south east west inner outer window door ' +
  'corner garden street stair hearth desk table wall ceiling floor shelf mirror sofa bed gable arch beam ' +
  'niche passage threshold landing chimney cupboard bookcase piano easel mantel alcove bench basin stove ' +
  'amber birch cedar coral ebony fern ginger hazel indigo jade lemon maple olive pearl quartz russet sage ' +
  'teal umber violet walnut yarrow zinc'
).split(' ');

/** The words a channel may be called by: of the room, the box and the loads it works. */
export interface OwnWords {
  room: string[];
  box: string[];
  loads: string[][];
}

export function ownWords(at: NamedChannel, known: JobLookup): OwnWords {
  return {
    room: words(known.rooms.get(at.box.roomId)?.name ?? ''),
    box: words(at.box.name),
    loads: loadsOfChannel(known, at).map(({ name }) => words(name)),
  };
}

/** What it may be called, the likeliest first; each with a word of its load, room or box in it. */
export function* possibleNames({ room, box, loads }: OwnWords): Generator<string> {
  const spoken = [...loads, ...loads.map((load) => [...room, ...load]), box, [...room, ...box], room];
  for (const name of spoken) yield* asName(name);
  const own = [...new Set([...loads.flat(), ...room, ...box])];
  const kind = /fan/.test(loads.flat().join(' ').toLowerCase()) ? 'fan' : 'light';
  for (const word of own) yield* asName([word, kind]);
  for (const name of spoken) for (const apart of APART) yield* asName([apart, ...name]);
  for (const word of own)
    for (const apart of APART) {
      yield* asName([apart, word]);
      yield* asName([word, apart]);
    }
  for (const word of own)
    for (const first of APART) for (const second of APART) yield* asName([first, second, word]);
}

function* asName(parts: readonly string[]): Generator<string> {
  const once = parts.filter((word, index) => parts.findIndex((other) => same(other, word)) === index);
  if (once.length === 0 || once.length > MOST_WORDS) return;
  const [first = '', ...rest] = once;
  yield [first.slice(0, 1).toUpperCase() + first.slice(1), ...rest].join(' ');
}

const same = (one: string, other: string) => folded(one) === folded(other);

/** The words of a name without the punctuation around them. */
function words(name: string): string[] {
  return name
    .split(/\s+/u)
    .map((word) => word.replaceAll(/^[\p{P}\p{S}]+|[\p{P}\p{S}]+$/gu, ''))
    .filter((word) => folded(word) !== '' && !folded(word).includes(' '));
}
