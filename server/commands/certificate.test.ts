import { execFileSync } from 'node:child_process';
import { X509Certificate } from 'node:crypto';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import fc from 'fast-check';
import { networkAddresses } from '#app/frame/network.server';
import {
  isGoodFor,
  machineCertificate,
  namesOf,
  ownCertificate,
  shopCertificate,
} from './certificate';

const NOW = new Date();
let folder = '';
beforeEach(() => (folder = mkdtempSync(join(tmpdir(), 'certificate-'))));
afterEach(() => rmSync(folder, { recursive: true, force: true }));

/** What OpenSSL says of a certificate under the shop's, name constraints and all. */
const opensslTakes = (shop: string, machine: string): boolean => {
  writeFileSync(join(folder, 'shop'), shop);
  writeFileSync(join(folder, 'machine'), machine);
  try {
    execFileSync('openssl', ['verify', '-CAfile', join(folder, 'shop'), join(folder, 'machine')], {
      stdio: 'ignore',
    });
    return true;
  } catch {
    return false;
  }
};

const octet = fc.integer({ min: 1, max: 254 });
const address = fc
  .tuple(
    fc.constantFrom('10.1', '192.168', '172.16', '172.40', '8.8', '203.0', '169.254'),
    octet,
    octet,
  )
  .map(([start, c, d]) => `${start}.${c}.${d}`);

test('it is good for what OpenSSL takes under it, and for nothing else', async () => {
  await fc.assert(
    fc.asyncProperty(address, address, async (given, later) => {
      const shop = await shopCertificate('bench', namesOf('bench', [given]), NOW);
      const names = namesOf('bench', [later]);
      const machine = await machineCertificate('bench', names, shop, NOW);
      const taken = opensslTakes(
        shop.certificate.toString('pem'),
        machine.certificate.toString('pem'),
      );
      expect(isGoodFor(shop.certificate, names)).toBe(taken);
    }),
    { numRuns: 25 },
  );
});

test('another name is not let pass by it', async () => {
  const shop = await shopCertificate('bench', namesOf('bench', []), NOW);
  const names = namesOf('elsewhere', []);
  const machine = await machineCertificate('bench', names, shop, NOW);
  expect(opensslTakes(shop.certificate.toString('pem'), machine.certificate.toString('pem'))).toBe(
    false,
  );
  expect(isGoodFor(shop.certificate, names)).toBe(false);
});

test('made once, it stays until it ends soon; then the machine’s is made anew under the same shop', async () => {
  const texts = () =>
    ['shop.pem', 'cert.pem'].map((name) => readFileSync(join(folder, name), 'utf8'));
  await ownCertificate(folder, NOW);
  const [shop, machine] = texts();
  const read = new X509Certificate(machine!);
  expect(read.checkIssued(new X509Certificate(shop!))).toBe(true);
  expect(read.checkHost('localhost')).toBe('localhost');
  await ownCertificate(folder, NOW);
  expect(texts()).toEqual([shop, machine]);
  await ownCertificate(folder, new Date(NOW.getTime() + 370 * 86_400_000));
  const [sameShop, newMachine] = texts();
  expect(sameShop).toBe(shop);
  expect(newMachine).not.toBe(machine);
  await ownCertificate(folder, new Date(NOW.getTime() + 3300 * 86_400_000));
  expect(texts()[0]).not.toBe(shop);
});

test('keys that OpenSSL has made are read', async () => {
  const shop = join(folder, 'shop.pem');
  const subject = ['-subj', '/CN=Patrone of this shop (bench)', '-days', '3650', '-nodes', '-x509'];
  const curve = ['-newkey', 'ec', '-pkeyopt', 'ec_paramgen_curve:P-256'];
  const permitted = [
    '127.0.0.0/255.0.0.0',
    '10.0.0.0/255.0.0.0',
    '172.16.0.0/255.240.0.0',
    '192.168.0.0/255.255.0.0',
    '169.254.0.0/255.255.0.0',
  ];
  const names = [
    ...namesOf(execFileSync('hostname', { encoding: 'utf8' }).trim(), []).dns.map(
      (name) => `permitted;DNS:${name}`,
    ),
    ...[...permitted, ...networkAddresses().map((own) => `${own}/255.255.255.255`)].map(
      (net) => `permitted;IP:${net}`,
    ),
  ];
  const extensions = [
    '-addext',
    'basicConstraints=critical,CA:TRUE,pathlen:0',
    '-addext',
    `nameConstraints=critical,${names.join()}`,
  ];
  const files = ['-keyout', join(folder, 'shop-key.pem'), '-out', shop];
  execFileSync('openssl', ['req', ...curve, ...subject, ...extensions, ...files], {
    stdio: 'ignore',
  });
  const before = readFileSync(shop, 'utf8');
  await ownCertificate(folder, NOW);
  expect(readFileSync(shop, 'utf8')).toBe(before);
  expect(opensslTakes(before, readFileSync(join(folder, 'cert.pem'), 'utf8'))).toBe(true);
});
