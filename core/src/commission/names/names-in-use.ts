import { perObject } from '../../units/kept.js';
import { type Heard, isLongEnough, soundAlike } from './fold.js';
import type { NameGround } from './vocabulary.js';

/** Every name said or suggested, with whose it is, found quickly by how it sounds. */
export class NamesInUse {
  private readonly byName = new Map<string, Set<string>>();
  private readonly byCode = new Map<string, Map<string, Heard[]>>();
  private readonly byGap = new Map<string, { id: string; heard: Heard }[]>();

  constructor({ channels, things }: Pick<NameGround, 'channels' | 'things'>) {
    for (const { id, heard } of channels) if (heard) this.add(id, heard);
    for (const { id, heard } of things) this.add(id, heard);
  }

  add(id: string, name: Heard): void {
    this.byName.set(name.folded, (this.byName.get(name.folded) ?? new Set()).add(id));
    if (name.code !== '') {
      const ofCode = this.byCode.get(name.code) ?? new Map<string, Heard[]>();
      this.byCode.set(name.code, ofCode.set(id, [...(ofCode.get(id) ?? []), name]));
    }
    for (const key of withoutOne(name)) {
      const ofKey = this.byGap.get(key);
      if (ofKey) ofKey.push({ id, heard: name });
      else this.byGap.set(key, [{ id, heard: name }]);
    }
  }

  /** Who else has the very same name. */
  same(id: string, name: Heard): string[] {
    return [...(this.byName.get(name.folded) ?? [])].filter((other) => other !== id);
  }

  /** Who else has a name that is not the same and sounds like it. */
  alike(id: string, name: Heard): string[] {
    return [...new Set(this.alikeOneByOne(id, name))];
  }

  clashes(id: string, name: Heard): boolean {
    return this.same(id, name).length > 0 || !this.alikeOneByOne(id, name).next().done;
  }

  private *alikeOneByOne(id: string, name: Heard): Generator<string> {
    for (const [other, names] of this.byCode.get(name.code) ?? [])
      if (other !== id && names.some((entry) => soundAlike(entry, name))) yield other;
    for (const key of withoutOne(name))
      for (const other of this.byGap.get(key) ?? [])
        if (other.id !== id && soundAlike(other.heard, name)) yield other.id;
  }
}

/**
 * A name as it is and with each of its characters left out: two that are one letter apart have one of these
 * in common. Short names are told apart by any letter, so they have none.
 */
const withoutOne = perObject((name: Heard): readonly string[] => {
  if (!isLongEnough(name)) return [];
  const characters = name.characters ?? [...name.folded];
  return [
    name.folded,
    ...new Set(
      characters.map((_, at) => characters.slice(0, at).join('') + characters.slice(at + 1).join('')),
    ),
  ];
});
