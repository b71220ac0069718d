import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import ButtonBase from '@mui/material/ButtonBase';
import Stack from '@mui/material/Stack';
import TextField from '@mui/material/TextField';
import ToggleButton from '@mui/material/ToggleButton';
import ToggleButtonGroup from '@mui/material/ToggleButtonGroup';
import Typography from '@mui/material/Typography';
import { useState } from 'react';
import { parsePlaces, parsePoints } from '#core/card/legs';
import type { CardProfile } from '#core/card/pattern';
import type { Unit } from '#core/measure/length';
import { formatField } from '#core/measure/length';
import type { Result } from '#core/measure/result';
import { failure } from '#core/measure/result';
import type { Stations } from '#core/surface/mesh/stations';
import { Choice } from '../../forms/Choice';
import { LengthField } from '../../forms/LengthField';
import { usePreferences } from '../../frame/preferences';
import { problemSentence } from '../../frame/sentences';
import { FIGURES } from '../../frame/theme';

/**
 * Profiles at stations as they are written: places across and heights, a row each; in what, once
 * anything is.
 */
export type WrittenStations = {
  unit: Unit | null;
  stations: { atMm: number; text: string }[];
  spineMm: number | null;
  toleranceMm: number;
  /** Two guide curves as they are written, or null where the stations stand by themselves. */
  guides: [string, string] | null;
};

const HOW = '0\t0\n70\t22\n140\t30\n210\t22\n280\t0';
const GUIDE_HOW = '0\t0\t0\n150\t-10\t12\n300\t0\t0';
const GUIDE_HOW_INCH = '0\t0\t0\n6\t-3/8\t1/2\n12\t0\t0';
const HOW_INCH = '0\t0\n3\t7/8\n6\t1 3/16\n9\t7/8\n12\t0';
export const NO_STATIONS: WrittenStations = {
  unit: null,
  stations: [
    { atMm: 0, text: '' },
    { atMm: 150, text: '' },
    { atMm: 300, text: '' },
  ],
  spineMm: null,
  toleranceMm: 0.5,
  guides: null,
};

/** What is written, as stations; null while nothing is. */
export function stationsOf(
  { unit: own, stations, spineMm, toleranceMm, guides: typed }: WrittenStations,
  preferred: Unit,
): Result<{ made: Stations }> | null {
  const unit = own ?? preferred;
  const written = stations.filter(({ text }) => text.trim() !== '');
  if (written.length === 0) return null;
  const profiles: Stations['profiles'] = [];
  for (const { atMm, text } of written) {
    const read = parsePoints(text, unit);
    if (!read.ok) return failure(...read.problems);
    profiles.push({ atMm, points: read.points.map(([x, z]) => [x, z]) });
  }
  if (!typed)
    return {
      ok: true,
      made: { kind: 'stations', profiles, spineRadiusMm: spineMm, guides: null, toleranceMm },
    };
  const guides = typed.map((text) => parsePlaces(text, unit));
  const bad = guides.find((guide) => !guide.ok);
  if (bad && !bad.ok)
    return failure(
      ...bad.problems.map((problem) =>
        problem.code === 'no-rows' ? { ...problem, code: 'stations-guides' as const } : problem,
      ),
    );
  // Written along, across, height, as one measures; kept across, along, height, as profiles run.
  const [one, other] = guides.map((guide) =>
    guide.ok
      ? guide.places.map(([along, across, up]): [number, number, number] => [across, along, up])
      : [],
  );
  return {
    ok: true,
    made: { kind: 'stations', profiles, spineRadiusMm: null, guides: [one!, other!], toleranceMm },
  };
}

/** Stations that a card was made from, as they would be written. */
export const writtenStations = (
  { profiles, spineRadiusMm, toleranceMm, guides }: Stations,
  unit: Unit,
): WrittenStations => ({
  unit,
  stations: profiles.map(({ atMm, points }) => ({
    atMm,
    text: rowsOf(points, unit),
  })),
  spineMm: spineRadiusMm,
  toleranceMm,
  guides:
    guides &&
    (guides.map((guide) =>
      rowsOf(
        guide.map(([across, along, up]) => [along, across, up]),
        unit,
      ),
    ) as [string, string]),
});

