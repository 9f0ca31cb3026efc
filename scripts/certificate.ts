// A certificate made on request, so that a phone keeps the application and works without the network.
import { X509Certificate } from 'node:crypto';
import { existsSync, mkdirSync, readFileSync, renameSync, writeFileSync } from 'node:fs';
import { isIP } from 'node:net';
import { hostname, networkInterfaces } from 'node:os';
import { join } from 'node:path';
import selfsigned from 'selfsigned';

/** Files, in PEM. */
export interface Tls {
  certificate: string;
  key: string;
}

const DAYS = 800;
const DAY = 86_400_000;

/**
 * The certificate of this data folder; made when there is none, or when it would soon be old or lacks a name.
 */
export async function madeCertificate(folder: string, hosts: readonly string[]): Promise<Tls> {
  const paths = { certificate: join(folder, 'certificate.pem'), key: join(folder, 'key.pem') };
  const own = Object.values(networkInterfaces()).flatMap((list) =>
    (list ?? []).map((entry) => entry.address),
  );
  const names = [
    ...new Set(['localhost', hostname(), '127.0.0.1', '::1', ...own, ...hosts.map((host) => host.trim())]),
  ].filter((name) => name !== '' && !name.startsWith('fe80:'));
  if (isGood(paths, names)) return paths;
  mkdirSync(folder, { recursive: true, mode: 0o700 });
  const made = await selfsigned.generate([{ name: 'commonName', value: 'Inventario on this site' }], {
    keySize: 2048,
    algorithm: 'sha256',
    notAfterDate: new Date(Date.now() + DAYS * DAY),
    extensions: [
      { name: 'basicConstraints', cA: true, critical: true },
      {
        name: 'subjectAltName',
        altNames: names.map((name) => (isIP(name) ? { type: 7, ip: name } : { type: 2, value: name })),
      },
    ],
  });
  for (const [path, text] of [
    [paths.key, made.private],
    [paths.certificate, made.cert],
  ] as const) {
    writeFileSync(`${path}.making`, text, { mode: 0o600 });
    renameSync(`${path}.making`, path);
  }
  return paths;
}

/** What a person compares on the other device before trusting the certificate. */
export function fingerprintOf({ certificate }: Tls): string {
  return new X509Certificate(readFileSync(certificate)).fingerprint256;
}

function isGood({ certificate, key }: Tls, names: readonly string[]): boolean {
  if (!existsSync(certificate) || !existsSync(key)) return false;
  try {
    const known = new X509Certificate(readFileSync(certificate));
    const covers = (name: string) => (isIP(name) ? known.checkIP(name) : known.checkHost(name)) !== undefined;
    return Date.parse(known.validTo) > Date.now() + 30 * DAY && names.every(covers);
  } catch {
    return false;
  }
}
