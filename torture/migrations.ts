import { execFileSync, spawnSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { mkdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { join, resolve } from 'node:path';
import { PATRONE, PORT_OF_DB, envFor, folder, started } from './damage';

/**
 * A database as an older program left it (its demo job, form 17 of the tables), grown to `pieces`
 * pieces, with lists in which ids stand twice, is backed up, restored by this program, which brings
 * it up to date, looked through, and taken back. Seconds that the restore took.
 */
export async function rehearsed(pieces: number): Promise<{ seconds: number; wrong: string[] }> {
  const at = folder();
  const data = join(at, 'data');
  const wrong: string[] = [];
  const run = (args: string[], input = '') =>
    spawnSync(PATRONE, args, { env: envFor(data), input, encoding: 'utf8' });
  try {
    const stop = await started(data);
    const server = ['-h', '127.0.0.1', '-p', PORT_OF_DB, '-U', 'patrone'];
    const env = { ...process.env, PGPASSWORD: readFileSync(join(data, 'password'), 'utf8') };
    const tool = (name: string, args: string[], input?: string) =>
      execFileSync(name, [...server, ...args], { env, input, encoding: 'utf8', maxBuffer: 1e9 });
    const dump = resolve('torture/fixtures/form-17.dump');
    tool('psql', ['-d', 'postgres', '-qc', 'create database grown']);
    tool('pg_restore', ['-d', 'grown', '--no-owner', '--exit-on-error', dump]);
    tool('psql', ['-d', 'grown', '-q', '-v', 'ON_ERROR_STOP=1'], grownBy(pieces));
    const inside = join(at, 'inside');
    mkdirSync(inside);
    tool('pg_dump', ['-d', 'grown', '-Fc', '--no-owner', '-f', join(inside, 'database.dump')]);
    tool('psql', ['-d', 'postgres', '-qc', 'drop database grown']);
    await stop();
    writeFileSync(join(inside, 'pictures.sha256'), '');
    const sums = ['database.dump', 'pictures.sha256'].map((name) => {
      const sum = createHash('sha256').update(readFileSync(join(inside, name)));
      return `${sum.digest('hex')}  ${name}\n`;
    });
    writeFileSync(join(inside, 'sums.sha256'), sums.join(''));
    const file = join(at, 'grown.backup');
    const parts = ['sums.sha256', 'database.dump', 'pictures.sha256'];
    execFileSync('tar', ['-cf', file, '-C', inside, ...parts]);

    const start = performance.now();
    const restored = run(['restore', file], 'y\n');
    const seconds = (performance.now() - start) / 1000;
    if (restored.status !== 0) wrong.push(`not restored: ${restored.stderr.slice(0, 300)}`);
    const looked = run(['check-data']);
    if (looked.status !== 0) wrong.push(...looked.stdout.split('\n').slice(0, 5));
    if (!looked.stdout.includes(`${pieces} pieces`)) wrong.push(looked.stdout.trim());
    const undone = run(['restore', '--undo'], 'y\n');
    if (undone.status !== 0) wrong.push(`not taken back: ${undone.stderr.slice(0, 300)}`);
    if (run(['check-data']).status !== 0) wrong.push('taken back, and does not hang together');
    const again = await started(data);
    await again();
    return { seconds, wrong };
  } finally {
    // Broken off, it would leave its server running, and that hides why.
    run(['stop']);
    rmSync(at, { recursive: true, force: true });
  }
}

/** Copies of the first piece with its card, every tenth with an option twice under one id. */
const grownBy = (pieces: number): string => `
  delete from pictures;
  create temp table model as select * from pieces order by seq limit 1;
  create temp table made as select gen_random_uuid() as id, n
    from generate_series(1, ${pieces} - (select count(*)::int from pieces)) as n;
  insert into pieces (id, job, name, part, side, metal, thickness_mm, thickness, structural, notes, survey, folding, shaping)
    select made.id, job, 'Copy ' || n, part, side, metal, thickness_mm, thickness, structural, notes,
      case when n % 10 = 0 then jsonb_set(survey, '{options}', '[
        {"id": "o", "of": "patch", "name": "first", "hours": [1, 2, 3], "material": 0, "price": 0},
        {"id": "o", "of": "patch", "name": "second", "hours": [1, 2, 3], "material": 0, "price": 0}]')
      else survey end, folding, shaping
    from model, made;
  insert into documents (piece, kind, number, parent, version, body)
    select made.id, d.kind, d.number, d.parent, d.version, d.body
    from documents d, model, made where d.piece = model.id;
  insert into heads (piece, kind, number)
    select made.id, h.kind, h.number from heads h, model, made where h.piece = model.id;
`;
