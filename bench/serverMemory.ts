import { readFileSync } from 'node:fs';

/** What the server holds of memory now, MB; of the process PATRONE_SERVER_PID names. */
export const serverMemory = () =>
  Number(
    /VmRSS:\s+(\d+)/.exec(
      readFileSync(`/proc/${process.env.PATRONE_SERVER_PID!}/status`, 'utf8'),
    )![1],
  ) / 1024;

/** The highest it stood while something ran, looked at every 20 ms, MB. */
export async function highest<T>(run: () => Promise<T>): Promise<{ found: T; maxMb: number }> {
  let maxMb = serverMemory();
  const looking = setInterval(() => (maxMb = Math.max(maxMb, serverMemory())), 20);
  try {
    return { found: await run(), maxMb };
  } finally {
    clearInterval(looking);
  }
}
