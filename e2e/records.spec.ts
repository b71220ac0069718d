import { expect, test } from '@playwright/test';
import type { APIRequestContext } from '@playwright/test';
import { DEFAULT_SHOP } from '#core/blank/fold/practice';
import { edgeLength } from '#core/card/outline';
import { demoJob } from '../demo/job';
import { goTo, pickEdge } from './hands';

/** The server by itself, as a page, a script or a mischief-maker meets it. */

const blank = demoJob().pieces[0]!.card.versions[2]!.doc;

async function aPiece(request: APIRequestContext): Promise<string> {
  const job = await request.post('/?index', {
    form: { intent: 'create', name: 'Records', vehicle: '', owner: '', notes: '' },
    maxRedirects: 0,
  });
  const at = job.headers().location!;
  const { name, kind, part, side, metal, thicknessMm, thickness, structural, notes } =
    demoJob().pieces[0]!;
  const piece = await request.post(`${at}/new-piece`, {
    data: { mine: { name, kind, part, side, metal, thicknessMm, thickness, structural, notes } },
    maxRedirects: 0,
  });
  return /pieces\/([^/]+)/.exec(piece.headers().location!)![1]!;
}
const save = (request: APIRequestContext, piece: string, base: number, pattern: unknown = blank) =>
  request.post(`/pieces/${piece}/documents/card`, { data: { intent: 'save', base, doc: pattern } });

test('of two who save from the same revision one is told, with the card as it stands; nothing is written over', async ({
  request,
}) => {
  const piece = await aPiece(request);
  expect((await save(request, piece, 0)).status()).toBe(200);
  const wider = { ...blank, corners: blank.corners.map((c) => ({ ...c, x: c.x * 1.1 })) };
  const higher = { ...blank, corners: blank.corners.map((c) => ({ ...c, y: c.y * 1.1 })) };
  const answers = await Promise.all([
    save(request, piece, 1),
    save(request, piece, 1, wider),
    save(request, piece, 1, higher),
  ]);
  expect(answers.map((a) => a.status()).sort()).toEqual([200, 409, 409]);
  const stale = answers.find((a) => a.status() === 409)!;
  expect(await stale.json()).toMatchObject({ number: 2, canUndo: true, doc: { version: 13 } });

  // Back and forward: nothing is lost, and a step from a stale revision is refused like a save.
  const step = (intent: 'undo' | 'redo', base: number) =>
    request.post(`/pieces/${piece}/documents/card`, { data: { intent, base } });
  expect(await (await step('undo', 2)).json()).toMatchObject({ number: 1, canRedo: true });
  expect((await step('undo', 2)).status()).toBe(409);
  expect(await (await step('undo', 1)).json()).toMatchObject({
    number: 0,
    canUndo: false,
    doc: { corners: [] },
  });
  expect(await (await step('redo', 0)).json()).toMatchObject({ number: 1 });
  expect(await (await save(request, piece, 1, wider)).json()).toMatchObject({
    number: 3,
    canRedo: false,
  });
});

test('a save whose answer was lost is no quarrel: the same again is simply saved, and the page goes on from its own', async ({
  request,
}) => {
  const piece = await aPiece(request);
  const by = 'page one';
  const put = (base: number, change: object, page: string) =>
    request.post(`/pieces/${piece}/documents/card`, {
      data: { intent: 'save', base, doc: { ...blank, ...change }, by: page },
    });
  expect((await put(0, {}, by)).status()).toBe(200);
  // The answer did not arrive: the page still stands on nothing, sends the same, then a change to
  // it.
  expect((await put(0, {}, by)).status()).toBe(200);
  expect(await (await put(0, { base: [30, 40] }, by)).json()).toMatchObject({
    number: 2,
    doc: { base: [30, 40] },
  });
  // Another page that stands on the first is told; and once it has written, so is the first.
  expect((await put(1, { base: [1, 2] }, 'page two')).status()).toBe(409);
  expect((await put(2, { base: [1, 2] }, 'page two')).status()).toBe(200);
  expect((await put(2, { base: [3, 4] }, by)).status()).toBe(409);
  expect((await put(1, { base: [3, 4] }, by)).status()).toBe(409);
});

