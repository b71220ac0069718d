import { performance } from 'node:perf_hooks';
import pg from 'pg';
import { foldedStrip } from './foldedStrip';
import { serverMemory } from './serverMemory';

/**
 * A thousand pieces with cards of some 95 kB opened one after the other: what the server holds after
 * each two hundred, against what it held after the first. Wants PATRONE_URL, DATABASE_URL and
 * PATRONE_SERVER_PID, which ./patrone bench sets.
 */
const at = process.env.PATRONE_URL!;
const PIECES = 1000;
const LOT = 200;
const CORNERS = 1000;

const card = JSON.stringify(foldedStrip(6, CORNERS));
const db = new pg.Client({ connectionString: process.env.DATABASE_URL });
await db.connect();
await db.query('create temp table model as select * from pieces order by seq limit 1');
const { rows } = await db.query<{ id: string }>(
  `with made as (
     insert into pieces (job, name, part, side, metal, thickness_mm, thickness, structural, notes)
     select job, 'Large ' || n, part, side, metal, thickness_mm, thickness, structural, notes
     from model, generate_series(1, $1) as n returning id),
   cards as (
     insert into documents (piece, kind, number, parent, version, body)
     select id, 'card', 1, 0, ($2::jsonb->>'version')::int, jsonb_set($2::jsonb, '{base}', to_jsonb(array[row_number() over (), 1]))
     from made returning piece)
   insert into heads (piece, kind, number) select piece, 'card', 1 from cards returning piece as id`,
  [PIECES, card],
);
await db.end();

console.log(
  `\n${PIECES} cards of ${(card.length / 1024).toFixed(0)} kB opened one after the other`,
);
const held: number[] = [];
for (let i = 0; i < rows.length; i += LOT) {
  const began = performance.now();
  for (const { id } of rows.slice(i, i + LOT)) {
    const answer = await fetch(`${at}/pieces/${id}/card.data`);
    if (!answer.ok) throw new Error(`${answer.status} at ${id}`);
    await answer.arrayBuffer();
  }
  held.push(serverMemory());
  console.log(
    `  ${i + LOT}: ${((performance.now() - began) / LOT).toFixed(0)} ms each, server memory ${held.at(-1)!.toFixed(0)} MB`,
  );
}
console.log(`memory, last to first: ${(held.at(-1)! / held[0]!).toFixed(2)} (aim 1.15)`);
