import type { PieceFacts } from '#core/format/job';
import { demoJob } from '../demo/job';
import { ask, chance, form, json, key, pick, rest } from './client';

/**
 * What the server said is there, by its mark, and what it said it would not take: judged at the
 * end.
 */
export type Ledger = {
  acknowledged: { kind: string; mark: string }[];
  refused: string[];
  sent: number;
  unanswered: number;
  /** Answers of 500, and of more while neither server nor database had just been killed. */
  faults: string[];
};
export const newLedger = (): Ledger => ({
  acknowledged: [],
  refused: [],
  sent: 0,
  unanswered: 0,
  faults: [],
});

const demo = demoJob().pieces[0]!;
export const demoCard = demo.card.versions[demo.card.versions.length - 1]!.doc;
const edge = demoCard.edges[0]!.id;
const { kind, part, side, metal, thicknessMm, thickness, structural } = demo;
export const demoFacts: PieceFacts = {
  name: demo.name,
  kind,
  part,
  side,
  metal,
  thicknessMm,
  thickness,
  structural,
  notes: '',
};
const settings = { amps: null, volts: null, wireMm: null, feed: '', gas: '' };
const whole = { from: null, to: null, made: null, withdrawn: null, settings };

let marks = 0;
const mark = (kind: string) => `${kind} ${++marks} ${key().slice(0, 8)}`;
const moment = () => new Date().toISOString();

/**
 * Writes records of every kind until `over`, some of them wrong, some of whose answers it does not
 * wait for; what gets no answer it sends again as it was, under the same key, as a page does.
 * `calm`: nothing was killed a moment ago.
 */
export async function writer(
  at: string,
  ledger: Ledger,
  over: () => boolean,
  calm: () => boolean,
): Promise<void> {
  /** Sent until it is answered: where it is or what is there now, or null where it was refused. */
  const send = async (
    kind: string,
    said: string,
    path: string,
    init: RequestInit,
  ): Promise<string | null> => {
    for (;;) {
      ledger.sent++;
      const answer = await ask(at + path, init, chance(0.1) ? Math.random() * 30 : undefined);
      if (answer && answer.status < 400) {
        ledger.acknowledged.push({ kind, mark: said });
        return answer.location ?? answer.text;
      }
      if (answer && answer.status < 500) {
        ledger.refused.push(said);
        return null;
      }
      // A database that is away is told as such (503), never as a fault of the server's.
      if (answer && (answer.status === 500 || calm()))
        ledger.faults.push(`${kind}: ${answer.status} ${answer.text.slice(0, 200)}`);
      ledger.unanswered++;
      await rest(20 + Math.random() * 60);
    }
  };
  const newJob = (said: string) =>
    send(
      'job',
      said,
      '/?index',
      form({ intent: 'create', name: said, vehicle: '', owner: '', notes: '', key: key() }),
    );
  const job = /jobs\/([0-9a-f-]{36})/.exec((await newJob(mark('job'))) ?? '')![1]!;
  const newPiece = (said: string) =>
    send(
      'piece',
      said,
      `/jobs/${job}/new-piece.data`,
      json({ mine: { ...demoFacts, name: said }, key: key() }),
    );
  let facts = { ...demoFacts, name: mark('piece') };
  const piece = /pieces\/([0-9a-f-]{36})/.exec((await newPiece(facts.name)) ?? '')![1]!;
  const by = key();
  let number = 0;
  /** Each version of the card is marked by where its base line begins. */
  const saveCard = async () => {
    const base: [number, number] = [++marks, 1];
    const body = { intent: 'save', base: number, doc: { ...demoCard, base }, by };
    const text = await send(
      'card',
      `[${base.join(', ')}]`,
      `/pieces/${piece}/documents/card`,
      json(body),
    );
    if (text !== null) ({ number } = JSON.parse(text) as { number: number });
  };
  await saveCard();
  const record = (path: 'fits' | 'welds', kind: string, said: string, body: object) =>
    send(kind, said, `/pieces/${piece}/${path}`, json({ ...body, key: key() }));
  const idOf = (text: string | null, list: 'fits' | 'inspections', said: string): string | null => {
    const all = JSON.parse(text ?? '{}') as Record<
      string,
      { id: string; notes?: string; finding?: string }[]
    >;
    return all[list]?.find((row) => row.notes === said || row.finding === said)?.id ?? null;
  };
  const weld = (kind: string, process: string) => {
    const note = mark(kind);
    const made = { at: moment(), who: 'Joss', edge, process, work: 'seam', note, ...whole };
    return record('welds', 'weld', note, { intent: 'weld', weld: made });
  };
  const kinds: (() => Promise<unknown>)[] = [
    saveCard,
    saveCard,
    () => newJob(mark('job')),
    () => newPiece(mark('piece')),
    async () => {
      const notes = mark('facts');
      const mine = { ...facts, notes };
      if (await send('facts', notes, `/pieces/${piece}/survey.data`, json({ mine, since: facts })))
        facts = mine;
    },
    () => weld('weld', 'mig'),
    () => weld('refused weld', 'glue'),
    async () => {
      const said = mark('inspection');
      const what = {
        kind: 'lamp',
        sound: false,
        readingMm: null,
        finding: said,
        remedy: '',
        withdrawn: null,
      };
      const inspection = { at: moment(), who: '', edge, ...what };
      const id = idOf(
        await record('welds', 'inspection', said, { intent: 'inspection', inspection }),
        'inspections',
        said,
      );
      if (!id) return;
      const next = mark('remedy');
      if (chance(0.5))
        await record('welds', 'remedy', next, { intent: 'remedy', id, remedy: next, since: '' });
      else
        await record('welds', 'withdrawal', next, {
          intent: 'withdraw',
          what: 'inspection',
          id,
          why: next,
        });
    },
    async () => {
      const notes = mark('trial');
      const fit = {
        at: moment(),
        who: '',
        held: 'hand',
        notes,
        revision: 1,
        withdrawn: null,
        edges: [],
      };
      const id = idOf(await record('fits', 'trial', notes, { intent: 'new', fit }), 'fits', notes);
      if (!id) return;
      // As no reading of the demo job is.
      const gapMm = 100 + ++marks / 1000;
      const stations = [0, 50].map((atMm) => ({ atMm, gapMm, flushMm: null }));
      const read = {
        edge,
        turned: false,
        own: false,
        targetMm: 0,
        toleranceMm: 1,
        flushMm: 1,
        stations,
      };
      await record('fits', 'reading', `"gapMm": ${gapMm},`, {
        intent: 'edge',
        id,
        edge: read,
        since: null,
      });
    },
    () =>
      send('print', piece, `/pieces/${piece}/pattern/card.svg?key=${key()}`, { method: 'POST' }),
    () => ask(`${at}/jobs/${job}.data`),
    () => ask(`${at}/pieces/${piece}/fit.data`),
  ];
  while (!over()) await pick(kinds)();
}

