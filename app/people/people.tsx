import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Stack from '@mui/material/Stack';
import Typography from '@mui/material/Typography';
import { Form, data } from 'react-router';
import { z } from 'zod';
import { orSay } from '../forms/orSay';
import { Told } from '../frame/Told';
import { Moment } from '../frame/Moment';
import { network } from '../frame/network.server';
import { tokenOf } from '../access/cookie.server';
import { jobNames } from '../records/jobs.server';
import { formOf } from '../records/parse.server';
import type { Refused } from '../access/people.server';
import {
  addPerson,
  changePerson,
  letGo,
  listPeople,
  setPhrase,
  setPin,
} from '../access/people.server';
import { digestOf } from '../access/secrets.server';
import { listDevices, offerJoin, throwOut } from '../access/sessions.server';
import type { Viewer } from '../records/viewer.server';
import { viewerIn } from '../records/viewer.server';
import { wrongOnes } from '../access/wrongTries.server';
import type { Route } from './+types/people';
import { LetIn } from './LetIn';
import { PersonCard } from './PersonCard';
import { NewPerson } from './NewPerson';
import { NameSchema, PhraseSchema, PinSchema, RoleSchema, said } from './fields';

/** Whoever runs the shop; for anybody else there is no such page, whatever door they came by. */
function runsIt(viewer: Viewer): Viewer {
  if (viewer.known?.role !== 'runs') throw data(null, { status: 404 });
  return viewer;
}

export async function loader({ context }: Route.LoaderArgs) {
  const viewer = runsIt(context.get(viewerIn));
  return {
    people: await listPeople(viewer),
    devices: await listDevices(viewer),
    jobs: await jobNames(viewer),
    wrong: (await wrongOnes(viewer)).map(({ seq, at, name, address }) => ({
      seq,
      at: at.toISOString(),
      name,
      address,
    })),
    network: network(),
    me: viewer.known!.person?.id ?? null,
    open: process.env.PATRONE_HERE === 'open',
  };
}

const WHY: Record<NonNullable<Refused>, string> = {
  'name-taken':
    'There is somebody of that name already: add a letter, so that both can be told apart.',
  'last-who-runs': 'Somebody has to run the shop: let another one run it first.',
  gone: 'Whoever that was has gone meanwhile.',
};
const answered = (why: Refused, done: string) =>
  why === null ? { done } : data({ message: WHY[why] }, { status: 409 });
const wrong = (error: z.ZodError) => data({ message: error.issues[0]!.message }, { status: 400 });

/** What a form says of a person. */
const Facts = z.object({ name: NameSchema, role: RoleSchema, jobs: z.array(z.uuid()).max(500) });
const factsOf = (form: FormData) =>
  Facts.safeParse({ name: said(form, 'name'), role: said(form, 'role'), jobs: form.getAll('job') });

export async function action({ request, context }: Route.ActionArgs) {
  const viewer = runsIt(context.get(viewerIn));
  const form = await formOf(request);
  const intent = said(form, 'intent');
  if (intent === 'add' || intent === 'change') {
    const facts = factsOf(form);
    if (!facts.success) return wrong(facts.error);
    if (facts.data.role === 'looks' && facts.data.jobs.length === 0)
      return data(
        { message: 'Choose the jobs that may be looked at: one at the least.' },
        { status: 400 },
      );
    if (intent === 'change') {
      const id = z.uuid().safeParse(said(form, 'person'));
      return id.success
        ? answered(await changePerson(viewer, id.data, facts.data), 'Kept.')
        : answered('gone', '');
    }
    const phrase =
      said(form, 'phrase') === '' ? null : PhraseSchema.safeParse(said(form, 'phrase'));
    if (phrase && !phrase.success) return wrong(phrase.error);
    const id = await addPerson(viewer, facts.data, phrase?.data ?? null);
    return answered(id === null ? 'name-taken' : null, `${facts.data.name} is in.`);
  }
  const id = z.uuid().safeParse(said(form, 'person') || said(form, 'device'));
  if (intent === 'offer') {
    const name = NameSchema.safeParse(said(form, 'name'));
    if (!name.success)
      return data(
        { message: 'Say what the phone or tablet is called: “tablet by the brake”.' },
        { status: 400 },
      );
    const { code, until } = await offerJoin(viewer, name.data, id.success ? id.data : null);
    return { offered: { code, until: until.toISOString(), name: name.data } };
  }
  if (!id.success) return data({ message: WHY.gone }, { status: 400 });
  switch (intent) {
    case 'phrase': {
      const phrase = PhraseSchema.safeParse(said(form, 'phrase'));
      if (!phrase.success) return wrong(phrase.error);
      const token = tokenOf(request);
      await setPhrase(viewer, id.data, phrase.data, token && digestOf(token));
      return {
        done: 'A new pass phrase: whoever was signed in with the old one must sign in again, and their phones be let in anew.',
      };
    }
    case 'pin': {
      const pin = said(form, 'pin') === '' ? null : PinSchema.safeParse(said(form, 'pin'));
      if (pin && !pin.success) return wrong(pin.error);
      await setPin(viewer, id.data, pin?.data ?? null);
      return {
        done: pin ? 'The PIN is asked for on the shop’s devices.' : 'No PIN is asked for any more.',
      };
    }
    case 'let-go':
      return answered(await letGo(viewer, id.data), 'Let go, and signed out everywhere.');
    case 'throw-out':
      await throwOut(viewer, id.data);
      return { done: 'Thrown out: it is let in again only by a new code.' };
    default:
      return data({ message: 'That is nothing that can be done here.' }, { status: 400 });
  }
}

