import { spawn, spawnSync } from 'node:child_process';
import type { ChildProcess } from 'node:child_process';
import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync, statSync } from 'node:fs';
import { get } from 'node:https';
import { tmpdir } from 'node:os';
import { join, resolve } from 'node:path';
import { expect, test } from '@playwright/test';
import type {
  APIRequestContext,
  APIResponse,
  Browser,
  BrowserContext,
  Page,
} from '@playwright/test';
import { writeJob } from '#core/format/job';
import { demoJob } from '../demo/job';
import routes from '../app/routes';
import { pickEdge } from './hands';

/**
 * Who is let in, and who is not: a server of its own that nobody has set up, on this machine and on
 * the network. Its tests go on from one another, in order.
 */
test.describe.configure({ mode: 'serial' });

const [PORT, DB_PORT, NETWORK] = ['4186', '54186', '4196'];
const HERE = `http://127.0.0.1:${PORT}`;
const AIR = `https://127.0.0.1:${NETWORK}`;
const NAMED = `http://localhost:${PORT}`;
const PHRASE = 'rain on a tin roof';
let data = '';
let app: ChildProcess;

test.beforeAll(async () => {
  data = join(mkdtempSync(join(tmpdir(), 'patrone-people-')), 'data');
  // As root the database's own user must be able to reach its folder.
  execFileSync('chmod', ['755', join(data, '..')]);
  const env = {
    ...process.env,
    PATRONE_HERE: '',
    PATRONE_PORT: PORT,
    PATRONE_DB_PORT: DB_PORT,
    PATRONE_NETWORK_PORT: NETWORK,
    PATRONE_DATA: data,
  };
  app = spawn(resolve('patrone'), ['start', '--network'], { env, cwd: '/', detached: true });
  let said = '';
  app.stdout!.on('data', (chunk) => (said += String(chunk)));
  app.stderr!.on('data', (chunk) => (said += String(chunk)));
  await expect(() => expect(said).toContain('fingerprint (SHA-256)')).toPass({ timeout: 60_000 });
});

test.afterAll(async () => {
  await new Promise((gone) => {
    app.once('exit', gone);
    process.kill(-app.pid!, 'SIGINT');
  });
  rmSync(join(data, '..'), { recursive: true, force: true });
});

/** Somebody's browser, apart from all others. */
const browserOf = (browser: Browser, base = HERE, more: object = {}): Promise<BrowserContext> =>
  browser.newContext({ baseURL: base, ignoreHTTPSErrors: true, ...more });

async function signIn(context: BrowserContext, name: string, phrase: string): Promise<void> {
  const page = await context.newPage();
  await page.goto('/sign-in');
  await page.getByLabel('First name').fill(name);
  await page.getByLabel('Pass phrase').fill(phrase);
  await page.getByRole('button', { name: 'Sign in' }).click();
  await expect(page).toHaveURL(/\/$/);
  await page.close();
}

/**
 * A key of the machine’s own that is touched and knows its owner, as browsers make them for tests
 * (WebAuthn of the DevTools protocol).
 */
async function withKeys(page: Page): Promise<void> {
  const cdp = await page.context().newCDPSession(page);
  await cdp.send('WebAuthn.enable');
  await cdp.send('WebAuthn.addVirtualAuthenticator', {
    options: {
      protocol: 'ctap2',
      transport: 'internal',
      hasResidentKey: true,
      hasUserVerification: true,
      isUserVerified: true,
      automaticPresenceSimulation: true,
    },
  });
}

let named: BrowserContext;
let shop: BrowserContext;
const jobs: string[] = [];
/** Of each job a piece and a picture. */
const pieces: string[] = [];
const pictures: string[] = [];

async function putIn(request: APIRequestContext, name: string): Promise<void> {
  const demo = demoJob();
  const file = {
    ...demo,
    job: { ...demo.job, name },
    pieces: [{ ...demo.pieces[0]!, name: `Piece of ${name}` }],
    survey: [],
    structure: [],
    pictures: [],
  };
  const answer = await request.post('/take-in', {
    multipart: {
      file: { name: 'job.json', mimeType: 'application/json', buffer: Buffer.from(writeJob(file)) },
    },
    maxRedirects: 0,
  });
  const job = /\/jobs\/([0-9a-f-]{36})/.exec(answer.headers().location ?? '')?.[1];
  if (!job) throw new Error(`The job was not taken: ${answer.status()} ${await answer.text()}`);
  jobs.push(job);
  pieces.push(
    /\/pieces\/([0-9a-f-]{36})/.exec(await (await request.get(`/jobs/${job}`)).text())![1]!,
  );
  const taken = await request.post(`/jobs/${job}/pictures?owner=job&of=&name=card.jpg`, {
    data: readFileSync('docs/card-on-frame.jpg'),
    headers: { 'Content-Type': 'image/jpeg' },
  });
  pictures.push(/[0-9a-f-]{36}/.exec(await taken.text())![0]);
}

