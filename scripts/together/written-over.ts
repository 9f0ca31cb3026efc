// Whether a word was written over that whoever wrote over it had never had before them.
import type { Edit, Job } from '@inventario/core';

/** The fields that are changed in a model run. */
const FIELDS = {
  job: ['address'],
  room: ['name', 'order'],
  box: ['readings', 'conductors', 'labels', 'notes'],
} as const;

/** What one tab has shown of them. */
export class Shown {
  private readonly values = new Map<string, Set<unknown>>();
  private last: Job | undefined;

  look(job: Job): void {
    if (job === this.last) return;
    this.last = job;
    this.lookAt(FIELDS.job, job);
    for (const room of job.rooms) this.lookAt(FIELDS.room, room);
    for (const box of job.boxes) this.lookAt(FIELDS.box, box);
  }

  has(id: string, field: string, fact: string, word: unknown): boolean {
    return [...(this.values.get(`${id}/${field}`) ?? [])].some((value) => factsOf(value).get(fact) === word);
  }

  private lookAt<Field extends string>(
    fields: readonly Field[],
    record: { id: string } & { [F in Field]?: unknown },
  ): void {
    for (const field of fields) {
      const name = `${record.id}/${field}`;
      this.values.set(name, (this.values.get(name) ?? new Set()).add(record[field]));
    }
  }
}

/**
 * The facts an edit changed although they stood otherwise than it says, in a way that neither its own tab nor
 * one whose edits it was made on had ever shown.
 * @param applied the edit as the server carried it out
 * @param made every edit as its device kept it
 */
export function writtenOver(
  applied: Edit,
  made: ReadonlyMap<string, Edit>,
  shown: ReadonlyMap<string, Shown>,
): string[] {
  const sent = made.get(applied.id);
  const tabs = new Set([applied.tab, ...(applied.on ?? []).map((id) => made.get(id)?.tab)]);
  const knew = (id: string, field: string, fact: string, word: unknown) =>
    [...tabs].some((tab) => tab !== undefined && shown.get(tab)?.has(id, field, fact, word));
  return (sent?.parts ?? []).flatMap((part, number) =>
    Object.entries(part.set ?? {}).flatMap(([field, { was, now }]) => {
      const [believed, mine] = [factsOf(was), factsOf(now)];
      const stood = factsOf(applied.parts[number]?.set?.[field]?.was);
      return [...new Set([...believed.keys(), ...mine.keys()])]
        .filter((fact) => mine.get(fact) !== believed.get(fact))
        .filter((fact) => stood.get(fact) !== believed.get(fact) && stood.get(fact) !== mine.get(fact))
        .filter((fact) => !knew(part.id, field, fact, stood.get(fact)))
        .map((fact) => `${applied.label}: ${part.id}/${field}${fact}`);
    }),
  );
}

type Facts = ReadonlyMap<string, unknown>;

/**
 * Every single value in a field, by where it stands; what stands in a list is found by what it is known by.
 */
function factsOf(value: unknown, at = '', facts = new Map<string, unknown>()): Facts {
  if (typeof value !== 'object' || value === null) {
    if (value !== null && value !== undefined) facts.set(at, value);
  } else
    for (const [key, inner] of Object.entries(value)) {
      const known = inner as { id?: string; conductorId?: string } | null;
      factsOf(inner, `${at}/${known?.id ?? known?.conductorId ?? key}`, facts);
    }
  return facts;
}
