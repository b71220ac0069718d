import { X509Certificate } from 'node:crypto';
import { readFileSync } from 'node:fs';
import { hostname, networkInterfaces } from 'node:os';
import { resolve } from 'node:path';

/** The addresses that this machine has on its networks, IPv4, without the one it has for itself. */
export const networkAddresses = (): string[] =>
  Object.values(networkInterfaces())
    .flatMap((all) => all ?? [])
    .filter(({ family, internal }) => family === 'IPv4' && !internal)
    .map(({ address }) => address);

/** Lifetime of a cached answer, ms: a machine may be given another address while it runs, ms. */
const GOOD_MS = 10_000;
let known: { at: number; names: ReadonlySet<string> } | null = null;

/**
 * What this machine answers to on the network: its addresses, and its name, alone and as it is
 * called there.
 */
export function networkNames(): ReadonlySet<string> {
  if (known && Date.now() - known.at < GOOD_MS) return known.names;
  const name = hostname().toLowerCase();
  const own = [name, ...(name.includes('.') ? [] : [`${name}.local`]), 'localhost', '127.0.0.1'];
  known = { at: Date.now(), names: new Set([...networkAddresses(), ...own]) };
  return known.names;
}

export const networkPort = (): number =>
  Number(process.env.PATRONE_NETWORK_PORT ?? Number(process.env.PORT ?? 4170) + 10);

/** Key and certificate of our own, where the network is served; null where it is not. */
export function tlsFiles(): { key: Buffer; cert: Buffer } | null {
  const folder = process.env.PATRONE_TLS;
  return folder
    ? {
        key: readFileSync(resolve(folder, 'key.pem')),
        cert: readFileSync(resolve(folder, 'cert.pem')),
      }
    : null;
}

/**
 * The shop's own certificate, which signs the machine's: what a phone can be told to trust. Null
 * where there is none.
 */
export function shopCertificate(): X509Certificate | null {
  const folder = process.env.PATRONE_TLS;
  return folder ? new X509Certificate(readFileSync(resolve(folder, 'shop.pem'))) : null;
}

/**
 * Where phones find this machine, and by what they know it and the shop; null where it answers only
 * here.
 */
export function network(): {
  addresses: string[];
  fingerprint: string;
  shopFingerprint: string;
} | null {
  const files = tlsFiles();
  const shop = shopCertificate();
  if (!files || !shop) return null;
  const addresses = networkAddresses().map((address) => `https://${address}:${networkPort()}`);
  const { fingerprint256 } = new X509Certificate(files.cert);
  return { addresses, fingerprint: fingerprint256, shopFingerprint: shop.fingerprint256 };
}
