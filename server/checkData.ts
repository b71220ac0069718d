import { createHash } from 'node:crypto';
import { createReadStream } from 'node:fs';
import { pipeline } from 'node:stream/promises';
import { sql } from 'drizzle-orm';
import { isThere, picturePath } from '#app/pictures/pictureFiles.server';
import { dbOf } from '#app/records/database.server';
import { saidIn } from '#app/records/records.server';
import { pictures } from '#app/records/schema.server';
import type { Viewer } from '#app/records/viewer.server';
import { withParts } from '#core/card/crownParts';
import type { DocumentKind } from '#core/format/documents';
import { DOCUMENTS } from '#core/format/documents';
import { CutDownSchema } from '#core/cutdown/cutDown';
import { FoldingSchema } from '#core/blank/fold/folding';
import { ShapingSchema } from '#core/shape/shapingSchema';
import { PieceSurveySchema } from '#core/survey/pieceSurvey';
import { StructureSchema } from '#core/joint/structure';
import { SurveySchema } from '#core/survey/references';
import { JobFactsSchema, PieceFactsSchema } from '#core/format/job';
import { RECORD_KINDS } from '#core/format/lists';
import { RECORDS } from '#core/format/records';

/** A record’s kind, as it is called. */
const NAMED = sql`case kind when 'fit' then 'trial' else kind end`;

/** What is looked for: a sentence, and the rows it is true of, each with what to call it by. */
const WRONG: [string, ReturnType<typeof sql>][] = [
  [
    'its version in use is not there',
    sql`select p.name || ', ' || h.kind || ' ' || h.number as of from heads h join pieces p on p.id = h.piece
      where h.number > 0 and not exists (select 1 from documents d
        where d.piece = h.piece and d.kind = h.kind and d.number = h.number)`,
  ],
  [
    'has versions, and none is in use',
    sql`select distinct p.name || ', ' || d.kind as of from documents d join pieces p on p.id = d.piece
      where not exists (select 1 from heads h where h.piece = d.piece and h.kind = d.kind)`,
  ],
  [
    'was made from a version that is not there, or a later one',
    sql`select p.name || ', ' || d.kind || ' ' || d.number as of from documents d join pieces p on p.id = d.piece
      where d.parent >= d.number or (d.parent > 0 and not exists (select 1 from documents e
        where e.piece = d.piece and e.kind = d.kind and e.number = d.parent))`,
  ],
  [
    'names a revision of the card that is not there',
    sql`select p.name || ', ' || r.what as of from (
        select piece, 'print of ' || at::date as what, revision from prints
        union all select piece, ${NAMED} || ' of ' || at::date, revision from records where revision is not null
      ) r join pieces p on p.id = r.piece
      where r.revision > 0 and not exists (select 1 from documents d
        where d.piece = r.piece and d.kind = 'card' and d.number = r.revision)`,
  ],
  [
    'is about an edge that no version of the card ever had',
    sql`select p.name || ', ' || r.what as of from (
        select piece, ${NAMED} || ' of ' || at::date || ', edge ' || e.edge as what, e.edge
          from records, jsonb_array_elements_text(edges) as e(edge)
        union all select piece, 'picture ' || name || ', edge ' || "of", "of" from pictures where owner = 'edge'
      ) r join pieces p on p.id = r.piece
      where not exists (select 1 from documents d
        where d.piece = r.piece and d.kind = 'card'
          and jsonb_path_exists(d.body, '$.edges[*] ? (@.id == $edge)', jsonb_build_object('edge', r.edge)))`,
  ],
  [
    'joins a piece or a part that is not of its job',
    sql`select 'joint ' || s.id || ' of ' || j.name as of from structure s join jobs j on j.id = s.job,
        lateral (values (s.body -> 'first'), (s.body -> 'second')) e(at)
      where s.body ->> 'kind' = 'joint' and (
        (e.at ? 'piece' and not exists (select 1 from pieces p where p.id::text = e.at ->> 'piece' and p.job = s.job))
        or (e.at ? 'part' and not exists (select 1 from structure t
          where t.job = s.job and t.id = e.at ->> 'part' and t.body ->> 'kind' = 'part')))`,
  ],
  [
    'hangs on a record that is not there',
    sql`select name as of from pictures x where owner = any(${sql.param(`{${RECORD_KINDS.join(',')}}`)}::text[])
        and not exists (select 1 from records where id::text = x.of and piece = x.piece and kind = x.owner)
      union all select name from pictures x where owner = 'survey' and not exists (
        select 1 from surveyed where id = split_part(x.of, '.', 1) and job = x.job)`,
  ],
];

