import { type Sequelize } from 'sequelize';
/** Brings the database to the newest form. Two servers that start together wait for each other. */
export declare function migrate(sequelize: Sequelize): Promise<void>;
