import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Stack from '@mui/material/Stack';
import Typography from '@mui/material/Typography';
import { useEffect, useRef, useState } from 'react';
import { byLetter, outlineOf } from '#core/card/outline';
import type { Edge } from '#core/card/pattern';
import { edgeFit } from '#core/fit/gapRemedy';
import type { FitRecord } from '#core/format/job';
import { box } from '#core/measure/path';
import { weldOf } from '#core/weld/planned';
import { isJoined } from '#core/weld/start';
import { Drawing } from '../drawing/Drawing';
import { Choice } from '../forms/Choice';
import { FoldAway } from '../frame/FoldAway';
import { Moment } from '../frame/Moment';
import { StopLayout } from '../frame/StopLayout';
import type { TallyFigure } from '../frame/Tally';
import { Told } from '../frame/Told';
import { usePreferences } from '../frame/preferences';
import { useWho, whoAtFirst } from '../frame/recordedBy';
import { conditionSentence } from '../frame/words';
import { triedAsItIs } from '../piece/road/fit';
import { AcrossRecords } from '../joint/AcrossRecords';
import { EdgeStory } from '../piece/EdgeStory';
import { NoBlank } from '../piece/NoBlank';
import { WhoField } from '../piece/WhoField';
import { usePick, usePiece, useReadingsHere } from '../piece/pieceContext';
import { EdgeLine, signOf } from './EdgeLine';
import { EdgeReadings } from './EdgeReadings';
import { FitPicture } from './FitPicture';
import { FitSheet } from './FitSheet';
import { useReadingKeys } from './useReadingKeys';
import { HELD_WORDS } from '../frame/recordWords';