test('a record that is sent twice under one key is in the record once, however close the two follow', async ({
  request,
}) => {
  const piece = await aPiece(request);
  await save(request, piece, 0);
  const weld = {
    at: new Date().toISOString(),
    who: 'Joss',
    edge: blank.edges[0]!.id,
    process: 'mig',
    work: 'seam',
    from: null,
    to: null,
    made: null,
    settings: { amps: null, volts: null, wireMm: null, feed: '', gas: '' },
    note: '',
    withdrawn: null,
  };
  const key = crypto.randomUUID();
  const send = (more: object) =>
    request.post(`/pieces/${piece}/welds`, { data: { intent: 'weld', weld, ...more } });
  const answers = await Promise.all([send({ key }), send({ key }), send({ key }), send({ key })]);
  expect(answers.map((answer) => answer.status())).toEqual([200, 200, 200, 200]);
  const { welds } = (await (await send({ key })).json()) as { welds: unknown[] };
  expect(welds).toHaveLength(1);
  expect(((await (await send({})).json()) as { welds: unknown[] }).welds).toHaveLength(2);
  // What was refused is not held against the key.
  const other = crypto.randomUUID();
  expect(
    (await send({ key: other, weld: { ...weld, amps: 'forty', process: 'glue' } })).status(),
  ).toBe(400);
  expect(((await (await send({ key: other })).json()) as { welds: unknown[] }).welds).toHaveLength(
    3,
  );
});

test('pages of anywhere else neither read nor write; what is too large is told before it is read', async ({
  request,
}) => {
  const piece = await aPiece(request);
  const foreign = { Origin: 'http://evil.example' };
  const form = { intent: 'create', name: 'Not ours', vehicle: '', owner: '', notes: '' };
  expect((await request.post('/?index', { form, headers: foreign })).status()).toBe(403);
  expect(
    (
      await request.post(`/pieces/${piece}/documents/card`, {
        data: '{}',
        headers: { ...foreign, 'Content-Type': 'text/plain' },
      })
    ).status(),
  ).toBe(403);
  expect((await request.get('/', { headers: { Host: 'evil.example' } })).status()).toBe(421);
  expect(await (await request.get('/')).text()).not.toContain('Not ours');
  const large = await request.post(`/pieces/${piece}/documents/card`, {
    data: { pad: 'x'.repeat(7 * 1024 ** 2) },
  });
  expect(large.status()).toBe(413);
  expect(await large.json()).toMatchObject({ message: expect.stringContaining('6 MB at most') });
});

