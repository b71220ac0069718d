import sharp from 'sharp';
import { unfolded } from '#core/blank/fold/folding';
import { uncut } from '#core/cutdown/uncut';
import { unsurveyed } from '#core/survey/pieceSurvey';
import { demoJob } from '../demo/job';
import { ask, chance, key, pick } from './client';
import { demoCard, demoFacts } from './writers';

/** Strings that have broken one program or another. */
const STRINGS = [
  '',
  ' ',
  '\0',
  'a\0b',
  '\ud800',
  'x\udc00',
  '\u202e',
  '👩‍🔧'.repeat(50),
  'ß'.repeat(5000),
  '../../etc/passwd',
  "'; drop table jobs; --",
  '<script>alert(1)</script>',
  '%00',
  '%E0%A4%A',
  '0000-01-01T00:00:00.000Z',
  '9999-12-31T23:59:59.999Z',
  'NaN',
  '__proto__',
  'constructor',
  '1e999',
  '-0',
  '0x10',
  '\r\nSet-Cookie: a=b',
  'null',
  'undefined',
  '{}',
  '[]',
];
const NUMBERS = [
  0,
  -0,
  -1,
  1e308,
  -1e308,
  2 ** 31,
  2 ** 53,
  -(2 ** 31) - 1,
  0.1 + 0.2,
  1e-320,
  2_147_483_648,
];

const deep = (n: number): unknown => {
  let value: unknown = 1;
  for (let i = 0; i < n; i++) value = i % 2 ? [value] : { a: value };
  return value;
};
const any = (): unknown =>
  pick<() => unknown>([
    () => pick(STRINGS),
    () => pick(NUMBERS),
    () => pick([null, true, false, [], {}, [[]], { length: -1 }]),
    () => Array.from({ length: 300 }, () => pick(NUMBERS)),
    () => deep(pick([3, 50, 2000])),
    () => Object.fromEntries(STRINGS.slice(0, 8).map((s) => [s, s])),
  ])();

/** A right body with one to three of its members, however deep, put wrong. */
function spoilt(right: unknown): unknown {
  const copy = structuredClone(right) as Record<string, unknown>;
  for (let i = 0; i < pick([1, 1, 2, 3]); i++) {
    let at: Record<string, unknown> = copy;
    for (;;) {
      const keys = Object.keys(at);
      if (keys.length === 0) break;
      const name = pick(keys);
      const next = at[name];
      if (typeof next === 'object' && next !== null && chance(0.75))
        at = next as Record<string, unknown>;
      else {
        if (chance(0.15)) delete at[name];
        else at[name] = any();
        break;
      }
    }
  }
  return copy;
}

/** A picture of each kind that is taken in, and one of a kind that is not. */
const grey = sharp({ create: { width: 320, height: 240, channels: 3, background: '#877' } });
const PICTURES = [
  await grey
    .clone()
    .withExif({ IFD0: { Make: 'none' } })
    .jpeg()
    .toBuffer(),
  await grey.clone().jpeg({ progressive: true }).toBuffer(),
  await grey.clone().png().toBuffer(),
  await grey.clone().webp().toBuffer(),
  await grey.clone().gif().toBuffer(),
];

/** A file with some of its bytes cut out, doubled or changed. */
function damaged(whole: string | Uint8Array): Uint8Array<ArrayBuffer> {
  let bytes: Uint8Array = Buffer.from(whole as string);
  for (let i = 0; i < pick([1, 2, 5]); i++) {
    const from = Math.floor(Math.random() * bytes.length);
    const length = Math.floor(Math.random() * 40);
    const middle = pick([
      Buffer.alloc(0),
      Buffer.from(pick(STRINGS)),
      Buffer.from([Math.floor(Math.random() * 256)]),
      bytes.subarray(from, from + length),
    ]);
    bytes = Buffer.concat([
      bytes.subarray(0, from),
      middle,
      bytes.subarray(chance(0.1) ? bytes.length : from + length),
    ]);
  }
  return new Uint8Array(bytes);
}

/** A piece of the demo that was bought. */
const boughtPanel = demoJob().pieces.find(({ kind }) => kind === 'bought')!;

export type Targets = { job: string; piece: string; fit: string; inspection: string };

