import { existsSync, readdirSync, rmSync, statSync, statfsSync, writeFileSync } from 'node:fs';
import { delimiter, join } from 'node:path';
import { run } from './run';
import { HERE, databasePrograms } from './settings';
import { Refusal, say } from './tell';

const MEGABYTE = 1e6;
/** Free space for libraries and build, bytes; once they are there, for what changes. */
const [NEEDED, NEEDED_AGAIN] = [1500 * MEGABYTE, 200 * MEGABYTE];

/** Space that a user may fill on the disk of a folder, bytes; Infinity where it cannot be told. */
export function freeSpace(folder: string): number {
  try {
    const { bavail, bsize } = statfsSync(folder);
    return bavail * bsize;
  } catch {
    return Infinity;
  }
}

export function needSpace(): void {
  const free = freeSpace(HERE);
  if (free >= (existsSync('build/.done') ? NEEDED_AGAIN : NEEDED)) return;
  throw new Refusal(
    `the disk is nearly full (${Math.floor(free / MEGABYTE)} MB free under ${HERE}). Make room and run again.`,
  );
}

/** The Debian package that each program comes from. */
const PACKAGES = {
  initdb: 'postgresql',
  psql: 'postgresql-client',
  chromium: 'chromium',
  pdfinfo: 'poppler-utils',
  openssl: 'openssl',
  flock: 'util-linux',
} as const;
export type NeededProgram = keyof typeof PACKAGES;

const onPath = (program: string): boolean =>
  (process.env.PATH ?? '').split(delimiter).some((folder) => existsSync(join(folder, program)));

/** Packages of programs that are not there. */
export function missingPackages(
  programs: readonly NeededProgram[],
  there = (program: NeededProgram) =>
    program === 'initdb' ? databasePrograms() !== null : onPath(program),
): string[] {
  return [...new Set(programs.filter((one) => !there(one)).map((one) => PACKAGES[one]))];
}

/** Installs what is missing from the distribution's packages; refuses where that cannot be. */
export async function needPrograms(...programs: NeededProgram[]): Promise<void> {
  const missing = missingPackages(programs);
  if (missing.length === 0) return;
  const names = missing.join(' ');
  if (!onPath('apt-get'))
    throw new Refusal(
      `missing: ${names}. This is not a Debian machine: install them its own way and run again.`,
    );
  const isRoot = process.getuid?.() === 0;
  if (!isRoot && !onPath('sudo'))
    throw new Refusal(
      `these Debian packages are missing and there is no sudo to install them with: ${names}. Install them as root and run again.`,
    );
  say(`Installing ${names} …`);
  // A sudo that asks for a password asks on the terminal itself.
  const asRoot = (args: string[]) => (isRoot ? run(args[0]!, args.slice(1)) : run('sudo', args));
  const install = ['apt-get', 'install', '-y', '--no-install-recommends', ...missing];
  const quietly = ['env', 'DEBIAN_FRONTEND=noninteractive'];
  if ((await asRoot([...quietly, ...install])).code === 0) return;
  await asRoot(['apt-get', 'update']);
  if ((await asRoot([...quietly, ...install])).code === 0) return;
  throw new Refusal(
    `could not install ${names}. Run 'apt-get install ${names}' by hand to see why.`,
  );
}

/** What a build is made from. */
const SOURCES = [
  'app',
  'bench',
  'cli',
  'core',
  'demo',
  'server',
  'torture',
  'package-lock.json',
  'vite.config.ts',
  'vite.node.config.ts',
  'vite.server.config.ts',
];

/** Whether a file of `source`, tests left out, is newer than `time`, ms since the epoch. */
function newer(source: string, time: number): boolean {
  const found = statSync(source, { throwIfNoEntry: false });
  if (!found) return false;
  if (found.isDirectory())
    return readdirSync(source).some((name) => newer(join(source, name), time));
  return found.mtimeMs > time && !source.includes('.test.');
}

/** Whether a file is missing, or older than anything it is built from. */
function stale(file: string): boolean {
  const built = statSync(file, { throwIfNoEntry: false });
  return !built || SOURCES.some((source) => newer(source, built.mtimeMs));
}

/** Builds the application, where anything it is made from is newer than what was built. */
export async function needBuild(): Promise<void> {
  const done = 'build/.done';
  if (!stale(done)) return;
  say('Building …');
  rmSync(done, { force: true });
  const steps = [
    ['react-router', 'build'],
    ['vite', 'build', '-c', 'vite.server.config.ts'],
    ['vite', 'build', '-c', 'vite.node.config.ts'],
  ];
  for (const [i, step] of steps.entries()) {
    // What runs in Node.js may have been built just now, for this very program to run.
    if (i === 2 && !stale('build/node/commands.js')) continue;
    const { code, out, err } = await run('npx', step);
    if (code === 0) continue;
    process.stderr.write(`${out}${err}`);
    throw new Refusal('the build failed.');
  }
  writeFileSync(done, '');
}
