import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { useMemo, useRef, useState } from 'react';
import { area, box } from '#core/measure/path';
import { nearestGauges, SYSTEM_NAMES } from '#core/metal/gauges';
import { metalById } from '#core/metal/metals';
import { originalThickness } from '#core/survey/originalThickness';
import { MAX_READINGS } from '#core/survey/pieceSurvey';
import type { StockCandidate } from '#core/survey/stockCandidates';
import { COMMON_SHEETS_MM, stockCandidates } from '#core/survey/stockCandidates';
import { LengthField } from '../forms/LengthField';
import { useAnswers } from '../forms/useAnswers';
import { Told } from '../frame/Told';
import { usePreferences } from '../frame/preferences';
import { usePiece } from '../piece/pieceContext';
import { reckoned } from '../piece/loaded/reckoned';
import type { Route } from './+types/survey';
import { usePieceSurvey } from './usePieceSurvey';

const READ_WORDS = { sheet: 'bare', thicker: 'paint or scale?', thinner: 'rusted thin?' } as const;

/** What sheet the old was, by the micrometer, and what can be had in its place. */
export default function WhatSheet() {
  const { draft, set } = usePieceSurvey();
  const { facts, shop, metal } = usePiece();
  const { showThin, show, unit } = usePreferences();
  const [typed, setTyped] = useState<number | null>(null);
  // Enter takes the figure and adds it in one go: before it could be drawn.
  const latest = useRef<number | null>(null);
  const hold = (mm: number | null) => {
    latest.current = mm;
    setTyped(mm);
  };
  const field = useRef<HTMLDivElement>(null);
  const old = originalThickness(draft.oldMetal);
  const near = old && nearestGauges(old.thicknessMm);
  // Against what is said of the piece while the old is not measured.
  const against = old?.told ? old : { thicknessMm: facts.thicknessMm, uMm: 0 };
  const offered = [
    ...COMMON_SHEETS_MM.map((thicknessMm) => ({ metal, thicknessMm, name: 'usual size' })),
    ...shop.sheets.map((one) => ({
      metal: metalById(one.metal),
      thicknessMm: one.thicknessMm,
      name: `${one.from === 'donor' ? 'from an old panel' : 'on hand'}${one.name ? `: ${one.name}` : ''}`,
    })),
  ];
  const rows = stockCandidates({ metal, ...against }, facts.structural, offered, 5);
  const add = () => {
    const mm = latest.current;
    if (mm === null || draft.oldMetal.length >= MAX_READINGS) return;
    set({ oldMetal: [...draft.oldMetal, mm] });
    hold(null);
    field.current?.querySelector('input')?.focus();
  };
  return (
    <Box sx={{ display: 'grid', gridTemplateColumns: 'minmax(0, 1fr)', gap: 3 }}>
      <Box
        component="section"
        aria-label="Old metal"
        sx={{
          display: 'grid',
          gridTemplateColumns: { md: '300px 1fr' },
          gap: 3,
          alignItems: 'start',
        }}
      >
        <Box sx={{ display: 'grid', gap: 1 }}>
          <Typography variant="h2">The old metal</Typography>
          <Box ref={field}>
            <LengthField
              label="Micrometer reading"
              mm={typed}
              thin
              big
              min={0.05}
              max={20}
              empty="read it"
              onChange={hold}
              onEnter={add}
            />
          </Box>
          <Button variant="outlined" color="inherit" onClick={add}>
            Add this reading
          </Button>
          <Typography sx={{ color: 'var(--pencil)', fontSize: '0.95rem' }}>
            Scrape both faces bare where it looks sound, away from the rust, and read in several
            places. Each Enter adds one.
          </Typography>
        </Box>
        <Box>
          {old ? (
            <>
              <Box sx={{ fontSize: '1.05rem' }} role="status" aria-label="What the old sheet was">
                <span className="figure" style={{ fontSize: '2rem' }}>
                  {showThin(old.thicknessMm)}
                </span>{' '}
                <span className="figure">
                  ±{' '}
                  {unit === 'mm' ? `${old.uMm.toFixed(3)} mm` : `${(old.uMm / 25.4).toFixed(4)} in`}
                </span>
                <Box>
                  {old.told
                    ? near?.ok &&
                      near.nearest
                        .map(
                          ({ system, gauge, differenceMm }) =>
                            `${gauge} ${SYSTEM_NAMES[system]} (${differenceMm >= 0 ? '+' : '−'}${showThin(Math.abs(differenceMm))})`,
                        )
                        .join(' · ')
                    : draft.oldMetal.length < 3
                      ? 'Not told yet: three places at the least, better five.'
                      : 'Not told yet: most of these are not of one sheet. Scrape it bare and read more places.'}
                </Box>
              </Box>
              <ReadingsPicture readings={draft.oldMetal} />
              <Box
                component="ul"
                sx={{
                  listStyle: 'none',
                  m: 0,
                  mt: 1,
                  p: 0,
                  display: 'flex',
                  flexWrap: 'wrap',
                  gap: 1,
                }}
              >
                {draft.oldMetal.map((mm, i) => {
                  const of = old.readings[i]!;
                  return (
                    <Box
                      component="li"
                      key={i}
                      sx={{
                        px: 1.2,
                        pt: 0.6,
                        border: '1.5px solid var(--rule)',
                        bgcolor: of === 'sheet' ? 'var(--chalk)' : 'var(--torch-ground)',
                      }}
                    >
                      <span className="figure">{showThin(mm)}</span>{' '}
                      <span style={{ fontSize: '0.88rem' }}>{READ_WORDS[of]}</span>
                      <Button
                        size="small"
                        color="inherit"
                        aria-label={`Take off the reading ${showThin(mm)}`}
                        onClick={() => set({ oldMetal: draft.oldMetal.filter((_, k) => k !== i) })}
                      >
                        Take off
                      </Button>
                    </Box>
                  );
                })}
              </Box>
            </>
          ) : (
            <Typography sx={{ py: 4, color: 'var(--pencil)' }}>
              Matching the old thickness makes a weld planish out and disappear. Until it is
              measured, what can be had is compared with the {show(facts.thicknessMm, 2)} that is
              said of the piece.
            </Typography>
          )}
        </Box>
      </Box>
      <Sheets rows={rows} />
    </Box>
  );
}

