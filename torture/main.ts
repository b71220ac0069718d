import { execFileSync, spawnSync } from 'node:child_process';
import { readFileSync, writeFileSync } from 'node:fs';
import { cpus, totalmem } from 'node:os';
import { join } from 'node:path';
import pg from 'pg';
import { HANGS_MS, TOO_LONG_MS, ask, chance, form, json, rest } from './client';
import { damagedBackups, fullDisk, killedRestores } from './damage';
import { heavyFiles } from './files';
import { listsAtOnce } from './lists';
import { malformed } from './malformed';
import { rehearsed } from './migrations';
import { secretsAtOnce } from './secrets';
import type { Ledger } from './writers';
import { demoCard, demoFacts, newLedger, quarrel, writer } from './writers';

/**
 * What is done to Patrone on purpose, and what must hold: every acknowledged record is there once,
 * nothing refused is, no answer of 500, nobody waits two seconds for somebody else, memory comes
 * back. `--short` for the ordinary tests, which share their machine and judge no times; else the
 * table goes to docs/torture.md; `--part 0.2` does a fifth of what is many, `--only secrets,heavy`
 * these parts alone. Wants what ./patrone torture sets.
 */
const short = process.argv.includes('--short');
const share = Number(process.argv[process.argv.indexOf('--part') + 1] ?? 1);
const part = process.argv.includes('--part') && share > 0 && share <= 1 ? share : 1;
const some = (all: number) => Math.max(1, Math.round(all * part));
const at = process.env.PATRONE_URL!;
const data = process.env.PATRONE_TORTURED!;
const MUCH = short
  ? {
      serverKills: 3,
      databaseKills: 1,
      edits: 60,
      lists: 40,
      requests: 600,
      together: 60,
      backups: 1,
      restores: 2,
      pieces: 120,
      disk: false,
    }
  : {
      serverKills: some(200),
      databaseKills: some(30),
      edits: 1000,
      lists: 500,
      requests: some(100_000),
      together: 150,
      backups: some(50),
      restores: some(25),
      pieces: 5000,
      disk: true,
    };
const WRITERS = 4;
/** How long readers may wait beside many who try to sign in, ms, 95th of a hundred. */
const READ_MS = 200;
/** How often the server’s memory is looked at, ms, and what it may grow from one half to the other. */
const LOOKED_AT_MS = 500;
const MAX_GROWTH = 1.1;
const tooLongMs = short ? HANGS_MS : TOO_LONG_MS;

type Row = { what: string; did: string; wrong: string[] };
const rows: Row[] = [];
const report = (what: string, did: string, wrong: string[]) => {
  rows.push({ what, did, wrong });
  console.log(`${wrong.length === 0 ? 'ok   ' : 'WRONG'} ${what}: ${did}`);
  for (const line of wrong.slice(0, 12)) console.log(`      ${line}`);
  if (wrong.length > 12) console.log(`      and ${wrong.length - 12} more`);
};

const pidIn = (file: string): number =>
  Number(readFileSync(join(data, file), 'utf8').split('\n')[0]);
const seconds = (ms = 0) => `${(ms / 1000).toFixed(1)} s`;

/** What the server holds, MB. */
const memory = (): number =>
  Number(/VmRSS:\s+(\d+)/.exec(readFileSync(`/proc/${pidIn('server.pid')}/status`, 'utf8'))![1]) /
  1024;
const up = async (): Promise<void> => {
  while ((await ask(`${at}/health`))?.status !== 200) await rest(100);
};
async function query<T extends object>(text: string, values: unknown[] = []): Promise<T[]> {
  const client = new pg.Client({ connectionString: process.env.DATABASE_URL });
  await client.connect();
  try {
    return (await client.query<T>(text, values)).rows;
  } finally {
    await client.end();
  }
}

