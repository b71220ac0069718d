import Box from '@mui/material/Box';
import {
  CategoryScale,
  Chart,
  Filler,
  Legend,
  LineElement,
  LinearScale,
  PointElement,
  Tooltip,
} from 'chart.js';
import { Line } from 'react-chartjs-2';
import type { FitRecord } from '#core/format/job';
import { MM_PER_INCH } from '#core/measure/length';
import { usePreferences } from '../frame/preferences';
import type { Fit } from '../records/records.server';

Chart.register(CategoryScale, Filler, Legend, LineElement, LinearScale, PointElement, Tooltip);

type EdgeRecord = FitRecord['edges'][number];

const STYLES = [
  { dash: [], width: 3, point: 'circle' },
  { dash: [6, 4], width: 2, point: 'rect' },
  { dash: [2, 3], width: 2, point: 'triangle' },
] as const;

/** The gap along an edge at the last three trials, against the band that is wanted. */
export default function GapChart({
  edge,
  length,
  fits,
  now,
}: {
  edge: string;
  length: number;
  fits: Fit[];
  now: EdgeRecord;
}) {
  const { bench, unit } = usePreferences();
  // In the unit in use: millimetres, or inches along and thousandths across.
  const along = unit === 'mm' ? 1 : 1 / MM_PER_INCH;
  const wide = unit === 'mm' ? 1 : 1000 / MM_PER_INCH;
  const ink = bench === 'dark' ? '#ece6da' : '#2a2825';
  const rule = bench === 'dark' ? '#474d54' : '#cfc5b1';
  const band = bench === 'dark' ? 'rgba(140,207,154,.22)' : 'rgba(47,107,60,.16)';
  const trials = fits
    .map((fit, i) => ({
      number: i + 1,
      record: i === fits.length - 1 ? now : fit.edges.find((e) => e.edge === edge),
    }))
    .filter((trial) => trial.record?.stations.some((s) => s.gapMm !== null))
    .slice(-3)
    .reverse();
  const flat = (y: number) => [0, length].map((x) => ({ x: x * along, y: y * wide }));
  const data = {
    datasets: [
      ...trials.map(({ number, record }, i) => ({
        label: `Trial ${number}`,
        data: record!.stations
          .filter((s) => s.gapMm !== null)
          .map((s) => ({ x: s.atMm * along, y: s.gapMm! * wide })),
        borderColor: i === 0 ? (bench === 'dark' ? '#ff9558' : '#b8430a') : ink,
        backgroundColor: i === 0 ? (bench === 'dark' ? '#ff9558' : '#b8430a') : ink,
        borderDash: [...STYLES[i]!.dash],
        borderWidth: STYLES[i]!.width,
        pointStyle: STYLES[i]!.point,
        pointRadius: 5,
      })),
      {
        label: 'Wanted',
        data: flat(now.targetMm + now.toleranceMm),
        borderColor: 'transparent',
        backgroundColor: band,
        pointRadius: 0,
        fill: '+1',
      },
      {
        label: '',
        data: flat(Math.max(0, now.targetMm - now.toleranceMm)),
        borderColor: 'transparent',
        pointRadius: 0,
        fill: false,
      },
    ],
  };
  const said = trials
    .map((t) => `trial ${t.number}: ${t.record!.stations.map((s) => s.gapMm ?? '–').join(', ')}`)
    .join('; ');
  return (
    <Box
      sx={{ height: 180 }}
      role="img"
      aria-label={`Gap along the edge in mm, ${said || 'nothing read yet'}`}
    >
      <Line
        role="presentation"
        data={data}
        options={{
          animation: false,
          maintainAspectRatio: false,
          parsing: false,
          scales: {
            x: {
              type: 'linear',
              min: 0,
              max: length * along,
              grid: { color: rule },
              ticks: { color: ink, maxTicksLimit: 6 },
              title: {
                display: true,
                text: unit === 'mm' ? 'mm along the edge' : 'inches along the edge',
                color: ink,
              },
            },
            y: {
              type: 'linear',
              beginAtZero: true,
              suggestedMax: (now.targetMm + 2 * now.toleranceMm) * wide,
              grid: { color: rule },
              ticks: { color: ink, maxTicksLimit: 5 },
              title: {
                display: true,
                text: unit === 'mm' ? 'gap, mm' : 'gap, thousandths of an inch',
                color: ink,
              },
            },
          },
          plugins: {
            legend: {
              labels: { color: ink, usePointStyle: true, filter: (item) => item.text !== '' },
            },
            tooltip: { enabled: true },
          },
        }}
      />
    </Box>
  );
}
