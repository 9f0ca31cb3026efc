import type { Edit } from '@inventario/core';
import { type DBSchema, type IDBPDatabase, openDB } from 'idb';
import type { StoredJob } from './api.js';

/** A photograph that has not reached the server. */
export interface WaitingPhoto {
  jobId: string;
  photoId: string;
  picture: Blob;
}

interface LogSchema extends DBSchema {
  edits: { key: string; value: { jobId: string; edit: Edit }; indexes: { jobId: string } };
  bases: { key: string; value: StoredJob };
  photos: { key: string; value: WaitingPhoto; indexes: { jobId: string } };
}

let shared: PendingLog | undefined;

/** The log of this device; one for all jobs. */
export function pendingLog(): PendingLog {
  shared ??= new PendingLog();
  return shared;
}

/** Names of the jobs this device has opened, for when the server is away. */
export async function keptJobs(): Promise<{ id: string; name: string }[]> {
  return pendingLog().jobs();
}

/** What this device has not sent yet, and the last job it was given: both outlive a closed tab and a dead battery. */
export class PendingLog {
  private readonly database: Promise<IDBPDatabase<LogSchema>>;

  constructor(name = 'inventario') {
    this.database = openDB<LogSchema>(name, 2, {
      upgrade(database, from) {
        if (from < 1) {
          database.createObjectStore('edits').createIndex('jobId', 'jobId');
          database.createObjectStore('bases');
        }
        if (from < 2) database.createObjectStore('photos').createIndex('jobId', 'jobId');
      },
    });
  }

  /** In the order they were made. */
  async edits(jobId: string): Promise<Edit[]> {
    const rows = await (await this.database).getAllFromIndex('edits', 'jobId', jobId);
    return rows.map((row) => row.edit).sort((a, b) => a.n - b.n);
  }

  async put(jobId: string, edit: Edit): Promise<void> {
    await (await this.database).put('edits', { jobId, edit }, edit.id);
  }

  async remove(editIds: readonly string[]): Promise<void> {
    const transaction = (await this.database).transaction('edits', 'readwrite');
    await Promise.all([...editIds.map((id) => transaction.store.delete(id)), transaction.done]);
  }

  async photos(jobId: string): Promise<WaitingPhoto[]> {
    return (await this.database).getAllFromIndex('photos', 'jobId', jobId);
  }

  async putPhoto(photo: WaitingPhoto): Promise<void> {
    await (await this.database).put('photos', photo, photo.photoId);
  }

  async removePhoto(photoId: string): Promise<void> {
    await (await this.database).delete('photos', photoId);
  }

  async base(jobId: string): Promise<StoredJob | undefined> {
    return (await this.database).get('bases', jobId);
  }

  async jobs(): Promise<{ id: string; name: string }[]> {
    return (await (await this.database).getAll('bases')).map(({ job }) => ({ id: job.id, name: job.name }));
  }

  async keepBase(base: StoredJob): Promise<void> {
    await (await this.database).put('bases', base, base.job.id);
  }
}
