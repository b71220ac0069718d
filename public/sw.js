/**
 * Keeps what is used at the vehicle on a phone that was let in: the program's own files, and of the
 * pieces looked at last the pages for survey, shaping, fit and weld. What the server can answer it
 * answers; only without it what is kept is shown.
 */
const SHELL = 'patrone-shell-1';
const PAGES = 'patrone-pages-1';
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
self.addEventListener('activate', (event) => event.waitUntil(takeOver()));
self.addEventListener('message', (event) => {
  if (event.data.what === 'keep') event.waitUntil(keep(event.data.files, event.data.pages));
  if (event.data.what === 'last' && PAGE.test(event.data.path))
    event.waitUntil(remember(event.data.path));
  // Somebody else may come in next.
  if (event.data.what === 'forget') event.waitUntil(caches.delete(PAGES));
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

async function takeOver() {
  for (const name of await caches.keys())
    if (name !== SHELL && name !== PAGES) await caches.delete(name);
  await self.clients.claim();
}

/** Files never change under their names, and are kept as they come. */
async function ownFile(request) {
  const shell = await caches.open(SHELL);
  const known = await shell.match(request);
  if (known) return known;
  const answer = await fetch(request);
  if (answer.ok) await shell.put(request, answer.clone());
  return answer;
}

async function serverFirst(request) {
  try {
    const answer = await within(fetch(request));
    // A page that sends one on elsewhere is not it.
    if (answer.ok && !answer.redirected) await putPage(request.url, answer.clone());
    return answer;
  } catch (error) {
    const pages = await caches.open(PAGES);
    const known =
      (await pages.match(request.url)) ?? (await pages.match(request.url, { ignoreSearch: true }));
    if (known) return known;
    throw error;
  }
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
  const pages = await caches.open(PAGES);
  const last = await pages.match(LAST);
  return last ? Response.redirect(await last.text(), 302) : Response.error();
}

/** Keeps files and pages that will be wanted though nobody has looked at them yet. */
async function keep(files, wanted) {
  const shell = await caches.open(SHELL);
  for (const file of files)
    if (!(await shell.match(file))) await shell.add(file).catch(() => undefined);
  const pages = await caches.open(PAGES);
  for (const page of wanted) {
    const answer = await fetch(page, { headers: { Accept: 'text/html' } }).catch(() => null);
    if (answer?.ok && !answer.redirected) await pages.put(page, answer);
  }
}
