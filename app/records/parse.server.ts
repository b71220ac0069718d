import { data } from 'react-router';
import { z } from 'zod';

/**
 * What a page sends along with a record, so that sending it again does not write it again (`once`).
 */
export const Key = z.object({ key: z.uuid().optional() });

/**
 * The id that a page gave a record it wrote, so that what hangs on it can be written before the
 * server has it.
 */
export const NewId = z.uuid().optional();

/** The ids of rows as they went in; 409 where one of them was in use. */
export function wentIn(rows: readonly { id: string }[], wanted: number): string[] {
  if (rows.length < wanted)
    throw data({ message: 'There is a record of that id already.' }, { status: 409 });
  return rows.map(({ id }) => id);
}

/**
 * The key a form was sent under, so that sending it again does not do it again; none with forms of
 * scripts.
 */
export function keyOf(form: FormData): string | undefined {
  const key = form.get('key');
  return typeof key === 'string' && /^[0-9a-f -]{36,80}$/.test(key) ? key : undefined;
}

/** A form as it was sent; 400 for what is none. */
export async function formOf(request: Request): Promise<FormData> {
  try {
    return await request.formData();
  } catch {
    throw data({ message: 'What was sent could not be read as a form.' }, { status: 400 });
  }
}

/**
 * Parses what was sent by a schema; what does not fit comes back as 400 with a sentence that names
 * the field.
 */
export async function parsedJson<S extends z.ZodType>(
  request: Request,
  schema: S,
): Promise<z.output<S>> {
  const parsed = schema.safeParse(await request.json().catch(() => null));
  if (parsed.success) return parsed.data;
  throw Response.json({ message: sentence(parsed.error) }, { status: 400 });
}

export function sentence(error: z.ZodError): string {
  const issue = error.issues[0];
  return issue
    ? `${issue.path.join(' ') || 'What was sent'}: ${issue.message}`
    : 'What was sent could not be read.';
}

/** An id from an address, in small letters as they are kept; 404 for anything that is not one. */
export function idOr404(value: string): string {
  const id = z.uuid().safeParse(value);
  if (!id.success) throw data(null, { status: 404 });
  return id.data.toLowerCase();
}
