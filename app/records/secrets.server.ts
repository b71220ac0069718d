import { createHash, randomBytes } from 'node:crypto';
import argon2 from 'argon2';

/** Argon2id as the OWASP Password Storage Cheat Sheet has it: 19 MiB, two passes, one lane. */
const HOW = { type: argon2.argon2id, memoryCost: 19 * 1024, timeCost: 2, parallelism: 1 } as const;

/** A pass phrase or PIN as it is kept. */
export const hashed = (secret: string): Promise<string> =>
  argon2.hash(secret.normalize('NFKC'), HOW);

let nobodys: Promise<string> | null = null;

/** Whether a secret is the one that is kept; where none is kept it takes as long to say no. */
export async function isIt(secret: string, kept: string | null): Promise<boolean> {
  nobodys ??= hashed(randomBytes(16).toString('hex'));
  const right = await argon2.verify(kept ?? (await nobodys), secret.normalize('NFKC'));
  return right && kept !== null;
}

/** A secret that nobody can guess, 256 bits, in letters that an address and a cookie take. */
export const newToken = (): string => randomBytes(32).toString('base64url');

/** What is kept of a token: whoever reads it has no token. */
export const digestOf = (token: string): string => createHash('sha256').update(token).digest('hex');
