import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Stack from '@mui/material/Stack';
import Table from '@mui/material/Table';
import TableBody from '@mui/material/TableBody';
import TableCell from '@mui/material/TableCell';
import TableHead from '@mui/material/TableHead';
import TableRow from '@mui/material/TableRow';
import Typography from '@mui/material/Typography';
import { memo, useDeferredValue, useEffect, useRef } from 'react';
import { letterAgain } from '#core/card/edit';
import { emptyPattern } from '#core/card/emptyPattern';
import { mirrored } from '#core/card/mirror';
import { byLetter, edgeLength } from '#core/card/outline';
import type { PatternDoc } from '#core/card/pattern';
import type { Pick } from '../drawing/pick';
import { usePreferences } from '../frame/preferences';
import { JOINT_WORDS } from '../frame/words';
import { useCures } from './useCures';
import { Notices } from '../piece/Notices';
import { usePick, usePiece } from '../piece/pieceContext';
import { BeadPanel } from './panels/BeadPanel';
import { CornerPanel } from './panels/CornerPanel';
import { EdgePanel } from './panels/EdgePanel';
import { FoldPanel } from './panels/FoldPanel';
import { FoldPanelInHand, InsidePanel, PlaceRow } from './panels/HandPanel';
import { HolePanel } from './panels/HolePanel';
import { MarkList } from './panels/ScribeLineList';
import { ReadOff } from './panels/ReadOff';
import { Relatives } from './panels/Relatives';
import { RulePanel } from './rules/RulePanel';
import { Ruling } from './rules/Ruling';
import { TuckList } from './panels/TuckList';
import type { Hand } from './hand/hand';
import type { Doing } from './hand/useHand';

/** What the picked thing says at the card stage; with nothing picked, the card as a whole. */
export function CardDrawer({ hand, doing }: { hand: Hand | null; doing: Doing }) {
  const { pattern, problems } = usePiece();
  const { pick } = usePick();
  const cureOf = useCures();
  // What is newly picked is told from its top: a fault and its cure stand there.
  const top = useRef<HTMLDivElement>(null);
  const picked = pick ? `${pick.kind} ${pick.id}` : '';
  useEffect(() => {
    const drawer = top.current?.closest('aside');
    if (picked && drawer) drawer.scrollTop = 0;
  }, [picked]);
  const edge = pick?.kind === 'edge' ? pattern.edges.find((e) => e.id === pick.id) : undefined;
  const fold = pick?.kind === 'fold' ? pattern.folds.find((f) => f.id === pick.id) : undefined;
  const hole = pick?.kind === 'hole' ? pattern.holes.find((h) => h.id === pick.id) : undefined;
  const bead = pick?.kind === 'bead' ? pattern.beads.find((b) => b.id === pick.id) : undefined;
  const corner =
    pick?.kind === 'corner' ? pattern.corners.find((c) => c.id === pick.id) : undefined;
  return (
    <Stack ref={top} spacing={2}>
      <Notices problems={problems} cureOf={cureOf} />
      {hand?.kind === 'fold' && <FoldPanelInHand hand={hand} doing={doing} />}
      {hand?.kind === 'inside' && <InsidePanel hand={hand} doing={doing} />}
      {hand?.kind === 'rule' && <RulePanel parts={hand.parts} doing={doing} />}
      {edge && (
        <EdgePanel
          key={edge.id}
          edge={edge}
          touched={hand?.kind === 'place'}
          place={<PlaceRow edgeId={edge.id} hand={hand} doing={doing} />}
        />
      )}
      {fold && <FoldPanel key={fold.id} fold={fold} />}
      {hole && <HolePanel key={hole.id} hole={hole} />}
      {bead && <BeadPanel key={bead.id} bead={bead} />}
      {corner && <CornerPanel key={corner.id} corner={corner} doing={doing} />}
      {!edge && !fold && !hole && !corner && !bead && (hand === null || hand.kind === 'place') && (
        <WholeCard doing={doing} />
      )}
    </Stack>
  );
}

function WholeCard({ doing }: { doing: Doing }) {
  const { patternEditor, meets, pattern } = usePiece();
  const { setPick } = usePick();
  const { show } = usePreferences();
  // While a corner is dragged the table may lag; the drawing must not.
  const settled = useDeferredValue(pattern);
  return (
    <>
      <Box>
        <Typography variant="h2">The card</Typography>
        <Typography variant="body2" sx={{ color: 'var(--pencil)' }}>
          Touch an edge, a corner or the inside: what can be done there is offered. Corners and
          holes are dragged. The plumb-bob hangs from the datum corner.
        </Typography>
      </Box>
      {pattern.tucks.length > 0 && <TuckList pattern={pattern} />}
      {pattern.marks.length > 0 && <MarkList pattern={pattern} />}
      <Ruling pattern={settled} onRule={() => doing.take({ kind: 'rule', parts: [] })} />
      <EdgeTable pattern={settled} meets={meets} show={show} onPick={setPick} />
      <Relatives />
      <ReadOff />
      <Stack direction="row" spacing={1} useFlexGap sx={{ flexWrap: 'wrap' }}>
        <Button variant="outlined" onClick={() => patternEditor.edit(mirrored(pattern))}>
          Turn the card over
        </Button>
        <Button variant="outlined" onClick={() => patternEditor.edit(letterAgain(pattern))}>
          Letter edges again
        </Button>
        <Button
          variant="outlined"
          onClick={() => patternEditor.edit({ ...emptyPattern(), turned: pattern.turned })}
        >
          Start the card over
        </Button>
      </Stack>
    </>
  );
}

type EdgeTableProps = {
  pattern: PatternDoc;
  meets: (edge: string) => string;
  show: (mm: number) => string;
  onPick: (pick: Pick) => void;
};

const EdgeTable = memo(function EdgeTable({ pattern, meets, show, onPick }: EdgeTableProps) {
  const edges = byLetter(pattern.edges);
  return (
    <>
      <Table size="small" aria-label="Edges">
        <TableHead>
          <TableRow>
            <TableCell>Edge</TableCell>
            <TableCell align="right">Length</TableCell>
            <TableCell>Joint</TableCell>
          </TableRow>
        </TableHead>
        <TableBody>
          {edges.slice(0, 60).map((edge) => (
            <TableRow
              key={edge.id}
              hover
              onClick={() => onPick({ kind: 'edge', id: edge.id })}
              sx={{ cursor: 'pointer' }}
            >
              <TableCell
                className="condensed"
                sx={{ fontSize: '1.1rem !important', fontWeight: 600 }}
              >
                {edge.letter}
              </TableCell>
              <TableCell align="right" className="figure">
                {show(edgeLength(pattern, edge))}
              </TableCell>
              <TableCell>
                {JOINT_WORDS[edge.joint.kind]}
                <Box sx={{ color: 'var(--pencil)', fontSize: '0.85rem' }}>{meets(edge.id)}</Box>
              </TableCell>
            </TableRow>
          ))}
        </TableBody>
      </Table>
      {edges.length > 60 && (
        <Typography variant="caption">
          and {edges.length - 60} more: touch them on the drawing.
        </Typography>
      )}
    </>
  );
});
