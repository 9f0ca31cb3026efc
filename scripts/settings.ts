// What ./start and ./inventario-backup are told by the environment; whatever is wrong with it is said before
// anything is begun.
import { readFileSync } from 'node:fs';
import { isIP } from 'node:net';
import { networkInterfaces } from 'node:os';
import { join, resolve } from 'node:path';
import { createSecureContext } from 'node:tls';
import { madeCertificate, type Tls } from './certificate.js';
import { StartError } from './start-error.js';

export interface Settings {
  dataFolder: string;
  host: string;
  hosts: string;
  port: number;
  databasePort: number;
  sitePort: number;
  tls: Tls | undefined;
}

type Environment = Readonly<Record<string, string | undefined>>;

export function readSettings(env: Environment): Settings {
  const settings = {
    dataFolder: resolve(env.INVENTARIO_DATA ?? '.data'),
    host: hostOf(env.INVENTARIO_HOST ?? '127.0.0.1'),
    hosts: env.INVENTARIO_HOSTS ?? '',
    port: portOf(env, 'INVENTARIO_PORT', 4180),
    databasePort: portOf(env, 'INVENTARIO_DB_PORT', 4181),
    sitePort: portOf(env, 'INVENTARIO_SITE_PORT', 4182),
  };
  const named = [
    ['INVENTARIO_PORT', settings.port],
    ['INVENTARIO_DB_PORT', settings.databasePort],
    ['INVENTARIO_SITE_PORT', settings.sitePort],
  ] as const;
  for (const [index, [name, port]] of named.entries()) {
    const other = named.slice(0, index).find(([, taken]) => taken === port);
    if (other)
      throw new StartError(`${other[0]} and ${name} are both ${port}; each needs a port of its own.`);
  }
  return { ...settings, tls: undefined };
}

/** The certificate the server shows: the files named, or one made here on request. */
export async function readTls(env: Environment, { dataFolder, hosts }: Settings): Promise<Tls | undefined> {
  const [certificate, key, make] = [env.INVENTARIO_TLS_CERT, env.INVENTARIO_TLS_KEY, env.INVENTARIO_TLS];
  if (make !== undefined && make !== 'make')
    throw new StartError(`INVENTARIO_TLS can only be "make", not "${make}".`);
  if (certificate === undefined && key === undefined)
    return make ? madeCertificate(join(dataFolder, 'tls'), hosts.split(',')) : undefined;
  if (certificate === undefined)
    throw new StartError('INVENTARIO_TLS_KEY is given without INVENTARIO_TLS_CERT.');
  if (key === undefined) throw new StartError('INVENTARIO_TLS_CERT is given without INVENTARIO_TLS_KEY.');
  const read = (name: string, file: string) => {
    try {
      return readFileSync(file);
    } catch {
      throw new StartError(`The file ${file} of ${name} cannot be read.`);
    }
  };
  const [cert, secret] = [read('INVENTARIO_TLS_CERT', certificate), read('INVENTARIO_TLS_KEY', key)];
  try {
    createSecureContext({ cert, key: secret });
  } catch {
    throw new StartError(
      'INVENTARIO_TLS_CERT and INVENTARIO_TLS_KEY are not a certificate and its key, in PEM.',
    );
  }
  return { certificate: resolve(certificate), key: resolve(key) };
}

function portOf(env: Environment, name: string, usual: number): number {
  const value = Number(env[name] ?? usual);
  if (!Number.isInteger(value) || value < 1 || value > 65_535)
    throw new StartError(`${name} must be a port from 1 to 65535, not "${env[name]}".`);
  return value;
}

/** An address this machine has, or all of them. */
function hostOf(host: string): string {
  const own = Object.values(networkInterfaces()).flatMap((list) =>
    (list ?? []).map((entry) => entry.address),
  );
  if (host === 'localhost') return '127.0.0.1';
  if (isIP(host) === 0)
    throw new StartError(
      `INVENTARIO_HOST must be an address to listen on, such as 127.0.0.1 or 0.0.0.0, not "${host}".`,
    );
  if (!['0.0.0.0', '::', ...own].includes(host) && !host.startsWith('127.'))
    throw new StartError(`INVENTARIO_HOST is ${host}, which is no address of this machine.`);
  return host;
}
