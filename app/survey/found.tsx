import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { useMemo, useState } from 'react';
import { Link } from 'react-router';
import { growthOf, growthToCutOpen, inTime } from '#core/survey/growth';
import type { Finding, Surveyed } from '#core/survey/references';
import { inHand } from '#core/survey/inHand';
import { usePost } from '../forms/usePost';
import { useWho } from '../frame/recordedBy';
import { JobLine } from '../frame/JobLine';
import { Moment } from '../frame/Moment';
import { Told } from '../frame/Told';
import { useNewer } from '../frame/useNewer';
import { listed } from '../frame/words';
import { LAYER_WORDS, LOOK_WORDS } from '../piece/road/surveyWords';
import { Pictures } from '../pictures/Pictures';
import type { Picture } from '../records/pictures.server';
import { viewerIn } from '../records/viewer.server';
import type { Route } from './+types/found';
import { FindingForm, NEW_FINDING } from './FindingForm';
import { Growth } from './Growth';
import { outlinesOn } from './outlines';
import { grownSaid } from '../frame/measuredWords';
import { surveyLoaded } from './surveyLoaded.server';
import { SurveyContext, useSurvey, useSurveyOf } from './useSurvey';

export async function loader({ params, context }: Route.LoaderArgs) {
  const { pieces, ...loaded } = await surveyLoaded(context.get(viewerIn), params.jobId);
  return {
    ...loaded,
    pieces: pieces.map(({ id, name, survey: { mends } }) => ({ id, name, mends })),
  };
}

export const meta = ({ loaderData }: Route.MetaArgs) => [
  { title: `Found · ${loaderData?.job.name ?? 'Job'} · Patrone` },
];

type Mender = { id: string; name: string; mends: string[] };

/** What was found wrong with a vehicle, and how it grew from look to look. */
export default function FoundPage({ loaderData }: Route.ComponentProps) {
  const { job, pieces } = loaderData;
  const survey = useSurveyOf(job.id, loaderData.survey);
  const [pictures, took] = useNewer(loaderData.pictures);
  return (
    <SurveyContext.Provider value={survey}>
      <Typography variant="h1" sx={{ mb: 1 }}>
        {job.name}
      </Typography>
      <JobLine job={job.id} />
      <Found pictures={pictures} took={took} pieces={pieces} />
    </SurveyContext.Provider>
  );
}

function Found({
  pictures,
  took,
  pieces,
}: {
  pictures: Picture[];
  took: (pictures: Picture[]) => void;
  pieces: Mender[];
}) {
  const { all, post } = useSurvey();
  const findings = useMemo(() => inHand(all, 'finding'), [all]);
  const [open, setOpen] = useState<string | null | undefined>(undefined);
  const [menders, setMenders] = useNewer(pieces);
  const areaOf = useMemo(() => outlinesOn(pictures), [pictures]);
  const growth = growthToCutOpen(findings, areaOf);
  const picked = findings.find(({ id }) => id === open);
  const looks = useWho()?.role === 'looks';
  const drawer = looks ? picked !== undefined : open !== undefined || findings.length === 0;
  return (
    <Box
      sx={{
        display: 'grid',
        gridTemplateColumns: { md: drawer ? '1fr 400px' : '1fr' },
        gap: 2.5,
        alignItems: 'start',
      }}
    >
      <Box sx={{ minWidth: 0 }}>
        <Box sx={{ display: 'flex', gap: 2, alignItems: 'center', flexWrap: 'wrap', mb: 2 }}>
          <Box
            role="status"
            aria-label="How findings grow"
            sx={{ flex: 1, minWidth: 260, fontSize: '1.08rem' }}
          >
            {growth ? (
              <>
                <b className="figure" style={{ fontSize: '1.5rem' }}>
                  {growth.times.toFixed(1)} times
                </b>{' '}
                as large when cut open as at first sight: so far here, from{' '}
                {growth.of === 1 ? 'one finding' : `${growth.of} findings`}. What is only seen yet
                will grow too.
              </>
            ) : (
              'The hole always grows. Write down what is seen, then measure it again when it is probed, sanded back and cut open.'
            )}
          </Box>
          {!looks && (
            <Button
              variant={findings.length === 0 ? 'contained' : 'outlined'}
              color={findings.length === 0 ? 'primary' : 'inherit'}
              onClick={() => setOpen(null)}
            >
              New finding
            </Button>
          )}
        </Box>
        <Box
          component="ul"
          aria-label="Findings"
          sx={{
            listStyle: 'none',
            m: 0,
            p: 0,
            display: 'grid',
            gap: 2,
            gridTemplateColumns: { sm: '1fr 1fr', lg: drawer ? '1fr 1fr' : '1fr 1fr 1fr' },
          }}
        >
          {findings.map((finding) => (
            <FindingCard
              key={finding.id}
              finding={finding}
              times={growthOf(finding, areaOf)}
              picture={pictures.find(
                ({ of, owner, putAway }) => owner === 'survey' && of === finding.id && !putAway,
              )}
              mendedBy={menders.filter(({ mends }) => mends.includes(finding.id))}
              picked={finding.id === open}
              onOpen={() => setOpen(finding.id === open ? undefined : finding.id)}
            />
          ))}
        </Box>
      </Box>
      {drawer && (
        <Box
          component="aside"
          aria-label="Drawer"
          sx={{
            bgcolor: 'var(--panel)',
            border: '1.5px solid var(--rule)',
            p: 2,
            display: 'grid',
            gap: 2,
          }}
        >
          {post.problem && <Told>{post.problem}</Told>}
          {looks ? (
            picked && <FindingPictures finding={picked.id} all={pictures} took={took} />
          ) : open === undefined ? (
            <Typography>Nothing is written down yet. Begin with “New finding”.</Typography>
          ) : (
            <>
              <FindingForm
                key={open}
                id={picked ? open : null}
                initial={picked ?? NEW_FINDING}
                pictures={pictures.filter(({ of }) => picked && of === picked.id)}
                onDone={(made) =>
                  setOpen(made && findings.every(({ id }) => id !== made) ? made : undefined)
                }
              />
              {picked && (
                <>
                  <FindingPictures finding={picked.id} all={pictures} took={took} />
                  <Menders finding={picked.id} menders={menders} onChange={setMenders} />
                </>
              )}
            </>
          )}
        </Box>
      )}
    </Box>
  );
}