/** Where the mark of each kind of record stands in the database: rows of one text, `m`. */
const WHERE: Record<string, string> = {
  job: 'select name as m from jobs',
  piece: 'select name from pieces',
  card: "select body ->> 'base' from documents",
  weld: "select body ->> 'note' from records where kind = 'weld'",
  inspection: "select body ->> 'finding' from records where kind = 'inspection'",
  remedy: "select body ->> 'remedy' from records where kind = 'inspection'",
  withdrawal: "select withdrawn ->> 'why' from records where kind = 'inspection'",
  trial: "select body ->> 'notes' from records where kind = 'fit'",
};
/** A reading is a part of what was read along an edge. */
const READINGS = `select count(distinct id) from records where kind = 'fit'
  and strpos(body ->> 'edges', m) > 0`;

/** How often each mark is there, of one kind of record. */
async function counted(kind: string, marks: readonly string[]): Promise<[string, number][]> {
  const text =
    kind === 'reading'
      ? `select m, (${READINGS}) as n from unnest($1::text[]) as m`
      : `select m, count(there.t) as n from unnest($1::text[]) as m
           left join (${WHERE[kind]!}) as there(t) on there.t = m group by m`;
  const rows = await query<{ m: string; n: string }>(text, [marks]);
  return rows.map(({ m, n }) => [m, Number(n)]);
}

/** Every acknowledged record is there once; what was refused is nowhere. */
async function judged(ledger: Ledger): Promise<string[]> {
  const wrong: string[] = [];
  for (const kind of [...Object.keys(WHERE), 'reading']) {
    const marks = ledger.acknowledged.filter((one) => one.kind === kind).map((one) => one.mark);
    for (const [mark, times] of await counted(kind, marks))
      if (times !== 1) wrong.push(`${kind} “${mark}” is there ${times} times`);
    for (const [mark, times] of await counted(kind, ledger.refused))
      if (times > 0) wrong.push(`refused “${mark}” is there ${times} times as ${kind}`);
  }
  const printed = new Map<string, number>();
  for (const { kind, mark } of ledger.acknowledged)
    if (kind === 'print') printed.set(mark, (printed.get(mark) ?? 0) + 1);
  for (const [piece, times] of printed) {
    const [row] = await query<{ n: string }>('select count(*) as n from prints where piece = $1', [
      piece,
    ]);
    if (Number(row!.n) !== times)
      wrong.push(`${times} prints of a piece were acknowledged, and ${row!.n} are there`);
  }
  return [...wrong, ...ledger.faults];
}

async function killings(): Promise<void> {
  const ledger = newLedger();
  let over = false;
  let lastKill = 0;
  const writing = Array.from({ length: WRITERS }, () =>
    writer(
      at,
      ledger,
      () => over,
      () => Date.now() - lastKill > 15_000,
    ),
  );
  const all = MUCH.serverKills + MUCH.databaseKills;
  const done = { server: 0, database: 0 };
  const backMs: number[] = [];
  while (done.server + done.database < all) {
    await rest(300 + Math.random() * 1500);
    const database =
      done.server >= MUCH.serverKills ||
      (done.database < MUCH.databaseKills && chance(MUCH.databaseKills / all));
    try {
      lastKill = Date.now();
      process.kill(pidIn(database ? 'db/postmaster.pid' : 'server.pid'), 'SIGKILL');
      done[database ? 'database' : 'server']++;
    } catch {
      // Not up again yet from the one before.
    }
    const killed = performance.now();
    await up();
    backMs.push(performance.now() - killed);
    lastKill = Date.now();
  }
  backMs.sort((a, b) => a - b);
  await rest(1500);
  over = true;
  await Promise.all(writing);
  await up();
  const checked = await judged(ledger);
  report(
    'Killed while writing',
    `server ${done.server} times, database ${done.database} times, under ${WRITERS} writers, back after ${seconds(backMs[Math.floor(backMs.length / 2)])} (median) and ${seconds(backMs.at(-1))} at most; ${ledger.sent} requests, ${ledger.unanswered} of them without an answer and sent again; ${ledger.acknowledged.length} acknowledged, ${ledger.refused.length} refused`,
    checked,
  );
}

async function heavy(targets: { job: string; piece: string }): Promise<void> {
  const pictures = join(data, 'pictures');
  const found = await heavyFiles(at, targets, pictures, memory, short ? HANGS_MS : TOO_LONG_MS);
  report(
    'Heavy pictures and job files',
    `${found.refused} refused and nothing of them left; a page or a paper beside them waited ${found.waitedMs.toFixed(0)} ms at most; memory ${found.memoryMb.toFixed(0)} MB at most`,
    found.wrong,
  );
}