/** One malformed request of the grammar of some route. */
function request(t: Targets): { path: string; init: RequestInit } {
  const edge = demoCard.edges[0]!.id;
  const at = new Date().toISOString();
  const said = { at, held: 'hand', notes: '' };
  const read = {
    edge,
    turned: false,
    own: false,
    targetMm: 0,
    toleranceMm: 1,
    flushMm: 1,
    stations: [{ atMm: 0, gapMm: 1, flushMm: null }],
  };
  const settings = { amps: 40, volts: 17, wireMm: 0.6, feed: '4', gas: 'mix' };
  const weld = {
    at,
    who: '',
    edge,
    process: 'mig',
    work: 'seam',
    from: null,
    to: null,
    made: null,
    note: '',
    withdrawn: null,
    settings,
  };
  const inspection = {
    at,
    who: '',
    edge,
    kind: 'lamp',
    sound: true,
    readingMm: null,
    finding: '',
    remedy: '',
    withdrawn: null,
  };
  const shop = {
    name: 'S',
    units: 'mm',
    dates: 'day',
    rule: 'din6935',
    plainK: 0.42,
    strips: [],
    brakeLine: 'tangent',
    relief: 'round',
    shortestFlangeMm: 6,
  };
  const point = {
    kind: 'point',
    name: 'P',
    where: '',
    side: 'left',
    partner: null,
    putAway: false,
  };
  const round = {
    kind: 'round',
    stage: 'found',
    name: 'R',
    at,
    readings: { m1: { value: 812, note: '', as: '' } },
    putAway: false,
  };
  const look = { at, how: 'seen', lengthMm: 90, widthMm: 20, outline: null, note: '' };
  const finding = {
    kind: 'finding',
    name: 'F',
    where: '',
    side: 'left',
    layers: ['outer'],
    looks: [look],
    putAway: false,
  };
  const brace = {
    kind: 'brace',
    name: 'B',
    from: 'a',
    to: 'b',
    made: '',
    in: at,
    out: null,
    putAway: false,
  };
  const opening = { kind: 'opening', name: 'O', corners: ['a', 'b', 'c', 'd'], putAway: false };
  const option = { id: 'o', of: 'patch', name: '', hours: [1, 2, 3], material: 1, price: 0 };
  const pieceSurvey = {
    ...unsurveyed(),
    takes: ['a'],
    layerCuts: [{ layer: 'outer', edge, inMm: 3 }],
    cutOut: { at, note: '', backAt: null },
    oldMetal: [1, 1.2],
    options: [option],
    choice: { option: 'o', why: '', at, hoursTaken: 3 },
  };
  const bodies: [string, unknown][] = [
    [
      `/pieces/${t.piece}/documents/card`,
      { intent: 'save', base: 0, doc: demoCard, about: '', by: 'x' },
    ],
    [
      `/pieces/${t.piece}/documents/plan`,
      { intent: 'save', base: 0, doc: demoJob().pieces[0]!.plan.versions[0]?.doc ?? {}, by: 'x' },
    ],
    [`/pieces/${t.piece}/documents/card`, { intent: 'undo', base: 1 }],
    [
      `/pieces/${t.piece}/card/another.data`,
      {
        as: 'other-side',
        name: 'Another',
        side: 'left',
        takeOff: [{ edge: 's9', mm: 3 }],
        why: '',
      },
    ],
    [
      `/pieces/${t.piece}/card/beside/${t.piece}.data`,
      {
        here: 1,
        there: 1,
        change: { what: 'take', parts: [{ of: 'outline', id: '' }], over: true },
      },
    ],
    [
      `/pieces/${t.piece}/fits`,
      { intent: 'new', fit: { ...said, revision: 1, withdrawn: null, edges: [read] } },
    ],
    [`/pieces/${t.piece}/fits`, { intent: 'edge', id: t.fit, edge: read, since: read }],
    [`/pieces/${t.piece}/fits`, { intent: 'change', id: t.fit, mine: said, since: said }],
    [`/pieces/${t.piece}/fits`, { intent: 'withdraw', what: 'trial', id: t.piece, why: 'x' }],
    [`/pieces/${t.piece}/welds`, { intent: 'weld', weld, key: 'x' }],
    [`/pieces/${t.piece}/welds`, { intent: 'inspection', inspection }],
    [`/pieces/${t.piece}/welds`, { intent: 'remedy', id: t.inspection, remedy: 'x', since: '' }],
    [`/pieces/${t.piece}/cut-down`, { since: uncut(), mine: boughtPanel.cutDown, key: key() }],
    [`/pieces/${t.piece}/survey.data`, { mine: demoFacts, since: demoFacts }],
    [`/jobs/${t.job}/new-piece.data`, { mine: demoFacts }],
    ['/shop.data', { mine: shop, since: shop }],
    [
      '/shop/readings',
      {
        intent: 'add',
        of: {
          list: 'springs',
          reading: {
            metal: 'dc01',
            thicknessMm: 1,
            radiusMm: 1,
            foldedToDeg: 92,
            cameBackToDeg: 90,
            uDeg: 0.5,
            on: null,
          },
        },
      },
    ],
    ['/shop/readings', { intent: 'take-in', csv: 'kind,metal,thickness_mm\nstrip,dc01,1\n' }],
    [
      '/shop/readings',
      {
        intent: 'leave-out',
        why: 'no',
        of: {
          list: 'radii',
          reading: { metal: 'dc01', thicknessMm: 1, wantedMm: 1, gotMm: 2, uMm: 0.1, on: null },
        },
      },
    ],
    [`/jobs/${t.job}/survey`, { intent: 'new', id: key().slice(0, 8), body: point }],
    [`/jobs/${t.job}/survey`, { intent: 'new', id: 'round', body: round }],
    [
      `/jobs/${t.job}/survey`,
      { intent: 'change', id: 'round', since: { name: 'R' }, mine: { name: 'S' } },
    ],
    [
      `/jobs/${t.job}/survey`,
      {
        intent: 'read',
        id: 'round',
        since: {},
        mine: { m1: { value: 812.5, note: '', as: '32 in' } },
      },
    ],
    [`/jobs/${t.job}/survey`, { intent: 'new', id: key().slice(0, 8), body: finding }],
    [`/jobs/${t.job}/survey`, { intent: 'new', id: key().slice(0, 8), body: brace }],
    [`/jobs/${t.job}/survey`, { intent: 'new', id: key().slice(0, 8), body: opening }],
    [
      `/pieces/${t.piece}/folding`,
      {
        since: unfolded(),
        mine: {
          ...unfolded(),
          brake: 'folder',
          order: { folds: ['f1'] },
          made: ['f1'],
          leftOpen: [{ fold: 'f1', deg: 30 }],
          lies: { fold: null, alongDeg: 3, acrossDeg: -2, faceUp: true },
        },
      },
    ],
    [`/pieces/${t.piece}/surveyed`, { since: unsurveyed(), mine: pieceSurvey }],
  ];
  const how = Math.random();
  if (how < 0.55) {
    const [path, right] = pick(bodies);
    const body = spoilt(right);
    const type = chance(0.9)
      ? 'application/json'
      : pick(['text/plain', 'application/x-www-form-urlencoded', 'multipart/form-data', '']);
    let text: string | Uint8Array<ArrayBuffer> = JSON.stringify(body) ?? 'null';
    if (chance(0.15)) text = damaged(JSON.stringify(body));
    return {
      path,
      init: {
        method: pick(['POST', 'POST', 'POST', 'PUT', 'DELETE', 'PATCH']),
        headers: { 'Content-Type': type },
        body: text,
      },
    };
  }
  if (how < 0.7) {
    const fields = {
      intent: pick([
        'create',
        'change',
        'archive',
        'restore',
        'duplicate',
        'archive-piece',
        'none',
        ...STRINGS,
      ]),
      name: pick(STRINGS),
      vehicle: pick(STRINGS),
      owner: pick(STRINGS),
      notes: pick(STRINGS),
      piece: pick(STRINGS),
      id: pick(STRINGS),
      since: pick(STRINGS),
      key: pick(STRINGS),
    };
    // Nothing of what is there is put away by chance.
    if (fields.intent === 'archive' || fields.intent === 'restore') fields.intent = 'none';
    const path = pick(['/?index', `/jobs/${t.job}`, `/jobs/${t.job}.data`, '/_root.data?index']);
    return { path, init: { method: 'POST', body: new URLSearchParams(fields) } };
  }
  if (how < 0.78) {
    const whole = demoJob();
    const body = new FormData();
    const text = chance(0.5) ? JSON.stringify(spoilt(whole)) : damaged(JSON.stringify(whole));
    body.append('file', new Blob([text]), pick([...STRINGS, 'job.json']));
    return { path: '/take-in', init: { method: 'POST', body } };
  }
  if (how < 0.82) {
    const owner = pick(['job', 'job', 'piece', 'edge', 'fit', 'inspection', ...STRINGS]);
    const of = pick(['', edge, t.fit, t.inspection, ...STRINGS]);
    const query = new URLSearchParams({
      owner,
      of,
      name: pick(STRINGS),
      piece: pick([t.piece, ...STRINGS]),
      key: pick([key(), ...STRINGS]),
    });
    if (owner === 'job') query.delete('piece');
    return {
      path: `/jobs/${t.job}/pictures?${query}`,
      init: { method: 'POST', body: new Blob([damaged(pick(PICTURES))]) },
    };
  }
  const odd = () => {
    try {
      return encodeURIComponent(pick(STRINGS)) || '%';
    } catch {
      // Half a character has no address.
      return '%ed%a0%80';
    }
  };
  const paths = [
    `/pieces/${odd()}/card`,
    `/pieces/${t.piece}/${odd()}`,
    `/pieces/${t.piece}/pattern/${odd()}`,
    `/jobs/${odd()}`,
    `/jobs/${odd()}/file`,
    `/?search=${odd()}&page=${odd()}`,
    `/jobs/${t.job}?page=${odd()}&archived=${odd()}`,
    `/pieces/${t.piece}/pattern/blank.pdf?paper=${odd()}`,
    `/_root.data?_routes=${odd()}`,
    `/pieces/${t.piece}/card.data?_routes=${odd()}`,
    `/__manifest?p=${odd()}&version=${odd()}`,
    `/assets/${odd()}`,
    `/${odd()}`,
    '/%',
    '/%ff%fe',
    `/pieces/${t.piece}/documents/card`,
    `/pieces/${t.piece}/fits`,
    '/take-in',
    '/health',
    `/scale-frame.pdf?paper=${odd()}&middle=${odd()}&cards=${odd()}`,
    `/pieces/${t.piece}/strip/${odd()}?lie=${odd()}&as=${odd()}`,
    `/pieces/${t.piece}/card/beside/${odd()}`,
    `/pictures/${odd()}`,
    `/pictures/${t.piece}/${odd()}`,
    `/jobs/${odd()}/pictures`,
  ];
  return {
    path: pick(paths),
    init: {
      method: pick(['GET', 'GET', 'GET', 'HEAD', 'OPTIONS']),
      headers: { Cookie: pick(STRINGS).replace(/[^\x20-\x7e]/g, '') },
    },
  };
}

