import { sql } from 'drizzle-orm';
import { dbOf } from '#app/records/database.server';
import { onEmptyDatabase } from '#app/records/emptyDatabase';
import { exportJob, importWhole } from '#app/records/jobFile.server';
import { addStructured, changeStructured, structureOf } from '#app/records/structure.server';
import { Viewer } from '#app/records/viewer.server';
import { jobFileEnd, jobFileHead, jobFilePiece } from '#core/format/job';
import { readJob } from '#core/format/readJob';
import { newJoint } from '#core/joint/joint';
import { demoJob } from '../demo/job';
import { checkData } from './checkData';

onEmptyDatabase();

const { shop } = Viewer;

/** A job as the text of its file. */
async function written(job: string): Promise<string> {
  const parts: string[] = [];
  let any = false;
  await exportJob(shop, job, false, {
    head: async (head, pieces) => {
      any = pieces > 0;
      parts.push(jobFileHead(head, any));
    },
    piece: async (piece, place) => void parts.push(jobFilePiece(piece, place)),
  });
  return [...parts, jobFileEnd(any)].join('');
}

test('a job goes out as a file and comes in again the same, its heavy parts as well, and hangs together', async () => {
  const first = await written(await importWhole(shop, demoJob()));
  const read = readJob(JSON.parse(first));
  if (!read.ok) throw new Error(read.problems[0]!.code);
  const again = await importWhole(shop, read.job);
  expect(await written(again)).toBe(first);
  expect(await checkData(shop)).toEqual([]);
  const { rows } = await dbOf(shop).execute(sql`select 1 from surfaces`);
  expect(rows.length).toBeGreaterThan(0);
});

test('what two say of one joint is merged by field; an edge that was never saved is in no file', async () => {
  const job = await importWhole(shop, demoJob());
  const db = dbOf(shop);
  const joint = (await structureOf(shop, job)).find(({ kind }) => kind === 'joint')!;
  const say = (since: object, mine: object) =>
    changeStructured(job, joint.id, { ...since }, { ...mine }, db);
  const [over, water] = [{ over: null }, { waterFrom: null }];
  expect(await say(over, { over: 'first' })).toEqual({ kind: 'saved' });
  expect(await say(water, { waterFrom: 'second' })).toEqual({ kind: 'saved' });
  expect(await say(over, { over: 'second' })).toMatchObject({ kind: 'clash' });
  const now = await structureOf(shop, job);
  expect(now.find(({ id }) => id === joint.id)).toMatchObject({
    over: 'first',
    waterFrom: 'second',
  });
  if (joint.kind !== 'joint') throw new Error('no joint');
  const unsaved = newJoint({ ...joint.first, edge: 'never-saved' }, joint.second);
  await addStructured(job, 'unsaved', unsaved, db);
  const read = readJob(JSON.parse(await written(job)));
  expect(read.ok && read.job.structure.map(({ id }) => id)).toEqual(now.map(({ id }) => id));
});

/** What is done to the data, what is said of it, and how it is put right again. */
const DAMAGES: [does: string, said: RegExp, undoes: string][] = [
  [
    `update structure set body = jsonb_set(body, '{second,part}', '"gone"') where id = 'joint1'`,
    /joins a piece or a part that is not of its job/,
    `update structure set body = jsonb_set(body, '{second,part}', '"part1"') where id = 'joint1'`,
  ],
  [
    `update structure set body = jsonb_set(body, '{first,piece}', '"00000000-0000-4000-8000-000000000000"')
      where id = 'joint2'`,
    /joins a piece or a part that is not of its job/,
    `update structure set body = jsonb_set(body, '{first,piece}', to_jsonb($piece::text)) where id = 'joint2'`,
  ],
  [
    `update heads set number = number + 90 where kind = 'card' and piece = $piece`,
    /card \d+: its version in use is not there/,
    `update heads set number = number - 90 where kind = 'card' and piece = $piece`,
  ],
  [
    `delete from heads where kind = 'card' and piece = $piece`,
    /card: has versions, and none is in use/,
    `insert into heads (piece, kind, number) select piece, 'card', max(number) from documents
      where kind = 'card' and piece = $piece group by piece`,
  ],
  [
    `update documents set parent = number + 1000 where kind = 'card' and piece = $piece and number = 1`,
    /was made from a version that is not there, or a later one/,
    `update documents set parent = 0 where parent > 1000`,
  ],
  [
    `update records set body = jsonb_set(body, '{made,revision}', '99') where kind = 'weld' and body #> '{made,revision}' is not null`,
    /names a revision of the card that is not there/,
    `update records set body = jsonb_set(body, '{made,revision}', '1') where kind = 'weld' and body #>> '{made,revision}' = '99'`,
  ],
  [
    `update records set body = body || '{"edge": "nowhere", "was": "x"}' where kind = 'inspection'`,
    /inspection .*edge nowhere: is about an edge that no version of the card ever had/,
    `delete from records where body ->> 'was' = 'x'`,
  ],
  [
    `update pieces set shaping = '{"work": 3}' where id = $piece`,
    /how it is shaped/,
    `update pieces set shaping = '{}' where id = $piece`,
  ],
  [`delete from surfaces`, /cannot be read/, `select 1`],
];

test('whatever is damaged is found and said in words; nothing is said of what is sound', async () => {
  await importWhole(shop, demoJob());
  const db = dbOf(shop);
  const { rows } = await db.execute<{ piece: string }>(
    sql`select piece from records where kind = 'weld' limit 1`,
  );
  const run = (statement: string) =>
    db.execute(sql.raw(statement.replaceAll('$piece', `'${rows[0]!.piece}'`)));
  for (const [does, said, undoes] of DAMAGES) {
    await run(does);
    const found = await checkData(shop);
    expect(found.join('\n')).toMatch(said);
    await run(undoes);
    if (undoes !== 'select 1') expect(await checkData(shop)).toEqual([]);
  }
});
