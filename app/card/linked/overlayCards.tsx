import Box from '@mui/material/Box';
import Stack from '@mui/material/Stack';
import Table from '@mui/material/Table';
import TableBody from '@mui/material/TableBody';
import TableCell from '@mui/material/TableCell';
import TableHead from '@mui/material/TableHead';
import TableRow from '@mui/material/TableRow';
import ToggleButton from '@mui/material/ToggleButton';
import ToggleButtonGroup from '@mui/material/ToggleButtonGroup';
import Typography from '@mui/material/Typography';
import { Link, data, useSearchParams } from 'react-router';
import type { LaidOver } from '#core/card/link/laidOver';
import { byLetter, outlineOf, segmentsOfEdge } from '#core/card/outline';
import type { PatternDoc } from '#core/card/pattern';
import type { PieceFacts } from '#core/format/job';
import { box, boxOf } from '#core/measure/path';
import { CardPicture } from '../../drawing/CardPicture';
import { Drawing } from '../../drawing/Drawing';
import { Figure, usePathData } from '../../drawing/marks';
import { Choice } from '../../forms/Choice';
import { StopLayout } from '../../frame/StopLayout';
import { Told } from '../../frame/Told';
import { unlessAway, useLast } from '../../frame/whileAway';
import { usePreferences } from '../../frame/preferences';
import { usePiece } from '../../piece/pieceContext';
import type { Others } from '../../records/linked.server';
import { othersOf } from '../../records/linked.server';
import { idOr404 } from '../../records/parse.server';
import { viewerIn } from '../../records/viewer.server';
import type { Route } from './+types/overlayCards';
import { TOLD_APART_MM } from './SideBySide';
import { useLaidOver } from './useLaidOver';

export async function loader({ params, request, context }: Route.LoaderArgs): Promise<Others> {
  const chosen = new URL(request.url).searchParams.get('on');
  const found = await othersOf(context.get(viewerIn), idOr404(params.pieceId), chosen);
  if (!found) throw data(null, { status: 404 });
  return found;
}

export const clientLoader = ({ serverLoader }: Route.ClientLoaderArgs) => unlessAway(serverLoader);

/** Pieces of a left and a right one are turned over onto each other, until it is said. */
const facing = (a: PieceFacts['side'], b: PieceFacts['side']) =>
  (a === 'left' && b === 'right') || (a === 'right' && b === 'left');

/**
 * Any other card of the job laid on this one, whoever made it and however it was drawn: what
 * differs, edge by edge.
 */
export default function OverPage({ loaderData }: Route.ComponentProps) {
  const { others, chosen } = useLast(loaderData) ?? { others: [], chosen: null };
  const { id, facts, pattern } = usePiece();
  const [query, setQuery] = useSearchParams();
  const over = query.get('over');
  const turnedOver =
    over === null ? chosen !== null && facing(facts.side, chosen.side) : over === 'yes';
  const found = useLaidOver(pattern, chosen?.doc ?? null, turnedOver);
  const laid = found === 'laying' || found === 'failed' ? null : found;
  const change = (by: Record<string, string>) =>
    setQuery((now) => new URLSearchParams({ ...Object.fromEntries(now), ...by }), {
      replace: true,
      preventScrollReset: true,
    });
  return (
    <StopLayout
      drawerWidth={400}
      tally={[]}
      drawing={<Over name={facts.name} pattern={pattern} laid={laid} />}
      drawer={
        <Stack spacing={2}>
          <Box>
            <Typography variant="h2">Another card on this one</Typography>
            <Typography variant="body2" sx={{ color: 'var(--pencil)' }}>
              Laid as nearly as it will lie, turned and shoved, never stretched: what is the same
              lies on itself, and what differs stands out. Neither card is changed.
            </Typography>
          </Box>
          {pattern.sides.length === 0 && <Told>{facts.name} has no outline yet.</Told>}
          {others.length === 0 ? (
            <Typography>There is no other piece in this job.</Typography>
          ) : (
            <Choice
              label="The card that is laid on it"
              value={chosen?.id ?? ''}
              options={[
                ...(chosen ? [] : [['', 'Choose a piece'] as const]),
                ...others.map(({ id, name }) => [id, name] as const),
              ]}
              onChange={(on) => on && change({ on })}
            />
          )}
          {chosen && (
            <ToggleButtonGroup
              exclusive
              value={turnedOver}
              aria-label="How it is laid"
              onChange={(_, next: boolean | null) =>
                next !== null && change({ over: next ? 'yes' : 'no' })
              }
            >
              <ToggleButton value={false}>As it is</ToggleButton>
              <ToggleButton value={true}>Turned over</ToggleButton>
            </ToggleButtonGroup>
          )}
          {chosen && chosen.doc.sides.length === 0 && (
            <Told>{chosen.name} has no outline yet.</Told>
          )}
          {found === 'failed' && (
            <Told>It could not be laid on: what does that stopped. Load the page again.</Told>
          )}
          {found === 'laying' && <Typography role="status">Laying it on …</Typography>}
          {chosen && laid && <Apart pattern={pattern} laid={laid} name={chosen.name} />}
          <Typography component={Link} to={`/pieces/${id}/card`} sx={{ color: 'var(--ink)' }}>
            Back to the card
          </Typography>
        </Stack>
      }
    />
  );
}

