import { redirect } from 'react-router';
import { cookieFor, tokenOf } from '../access/cookie.server';
import { signOut } from '../access/sessions.server';
import type { Route } from './+types/signOut';

/** Ends this session: here, and in the database. */
export async function action({ request }: Route.ActionArgs) {
  const token = tokenOf(request);
  if (token) await signOut(token);
  throw redirect('/sign-in', { headers: { 'Set-Cookie': cookieFor(request, '', 0) } });
}
