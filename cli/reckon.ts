import { once } from 'node:events';
import { readFileSync, writeFileSync } from 'node:fs';
import { createInterface } from 'node:readline';
import { VERBS, reckon } from './verbs';

const USAGE = `patrone reckon VERB [--in FILE]   JSON in (standard input or FILE), JSON out; exit code 1 when it cannot be answered
patrone reckon VERB --lines      one input a line, one answer a line, in order, for as long as lines come
patrone reckon VERB --example    a valid input
patrone reckon VERB --out FILE   the answer into FILE (a surface into FILE.obj as OBJ), a short one here
patrone reckon --help            this

Lengths are in millimetres and angles in degrees, named so: thicknessMm, angleDeg. Every answer has "ok"; a refusal has
"problems", each with a code, the figures and the things concerned. With --lines a refusal is an answer like any other,
and the exit code is 0 when every line got one.

Verbs:
${Object.entries(VERBS)
  .map(([name, { about }]) => `  ${name.padEnd(10)} ${about}`)
  .join('\n')}
`;

type Answer = { ok: boolean } & Record<string, unknown>;
const refusal = (code: string, message: string): Answer => ({
  ok: false,
  problems: [{ code, message }],
});

async function main(args: string[]): Promise<number> {
  const [name, ...rest] = args;
  if (!name || name === '--help' || name === '-h' || rest.includes('--help')) {
    process.stdout.write(USAGE);
    return name ? 0 : 1;
  }
  const verb = Object.hasOwn(VERBS, name) ? VERBS[name] : undefined;
  if (rest.includes('--example') && verb) return print({ ...(verb.example as object) }, 0);
  if (!verb) return print(await reckon(name, null), 1);
  if (rest.length === 1 && rest[0] === '--lines') return everyLine(name);
  const out = rest.indexOf('--out');
  const to = out >= 0 ? rest[out + 1] : undefined;
  if (out >= 0) rest.splice(out, 2);
  const at = rest.indexOf('--in');
  const known = at >= 0 ? rest.length === 2 && at === 0 : rest.length === 0;
  if (!known || (out >= 0 && !to)) return print(refusal('usage', 'See: patrone reckon --help'), 1);
  let text: string;
  try {
    text = readFileSync(at >= 0 ? rest[1]! : 0, 'utf8');
  } catch (error) {
    return print(refusal('cannot-read', (error as Error).message), 1);
  }
  const answer = await answerTo(name, text);
  if (!to || !answer.ok) return print(answer, answer.ok ? 0 : 1);
  const plain =
    to.endsWith('.obj') && typeof answer.obj === 'string'
      ? answer.obj
      : `${JSON.stringify(answer)}\n`;
  try {
    writeFileSync(to, plain);
  } catch (error) {
    return print(refusal('cannot-write', (error as Error).message), 1);
  }
  // What is long is in the file.
  return print(
    Object.fromEntries(
      Object.entries(answer).filter(([key, value]) => key !== 'obj' && !Array.isArray(value)),
    ),
    0,
  );
}

async function answerTo(name: string, text: string): Promise<Answer> {
  let given: unknown;
  try {
    given = JSON.parse(text.replace(/^\uFEFF/, ''));
  } catch (error) {
    return refusal('not-json', (error as Error).message);
  }
  return reckon(name, given);
}

/**
 * Answers line by line, waiting for whoever reads the answers: thousands of cards run in little
 * memory.
 */
async function everyLine(name: string): Promise<number> {
  for await (const line of createInterface({ input: process.stdin, crlfDelay: Infinity })) {
    if (!process.stdout.write(`${JSON.stringify(await answerTo(name, line))}\n`))
      await once(process.stdout, 'drain');
  }
  return 0;
}

function print(answer: object, code: number): number {
  process.stdout.write(`${JSON.stringify(answer)}\n`);
  return code;
}

// Whoever reads the answers may stop before the last one.
process.stdout.on('error', (error: NodeJS.ErrnoException) =>
  process.exit(error.code === 'EPIPE' ? 0 : 1),
);
process.exitCode = await main(process.argv.slice(2));
