import { demoCard, demoFacts } from './writers';
import { ask, form, json, pick } from './client';

type Option = {
  id: string;
  of: string;
  name: string;
  hours: number[];
  material: number;
  price: number;
};
type Saved = { survey: { options: Option[] }; now?: { options?: Option[] } };

const option = (id: string): Option => ({
  id,
  of: 'patch',
  name: id,
  hours: [1, 2, 3],
  material: 0,
  price: 0,
});

/**
 * Two pages edit the items of one list and the readings of one edge at once, `rounds` times over.
 * What must hold: no id twice, no field lost that only one touched, a field that both touched told to
 * one of them, and every reading at the place it was read.
 */
export async function listsAtOnce(
  at: string,
  rounds: number,
): Promise<{ wrong: string[]; told: number }> {
  const wrong: string[] = [];
  let told = 0;
  const made = await ask(
    `${at}/?index`,
    form({ intent: 'create', name: 'Lists at once', vehicle: '', owner: '', notes: '' }),
  );
  const begun = await ask(`${at}${made!.location}/new-piece`, json({ mine: demoFacts }));
  const piece = /pieces\/([0-9a-f-]{36})/.exec(begun!.location ?? begun!.text)![1]!;
  const path = `${at}/pieces/${piece}`;
  await ask(`${path}/documents/card`, json({ intent: 'save', base: 0, doc: demoCard }));
  const put = async (since: Option[], mine: Option[]) => {
    const answer = await ask(
      `${path}/surveyed`,
      json({ since: { options: since }, mine: { options: mine } }),
    );
    return { status: answer!.status, ...(JSON.parse(answer!.text) as Saved) };
  };
  let stands = (await put([], ['a', 'b', 'c'].map(option))).survey.options;
  for (let i = 0; i < rounds; i++) {
    const change = (field: 'name' | 'price', who: string) => {
      const id = pick(stands).id;
      const value = field === 'name' ? `${who}${i}` : i + 1;
      return {
        id,
        field,
        value,
        list: stands.map((one) => (one.id === id ? { ...one, [field]: value } : one)),
      };
    };
    const edits = [change(pick(['name', 'price']), 'x'), change(pick(['name', 'price']), 'y')];
    const answers = await Promise.all(edits.map(({ list }) => put(stands, list)));
    stands = (await put([], [])).survey.options;
    const ids = stands.map(({ id }) => id);
    if (new Set(ids).size !== ids.length) wrong.push(`round ${i}: ids ${ids.join(' ')}`);
    for (const [k, { status }] of answers.entries()) {
      const { id, field, value } = edits[k]!;
      const other = edits[1 - k]!;
      const same = other.id === id && other.field === field && other.value !== value;
      if (status === 409) told++;
      if (status === 409 && !same) wrong.push(`round ${i}: told of ${field}, touched by it alone`);
      if (status === 200 && !stands.some((one) => one.id === id && one[field] === value))
        wrong.push(`round ${i}: ${field} of ${id} was taken and is not there`);
    }
    const statuses = answers.map(({ status }) => status).sort();
    const [one, two] = edits as [(typeof edits)[0], (typeof edits)[0]];
    if (one.id === two.id && one.field === two.field && one.value !== two.value)
      if (statuses.join() !== '200,409') wrong.push(`round ${i}: both answered ${statuses.join()}`);
  }
  wrong.push(...(await readingsAtOnce(path, rounds)));
  return { wrong, told };
}

/** Two phones read one edge, one of them with other stations or from the other end. */
async function readingsAtOnce(path: string, rounds: number): Promise<string[]> {
  const wrong: string[] = [];
  const edge = demoCard.edges[0]!.id;
  const of = { edge, own: false, targetMm: 0, toleranceMm: 1, flushMm: 1 };
  const read = (turned: boolean, places: number[], gaps: (number | null)[]) => ({
    ...of,
    turned,
    stations: places.map((atMm, i) => ({ atMm, gapMm: gaps[i] ?? null, flushMm: null })),
  });
  type Told = { fits: { id: string; edges: ReturnType<typeof read>[] }[] };
  for (let i = 0; i < rounds; i++) {
    const fit = {
      at: new Date().toISOString(),
      who: '',
      held: 'hand',
      notes: `${i}`,
      revision: 1,
      withdrawn: null,
      edges: [],
    };
    const id = crypto.randomUUID();
    await ask(`${path}/fits`, json({ intent: 'new', id, fit }));
    const began = read(false, [10, 50], [null, null]);
    const [a, b] = [1 + (i % 7), 10 + (i % 5)];
    const seconds = pick([read(false, [10, 80], [null, b]), read(true, [10, 50], [b, null])]);
    const both = [read(false, [10, 50], [null, a]), seconds];
    const answers = await Promise.all(
      both.map((mine) =>
        ask(`${path}/fits`, json({ intent: 'edge', id, edge: mine, since: began })),
      ),
    );
    const answer = await ask(
      `${path}/fits`,
      json({ intent: 'edge', id, edge: began, since: began }),
    );
    const there = (JSON.parse(answer!.text) as Told).fits.find((one) => one.id === id)!.edges[0]!;
    for (const [k, one] of answers.entries()) {
      if (one!.status !== 200) continue;
      const kept = there.stations.some(({ gapMm }) => gapMm === [a, b][k]);
      if (!kept) wrong.push(`trial ${i}: a reading of ${[a, b][k]} was taken and is not there`);
    }
    for (const { atMm, gapMm } of there.stations) {
      const meant = both.some((one) =>
        one.stations.some(
          (s) => s.gapMm === gapMm && (one.turned !== there.turned || s.atMm === atMm),
        ),
      );
      if (gapMm !== null && !meant) wrong.push(`trial ${i}: ${gapMm} stands at ${atMm}`);
    }
  }
  return wrong;
}
