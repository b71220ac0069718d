import Box from '@mui/material/Box';
import { edgeLength } from '#core/card/outline';
import { isOfEdge } from '#core/card/recordPlace';
import { edgeFit } from '#core/fit/gapRemedy';
import { edgeConditionOf } from '#core/fit/gapCondition';
import { weldOf } from '#core/weld/planned';
import { usePreferences } from '../frame/preferences';
import { JOINT_WORDS, PROCESS_WORDS, conditionSentence } from '../frame/words';
import { PiecePictures } from './PiecePictures';
import { usePiece } from './pieceContext';
import { useAllRecords } from './useAllRecords';

/**
 * The whole life of an edge in a few lines: what it meets, what it adds, how it lay, how it was
 * welded.
 */
export function EdgeStory({ edgeId, still = false }: { edgeId: string; still?: boolean }) {
  const { joined, meets: meetsHere, facts, development, fits } = usePiece();
  const { pattern, plan } = joined;
  const thicknessMm = joined.thicknessAt(edgeId);
  const { fit: last, welds, inspections } = useAllRecords();
  const { show } = usePreferences();
  const edge = pattern.edges.find((e) => e.id === edgeId);
  if (!edge) return null;
  const blank = development.ok
    ? development.development.edges.find((e) => e.id === edgeId)
    : undefined;
  const lastRead = (id: string) =>
    [...fits]
      .reverse()
      .flatMap((f) =>
        f.edges.filter((e) => e.edge === id && e.stations.some((s) => s.gapMm !== null)),
      )[0];
  // As it was read last, on this page or beyond the joint.
  const fit =
    last?.edges.find((e) => e.edge === edgeId && e.stations.some((s) => s.gapMm !== null)) ??
    lastRead(edgeId);
  const planned = weldOf(plan, edge, facts.thicknessMm);
  const meets = meetsHere(edge.id);
  const lie = fit && edgeFit(fit, edge.joint, planned?.process ?? null, thicknessMm);
  const own = (record: { edge: string; withdrawn: unknown }) =>
    !record.withdrawn && isOfEdge(pattern, record.edge, edge);
  const done = welds.filter(own);
  const seen = inspections.filter(own);
  const open = seen.filter((i) => !i.sound && i.remedy.trim() === '').length;
  const lines: [string, string][] = [
    [
      'Card',
      `${show(edgeLength(pattern, edge))}, ${JOINT_WORDS[edge.joint.kind].toLowerCase()}${meets ? ` to ${meets}` : ''}`,
    ],
    [
      'Blank',
      blank
        ? blank.allowance.addMm > 0
          ? `${show(blank.allowance.addMm)} added`
          : 'cut to the line'
        : 'no blank yet',
    ],
    ['Fit', lie ? conditionSentence(lie, show) : 'not read yet'],
    [
      'Weld',
      done.length > 0
        ? `${done.length} ${done.length === 1 ? 'entry' : 'entries'}, last ${PROCESS_WORDS[done[done.length - 1]!.process]} by ${done[done.length - 1]!.who || 'someone'}`
        : planned
          ? `${PROCESS_WORDS[planned.process]}, not welded yet`
          : 'not joined',
    ],
    [
      'Seen',
      seen.length === 0
        ? 'not inspected yet'
        : open > 0
          ? `${open} of ${seen.length} still to put right`
          : `${seen.length} looked at, all put right`,
    ],
  ];
  for (const old of edge.was ?? []) {
    // What was read along an edge that was taken in is told against what was wanted there at the
    // time.
    const record = lastRead(old.id);
    const read = record
      ? `; read as ${old.letter}: ${conditionSentence({ ...edgeConditionOf(record.stations, { ...record, gapMm: record.targetMm }), remedy: null, longMm: null }, show)}`
      : '';
    lines.push(['Was', `made one with ${old.letter}${read}`]);
  }
  return (
    <>
      <Box
        component="dl"
        aria-label={`The story of edge ${edge.letter}`}
        sx={{
          m: 0,
          display: 'grid',
          gridTemplateColumns: '52px 1fr',
          columnGap: 1.2,
          rowGap: 0.4,
          fontSize: '0.95rem',
          borderLeft: '3px solid var(--rule)',
          pl: 1.2,
        }}
      >
        {lines.map(([stage, said]) => (
          <Box key={stage} sx={{ display: 'contents' }}>
            <Box
              component="dt"
              className="condensed"
              sx={{ color: 'var(--pencil)', fontWeight: 600 }}
            >
              {stage}
            </Box>
            <Box component="dd" sx={{ m: 0 }}>
              {said}
            </Box>
          </Box>
        ))}
      </Box>
      <PiecePictures
        owner="edge"
        of={edgeId}
        title={`Pictures of edge ${edge.letter}`}
        small
        still={still}
      />
    </>
  );
}
