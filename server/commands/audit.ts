import { readFileSync } from 'node:fs';
import { run } from './run';
import { say } from './tell';

/**
 * Known holes of the libraries; where the registry does not answer that, how old each of them is.
 * The code to end with.
 */
export async function audit(): Promise<number> {
  const { code, out, err } = await run('npm', ['audit', '--omit=dev', '--loglevel=error']);
  const said = out + err;
  if (!/audit endpoint returned an error|ENOTFOUND|EAI_AGAIN|ECONNREFUSED/.test(said)) {
    process.stdout.write(said);
    return code;
  }
  say(
    'The registry does not answer what is known against them. Of each library the version that is used and its day:',
  );
  const json = (file: string) => JSON.parse(readFileSync(file, 'utf8')) as Record<string, unknown>;
  const packages = json('package-lock.json').packages as Record<string, { version: string }>;
  const names = Object.keys(json('package.json').dependencies as object);
  const lines: string[] = [];
  for (const name of names) {
    const { version } = packages[`node_modules/${name}`]!;
    const asked = await run('npm', ['view', name, 'time', '--json', '--loglevel=error']);
    const times = asked.code === 0 ? (JSON.parse(asked.out) as Record<string, string>) : null;
    const day = times === null ? 'unknown   ' : (times[version] ?? '?').slice(0, 10);
    lines.push(`${day}  ${name}  ${version}`);
  }
  say(lines.sort().join('\n'));
  return 0;
}
