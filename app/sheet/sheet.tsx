import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Stack from '@mui/material/Stack';
import ToggleButton from '@mui/material/ToggleButton';
import ToggleButtonGroup from '@mui/material/ToggleButtonGroup';
import Typography from '@mui/material/Typography';
import { useState } from 'react';
import { useRevalidator } from 'react-router';
import { outlineOf } from '#core/card/outline';
import { box } from '#core/measure/path';
import type { Paper, Tiling } from '#core/sheet/tiles';
import { PAPERS, tilePages } from '#core/sheet/tiles';
import { BlankPicture } from '../drawing/BlankPicture';
import { CardPicture } from '../drawing/CardPicture';
import { Drawing, useView } from '../drawing/Drawing';
import { StopLayout } from '../frame/StopLayout';
import { usePreferences } from '../frame/preferences';
import { problemSentence } from '../frame/sentences';
import { NoBlank } from '../piece/NoBlank';
import { usePiece } from '../piece/pieceContext';

type What = 'blank' | 'card';

/** The sheet stage: the pattern on paper tiles, full size, or as a file for a cutter. */
export default function SheetStage() {
  const { id, pattern, joined, planEditor, development, patternEditor, road } = usePiece();
  const { show, unit } = usePreferences();
  const revalidator = useRevalidator();
  const [what, setWhat] = useState<What>('blank');
  const [paper, setPaper] = useState<Paper>(unit === 'mm' ? 'a4' : 'letter');
  if (!development.ok) return <NoBlank />;
  const blank = development.development;
  const bounds =
    what === 'blank' ? box(blank.outline.map((p) => p.segment)) : box(outlineOf(pattern).path);
  const tiles = tilePages(bounds, paper);
  const tiling = tiles.ok ? tiles.tiling : null;
  const covered = tiling && {
    minX: Math.min(...tiling.tiles.map((t) => t.x)),
    minY: Math.min(...tiling.tiles.map((t) => t.y)),
    maxX: Math.max(...tiling.tiles.map((t) => t.x + tiling.windowWidthMm)),
    maxY: Math.max(...tiling.tiles.map((t) => t.y + tiling.windowHeightMm)),
  };
  const file = (ending: string, query = '') => `/pieces/${id}/pattern/${what}.${ending}${query}`;
  // That it went out is noted by this page; the file itself can be read by anyone who looks without
  // noting anything.
  const note = (href: string) =>
    void fetch(`${href}${href.includes('?') ? '&' : '?'}key=${crypto.randomUUID()}`, {
      method: 'POST',
      keepalive: true,
    }).then(
      () => revalidator.revalidate(),
      () => undefined,
    );
  const unsaved = patternEditor.status !== 'saved' || planEditor.status !== 'saved';
  const download = (label: string, href: string, about: string, contained = false) => (
    <Box>
      <Button
        fullWidth
        variant={contained ? 'contained' : 'outlined'}
        size={contained ? 'large' : 'medium'}
        href={href}
        download
        onClick={() => note(href)}
        disabled={unsaved}
      >
        {label}
      </Button>
      <Typography variant="caption" sx={{ color: 'var(--pencil)' }}>
        {about}
      </Typography>
    </Box>
  );
  return (
    <StopLayout
      tally={[
        { label: 'Pages', value: tiling ? `${tiling.tiles.length} × ${PAPERS[paper].name}` : '—' },
        { label: 'Laid', value: tiling ? `${tiling.columns} across, ${tiling.rows} down` : '—' },
        { label: 'Paper', value: tiling?.landscape ? 'on its side' : 'upright' },
        { label: 'Overlap', value: tiling ? show(tiling.overlapMm) : '—' },
        {
          label: 'Last sent out',
          value: road.sheet?.note ?? '—',
          alert: road.sheet?.state === 'attention',
        },
      ]}
      drawing={
        <Drawing
          bounds={covered ?? bounds}
          ground={what === 'card' ? 'card' : 'blank'}
          label="The pattern on its pages"
        >
          {tiling && <Pages tiling={tiling} />}
          {what === 'blank' ? (
            <BlankPicture
              development={blank}
              pattern={pattern}
              plugs={joined.plugsOn(blank)}
              pick={null}
              tags={false}
            />
          ) : (
            <CardPicture pattern={pattern} pick={null} tags={false} />
          )}
          {tiling && <PageNames tiling={tiling} />}
        </Drawing>
      }
      drawer={
        <Stack spacing={2}>
          <Box>
            <Typography variant="h2">Full size on paper</Typography>
            <Typography variant="body2" sx={{ color: 'var(--pencil)' }}>
              Print at 100 %, never “fit to page”. Check the bars on each page with a rule, join the
              pages at the crosses, glue or pounce.
            </Typography>
          </Box>
          <ToggleButtonGroup
            exclusive
            fullWidth
            value={what}
            onChange={(_, next: What | null) => next && setWhat(next)}
            aria-label="What goes out"
          >
            <ToggleButton value="blank">The blank</ToggleButton>
            <ToggleButton value="card">The card</ToggleButton>
          </ToggleButtonGroup>
          <ToggleButtonGroup
            exclusive
            fullWidth
            value={paper}
            onChange={(_, next: Paper | null) => next && setPaper(next)}
            aria-label="Paper"
          >
            {Object.entries(PAPERS).map(([key, { name }]) => (
              <ToggleButton key={key} value={key}>
                {name}
              </ToggleButton>
            ))}
          </ToggleButtonGroup>
          {!tiles.ok && (
            <Typography role="alert">
              {problemSentence(tiles.problems[0]!, pattern, show)}
            </Typography>
          )}
          {tiling &&
            download(
              `Print on ${tiling.tiles.length} ${tiling.tiles.length === 1 ? 'page' : 'pages'} (PDF)`,
              file('pdf', `?paper=${paper}`),
              what === 'blank'
                ? 'Full size, with crosses to join the pages and bars to check the printer; after them the table to mark out by'
                : 'Full size, with crosses to join the pages and bars to check the printer',
              true,
            )}
          <Typography variant="h2">To a cutter, or onward</Typography>
          {download(
            'DXF for a cutter',
            file('dxf'),
            'For a laser or plasma cutter, in millimetres: cuts, holes and scribe lines apart',
          )}
          {download('SVG drawing', file('svg'), 'For a drawing program, in millimetres')}
          {download(
            'Fold table (CSV)',
            `/pieces/${id}/pattern/folds.csv`,
            'For a spreadsheet: one row a fold',
          )}
          {unsaved && (
            <Typography role="status">One moment: the card is still being saved.</Typography>
          )}
        </Stack>
      }
    />
  );
}