test('of two who change one record, each is heard where only they changed it; of one field two changed, the second is told', async ({
  page,
  request,
}) => {
  const piece = await aPiece(request);
  const { name, kind, part, side, metal, thicknessMm, thickness, structural, notes } =
    demoJob().pieces[0]!;
  const since = { name, kind, part, side, metal, thicknessMm, thickness, structural, notes };
  const put = (mine: object) =>
    request.post(`/pieces/${piece}/survey.data`, { data: { since, mine: { ...since, ...mine } } });
  expect((await put({ notes: 'Braced.' })).status()).toBe(200);
  expect((await put({ metal: 'dc04' })).status()).toBe(200);
  const told = await put({ metal: 'dc06' });
  expect(told.status()).toBe(409);
  expect(await told.text()).toContain('DC04');
  // A thickness and how it was chosen say one thing, whoever says it.
  expect((await put({ thicknessMm: 2 })).status()).toBe(200);
  expect((await put({ thickness: { by: 'gauge', system: 'swg', gauge: 18 } })).status()).toBe(409);

  await page.goto(`/pieces/${piece}/survey?part=what`);
  await expect(page.getByLabel('Notes')).toHaveValue('Braced.');
  // In the page: typed over what another wrote meanwhile, shown both, and kept again it stands.
  await expect(page.getByRole('button', { name: 'Keep' })).toBeEnabled();
  await page.waitForLoadState('networkidle');
  await page.getByLabel('What part it is').fill('Mine');
  expect(
    (
      await request.post(`/pieces/${piece}/survey.data`, {
        data: { since, mine: { ...since, part: 'Theirs' } },
      })
    ).status(),
  ).toBe(200);
  await page.getByRole('button', { name: 'Keep' }).click();
  await expect(
    page.getByRole('alert').filter({ hasText: '“Theirs” there, “Mine” here' }),
  ).toBeVisible();
  await page.getByRole('button', { name: 'Keep' }).click();
  await expect(page.getByText('Saved', { exact: true })).toBeVisible();
  await page.reload();
  await expect(page.getByLabel('What part it is')).toHaveValue('Mine');

  // The shop's test bends: what each page put in is there, whoever kept first.
  const strip = (legAMm: number) => ({
    thicknessMm: 1,
    radiusMm: 1.5,
    angleDeg: 90,
    flatMm: 100,
    legAMm,
    legBMm: 52,
    readingMm: 0.1,
    metal: 'dc06',
  });
  const usual = { ...DEFAULT_SHOP, strips: [] as object[] };
  const shop = (from: object[], to: object[]) =>
    request.post('/shop.data', {
      data: { since: { ...usual, strips: from }, mine: { ...usual, strips: to } },
    });
  for (const leg of [50, 50.3]) expect((await shop([], [strip(leg)])).status()).toBe(200);
  await page.goto('/shop/learnt');
  const strips = page.getByText(/100\.00 mm → 50\.[03]0 mm \+ 52\.00 mm/);
  await expect(strips).toHaveCount(2);
  for (const leg of [50, 50.3]) expect((await shop([strip(leg)], [])).status()).toBe(200);
  await page.reload();
  await expect(strips).toHaveCount(0);
});

test('one impossible card is one impossible card: its job and its own page open, say what is wrong, and it is mended', async ({
  page,
  request,
}) => {
  const piece = await aPiece(request);
  await save(request, piece, 0);
  const turn = (i: number, by: number) => ((i * by) % 997) / 2;
  const corners = Array.from({ length: 997 }, (_, i) => ({
    id: `c${i}`,
    x: turn(i, 421),
    y: turn(i, 655),
  }));
  const sides = corners.map((c, i) => ({
    id: `s${i}`,
    from: c.id,
    to: `c${(i + 1) % 997}`,
    shape: { kind: 'line' },
  }));
  const edges = [
    { id: 'e0', letter: 'A', sides: sides.map((s) => s.id), joint: { kind: 'free', trimMm: 0 } },
  ];
  const shuffled = { ...blank, corners, sides, edges, folds: [], holes: [], base: null };
  const holes = Array.from({ length: 2000 }, (_, i) => ({
    id: `h${i}`,
    x: 100,
    y: 100,
    diameterMm: 8,
  }));
  expect((await save(request, piece, 1, shuffled)).status()).toBe(200);
  expect((await save(request, piece, 2, { ...blank, holes })).status()).toBe(200);
  for (const [step, says] of [
    ['holes', /and \d+ more like the last/i],
    ['points', /crosses itself/],
  ] as const) {
    await page.goto(`/pieces/${piece}/card`);
    await expect(page.getByText(says).first()).toBeVisible();
    expect(
      await page.getByRole('list', { name: 'To mend or to mind' }).getByRole('listitem').count(),
    ).toBeLessThan(20);
    await page.getByRole('link', { name: /^Back to/ }).click();
    await expect(page.getByRole('link', { name: /Step-well tray/ })).toBeVisible();
    if (step === 'holes')
      expect(
        (
          await request.post(`/pieces/${piece}/documents/card`, {
            data: { intent: 'undo', base: 3 },
          })
        ).status(),
      ).toBe(200);
  }
  await page.getByRole('link', { name: /Step-well tray/ }).click();
  await page.goto(`/pieces/${piece}/blank`);
  await page.getByRole('button', { name: 'Back to the last card that gave a blank' }).click();
  await expect(page.getByRole('button', { name: /^Blank \d/ })).toBeVisible();
});

