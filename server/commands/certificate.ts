import 'reflect-metadata';
import { X509Certificate, createPrivateKey, randomBytes } from 'node:crypto';
import { chmodSync, chownSync, mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import { BlockList } from 'node:net';
import { hostname } from 'node:os';
import { join } from 'node:path';
import { AsnConvert } from '@peculiar/asn1-schema';
import { GeneralName, GeneralSubtree, GeneralSubtrees, NameConstraints } from '@peculiar/asn1-x509';
import * as x509 from '@peculiar/x509';
import { renderUnicodeCompact } from 'uqr';
import { networkAddresses } from '#app/frame/network.server';
import { ownedByServer } from './postgres';
import { databaseUser } from './settings';
import { Refusal, say } from './tell';

/**
 * A certificate of our own for the shop's network: phones know it by its fingerprint. It is signed by
 * the shop's own, made once for ten years, which a phone can be told to trust: that one is good for
 * this machine's names and addresses and for those of closed networks, and for nothing else
 * (RFC 5280, name constraints). The machine's is made anew a month before it ends and when its
 * addresses change; the shop's a year before it ends, and where it is not good for an address the
 * machine has been given since. The keys are the server's alone.
 */

const DAY_MS = 86_400_000;
const [SHOP_DAYS, MACHINE_DAYS] = [3650, 397];
/** Time before its end at which a certificate is made anew, days. */
const [SHOP_RENEWED_DAYS, MACHINE_RENEWED_DAYS] = [365, 30];

const ALGORITHM = { name: 'ECDSA', namedCurve: 'P-256', hash: 'SHA-256' };
/** Closed networks (RFC 1918, RFC 3927) and this machine alone. */
const CLOSED = ['127.0.0.0/8', '10.0.0.0/8', '172.16.0.0/12', '192.168.0.0/16', '169.254.0.0/16'];
const NAME_CONSTRAINTS = '2.5.29.30';

/** What a machine is called and reached by. */
export type Names = { dns: string[]; ip: string[] };

export const namesOf = (host: string, addresses: readonly string[]): Names => ({
  dns: ['localhost', host, `${host}.local`],
  ip: ['127.0.0.1', ...addresses],
});

/** A certificate and its key. */
type Signed = { certificate: x509.X509Certificate; key: CryptoKey };

const newKeys = () => crypto.subtle.generateKey(ALGORITHM, true, ['sign', 'verify']);
const lasting = (days: number, from: Date) => ({
  notBefore: from,
  notAfter: new Date(from.getTime() + days * DAY_MS),
});
/** A number of its own, positive and of 16 bytes at most. */
const serialNumber = (): string => `00${randomBytes(15).toString('hex')}`;

/** The shop's own certificate, good for `names` and for closed networks. */
export async function shopCertificate(host: string, names: Names, from: Date): Promise<Signed> {
  const keys = await newKeys();
  const bases = [
    ...names.dns.map((dNSName) => ({ dNSName })),
    ...[...CLOSED, ...names.ip.map((address) => `${address}/32`)].map((iPAddress) => ({
      iPAddress,
    })),
  ];
  const permittedSubtrees = new GeneralSubtrees(
    bases.map((base) => new GeneralSubtree({ base: new GeneralName(base) })),
  );
  const constraints = AsnConvert.serialize(new NameConstraints({ permittedSubtrees }));
  const certificate = await x509.X509CertificateGenerator.createSelfSigned({
    serialNumber: serialNumber(),
    name: [{ CN: [`Patrone of this shop (${host})`] }],
    ...lasting(SHOP_DAYS, from),
    signingAlgorithm: ALGORITHM,
    keys,
    extensions: [
      new x509.BasicConstraintsExtension(true, 0, true),
      new x509.KeyUsagesExtension(x509.KeyUsageFlags.keyCertSign, true),
      await x509.SubjectKeyIdentifierExtension.create(keys.publicKey, false),
      new x509.Extension(NAME_CONSTRAINTS, true, constraints),
    ],
  });
  return { certificate, key: keys.privateKey };
}

/** The machine's certificate, signed by the shop's. */
export async function machineCertificate(
  host: string,
  names: Names,
  shop: Signed,
  from: Date,
): Promise<Signed> {
  const keys = await newKeys();
  const certificate = await x509.X509CertificateGenerator.create({
    serialNumber: serialNumber(),
    subject: [{ CN: [`Patrone on ${host}`] }],
    issuer: shop.certificate.subject,
    ...lasting(MACHINE_DAYS, from),
    signingAlgorithm: ALGORITHM,
    publicKey: keys.publicKey,
    signingKey: shop.key,
    extensions: [
      new x509.SubjectAlternativeNameExtension([
        ...names.dns.map((value) => ({ type: 'dns' as const, value })),
        ...names.ip.map((value) => ({ type: 'ip' as const, value })),
      ]),
      new x509.BasicConstraintsExtension(false, undefined, true),
      new x509.KeyUsagesExtension(x509.KeyUsageFlags.digitalSignature, true),
      new x509.ExtendedKeyUsageExtension([x509.ExtendedKeyUsage.serverAuth]),
      await x509.AuthorityKeyIdentifierExtension.create(shop.certificate.publicKey, false),
    ],
  });
  return { certificate, key: keys.privateKey };
}

/** Whether a shop's certificate is good for all of `names`, by its name constraints. */
export function isGoodFor(shop: x509.X509Certificate, names: Names): boolean {
  const extension = shop.getExtension(NAME_CONSTRAINTS);
  if (!extension) return false;
  const { permittedSubtrees } = AsnConvert.parse(extension.value, NameConstraints);
  const bases = Array.from(permittedSubtrees ?? []).map(({ base }) => base);
  const blocks = new BlockList();
  for (const { iPAddress } of bases) {
    const [address, bits] = (iPAddress ?? '').split('/');
    if (address && bits) blocks.addSubnet(address, Number(bits), 'ipv4');
  }
  const domains = bases.flatMap(({ dNSName }) => dNSName ?? []);
  return (
    names.ip.every((address) => blocks.check(address, 'ipv4')) &&
    names.dns.every((name) =>
      domains.some((domain) => name === domain || name.endsWith(`.${domain}`)),
    )
  );
}

/** Whether a certificate holds for at least `days` from `now`. */
const lasts = ({ notAfter }: x509.X509Certificate, days: number, now: Date): boolean =>
  notAfter.getTime() - now.getTime() > days * DAY_MS;

const pemOf = async (key: CryptoKey): Promise<string> =>
  x509.PemConverter.encode(await crypto.subtle.exportKey('pkcs8', key), 'PRIVATE KEY');
const keyFrom = async (pem: string): Promise<CryptoKey> => {
  const der = createPrivateKey(pem).export({ type: 'pkcs8', format: 'der' });
  return crypto.subtle.importKey('pkcs8', der, ALGORITHM, true, ['sign']);
};

/** The files of the folder: the shop's certificate and key, the machine's, and what it is good for. */
const FILES = {
  shop: { certificate: 'shop.pem', key: 'shop-key.pem' },
  machine: { certificate: 'cert.pem', key: 'key.pem' },
};

const read = (file: string): string | null => {
  try {
    return readFileSync(file, 'utf8');
  } catch {
    return null;
  }
};

async function stored(folder: string, of: keyof typeof FILES): Promise<Signed | null> {
  const [pem, key] = [FILES[of].certificate, FILES[of].key].map((name) => read(join(folder, name)));
  if (!pem || !key) return null;
  try {
    return { certificate: new x509.X509Certificate(pem), key: await keyFrom(key) };
  } catch {
    return null;
  }
}

async function store(folder: string, of: keyof typeof FILES, made: Signed): Promise<void> {
  const user = databaseUser();
  const texts = {
    [FILES[of].certificate]: `${made.certificate.toString('pem')}\n`,
    [FILES[of].key]: `${await pemOf(made.key)}\n`,
  };
  for (const [name, text] of Object.entries(texts)) {
    const file = join(folder, name);
    writeFileSync(file, text, { mode: 0o600 });
    chmodSync(file, 0o600);
    if (user) chownSync(file, user.uid, user.gid);
  }
}

/** Makes what is missing or ends soon of the certificates in a folder. */
export async function ownCertificate(folder: string, now = new Date()): Promise<void> {
  const host = hostname() || 'patrone';
  const names = namesOf(host, networkAddresses());
  try {
    mkdirSync(folder, { recursive: true });
    ownedByServer(folder);
    chmodSync(folder, 0o700);
    let shop = await stored(folder, 'shop');
    const good =
      shop && lasts(shop.certificate, SHOP_RENEWED_DAYS, now) && isGoodFor(shop.certificate, names);
    if (!shop || !good) {
      shop = await shopCertificate(host, names, now);
      await store(folder, 'shop', shop);
    }
    const machine = await stored(folder, 'machine');
    if (machine && (await stands(machine.certificate, shop.certificate, names, now))) return;
    await store(folder, 'machine', await machineCertificate(host, names, shop, now));
  } catch (error) {
    if (error instanceof Refusal) throw error;
    throw new Refusal(
      `the certificates could not be made in ${folder} (${(error as Error).message}): remove that folder and run again.`,
    );
  }
}

/** Whether a machine's certificate is of this shop, lasts, and is of just these names. */
async function stands(
  machine: x509.X509Certificate,
  shop: x509.X509Certificate,
  names: Names,
  now: Date,
): Promise<boolean> {
  const own = machine.getExtension(x509.SubjectAlternativeNameExtension);
  const said = (own?.names.items ?? []).map(({ value }) => value).sort();
  return (
    lasts(machine, MACHINE_RENEWED_DAYS, now) &&
    said.join() === [...names.dns, ...names.ip].sort().join() &&
    (await machine.verify({ publicKey: shop.publicKey, date: now }))
  );
}

/** Tells where phones find this machine, as a picture too, and by what they know it. */
export function sayNetwork(folder: string, addresses: readonly string[], port: number): void {
  for (const address of addresses) say(`On the shop's network: https://${address}:${port}`);
  const [first] = addresses;
  if (first === undefined) say('This machine is on no network: phones find it once it is.');
  else say(renderUnicodeCompact(`https://${first}:${port}`));
  const { fingerprint256 } = new X509Certificate(readFileSync(join(folder, 'cert.pem')));
  say(`Its certificate's fingerprint (SHA-256): ${fingerprint256}`);
}
