import type { Device } from '@inventario/core';
import type { ReactNode } from 'react';

/** What every section of the data sheet's form is given. */
export interface Section {
  device: Device;
  set: (more: Partial<Device>) => void;
}

export const options = <const Value extends string>(
  values: readonly Value[],
  words: Partial<Record<Value, string>> = {},
) => values.map((value) => ({ value, label: words[value] ?? value }));

export const OPTIONAL = { value: '', label: 'not said' };

export function Group({ title, children }: { title: string; children: ReactNode }) {
  return (
    <fieldset className="rounded-md border border-rule p-3">
      <legend className="px-1 font-bold">{title}</legend>
      <div className="grid grid-cols-2 gap-3 sm:grid-cols-4">{children}</div>
    </fieldset>
  );
}

/** Words as typed; a comma at the end is kept while the next word is on its way. */
export function wordsOf(text: string): string[] {
  return text.split(',').map((word, at, all) => (at === all.length - 1 ? word.trimStart() : word.trim()));
}
