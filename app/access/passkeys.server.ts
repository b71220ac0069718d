import {
  generateAuthenticationOptions,
  generateRegistrationOptions,
  verifyAuthenticationResponse,
  verifyRegistrationResponse,
} from '@simplewebauthn/server';
import type { AuthenticationResponseJSON, RegistrationResponseJSON } from '@simplewebauthn/server';
import { and, asc, eq, gt, isNull, lt } from 'drizzle-orm';
import { isSecure } from './cookie.server';
import { dbOf } from '../records/database.server';
import type { Tx } from '../records/database.server';
import { passkeyAsks, passkeys, people } from '../records/peopleTables.server';
import { Viewer } from '../records/viewer.server';

/** How long one has to touch the key, ms. */
const ASKED_MS = 5 * 60_000;

const db = () => dbOf(Viewer.shop);

/** The site a passkey is for: its host name, and where its pages come from. */
type Site = { host: string; origin: string };
export function siteOf(request: Request): Site {
  const { hostname, host } = new URL(request.url);
  return { host: hostname, origin: `${isSecure(request) ? 'https' : 'http'}://${host}` };
}

/** Browsers make passkeys for names alone, not for addresses by figures. */
export const takesPasskeys = ({ host }: Site): boolean => !/^[\d.]+$|^\[/.test(host);

async function ask(challenge: string, person: string | null): Promise<void> {
  await db().delete(passkeyAsks).where(lt(passkeyAsks.until, new Date()));
  await db()
    .insert(passkeyAsks)
    .values({ challenge, person, until: new Date(Date.now() + ASKED_MS) });
}

/** Takes back what was asked; null where it was not, or too long ago, or answered already. */
async function asked(challenge: string): Promise<{ person: string | null } | null> {
  const mine = and(eq(passkeyAsks.challenge, challenge), gt(passkeyAsks.until, new Date()));
  return (await db().delete(passkeyAsks).where(mine).returning())[0] ?? null;
}

/** Which of our challenges an answer is to: it says so itself, and is checked against it after. */
function challengeIn(response: { response: { clientDataJSON: string } }): string {
  try {
    const said = JSON.parse(
      Buffer.from(response.response.clientDataJSON, 'base64url').toString(),
    ) as { challenge?: unknown };
    return typeof said.challenge === 'string' ? said.challenge : '';
  } catch {
    return '';
  }
}

/**
 * What a browser needs to make a passkey for somebody; `person` null for the first, who is not
 * there yet.
 */
export async function askToMake(site: Site, name: string, person: string | null) {
  const known =
    person === null
      ? []
      : await db().select({ id: passkeys.id }).from(passkeys).where(eq(passkeys.person, person));
  const options = await generateRegistrationOptions({
    rpName: 'Patrone',
    rpID: site.host,
    userName: name,
    userDisplayName: name,
    excludeCredentials: known,
    attestationType: 'none',
    authenticatorSelection: { residentKey: 'required', userVerification: 'required' },
  });
  await ask(options.challenge, person);
  return options;
}

export type Made = { id: string; publicKey: string; counter: number; host: string };

/**
 * A passkey as a browser made it, checked; null for what was not asked for so, or does not hold.
 */
export async function madePasskey(
  site: Site,
  person: string | null,
  response: RegistrationResponseJSON,
): Promise<Made | null> {
  const challenge = challengeIn(response);
  const was = await asked(challenge);
  if (!was || was.person !== person) return null;
  try {
    const { verified, registrationInfo } = await verifyRegistrationResponse({
      response,
      expectedChallenge: challenge,
      expectedOrigin: site.origin,
      expectedRPID: site.host,
      requireUserVerification: true,
    });
    if (!verified) return null;
    const { id, publicKey, counter } = registrationInfo.credential;
    return {
      id,
      publicKey: Buffer.from(publicKey).toString('base64url'),
      counter,
      host: site.host,
    };
  } catch {
    return null;
  }
}

/** Keeps a passkey as somebody's; false where it is kept already. */
export const keepPasskey = async (person: string, made: Made, tx: Tx = db()): Promise<boolean> =>
  (
    await tx
      .insert(passkeys)
      .values({ ...made, person })
      .onConflictDoNothing()
      .returning()
  ).length > 0;

/**
 * What a browser needs to have somebody sign in with a passkey: it shows those it has for this
 * site.
 */
export async function askToEnter(site: Site) {
  const options = await generateAuthenticationOptions({
    rpID: site.host,
    userVerification: 'required',
  });
  await ask(options.challenge, null);
  return options;
}

/** Whose passkey has signed what it was asked to; null where nobody's has. */
export async function entered(
  site: Site,
  response: AuthenticationResponseJSON,
): Promise<string | null> {
  const challenge = challengeIn(response);
  if (!(await asked(challenge))) return null;
  const [found] = await db()
    .select({ key: passkeys })
    .from(passkeys)
    .innerJoin(people, and(eq(people.id, passkeys.person), isNull(people.gone)))
    .where(eq(passkeys.id, response.id));
  if (!found) return null;
  const { key } = found;
  try {
    const { verified, authenticationInfo } = await verifyAuthenticationResponse({
      response,
      expectedChallenge: challenge,
      expectedOrigin: site.origin,
      expectedRPID: site.host,
      credential: {
        id: key.id,
        publicKey: Buffer.from(key.publicKey, 'base64url'),
        counter: key.counter,
      },
      requireUserVerification: true,
    });
    if (!verified) return null;
    await db()
      .update(passkeys)
      .set({ counter: authenticationInfo.newCounter, used: new Date() })
      .where(eq(passkeys.id, key.id));
    return key.person;
  } catch {
    return null;
  }
}

/** Somebody's passkeys, in the order they were made. */
export const passkeysOf = (viewer: Viewer, person: string) =>
  dbOf(viewer)
    .select({ id: passkeys.id, host: passkeys.host, made: passkeys.made, used: passkeys.used })
    .from(passkeys)
    .where(eq(passkeys.person, person))
    .orderBy(asc(passkeys.seq));

export const forgetPasskey = (viewer: Viewer, person: string, id: string) =>
  dbOf(viewer)
    .delete(passkeys)
    .where(and(eq(passkeys.person, person), eq(passkeys.id, id)));
