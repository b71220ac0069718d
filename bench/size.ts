import { execFile } from 'node:child_process';
import { readFileSync, writeFileSync } from 'node:fs';
import http from 'node:http';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { performance } from 'node:perf_hooks';
import { promisify } from 'node:util';
import pg from 'pg';
import type { PatternDoc } from '#core/card/pattern';
import type { JobHead, PieceFile } from '#core/format/job';
import { jobFileEnd, jobFileHead, jobFilePiece } from '#core/format/job';
import { demoJob } from '../demo/job';
import { highest, serverMemory } from './serverMemory';

/**
 * A shop of fifty jobs, two thousand pieces and forty thousand revisions under ten readers; the
 * same statements by PostgreSQL's own pgbench in the same run; a job file of five hundred pieces
 * out and in. Printed, never judged: a loaded machine is no fault of the code. Wants PATRONE_URL,
 * DATABASE_URL and PATRONE_SERVER_PID, which ./patrone bench sets.
 */
const at = process.env.PATRONE_URL!;
const JOBS = 50;
const PIECES = 2000;
const IN_ONE = 500;
const REVISIONS = 20;
const READERS = 10;
const SECONDS = 12;
/** Maximum time a reader looks at a page before the next, ms. */
const LOOKS_MS = 1000;

const say = (text: string) => console.log(text);
const quantile = (list: number[], share: number) =>
  [...list].sort((a, b) => a - b)[Math.floor(list.length * share)] ?? 0;
const demo = demoJob();
/**
 * A piece with `REVISIONS` revisions of its card, each with another width, as an afternoon leaves
 * it.
 */
function piece(place: number): PieceFile {
  const made = demo.pieces[place % demo.pieces.length]!;
  const last = made.card.versions[made.card.versions.length - 1]!;
  const wider = (doc: PatternDoc, by: number): PatternDoc => ({
    ...doc,
    corners: doc.corners.map((c) => ({ ...c, x: c.x * (1 + by / 1000) })),
  });
  return {
    ...made,
    name: `${made.name} ${place}`.slice(0, 80),
    card: {
      current: REVISIONS,
      versions: Array.from({ length: REVISIONS }, (_, i) => ({
        number: i + 1,
        parent: i,
        at: last.at,
        doc: wider(last.doc, i),
      })),
    },
  };
}

function jobFile(name: string, pieces: number): string {
  const path = join(tmpdir(), `patrone-bench-${process.pid}.json`);
  const head: JobHead = {
    format: demo.format,
    version: demo.version,
    job: { ...demo.job, name },
    survey: [],
    structure: [],
    pictures: [],
  };
  const parts = [jobFileHead(head, true)];
  for (let i = 0; i < pieces; i++) parts.push(jobFilePiece(piece(i), i));
  writeFileSync(path, [...parts, jobFileEnd(true)].join(''));
  return path;
}

async function takeIn(path: string): Promise<string> {
  const body = new FormData();
  body.append('file', new Blob([readFileSync(path)]), 'job.json');
  const answer = await fetch(`${at}/take-in`, { method: 'POST', body, redirect: 'manual' });
  const to = answer.headers.get('location');
  if (!to) throw new Error(`The job was not taken in: ${answer.status} ${await answer.text()}`);
  return to;
}

const url = new URL(process.env.DATABASE_URL!);
const db = new pg.Client({ connectionString: url.href });
await db.connect();
const count = async (of: string) =>
  Number((await db.query<{ n: string }>(`select count(*) as n from ${of}`)).rows[0]!.n);

