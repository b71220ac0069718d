import Box from '@mui/material/Box';
import Stack from '@mui/material/Stack';
import Typography from '@mui/material/Typography';
import { useState } from 'react';
import { outlineOf } from '#core/card/outline';
import { edgeOfRecord } from '#core/card/recordPlace';
import { box } from '#core/measure/path';
import { startCurrent } from '#core/weld/start';
import { Drawing } from '../drawing/Drawing';
import { usePost } from '../forms/usePost';
import { StopLayout } from '../frame/StopLayout';
import type { TallyFigure } from '../frame/Tally';
import { Told } from '../frame/Told';
import { usePreferences } from '../frame/preferences';
import { JOINT_WORDS } from '../frame/words';
import { AcrossRecords } from '../joint/AcrossRecords';
import { EdgeStory } from '../piece/EdgeStory';
import { NoBlank } from '../piece/NoBlank';
import { usePick, usePiece } from '../piece/pieceContext';
import { useAllRecords } from '../piece/useAllRecords';
import type { Weld } from '../records/records.server';
import { Cautions } from './Cautions';
import { InspectionPanel } from './InspectionPanel';
import { PlanPanel } from './PlanPanel';
import { WeldEntry } from './WeldEntry';
import { WeldPicture } from '../piece/WeldPicture';
import { WeldRecords } from './WeldRecords';
import { seamProgress, seamsOf } from '#core/weld/seams';

/** The weld stage: for each edge how it is welded, what has been done, and what was seen. */
export default function WeldStage() {
  const { id, joined, meets, facts, took } = usePiece();
  const { pattern, plan } = joined;
  const { welds, inspections } = useAllRecords();
  const { pick, setPick } = usePick();
  const { show } = usePreferences();
  const [anew, setAnew] = useState<Weld | null>(null);
  const edgeOfAnew =
    anew && edgeOfRecord(pattern, { edge: anew.edge, turned: pattern.turned })?.edge.id;
  const post = usePost(`/pieces/${id}/welds`, took);
  if (pattern.sides.length === 0) return <NoBlank />;
  const seams = seamsOf(pattern, plan, facts.thicknessMm, welds);
  const seam = pick?.kind === 'edge' ? seams.find((s) => s.edge.id === pick.id) : undefined;
  const edge = pick?.kind === 'edge' ? pattern.edges.find((e) => e.id === pick.id) : undefined;
  const sum = (of: (s: (typeof seams)[number]) => number) =>
    seams.reduce((total, s) => total + of(s), 0);
  const isMade = (s: (typeof seams)[number]) => seamProgress(s, pattern, welds) === 'made';
  const open = inspections.filter((i) => !i.withdrawn && !i.sound && i.remedy.trim() === '').length;
  const tally: TallyFigure[] = [
    {
      label: 'Left to weld',
      value: `${show(sum((s) => (isMade(s) ? 0 : s.lengthMm)))} of ${show(sum((s) => s.lengthMm))}`,
      working: {
        title: 'Left to weld',
        lines: [
          'Every edge that is joined, less those that are welded:',
          'all plugs made, or a seam run over the tacks.',
        ],
        source: 'The record of this piece',
      },
    },
    {
      label: 'Tacks',
      value: `${sum((s) => s.tacksDone.size)} of ${sum((s) => s.tacks.length)}`,
      working: {
        title: 'Tacks',
        lines: [
          'The fewest that are nowhere farther apart than the',
          'pitch, in the order ends, middle, halves.',
        ],
        source: 'Common practice',
      },
    },
    {
      label: 'Plugs',
      value: `${sum((s) => s.plugsDone.size)} of ${sum((s) => s.plugs.length)}`,
      working: {
        title: 'Plugs',
        lines: [
          'First and last as far from the ends as asked,',
          'the rest even and no farther apart than the pitch.',
        ],
        source: 'Common practice: as the factory spots',
      },
    },
    {
      label: 'Start from about',
      value: `${startCurrent(edge ? joined.thicknessAt(edge.id) : facts.thicknessMm)} A`,
      working: {
        title: 'Current to start from',
        lines: [
          'About 1 A for each thousandth of an inch of the thinner sheet.',
          'Prove it on scrap of the same sheet.',
        ],
        source: 'Common practice',
      },
    },
    { label: 'Findings open', value: String(open), alert: open > 0 },
  ];
  return (
    <StopLayout
      drawerWidth={430}
      tally={tally}
      drawing={
        <Drawing
          bounds={box(outlineOf(pattern).path)}
          ground="fit"
          label="The piece and its welds"
          onGround={() => setPick(null)}
        >
          <WeldPicture seams={seams} pick={pick} onPick={setPick} />
        </Drawing>
      }
      drawer={
        <Stack spacing={2}>
          {!edge && (
            <Box>
              <Typography variant="h2">
                {seams.length > 0 ? 'Touch an edge to weld it' : 'Nothing is joined yet'}
              </Typography>
              <Typography variant="body2" sx={{ color: 'var(--pencil)' }}>
                {seams.length > 0
                  ? 'Tacks are numbered in the order to make them: ends, middle, halves.'
                  : 'Touch an edge on the card and say how it is joined: butt, lap, plug-welded flange …'}
              </Typography>
            </Box>
          )}
          {edge && (
            <Box>
              <Typography variant="h2">
                Edge {edge.letter}: {JOINT_WORDS[edge.joint.kind].toLowerCase()}
              </Typography>
              {edge && meets(edge.id) && (
                <Typography sx={{ color: 'var(--pencil)' }}>to {meets(edge.id)}</Typography>
              )}
            </Box>
          )}
          {edge && <Cautions edge={edge} />}
          {edge && !seam && (
            <Typography>
              {edge.joint.kind === 'free' || edge.joint.kind === 'hem'
                ? 'This edge is not welded to anything. Change its joint on the card if it should be.'
                : ''}
            </Typography>
          )}
          {edge && <PlanPanel key={edge.id} edge={edge} seam={seam} />}
          {seam && (
            <WeldEntry
              key={`entry ${seam.edge.id} ${anew?.id ?? ''}`}
              seam={seam}
              post={post}
              anew={anew && edgeOfAnew === seam.edge.id ? anew : null}
              onDone={() => setAnew(null)}
            />
          )}
          {seam && <InspectionPanel key={`look ${seam.edge.id}`} edge={seam.edge} post={post} />}
          {post.problem && <Told>{post.problem}</Told>}
          <WeldRecords
            edge={edge?.id ?? null}
            post={post}
            onAnew={(weld) => {
              const on = edgeOfRecord(pattern, { edge: weld.edge, turned: pattern.turned });
              if (on) setPick({ kind: 'edge', id: on.edge.id });
              setAnew(weld);
            }}
          />
          {edge && <AcrossRecords edge={edge.id} />}
          {edge && <EdgeStory edgeId={edge.id} />}
        </Stack>
      }
    />
  );
}