test('first start: from the machine itself who runs the shop is said, once; a short phrase is refused, what was typed stays', async ({
  browser,
}) => {
  const phone = await browserOf(browser, AIR);
  const early = await phone.newPage();
  await early.goto('/');
  await expect(early.getByRole('heading', { name: 'Not set up yet' })).toBeVisible();
  expect(
    (
      await phone.request.post('/first', {
        form: { name: 'Mallory', phrase: PHRASE, again: PHRASE },
      })
    ).status(),
  ).toBe(403);

  shop = await browserOf(browser);
  const page = await shop.newPage();
  await page.goto('/jobs/whatever');
  await expect(page.getByRole('heading', { name: 'Who runs the shop?' })).toBeVisible();
  await page.getByLabel('First name').fill('Wenna');
  await page.getByLabel('Pass phrase').fill('short');
  await page.getByLabel('The same again').fill('short');
  await page.getByRole('button', { name: 'Begin' }).click();
  await expect(page.getByText(/at least 10 letters/)).toBeVisible();
  await expect(page.getByLabel('First name')).toHaveValue('Wenna');
  // By an address of figures no browser makes a passkey, so none is offered; by the machine’s name
  // one begins with it.
  await expect(page.getByRole('button', { name: 'Begin with a passkey instead' })).toHaveCount(0);
  named = await browserOf(browser, NAMED);
  const byName = await named.newPage();
  await withKeys(byName);
  await byName.goto('/first');
  await byName.getByRole('button', { name: 'Begin with a passkey instead' }).click();
  await expect(byName.getByText('Say a name: the first name is enough.')).toBeVisible();
  await byName.getByLabel('First name').fill('Wenna');
  await byName.getByRole('button', { name: 'Begin with a passkey instead' }).click();
  await expect(byName.getByRole('heading', { name: 'Jobs on the floor' })).toBeVisible();
  // What she has besides it: a phrase, for where there is no key.
  await byName.getByRole('link', { name: 'You: Wenna' }).click();
  await byName.getByLabel('Your pass phrase').fill(PHRASE);
  await byName.getByRole('button', { name: 'Set it' }).click();
  await expect(byName.getByText('Your pass phrase is the new one.')).toBeVisible();

  await page.goto('/sign-in');
  await page.getByLabel('First name').fill('Wenna');
  await page.getByLabel('Pass phrase').fill(PHRASE);
  await page.getByRole('button', { name: 'Sign in' }).click();
  await expect(page.getByRole('link', { name: 'You: Wenna' })).toBeVisible();
  await putIn(shop.request, 'Van of the owner');
  await putIn(shop.request, 'Somebody else’s car');

  // Nobody sets it up a second time; and whoever comes without a cookie is asked.
  const other = await browserOf(browser);
  const again = await other.newPage();
  await again.goto('/first');
  await expect(again).toHaveURL(/\/sign-in$/);
  await again.goto(`/jobs/${jobs[0]}`);
  await expect(again).toHaveURL(new RegExp(`/sign-in\\?to=%2Fjobs%2F${jobs[0]}`));
  await again.getByLabel('First name').fill('wenna');
  await again.getByLabel('Pass phrase').fill(PHRASE);
  await again.getByRole('button', { name: 'Sign in' }).click();
  await expect(again.getByRole('heading', { name: 'Van of the owner', exact: true })).toBeVisible();
  // Signed out it is nobody’s again, whatever the browser still has of it.
  const [{ value }] = (await other.cookies()).filter(
    ({ name }) => name === 'patrone-session',
  ) as unknown as [{ value: string }];
  await again.goto('/');
  await again.getByRole('link', { name: 'You: Wenna' }).click();
  await again.getByRole('button', { name: 'Sign out here' }).click();
  await expect(again.getByRole('heading', { name: 'Sign in' })).toBeVisible();
  const stolen = await browserOf(browser, HERE, {
    extraHTTPHeaders: { Cookie: `patrone-session=${value}` },
  });
  expect(
    (
      await stolen.request.get(`/jobs/${jobs[0]}`, {
        maxRedirects: 0,
        headers: { Accept: 'text/html' },
      })
    ).status(),
  ).toBe(302);
});

