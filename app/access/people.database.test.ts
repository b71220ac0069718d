import { onEmptyDatabase } from '../records/emptyDatabase';
import { createJob, jobById, listJobs } from '../records/jobs.server';
import { Viewer } from '../records/viewer.server';
import { addFirst, addPerson, changePerson, letGo, listPeople, setPhrase } from './people.server';
import { foundRight, notJudged, takeTry } from './secretTries.server';
import type { Try } from './secretTries.server';
import { digestOf } from './secrets.server';
import {
  join,
  joinOffered,
  knownBy,
  listDevices,
  offerJoin,
  setPersonHere,
  signIn,
  throwOut,
} from './sessions.server';

onEmptyDatabase();

const { shop } = Viewer;
const PHRASE = 'four words or so';
const sure = <T>(value: T | null): T => {
  if (value === null) throw new Error('there is none');
  return value;
};
const works = (name: string) => ({ name, role: 'works' as const, jobs: [] });

const phraseOf = (who: string, address = '10.0.0.1'): Try => ({ kind: 'phrase', who, address });
const takenOf = async (all: readonly Try[]) =>
  (await Promise.all(all.map(takeTry))).filter((wait) => wait === 0).length;

test('however many are sent together, no more tries are judged than may be; nobody else waits for it', async () => {
  expect(await takenOf(Array.from({ length: 60 }, () => phraseOf('Wenna')))).toBe(4);
  expect(await takeTry(phraseOf('Wenna'))).toBeGreaterThan(0);
  // Letters and blanks make no other name of it.
  expect(await takeTry(phraseOf(' WENNA '))).toBeGreaterThan(0);
  expect(await takeTry(phraseOf('Wenna', '10.0.0.2'))).toBe(0);
  expect(await takeTry({ ...phraseOf('Wenna'), kind: 'pin' })).toBe(0);
  expect(await takeTry(phraseOf('Joss'))).toBe(0);
});

test('of one address all names together are counted; a right one, and one that was not judged, count no more', async () => {
  const names = Array.from({ length: 60 }, (_, i) => phraseOf(`name ${i}`));
  expect(await takenOf(names)).toBe(30);
  expect(await takeTry(phraseOf('somebody else'))).toBeGreaterThan(0);
  const mine = phraseOf('Joss', '10.0.0.3');
  for (let round = 0; round < 12; round++) {
    expect(await takeTry(mine)).toBe(0);
    await (round % 2 ? foundRight(mine) : notJudged(mine));
  }
});

test('the shop has one first person, and never is without one who runs it', async () => {
  const firsts = await Promise.all(
    ['Wenna', 'Mabyn', 'Joss'].map((name) => addFirst(name, { phrase: PHRASE })),
  );
  expect(firsts.filter((id) => id !== null)).toHaveLength(1);
  const id = firsts.find((one) => one !== null)!;
  expect(await letGo(shop, id)).toBe('last-who-runs');
  expect(await changePerson(shop, id, works('Wenna'))).toBe('last-who-runs');
  const second = sure(await addPerson(shop, { name: 'Tamsin', role: 'runs', jobs: [] }, PHRASE));
  // Both at once: one of the two has to stay.
  const gone = await Promise.all([letGo(shop, id), letGo(shop, second)]);
  expect(gone.filter((why) => why === null)).toHaveLength(1);
  expect((await listPeople(shop)).filter(({ role }) => role === 'runs')).toHaveLength(1);
});

test('two of one name cannot be told apart: one of them is not taken in, whatever the letters’ size', async () => {
  const added = await Promise.all(
    ['Joss', 'JOSS', 'joss'].map((name) => addPerson(shop, works(name), null)),
  );
  expect(added.filter((id) => id !== null)).toHaveLength(1);
  const other = sure(await addPerson(shop, works('Mabyn'), null));
  expect(await changePerson(shop, other, works('jOSS'))).toBe('name-taken');
});

test('whoever has gone, and a phone that was thrown out, is known no more; another phrase ends all other sessions', async () => {
  await addFirst('Wenna', { phrase: PHRASE });
  const joss = sure(await addPerson(shop, works('Joss'), PHRASE));
  const [here, elsewhere] = [await signIn(joss, true), await signIn(joss, false)];
  expect((await knownBy(here.token, false))?.person?.name).toBe('Joss');
  await setPhrase(shop, joss, 'quite another phrase', digestOf(here.token));
  expect(await knownBy(elsewhere.token, false)).toBeNull();
  expect(await knownBy(here.token, false)).not.toBeNull();

  const { code } = await offerJoin(shop, 'Phone of Joss', joss);
  expect(await joinOffered(code)).toEqual({ device: 'Phone of Joss', person: 'Joss' });
  const joined = await Promise.all([join(code), join(code), join(code)]);
  expect(joined.filter((begun) => begun !== null)).toHaveLength(1);
  const { token } = joined.find((begun) => begun !== null)!;
  expect((await knownBy(token, false))?.device).toMatchObject({ shops: false });
  const [device] = await listDevices(shop);
  await throwOut(shop, device!.id);
  expect(await knownBy(token, false)).toBeNull();

  expect(await letGo(shop, joss)).toBeNull();
  expect(await knownBy(here.token, false)).toBeNull();
});

test('the shop’s own device works with nobody at it, and says who is', async () => {
  await addFirst('Wenna', { phrase: PHRASE });
  const joss = sure(await addPerson(shop, works('Joss'), null));
  const { token } = sure(await join((await offerJoin(shop, 'Tablet by the brake', null)).code));
  expect(await knownBy(token, false)).toMatchObject({ role: 'works', person: null });
  await setPersonHere(token, joss);
  expect((await knownBy(token, false))?.person?.name).toBe('Joss');
  await letGo(shop, joss);
  expect(await knownBy(token, false)).toMatchObject({ role: 'works', person: null });
});

test('who only looks sees the jobs chosen for them, in lists and by their address', async () => {
  const facts = { vehicle: '', owner: '', notes: '' };
  const [mine, other] = [
    await createJob(shop, { name: 'Van', ...facts }),
    await createJob(shop, { name: 'Bus', ...facts }),
  ];
  await addFirst('Wenna', { phrase: PHRASE });
  const owner = sure(await addPerson(shop, { name: 'Kerra', role: 'looks', jobs: [mine] }, null));
  const { token } = await signIn(owner, false);
  const viewer = Viewer.asking(await knownBy(token, false));
  const { jobs } = await listJobs(viewer, '', false, { skip: 0, most: 10, first: 0 });
  expect(jobs.map(({ id }) => id)).toEqual([mine]);
  expect(await jobById(viewer, mine)).not.toBeNull();
  expect(await jobById(viewer, other)).toBeNull();
});
