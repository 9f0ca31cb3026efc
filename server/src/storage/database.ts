import * as mariadb from 'mariadb';
import { Sequelize } from 'sequelize';

export interface DatabaseAddress {
  host: string;
  port: number;
  user: string;
  password: string;
  database: string;
}

export function connect(address: DatabaseAddress): Sequelize {
  return new Sequelize(address.database, address.user, address.password, {
    dialect: 'mariadb',
    dialectModule: mariadb,
    host: address.host,
    port: address.port,
    timezone: '+00:00',
    logging: false,
    define: { underscored: true, timestamps: false },
    // A busy machine takes its time to answer; one that is off refuses at once.
    dialectOptions: { connectTimeout: 30_000 },
    pool: { max: 8, acquire: 60_000 },
  });
}
