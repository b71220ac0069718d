import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Stack from '@mui/material/Stack';
import { useState } from 'react';
import { evenStations } from '#core/fit/target';
import type { FitRecord } from '#core/format/job';
import { MAX_STATIONS } from '#core/format/lists';
import { LengthField } from '../forms/LengthField';

type EdgeRecord = FitRecord['edges'][number];

/** Setting the stations: evenly by number, or one more at a place. Readings already made stay. */
export function StationSetter({
  record,
  length,
  onChange,
}: {
  record: EdgeRecord;
  length: number;
  onChange: (next: EdgeRecord) => void;
}) {
  const [place, setPlace] = useState<number | null>(null);
  const empty = record.stations.filter((s) => s.gapMm === null && s.flushMm === null);
  const read = record.stations.filter((s) => !empty.includes(s));
  const add = (atMm: number) => {
    if (record.stations.some((s) => Math.abs(s.atMm - atMm) < 0.05)) return;
    onChange({
      ...record,
      stations: [...record.stations, { atMm, gapMm: null, flushMm: null }].sort(
        (a, b) => a.atMm - b.atMm,
      ),
    });
  };
  const full = record.stations.length >= MAX_STATIONS;
  const gaps = Math.max(1, record.stations.length - 1);
  const spaced = (into: number) => {
    const fresh = evenStations(length, length / into).filter((atMm) =>
      read.every((s) => Math.abs(s.atMm - atMm) > 1),
    );
    onChange({
      ...record,
      stations: [...read, ...fresh.map((atMm) => ({ atMm, gapMm: null, flushMm: null }))].sort(
        (a, b) => a.atMm - b.atMm,
      ),
    });
  };
  return (
    <Stack direction="row" spacing={1} useFlexGap sx={{ flexWrap: 'wrap', alignItems: 'flex-end' }}>
      <Button
        variant="outlined"
        disabled={gaps <= 2}
        onClick={() => spaced(Math.max(2, Math.floor(gaps / 2)))}
      >
        Fewer
      </Button>
      <Button
        variant="outlined"
        disabled={gaps >= MAX_STATIONS / 2}
        onClick={() => spaced(gaps * 2)}
      >
        More stations
      </Button>
      <Box sx={{ width: 130 }}>
        <LengthField
          label="One more at"
          mm={place}
          min={0}
          empty="place"
          onChange={setPlace}
          onEnter={() => undefined}
        />
      </Box>
      <Button
        variant="outlined"
        disabled={place === null || place > length || full}
        onClick={() => place !== null && add(Math.round(place * 10) / 10)}
      >
        Add
      </Button>
      {full && <Box role="status">{MAX_STATIONS} stations are as many as an edge can have.</Box>}
    </Stack>
  );
}