const rowsOf = (rows: readonly (readonly number[])[], unit: Unit): string =>
  rows.map((row) => row.map((mm) => formatField(mm, unit, 2)).join('\t')).join('\n');

type Props = {
  written: WrittenStations;
  profiles: readonly CardProfile[];
  deviations: readonly (readonly number[])[] | null;
  onChange: (written: WrittenStations) => void;
};

/** Profiles across the panel, station by station. */
export function StationFields({ written, profiles, deviations, onChange }: Props) {
  const { unit: preferred, show, showThin } = usePreferences();
  const { stations } = written;
  // What is written stays as it is when the units are changed, and says what it is in.
  const unit = written.unit ?? preferred;
  const put = (i: number, change: Partial<WrittenStations['stations'][number]>) =>
    onChange({
      ...written,
      unit: stations.some(({ text }) => text.trim() !== '') || change.text ? unit : null,
      stations: stations.map((one, k) => (k === i ? { ...one, ...change } : one)),
    });
  const last = stations[stations.length - 1]!;
  // One station is open: first the one that is to be written next.
  const [open, setOpen] = useState<number | null>(() => {
    const empty = stations.findIndex(({ text }) => text.trim() === '');
    return empty < 0 ? null : empty;
  });
  let read = -1;
  return (
    <>
      <Typography variant="body2">
        At each station along the panel: places across it and the height there, one a row. They need
        not be alike in number.
      </Typography>
      <Box sx={{ border: '1.5px solid var(--rule)', bgcolor: 'var(--chalk)' }}>
        {stations.map(({ atMm, text }, i) => {
          const points = text.trim() === '' ? null : parsePoints(text, unit);
          if (points) read++;
          const off = points?.ok ? Math.max(0, ...(deviations?.[read] ?? [])) : null;
          const said = !points
            ? 'nothing yet'
            : points.ok
              ? `${points.points.length} places${off !== null && deviations ? `, within ${showThin(off)}` : ''}`
              : 'to be mended';
          return (
            <Box
              key={i}
              component="section"
              aria-label={`Station ${i + 1}`}
              sx={{ borderTop: i > 0 ? '1px solid var(--rule)' : 'none' }}
            >
              <StationRow
                number={i + 1}
                at={show(atMm)}
                said={said}
                wrong={points?.ok === false}
                open={open === i}
                onOpen={() => setOpen(open === i ? null : i)}
              />
              {open === i && (
                <Box sx={{ p: 1.2, pt: 0.4, display: 'grid', gap: 1.2 }}>
                  <Stack direction="row" spacing={1} sx={{ alignItems: 'end' }}>
                    <LengthField
                      label={`Station ${i + 1} at`}
                      mm={atMm}
                      signed
                      onChange={(mm) => mm !== null && put(i, { atMm: mm })}
                    />
                    {stations.length > 2 && (
                      <Button
                        color="inherit"
                        sx={{ whiteSpace: 'nowrap', flex: 'none' }}
                        onClick={() => {
                          onChange({ ...written, stations: stations.filter((_, k) => k !== i) });
                          setOpen(null);
                        }}
                      >
                        Take it off
                      </Button>
                    )}
                  </Stack>
                  <TextField
                    label={`Across and height, ${unit === 'mm' ? 'mm' : 'inches'}`}
                    multiline
                    minRows={3}
                    maxRows={9}
                    value={text}
                    placeholder={unit === 'mm' ? HOW : HOW_INCH}
                    onChange={(event) => put(i, { text: event.target.value })}
                    error={points?.ok === false}
                    helperText={
                      points?.ok === false
                        ? problemSentence(points.problems[0]!, null, show)
                        : undefined
                    }
                    slotProps={{
                      htmlInput: { style: { fontFamily: FIGURES, fontSize: '1.1rem' } },
                    }}
                  />
                  {profiles.length > 0 && (
                    <Choice
                      label="Or a profile of the card"
                      value=""
                      onChange={(id) => {
                        const profile = profiles.find((one) => one.id === id);
                        if (profile)
                          put(i, {
                            text: profile.ordinates
                              .map(
                                ([s, drop]) =>
                                  `${formatField(s, unit, 2)}\t${formatField(-drop, unit, 2)}`,
                              )
                              .join('\n'),
                          });
                      }}
                      options={profiles.map(({ id, name }) => [id, name] as const)}
                    />
                  )}
                </Box>
              )}
            </Box>
          );
        })}
      </Box>
      <Button
        variant="outlined"
        onClick={() => {
          onChange({ ...written, stations: [...stations, { atMm: last.atMm + 100, text: '' }] });
          setOpen(stations.length);
        }}
      >
        Another station
      </Button>
      <ToggleButtonGroup
        exclusive
        fullWidth
        value={written.guides ? 'guides' : 'spine'}
        aria-label="How the stations stand"
        onChange={(_, how: string | null) =>
          how &&
          onChange({ ...written, guides: how === 'guides' ? (written.guides ?? ['', '']) : null })
        }
      >
        <ToggleButton value="spine">By themselves</ToggleButton>
        <ToggleButton value="guides">Between two edges</ToggleButton>
      </ToggleButtonGroup>
      {written.guides && (
        <Box component="section" aria-label="The two edges" sx={{ display: 'grid', gap: 1.2 }}>
          <Typography variant="body2">
            Each edge as places on it: along, across and height, one a row. Every profile is set
            between them, its ends on the edges, as far along as its station; its places across only
            say its shape.
          </Typography>
          {(['where profiles begin', 'where they end'] as const).map((which, k) => {
            const text = written.guides![k]!;
            const places = text.trim() === '' ? null : parsePlaces(text, unit);
            return (
              <TextField
                key={which}
                label={`Edge ${which}, ${unit === 'mm' ? 'mm' : 'inches'}`}
                multiline
                minRows={2}
                maxRows={8}
                value={text}
                placeholder={unit === 'mm' ? GUIDE_HOW : GUIDE_HOW_INCH}
                onChange={(event) =>
                  onChange({
                    ...written,
                    unit,
                    guides: written.guides!.map((one, i) =>
                      i === k ? event.target.value : one,
                    ) as [string, string],
                  })
                }
                error={places?.ok === false}
                helperText={
                  places?.ok === false
                    ? problemSentence(places.problems[0]!, null, show)
                    : undefined
                }
                slotProps={{ htmlInput: { style: { fontFamily: FIGURES, fontSize: '1.1rem' } } }}
              />
            );
          })}
        </Box>
      )}
      <Box sx={{ display: 'grid', gridTemplateColumns: '1fr 1fr', gap: 1.4 }}>
        {!written.guides && (
          <LengthField
            label="Stations stand round a radius"
            mm={written.spineMm}
            empty="straight"
            signed
            max={20_000}
            onChange={(spineMm) =>
              onChange({ ...written, spineMm: spineMm === 0 ? null : spineMm })
            }
          />
        )}
        <LengthField
          label="Passes no farther off than"
          mm={written.toleranceMm}
          min={0}
          max={20}
          digits={2}
          onChange={(mm) => mm !== null && onChange({ ...written, toleranceMm: mm })}
        />
      </Box>
    </>
  );
}

/** A station in the table of all: where it stands, what is written of it; touched it opens. */
function StationRow({
  number,
  at,
  said,
  wrong,
  open,
  onOpen,
}: {
  number: number;
  at: string;
  said: string;
  wrong: boolean;
  open: boolean;
  onOpen: () => void;
}) {
  return (
    <ButtonBase
      aria-label={`Station ${number}, at ${at}: ${said}`}
      aria-expanded={open}
      onClick={onOpen}
      sx={{
        width: '100%',
        minHeight: 46,
        px: 1.2,
        display: 'grid',
        gridTemplateColumns: '1.5em 6.5em 1fr',
        gap: 1,
        textAlign: 'left',
        font: 'inherit',
        bgcolor: open ? 'var(--panel)' : 'transparent',
      }}
    >
      <Box component="span" sx={{ fontWeight: 600 }}>
        {number}
      </Box>
      <span className="figure">{at}</span>
      <Box component="span" sx={{ color: wrong ? 'var(--torch)' : 'var(--pencil)' }}>
        {said}
      </Box>
    </ButtonBase>
  );
}