test('wrong tries are slowed down alike for names that are there and names that are not, and are listed', async ({
  browser,
}) => {
  const stranger = await browserOf(browser);
  const tryIt = (name: string) =>
    stranger.request.post('/sign-in', {
      form: { name, phrase: 'not it at all' },
      headers: { Accept: 'text/html' },
    });
  const said: Record<string, (string | undefined)[]> = {};
  for (const name of ['Joss', 'Nobody']) {
    said[name] = [];
    for (let i = 0; i < 5; i++) {
      const answer = await tryIt(name);
      said[name].push(
        /do not go together|wait \d+ seconds/
          .exec(await answer.text())?.[0]
          ?.replace(/\d+/, 'some'),
      );
    }
  }
  // Four are free, of each name: who errs keeps nobody else out.
  for (const name of ['Joss', 'Nobody'])
    expect(said[name]).toEqual([
      ...Array<string>(4).fill('do not go together'),
      'wait some seconds',
    ]);
  // All at once are no more than one after the other.
  const start = Date.now();
  const together = await Promise.all(
    Array.from({ length: 60 }, (_, i) =>
      stranger.request.post('/sign-in', {
        form: { name: 'Wenna', phrase: `no such phrase ${i}` },
        headers: { Accept: 'text/html' },
        maxRedirects: 0,
      }),
    ),
  );
  const judged = together.filter((answer) => ![429, 503].includes(answer.status()));
  // Four are free; then one after 2 s, one after 4 s more and so on, however long this took.
  const seconds = (Date.now() - start) / 1000;
  expect(judged.length).toBeLessThanOrEqual(4 + Math.floor(Math.log2(seconds / 2 + 1)));
  // Somebody at another address, and whoever looks at rubbish, is none the worse for it.
  for (let i = 0; i < 12; i++) await stranger.request.get(`/join/rubbish${i}`);
  const page = await shop.newPage();
  await page.goto('/people');
  await expect(page.getByRole('region', { name: 'Wrong tries' }).getByRole('listitem')).toHaveCount(
    8 + judged.length,
  );
  await expect(page.getByText('joss').first()).toBeVisible();
});

let owner: BrowserContext;
let joss: BrowserContext;

test('the owner looks at his job and finds nothing else; whoever works does all but people and settings', async ({
  browser,
}) => {
  const page = await shop.newPage();
  await page.goto('/people');
  const fresh = page.getByRole('region', { name: 'Somebody new' });
  const takeIn = async (
    name: string,
    role: string,
    more: () => Promise<void> = async () => undefined,
  ) => {
    await fresh.getByLabel('First name').fill(name);
    await fresh.getByLabel('What they do').click();
    await page.getByRole('option', { name: role }).click();
    await more();
    await fresh.getByLabel('Pass phrase').fill(`${name} ${PHRASE}`);
    await fresh.getByRole('button', { name: 'Take them in' }).click();
  };
  await takeIn('Ordell', 'Looks');
  await expect(fresh.getByText(/Choose the jobs/)).toBeVisible();
  await fresh.getByRole('checkbox', { name: 'Van of the owner' }).check();
  await fresh.getByRole('button', { name: 'Take them in' }).click();
  await expect(page.getByRole('region', { name: 'Ordell' })).toBeVisible();
  await takeIn('Joss', 'Works');
  await expect(page.getByRole('region', { name: 'Joss' })).toBeVisible();
  await takeIn('JOSS', 'Works');
  await expect(fresh.getByText(/somebody of that name already/)).toBeVisible();

  // The waits of the test before are over.
  await expect(async () => {
    owner ??= await browserOf(browser);
    await signIn(owner, 'Ordell', `Ordell ${PHRASE}`);
  }).toPass({ timeout: 30_000 });
  joss = await browserOf(browser);
  await signIn(joss, 'Joss', `Joss ${PHRASE}`);

  const his = await owner.newPage();
  await his.goto('/');
  await expect(his.getByText('Van of the owner').first()).toBeVisible();
  await expect(his.getByText('Somebody else’s car')).toHaveCount(0);
  // Of a piece he is shown what was done, wherever he asks: nothing that asks to be filled in.
  await his.goto(`/pieces/${pieces[0]}/fit`);
  await expect(his).toHaveURL(`/pieces/${pieces[0]}/record`);
  const done = his.getByRole('region', { name: 'What was done' });
  await expect(done.getByText(/^Trial fit 2, held by/)).toBeVisible();
  await expect(done.getByText(/MIG: Tacks 1–7/)).toBeVisible();
  await expect(his.getByRole('link', { name: /^Card/ })).toHaveCount(0);
  await his.keyboard.press('2');
  await pickEdge(his, 'B');
  await expect(his.getByLabel('The story of edge B')).toBeVisible();
  await his.goto(`/jobs/${jobs[0]}/references`);
  await expect(his).toHaveURL(`/jobs/${jobs[0]}`);
  for (const at of [`/pieces/${pieces[0]}/record`, `/jobs/${jobs[0]}`, `/jobs/${jobs[0]}/found`]) {
    await his.goto(at);
    await expect(his.getByRole('note')).toContainText('You look at this job');
    await expect(
      his.locator('main input:not([type=hidden]), main textarea, main form'),
    ).toHaveCount(0);
  }
  await his.goto(`/jobs/${jobs[1]}`);
  await expect(his.getByRole('heading', { name: 'Not here' })).toBeVisible();

  // Whoever works is named in a record without typing.
  const at = await joss.newPage();
  await at.goto('/people');
  await expect(at.getByRole('heading', { name: 'Not here' })).toBeVisible();
  await at.goto(`/pieces/${pieces[0]}/weld`);
  await pickEdge(at, 'B');
  await at.getByRole('button', { name: 'Write down an inspection' }).click();
  await expect(at.getByLabel('Who looked')).toHaveValue('Joss');
});

