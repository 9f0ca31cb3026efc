import { QueryTypes, type Sequelize } from 'sequelize';
import { SequelizeStorage, Umzug } from 'umzug';
import { jobsAndRecords } from './migrations/0001-jobs-and-records.js';
import { generationsAndHistory } from './migrations/0002-generations-and-history.js';

/**
 * Forward only, in this order. Each is frozen once it has landed, and may be begun again from its first
 * statement wherever it was cut off: MariaDB takes no definition back.
 */
export const MIGRATIONS: readonly { name: string; statements: readonly string[] }[] = [
  { name: '0001-jobs-and-records', statements: jobsAndRecords },
  { name: '0002-generations-and-history', statements: generationsAndHistory },
];

/** The database was written by a later version of the program. */
export class LaterDatabaseError extends Error {}

/** Brings the database to the newest form. Two servers that start together wait for each other. */
export async function migrate(sequelize: Sequelize): Promise<void> {
  await sequelize.transaction(async (transaction) => {
    await sequelize.query("SELECT GET_LOCK('inventario-migrations', 60)", {
      transaction,
      type: QueryTypes.SELECT,
    });
    try {
      const storage = new SequelizeStorage({ sequelize });
      const umzug = new Umzug({
        migrations: MIGRATIONS.map(({ name, statements }) => ({
          name,
          up: async () => {
            for (const statement of statements) await sequelize.query(statement);
          },
        })),
        storage,
        logger: undefined,
      });
      const done = await storage.executed();
      const later = done.find((name) => !MIGRATIONS.some((migration) => migration.name === name));
      if (later !== undefined)
        throw new LaterDatabaseError(
          `The data were written by a later version of Inventario (${later}); start that version, or ` +
            'restore a backup.',
        );
      await umzug.up();
    } finally {
      await sequelize.query("SELECT RELEASE_LOCK('inventario-migrations')", {
        transaction,
        type: QueryTypes.SELECT,
      });
    }
  });
}
