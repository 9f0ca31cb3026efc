import type { Catalogue, Edit, EditAnswer, EditPart, Job } from '@inventario/core';
import { type DBSchema, type IDBPDatabase, openDB } from 'idb';

/**
 * Whose work this is on the device. One person until there are accounts; what is kept is under their key from
 * the start.
 */
export const PERSON = 'here';

/**
 * A job as the server last gave it, or as it was made here and not yet brought to the server (`generation`
 * null).
 */
export interface Base {
  job: Job;
  sequence: number;
  generation: string | null;
}

/** An edit on its way. */
export interface Pending {
  edit: Edit;
  /** The change it became, once the server said so; it goes when the base has come that far. */
  answered?: number;
  /** The question it waits for: it is about the same things. */
  heldBy?: string;
  /** Records it changes that others have taken out since, as this device had them, by kind and id. */
  records?: Readonly<Record<string, object>>;
}

/**
 * An edit the server did not take: it met someone else's, or cannot be carried out as it is. It waits for the
 * installer.
 */
export interface Question {
  edit: Edit;
  answer: EditAnswer;
  /** The records it is about as this device had them, by kind and id. */
  records: Readonly<Record<string, object>>;
}

/** What undo or redo would do. */
export interface Step {
  id: string;
  label: string;
  parts: EditPart[];
  /** The records as they are expected to be, where the parts do not say it themselves. */
  after: Readonly<Record<string, object>>;
  undone: boolean;
}

/** A photograph that has not reached the server. */
export interface WaitingPhoto {
  jobId: string;
  photoId: string;
  picture: Blob;
}

/** Everything of one job that this device keeps. */
export interface KeptJob {
  base: Base | undefined;
  pending: Pending[];
  questions: Question[];
  steps: Step[];
}

/** One write: all of it happens or none. */
export interface KeptChange {
  put?: readonly Pending[];
  drop?: readonly string[];
  ask?: readonly Question[];
  settled?: readonly string[];
  steps?: readonly Step[];
  dropSteps?: readonly string[];
  base?: Base;
}

const STORES = ['jobs', 'pending', 'questions', 'steps'] as const;

type Owned<Value> = Value & { person: string; jobId: string };
interface KeptSchema extends DBSchema {
  pending: { key: string; value: Owned<Pending>; indexes: { job: [string, string] } };
  questions: { key: string; value: Owned<Question>; indexes: { job: [string, string] } };
  steps: { key: string; value: Owned<Step>; indexes: { job: [string, string] } };
  jobs: { key: [string, string]; value: Owned<Base>; indexes: { person: string } };
  waiting: { key: [string, string, string]; value: Owned<WaitingPhoto>; indexes: { job: [string, string] } };
  /** What belongs to no job: the catalogue new jobs begin with. */
  shelf: { key: string; value: unknown };
  // Of versions 1 and 2, only read to be carried over.
  edits: { key: string; value: { jobId: string; edit: Edit } };
  bases: { key: string; value: { job: Job; sequence: number } };
  photos: { key: string; value: WaitingPhoto };
}

let shared: KeptStore | undefined;

/** The store of this device; one for all jobs. */
export function keptStore(): KeptStore {
  shared ??= new KeptStore();
  return shared;
}

/**
 * What this device has not sent yet, and the last job it was given: both outlive a closed tab and a dead
 * battery.
 */
export class KeptStore {
  private opened: Promise<IDBPDatabase<KeptSchema>> | undefined;

  constructor(
    private readonly name = 'inventario',
    private readonly person = PERSON,
  ) {}

  /** What cannot be opened now, or was closed over our heads, is tried again by whoever asks next. */
  private get database(): Promise<IDBPDatabase<KeptSchema>> {
    if (!this.opened) {
      const shut = () => {
        if (this.opened === opened) this.opened = undefined;
      };
      const opened = open(this.name, this.person, shut);
      this.opened = opened;
      opened.catch(shut);
    }
    return this.opened;
  }

  async job(jobId: string): Promise<KeptJob> {
    const transaction = (await this.database).transaction(STORES, 'readonly');
    const own: [string, string] = [this.person, jobId];
    const [base, pending, questions, steps] = await Promise.all([
      transaction.objectStore('jobs').get(own),
      transaction.objectStore('pending').index('job').getAll(own),
      transaction.objectStore('questions').index('job').getAll(own),
      transaction.objectStore('steps').index('job').getAll(own),
    ]);
    const made = (a: { edit: Edit }, b: { edit: Edit }) =>
      a.edit.n - b.edit.n || (a.edit.id < b.edit.id ? -1 : 1);
    return {
      base: base && { job: base.job, sequence: base.sequence, generation: base.generation },
      pending: pending.map(bare).sort(made),
      questions: questions.map(bare).sort(made),
      steps: steps.map(bare).sort((a, b) => (a.id < b.id ? -1 : 1)),
    };
  }

  async write(jobId: string, change: KeptChange): Promise<void> {
    const transaction = (await this.database).transaction(STORES, 'readwrite', { durability: 'strict' });
    const own = { person: this.person, jobId };
    const [jobs, pending, questions, steps] = STORES.map((name) =>
      transaction.objectStore(name),
    ) as unknown as [Store, Store, Store, Store];
    await committed(transaction, [
      ...(change.put ?? []).map((row) => () => pending.put({ ...row, ...own }, row.edit.id)),
      ...(change.drop ?? []).map((id) => () => pending.delete(id)),
      ...(change.ask ?? []).map((question) => () => questions.put({ ...question, ...own }, question.edit.id)),
      ...(change.settled ?? []).map((id) => () => questions.delete(id)),
      ...(change.steps ?? []).map((step) => () => steps.put({ ...step, ...own }, step.id)),
      ...(change.dropSteps ?? []).map((id) => () => steps.delete(id)),
      ...(change.base ? [() => jobs.put({ ...change.base, ...own }, [this.person, jobId])] : []),
    ]);
  }