export const clientAction = ({ serverAction }: Route.ClientActionArgs) => orSay(serverAction);

export const meta: Route.MetaFunction = () => [{ title: 'People and devices · Patrone' }];

/** Who may come in: the people of the shop, their phones, and who tried. */
export default function PeoplePage({ loaderData }: Route.ComponentProps) {
  const { people, devices, jobs, wrong: tries, me, open } = loaderData;
  return (
    <>
      <Typography variant="h1" sx={{ mb: 1 }}>
        People and devices
      </Typography>
      {open && (
        <Told>
          This machine is open: whoever sits at it needs not sign in
          {people[0]
            ? ` and is ${people.find(({ role }) => role === 'runs')?.name ?? 'the shop'}`
            : ''}
          . The demo starts so. Started with <b className="figure">./patrone start</b> it asks.
        </Told>
      )}
      <Box
        sx={{
          display: 'grid',
          gridTemplateColumns: { md: '1.15fr 1fr' },
          gap: 3,
          alignItems: 'start',
          mt: 2,
        }}
      >
        <Stack spacing={2}>
          <Typography variant="h2">People</Typography>
          {people.length === 0 && (
            <Typography>Nobody yet: put in who runs the shop first.</Typography>
          )}
          {people.map((person) => (
            <PersonCard
              key={`${person.id} ${person.role}`}
              person={person}
              jobs={jobs}
              me={person.id === me}
            />
          ))}
          <NewPerson jobs={jobs} first={people.length === 0} />
        </Stack>
        <Stack spacing={2.5}>
          <LetIn people={people} network={loaderData.network} />
          <Box component="section" aria-label="Devices">
            <Typography variant="h2" gutterBottom>
              Phones and tablets
            </Typography>
            {devices.length === 0 && <Typography>None has joined yet.</Typography>}
            <Stack component="ul" spacing={1} sx={{ listStyle: 'none', p: 0, m: 0 }}>
              {devices.map((device) => (
                <Stack
                  component="li"
                  key={device.id}
                  direction="row"
                  spacing={1}
                  aria-label={device.name}
                  sx={{
                    alignItems: 'center',
                    border: '1.5px solid var(--rule)',
                    p: 1.2,
                    bgcolor: 'var(--panel)',
                  }}
                >
                  <Box sx={{ flex: 1 }}>
                    <Typography sx={{ fontWeight: 600 }}>{device.name}</Typography>
                    <Typography variant="body2" sx={{ color: 'var(--pencil)' }}>
                      {device.person ?? 'The shop’s'}, joined <Moment at={device.created} />
                      {device.seen && (
                        <>
                          , last here <Moment at={device.seen} />
                        </>
                      )}
                    </Typography>
                  </Box>
                  <Form method="post">
                    <input type="hidden" name="device" value={device.id} />
                    <Button
                      type="submit"
                      name="intent"
                      value="throw-out"
                      color="inherit"
                      variant="outlined"
                      aria-label={`Throw out ${device.name}`}
                    >
                      Throw out
                    </Button>
                  </Form>
                </Stack>
              ))}
            </Stack>
          </Box>
          <Box component="section" aria-label="Wrong tries">
            <Typography variant="h2" gutterBottom>
              Wrong tries
            </Typography>
            {tries.length === 0 ? (
              <Typography>None in the last month.</Typography>
            ) : (
              <Stack component="ul" spacing={0.4} sx={{ listStyle: 'none', p: 0, m: 0 }}>
                {tries.map(({ seq, at, name, address }) => (
                  <Typography component="li" key={seq}>
                    <Moment at={at} />: <b>{name || 'no name'}</b> from{' '}
                    <span className="figure">{address}</span>
                  </Typography>
                ))}
              </Stack>
            )}
          </Box>
        </Stack>
      </Box>
    </>
  );
}