function FindingPictures({
  finding,
  all,
  took,
}: {
  finding: string;
  all: Picture[];
  took: (pictures: Picture[]) => void;
}) {
  const { job } = useSurvey();
  const on = useMemo(
    () => ({ job, piece: null, owner: 'survey' as const, of: finding }),
    [job, finding],
  );
  return <Pictures on={on} all={all} took={took} title="Pictures of it" />;
}

function FindingCard(given: {
  finding: Surveyed<Finding>;
  times: number | null;
  picture: Picture | undefined;
  mendedBy: Mender[];
  picked: boolean;
  onOpen: () => void;
}) {
  const { finding, times, picture, mendedBy, picked, onOpen } = given;
  const { name, where, layers, looks } = finding;
  const last = inTime(looks).pop();
  return (
    <Box
      component="li"
      sx={{
        bgcolor: 'var(--panel)',
        border: '1.5px solid var(--rule)',
        borderColor: picked ? 'var(--torch)' : 'var(--rule)',
        display: 'flex',
        flexDirection: 'column',
      }}
    >
      <Box
        sx={{
          display: 'grid',
          gridTemplateColumns: picture ? '1fr 118px' : '1fr',
          bgcolor: 'var(--bench-top)',
        }}
      >
        <Growth looks={looks} />
        {picture && (
          <Box
            component="img"
            src={`/pictures/${picture.id}/small`}
            alt=""
            sx={{ width: '100%', height: '100%', maxHeight: 190, objectFit: 'cover' }}
          />
        )}
      </Box>
      <Button
        color="inherit"
        aria-pressed={picked}
        onClick={onOpen}
        sx={{ display: 'block', textAlign: 'left', p: 1.5, flex: 1, width: '100%' }}
      >
        <Typography variant="h2" component="span" sx={{ display: 'block' }}>
          {name}
        </Typography>
        <Box
          component="span"
          sx={{
            display: 'block',
            fontFamily: 'Barlow, sans-serif',
            fontWeight: 400,
            fontSize: '0.95rem',
            lineHeight: 1.35,
            color: 'var(--pencil)',
          }}
        >
          {[where, listed(layers.map((layer) => LAYER_WORDS[layer].toLowerCase()))]
            .filter(Boolean)
            .join(' · ')}
        </Box>
        {last && (
          <Box
            component="span"
            sx={{
              display: 'block',
              fontFamily: 'Barlow, sans-serif',
              fontWeight: 400,
              fontSize: '0.98rem',
              mt: 0.6,
            }}
          >
            {LOOK_WORDS[last.how]} <Moment at={last.at} />
            {times !== null && <b> · {grownSaid(times)}</b>}
          </Box>
        )}
      </Button>
      <Box sx={{ px: 1.5, pb: 1.2, fontSize: '0.95rem' }}>
        {mendedBy.length === 0 ? (
          <span style={{ color: 'var(--torch)' }}>No piece mends it yet.</span>
        ) : (
          <>
            Mended by{' '}
            {mendedBy.map(({ id, name: piece }, i) => (
              <span key={id}>
                {i > 0 && ', '}
                <Link to={`/pieces/${id}/survey`} style={{ color: 'inherit' }}>
                  {piece}
                </Link>
              </span>
            ))}
          </>
        )}
      </Box>
    </Box>
  );
}

/** Which pieces mend it. */
function Menders({
  finding,
  menders,
  onChange,
}: {
  finding: string;
  menders: Mender[];
  onChange: (menders: Mender[]) => void;
}) {
  if (menders.length === 0) return null;
  return (
    <Box component="section" aria-label="Pieces that mend it">
      <Typography variant="h3" gutterBottom>
        Which piece mends it
      </Typography>
      <Box sx={{ display: 'flex', flexWrap: 'wrap', gap: 1 }}>
        {menders.map((mender) => (
          <MenderButton
            key={mender.id}
            finding={finding}
            mender={mender}
            onChange={(mends) =>
              onChange(menders.map((one) => (one.id === mender.id ? { ...one, mends } : one)))
            }
          />
        ))}
      </Box>
    </Box>
  );
}

function MenderButton({
  finding,
  mender,
  onChange,
}: {
  finding: string;
  mender: Mender;
  onChange: (mends: string[]) => void;
}) {
  const post = usePost<{ survey?: { mends: string[] } }>(
    `/pieces/${mender.id}/surveyed`,
    ({ survey }) => survey && onChange(survey.mends),
  );
  const on = mender.mends.includes(finding);
  const mends = on ? mender.mends.filter((id) => id !== finding) : [...mender.mends, finding];
  return (
    <>
      <Button
        size="small"
        variant={on ? 'contained' : 'outlined'}
        color="inherit"
        aria-pressed={on}
        disabled={post.state === 'busy'}
        onClick={() => void post.send({ since: { mends: mender.mends }, mine: { mends } })}
      >
        {mender.name}
      </Button>
      {post.problem && <Told>{post.problem}</Told>}
    </>
  );
}