  /** Takes everything of a job off this device. */
  async forget(jobId: string): Promise<void> {
    const names = ['pending', 'questions', 'steps', 'waiting'] as const;
    const transaction = (await this.database).transaction(['jobs', ...names], 'readwrite');
    await transaction.objectStore('jobs').delete([this.person, jobId]);
    for (const name of names) {
      const store = transaction.objectStore(name);
      for (const key of await store.index('job').getAllKeys([this.person, jobId]))
        await store.delete(key as never);
    }
    await transaction.done;
  }

  /** The jobs on this device, with what of each has not been sent. */
  async jobs(): Promise<{ id: string; name: string; unsent: number; made: boolean }[]> {
    const database = await this.database;
    const bases = await database.getAllFromIndex('jobs', 'person', this.person);
    return Promise.all(
      bases.map(async ({ job, generation }) => {
        const [pending, questions] = await Promise.all([
          database.countFromIndex('pending', 'job', [this.person, job.id]),
          database.countFromIndex('questions', 'job', [this.person, job.id]),
        ]);
        return { id: job.id, name: job.name, unsent: pending + questions, made: generation === null };
      }),
    );
  }

  async photos(jobId: string): Promise<WaitingPhoto[]> {
    return (await (await this.database).getAllFromIndex('waiting', 'job', [this.person, jobId])).map(
      bare,
    ) as WaitingPhoto[];
  }

  async putPhoto(photo: WaitingPhoto): Promise<void> {
    const transaction = (await this.database).transaction('waiting', 'readwrite', { durability: 'strict' });
    const key: [string, string, string] = [this.person, photo.jobId, photo.photoId];
    await committed(transaction, [() => transaction.store.put({ ...photo, person: this.person }, key)]);
  }

  async removePhoto(jobId: string, photoId: string): Promise<void> {
    await (await this.database).delete('waiting', [this.person, jobId, photoId]);
  }

  async catalogue(): Promise<Catalogue | undefined> {
    return (await (await this.database).get('shelf', 'catalogue')) as Catalogue | undefined;
  }

  async keepCatalogue(catalogue: Catalogue): Promise<void> {
    await (await this.database).put('shelf', catalogue, 'catalogue');
  }
}

interface Store {
  put(value: unknown, key: unknown): Promise<unknown>;
  delete(key: unknown): Promise<unknown>;
}

interface Writing {
  readonly done: Promise<void>;
  commit(): void;
  abort(): void;
}

/**
 * Does all of a write or nothing of it. A page that closes in this moment takes back what is not committed,
 * so it is committed at once, without waiting for a word on each record.
 */
async function committed(transaction: Writing, writes: readonly (() => Promise<unknown>)[]): Promise<void> {
  const doing: Promise<unknown>[] = [transaction.done];
  try {
    for (const write of writes) doing.push(write());
    transaction.commit();
    await Promise.all(doing);
  } catch (error) {
    // Each of them fails with the whole; the reason is the first one's.
    void Promise.allSettled(doing);
    takeBack(transaction);
    throw error;
  }
}

function takeBack(transaction: Writing): void {
  try {
    transaction.abort();
  } catch {
    // It failed by itself, and is taken back already.
  }
}

function bare<Value extends object>({ person: _, ...row }: Owned<Value>): Value {
  return row as unknown as Value;
}

/**
 * @param shut is told when the connection is no more: storage was cleared, or a newer version waits for it
 */
async function open(name: string, person: string, shut: () => void): Promise<IDBPDatabase<KeptSchema>> {
  let refuse: (reason: Error) => void = () => {};
  const blocked = new Promise<never>((_, reject) => {
    refuse = reject;
  });
  const opening = openDB<KeptSchema>(name, 3, {
    blocked: () => refuse(new Error('Another tab has an older Inventario open.')),
    blocking: (_, __, event) => {
      (event.target as IDBDatabase).close();
      shut();
    },
    terminated: shut,
    async upgrade(database, from, _, transaction) {
      const job: [string, string] = ['person', 'jobId'];
      for (const store of ['pending', 'questions', 'steps', 'waiting'] as const)
        database.createObjectStore(store).createIndex('job', job);
      database.createObjectStore('jobs').createIndex('person', 'person');
      database.createObjectStore('shelf');
      if (from < 1) return;
      // What an earlier version kept is carried over, not thrown away.
      for (const [id, { jobId, edit }] of await entries(transaction.objectStore('edits')))
        await transaction.objectStore('pending').put({ person, jobId, edit }, id);
      for (const [id, { job: kept, sequence }] of await entries(transaction.objectStore('bases')))
        await transaction
          .objectStore('jobs')
          .put({ person, jobId: id, job: kept, sequence, generation: '' }, [person, id]);
      if (from >= 2)
        for (const [id, photo] of await entries(transaction.objectStore('photos')))
          await transaction.objectStore('waiting').put({ ...photo, person }, [person, photo.jobId, id]);
      for (const old of from >= 2 ? (['edits', 'bases', 'photos'] as const) : (['edits', 'bases'] as const))
        database.deleteObjectStore(old);
    },
  });
  return Promise.race([opening, blocked]);
}

async function entries<Value>(store: {
  getAllKeys(): Promise<string[]>;
  getAll(): Promise<Value[]>;
}): Promise<[string, Value][]> {
  const [keys, values] = await Promise.all([store.getAllKeys(), store.getAll()]);
  return keys.map((key, index) => [key, values[index] as Value]);
}