/** Readings along a line: where they lie close is the sheet. */
function ReadingsPicture({ readings }: { readings: readonly number[] }) {
  const { showThin } = usePreferences();
  const old = originalThickness(readings)!;
  const [least, most] = [Math.min(...readings) - 0.05, Math.max(...readings) + 0.05];
  const x = (mm: number) => 20 + ((mm - least) / (most - least)) * 560;
  const sheet = readings.filter((_, i) => old.readings[i] === 'sheet');
  return (
    <svg
      viewBox="0 0 600 64"
      width="100%"
      style={{ maxWidth: 640, display: 'block' }}
      role="img"
      aria-label={`Readings from ${showThin(Math.min(...readings))} to ${showThin(Math.max(...readings))}`}
    >
      <line x1={20} x2={580} y1={34} y2={34} stroke="var(--rule)" strokeWidth={2} />
      <rect
        x={x(Math.min(...sheet)) - 9}
        y={16}
        width={x(Math.max(...sheet)) - x(Math.min(...sheet)) + 18}
        height={36}
        rx={8}
        fill="color-mix(in srgb, var(--good) 18%, transparent)"
        stroke="var(--good)"
      />
      {readings.map((mm, i) =>
        old.readings[i] === 'sheet' ? (
          <circle key={i} cx={x(mm)} cy={34} r={6} fill="var(--good)" />
        ) : (
          <path
            key={i}
            d={`M${x(mm) - 6} 28l12 12m0 -12l-12 12`}
            stroke="var(--torch)"
            strokeWidth={2.5}
          />
        ),
      )}
    </svg>
  );
}

