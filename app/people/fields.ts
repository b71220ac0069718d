import { z } from 'zod';

/**
 * Shortest pass phrase, letters: four words or so (NIST SP 800-63B asks for eight at the least).
 */
const PHRASE_LEAST = 10;

export const NameSchema = z
  .string()
  .trim()
  .min(1, 'Say a name: the first name is enough.')
  .max(40, 'A first name is enough: 40 letters at most.');
export const PhraseSchema = z
  .string()
  .min(
    PHRASE_LEAST,
    `A pass phrase has at least ${PHRASE_LEAST} letters: three or four words that nobody would guess.`,
  )
  .max(200, 'That is longer than anybody types twice: 200 letters at most.');
export const PinSchema = z.string().regex(/^\d{4,8}$/, 'A PIN is four to eight figures.');

export const ROLE_WORDS = {
  runs: { name: 'Runs the shop', about: 'Everything, people and settings too.' },
  works: { name: 'Works', about: 'Everything but people, settings and putting back backups.' },
  looks: { name: 'Looks', about: 'Sees the jobs chosen for them, and changes nothing.' },
} as const;
export const RoleSchema = z.enum(['runs', 'works', 'looks']);

/** What a browser answers for a passkey (WebAuthn, JSON): its library checks what is in it. */
export const Answer = z.looseObject({
  id: z.string().min(1).max(2000),
  rawId: z.string().max(2000),
  type: z.literal('public-key'),
  response: z.looseObject({ clientDataJSON: z.string().max(20_000) }),
});

/** The same as a form brings it; null for anything else. */
export function parsedAnswer(text: string): z.output<typeof Answer> | null {
  if (text.length > 60_000) return null;
  try {
    return Answer.safeParse(JSON.parse(text)).data ?? null;
  } catch {
    return null;
  }
}

/** What a form says in its fields, as words; a file is none. */
export const said = (form: FormData, field: string): string => {
  const value = form.get(field);
  return typeof value === 'string' ? value : '';
};

/** A wait in words. */
export const waitSaid = (seconds: number): string =>
  `Too many wrong tries: wait ${seconds < 90 ? `${seconds} seconds` : `${Math.ceil(seconds / 60)} minutes`}, then try again.`;
