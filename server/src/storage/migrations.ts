import { QueryTypes, type Sequelize } from 'sequelize';
import { SequelizeStorage, Umzug } from 'umzug';
import { ID_COLUMN, KEY_COLUMN, TABLE_NAMES, TABLES } from './tables.js';

/** Forward only, in this order, each run once. A migration that has landed is never changed. */
const MIGRATIONS: { name: string; statements: () => string[] }[] = [{ name: '0001-jobs-and-records', statements: jobsAndRecords }];

function jobsAndRecords(): string[] {
  const jobs = `CREATE TABLE jobs (
    id ${ID_COLUMN} NOT NULL PRIMARY KEY,
    owner_id ${ID_COLUMN} NULL,
    name VARCHAR(400) NOT NULL,
    sequence INT NOT NULL,
    version INT NOT NULL,
    header JSON NOT NULL,
    lists JSON NOT NULL,
    updated_at DATETIME(3) NOT NULL
  ) ENGINE=InnoDB`;
  const changes = `CREATE TABLE changes (
    job_id ${ID_COLUMN} NOT NULL,
    sequence INT NOT NULL,
    edit_id ${ID_COLUMN} NULL,
    device_id ${ID_COLUMN} NULL,
    edit JSON NULL,
    PRIMARY KEY (job_id, sequence),
    UNIQUE KEY one_edit (job_id, edit_id),
    FOREIGN KEY (job_id) REFERENCES jobs (id) ON DELETE CASCADE
  ) ENGINE=InnoDB`;
  const records = TABLE_NAMES.map((name) => {
    const references = Object.entries(TABLES[name].references);
    const column = (field: string) => field.replaceAll(/[A-Z]/g, (letter) => `_${letter.toLowerCase()}`);
    // Within a table all records of one kind share the key; the parent's `kind` is constant and part of its key's prefix order.
    return `CREATE TABLE ${name} (
      job_id ${ID_COLUMN} NOT NULL,
      kind VARCHAR(16) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
      id ${KEY_COLUMN} NOT NULL,
      place INT NOT NULL,
      version INT NOT NULL,
      owner_id ${ID_COLUMN} NULL,
      doc JSON NOT NULL,
      ${references.map(([field]) => `${column(field)} ${KEY_COLUMN} NOT NULL,`).join('\n')}
      PRIMARY KEY (job_id, kind, id),
      KEY by_id (job_id, id),
      ${references.map(([field, parent]) => `FOREIGN KEY (job_id, ${column(field)}) REFERENCES ${parent} (job_id, id),`).join('\n')}
      FOREIGN KEY (job_id) REFERENCES jobs (id) ON DELETE CASCADE
    ) ENGINE=InnoDB`;
  });
  return [jobs, changes, ...records];
}

/** Brings the database to the newest form. Two servers that start together wait for each other. */
export async function migrate(sequelize: Sequelize): Promise<void> {
  await sequelize.transaction(async (transaction) => {
    await sequelize.query("SELECT GET_LOCK('inventario-migrations', 60)", { transaction, type: QueryTypes.SELECT });
    try {
      const umzug = new Umzug({
        migrations: MIGRATIONS.map(({ name, statements }) => ({
          name,
          up: async () => {
            for (const statement of statements()) await sequelize.query(statement);
          },
        })),
        storage: new SequelizeStorage({ sequelize }),
        logger: undefined,
      });
      await umzug.up();
    } finally {
      await sequelize.query("SELECT RELEASE_LOCK('inventario-migrations')", { transaction, type: QueryTypes.SELECT });
    }
  });
}
