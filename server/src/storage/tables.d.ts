import type { JobRecord, ListKind } from '@inventario/core';
import { type Model, type ModelStatic, type Sequelize } from 'sequelize';
/**
 * Which table keeps which kind of record, parents before children. `references` are the fields a foreign key stands on.
 * Kinds that share a table are told apart by its `kind` column.
 */
export declare const TABLES: {
    readonly rooms: {
        readonly kinds: readonly ["room"];
        readonly references: {};
    };
    readonly circuits: {
        readonly kinds: readonly ["circuit"];
        readonly references: {};
    };
    readonly loads: {
        readonly kinds: readonly ["load"];
        readonly references: {
            readonly roomId: 'rooms';
        };
    };
    readonly boxes: {
        readonly kinds: readonly ["box"];
        readonly references: {
            readonly roomId: 'rooms';
        };
    };
    readonly light_groups: {
        readonly kinds: readonly ["group"];
        readonly references: {};
    };
    readonly runs: {
        readonly kinds: readonly ["run"];
        readonly references: {};
    };
    readonly selections: {
        readonly kinds: readonly ["selection"];
        readonly references: {
            readonly boxId: 'boxes';
        };
    };
    readonly pairings: {
        readonly kinds: readonly ["pairing"];
        readonly references: {
            readonly boxId: 'boxes';
        };
    };
    readonly events: {
        readonly kinds: readonly ["event"];
        readonly references: {};
    };
    readonly photos: {
        readonly kinds: readonly ["photo"];
        readonly references: {};
    };
    readonly catalogue: {
        readonly kinds: readonly ["device", "hub", "part", "connector", "enclosure", "platform"];
        readonly references: {};
    };
    readonly extras: {
        readonly kinds: readonly ["controlPoint", "thing", "hubSetup", "account", "automation", "override"];
        readonly references: {};
    };
};
export type TableName = keyof typeof TABLES;
export declare const TABLE_NAMES: TableName[];
export declare function tableOf(kind: ListKind): TableName;
/** A row of any record table. `version` is the change of the job that wrote it last; `place` orders the list. */
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
}
interface ChangeRow {
    jobId: string;
    sequence: number;
    editId: string | null;
    deviceId: string | null;
    edit: unknown;
}
/** Ids compare byte by byte. */
export declare const ID_COLUMN = "VARCHAR(64) CHARACTER SET ascii COLLATE ascii_bin";
export declare const KEY_COLUMN = "VARCHAR(600) CHARACTER SET ascii COLLATE ascii_bin";
type RowModel<Row extends object> = ModelStatic<Model<Row, Row>>;
export interface Tables {
    jobs: RowModel<JobRow>;
    changes: RowModel<ChangeRow>;
    records: Record<TableName, RowModel<RecordRow & Record<string, unknown>>>;
}
export declare function defineTables(sequelize: Sequelize): Tables;
export {};