/** Pictures whose file is not there, or has in it what it had not. */
async function lostPictures(viewer: Viewer): Promise<string[]> {
  const { digest, type, name } = pictures;
  const all = await dbOf(viewer).selectDistinctOn([digest], { digest, type, name }).from(pictures);
  const found: string[] = [];
  for (const one of all) {
    const path = picturePath(one.digest, one.type, 'whole');
    const hash = createHash('sha256');
    const there = await isThere(path);
    if (there) await pipeline(createReadStream(path), hash);
    if (!there) found.push(`picture ${one.name}: its file is gone (${path})`);
    else if (hash.digest('hex') !== one.digest)
      found.push(`picture ${one.name}: its file was changed (${path})`);
  }
  return found;
}

/** Rows that the program's own doors would not let in, by the sentence the door says. */
async function unreadable(viewer: Viewer): Promise<string[]> {
  const db = dbOf(viewer);
  const found: string[] = [];
  const each = async (
    of: string,
    door: {
      safeParse: (row: unknown) => {
        success: boolean;
        error?: { issues: { path: PropertyKey[]; message: string }[] };
      };
    },
    rows: Promise<{ called: string; row: unknown }[]>,
  ) => {
    for (const { called, row } of await rows) {
      const read = door.safeParse(row);
      const issue = read.error?.issues[0];
      if (!read.success) found.push(`${called}, ${of}: ${issue?.path.join(' ')} ${issue?.message}`);
    }
  };
  await each(
    'job',
    JobFactsSchema,
    db.query.jobs.findMany().then((all) => all.map((row) => ({ called: row.name, row }))),
  );
  await each(
    'survey',
    SurveySchema,
    db.query.surveyed
      .findMany()
      .then((all) => all.map(({ body }) => ({ called: body.name ?? '', row: body }))),
  );
  await each(
    'joint, part or hollow',
    StructureSchema,
    db.query.structure
      .findMany()
      .then((all) =>
        all.map(({ id, body }) => ({ called: 'name' in body ? body.name : id, row: body })),
      ),
  );
  const pieces = await db.query.pieces.findMany({ columns: { id: true, name: true } });
  for (const { id, name } of pieces) {
    const piece = await db.query.pieces.findFirst({
      where: (p, { eq }) => eq(p.id, id),
      with: { records: true },
    });
    if (!piece) continue;
    const all = (rows: unknown[]) => Promise.resolve(rows.map((row) => ({ called: name, row })));
    await each('facts', PieceFactsSchema, all([piece]));
    // As they are kept: pages read over a field that is none, and then it is lost at the next change.
    await each('what is surveyed', PieceSurveySchema.partial(), all([piece.survey]));
    await each('how it is folded', FoldingSchema.partial(), all([piece.folding]));
    await each('how it is shaped', ShapingSchema.partial(), all([piece.shaping]));
    await each('how it is cut down', CutDownSchema.partial(), all([piece.cutDown]));
    for (const kind of RECORD_KINDS) {
      const mine = piece.records.filter((row) => row.kind === kind).map(saidIn);
      await each(kind === 'fit' ? 'trial' : kind, RECORDS[kind].schema, all(mine));
    }
    const versions = await db.query.documents.findMany({ where: (d, { eq }) => eq(d.piece, id) });
    const surfaces = await db.query.surfaces.findMany({ where: (s, { eq }) => eq(s.piece, id) });
    const kept = Object.fromEntries(surfaces.map((part) => [part.id, part.body]));
    for (const { kind, number, body } of versions) {
      const door = DOCUMENTS[kind as DocumentKind];
      const read = door ? door.read(withParts(body, kept)) : null;
      if (!read) found.push(`${name}, ${kind} ${number}: this program knows no such document`);
      else if (!read.ok)
        found.push(`${name}, ${kind} ${number}: cannot be read (${read.problems[0]!.code})`);
    }
  }
  return found;
}

/**
 * Looks through the whole database for what does not hang together; what it finds, in words, none
 * where all is well.
 */
export async function checkData(viewer: Viewer): Promise<string[]> {
  const found: string[] = [];
  for (const [said, query] of WRONG) {
    const { rows } = await dbOf(viewer).execute<{ of: string }>(query);
    found.push(...rows.map(({ of }) => `${of}: ${said}`));
  }
  return [...found, ...(await unreadable(viewer)), ...(await lostPictures(viewer))];
}
