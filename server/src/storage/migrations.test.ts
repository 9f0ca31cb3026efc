import { quillonPoint } from '@inventario/demo';
import { describe, expect, test } from '@jest/globals';
import { QueryTypes, type Sequelize } from 'sequelize';
import { freshDatabase } from '../test-support/test-app.js';
import { connect } from './database.js';
import { JobStore } from './job-store.js';
import { LaterDatabaseError, MIGRATIONS, migrate } from './migrations.js';

/** Where those that were run are noted. */
const META = 'sequelize_meta';
const [first, ...later] = MIGRATIONS as [(typeof MIGRATIONS)[number], ...(typeof MIGRATIONS)[number][]];

async function withDatabase(work: (sequelize: Sequelize) => Promise<void>): Promise<void> {
  const sequelize = connect(await freshDatabase());
  try {
    await work(sequelize);
  } finally {
    await sequelize.close();
  }
}

/** The database as the first version left it, with a job of two records and one change in it. */
async function landed(sequelize: Sequelize): Promise<void> {
  for (const statement of first.statements) await sequelize.query(statement);
  await sequelize.query(`CREATE TABLE ${META} (name VARCHAR(255) NOT NULL PRIMARY KEY)`);
  await insert(sequelize, META, { name: first.name });
  const { rooms: _, ...whole } = quillonPoint();
  const lists = ['room', 'circuit', 'load', 'box', 'group', 'selection', 'pairing', 'event', 'photo'];
  const header = {
    format: whole.format,
    version: 1,
    id: 'old',
    name: 'Old house',
    practice: 'us',
    edition: '2023',
  };
  await insert(sequelize, 'jobs', {
    id: 'old',
    name: 'Old house',
    sequence: 1,
    version: 0,
    header: JSON.stringify(header),
    lists: JSON.stringify(lists),
    updated_at: '2026-03-01 10:00:00.000',
  });
  const room = (id: string, place: number, name: string) =>
    insert(sequelize, 'rooms', {
      job_id: 'old',
      kind: 'room',
      id,
      place,
      version: 0,
      doc: JSON.stringify({ id, name, floor: 0, order: place }),
    });
  await room('hall', 0, 'Hall');
  await room('attic', 1, 'Attic');
  const parts = [{ kind: 'room', id: 'hall', base: 0, set: { name: { was: 'Entry', now: 'Hall' } } }];
  const edit = {
    id: 'e1',
    deviceId: 'phone',
    n: 1,
    at: '2026-03-01T09:59:00Z',
    label: 'Call it Hall',
    parts,
  };
  await insert(sequelize, 'changes', {
    job_id: 'old',
    sequence: 1,
    edit_id: 'e1',
    device_id: 'phone',
    edit: JSON.stringify(edit),
  });
}

const insert = (sequelize: Sequelize, table: string, row: Record<string, unknown>) =>
  sequelize.query(
    `INSERT INTO ${table} (${Object.keys(row).join(', ')}) VALUES (${Object.keys(row)
      .map(() => '?')
      .join(', ')})`,
    {
      replacements: Object.values(row),
      type: QueryTypes.INSERT,
    },
  );

describe('an upgrade with data in it', () => {
  const statements = later.flatMap((migration) => migration.statements);

  test.each(statements.map((_, index) => index).concat(statements.length))(
    'cut off after %d statements is finished by the next start',
    async (count) => {
      await withDatabase(async (sequelize) => {
        await landed(sequelize);
        for (const statement of statements.slice(0, count)) await sequelize.query(statement);
        await migrate(sequelize);
        const store = new JobStore(sequelize);
        const stored = await store.read('old');
        expect(stored).toMatchObject({
          sequence: 1,
          generation: expect.stringMatching(/^[0-9a-f-]{36}$/),
          job: { name: 'Old house' },
        });
        expect(stored?.job.rooms.map((room) => room.name)).toEqual(['Hall', 'Attic']);
        const [entry] = await store.log.history('old', { before: 9, limit: 5 });
        expect(entry).toMatchObject({ at: '2026-03-01T09:59:00Z', label: 'Call it Hall', undo: null });
        const renamed = { ...(stored?.job as NonNullable<typeof stored>['job']), name: 'New name' };
        await store.replace(renamed, new Date());
        expect((await store.read('old'))?.job).toEqual(renamed);
      });
    },
  );

  test('cut off in the middle of the very first is finished too', async () => {
    for (const count of [1, 2, 7, first.statements.length])
      await withDatabase(async (sequelize) => {
        for (const statement of first.statements.slice(0, count)) await sequelize.query(statement);
        await migrate(sequelize);
        await new JobStore(sequelize).replace(quillonPoint(), new Date());
        expect((await new JobStore(sequelize).read('quillon-point'))?.job).toEqual(
          JSON.parse(JSON.stringify(quillonPoint())),
        );
      });
  });
});

test('two that start together do not get in each other’s way', async () => {
  await withDatabase(async (sequelize) => {
    await landed(sequelize);
    await Promise.all([migrate(sequelize), migrate(sequelize), migrate(sequelize)]);
    expect((await new JobStore(sequelize).read('old'))?.job.name).toBe('Old house');
  });
});

test('a database of a later version is left alone and refused', async () => {
  await withDatabase(async (sequelize) => {
    await migrate(sequelize);
    await insert(sequelize, META, { name: '9999-of-another-day' });
    await expect(migrate(sequelize)).rejects.toThrow(LaterDatabaseError);
    await expect(migrate(sequelize)).rejects.toThrow('9999-of-another-day');
  });
});
