import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Stack from '@mui/material/Stack';
import ToggleButton from '@mui/material/ToggleButton';
import ToggleButtonGroup from '@mui/material/ToggleButtonGroup';
import Typography from '@mui/material/Typography';
import { Suspense, lazy, useEffect, useRef, useState, useSyncExternalStore } from 'react';
import { edgeLength } from '#core/card/outline';
import type { Edge, PatternDoc } from '#core/card/pattern';
import { edgeFit } from '#core/fit/gapRemedy';
import { readingsNow } from '#core/fit/readingsNow';
import { evenStations, gapTarget, wantedAlong } from '#core/fit/target';
import type { FitRecord } from '#core/format/job';
import { weldOf } from '#core/weld/planned';
import { LengthField } from '../forms/LengthField';
import { Told } from '../frame/Told';
import { usePreferences } from '../frame/preferences';
import { conditionSentence } from '../frame/words';
import { usePiece } from '../piece/pieceContext';
import type { Fit } from '../records/records.server';
import { StationSetter } from './StationSetter';
import type { What } from './StationTiles';
import { StationTiles } from './StationTiles';
import { keptReadings, quarrelsChange } from '../piece/readings/keptReadings';
import { useReadingKeys } from './useReadingKeys';

const GapChart = lazy(() => import('./GapChart'));

type EdgeRecord = FitRecord['edges'][number];