/** The fit stage: trial fits, gaps read along each edge, and how each edge lies. */
export default function FitStage() {
  const { id, joined, fits, takenBack, facts, patternEditor, digest } = usePiece();
  // As its joints have it: what a neighbour's card asks of an edge counts here too.
  const { pattern, plan, thicknessAt } = joined;
  const me = useWho();
  const [who, setWho] = useState('');
  const { pick, setPick } = usePick();
  const { show, showThin } = usePreferences();
  const [chosen, setChosen] = useState<string | null>(null);
  const [touched, setTouched] = useState(0);
  const { put, post } = useReadingsHere();
  const fit = fits.find((f) => f.id === chosen) ?? fits[fits.length - 1] ?? null;
  const edge = pick?.kind === 'edge' ? pattern.edges.find((e) => e.id === pick.id) : undefined;
  const by = who !== '' ? who : whoAtFirst(me, fit?.who);
  const start = () => {
    const begun: FitRecord = {
      at: new Date().toISOString(),
      who: by,
      held: fit?.held ?? 'clamps',
      notes: '',
      revision: patternEditor.number,
      ...(digest !== null && { digest }),
      withdrawn: null,
      edges: [],
    };
    const record = { intent: 'new', id: crypto.randomUUID(), fit: begun };
    void post.sendOrWait(record, `Trial fit ${fits.length + 1}`, id).then(() => setChosen(null));
  };

  // What another page read differently is told and decided above, at every stop.
  const aboutReadings = typeof post.refusal?.now === 'object' && 'clashes' in post.refusal.now!;
  const conditions = pattern.edges.map((e) => ({ edge: e, condition: conditionFor(fit, e) }));
  const read = conditions.filter(({ condition }) => condition && condition.read > 0);
  const off = read.filter(({ condition }) => !condition!.good);
  // The next joined edge that has stations to read, in the order of the letters after the one in
  // hand.
  const order = byLetter(pattern.edges);
  const open = new Set(
    conditions
      .filter(
        ({ edge: e, condition }) =>
          isJoined(e.joint) && (!condition || condition.read < condition.stations),
      )
      .map(({ edge: e }) => e),
  );
  const from = edge ? order.indexOf(edge) : -1;
  const following = [...order.slice(from + 1), ...order.slice(0, Math.max(0, from))].find((e) =>
    open.has(e),
  );
  const onward = following
    ? { letter: following.letter, go: () => setPick({ kind: 'edge' as const, id: following.id }) }
    : null;
  // A phone is taken out to read with: it opens on the edge that is next, or else on one that is
  // off, its field in hand.
  const firstOff = order.find((e) => off.some((one) => one.edge === e));
  const opened = useRef(false);
  useEffect(() => {
    if (opened.current || !fit) return;
    opened.current = true;
    const first = following ?? firstOff;
    if (first && !edge && window.matchMedia(NARROW).matches)
      setPick({ kind: 'edge', id: first.id });
  }, [edge, fit, following, firstOff, setPick]);
  if (pattern.sides.length === 0) return <NoBlank />;

  const worst = Math.max(
    0,
    ...read.flatMap(({ condition }) =>
      [...condition!.tight, ...condition!.wide].map((p) => p.byMm),
    ),
  );
  const tally: TallyFigure[] = fit
    ? [
        { label: 'Trial', value: `${fits.indexOf(fit) + 1} of ${fits.length}` },
        { label: 'Edges read', value: `${read.length} of ${pattern.edges.length}` },
        { label: 'Off target', value: String(off.length), alert: off.length > 0 },
        {
          label: 'Worst by',
          value: off.length === 0 ? '—' : showThin(worst),
          alert: worst > 0,
          working: {
            title: 'Worst reading',
            lines: ['The farthest that any gap lies outside its target and tolerance.'],
            source: 'Targets: common practice, by the kind of joint, or as typed',
          },
        },
      ]
    : [];

  return (
    <StopLayout
      drawerWidth={430}
      tally={tally}
      drawing={
        <Drawing
          bounds={grown(box(outlineOf(pattern).path))}
          ground="fit"
          label="The piece in its hole"
          onGround={() => setPick(null)}
        >
          <FitPicture
            fit={fit}
            pick={pick}
            onPick={(next) => {
              setPick(next);
              setTouched(touched + 1);
            }}
          />
        </Drawing>
      }
      drawer={
        <Stack spacing={2}>
          {fits.length === 0 ? (
            <Box>
              <Typography variant="h2">Offer it up</Typography>
              <Typography sx={{ my: 1 }}>
                Hold the piece in its hole, then read the gap along each edge. In and out ten times
                is usual: each time is a trial.
              </Typography>
            </Box>
          ) : (
            <FoldAway
              key={edge ? 'edge' : 'trial'}
              open={!edge}
              title={`Trial ${fits.indexOf(fit!) + 1} of ${fits.length}, ${HELD_WORDS[fit!.held].toLowerCase()}`}
            >
              <Stack spacing={1.5}>
                {fits.length > 1 && (
                  <Choice
                    label="Trial fit"
                    value={fit!.id}
                    onChange={setChosen}
                    options={fits
                      .map(
                        (f, i) =>
                          [f.id, `Trial ${i + 1}, ${HELD_WORDS[f.held].toLowerCase()}`] as const,
                      )
                      .reverse()}
                  />
                )}
                <FitSheet key={fit!.id} fit={fit!} post={post} />
              </Stack>
            </FoldAway>
          )}
          {fit && !edge && <NoEdgeInHand next={onward} />}
          {edge && fit && (
            <EdgeReadings
              key={`${fit.id} ${edge.id}`}
              fit={fit}
              edge={edge}
              onRead={(record, before) =>
                put(fit.id, record, before, { piece: id, name: facts.name, letter: edge.letter })
              }
              onward={onward}
              touched={touched}
              told={aboutReadings ? null : post.problem}
            />
          )}
          {fit && (
            <Box>
              <Typography variant="h2" gutterBottom>
                {edge ? 'All edges' : 'How each edge lies'}
              </Typography>
              <Stack spacing={0.8}>
                {[...conditions]
                  // What is joined is read first; free edges come after.
                  .sort(
                    (a, b) =>
                      Number(isJoined(b.edge.joint)) - Number(isJoined(a.edge.joint)) ||
                      a.edge.letter.length - b.edge.letter.length ||
                      a.edge.letter.localeCompare(b.edge.letter),
                  )
                  .map(({ edge: e, condition }) => (
                    <EdgeLine
                      key={e.id}
                      letter={e.letter}
                      said={condition ? conditionSentence(condition, show) : 'not read yet'}
                      state={signOf(condition)}
                      picked={edge?.id === e.id}
                      onPick={() => setPick({ kind: 'edge', id: e.id })}
                    />
                  ))}
              </Stack>
            </Box>
          )}
          {edge && <AcrossRecords edge={edge.id} />}
          {edge && <EdgeStory edgeId={edge.id} />}
          {post.problem && !aboutReadings && !(edge && fit) && <Told>{post.problem}</Told>}
          {me?.names && <WhoField label="Who tries it" value={who} onChange={setWho} />}
          <Button
            variant={fits.length === 0 ? 'contained' : 'outlined'}
            size="large"
            disabled={post.state === 'busy' || (me?.names != null && by === '')}
            onClick={start}
          >
            {fits.length === 0 ? 'Begin the first trial fit' : 'Begin another trial fit'}
          </Button>
          {takenBack.length > 0 && (
            <Box
              component="ul"
              aria-label="Trials taken back"
              sx={{ m: 0, pl: 2, fontSize: '0.9rem', color: 'var(--pencil)' }}
            >
              {takenBack.map((trial) => (
                <li key={trial.id}>
                  <s>
                    Trial of <Moment at={trial.at} />
                  </s>
                  , taken back: {trial.withdrawn!.why}
                </li>
              ))}
            </Box>
          )}
          {fit && (
            <Typography variant="caption" sx={{ color: 'var(--pencil)' }}>
              Begun <Moment at={fit.at} />
              {fit.who === '' ? '' : ` by ${fit.who}`}
              {triedAsItIs(fit, { revision: patternEditor.number, digest })
                ? ''
                : ', on an earlier card'}
              .
            </Typography>
          )}
        </Stack>
      }
    />
  );

  function conditionFor(of: FitRecord | null, e: Edge) {
    const record = of?.edges.find((r) => r.edge === e.id);
    if (!record) return null;
    const process = weldOf(plan, e, facts.thicknessMm)?.process ?? null;
    return edgeFit(record, e.joint, process, thicknessAt(e.id));
  }
}

/** Narrower than this the drawer lies under the drawing (see StopLayout). */
const NARROW = '(max-width: 899px)';

/** With no edge in hand: what to do next, and that a reading has nowhere to go. */
function NoEdgeInHand({ next }: { next: { letter: string; go: () => void } | null }) {
  const lost = useReadingKeys(() => null);
  return (
    <Box>
      <Typography role="status" sx={{ mb: 1 }}>
        {lost
          ? `“${lost}” went nowhere: touch the edge you are reading first.`
          : 'Touch an edge to read its gaps.'}
      </Typography>
      {next && (
        <Button variant="contained" size="large" fullWidth onClick={next.go}>
          Read edge {next.letter}
        </Button>
      )}
    </Box>
  );
}

const grown = (b: { minX: number; minY: number; maxX: number; maxY: number }) => {
  const by = 0.06 * Math.max(b.maxX - b.minX, b.maxY - b.minY);
  return { minX: b.minX - by, minY: b.minY - by, maxX: b.maxX + by, maxY: b.maxY + by };
};
