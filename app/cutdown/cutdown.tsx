import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Stack from '@mui/material/Stack';
import Typography from '@mui/material/Typography';
import { useState } from 'react';
import { Link, Navigate } from 'react-router';
import { byLetter, edgeLength, outlineOf } from '#core/card/outline';
import { hoursOfFaults, medianMm, openOf } from '#core/cutdown/progress';
import { box, perimeter } from '#core/measure/path';
import { Drawing } from '../drawing/Drawing';
import { SelfSavedWord } from '../forms/SelfSavedWord';
import { FoldAway } from '../frame/FoldAway';
import { StopLayout } from '../frame/StopLayout';
import type { TallyFigure } from '../frame/Tally';
import { usePreferences } from '../frame/preferences';
import { JOINT_WORDS } from '../frame/words';
import { EdgeStory } from '../piece/EdgeStory';
import { JointFields } from '../joint/JointFields';
import { openSaid } from '../piece/road/cutdown';
import { usePick, usePiece } from '../piece/pieceContext';
import { CutDownPicture } from './CutDownPicture';
import { Faults } from './Faults';
import { Micrometer } from './Micrometer';
import { NameEdges } from './NameEdges';
import { Receive } from './Receive';
import { Works } from './Works';
import { useCutDown } from './useCutDown';

/**
 * The stop of a piece that was not made here: its edges by name and length, what is wrong with it,
 * and what brings it to size.
 */
export default function CutDownStage() {
  const { id, pattern, meets, facts } = usePiece();
  const { pick, setPick } = usePick();
  const { show, showThin } = usePreferences();
  const saved = useCutDown();
  const [naming, setNaming] = useState(false);
  const cutDown = saved.draft;
  if (facts.kind === 'made') return <Navigate replace to={`/pieces/${id}/card`} />;
  if (pattern.sides.length === 0 || naming) return <NameEdges onDone={() => setNaming(false)} />;
  const edge = pick?.kind === 'edge' ? pattern.edges.find((e) => e.id === pick.id) : undefined;
  const open = openOf(facts.kind, cutDown, pattern.edges.length);
  const wrong = cutDown.faults.filter(({ mendedAt }) => mendedAt === null).length;
  const done = cutDown.works.filter(({ doneAt }) => doneAt !== null).length;
  const metalMm = medianMm(cutDown.readingsMm);
  const hours = hoursOfFaults(cutDown);
  const tally: TallyFigure[] = [
    {
      label: 'Round the edges',
      value: show(perimeter(outlineOf(pattern).path)),
    },
    {
      label: 'Metal',
      value: metalMm === null ? 'not read' : showThin(metalMm),
      alert: metalMm === null,
      working: {
        title: 'Thickness of its metal',
        lines: [
          'The middle one of the micrometer readings: one over a blister or a pit',
          'does not move it.',
        ],
        source: 'Micrometer, paint off',
      },
    },
    { label: 'Faults open', value: String(wrong), alert: wrong > 0 },
    { label: 'Done', value: `${done} of ${cutDown.works.length}` },
    ...(hours === null ? [] : [{ label: 'Putting right took', value: `${hours} h` }]),
  ];
  return (
    <StopLayout
      drawerWidth={430}
      tally={tally}
      drawing={
        <Drawing
          bounds={grown(box(outlineOf(pattern).path))}
          ground="fit"
          label="The piece and its edges"
          onGround={() => setPick(null)}
        >
          <CutDownPicture
            pattern={pattern}
            meets={meets}
            wrongAt={
              new Set(
                cutDown.faults.flatMap((f) => (f.mendedAt === null && f.edge ? [f.edge] : [])),
              )
            }
            pick={pick}
            onPick={setPick}
          />
        </Drawing>
      }
      drawer={
        <Stack spacing={2}>
          <SelfSavedWord {...saved} />
          {edge ? (
            <>
              <Box sx={{ display: 'flex', alignItems: 'baseline', gap: 1 }}>
                <Typography variant="h2">Edge {edge.letter}</Typography>
                <Typography className="figure">{show(edgeLength(pattern, edge))}</Typography>
                <Button
                  color="inherit"
                  size="small"
                  sx={{ ml: 'auto' }}
                  onClick={() => setPick(null)}
                >
                  All of it
                </Button>
              </Box>
              <JointFields edge={edge} />
              <EdgeStory edgeId={edge.id} />
            </>
          ) : (
            <>
              <Todo said={open.map(openSaid)} />
              {facts.kind === 'bought' && (
                <Receive
                  received={cutDown.received}
                  onChange={(received) => saved.set({ received })}
                />
              )}
              <Micrometer
                readingsMm={cutDown.readingsMm}
                onChange={(readingsMm) => saved.set({ readingsMm })}
              />
              <Faults faults={cutDown.faults} onChange={(faults) => saved.set({ faults })} />
              <Works works={cutDown.works} onChange={(works) => saved.set({ works })} />
            </>
          )}
          <FoldAway
            key={edge ? 'edge' : 'all'}
            title={`Its ${pattern.edges.length} edges`}
            open={!edge}
          >
            <Stack spacing={0.6}>
              {byLetter(pattern.edges).map((one) => (
                <EdgeButton
                  key={one.id}
                  letter={one.letter}
                  length={show(edgeLength(pattern, one))}
                  said={[meets(one.id), JOINT_WORDS[one.joint.kind]].filter(Boolean).join(' · ')}
                  on={one === edge}
                  onPick={() => setPick({ kind: 'edge', id: one.id })}
                />
              ))}
              {pattern.source === 'lengths' && (
                <Typography variant="body2" sx={{ color: 'var(--pencil)', pt: 0.6 }}>
                  Its angles and curves are not known: the drawing shows where each edge is, no
                  shape to cut by.
                </Typography>
              )}
              {pattern.source === 'lengths' ? (
                <Stack direction="row" spacing={1} useFlexGap sx={{ pt: 1, flexWrap: 'wrap' }}>
                  <Button variant="outlined" onClick={() => setNaming(true)}>
                    Measure them again
                  </Button>
                  <Button color="inherit" component={Link} to={`/pieces/${id}/card`}>
                    Draw its card
                  </Button>
                </Stack>
              ) : (
                <Button
                  color="inherit"
                  component={Link}
                  to={`/pieces/${id}/card`}
                  sx={{ alignSelf: 'start' }}
                >
                  Its card
                </Button>
              )}
            </Stack>
          </FoldAway>
        </Stack>
      }
    />
  );
}

