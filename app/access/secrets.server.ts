import { createHash, randomBytes } from 'node:crypto';
import argon2 from 'argon2';
import pLimit from 'p-limit';

/** Argon2id as the OWASP Password Storage Cheat Sheet has it: 19 MiB, two passes, one lane. */
const HOW = { type: argon2.argon2id, memoryCost: 19 * 1024, timeCost: 2, parallelism: 1 } as const;

/**
 * One hash at a time: each takes a core for as long as it lasts, and pages are to be read beside
 * them. As many as this wait for their turn, about a second; beyond that nobody is kept waiting.
 */
const MAX_WAITING = 20;
const oneAtATime = pLimit(1);

/** More secrets are being judged than can be in a moment: try again. */
export class TooManyAtOnce extends Error {
  constructor() {
    super('Many are signing in at once. Wait a moment, then try again.');
  }
}

/** What takes a core, in its turn. Thrown: `TooManyAtOnce`. */
function inTurn<T>(run: () => Promise<T>): Promise<T> {
  if (oneAtATime.pendingCount >= MAX_WAITING) throw new TooManyAtOnce();
  return oneAtATime(run);
}

/** A pass phrase or PIN as it is kept. Thrown: `TooManyAtOnce`. */
export const hashed = async (secret: string): Promise<string> =>
  inTurn(() => argon2.hash(secret.normalize('NFKC'), HOW));

let nobodys: Promise<string> | null = null;

/**
 * Whether a secret is the one that is kept; where none is kept it takes as long to say no. Thrown:
 * `TooManyAtOnce`.
 */
export async function isIt(secret: string, kept: string | null): Promise<boolean> {
  nobodys ??= argon2.hash(randomBytes(16).toString('hex'), HOW);
  const judged = kept ?? (await nobodys);
  const right = await inTurn(() => argon2.verify(judged, secret.normalize('NFKC')));
  return right && kept !== null;
}

/** A secret that nobody can guess, 256 bits, in letters that an address and a cookie take. */
export const newToken = (): string => randomBytes(32).toString('base64url');

/** What is kept of a token: whoever reads it has no token. */
export const digestOf = (token: string): string => createHash('sha256').update(token).digest('hex');