/** Every address there is, by the table of routes, with these things in it. */
function addresses(of: { jobId: string; pieceId: string; pictureId: string }): string[] {
  type Entry = { path?: string; index?: boolean; children?: Entry[] };
  const found: string[] = [];
  const walk = (all: readonly Entry[], under: string) => {
    for (const { path = '', children = [] } of all) {
      const at = `${under}/${path}`.replace(/\/+/g, '/').replace(/(.)\/$/, '$1');
      found.push(at);
      walk(children, at);
    }
  };
  walk(routes as unknown as Entry[], '');
  const more: Record<string, string> = {
    ...of,
    kind: 'card',
    file: 'blank.pdf',
    size: 'small',
    otherId: of.pieceId,
    profileId: 'p1',
    code: 'x',
  };
  return [...new Set(found)].map((at) =>
    at.replace(
      /:(\w+)/g,
      (_, name: string) => more[name] ?? '00000000-0000-4000-8000-000000000000',
    ),
  );
}

test('every route, for everybody: nothing of another job for who looks, nothing at all for who has not signed in', async ({
  browser,
}) => {
  const [own, other] = [0, 1].map((i) =>
    addresses({ jobId: jobs[i]!, pieceId: pieces[i]!, pictureId: pictures[i]! }),
  );
  expect(own!.length).toBeGreaterThan(45);
  const nobody = await browserOf(browser);
  const open = new Set([
    '/sign-in',
    '/first',
    '/passkey',
    '/trust',
    '/trust/shop.crt',
    '/join/x',
    '/health',
  ]);
  const page = { headers: { Accept: 'text/html' }, maxRedirects: 0 };
  const script = { headers: { Accept: 'application/json' }, maxRedirects: 0 };
  const gone = (answer: APIResponse) => [302, 401].includes(answer.status());
  for (const at of own!) {
    const data = `${at === '/' ? '/_root' : at}.data`;
    const posted = { data: { mine: {}, since: {} }, maxRedirects: 0 };
    if (!open.has(at)) {
      expect([at, gone(await nobody.request.get(at, page))]).toEqual([at, true]);
      expect([at, gone(await nobody.request.get(at, script))]).toEqual([at, true]);
      expect([at, gone(await nobody.request.post(at, posted))]).toEqual([at, true]);
      const read = await nobody.request.get(data, { maxRedirects: 0 });
      expect([data, await read.text()]).not.toEqual([
        data,
        expect.stringContaining('Van of the owner'),
      ]);
    }
    // Who looks changes nothing, not even in a job of theirs.
    if (!open.has(at) && !['/sign-out', '/you'].includes(at)) {
      const told = (await owner.request.post(at, posted)).status();
      expect([at, told]).toEqual([
        at,
        /^\/(people|shop|take-in|scale-frame|who)/.test(at) || at.endsWith('new-piece') ? 404 : 403,
      ]);
    }
  }
  for (const at of other!.filter((one) => /[0-9a-f]{8}-/.test(one))) {
    for (const asked of [page, script])
      expect([at, (await owner.request.get(at, asked)).status()]).toEqual([at, 404]);
    expect([at, (await owner.request.post(at, { data: {}, maxRedirects: 0 })).status()]).toEqual([
      at,
      404,
    ]);
    const read = await owner.request.get(`${at}.data`, { maxRedirects: 0 });
    expect([at, await read.text()]).not.toEqual([at, expect.stringContaining('Somebody else')]);
  }
  // A piece of one job named under another is of neither.
  expect(
    (await owner.request.get(`/pieces/${pieces[0]}/card/beside/${pieces[1]}`, page)).status(),
  ).toBe(404);
  // What is theirs they see.
  for (const at of [
    `/jobs/${jobs[0]}`,
    `/pieces/${pieces[0]}/record`,
    `/pieces/${pieces[0]}/pattern/blank.pdf`,
    `/pictures/${pictures[0]}/small`,
  ])
    expect([at, (await owner.request.get(at, page)).status()]).toEqual([at, 200]);
  // However it is written: the router takes all of these for the same page.
  for (const at of [
    '/people',
    '/People',
    '/%70eople',
    '/PEOPLE/',
    '/people.data',
    '/%50eople.data',
  ]) {
    const answer = await joss.request.get(at, page);
    expect([
      at,
      answer.status(),
      /Wrong tries|wrong_tries|Wenna/.test(await answer.text()),
    ]).toEqual([at, 404, false]);
  }
  for (const at of ['/Shop', '/%73hop'])
    expect([at, (await joss.request.post(at, { data: {} })).status()]).toEqual([at, 403]);
  expect(
    (
      await joss.request.post('/people', { form: { intent: 'let-go', person: pieces[0]! } })
    ).status(),
  ).toBe(404);
  expect((await joss.request.get('/shop', page)).status()).toBe(200);
  expect((await joss.request.post('/shop', { data: {} })).status()).toBe(403);
});