export type Malformed = { sent: number; taken: number; faults: string[]; slowest: number };

/** What a worker does waits its turn; whoever asked for it waits with it, and nobody else. */
const BY_WORKERS = /^\/take-in|\/pictures|\.pdf/;

/**
 * Sends `count` malformed requests, eight at a time: each is refused or is harmless, none is a
 * fault, none takes longer than `tooLongMs` (five times that where a worker does the work).
 */
export async function malformed(
  at: string,
  count: number,
  targets: Targets,
  tooLongMs: number,
): Promise<Malformed> {
  const found: Malformed = { sent: 0, taken: 0, faults: [], slowest: 0 };
  const one = async () => {
    while (found.sent < count) {
      found.sent++;
      const { path, init } = request(targets);
      const answer = await ask(at + path, init);
      const said = `${init.method} ${path} ${typeof init.body === 'string' ? init.body.slice(0, 160) : ''}`;
      if (!answer) found.faults.push(`no answer: ${said}`);
      else if (answer.status >= 500)
        found.faults.push(`${answer.status}: ${said} → ${answer.text.slice(0, 120)}`);
      else if (answer.ms > tooLongMs * (BY_WORKERS.test(path) ? 5 : 1))
        found.faults.push(`${answer.ms.toFixed(0)} ms: ${said}`);
      else if (answer.status < 400 && init.method === 'POST') found.taken++;
      found.slowest = Math.max(found.slowest, answer?.ms ?? 0);
    }
  };
  await Promise.all(Array.from({ length: 8 }, one));
  return found;
}