say('\nA shop at size');
const large = jobFile('Five hundred pieces', IN_ONE);
const size = readFileSync(large).length / 1024 ** 2;
const before = serverMemory();
let start = performance.now();
const taken = await highest(() => takeIn(large));
say(
  `job file of ${IN_ONE} pieces, ${size.toFixed(0)} MB: in within ${((performance.now() - start) / 1000).toFixed(1)} s, server memory ${before.toFixed(0)} MB before, ${taken.maxMb.toFixed(0)} MB at most`,
);
start = performance.now();
const out = await highest(async () => {
  const answer = await fetch(`${at}${taken.found}/file`);
  return (await answer.arrayBuffer()).byteLength;
});
say(
  `the same out: ${(out.found / 1024 ** 2).toFixed(0)} MB within ${((performance.now() - start) / 1000).toFixed(1)} s, server memory ${out.maxMb.toFixed(0)} MB at most`,
);
const each = Math.ceil((PIECES - IN_ONE) / (JOBS - 1));
const small = jobFile('One of many', each);
start = performance.now();
for (let i = 1; i < JOBS; i++) await takeIn(small);
say(
  `filled in ${((performance.now() - start) / 1000).toFixed(0)} s: ${await count('jobs')} jobs, ${await count('pieces')} pieces, ${await count('documents')} versions of documents`,
);
const stale =
  'pieces p left join summaries s on s.piece = p.id where s.of is distinct from p.touched';
start = performance.now();
while ((await count(stale)) > 0) await new Promise((done) => setTimeout(done, 200));
say(`all summed up ${((performance.now() - start) / 1000).toFixed(1)} s later`);
await db.query('vacuum analyze');

const ids = (
  await db.query<{ id: string; job: string }>(
    'select id, job from pieces order by random() limit 400',
  )
).rows;
const any = () => ids[Math.floor(Math.random() * ids.length)]!;
const PAGES: [string, () => string][] = [
  ['jobs', () => '/_root.data'],
  ['job', () => `/jobs/${any().job}.data`],
  ['largest job', () => `${taken.found}.data`],
  ...['survey', 'card', 'blank', 'sheet', 'fit', 'weld'].map((stage): [string, () => string] => [
    stage,
    () => `/pieces/${any().id}/${stage}.data`,
  ]),
];

/**
 * Asks as lightly as can be: what this program takes of the processors the server does not have.
 */
const lines = new http.Agent({ keepAlive: true, maxSockets: READERS });
const asked = (address: string): Promise<number> =>
  new Promise((done, failed) => {
    const request = http.get(at + address, { agent: lines }, (answer) => {
      answer.resume();
      answer.on('end', () => done(answer.statusCode ?? 0)).on('error', failed);
    });
    request.on('error', failed);
  });

/**
 * So many readers asking one after the other, each as soon as it is answered and, up to so long,
 * has looked at the page; times of each page, ms.
 */
async function readers(
  pages: [string, () => string][],
  seconds: number,
  looksMs = 0,
): Promise<Map<string, number[]>> {
  const times = new Map(pages.map(([name]) => [name, [] as number[]]));
  const end = performance.now() + seconds * 1000;
  const read = async () => {
    while (performance.now() < end) {
      const [name, address] = pages[Math.floor(Math.random() * pages.length)]!;
      const began = performance.now();
      const status = await asked(address());
      if (status !== 200) throw new Error(`${name}: ${status}`);
      times.get(name)!.push(performance.now() - began);
      if (looksMs > 0) await new Promise((done) => setTimeout(done, looksMs * Math.random()));
    }
  };
  await Promise.all(Array.from({ length: READERS }, read));
  return times;
}
await readers(PAGES, 3);
const told = (times: Map<string, number[]>) => {
  for (const [name, all] of times)
    say(
      `  ${name.padEnd(12)} median ${quantile(all, 0.5).toFixed(1).padStart(6)} ms, 95th of a hundred ${quantile(all, 0.95).toFixed(1).padStart(6)} ms (aim 50), ${all.length} times`,
    );
};
say(
  `${READERS} readers, each asking as soon as it is answered, ${SECONDS} s (both processors full, this program's own share of them among it):`,
);
told(await readers(PAGES, SECONDS));
say(`${READERS} readers who look at each page for up to ${LOOKS_MS / 1000} s, ${3 * SECONDS} s:`);
told(await readers(PAGES, 3 * SECONDS, LOOKS_MS));

/**
 * What the server asks the database for one page of a piece: listened to, so that it is what it
 * really asks.
 */