/** What can be had that comes nearest, and what each changes. */
function Sheets({ rows }: { rows: StockCandidate[] }) {
  const { pattern, shop, facts } = usePiece();
  const { showThin, showWeight, show } = usePreferences();
  const fetcher = useAnswers<Route.ComponentProps['actionData']>();
  const blanks = useMemo(
    () =>
      rows.map(({ metal, thicknessMm }) => {
        if (pattern.sides.length === 0) return null;
        const { development } = reckoned(pattern, metal, thicknessMm, shop);
        if (!development.ok) return null;
        const cut = development.development.outline.map(({ segment }) => segment);
        const holes = development.development.holes.reduce(
          (sum, hole) => sum + (Math.PI * hole.diameterMm ** 2) / 4,
          0,
        );
        const { minX, minY, maxX, maxY } = box(cut);
        const kg = ((Math.abs(area(cut)) - holes) / 1e6) * thicknessMm * metal.weight.value;
        return {
          wide: maxX - minX,
          high: maxY - minY,
          kg,
          warnings: development.development.warnings.length,
        };
      }),
    [rows, pattern, shop],
  );
  const cell = {
    p: 1,
    borderBottom: '1px solid var(--rule)',
    textAlign: 'right',
    whiteSpace: 'nowrap',
  } as const;
  return (
    <Box component="section" aria-label="Sheet that can be had">
      <Typography variant="h2" gutterBottom>
        What can be had, and what it changes
      </Typography>
      {rows.length === 0 && (
        <Typography>
          Nothing on the list is as thick as the old: a structural piece is never made thinner. Put
          what you can get on the shop’s page.
        </Typography>
      )}
      <Box sx={{ overflowX: 'auto' }}>
        <Box component="table" sx={{ borderCollapse: 'collapse', width: '100%' }}>
          {rows.length > 0 && (
            <thead>
              <tr>
                {[
                  'Sheet',
                  'Stiffness',
                  'This blank weighs',
                  'Its blank',
                  'Step at a butt weld',
                  '',
                ].map((head, i) => (
                  <Box
                    component="th"
                    scope="col"
                    key={head || 'do'}
                    sx={{
                      ...cell,
                      textAlign: i === 0 ? 'left' : 'right',
                      fontWeight: 500,
                      color: 'var(--pencil)',
                    }}
                  >
                    {head}
                  </Box>
                ))}
              </tr>
            </thead>
          )}
          <tbody>
            {rows.map((row, i) => {
              const blank = blanks[i];
              const inUse =
                row.metal.id === facts.metal &&
                Math.abs(row.thicknessMm - facts.thicknessMm) < 0.005;
              const mine = {
                ...facts,
                metal: row.metal.id,
                thicknessMm: row.thicknessMm,
                thickness: { by: 'mm' as const },
              };
              return (
                <tr key={`${row.metal.id} ${row.thicknessMm}`}>
                  <Box
                    component="th"
                    scope="row"
                    sx={{ ...cell, textAlign: 'left', fontWeight: 400, whiteSpace: 'normal' }}
                  >
                    <b className="figure">{showThin(row.thicknessMm)}</b>
                    <Box sx={{ color: 'var(--pencil)', fontSize: '0.9rem' }}>
                      {row.metal.name}, {row.name}
                    </Box>
                  </Box>
                  <Box component="td" className="figure" sx={cell}>
                    × {row.stiffer.toFixed(2)}
                  </Box>
                  <Box component="td" className="figure" sx={cell}>
                    {blank ? showWeight(blank.kg) : `× ${row.heavier.toFixed(2)}`}
                  </Box>
                  <Box component="td" className="figure" sx={cell}>
                    {blank ? `${show(blank.wide)} × ${show(blank.high)}` : 'no blank'}
                    {blank && blank.warnings > 0 && (
                      <Box sx={{ color: 'var(--torch)', fontSize: '0.88rem' }}>
                        {blank.warnings === 1 ? '1 warning' : `${blank.warnings} warnings`}
                      </Box>
                    )}
                  </Box>
                  <Box
                    component="td"
                    className="figure"
                    sx={{
                      ...cell,
                      color: row.stepMm > row.stepLimitMm ? 'var(--torch)' : 'inherit',
                    }}
                  >
                    {showThin(row.stepMm)}
                    <Box sx={{ fontSize: '0.88rem', fontFamily: 'Barlow, sans-serif' }}>
                      {row.stepMm > row.stepLimitMm
                        ? `⚠ over ${showThin(row.stepLimitMm)}`
                        : `within ${showThin(row.stepLimitMm)}`}
                    </Box>
                  </Box>
                  <Box component="td" sx={cell}>
                    {inUse ? (
                      'in use'
                    ) : (
                      <Button
                        size="small"
                        variant="outlined"
                        color="inherit"
                        disabled={fetcher.state !== 'idle'}
                        onClick={() =>
                          void fetcher.submit(
                            { mine, since: facts },
                            { method: 'post', encType: 'application/json' },
                          )
                        }
                      >
                        Make it of this
                      </Button>
                    )}
                  </Box>
                </tr>
              );
            })}
          </tbody>
        </Box>
      </Box>
      {fetcher.data?.message && <Told>{fetcher.data.message}</Told>}
      <Typography sx={{ mt: 1, color: 'var(--pencil)', fontSize: '0.92rem' }}>
        Stiffness goes with the cube of the thickness. The step is what stands out on the back with
        the faces flush; the limit is ISO 5817, quality C, from memory.
        {facts.structural && ' It holds the vehicle up: nothing thinner than the old is offered.'}
      </Typography>
    </Box>
  );
}