const grown = (b: { minX: number; minY: number; maxX: number; maxY: number }) => {
  const by = 0.1 * Math.max(b.maxX - b.minX, b.maxY - b.minY);
  return { minX: b.minX - by, minY: b.minY - by, maxX: b.maxX + by, maxY: b.maxY + by };
};

/** What stands between the piece and its first trial; where nothing does, the way there. */
function Todo({ said }: { said: string[] }) {
  const { id } = usePiece();
  if (said.length === 0)
    return (
      <Button variant="contained" size="large" component={Link} to={`/pieces/${id}/fit`}>
        It is to size: try it in its place
      </Button>
    );
  return (
    <Box
      component="section"
      aria-label="Before it is tried"
      sx={{ borderLeft: '5px solid var(--torch)', pl: 1.4 }}
    >
      <Typography variant="h3">Before it is tried</Typography>
      <Box component="ul" sx={{ m: 0, pl: 2.2 }}>
        {said.map((line) => (
          <li key={line}>{line}</li>
        ))}
      </Box>
    </Box>
  );
}

function EdgeButton(given: {
  letter: string;
  length: string;
  said: string;
  on: boolean;
  onPick: () => void;
}) {
  const { letter, length, said, on, onPick } = given;
  return (
    <Button
      color="inherit"
      aria-pressed={on}
      onClick={onPick}
      sx={{
        justifyContent: 'start',
        textAlign: 'left',
        gap: 1.2,
        minHeight: 48,
        textTransform: 'none',
        borderLeft: '4px solid',
        borderLeftColor: on ? 'var(--torch)' : 'var(--rule)',
        borderRadius: 0,
        bgcolor: 'var(--panel)',
      }}
    >
      <b className="condensed" style={{ fontSize: '1.2rem', minWidth: '1.4em' }}>
        {letter}
      </b>
      <span className="figure" style={{ minWidth: '5.5em' }}>
        {length}
      </span>
      <Box component="span" sx={{ color: 'var(--pencil)', fontWeight: 400, lineHeight: 1.2 }}>
        {said}
      </Box>
    </Button>
  );
}