test('a tablet joins by a code, once, is the shop’s, asks who; thrown out it is nobody’s', async ({
  browser,
}) => {
  const page = await shop.newPage();
  await page.goto('/people');
  const letIn = page.getByRole('region', { name: 'Let a phone in' });
  await letIn.getByLabel('What it is called').fill('tablet by the brake');
  await letIn.getByRole('button', { name: 'Show its code' }).click();
  await expect(
    letIn.getByRole('img', { name: 'Code to join as tablet by the brake' }),
  ).toBeVisible();
  const code = /\/join\/(\S+)/.exec(await letIn.getByTestId('join-address').innerText())![1]!;
  // A PIN for Wenna.
  await page.getByRole('button', { name: 'Change Wenna' }).click();
  await page.getByRole('region', { name: 'Wenna' }).getByLabel(/^PIN/).fill('4711');
  await page
    .getByRole('region', { name: 'Wenna' })
    .getByRole('button', { name: 'Set it' })
    .last()
    .click();
  await expect(page.getByText('The PIN is asked for on the shop’s devices.')).toBeVisible();

  const tablet = await browserOf(browser, AIR, { viewport: { width: 390, height: 844 } });
  const at = await tablet.newPage();
  await at.goto(`/join/${code}`);
  await expect(at.getByText('tablet by the brake')).toBeVisible();
  await expect(async () => {
    await at.getByRole('button', { name: 'Join' }).click();
    await expect(at).toHaveURL(/\/$/, { timeout: 2000 });
  }).toPass();
  const [cookie] = (await tablet.cookies()).filter(({ name }) => name === '__Host-patrone-session');
  expect(cookie).toMatchObject({ httpOnly: true, secure: true, sameSite: 'Lax', path: '/' });
  // Looked at a second time it is used up.
  const second = await (await browserOf(browser, AIR)).newPage();
  await second.goto(`/join/${code}`);
  await expect(second.getByText('This code is no good any more')).toBeVisible();

  await at.goto(`/pieces/${pieces[0]}/weld`);
  await pickEdge(at, 'B');
  await at.getByRole('button', { name: 'Write down an inspection' }).click();
  const who = at.getByRole('group', { name: 'Who looked' });
  await who.getByRole('button', { name: 'Wenna' }).click();
  await who.getByLabel('PIN of Wenna').fill('1234');
  await who.getByRole('button', { name: 'It is me' }).click();
  await expect(who.getByText('That is not the PIN. Try again.')).toBeVisible();
  await who.getByLabel('PIN of Wenna').fill('4711');
  await who.getByRole('button', { name: 'It is me' }).click();
  await expect(who.getByRole('button', { name: 'Wenna', pressed: true })).toBeVisible();
  await expect(who.getByRole('button', { name: 'Ordell' })).toHaveCount(0);

  await page.reload();
  await page.getByRole('button', { name: 'Throw out tablet by the brake' }).click();
  await expect(page.getByText('None has joined yet.')).toBeVisible();
  await at.reload();
  await expect(at.getByRole('heading', { name: 'Sign in' })).toBeVisible();
});

