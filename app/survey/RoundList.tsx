import Box from '@mui/material/Box';
import { useRef } from 'react';
import { cut } from '#core/card/cut';
import { inDegrees } from '#core/survey/kinds';
import { changesBetween, hasMoved, readIn } from '#core/survey/moved';
import type { Reading, Round, Surveyed } from '#core/survey/references';
import { AngleField } from '../forms/AngleField';
import { LengthField } from '../forms/LengthField';
import { usePreferences } from '../frame/preferences';
import { changeSaid } from '../frame/measuredWords';
import { useSurvey } from './useSurvey';

/**
 * A whole round in a list, in the order of the measuring sheet: for typing in what was written on
 * paper. Enter goes on.
 */
export function RoundList({
  round,
  readings,
  onRead,
}: {
  round: Surveyed<Round>;
  readings: Record<string, Reading | null>;
  onRead: (measure: string, reading: Reading | null) => void;
}) {
  const { measures, rounds } = useSurvey();
  const { show } = usePreferences();
  const list = useRef<HTMLOListElement>(null);
  const goOn = (i: number) => list.current?.querySelectorAll('input')[i + 1]?.focus();
  return (
    <Box component="ol" ref={list} aria-label="All measures" sx={{ listStyle: 'none', m: 0, p: 0 }}>
      {measures.map((measure, i) => {
        const reading = readings[measure.id] ?? null;
        const first = rounds.find(
          (other) => other.id !== round.id && readIn(other, measure) !== null,
        );
        const value = reading?.value ?? null;
        const now = { ...round, readings: reading ? { [measure.id]: reading } : {} };
        const change =
          first && value !== null ? changesBetween([measure], first, now)[0] : undefined;
        const moved = change && hasMoved(change);
        const put = (next: number | null, as = '') =>
          onRead(
            measure.id,
            next === null && !reading?.note ? null : { value: next, note: reading?.note ?? '', as },
          );
        return (
          <Box
            component="li"
            key={measure.id}
            sx={{
              display: 'grid',
              gridTemplateColumns: '34px 1fr',
              columnGap: 1,
              borderBottom: '1px solid var(--rule)',
              py: 0.8,
              alignItems: 'end',
            }}
          >
            <Box className="figure" sx={{ color: 'var(--pencil)', pb: 1.2 }}>
              {i + 1}
            </Box>
            <Box sx={{ display: 'flex', gap: 1.5, alignItems: 'end' }}>
              <Box sx={{ flex: 1 }}>
                {inDegrees(measure.of) ? (
                  <AngleField
                    label={measure.name}
                    angleDeg={value}
                    min={-90}
                    max={90}
                    wrong="Degrees, from −90 to 90."
                    onChange={(deg) => put(deg)}
                    onEnter={() => goOn(i)}
                  />
                ) : (
                  <LengthField
                    label={measure.name}
                    mm={value}
                    empty="not read yet"
                    onChange={(mm, written) => put(mm, cut(written ?? '', 40))}
                    onEnter={() => goOn(i)}
                  />
                )}
              </Box>
              <Box
                className="figure"
                sx={{
                  width: 110,
                  pb: 1.2,
                  color: moved ? 'var(--torch)' : 'var(--pencil)',
                  fontWeight: moved ? 700 : 400,
                }}
              >
                {change ? `${moved ? '⚠ ' : ''}${changeSaid(measure, change.by, show)}` : ''}
              </Box>
            </Box>
          </Box>
        );
      })}
    </Box>
  );
}
