import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Stack from '@mui/material/Stack';
import Typography from '@mui/material/Typography';
import { useRef, useState } from 'react';
import type { Vec3 } from '#core/surface/mesh/mesh';
import type { Scan } from '#core/surface/mesh/packed';
import { Choice } from '../../forms/Choice';
import { Told } from '../../frame/Told';
import { usePreferences } from '../../frame/preferences';
import { problemSentence } from '../../frame/sentences';
import type { ScanTold, ScanUnit } from './scanning';
import type { Scanning } from './useScan';

const DOING = {
  reading: 'Reading the file …',
  cleaning: 'Mending it …',
  thinning: 'Thinning it to what is needed …',
};

type Props = {
  scan: Scan | null;
  scanning: Scanning;
  tapped: readonly Vec3[];
  onTapped: (tapped: Vec3[]) => void;
};

/**
 * A scan of the panel: the file, what its figures are counted in, what was mended, and an outline
 * tapped on it to cut it to.
 */
export function ScanFields({ scan, scanning, tapped, onTapped }: Props) {
  const { show, showThin } = usePreferences();
  const chooser = useRef<HTMLInputElement>(null);
  const [unit, setUnit] = useState<ScanUnit | ''>('');
  const { doing, problems, told, kept, here } = scanning;
  return (
    <>
      <Typography variant="body2">
        A file of triangles (OBJ, STL or PLY). It does not say what it is counted in: you have to.
      </Typography>
      <Choice
        label="Its figures are"
        value={unit}
        onChange={(next) => setUnit(next)}
        options={[
          ['mm', 'Millimetres'],
          ['cm', 'Centimetres'],
          ['m', 'Metres'],
          ['in', 'Inches'],
        ]}
      />
      <input
        ref={chooser}
        type="file"
        accept=".obj,.stl,.ply"
        aria-label="The file of the scan"
        hidden
        onChange={(event) => {
          const file = event.target.files?.[0];
          event.target.value = '';
          if (!file || unit === '') return;
          onTapped([]);
          scanning.read(file, unit);
        }}
      />
      <Stack direction="row" spacing={1}>
        <Button
          variant="outlined"
          disabled={unit === '' || doing !== null}
          onClick={() => chooser.current?.click()}
        >
          {scan ? 'Another file' : 'Choose the file'}
        </Button>
        {doing && (
          <Button color="inherit" onClick={scanning.stop}>
            Stop
          </Button>
        )}
      </Stack>
      {unit === '' && !scan && (
        <Typography variant="body2">Say first what its figures are.</Typography>
      )}
      {doing && <Typography role="status">{DOING[doing]}</Typography>}
      {problems.map((problem, i) => (
        <Told key={i}>{problemSentence(problem, null, show)}</Told>
      ))}
      {scan && !doing && (
        <Typography role="status">
          {scan.file}:{' '}
          {told && told.triangles > kept
            ? `thinned from ${told.triangles} triangles to ${kept}; `
            : ''}
          nowhere more than <span className="figure">{showThin(scan.offMm)}</span> off the scan.
        </Typography>
      )}
      {told && !doing && <Mended told={told} />}
      {scan && here && (
        <Box component="section" aria-label="Cut it to an outline" sx={{ display: 'grid', gap: 1 }}>
          <Typography variant="h3">Cut it to an outline</Typography>
          <Typography variant="body2">
            Under Panel, tap the corners of what you make, one after another, all the way round.
          </Typography>
          <Stack direction="row" spacing={1} useFlexGap sx={{ flexWrap: 'wrap' }}>
            <Button
              variant="outlined"
              disabled={tapped.length < 3 || doing !== null}
              onClick={() => {
                scanning.cut([...tapped]);
                onTapped([]);
              }}
            >
              {tapped.length < 3
                ? `${tapped.length} of 3 corners at least`
                : `Cut it to these ${tapped.length} corners`}
            </Button>
            <Button
              color="inherit"
              disabled={tapped.length === 0}
              onClick={() => onTapped(tapped.slice(0, -1))}
            >
              Take the last one off
            </Button>
          </Stack>
        </Box>
      )}
    </>
  );
}

/** What was done to the scan, as far as anything was. */
function Mended({ told }: { told: ScanTold }) {
  const { show } = usePreferences();
  const said = [
    told.dropped > 0 &&
      `${told.dropped} triangles without area, doubled or third at an edge left out`,
    told.rewound > 0 && `${told.rewound} turned the right way up`,
    told.looseParts > 0 &&
      `${told.looseParts} loose ${told.looseParts === 1 ? 'bit' : 'bits'} left out (${(told.looseShare * 100).toFixed(1)} % of it)`,
    told.closed > 0 &&
      `${told.closed} small ${told.closed === 1 ? 'hole' : 'holes'} closed, the widest ${show(told.widestMm)} round`,
    told.left > 0 && `${told.left} ${told.left === 1 ? 'hole' : 'holes'} too wide to be closed`,
  ].filter((line) => line !== false);
  return said.length > 0 ? (
    <Typography variant="body2">Mended: {said.join('; ')}.</Typography>
  ) : null;
}
