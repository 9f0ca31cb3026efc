import { type Heard, isLongEnough, soundAlike } from './fold.js';
import type { NameGround } from './vocabulary.js';

/** Every name said or suggested, with whose it is, found quickly by how it sounds. */
export class NamesInUse {
  private readonly byName = new Map<string, Set<string>>();
  private readonly byCode = new Map<string, Map<string, Heard[]>>();
  private readonly byGap = new Map<number, { id: string; heard: Heard }[]>();

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
    for (const number of withoutOne(name)) {
      const ofNumber = this.byGap.get(number);
      if (ofNumber) ofNumber.push({ id, heard: name });
      else this.byGap.set(number, [{ id, heard: name }]);
    }
  }

  /** Who else has the very same name. @param name folded */
  same(id: string, name: string): string[] {
    return [...(this.byName.get(name) ?? NOBODY)].filter((other) => other !== id);
  }

  /** Who else has a name that is not the same and sounds like it. */
  alike(id: string, name: Heard): string[] {
    const found = new Set<string>();
    this.findAlike(id, name, (other) => {
      found.add(other);
      return false;
    });
    return [...found];
  }

  isAlike(id: string, name: Heard): boolean {
    return this.findAlike(id, name, () => true);
  }

  /** Tells of one after the other, some twice, until one is enough; and whether one was. */
  private findAlike(id: string, name: Heard, isEnough: (other: string) => boolean): boolean {
    for (const [other, names] of this.byCode.get(name.code) ?? NOBODY)
      if (other !== id && names.some((entry) => soundAlike(entry, name)) && isEnough(other)) return true;
    for (const number of withoutOne(name))
      for (const other of this.byGap.get(number) ?? NOBODY)
        if (other.id !== id && soundAlike(other.heard, name) && isEnough(other.id)) return true;
    return false;
  }
}

const NOBODY: readonly never[] = [];
const NONE = new Int32Array();

/** What a place counts more than the one before it; odd, so that none of them is lost in 32 bits. */
const BASE = 0x01000193;

/**
 * Numbers of a name with each of its characters left out, and of the whole: two that are one letter apart
 * have one of these in common. So may others, which the letters then tell apart. Short names are told apart
 * by any letter, so they have none.
 */
function withoutOne(name: Heard): Int32Array {
  if (!isLongEnough(name)) return NONE;
  const signs = name.characters?.map((sign) => sign.codePointAt(0) ?? 0);
  const sign = (at: number) => signs?.[at] ?? name.folded.charCodeAt(at);
  const count = signs?.length ?? name.folded.length;
  const numbers = new Int32Array(count + 1);
  // What stands behind each, counted from its own first place.
  let behind = 0;
  for (let at = count - 1; at >= 0; at -= 1) {
    numbers[at] = behind;
    behind = (sign(at) + Math.imul(BASE, behind)) | 0;
  }
  numbers[count] = behind;
  // It moves up behind what stands before.
  let before = 0;
  let weight = 1;
  for (let at = 0; at < count; at += 1) {
    numbers[at] = before + Math.imul(weight, numbers[at] ?? 0);
    before = (before + Math.imul(weight, sign(at))) | 0;
    weight = Math.imul(weight, BASE);
  }
  return numbers;
}
