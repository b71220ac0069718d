import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Stack from '@mui/material/Stack';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import { useState } from 'react';
import type { Development } from '#core/blank/fold/developed';
import { cut } from '#core/card/cut';
import { mapOf } from '#core/card/crownStands';
import { outlineOf } from '#core/card/outline';
import { box } from '#core/measure/path';
import { brokenIn } from '#core/shape/shapeOrder';
import { inOwnOrder, uncounted, workedSeconds } from '#core/shape/shaping';
import type { ShapeStep } from '#core/shape/shapeStep';
import { Drawing } from '../drawing/Drawing';
import { SelfSavedWord } from '../forms/SelfSavedWord';
import { StopLayout } from '../frame/StopLayout';
import type { TallyFigure } from '../frame/Tally';
import { NoBlank } from '../piece/NoBlank';
import { PiecePictures } from '../piece/PiecePictures';
import { COUNT_WORDS } from '../piece/stepWords';
import { useFoundOrder } from '../folding/useFoundOrder';
import { usePiece } from '../piece/pieceContext';
import { stepsOf } from '../piece/loaded/shapeSteps';
import { ItWentWrong } from './ItWentWrong';
import type { TrackLook } from './RaisingTracks';
import { RaisingTracks, tracksOf } from './RaisingTracks';
import { ShapePicture } from './ShapePicture';
import { StepList } from './StepList';
import { CrownLink } from '../piece/CrownLink';
import { StepNow, clock } from './StepNow';
import { StripGaps } from './StripGaps';
import { TestReadings } from './TestReadings';
import { usePace } from './usePace';
import { useShaping } from './useShaping';

const SMOOTHING = { tool: 'smooth', round: 1 } as const;

const bring = (id: string) =>
  document.getElementById(id)?.scrollIntoView({ block: 'nearest', behavior: 'smooth' });

/** The shape stop: the working order with its reasons, done one step at a time. */
export default function ShapeStage() {
  const { development } = usePiece();
  return development.ok ? <Shape development={development.development} /> : <NoBlank />;
}