test('malformed at any door: a clear refusal, nothing stored, never a fault of the server', async ({
  request,
}) => {
  const piece = await aPiece(request);
  const { name, kind, part, side, metal, thicknessMm, thickness, structural, notes } =
    demoJob().pieces[0]!;
  const facts = { name, kind, part, side, metal, thicknessMm, thickness, structural, notes };
  const fit = {
    at: new Date().toISOString(),
    who: '',
    held: 'clamps',
    notes: '',
    revision: 1,
    withdrawn: null,
    edges: [],
  };
  const doors: [string, unknown][] = [
    [`/pieces/${piece}/survey.data`, { since: facts, mine: { ...facts, notes: 'nul \0' } }],
    [`/pieces/${piece}/survey.data`, { since: facts, mine: { ...facts, name: 'half \ud83d' } }],
    [
      `/pieces/${piece}/survey.data`,
      {
        since: facts,
        mine: { ...facts, thickness: { by: 'gauge', system: 'swg', gauge: 2 ** 40 } },
      },
    ],
    [`/pieces/${piece}/survey.data`, '{"name":'],
    [`/pieces/${crypto.randomUUID()}/survey.data`, { since: facts, mine: facts }],
    [`/pieces/${piece}/fits`, { intent: 'new', fit: { ...fit, notes: 'half \udd27' } }],
    [`/pieces/${piece}/fits`, { intent: 'new', fit: { ...fit, at: '0000-01-01T00:00:00.000Z' } }],
    [`/pieces/${piece}/fits`, { intent: 'new', fit: { ...fit, revision: 2 ** 31 } }],
    [`/pieces/${piece}/welds`, { intent: 'remedy', id: crypto.randomUUID(), remedy: 'no such' }],
    [`/pieces/${piece}/documents/card`, { intent: 'save', base: 2 ** 31, doc: blank }],
    [
      `/pieces/${piece}/documents/plan`,
      {
        intent: 'save',
        base: 0,
        doc: { version: 1, edges: [{ edge: 'a\0', meets: '', weld: null }] },
      },
    ],
    ['/shop.data', { name: '\ud800' }],
    ['/shop.data', 'nonsense'],
    ['/?index', '{}'],
  ];
  for (const [url, body] of doors) {
    const answer = await request.post(url, {
      data: typeof body === 'string' ? Buffer.from(body) : JSON.stringify(body),
      headers: { 'Content-Type': 'application/json' },
    });
    expect([url, JSON.stringify(body).slice(0, 60), Math.floor(answer.status() / 100)]).toEqual([
      url,
      JSON.stringify(body).slice(0, 60),
      4,
    ]);
  }
  expect((await request.get('/?search=%00')).status()).toBe(200);
  expect((await request.get('/assets/gone.js')).status()).toBe(404);
});

test('what cannot be a card, a reading or a weld is refused with the place and the reason', async ({
  request,
}) => {
  const piece = await aPiece(request);
  await save(request, piece, 0);
  const broken = { ...blank, folds: [{ ...blank.folds[0], angleDeg: 400 }] };
  const refused = await save(request, piece, 1, broken);
  expect(refused.status()).toBe(422);
  expect(JSON.stringify(await refused.json())).toContain('angleDeg');
  expect((await save(request, piece, 1, 'nonsense')).status()).toBe(422);
  expect((await request.post(`/pieces/${piece}/documents/card`, { data: '{' })).status()).toBe(400);

  const fit = {
    at: new Date().toISOString(),
    who: '',
    held: 'clamps',
    notes: '',
    revision: 1,
    withdrawn: null,
    edges: [],
  };
  expect(
    (await request.post(`/pieces/${piece}/fits`, { data: { intent: 'new', fit } })).status(),
  ).toBe(200);
  const odd = await request.post(`/pieces/${piece}/fits`, {
    data: { intent: 'new', fit: { ...fit, held: 'glue' } },
  });
  expect(odd.status()).toBe(400);
  expect(await odd.json()).toMatchObject({ message: expect.stringContaining('held') });

  // A reading goes only to a fit of the piece it is sent to.
  const other = await aPiece(request);
  await save(request, other, 0);
  const answer = await request.post(`/pieces/${piece}/fits`, { data: { intent: 'new', fit } });
  const { fits } = (await answer.json()) as { fits: { id: string }[] };
  const { id } = fits[0]!;
  const edge = {
    edge: blank.edges[0]!.id,
    turned: false,
    own: false,
    targetMm: 0,
    toleranceMm: 1,
    flushMm: 1,
    stations: [],
  };
  expect(
    (await request.post(`/pieces/${other}/fits`, { data: { intent: 'edge', id, edge } })).status(),
  ).toBe(404);
  expect(
    (await request.post(`/pieces/${piece}/fits`, { data: { intent: 'edge', id, edge } })).status(),
  ).toBe(200);
});

