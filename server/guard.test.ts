import fc from 'fast-check';
import type { Asked, Served } from './guard';
import { mostBytes, refusal } from './guard';

const own: Asked = {
  method: 'POST',
  target: '/shop',
  path: '/shop',
  host: '127.0.0.1:4170',
  origin: 'http://127.0.0.1:4170',
  contentLength: '120',
  transferEncoding: undefined,
};
const status = (change: Partial<Asked>) => refusal({ ...own, ...change })?.status ?? 200;

test('its own pages and scripts without a page are let in; pages of anywhere else are not, whatever they send', () => {
  expect(status({})).toBe(200);
  expect(status({ origin: undefined })).toBe(200);
  expect(status({ host: 'localhost:4170', origin: 'http://localhost:4170' })).toBe(200);
  expect(status({ host: '[::1]:4170', origin: 'http://[::1]:4170' })).toBe(200);
  const elsewhere = fc.oneof(
    fc.webUrl().map((url) => new URL(url).origin),
    fc.constantFrom(
      'null',
      'http://127.0.0.1',
      'http://127.0.0.1:4171',
      'https://127.0.0.1:4170',
      'http://localhost:4170',
    ),
  );
  fc.assert(
    fc.property(elsewhere, fc.constantFrom('POST', 'PUT', 'PATCH', 'DELETE'), (origin, method) => {
      expect(status({ origin, method })).toBe(403);
    }),
  );
});

test('only a path is an address here: what is written for a proxy is refused, whatever it asks for', () => {
  const method = fc.constantFrom('GET', 'POST', 'OPTIONS');
  fc.assert(
    fc.property(
      fc.oneof(fc.webUrl(), fc.constantFrom('*', '', 'elsewhere:443')),
      method,
      (target, method) => {
        expect(status({ target, method })).toBe(400);
      },
    ),
  );
});

test('a name that is not this machine’s is refused for reading too: a foreign page can give its name this address', () => {
  fc.assert(
    fc.property(fc.domain(), fc.constantFrom('GET', 'HEAD', 'POST'), (name, method) => {
      expect(status({ host: `${name}:4170`, origin: `http://${name}:4170`, method })).toBe(421);
    }),
  );
  for (const host of [
    undefined,
    '',
    '127.0.0.1.evil.example:4170',
    'localhost.example',
    '0.0.0.0:4170',
  ]) {
    expect(status({ host, method: 'GET' })).toBe(421);
  }
});

test('each address takes what it is for, and says so when it is more; what does not tell its size is not taken', () => {
  const MB = 1024 ** 2;
  const sizes = {
    // A job file has all its pictures in it.
    '/take-in': 2048 * MB,
    '/jobs/x/pictures': 25 * MB,
    '/pictures/x': 2 * MB,
    '/': MB / 4,
    // A card of four thousand corners, and twice the one it was made from.
    '/pieces/x/documents/card': 6 * MB,
    '/pieces/x/other-part': 6 * MB,
    '/pieces/x/welds': MB / 4,
  };
  for (const [path, most] of Object.entries(sizes)) {
    expect(mostBytes(path)).toBe(most);
    expect(status({ path, contentLength: String(most) })).toBe(200);
    expect(status({ path, contentLength: String(most + 1) })).toBe(413);
  }
  expect(refusal({ ...own, contentLength: String(MB) })!.message).toContain('256 kB at most');
  expect(status({ contentLength: undefined, transferEncoding: 'chunked' })).toBe(411);
  expect(status({ method: 'GET', contentLength: String(999 * MB) })).toBe(200);
});

test('on the network it answers to its own addresses, over TLS, and to pages of its own from there alone', () => {
  const served: Served = { secure: true, names: new Set(['192.0.2.7', 'shed.local']) };
  const answered = (change: Partial<Asked>) =>
    refusal({ ...own, ...change }, served)?.status ?? 200;
  for (const host of ['192.0.2.7:4180', 'shed.local:4180', 'SHED.local:4180'])
    expect(answered({ host, origin: `https://${host.toLowerCase()}` })).toBe(200);
  for (const host of [
    '127.0.0.1:4180',
    'localhost:4180',
    '192.0.2.8:4180',
    'shed.local.example:4180',
    undefined,
  ])
    expect(answered({ host, method: 'GET' })).toBe(421);
  for (const origin of [
    'http://shed.local:4180',
    'https://192.0.2.7:4180',
    'https://shed.local',
    'http://127.0.0.1:4170',
  ])
    expect(answered({ host: 'shed.local:4180', origin })).toBe(403);
});