function Shape({ development }: { development: Development }) {
  const piece = usePiece();
  const { pattern, folding, from } = piece;
  const found = useFoundOrder(development);
  const reckoned = found
    ? stepsOf({
        ...piece,
        meets: (edge) => piece.meets(edge) !== '',
        thicknessMm: piece.facts.thicknessMm,
        found,
      })
    : piece.steps;
  const shaped = useShaping();
  const { shaping, saved, workOn, setWork, setOrder, setOwn } = shaped;
  const keepPace = usePace();
  const [chosen, choose] = useState<string | null>(null);
  const own = shaping.own.map(({ key, text }): ShapeStep => ({
    key,
    what: 'own',
    about: [],
    reason: text,
    figures: {},
    counts: null,
  }));
  // The other side is done as the first one was, where nobody has said otherwise.
  const first = from?.as === 'other-side' ? from.shaping : null;
  const steps = inOwnOrder([...reckoned, ...own], shaping.order ?? first?.order ?? null);
  const broken = brokenIn(steps, folding.turnedAfter);
  const next = steps.find(({ key }) => !workOn(key).done) ?? null;
  const looked = steps.find(({ key }) => key === chosen) ?? next ?? steps.at(-1) ?? null;
  const done = steps.filter(({ key }) => workOn(key).done).length;
  const [now] = useState(() => Date.now());
  const seconds = steps.reduce((sum, { key }) => sum + workedSeconds(workOn(key), now), 0);
  const tally: TallyFigure[] = [
    { label: 'Steps', value: `${done} of ${steps.length}` },
    { label: 'Time so far', value: clock(seconds) },
    ...(first
      ? [
          {
            label: 'The first side took',
            value: clock(Object.values(first.work).reduce((sum, work) => sum + work.seconds, 0)),
          },
        ]
      : []),
    {
      label: 'Order',
      value: broken.length > 0 ? `${broken.length} to look at` : 'Keeps the rules',
      alert: broken.length > 0,
    },
  ];
  const [trackLook, setTrackLook] = useState<TrackLook>({ tool: 'map', round: 1 });
  const map = mapOf(pattern);
  // A card laid flat before tracks were kept has none: laid anew it has.
  const tracks =
    map && map.tracks.length > 0 && (looked?.what === 'raise' || looked?.what === 'smooth')
      ? map.tracks
      : null;
  const missing = (step: ShapeStep) => uncounted(workOn(step.key), step.counts?.wanted ?? null);
  const finish = (step: ShapeStep, counted?: number) => {
    const at = Date.now();
    const work = workOn(step.key);
    const seconds = workedSeconds(work, at);
    setWork(step.key, {
      done: new Date(at).toISOString(),
      since: null,
      seconds,
      as: step.figures,
      ...(counted !== undefined && { count: counted }),
    });
    keepPace(step, seconds);
    choose(null);
    bring('shape-now');
  };
  const look = (key: string) => {
    choose(key);
    bring('shape-now');
  };
  const checked =
    looked?.what === 'check'
      ? pattern.profiles.find(({ id: one }) => one === looked.about[0])
      : undefined;
  return (
    <StopLayout
      drawerWidth={440}
      tally={tally}
      drawing={
        <Drawing
          bounds={box(outlineOf(pattern).path)}
          ground="blank"
          label="The piece in work"
          overlay={null}
        >
          <ShapePicture
            step={looked}
            tracks={tracks && tracksOf(tracks, looked!.what === 'smooth' ? SMOOTHING : trackLook)}
          />
        </Drawing>
      }
      drawer={
        <Stack spacing={1.8} component="section" aria-label="Working order">
          <SelfSavedWord {...saved} />
          <Box id="shape-now" />
          {looked && (
            <StepNow
              key={looked.key}
              step={looked}
              place={`${steps.indexOf(looked) + 1} of ${steps.length}`}
              now={looked === next}
              work={workOn(looked.key)}
              setWork={(change) => setWork(looked.key, change)}
              first={first?.work[looked.key] ?? null}
            />
          )}
          {looked?.what === 'raise' && tracks && (
            <RaisingTracks tracks={tracks} look={trackLook} onLook={setTrackLook} />
          )}
          {looked && ['raise', 'smooth', 'strain'].includes(looked.what) && <CrownLink />}
          {checked && looked && (
            <StripGaps
              key={`gaps ${looked.key}`}
              profile={checked}
              work={workOn(looked.key)}
              setWork={(change) => setWork(looked.key, change)}
            />
          )}
          {looked && (
            <TestReadings key={`test ${looked.key}`} step={looked} onKept={() => choose(null)} />
          )}
          {looked?.what === 'strain' && (
            <ItWentWrong
              key={`wrong ${looked.key}`}
              step={looked}
              count={workOn(looked.key).count}
            />
          )}
          {looked && (
            <Box
              sx={{
                display: 'flex',
                gap: 1,
                position: 'sticky',
                bottom: -16,
                zIndex: 2,
                bgcolor: 'var(--panel)',
                pt: 1,
                pb: 3,
                mx: -2,
                px: 2,
                borderTop: { xs: '1.5px solid var(--rule)', md: 0 },
              }}
            >
              {workOn(looked.key).done ? (
                <Button
                  variant="outlined"
                  size="large"
                  sx={{ flex: 1, minHeight: 56 }}
                  onClick={() => setWork(looked.key, { done: null })}
                >
                  Not done after all
                </Button>
              ) : missing(looked) === 0 ? (
                <Button
                  variant="contained"
                  size="large"
                  sx={{ flex: 1, minHeight: 56, fontSize: '1.15rem' }}
                  onClick={() => finish(looked)}
                >
                  {looked === next ? 'Done, next' : 'This one is done'}
                </Button>
              ) : (
                <Uncounted
                  step={looked}
                  count={workOn(looked.key).count}
                  onAll={() => finish(looked, looked.counts!.wanted!)}
                  onSo={() => finish(looked)}
                />
              )}
              {looked !== next && next && (
                <Button variant="outlined" size="large" onClick={() => look(next.key)}>
                  To what is next
                </Button>
              )}
            </Box>
          )}
          <Typography variant="h3">All of it</Typography>
          <StepList
            steps={steps}
            broken={broken}
            workOn={workOn}
            looked={looked?.key ?? null}
            next={next?.key ?? null}
            look={look}
            move={setOrder}
          />
          {shaping.order && (
            <Button variant="outlined" onClick={() => setOrder(null)}>
              Back to the order that was reckoned
            </Button>
          )}
          <OwnStep
            onAdd={(text) => {
              const key = `own ${crypto.randomUUID().slice(0, 8)}`;
              setOwn([...shaping.own, { key, text }]);
              setOrder([...steps.map((step) => step.key), key]);
            }}
          />
          {looked?.what === 'own' && (
            <Button
              color="inherit"
              onClick={() => {
                setOwn(shaping.own.filter(({ key }) => key !== looked.key));
                choose(null);
              }}
            >
              Take the step “{looked.reason}” out
            </Button>
          )}
          <PiecePictures owner="piece" title="Pictures of the piece" small />
        </Stack>
      }
    />
  );
}

/** A step of one's own, put in at the end and moved from there. */
function OwnStep({ onAdd }: { onAdd: (text: string) => void }) {
  const [text, setText] = useState('');
  const add = () => {
    if (text.trim() === '') return;
    onAdd(text.trim());
    setText('');
  };
  return (
    <Box sx={{ display: 'flex', gap: 1, alignItems: 'flex-end' }}>
      <TextField
        label="A step of your own"
        value={text}
        fullWidth
        slotProps={{ htmlInput: { maxLength: 300 } }}
        onChange={(event) => setText(cut(event.target.value, 300))}
        onKeyDown={(event) => event.key === 'Enter' && add()}
        placeholder="Planish the middle, anneal the rim …"
      />
      <Button variant="outlined" sx={{ flexShrink: 0 }} disabled={text.trim() === ''} onClick={add}>
        Put it in
      </Button>
    </Box>
  );
}

/** What ends a step of which less was counted than planned: all of it made, or done with what was. */
function Uncounted({
  step,
  count,
  onAll,
  onSo,
}: {
  step: ShapeStep;
  count: number;
  onAll: () => void;
  onSo: () => void;
}) {
  const { of, wanted } = step.counts!;
  const many = COUNT_WORDS[of][1];
  return (
    <Box sx={{ flex: 1, display: 'grid', gridTemplateColumns: '1fr 1fr', gap: 1 }}>
      <Button variant="contained" size="large" sx={{ minHeight: 56 }} onClick={onAll}>
        All {wanted} {many} made
      </Button>
      <Button variant="outlined" size="large" sx={{ minHeight: 56 }} onClick={onSo}>
        Done with {count}
      </Button>
    </Box>
  );
}
