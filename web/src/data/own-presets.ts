import { Box, type LikeBox, type PracticeId } from '@inventario/core';

/** A usual box of one's own, kept on this device for every job of its practice. */
export interface OwnPreset {
  id: string;
  name: string;
  practice: PracticeId;
  box: LikeBox;
}

const KEY = 'own-presets';

/** What cannot be read any more is left out. */
export function ownPresets(practice: PracticeId): OwnPreset[] {
  return kept().filter((preset) => preset.practice === practice);
}

export function keepPreset(preset: OwnPreset): void {
  localStorage.setItem(KEY, JSON.stringify([...kept().filter(({ id }) => id !== preset.id), preset]));
}

export function dropPreset(id: string): void {
  localStorage.setItem(KEY, JSON.stringify(kept().filter((preset) => preset.id !== id)));
}

function kept(): OwnPreset[] {
  try {
    const found: unknown = JSON.parse(localStorage.getItem(KEY) ?? '[]');
    return Array.isArray(found) ? found.filter(isPreset) : [];
  } catch {
    return [];
  }
}

function isPreset(value: unknown): value is OwnPreset {
  const { id, name, practice, box } = (value ?? {}) as Record<string, unknown>;
  return (
    typeof id === 'string' &&
    typeof name === 'string' &&
    typeof practice === 'string' &&
    Box.safeParse(box).success
  );
}
