import Box from '@mui/material/Box';
import {
  BarController,
  BarElement,
  CategoryScale,
  Chart,
  LinearScale,
  PointElement,
  ScatterController,
  Tooltip,
} from 'chart.js';
import type { ChartData } from 'chart.js';
import { Chart as Drawn } from 'react-chartjs-2';
import type { Weighed } from '#core/survey/options';
import { usePreferences } from '../frame/preferences';
import { moneySaid } from './money';

Chart.register(
  BarController,
  BarElement,
  CategoryScale,
  LinearScale,
  PointElement,
  ScatterController,
  Tooltip,
);

/**
 * What each option costs, side by side: a bar from one in ten under to one in ten over, a ring
 * where as many are under as over.
 */
export default function OptionChart({
  weighed,
  names,
  cheapest,
  currency,
}: {
  weighed: readonly Weighed[];
  names: readonly string[];
  cheapest: number;
  currency: string;
}) {
  const { bench } = usePreferences();
  const dark = bench === 'dark';
  const [ink, rule, torch, zinc] = dark
    ? ['#ece6da', '#474d54', '#ff9558', '#7f878d']
    : ['#2a2825', '#cfc5b1', '#b8430a', '#8f979c'];
  const data: ChartData<'bar' | 'scatter', ([number, number] | { x: number; y: number })[]> = {
    labels: [...names],
    datasets: [
      {
        type: 'scatter' as const,
        data: weighed.map(({ p50 }, i) => ({ x: p50, y: i })),
        pointRadius: 8,
        pointBorderWidth: 3,
        pointBorderColor: ink,
        pointBackgroundColor: dark ? '#222529' : '#fffdf7',
        order: 0,
      },
      {
        type: 'bar' as const,
        data: weighed.map(({ p10, p90 }): [number, number] => [p10, Math.max(p90, p10 + 0.01)]),
        backgroundColor: weighed.map((_, i) => (i === cheapest ? torch : zinc)),
        barThickness: 22,
        order: 1,
      },
    ],
  };
  return (
    <Box sx={{ height: 70 + 62 * weighed.length, maxWidth: 900 }}>
      <Drawn
        type="bar"
        role="img"
        aria-label={weighed
          .map(
            ({ p10, p90 }, i) =>
              `${names[i]}: ${moneySaid(p10, currency)} to ${moneySaid(p90, currency)}`,
          )
          .join('; ')}
        data={data}
        options={{
          indexAxis: 'y',
          maintainAspectRatio: false,
          animation: false,
          scales: {
            x: {
              beginAtZero: true,
              ticks: {
                color: ink,
                callback: (value) => moneySaid(Number(value), currency),
                font: { size: 14, family: 'Barlow' },
              },
              grid: { color: rule },
            },
            y: {
              ticks: { color: ink, font: { size: 16, family: 'Barlow' } },
              grid: { display: false },
            },
          },
          plugins: { legend: { display: false }, tooltip: { enabled: false } },
        }}
      />
    </Box>
  );
}