test('what two read of one edge, say of one trial, or do about one finding: both are heard, or the second is told; what is taken back stays as it was', async ({
  page,
  request,
}) => {
  const piece = await aPiece(request);
  await save(request, piece, 0);
  const fits = (body: object) => request.post(`/pieces/${piece}/fits`, { data: body });
  const said = { at: new Date().toISOString(), held: 'hand', notes: '' };
  const begun = await fits({
    intent: 'new',
    fit: { ...said, who: '', revision: 1, withdrawn: null, edges: [] },
  });
  const { id } = ((await begun.json()) as { fits: { id: string }[] }).fits[0]!;
  const edge = blank.edges[0]!.id;
  const read = (...gaps: (number | null)[]) => ({
    ...{ edge, turned: false, own: false, targetMm: 0, toleranceMm: 0.3, flushMm: 0.5 },
    stations: gaps.map((gapMm, i) => ({ atMm: i * 100, gapMm, flushMm: null })),
  });
  const put = (mine: object, since: object) => fits({ intent: 'edge', id, edge: mine, since });
  expect((await put(read(1, null, null), read(null, null, null))).status()).toBe(200);
  expect((await put(read(null, 2, null), read(null, null, null))).status()).toBe(200);
  const quarrel = await put(read(3, null, null), read(null, null, null));
  expect(quarrel.status()).toBe(409);
  type Told = { now: { edge: ReturnType<typeof read>; clashes: object[]; elsewhere: boolean } };
  const { now: there } = (await quarrel.json()) as Told;
  expect(there.clashes).toEqual([{ atMm: 0, of: 'gap', thereMm: 1, hereMm: 3 }]);
  expect(there.edge.stations.map((s) => s.gapMm)).toEqual([1, 2, null]);
  expect((await put(read(3, 2, null), there.edge)).status()).toBe(200);
  // Places that do not mean the same are never put together: neither along a longer edge …
  const longer = { ...read(3, 2, null), stations: [{ atMm: 80, gapMm: 9, flushMm: null }] };
  const moved = await put(longer, read(null, null, null));
  expect(moved.status()).toBe(409);
  expect(((await moved.json()) as Told).now.elsewhere).toBe(true);
  // … nor from the other end: a card turned over meanwhile says which place is meant.
  const length = edgeLength(blank, blank.edges[0]!);
  const fromBehind = {
    ...read(null, null, null),
    turned: true,
    stations: [
      { atMm: length - 200, gapMm: 7, flushMm: null },
      { atMm: length - 100, gapMm: null, flushMm: null },
      { atMm: length, gapMm: null, flushMm: null },
    ],
  };
  const back = await put(fromBehind, read(null, null, null));
  expect(back.status()).toBe(200);
  const last = ((await back.json()) as { fits: { edges: { stations: object[] }[] }[] }).fits[0]!;
  expect(last.edges[0]!.stations).toMatchObject([{ gapMm: 7 }, { gapMm: 2 }, { gapMm: 3 }]);
  expect((await put(read(3, 2, null), read(3, 2, 7))).status()).toBe(200);

  const change = (mine: object) =>
    fits({ intent: 'change', id, since: said, mine: { ...said, ...mine } });
  expect((await change({ notes: 'Rocks.' })).status()).toBe(200);
  expect((await change({ held: 'clamps' })).status()).toBe(200);
  expect(await (await change({ notes: 'Catches.' })).json()).toMatchObject({
    message: expect.stringContaining('“Rocks.” there, “Catches.” here'),
  });

  await test.step('at the bench: another page has read the station meanwhile; both are shown, and one says which stands', async () => {
    await page.goto(`/pieces/${piece}/fit`);
    await pickEdge(page, blank.edges[0]!.letter);
    const now = (
      (await (await change({ held: 'clamps' })).json()) as { fits: { edges: object[] }[] }
    ).fits[0]!.edges[0]!;
    await page.getByRole('button', { name: /^Station 3/ }).click();
    expect((await put({ ...now, stations: read(3, 2, 5).stations }, now)).status()).toBe(200);
    await page.keyboard.type('4');
    await page.keyboard.press('Enter');
    const told = page.getByRole('alert', { name: 'Read differently' });
    const letter = blank.edges[0]!.letter;
    await expect(told).toContainText(`${letter}, station 3: 4.00 mm here, 5.00 mm by Wenna`);
    // What is read beside it goes in; the quarrel shows at every stop, and on the pages of the job.
    await page.getByRole('button', { name: /^Station 2/ }).click();
    await page.keyboard.type('6');
    await page.keyboard.press('Enter');
    const gaps = async () =>
      (
        (await (await change({ held: 'clamps' })).json()) as {
          fits: { edges: { stations: { gapMm: number | null }[] }[] }[];
        }
      ).fits[0]!.edges[0]!.stations.map(({ gapMm }) => gapMm);
    await expect.poll(gaps).toEqual([3, 6, 5]);
    await goTo(page, 'Weld');
    await expect(told).toBeVisible();
    await page.goto('/');
    await page.getByRole('link', { name: 'Decide' }).click();
    await told.getByRole('button', { name: 'Keep 4.00 mm' }).click();
    await expect(told).toBeHidden();
    await expect.poll(gaps).toEqual([3, 6, 4]);
    await page.reload();
    await pickEdge(page, letter);
    await expect(page.getByRole('button', { name: /^Station 3: 4.00 mm/ })).toBeVisible();
  });

  const takeBack = (why: string) => fits({ intent: 'withdraw', what: 'trial', id, why });
  expect((await takeBack('Wrong piece')).status()).toBe(200);
  for (const late of [
    await takeBack('Another reason'),
    await change({ notes: 'Late' }),
    await put(read(9, 9, 9), there.edge),
  ]) {
    expect(late.status()).toBe(409);
    expect(await late.json()).toMatchObject({
      fits: [{ notes: 'Rocks.', withdrawn: { why: 'Wrong piece' } }],
    });
  }

  const welds = (body: object) => request.post(`/pieces/${piece}/welds`, { data: body });
  const seen = {
    at: said.at,
    who: '',
    edge,
    kind: 'lamp',
    sound: false,
    readingMm: null,
    finding: 'Pinhole',
    remedy: '',
    withdrawn: null,
  };
  const answer = (await (await welds({ intent: 'inspection', inspection: seen })).json()) as {
    inspections: { id: string }[];
  };
  const remedy = (text: string, since: string) =>
    welds({ intent: 'remedy', id: answer.inspections[0]!.id, remedy: text, since });
  expect((await remedy('Ground out', '')).status()).toBe(200);
  const second = await remedy('Left', '');
  expect(second.status()).toBe(409);
  expect(await second.json()).toMatchObject({
    message: expect.stringContaining('“Ground out” there, “Left” here'),
  });
  expect((await remedy('Ground out, welded again', 'Ground out')).status()).toBe(200);
});

