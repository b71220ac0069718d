/** What is asked of the server, as far as it can be judged before anything is read. */
export type Asked = {
  method: string;
  /** As it stands in the request, before anything is made of it. */
  target: string;
  path: string;
  host: string | undefined;
  origin: string | undefined;
  contentLength: string | undefined;
  transferEncoding: string | undefined;
};

/**
 * Where a listener is reached: over TLS or not, and by which names (as in an address, IPv6 in
 * brackets).
 */
export type Served = { secure: boolean; names: ReadonlySet<string> };
/** On the machine itself, and nowhere else. */
export const LOOPBACK: Served = {
  secure: false,
  names: new Set(['127.0.0.1', 'localhost', '[::1]']),
};
export type Refusal = { status: number; message: string };

const kB = 1024;
const MB = 1024 * kB;

/**
 * The most that may be sent to an address, in bytes: a job file with all its pictures, a picture, a
 * document of four thousand corners, what is drawn over a picture, or a form. A page never sends
 * more than its own fields take.
 */
export function mostBytes(path: string): number {
  if (path === '/take-in') return 2048 * MB;
  if (/^\/jobs\/[^/]+\/pictures$/.test(path)) return 25 * MB;
  // A card made from another's holds that one too, as it lies there and as it lies here.
  if (/\/documents\/|\/other-part$/.test(path)) return 6 * MB;
  if (/^\/pictures\//.test(path)) return 2 * MB;
  return 256 * kB;
}

const READS = new Set(['GET', 'HEAD', 'OPTIONS']);

/**
 * Whether a request is refused at the door, the same for every address: it must be meant for this
 * server by name (a foreign page can give its own name this address), what writes must come from a
 * page of this server, and it must say how large it is and be no larger than what it is for. Null
 * lets it in.
 */
export function refusal(asked: Asked, served: Served = LOOPBACK): Refusal | null {
  // An address is asked for by its path: what names a host of its own is meant for a proxy.
  if (!asked.target.startsWith('/'))
    return { status: 400, message: 'That is no address of Patrone’s: ask for a path.' };
  const host = asked.host?.toLowerCase() ?? '';
  if (!served.names.has(host.replace(/:\d+$/, ''))) {
    return {
      status: 421,
      message: `This is Patrone on this machine; it does not answer to the name “${host}”.`,
    };
  }
  if (READS.has(asked.method)) return null;
  // Browsers send it with everything that writes; a script of one's own sends none and is no
  // foreign page.
  if (
    asked.origin !== undefined &&
    asked.origin !== `${served.secure ? 'https' : 'http'}://${host}`
  ) {
    return {
      status: 403,
      message: 'That came from another site’s page. Only Patrone’s own pages may write here.',
    };
  }
  if (asked.transferEncoding !== undefined && asked.contentLength === undefined) {
    return { status: 411, message: 'Say how large it is: send it with its length.' };
  }
  const most = mostBytes(asked.path);
  if (Number(asked.contentLength ?? 0) > most) {
    const said = most >= MB ? `${most / MB} MB` : `${most / kB} kB`;
    return {
      status: 413,
      message: `That is more than can be taken here (${said} at most). Nothing was stored.`,
    };
  }
  return null;
}