async function statementsOf(address: string): Promise<string[]> {
  await db.query(`alter system set log_statement = 'all'`);
  await db.query('select pg_reload_conf()');
  await new Promise((done) => setTimeout(done, 300));
  await fetch(`${at}/health`);
  const log = process.env.PATRONE_DB_LOG!;
  const from = readFileSync(log).length;
  await (await fetch(at + address)).arrayBuffer();
  await new Promise((done) => setTimeout(done, 300));
  const text = readFileSync(log).subarray(from).toString('utf8');
  await db.query('alter system reset log_statement');
  await db.query('select pg_reload_conf()');
  return statementsIn(text);
}

/** The statements in a log, with their parameters put in. */
function statementsIn(log: string): string[] {
  const found: string[] = [];
  const entries = log.split(/\n(?=\d{4}-\d\d-\d\d \d\d:\d\d:\d\d)/);
  for (const [i, entry] of entries.entries()) {
    const statement = /LOG: {2}(?:execute [^:]*|statement): ([\s\S]*)$/.exec(entry)?.[1];
    if (
      statement === undefined ||
      /pg_reload_conf|log_statement|__drizzle_migrations/.test(statement)
    )
      continue;
    const given = new Map(
      [
        ...(/DETAIL: {2}[Pp]arameters: ([\s\S]*)$/.exec(entries[i + 1] ?? '')?.[1] ?? '').matchAll(
          /\$(\d+) = ('(?:[^']|'')*'|NULL)/g,
        ),
      ].map((m) => [m[1]!, m[2]!]),
    );
    found.push(
      statement
        .replace(/\$(\d+)/g, (whole, n: string) => given.get(n) ?? whole)
        .replace(/\s+/g, ' ')
        .trim(),
    );
  }
  return found;
}

/** Pieces are not alike: a panel's map of work weighs more than all of a bracket. */
const some = ids.slice(0, 12).map(({ id }) => `/pieces/${id}/card.data`);
const scripts: string[] = [];
let statements = 0;
for (const [i, address] of some.entries()) {
  const found = await statementsOf(address);
  statements += found.length / some.length;
  scripts.push('-f', join(tmpdir(), `patrone-bench-${process.pid}-${i}.sql`));
  writeFileSync(
    scripts.at(-1)!,
    `${found.map((text) => `${text.replace(/;$/, '')};`).join('\n')}\n`,
  );
}
/**
 * Both in turn, since a machine that others use too is not equally fast from one moment to the
 * next.
 */
const ROUNDS = 4;
const ROUND_S = 4;
const rates: { pgbench: number; server: number }[] = [];
for (let round = 0; round < ROUNDS; round++) {
  const bench = await promisify(execFile)(
    'pgbench',
    [
      '-n',
      '-h',
      url.hostname,
      '-p',
      url.port,
      '-U',
      url.username,
      '-c',
      String(READERS),
      '-j',
      '2',
      '-T',
      String(ROUND_S),
      ...scripts,
      'patrone',
    ],
    { encoding: 'utf8', env: { ...process.env, PGPASSWORD: url.password } },
  );
  const pages = (
    await readers([['card', () => some[Math.floor(Math.random() * some.length)]!]], ROUND_S)
  ).get('card')!;
  rates.push({
    pgbench: Number(/tps = ([\d.]+)/.exec(bench.stdout)?.[1] ?? NaN),
    server: pages.length / ROUND_S,
  });
}
const mean = (of: 'pgbench' | 'server') => rates.reduce((sum, rate) => sum + rate[of], 0) / ROUNDS;
say(
  `cards' pages of ${some.length} pieces: ${statements.toFixed(1)} statements each; pgbench ${mean('pgbench').toFixed(0)} times a second, the server ${mean('server').toFixed(0)} pages a second: ratio ${(mean('server') / mean('pgbench')).toFixed(2)} (aim 0.5; in turn ${rates.map((rate) => (rate.server / rate.pgbench).toFixed(2)).join(', ')})`,
);
say(`server memory after it: ${serverMemory().toFixed(0)} MB (aim 300)`);
await db.end();
