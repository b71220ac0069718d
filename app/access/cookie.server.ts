/**
 * The cookie that says who asks. Over TLS it has a prefix that no other site and no plain page can
 * set.
 */
const PLAIN = 'patrone-session';
const nameOf = (secure: boolean): string => (secure ? `__Host-${PLAIN}` : PLAIN);

/** Of a request the token its cookie holds; null without one. */
export function tokenOf(request: Request): string | null {
  const cookies = request.headers.get('Cookie') ?? '';
  const wanted = nameOf(isSecure(request));
  for (const part of cookies.split(/;\s*/)) {
    const at = part.indexOf('=');
    if (at > 0 && part.slice(0, at) === wanted) return part.slice(at + 1) || null;
  }
  return null;
}

/**
 * How the cookie is set: script cannot read it, no other site sends it with what it posts (OWASP
 * Session Management Cheat Sheet). `forS`: how long the browser keeps it, seconds; null until it is
 * closed; 0 takes it away.
 */
export function cookieFor(request: Request, token: string, forS: number | null): string {
  const secure = isSecure(request);
  return [
    `${nameOf(secure)}=${token}`,
    'Path=/',
    'HttpOnly',
    'SameSite=Lax',
    ...(secure ? ['Secure'] : []),
    ...(forS === null ? [] : [`Max-Age=${forS}`]),
  ].join('; ');
}

/**
 * What the server says of the line a request came over: headers it sets itself, whatever was sent
 * under their names.
 */
const FROM = 'x-patrone-from';
const SECURE = 'x-patrone-secure';
/**
 * Whether a page’s data is asked for by the router, whose name for it (`.data`) is gone by then.
 */
const DATA = 'x-patrone-data';

export const isData = (request: Request): boolean => request.headers.get(DATA) === 'yes';

export const isSecure = (request: Request): boolean => request.headers.get(SECURE) === 'yes';
/**
 * The address asked from; in development, where no server of ours stands before it, this machine's.
 */
export const addressOf = (request: Request): string =>
  request.headers.get(FROM) ?? (process.env.NODE_ENV === 'production' ? 'unknown' : '127.0.0.1');
export const isHere = (request: Request): boolean =>
  !isSecure(request) && /^(127\.|::1$|::ffff:127\.)/.test(addressOf(request));