test('a job file that is broken anywhere changes nothing; one with another’s marks in it is only text', async ({
  request,
  page,
}) => {
  const send = (text: string) =>
    request.post('/take-in', {
      multipart: {
        file: { name: 'job.json', mimeType: 'application/json', buffer: Buffer.from(text) },
      },
      maxRedirects: 0,
    });
  const bad = demoJob();
  bad.job.name = 'Broken anywhere';
  bad.pieces[2]!.card.versions[0]!.doc.sides[0]!.from = '';
  expect((await send(JSON.stringify(bad))).status()).toBe(400);
  expect((await send('not json')).status()).toBe(400);
  const twice = demoJob();
  twice.job.name = 'Broken anywhere';
  twice.pieces[3]!.card.versions.push({ ...twice.pieces[3]!.card.versions[0]! });
  const refused = await send(JSON.stringify(twice));
  expect(refused.status()).toBe(400);
  expect(await refused.text()).toContain('pieces 3 card');
  expect(await (await request.get('/?search=Broken')).text()).toContain(
    'Nothing has “Broken” in it.',
  );

  const marked = demoJob();
  marked.job.name = '<img src=x onerror=alert(1)>"; drop table jobs; --';
  const taken = await send(JSON.stringify(marked));
  expect(taken.status()).toBe(302);
  page.on('dialog', () => expect('a script from a job file').toBe('never run'));
  await page.goto(taken.headers().location!);
  await expect(page.getByRole('heading', { name: marked.job.name })).toBeVisible();
  await page.getByRole('button', { name: 'Put the job away' }).click();
});