/** Reading an edge: one field, Enter goes to the next station. */
export function EdgeReadings({
  fit,
  edge,
  onRead,
  onward,
  touched,
  told,
}: {
  fit: Fit;
  edge: Edge;
  /** What was read, and what it was made from. */
  onRead: (record: FitRecord['edges'][number], before: FitRecord['edges'][number]) => void;
  /** The edge to read next, when there is one. */
  onward: { letter: string; go: () => void } | null;
  /** Grows each time the edge in hand is touched again: its field is taken up again. */
  touched: number;
  /** What is to be said beside the field: that the server does not answer, or refused. */
  told: string | null | undefined;
}) {
  const { joined, facts, fits, setUndo } = usePiece();
  const { pattern, plan } = joined;
  const thicknessMm = joined.thicknessAt(edge.id);
  const { show } = usePreferences();
  const length = edgeLength(pattern, edge);
  const process = weldOf(plan, edge, facts.thicknessMm)?.process ?? null;
  const usual = gapTarget(edge.joint.kind, process, thicknessMm);
  const [record, setRecord] = useState<EdgeRecord>(
    () =>
      waiting(pattern, fit.id, edge.id) ??
      fit.edges.find((e) => e.edge === edge.id) ?? {
        edge: edge.id,
        turned: pattern.turned,
        own: false,
        targetMm: usual.gapMm,
        toleranceMm: usual.toleranceMm,
        flushMm: usual.flushMm,
        stations: evenStations(length).map((atMm) => ({ atMm, gapMm: null, flushMm: null })),
      },
  );
  const firstEmpty = record.stations.findIndex((s) => s.gapMm === null);
  const [at, setAt] = useState(Math.max(0, firstEmpty));
  const [what, setWhat] = useState<What>('gap');
  const [turn, setTurn] = useState(0);
  const [ended, setEnded] = useState(false);
  const wanted = wantedAlong(record, edge.joint.kind, process, thicknessMm);
  const [earlier, setEarlier] = useState<EdgeRecord[]>([]);
  /**
   * Kept with the target it was read against, so that the record says what was wanted at the time.
   */
  const put = (next: EdgeRecord) => {
    const w = wantedAlong(next, edge.joint.kind, process, thicknessMm);
    const kept = { ...next, targetMm: w.gapMm, toleranceMm: w.toleranceMm, flushMm: w.flushMm };
    setEarlier((list) => [...list.slice(-30), record]);
    setRecord(kept);
    onRead(kept, record);
  };
  const takeBack = (): string => {
    const last = earlier[earlier.length - 1];
    if (!last) return 'No reading to undo here';
    const changed = last.stations.findIndex(
      (s, i) => JSON.stringify(s) !== JSON.stringify(record.stations[i]),
    );
    setEarlier(earlier.slice(0, -1));
    setRecord(last);
    onRead(last, record);
    if (changed >= 0) {
      setEnded(false);
      setAt(changed);
    }
    setTurn((n) => n + 1);
    return changed >= 0
      ? `Undone: station ${changed + 1} of edge ${edge.letter}`
      : `Undone on edge ${edge.letter}`;
  };
  // The page's undo calls whatever is newest here.
  const latest = useRef(takeBack);
  useEffect(() => {
    latest.current = takeBack;
  });
  useEffect(() => {
    setUndo({ undo: () => latest.current() });
    return () => setUndo(null);
  }, [setUndo]);
  /** A target set by hand: from then on it no longer follows the joint. */
  const setBy = (change: Partial<EdgeRecord>): EdgeRecord => ({
    ...record,
    targetMm: wanted.gapMm,
    toleranceMm: wanted.toleranceMm,
    flushMm: wanted.flushMm,
    ...change,
    own: true,
  });
  const station = record.stations[at];
  const setStation = (change: Partial<EdgeRecord['stations'][number]>) =>
    put({
      ...record,
      stations: record.stations.map((s, i) => (i === at ? { ...s, ...change } : s)),
    });
  const condition = edgeFit(record, edge.joint, process, thicknessMm);
  const order = [...pattern.edges].findIndex((e) => e.id === edge.id);
  const before = pattern.edges[(order - 1 + pattern.edges.length) % pattern.edges.length]!;
  const next = () => {
    // After the last station a reading more has nowhere to go: it stops and says so.
    if (at + 1 < record.stations.length) setAt(at + 1);
    else setEnded(true);
    setTurn(turn + 1);
  };

  // A quarrel with another page began or was decided (see Waits): what it left is what stands here.
  const quarrels = useSyncExternalStore(
    quarrelsChange.subscribe,
    quarrelsChange.snapshot,
    quarrelsChange.none,
  );
  const [known, setKnown] = useState(quarrels);
  if (known !== quarrels) {
    setKnown(quarrels);
    const next = waiting(pattern, fit.id, edge.id) ?? fit.edges.find((e) => e.edge === edge.id);
    if (next && JSON.stringify(next) !== JSON.stringify(record)) {
      setRecord(next);
      setEarlier([]);
    }
  }

  const field = useRef<HTMLDivElement>(null);
  const lost = useReadingKeys(() => field.current?.querySelector('input') ?? null);

  return (
    <Stack spacing={1.5} component="section" aria-label={`Readings of edge ${edge.letter}`}>
      <Box sx={{ display: 'flex', alignItems: 'baseline', gap: 1, flexWrap: 'wrap' }}>
        <Typography variant="h2">Edge {edge.letter}</Typography>
        <Typography role="status" sx={{ flex: 1 }}>
          {conditionSentence(condition, show)}
        </Typography>
      </Box>
      <ToggleButtonGroup
        exclusive
        fullWidth
        value={what}
        aria-label="What is read"
        onChange={(_, to: What | null) => {
          if (!to) return;
          setWhat(to);
          setEnded(false);
          // On to the first station that has no such reading yet.
          const open = record.stations.findIndex(
            (s) => (to === 'gap' ? s.gapMm : s.flushMm) === null,
          );
          setAt(Math.max(0, open));
        }}
      >
        <ToggleButton value="gap">Gap</ToggleButton>
        <ToggleButton value="flush">Flush (+ proud, − low)</ToggleButton>
      </ToggleButtonGroup>
      {ended && (
        <Box
          role="status"
          sx={{ p: 1.5, bgcolor: 'var(--chalk)', border: '2.5px solid var(--rule)' }}
        >
          <Typography className="condensed" sx={{ fontSize: '1.15rem', mb: 1 }}>
            {lost
              ? `“${lost}” was not taken: edge ${edge.letter} has no station left to read. Touch one to read it again.`
              : `That was the last station of edge ${edge.letter}. Touch one to read it again.`}
          </Typography>
          {onward && (
            <Button variant="contained" size="large" fullWidth onClick={onward.go}>
              On to edge {onward.letter}
            </Button>
          )}
        </Box>
      )}
      {station && !ended && (
        <Box
          ref={field}
          sx={{ p: 1.5, bgcolor: 'var(--chalk)', border: '2.5px solid var(--torch)' }}
        >
          <Typography className="condensed" sx={{ fontSize: '1.15rem' }}>
            Station {at + 1} of {record.stations.length}:{' '}
            <span className="figure">{show(station.atMm)}</span> from corner {before.letter}/
            {edge.letter}
          </Typography>
          <LengthField
            key={`${at} ${what} ${turn} ${touched}`}
            big
            autoFocus
            label={
              what === 'gap' ? 'Gap read, then Enter' : 'Stands proud (+) or low (−), then Enter'
            }
            mm={what === 'gap' ? station.gapMm : station.flushMm}
            signed={what === 'flush'}
            empty="not read"
            thin
            onChange={(mm) => setStation(what === 'gap' ? { gapMm: mm } : { flushMm: mm })}
            onEnter={next}
          />
          {told && <Told>{told}</Told>}
        </Box>
      )}
      <StationTiles
        record={record}
        what={what}
        wanted={wanted}
        at={at}
        onTouch={(i) => {
          setEnded(false);
          setAt(i);
          setTurn(turn + 1);
        }}
      />
      <Suspense fallback={<Box sx={{ height: 170 }} />}>
        <GapChart
          edge={edge.id}
          length={length}
          fits={fits.slice(0, fits.findIndex((f) => f.id === fit.id) + 1)}
          now={record}
        />
      </Suspense>
      <Stack direction="row" spacing={1}>
        <LengthField
          label="Target gap"
          mm={wanted.gapMm}
          thin
          onChange={(mm) => mm !== null && put(setBy({ targetMm: mm }))}
        />
        <LengthField
          label="Tolerance ±"
          mm={wanted.toleranceMm}
          min={0}
          thin
          onChange={(mm) => mm !== null && put(setBy({ toleranceMm: mm }))}
        />
        <LengthField
          label="Flush within"
          mm={wanted.flushMm}
          min={0}
          thin
          onChange={(mm) => mm !== null && put(setBy({ flushMm: mm }))}
        />
      </Stack>
      <Typography variant="caption" sx={{ color: 'var(--pencil)' }}>
        {record.own ? 'Set by hand here. ' : ''}
        {usual.why} (common practice).{' '}
        {record.own && (
          <Button size="small" onClick={() => put({ ...record, own: false })}>
            As is usual for the joint
          </Button>
        )}
      </Typography>
      <StationSetter record={record} length={length} onChange={put} />
    </Stack>
  );
}

/** What waits in the browser for the server, at its places on the card as it is now. */
const waiting = (pattern: PatternDoc, fit: string, edge: string): EdgeRecord | null => {
  const kept = keptReadings(fit, edge);
  return kept && readingsNow(pattern, kept.record);
};