test('a phone joins, begins a trial, reads gaps and writes an entry without a connection, from a page opened without one; back again all is in, once', async ({
  browser,
}) => {
  const page = await shop.newPage();
  await page.goto('/people');
  const letIn = page.getByRole('region', { name: 'Let a phone in' });
  await letIn.getByLabel('What it is called').fill('phone of Joss');
  await letIn.getByLabel('Whose it is').click();
  await page.getByRole('option', { name: 'Joss' }).click();
  await letIn.getByRole('button', { name: 'Show its code' }).click();
  const code = /\/join\/(\S+)/.exec(await letIn.getByTestId('join-address').innerText())![1]!;
  // As where the certificate is trusted: a browser trusts this machine’s own address.
  const phone = await browserOf(browser, HERE, { viewport: { width: 390, height: 844 } });
  expect((await phone.request.post(`/join/${code}`, { form: {}, maxRedirects: 0 })).status()).toBe(
    302,
  );
  const at = await phone.newPage();
  await at.goto(`/pieces/${pieces[0]}/fit`);
  await pickEdge(at, 'D');
  const kept = () =>
    at.evaluate(
      async (path) =>
        (await caches.match(path)) !== undefined && !!navigator.serviceWorker.controller,
      `/pieces/${pieces[0]}/weld`,
    );
  await expect(async () => expect(await kept()).toBe(true)).toPass({ timeout: 20_000 });

  // What an older build kept is kept anew after an update, and dropped.
  await at.evaluate(async (path) => {
    await (await caches.open('patrone-shell-older')).put('/assets/older.js', new Response(''));
    await (await caches.open('patrone-pages-older')).put(path, new Response('an old page'));
  }, `/pieces/${pieces[0]}/shape?older`);
  await at.reload();
  await expect
    .poll(() =>
      at.evaluate(async () => (await caches.keys()).filter((one) => one.includes('older'))),
    )
    .toEqual([]);
  const renewed = await at.evaluate(
    async (path) => (await caches.match(path))?.text(),
    `/pieces/${pieces[0]}/shape?older`,
  );
  expect(renewed).toContain('</html>');

  await phone.setOffline(true);
  await at.reload();
  await pickEdge(at, 'D');
  await at.getByRole('button', { name: /^Station 1/ }).click();
  await at.keyboard.type('2.5');
  await at.keyboard.press('Enter');
  // In and out ten times: the next trial is begun there and then.
  await at.getByRole('button', { name: 'Begin another trial fit' }).click();
  await expect(at.locator('summary', { hasText: /^Trial 3 of 3/ })).toBeVisible();
  await at.getByRole('button', { name: /^Station 2/ }).click();
  await at.keyboard.type('1.25');
  await at.keyboard.press('Enter');
  // The program begins at the piece that was looked at last.
  await at.goto('/');
  await expect(at).toHaveURL(new RegExp(`/pieces/${pieces[0]}/`));
  await at.goto(`/pieces/${pieces[0]}/weld`);
  await pickEdge(at, 'B');
  await at.getByRole('button', { name: 'Write down an inspection' }).click();
  const look = at.getByRole('region', { name: 'Inspection entry' });
  await expect(look.getByLabel('Who looked')).toHaveValue('Joss');
  await look.getByRole('button', { name: 'Not sound' }).click();
  await look.getByLabel('What was seen').fill('A pinhole by the corner.');
  await look.getByRole('button', { name: 'Put in the record' }).click();
  const waits = at.getByRole('status', { name: 'What waits for the server' });
  await expect(waits).toContainText('2 edges read and 2 entries wait for the server');
  await waits.getByRole('button', { name: 'Which' }).click();
  await expect(waits.getByText(/Trial fit 3, written \d/)).toBeVisible();
  await expect(waits.getByText(/Inspection on B: not sound, written \d/)).toBeVisible();
  // It counts already.
  await expect(at.getByText('A pinhole by the corner.')).toHaveCount(1);
  await at.reload();
  await expect(waits).toContainText('2 entries wait for the server');

  await phone.setOffline(false);
  await expect(waits).toHaveCount(0, { timeout: 15_000 });
  await expect(at.getByText('A pinhole by the corner.')).toHaveCount(1);
  await at.goto(`/pieces/${pieces[0]}/fit`);
  await pickEdge(at, 'D');
  await expect(at.getByText(/^Begun .* by Joss/)).toBeVisible();
  await expect(at.getByRole('button', { name: /^Station 2: 1.25 mm/ })).toBeVisible();
  await at.locator('summary', { hasText: /^Trial 3 of 3/ }).click();
  await at.getByLabel('Trial fit').click();
  await expect(at.getByRole('option')).toHaveCount(3);
  await at.getByRole('option', { name: /^Trial 2/ }).click();
  await expect(at.getByRole('button', { name: /^Station 1: 2.50 mm/ })).toBeVisible();
  const seen = await page.request.get(`/pieces/${pieces[0]}/weld`);
  expect((await seen.text()).split('A pinhole by the corner.').length).toBeGreaterThan(1);
});

