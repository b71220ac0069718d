import { kept, storeRead } from '../forms/browserStore';
import type { Watched } from '../forms/watched';
import { watched } from '../forms/watched';
import type { HangsOn, Picture } from '../records/pictures.server';
import { MAX_PICTURE_BYTES } from './keepPicture';

/**
 * A picture on its way to the server: kept in this browser until it is there, also when the page is
 * closed.
 */
export type Waiting = {
  /** Its name in the browser, and the key it is sent under. */
  key: string;
  on: HangsOn;
  name: string;
  file: Blob;
  at: number;
};

/**
 * How far it has come: waits its turn or the server, goes (`share`, 0 to 1), or was refused with a
 * reason.
 */
export type Progress =
  { state: 'waiting' | 'going'; share: number } | { state: 'refused'; why: string };
export type OnItsWay = Waiting & { progress: Progress };

/** Delay before the server is tried again, ms. */
const RETRY_MS = 4000;

const KIND = 'picture:';
const arrivals = new Set<(on: HangsOn, pictures: Picture[]) => void>();

const way = watched<OnItsWay>(begin);
/** What is on its way. */
export const onItsWay: Watched<OnItsWay> = way;
const said = (key: string, progress: Progress) =>
  way.now(way.snapshot().map((one) => (one.key === key ? { ...one, progress } : one)));

/**
 * Has `tell` know of each picture that has arrived: the pictures of its piece or job as they are
 * now.
 */
export function onArrival(tell: (on: HangsOn, pictures: Picture[]) => void): () => void {
  arrivals.add(tell);
  return () => arrivals.delete(tell);
}

let begun = false;
/** What waits from an earlier page is taken up again. */
function begin(): void {
  if (begun) return;
  begun = true;
  window.addEventListener('online', () => void pump());
  void storeRead().then(() => {
    const all = way.snapshot();
    const known = new Set(all.map((one) => one.key));
    const left = kept
      .keys(KIND)
      .flatMap((name) => kept.get<Waiting>(name) ?? [])
      .filter((one) => !known.has(one.key))
      .sort((a, b) => a.at - b.at);
    way.now([...left.map((one) => ({ ...one, progress: WAITS })), ...all]);
    return pump();
  });
}
const WAITS: Progress = { state: 'waiting', share: 0 };

/**
 * Puts pictures on their way. Those that the server would refuse by their size are told at once,
 * and the rest goes.
 */
export async function send(on: HangsOn, files: readonly File[]): Promise<void> {
  const made = files.map((file, i): OnItsWay => ({
    key: crypto.randomUUID(),
    on,
    name: file.name || 'picture',
    file,
    at: Date.now() + i / 1000,
    progress:
      file.size > MAX_PICTURE_BYTES
        ? {
            state: 'refused',
            why: `${file.name} is larger than 25 MB. Make it smaller and add it again.`,
          }
        : WAITS,
  }));
  way.now([...way.snapshot(), ...made]);
  for (const { progress, ...one } of made)
    if (progress.state === 'waiting') kept.set(KIND + one.key, one);
  await pump();
}

const requests = new Map<string, XMLHttpRequest>();

/** Takes a picture back that is not there yet. */
export function cancel(key: string): void {
  requests.get(key)?.abort();
  way.now(way.snapshot().filter((one) => one.key !== key));
  kept.remove(KIND + key);
}

/** Tries one that was refused once more. */
export function again(key: string): void {
  said(key, WAITS);
  void pump();
}

let pumping = false;
let later: ReturnType<typeof setTimeout> | undefined;

/** Sends what waits, one after the other, until nothing does or the server does not answer. */
async function pump(): Promise<void> {
  if (pumping) return;
  pumping = true;
  clearTimeout(later);
  try {
    for (;;) {
      const next = way.snapshot().find((one) => one.progress.state === 'waiting');
      if (!next) return;
      const came = await navigator.locks.request(`patrone-picture ${next.key}`, async () => {
        // Another window may have sent it meanwhile.
        return kept.get(KIND + next.key) ? sent(next) : 'gone';
      });
      if (came === 'unanswered') {
        said(next.key, WAITS);
        later = setTimeout(() => void pump(), RETRY_MS);
        return;
      }
      if (came === 'gone') way.now(way.snapshot().filter((one) => one.key !== next.key));
    }
  } finally {
    pumping = false;
  }
}

/** Sends one. Gone from here once the server has it. */
function sent({ key, on, name, file }: Waiting): Promise<'gone' | 'refused' | 'unanswered'> {
  const query = new URLSearchParams({ owner: on.owner, of: on.of, name, key });
  if (on.piece) query.set('piece', on.piece);
  return new Promise((done) => {
    const request = new XMLHttpRequest();
    requests.set(key, request);
    request.open('POST', `/jobs/${on.job}/pictures?${query}`);
    request.responseType = 'json';
    request.upload.onprogress = ({ loaded, total }) =>
      said(key, { state: 'going', share: total ? loaded / total : 0 });
    request.onloadend = () => {
      requests.delete(key);
      const answer = request.response as { pictures?: Picture[]; message?: string } | null;
      if (!way.snapshot().some((one) => one.key === key)) return done('gone');
      // Signed out meanwhile: it goes once somebody is signed in again.
      if (request.status === 401) return done('unanswered');
      if (request.status >= 400 && request.status < 500) {
        said(key, { state: 'refused', why: answer?.message ?? `${name} was not taken in.` });
        // Told now, and not again after the page is loaded anew.
        kept.remove(KIND + key);
        return done('refused');
      }
      if (request.status !== 200 || !answer?.pictures) return done('unanswered');
      kept.remove(KIND + key);
      for (const tell of arrivals) tell(on, answer.pictures);
      done('gone');
    };
    said(key, { state: 'going', share: 0 });
    request.send(file);
  });
}