function Pages({ tiling }: { tiling: Tiling }) {
  const { px, scale } = useView();
  return (
    <g>
      {tiling.tiles.map((tile) => {
        const [x, y] = px([tile.x, tile.y + tiling.windowHeightMm]);
        return (
          <rect
            key={tile.name}
            x={x}
            y={y}
            width={tiling.windowWidthMm * scale}
            height={tiling.windowHeightMm * scale}
            fill="var(--chalk)"
            fillOpacity={0.85}
            stroke="var(--pencil)"
            strokeDasharray="5 4"
          />
        );
      })}
    </g>
  );
}

function PageNames({ tiling }: { tiling: Tiling }) {
  const { px } = useView();
  return (
    <g pointerEvents="none">
      {tiling.tiles.map((tile) => {
        const [x, y] = px([tile.x, tile.y + tiling.windowHeightMm]);
        return (
          <g key={tile.name} transform={`translate(${x + 6} ${y + 6})`}>
            <rect width={40} height={30} fill="var(--panel)" stroke="var(--pencil)" />
            <text
              x={20}
              y={22}
              textAnchor="middle"
              className="condensed"
              fontSize={20}
              fontWeight={600}
              fill="var(--ink)"
            >
              {tile.name}
            </text>
          </g>
        );
      })}
    </g>
  );
}