/**
 * Two pages that edit one card and the facts of one piece, each from what it saw last: none writes
 * over the other.
 */
export async function quarrel(
  at: string,
  edits: number,
): Promise<{ wrong: string[]; told: number }> {
  const made = await ask(
    `${at}/?index`,
    form({ intent: 'create', name: mark('quarrel'), vehicle: '', owner: '', notes: '' }),
  );
  const begun = await ask(`${at}${made!.location}/new-piece`, json({ mine: demoFacts }));
  const piece = /pieces\/([0-9a-f-]{36})/.exec(begun!.location ?? begun!.text)![1]!;
  const path = `${at}/pieces/${piece}`;
  const wrong: string[] = [];
  let told = 0;
  let stood = -1;
  const page = async (by: string) => {
    let seen = { number: 0, x: 0 };
    for (let i = 0; i < edits / 2; i++) {
      const x = ++marks;
      const doc = { ...demoCard, base: [x, 2] };
      const answer = await ask(
        `${path}/documents/card`,
        json({ intent: 'save', base: seen.number, doc, by }),
      );
      const now = JSON.parse(answer!.text) as {
        number: number;
        doc: { base: [number, number] | null };
      };
      if (answer!.status === 409) told++;
      // Whoever is saved has what it sent, and one number more than what it saw.
      else if (now.doc.base![0] !== x || now.number <= seen.number)
        wrong.push(`saved ${x}, and there is ${now.doc.base}`);
      seen = { number: now.number, x: now.doc.base?.[0] ?? 0 };
      stood = Math.max(stood, now.number);
    }
  };
  await Promise.all([page(key()), page(key())]);
  const last = await ask(`${path}/card.data`);
  if (!last?.text.includes(`"number",${stood}`) && !last?.text.includes(String(stood)))
    wrong.push('the last is not there');
  // Both change one field from one beginning: one is told, the other stands.
  for (let i = 0; i < edits / 100; i++) {
    const since = { ...demoFacts, part: `${i}` };
    await ask(
      `${path}/survey.data`,
      json({ mine: since, since: { ...demoFacts, part: i === 0 ? demoFacts.part : `b${i - 1}` } }),
    );
    const both = ['a', 'b'].map((who) =>
      ask(`${path}/survey.data`, json({ mine: { ...since, part: `${who}${i}` }, since })),
    );
    const statuses = (await Promise.all(both)).map((answer) => answer!.status).sort();
    if (statuses.join() !== '200,409') wrong.push(`two changed one field: ${statuses.join()}`);
    const now = { ...since, part: `b${i}` };
    for (const who of ['a', 'b'])
      await ask(
        `${path}/survey.data`,
        json({ mine: now, since: { ...since, part: `${who}${i}` } }),
      );
  }
  return { wrong, told };
}