/** A job with a piece that has a card, to be maltreated. */
async function victim(): Promise<{ job: string; piece: string }> {
  const begun = await ask(
    `${at}/?index`,
    form({ intent: 'create', name: 'Maltreated', vehicle: '', owner: '', notes: '' }),
  );
  const made = await ask(`${at}${begun!.location}/new-piece`, json({ mine: demoFacts }));
  const piece = /pieces\/([0-9a-f-]{36})/.exec(made!.location ?? made!.text)![1]!;
  await ask(
    `${at}/pieces/${piece}/documents/card`,
    json({ intent: 'save', base: 0, doc: demoCard }),
  );
  return { job: begun!.location!.split('/').pop()!, piece };
}

async function malformedRequests(): Promise<void> {
  const { job, piece } = await victim();
  const fit = {
    at: new Date().toISOString(),
    who: '',
    held: 'hand',
    notes: '',
    revision: 1,
    withdrawn: null,
    edges: [],
  };
  const fits = await ask(`${at}/pieces/${piece}/fits`, json({ intent: 'new', fit }));
  const seen = {
    at: fit.at,
    who: '',
    edge: demoCard.edges[0]!.id,
    kind: 'lamp',
    sound: false,
    readingMm: null,
    finding: '',
    remedy: '',
    withdrawn: null,
  };
  const inspected = await ask(
    `${at}/pieces/${piece}/welds`,
    json({ intent: 'inspection', inspection: seen }),
  );
  const id = (text: string, list: string) =>
    (JSON.parse(text) as Record<string, { id: string }[]>)[list]![0]!.id;
  const targets = {
    job,
    piece,
    fit: id(fits!.text, 'fits'),
    inspection: id(inspected!.text, 'inspections'),
  };
  // Caches fill and heaps settle over the first quarter; what grows from the second to the fourth goes
  // on growing. The highest of each: between two sweeps of its heaps the server goes up and down.
  const highest = [0, 0, 0, 0];
  let quarter = 0;
  const looking = setInterval(
    () => (highest[quarter] = Math.max(highest[quarter]!, memory())),
    LOOKED_AT_MS,
  );
  // Somebody who only reads, all the while.
  let reading = true;
  let waited = 0;
  const reader = (async () => {
    while (reading) {
      waited = Math.max(waited, (await ask(`${at}/pieces/${piece}/card.data`))?.ms ?? 0);
      await rest(100);
    }
  })();
  const parts: Awaited<ReturnType<typeof malformed>>[] = [];
  for (; quarter < highest.length; quarter++)
    parts.push(await malformed(at, MUCH.requests / highest.length, targets, tooLongMs));
  clearInterval(looking);
  reading = false;
  await reader;
  const [, before, , after] = highest as [number, number, number, number];
  const sum = (of: (part: (typeof parts)[number]) => number) =>
    parts.reduce((all, part) => all + of(part), 0);
  const wrong = parts.flatMap(({ faults }) => faults);
  if (waited > tooLongMs) wrong.push(`a reader waited ${waited.toFixed(0)} ms`);
  if (!short && after > before * MAX_GROWTH)
    wrong.push(`memory grew from ${before.toFixed(0)} to ${after.toFixed(0)} MB`);
  report(
    'Malformed requests',
    `${sum(({ sent }) => sent)} over all routes, ${sum(({ taken }) => taken)} of them harmless and taken; slowest answer ${Math.max(...parts.map(({ slowest }) => slowest)).toFixed(0)} ms, a reader beside them waited ${waited.toFixed(0)} ms at most; memory ${highest.map((mb) => mb.toFixed(0)).join(', ')} MB at most in each quarter`,
    wrong,
  );
}

