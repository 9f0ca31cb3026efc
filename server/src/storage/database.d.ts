import { Sequelize } from 'sequelize';
export interface DatabaseAddress {
    host: string;
    port: number;
    user: string;
    password: string;
    database: string;
}
export declare function connect(address: DatabaseAddress): Sequelize;