/** The pages of the shop, in groups that one journey each goes through. */
const PAGES: Record<string, () => string[]> = {
  'of a job': () => [
    '/',
    `/jobs/${jobs[0]}`,
    `/jobs/${jobs[0]}/found`,
    `/jobs/${jobs[0]}/references`,
  ],
  'of a piece up to its sheet': () =>
    ['survey', 'card', 'blank', 'sheet'].map((stop) => `/pieces/${pieces[0]}/${stop}`),
  'of a piece from its shaping on': () =>
    ['shape', 'fit', 'weld', 'record'].map((stop) => `/pieces/${pieces[0]}/${stop}`),
  'of the shop': () => ['/shop', '/shop/learnt', '/people', '/trust'],
};
for (const [which, pagesOf] of Object.entries(PAGES))
  test(`nothing on the pages ${which} is stopped by its own policy, and drawings stand as they were drawn`, async () => {
    const page = await shop.newPage();
    await page.addInitScript(() => {
      const met: string[] = [];
      (window as unknown as { met: string[] }).met = met;
      document.addEventListener(
        'securitypolicyviolation',
        ({ violatedDirective, sample, sourceFile }) =>
          met.push(`${violatedDirective} ${sample} ${sourceFile}`),
      );
    });
    for (const at of pagesOf()) {
      await page.goto(at);
      // What was drawn on the server gets its styles as the page wakes.
      await expect(page.locator('[data-style]'), at).toHaveCount(0);
      const met = await page.evaluate(() => (window as unknown as { met: string[] }).met);
      expect([at, met]).toEqual([at, []]);
    }
    await page.close();
  });

test('before any script has run a page looks as it was drawn: its marks have their styles from the sheet', async () => {
  const page = await shop.newPage();
  const asked = await page.request.get(`/pieces/${pieces[0]}/card`, {
    headers: { Accept: 'text/html' },
  });
  expect(await asked.text()).toMatch(/<style nonce="[^"]+" data-styles>\[data-style/);
  expect(await asked.text()).not.toMatch(/<[a-z][^<>]* style="/);
  await page.close();
});

test('what a scanner sees: headers and cookies by the OWASP lists, no other name, no other site’s page, no trace in an error', async ({
  browser,
}) => {
  const outside = await browserOf(browser, AIR);
  const answer = await outside.request.get('/sign-in', { headers: { Accept: 'text/html' } });
  const headers = answer.headers();
  // OWASP Secure Headers Project; HSTS apart, which would let nobody past the warning of a
  // certificate of one’s own.
  expect(headers).toMatchObject({
    'x-content-type-options': 'nosniff',
    'x-frame-options': 'DENY',
    'cache-control': 'no-store',
    'cross-origin-opener-policy': 'same-origin',
    'cross-origin-resource-policy': 'same-origin',
    'x-permitted-cross-domain-policies': 'none',
    'referrer-policy': 'same-origin',
  });
  expect(headers['permissions-policy']).toContain('camera=()');
  for (const name of ['server', 'x-powered-by', 'strict-transport-security'])
    expect(headers[name]).toBeUndefined();
  const policy = headers['content-security-policy']!;
  expect(policy).toMatch(/default-src 'self'.*frame-ancestors 'none'.*object-src 'none'/);
  expect(policy).not.toMatch(/unsafe-inline|'unsafe-eval'|https?:|\*/);
  // Every script and style in the page bears the number; another page has another.
  const html = await answer.text();
  const nonce = /'nonce-([^']+)'/.exec(policy)![1]!;
  for (const [tag] of html.matchAll(/<(script|style)\b[^>]*>/g))
    expect([tag, tag.includes(`nonce="${nonce}"`) || / src=/.test(tag)]).toEqual([tag, true]);
  expect(
    (await outside.request.get('/sign-in')).headers()['content-security-policy'],
  ).not.toContain(nonce);
  // Nothing that a policy forbids is done by the pages themselves.
  const page = await outside.newPage();
  const said: string[] = [];
  page.on('console', (message) => message.type() === 'error' && said.push(message.text()));
  await page.goto('/sign-in');
  await page.getByLabel('First name').fill('x');
  expect(said).toEqual([]);

  expect(
    (await outside.request.get('/sign-in', { headers: { Host: 'patrone.example' } })).status(),
  ).toBe(421);
  expect(
    (
      await outside.request.post('/sign-in', {
        form: { name: 'a', phrase: 'b' },
        headers: { Origin: 'https://elsewhere.example' },
      })
    ).status(),
  ).toBe(403);
  // On to somewhere else after signing in: never.
  const lost = await outside.request.get('/%00', { headers: { Accept: 'text/html' } });
  expect(await lost.text()).not.toMatch(/at .*\.(ts|js|mjs):\d+/);
  expect(statSync(join(data, 'tls', 'key.pem')).mode & 0o077).toBe(0);
  // A phone that trusts the shop’s certificate is warned of nothing; the shop’s can speak for no
  // site of the internet.
  expect(statSync(join(data, 'tls', 'shop-key.pem')).mode & 0o077).toBe(0);
  const der = await (await (await browserOf(browser, AIR)).request.get('/trust/shop.crt')).body();
  const ca = `-----BEGIN CERTIFICATE-----\n${der.toString('base64').replace(/.{64}/g, '$&\n')}\n-----END CERTIFICATE-----\n`;
  const trusted = (host: string) =>
    new Promise<string>((answered) => {
      const asked = get(
        {
          host: '127.0.0.1',
          port: NETWORK,
          path: '/health',
          servername: host,
          ca,
          headers: { Host: `127.0.0.1:${NETWORK}` },
        },
        ({ statusCode }) => answered(String(statusCode)),
      );
      asked.on('error', (error) => answered((error as { code?: string }).code ?? error.message));
    });
  expect(await trusted('localhost')).toBe('200');
  const forged = (of: string) => {
    const at = join(data, '..', 'forged.pem');
    const [tls, key] = [join(data, 'tls'), join(data, '..', 'forged-key.pem')];
    spawnSync('openssl', [
      'req',
      '-x509',
      '-CA',
      join(tls, 'shop.pem'),
      '-CAkey',
      join(tls, 'shop-key.pem'),
      '-newkey',
      'ec',
      '-pkeyopt',
      'ec_paramgen_curve:P-256',
      '-nodes',
      '-days',
      '9',
      '-subj',
      '/CN=forged',
      '-addext',
      `subjectAltName=${of}`,
      '-keyout',
      key,
      '-out',
      at,
    ]);
    return spawnSync('openssl', ['verify', '-CAfile', join(tls, 'shop.pem'), at], {
      encoding: 'utf8',
    });
  };
  expect(forged('IP:192.168.7.7').status).toBe(0);
  for (const of of ['DNS:bank.example', 'IP:93.184.216.34'])
    expect([of, forged(of).stderr]).toEqual([
      of,
      expect.stringContaining('permitted subtree violation'),
    ]);
  const seen = spawnSync('openssl', ['s_client', '-connect', `127.0.0.1:${NETWORK}`, '-tls1_1'], {
    input: '',
    encoding: 'utf8',
  });
  expect(seen.status).not.toBe(0);
});