test('files: each kind with its type and name; none without a blank; odd names and papers refused', async ({
  request,
}) => {
  const piece = await aPiece(request);
  expect((await request.get(`/pieces/${piece}/pattern/blank.pdf`)).status()).toBe(422);
  await save(request, piece, 0);
  for (const [file, type] of [
    ['blank.pdf', 'application/pdf'],
    ['card.pdf', 'application/pdf'],
    ['blank.svg', 'image/svg+xml'],
    ['card.dxf', 'image/vnd.dxf'],
    ['folds.csv', 'text/csv'],
  ] as const) {
    const got = await request.get(`/pieces/${piece}/pattern/${file}?paper=tabloid`);
    expect(got.status()).toBe(200);
    expect(got.headers()['content-type']).toContain(type);
    expect(got.headers()['content-disposition']).toMatch(/step-well-tray-\w+-r1\.\w+/);
    expect((await got.body()).length).toBeGreaterThan(100);
  }
  // To read a file notes nothing; that it went out is said by the page that sends it.
  const road = async () =>
    (await (await request.get(`/pieces/${piece}/sheet`)).text()).match(
      /aria-label="Sheet: [^"]*"/,
    )![0];
  expect(await road()).toContain('Not printed');
  expect((await request.post(`/pieces/${piece}/pattern/blank.pdf`)).status()).toBe(200);
  expect(await road()).toContain('done, Printed');
  expect((await request.post(`/pieces/${piece}/pattern/blank.exe`)).status()).toBe(404);
  expect((await request.get(`/pieces/${piece}/pattern/blank.exe`)).status()).toBe(404);
  expect((await request.get(`/pieces/${piece}/pattern/..%2f..%2fpackage.json`)).status()).toBe(404);
  expect((await request.get(`/pieces/${piece}/pattern/blank.pdf?paper=b7`)).status()).toBe(404);
  expect((await request.get('/pieces/1/card')).status()).toBe(404);
});

test('a shape that has a stop on it has no blank, says why, and can be mended from there', async ({
  page,
  request,
}) => {
  const piece = await aPiece(request);
  const crossed = {
    ...blank,
    folds: [],
    corners: blank.corners.map((c, i) => (i === 0 ? { ...c, x: 700, y: 500 } : c)),
  };
  await save(request, piece, 0, crossed);
  await page.goto(`/pieces/${piece}/blank`);
  await expect(page.getByRole('heading', { name: 'The card wants mending first' })).toBeVisible();
  await expect(page.getByText(/crosses itself at/).first()).toBeVisible();
  await page.getByRole('link', { name: 'Mend the card' }).click();
  await expect(page.getByText(/crosses itself at/).first()).toBeVisible();
  await pickEdge(page, 'A');
});
