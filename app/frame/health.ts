import { asking } from '../records/database.server';

/** Answers 200 when the server and its database do. */
export async function loader() {
  try {
    await asking.query('select 1');
    return new Response('ok');
  } catch {
    return new Response('The database does not answer.', { status: 503 });
  }
}
