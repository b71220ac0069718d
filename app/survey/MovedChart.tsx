import Box from '@mui/material/Box';
import {
  CategoryScale,
  Chart,
  Legend,
  LineElement,
  LinearScale,
  PointElement,
  Tooltip,
} from 'chart.js';
import { Line } from 'react-chartjs-2';
import { inDegrees } from '#core/survey/kinds';
import type { Change } from '#core/survey/moved';
import { readIn } from '#core/survey/moved';
import { MM_PER_INCH } from '#core/measure/length';
import { usePreferences } from '../frame/preferences';
import { useSurvey } from './useSurvey';

Chart.register(CategoryScale, Legend, LineElement, LinearScale, PointElement, Tooltip);

/** Told apart without colour as well. */
const STYLES = [
  { dash: [], point: 'circle' },
  { dash: [7, 4], point: 'rect' },
  { dash: [2, 3], point: 'triangle' },
  { dash: [9, 3, 2, 3], point: 'rectRot' },
  { dash: [4, 4], point: 'star' },
  { dash: [1, 3], point: 'crossRot' },
] as const;

/** What moved most, round after round, against the first round each was read in. */
export default function MovedChart({ changes }: { changes: readonly Change[] }) {
  const { rounds } = useSurvey();
  const { bench, unit } = usePreferences();
  const ink = bench === 'dark' ? '#ece6da' : '#2a2825';
  const rule = bench === 'dark' ? '#474d54' : '#cfc5b1';
  const torch = bench === 'dark' ? '#ff9558' : '#b8430a';
  const scale = unit === 'mm' ? 1 : 1 / MM_PER_INCH;
  const most = [...changes].filter(({ measure }) => !inDegrees(measure.of)).slice(0, STYLES.length);
  if (most.length === 0) return null;
  const data = {
    labels: rounds.map((round) => round.name),
    datasets: most.map(({ measure, from }, i) => ({
      label: measure.name,
      data: rounds.map((round) => {
        const value = readIn(round, measure);
        return value === null ? null : (value - readIn(from, measure)!) * scale;
      }),
      spanGaps: true,
      borderColor: i === 0 ? torch : ink,
      backgroundColor: i === 0 ? torch : ink,
      borderDash: [...STYLES[i]!.dash],
      borderWidth: i === 0 ? 3 : 2,
      pointStyle: STYLES[i]!.point,
      pointRadius: 5,
    })),
  };
  return (
    <Box sx={{ height: 320, mb: 2.5 }}>
      <Line
        aria-label={`How far ${most.map(({ measure }) => measure.name).join(', ')} moved over the rounds`}
        role="img"
        data={data}
        options={{
          maintainAspectRatio: false,
          animation: false,
          scales: {
            x: {
              ticks: { color: ink, font: { size: 15, family: 'Barlow' } },
              grid: { color: rule },
            },
            y: {
              title: {
                display: true,
                text: `since first read, ${unit === 'mm' ? 'mm' : 'in'}`,
                color: ink,
              },
              ticks: { color: ink },
              grid: { color: rule },
            },
          },
          plugins: {
            legend: {
              position: 'bottom',
              labels: { color: ink, usePointStyle: true, font: { size: 14, family: 'Barlow' } },
            },
          },
        }}
      />
    </Box>
  );
}
