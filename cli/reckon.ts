import { readFileSync } from 'node:fs';
import { VERBS, reckon } from './verbs';

const USAGE = `patrone reckon VERB [--in FILE]   JSON in (standard input or FILE), JSON out; exit code 1 when it cannot be answered
patrone reckon VERB --example    a valid input
patrone reckon --help            this

Lengths are in millimetres and angles in degrees, named so: thicknessMm, angleDeg. Every answer has "ok"; a refusal has
"problems", each with a code, the figures and the things concerned.

Verbs:
${Object.entries(VERBS)
  .map(([name, { about }]) => `  ${name.padEnd(10)} ${about}`)
  .join('\n')}
`;

function main(args: string[]): number {
  const [name, ...rest] = args;
  if (!name || name === '--help' || name === '-h' || rest.includes('--help')) {
    process.stdout.write(USAGE);
    return name ? 0 : 1;
  }
  if (rest.includes('--example') && VERBS[name]) return print({ ...(VERBS[name].example as object) }, 0);
  const at = rest.indexOf('--in');
  const known = at >= 0 ? rest.length === 2 && at === 0 : rest.length === 0;
  if (!known) return print({ ok: false, problems: [{ code: 'usage', message: 'See: patrone reckon --help' }] }, 1);
  if (!VERBS[name]) return print(reckon(name, null), 1);
  let text: string;
  try {
    text = readFileSync(at >= 0 ? rest[1]! : 0, 'utf8');
  } catch (error) {
    return print({ ok: false, problems: [{ code: 'cannot-read', message: (error as Error).message }] }, 1);
  }
  let given: unknown;
  try {
    given = JSON.parse(text);
  } catch (error) {
    return print({ ok: false, problems: [{ code: 'not-json', message: (error as Error).message }] }, 1);
  }
  const answer = reckon(name, given);
  return print(answer, answer.ok ? 0 : 1);
}

function print(answer: object, code: number): number {
  process.stdout.write(`${JSON.stringify(answer)}\n`);
  return code;
}

process.exitCode = main(process.argv.slice(2));
