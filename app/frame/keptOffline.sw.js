/**
 * Keeps what is used at the vehicle on a phone that was let in: the program's own files, and of the
 * pieces looked at last the pages for survey, shaping, fit and weld. What the server can answer it
 * answers; only without it what is kept is shown.
 */
/**
 * The build this was made with (`vite.config.ts` puts it in): what is kept is kept by build. After an
 * update the older is shown until the newer is all there, and then dropped.
 */
const BUILD = '__BUILD__';
const SHELL = `patrone-shell-${BUILD}`;
const PAGES = `patrone-pages-${BUILD}`;
/** So many pages are kept, those seen last. */
const MOST_PAGES = 40;
/** So long the server may take before what is kept is shown, ms. */
const PATIENCE_MS = 6000;
/** Where the piece that was looked at last is written down. */
const LAST = '/patrone-last-seen';

const AT_VEHICLE = /^\/pieces\/[0-9a-f-]{36}(\/(survey|shape|fit|weld))?(\.data)?$/;
const PAGE = /^\/pieces\/[0-9a-f-]{36}\/(survey|shape|fit|weld)$/;
const OWN_FILE = /^\/(assets\/|icon|apple-touch-icon|manifest\.webmanifest$)/;

self.addEventListener('install', () => self.skipWaiting());
self.addEventListener('activate', (event) => event.waitUntil(self.clients.claim()));
self.addEventListener('message', (event) => {
  if (event.data.what === 'keep')
    event.waitUntil(keep(event.data.files, event.data.pages).then(renew));
  if (event.data.what === 'last' && PAGE.test(event.data.path))
    event.waitUntil(remember(event.data.path));
  // Somebody else may come in next.
  if (event.data.what === 'forget') event.waitUntil(forget());
});
self.addEventListener('fetch', (event) => {
  const { request } = event;
  const { origin, pathname } = new URL(request.url);
  if (request.method !== 'GET' || origin !== location.origin) return;
  if (OWN_FILE.test(pathname)) event.respondWith(ownFile(request));
  else if (AT_VEHICLE.test(pathname)) event.respondWith(serverFirst(request));
  else if (pathname === '/' && request.mode === 'navigate')
    event.respondWith(fetch(request).catch(lastSeen));
});

const older = async () => (await caches.keys()).filter((name) => name !== SHELL && name !== PAGES);

async function forget() {
  for (const name of await caches.keys()) if (name.includes('-pages-')) await caches.delete(name);
}

/** Files never change under their names, and are kept as they come. */
async function ownFile(request) {
  const known = await caches.match(request);
  if (known) return known;
  const answer = await fetch(request);
  if (answer.ok) await (await caches.open(SHELL)).put(request, answer.clone());
  return answer;
}

/** A page as it was kept: by this build, else by an older one whose files are still there. */
async function keptPage(url) {
  for (const name of [PAGES, ...(await older())]) {
    const pages = await caches.open(name);
    const known = (await pages.match(url)) ?? (await pages.match(url, { ignoreSearch: true }));
    if (known) return known;
  }
  return null;
}

async function serverFirst(request) {
  let answer;
  try {
    answer = await within(fetch(request));
  } catch (error) {
    const known = await keptPage(request.url);
    if (known) return known;
    throw error;
  }
  // A server that is there and cannot answer is as good as away.
  if (answer.status >= 500) return (await keptPage(request.url)) ?? answer;
  // A page that sends one on elsewhere is not it.
  if (answer.ok && !answer.redirected) await putPage(request.url, answer.clone());
  return answer;
}

function within(asked) {
  return new Promise((done, failed) => {
    setTimeout(() => failed(new TypeError('The server takes too long')), PATIENCE_MS);
    asked.then(done, failed);
  });
}

async function putPage(url, answer) {
  const pages = await caches.open(PAGES);
  // Put anew it comes last: the first are those that were not seen for longest.
  await pages.delete(url);
  await pages.put(url, answer);
  const all = await pages.keys();
  for (const old of all.slice(0, Math.max(0, all.length - MOST_PAGES))) await pages.delete(old);
}

/** Which page was open last: written down by the pages themselves, which know when they turn. */
async function remember(path) {
  await (await caches.open(PAGES)).put(LAST, new Response(path));
}

/** Opened without the server the program begins at the piece that was looked at last. */
async function lastSeen() {
  const last = await keptPage(LAST);
  return last ? Response.redirect(await last.text(), 302) : Response.error();
}

/** Fetches a page into what this build keeps; whether it is there. */
async function fetchPage(page) {
  const accept = page.endsWith('.data') ? '*/*' : 'text/html';
  const answer = await fetch(page, { headers: { Accept: accept } }).catch(() => null);
  if (!answer?.ok || answer.redirected) return answer !== null && answer.status < 500;
  await (await caches.open(PAGES)).put(page, answer);
  return true;
}

/**
 * Keeps files and pages that will be wanted though nobody has looked at them yet; whether all of
 * them are there.
 */
async function keep(files, wanted) {
  const shell = await caches.open(SHELL);
  let whole = true;
  for (const file of files) {
    if (await shell.match(file)) continue;
    await shell.add(file).catch(() => (whole = false));
  }
  for (const page of wanted) whole = (await fetchPage(page)) && whole;
  return whole;
}

/** After an update: what an older build kept is kept anew, and dropped when all of it is there. */
async function renew(whole) {
  const before = await older();
  if (!whole || before.length === 0) return;
  const pages = await caches.open(PAGES);
  const kept = await Promise.all(
    before.filter((name) => name.includes('-pages-')).map(async (name) => caches.open(name)),
  );
  const wanted = new Set(
    (await Promise.all(kept.map((cache) => cache.keys()))).flat().map(({ url }) => url),
  );
  for (const url of wanted) {
    if (await pages.match(url)) continue;
    if (new URL(url).pathname === LAST) {
      const last = await keptPage(LAST);
      if (last) await pages.put(LAST, last);
    } else if (!(await fetchPage(url))) return;
  }
  for (const name of before) await caches.delete(name);
}