test('a passkey signs in where it was made, once for each time it is asked; forgotten, it signs in no more', async () => {
  const page = await named.newPage();
  await page.goto('/you');
  await expect(page.getByText(/Made .* for localhost/)).toBeVisible();
  await page.getByRole('button', { name: 'Sign out here' }).click();
  await expect(page.getByRole('heading', { name: 'Sign in' })).toBeVisible();
  // The key is in the page it was made in.
  const [keyed] = named.pages();
  await keyed!.goto('/sign-in?to=/you');
  const sent = keyed!.waitForRequest(
    (request) => request.url().endsWith('/passkey') && request.postData()!.includes('entered'),
  );
  await keyed!.getByRole('button', { name: 'Sign in with a passkey' }).click();
  await expect(keyed!.getByText(/Last used/)).toBeVisible();
  // What was signed once is good for nothing more; nor is it for another site, or for nobody's
  // question.
  const signed = JSON.parse((await sent).postData()!) as {
    want: string;
    answer: { response: Record<string, string> };
  };
  const again = (data: object) => named.request.post('/passkey', { data });
  expect((await again(signed)).status()).toBe(401);
  const { challenge } = (await (await again({ want: 'enter' })).json()) as { challenge: string };
  const forged = (origin: string) => ({
    ...signed,
    answer: {
      ...signed.answer,
      response: {
        ...signed.answer.response,
        clientDataJSON: Buffer.from(
          JSON.stringify({ type: 'webauthn.get', challenge, origin }),
        ).toString('base64url'),
      },
    },
  });
  for (const origin of [NAMED, 'http://elsewhere.example'])
    expect((await again(forged(origin))).status()).toBe(401);
  expect((await again({ want: 'first', name: 'Mallory' })).status()).toBe(403);

  await keyed!.getByRole('button', { name: 'Forget the passkey made for localhost' }).click();
  await expect(keyed!.getByText('It signs in no more.')).toBeVisible();
  await keyed!.getByRole('button', { name: 'Sign out here' }).click();
  await expect(async () => {
    await keyed!.getByRole('button', { name: 'Sign in with a passkey' }).click();
    await expect(keyed!.getByText('This passkey is not known here any more.')).toBeVisible({
      timeout: 2000,
    });
  }).toPass({ timeout: 30_000 });
});