/** Edges by how far they lie apart, in the order of their letters. */
function Apart({ pattern, laid, name }: { pattern: PatternDoc; laid: LaidOver; name: string }) {
  const { show } = usePreferences();
  const apart = new Map(laid.apart.map(({ edge, mm }) => [edge, mm]));
  return (
    <Box>
      <Typography>
        The two outlines lie <span className="figure">{show(laid.meanMm)}</span> apart on the
        average. Dotted: {name}. + is where this card lies farther out, at the place where that is
        most.
      </Typography>
      <Table size="small" aria-label="How far the edges lie apart">
        <TableHead>
          <TableRow>
            <TableCell>Edge</TableCell>
            <TableCell align="right">Farther out</TableCell>
          </TableRow>
        </TableHead>
        <TableBody>
          {byLetter(pattern.edges).map(({ id, letter }) => (
            <TableRow key={id}>
              <TableCell
                className="condensed"
                sx={{ fontSize: '1.1rem !important', fontWeight: 600 }}
              >
                {letter}
              </TableCell>
              <TableCell align="right" className="figure">
                {said(apart.get(id), show)}
              </TableCell>
            </TableRow>
          ))}
        </TableBody>
      </Table>
    </Box>
  );
}

const said = (mm: number | undefined, show: (mm: number) => string): string =>
  mm === undefined
    ? 'nothing beside it'
    : Math.abs(mm) <= TOLD_APART_MM
      ? 'on it'
      : `${mm < 0 ? '−' : '+'}${show(Math.abs(mm))}`;

function Over({
  name,
  pattern,
  laid,
}: {
  name: string;
  pattern: PatternDoc;
  laid: LaidOver | null;
}) {
  const own = outlineOf(pattern).path;
  const all = [own, laid?.path ?? []].filter((path) => path.length > 0).map((path) => box(path));
  const bounds = boxOf(all.flatMap((b) => [[b.minX, b.minY] as const, [b.maxX, b.maxY] as const]));
  return (
    <Drawing
      bounds={all.length > 0 ? bounds : { minX: 0, minY: 0, maxX: 400, maxY: 300 }}
      ground="card"
      label={`${name} with another card on it`}
    >
      {own.length > 0 && <CardPicture pattern={pattern} pick={null} lengths={false} />}
      {laid && <Dotted pattern={pattern} laid={laid} />}
    </Drawing>
  );
}

function Dotted({ pattern, laid }: { pattern: PatternDoc; laid: LaidOver }) {
  const { brief } = usePreferences();
  const data = usePathData();
  const told = laid.apart.filter(({ mm }) => Math.abs(mm) > TOLD_APART_MM);
  const edges = new Map(pattern.edges.map((edge) => [edge.id, edge]));
  return (
    <g pointerEvents="none" fill="none" strokeLinecap="round">
      {told.map(({ edge }) => (
        <path
          key={edge}
          d={data(segmentsOfEdge(pattern, edges.get(edge)!), false)}
          stroke="var(--torch)"
          strokeWidth={3.5}
        />
      ))}
      <path d={data(laid.path)} stroke="var(--ink)" strokeWidth={2} strokeDasharray="3 5" />
      {told.map(({ edge, mm, at }) => (
        <Figure
          key={edge}
          at={at}
          text={`${mm < 0 ? '−' : '+'}${brief(Math.abs(mm))}`}
          colour="var(--torch)"
          ground="var(--panel)"
          size={16}
        />
      ))}
    </g>
  );
}