const PHASES: Record<string, () => Promise<void>> = {
  kills: killings,
  async pages() {
    const fought = await quarrel(at, MUCH.edits);
    report(
      'Two pages on one card',
      `${MUCH.edits} edits, ${fought.told} times one was told`,
      fought.wrong,
    );
  },
  async lists() {
    const lists = await listsAtOnce(at, MUCH.lists);
    report(
      'Two pages on one list, two phones on one edge',
      `${2 * MUCH.lists} rounds, ${lists.told} times one was told`,
      lists.wrong,
    );
  },
  heavy: async () => heavy(await victim()),
  malformed: malformedRequests,
  async secrets() {
    const tried = await secretsAtOnce(at, MUCH.together, '/', short ? HANGS_MS : READ_MS);
    report(
      'Wrong secrets at once',
      `${2 * MUCH.together} sign-ins, ${tried.judged} of them judged; of ten readers beside them the 95th of a hundred waited ${tried.readMs.toFixed(0)} ms (alone ${tried.aloneMs.toFixed(0)})`,
      tried.wrong,
    );
  },
  async check() {
    const looked = spawnSync('node', ['build/node/database.js', 'check'], { encoding: 'utf8' });
    const said = looked.stdout.trim().split('\n');
    report('The data looked through', said[said.length - 1]!, looked.status === 0 ? [] : said);
  },
  async backups() {
    const backups = await damagedBackups(MUCH.backups);
    report(
      'Damaged backups',
      `${backups.refused} refused, ${backups.harmless} harmless and restored`,
      backups.wrong,
    );
  },
  async restores() {
    const restores = await killedRestores(MUCH.restores);
    report(
      'Restores killed on the way',
      `${restores.before + restores.restored} killed, ${restores.before} of them before they were done, ${restores.restored} after`,
      restores.wrong,
    );
  },
  async rehearsal() {
    const rehearsal = await rehearsed(MUCH.pieces);
    report(
      'An older database, grown',
      `${MUCH.pieces} pieces backed up, restored and brought up to date in ${rehearsal.seconds.toFixed(0)} s, looked through and taken back`,
      rehearsal.wrong,
    );
  },
  async disk() {
    if (!MUCH.disk) return;
    const disk = await fullDisk();
    if (!disk) return report('Disk filled', 'not tried: no small disk can be made here', []);
    const wrong = disk.told
      ? disk.wrong
      : [...disk.wrong, '/health did not tell that the disk is full'];
    report(
      'Disk filled',
      `${disk.acknowledged} records acknowledged and there, ${disk.refused} not taken`,
      wrong,
    );
  },
};

const only = process.argv.includes('--only')
  ? process.argv[process.argv.indexOf('--only') + 1]!.split(',')
  : Object.keys(PHASES);
const unknown = only.filter((name) => !(name in PHASES));
if (unknown.length > 0) {
  console.error(`no such part: ${unknown.join(', ')} (${Object.keys(PHASES).join(', ')})`);
  process.exit(1);
}
await up();
for (const name of only) {
  const began = performance.now();
  await PHASES[name]!();
  console.log(`      ${name}: ${seconds(performance.now() - began)}`);
}

// The table is of a whole run.
if (!short && only.length === Object.keys(PHASES).length) {
  const commit = execFileSync('git', ['log', '-1', '--format=%h of %cs'], {
    encoding: 'utf8',
  }).trim();
  const machine = `${cpus().length} × ${cpus()[0]?.model.trim() ?? 'unknown'}, ${(totalmem() / 1024 ** 3).toFixed(0)} GB, Node.js ${process.version}`;
  const table = rows.map(
    ({ what, did, wrong }) =>
      `| ${what} | ${did} | ${wrong.length === 0 ? 'held' : `**${wrong.length} wrong**: ${wrong[0]!.replaceAll('|', '/')}`} |`,
  );
  writeFileSync(
    'docs/torture.md',
    `# Torture

What is done to Patrone on purpose by \`./patrone torture\`, and what must hold: every acknowledged record is there once,
nothing that was refused is, no answer of 500, nobody waits two seconds for somebody else, memory comes back. A short form
runs with the ordinary tests.

Last run: commit ${commit}, ${machine}.

| What | How much | Result |
| --- | --- | --- |
${table.join('\n')}
`,
  );
}
process.exitCode = rows.some((row) => row.wrong.length > 0) ? 1 : 0;
