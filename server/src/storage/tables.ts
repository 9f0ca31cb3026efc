import type { JobRecord, ListKind } from '@inventario/core';
import { DataTypes, type Model, type ModelAttributes, type ModelStatic, type Sequelize } from 'sequelize';

/**
 * Which table keeps which kind of record, parents before children. `references` are the fields a foreign key
 * stands on. Kinds that share a table are told apart by its `kind` column.
 */
export const TABLES = {
  rooms: { kinds: ['room'], references: {} },
  circuits: { kinds: ['circuit'], references: {} },
  loads: { kinds: ['load'], references: { roomId: 'rooms' } },
  boxes: { kinds: ['box'], references: { roomId: 'rooms' } },
  light_groups: { kinds: ['group'], references: {} },
  runs: { kinds: ['run'], references: {} },
  selections: { kinds: ['selection'], references: { boxId: 'boxes' } },
  pairings: { kinds: ['pairing'], references: { boxId: 'boxes' } },
  events: { kinds: ['event'], references: {} },
  photos: { kinds: ['photo'], references: {} },
  catalogue: { kinds: ['device', 'hub', 'part', 'connector', 'enclosure', 'platform'], references: {} },
  extras: {
    kinds: ['controlPoint', 'thing', 'hubSetup', 'account', 'automation', 'override'],
    references: {},
  },
} as const satisfies Record<
  string,
  { kinds: readonly ListKind[]; references: Readonly<Record<string, string>> }
>;

export type TableName = keyof typeof TABLES;
export const TABLE_NAMES = Object.keys(TABLES) as TableName[];

export function tableOf(kind: ListKind): TableName {
  const name = TABLE_NAMES.find((table) => (TABLES[table].kinds as readonly ListKind[]).includes(kind));
  if (!name) throw new Error(`No table keeps records of the kind "${kind}": add it to TABLES`);
  return name;
}

/**
 * A row of any record table. `version` is the change of the job that wrote it last; `place` orders the list.
 */
export interface RecordRow {
  jobId: string;
  kind: ListKind;
  id: string;
  place: number;
  version: number;
  ownerId: string | null;
  doc: JobRecord;
}

interface JobRow {
  id: string;
  ownerId: string | null;
  name: string;
  sequence: number;
  version: number;
  header: JobRecord;
  lists: ListKind[];
  updatedAt: Date;
  /** Another one begins when the job is replaced as a whole, or comes back from the bin. */
  generation: string;
  /** Since when it lies in the bin. */
  removedAt: Date | null;
  summary: unknown;
  /** What the summary was made of. */
  summaryOf: string | null;
}

interface ChangeRow {
  jobId: string;
  sequence: number;
  editId: string | null;
  deviceId: string | null;
  edit: unknown;
  takenAt: Date | null;
  /** The parts that take it back; null when that is not on record. */
  takeBack: unknown;
}

/** Ids compare byte by byte. */
const ID_COLUMN = 'VARCHAR(64) CHARACTER SET ascii COLLATE ascii_bin';
const KEY_COLUMN = 'VARCHAR(600) CHARACTER SET ascii COLLATE ascii_bin';

type RowModel<Row extends object> = ModelStatic<Model<Row, Row>>;

export interface Tables {
  jobs: RowModel<JobRow>;
  changes: RowModel<ChangeRow>;
  records: Record<TableName, RowModel<RecordRow & Record<string, unknown>>>;
}

export function defineTables(sequelize: Sequelize): Tables {
  const jobs = sequelize.define<Model<JobRow, JobRow>>(
    'jobs',
    {
      id: { type: ID_COLUMN, primaryKey: true },
      ownerId: { type: ID_COLUMN },
      name: DataTypes.STRING(400),
      sequence: DataTypes.INTEGER,
      version: DataTypes.INTEGER,
      header: DataTypes.JSON,
      lists: DataTypes.JSON,
      updatedAt: DataTypes.DATE(3),
      generation: { type: ID_COLUMN },
      removedAt: DataTypes.DATE(3),
      summary: DataTypes.JSON,
      summaryOf: DataTypes.STRING(120),
    },
    { tableName: 'jobs' },
  );
  const changes = sequelize.define<Model<ChangeRow, ChangeRow>>(
    'changes',
    {
      jobId: { type: ID_COLUMN, primaryKey: true },
      sequence: { type: DataTypes.INTEGER, primaryKey: true },
      editId: { type: ID_COLUMN },
      deviceId: { type: ID_COLUMN },
      edit: DataTypes.JSON,
      takenAt: DataTypes.DATE(3),
      takeBack: DataTypes.JSON,
    },
    { tableName: 'changes' },
  );
  const records = Object.fromEntries(
    TABLE_NAMES.map((name) => {
      const columns: ModelAttributes = {
        jobId: { type: ID_COLUMN, primaryKey: true },
        kind: { type: 'VARCHAR(16) CHARACTER SET ascii COLLATE ascii_bin', primaryKey: true },
        id: { type: KEY_COLUMN, primaryKey: true },
        place: DataTypes.INTEGER,
        version: DataTypes.INTEGER,
        ownerId: { type: ID_COLUMN },
        doc: DataTypes.JSON,
      };
      for (const field of Object.keys(TABLES[name].references)) columns[field] = { type: KEY_COLUMN };
      return [name, sequelize.define(name, columns, { tableName: name })];
    }),
  ) as Tables['records'];
  return { jobs, changes, records };
}
