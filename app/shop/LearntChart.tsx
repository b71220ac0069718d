import Box from '@mui/material/Box';
import { Chart, Legend, LineElement, LinearScale, PointElement } from 'chart.js';
import { Scatter } from 'react-chartjs-2';
import { bendAllowance } from '#core/blank/fold/allowance';
import type { Rule } from '#core/blank/fold/allowance';
import type { Learnt, LearntGroup } from '#core/blank/fold/learnt';
import { yieldRange } from '#core/blank/fold/overbend';
import { springback } from '#core/blank/fold/springback';
import type { MetalId } from '#core/metal/metals';
import { metalById } from '#core/metal/metals';
import { usePreferences } from '../frame/preferences';

Chart.register(Legend, LineElement, LinearScale, PointElement);

type Point = { x: number; y: number | null };
type Line = { label: string; points: Point[]; dash: number[] };
type Marks = {
  label: string;
  readings: { x: number; y: number; u: number }[];
  point: 'circle' | 'crossRot' | 'rectRot';
};

/** Roundness of the lines: inside radius in thicknesses. */
const ROUND = Array.from({ length: 56 }, (_, i) => 0.25 + i * 0.11);
const SQUARE = 90;

/**
 * The shop's own readings of a metal beside the lines of the handbooks: K, and what a square bend
 * is folded to.
 */
export default function LearntChart({
  groups,
  metal,
}: {
  groups: readonly LearntGroup[];
  metal: MetalId;
}) {
  const { temper, young } = metalById(metal);
  const of = (list: LearntGroup['list']) =>
    groups.filter((group) => group.list === list).flatMap(({ readings }) => readings);
  const line = (label: string, rule: Rule, dash: number[]): Line => ({
    label,
    dash,
    points: ROUND.map((x) => {
      const found = bendAllowance({ thicknessMm: 1, radiusMm: x, angleDeg: SQUARE }, rule);
      return { x, y: found.ok ? found.k : null };
    }),
  });
  const [soft, hard] = yieldRange(metalById(metal));
  const sprung = (label: string, yieldMpa: number, dash: number[]): Line => ({
    label,
    dash,
    points: ROUND.map((x) => {
      const found = springback({
        thicknessMm: 1,
        radiusMm: x,
        angleDeg: SQUARE,
        yieldMpa,
        youngMpa: young.value,
      });
      return { x, y: found.ok ? found.foldToDeg : null };
    }),
  });
  const strips = of('strips');
  const springs = of('springs').map((one) => ({
    ...one,
    value: SQUARE / one.value,
    u: (SQUARE * one.u) / one.value ** 2,
  }));
  return (
    <Box sx={{ display: 'grid', gap: 2 }}>
      <Readings
        label="K of test bends beside the handbooks"
        y="K"
        lines={[
          line('DIN 6935, the line', { kind: 'din6935' }, []),
          line('Machinery’s Handbook, dashed', { kind: 'machinery', temper }, [8, 4]),
          line('FAA, dotted', { kind: 'faa' }, [2, 3]),
        ]}
        marks={marksOf(strips)}
      />
      <Readings
        label="What a square bend is folded to"
        y="fold to, degrees"
        lines={[
          sprung(`by the figures at ${Math.round(soft)} N/mm², the line`, soft, []),
          sprung(`at ${Math.round(hard)} N/mm², dashed`, hard, [8, 4]),
        ]}
        marks={marksOf(springs)}
      />
    </Box>
  );
}

const marksOf = (readings: readonly Learnt[]): Marks[] => {
  const some = (label: string, point: Marks['point'], which: (one: Learnt) => boolean): Marks => ({
    label,
    point,
    readings: readings.filter(which).map(({ round, value, u }) => ({ x: round, y: value, u })),
  });
  return [
    some('measured here', 'circle', ({ leftOut, standsOut }) => leftOut === null && !standsOut),
    some('stands out', 'rectRot', ({ leftOut, standsOut }) => leftOut === null && standsOut),
    some('left out', 'crossRot', ({ leftOut }) => leftOut !== null),
  ].filter(({ readings }) => readings.length > 0);
};

function Readings({
  label,
  y,
  lines,
  marks,
}: {
  label: string;
  y: string;
  lines: readonly Line[];
  marks: readonly Marks[];
}) {
  const { bench } = usePreferences();
  const [ink, rule, torch, layout] =
    bench === 'dark'
      ? ['#ece6da', '#474d54', '#ff9558', '#8db9ea']
      : ['#2a2825', '#cfc5b1', '#b8430a', '#1f4a80'];
  const font = { size: 14, family: 'Barlow' };
  const data = {
    datasets: [
      ...lines.map(({ label, points, dash }) => ({
        label,
        data: points,
        showLine: true,
        borderColor: layout,
        backgroundColor: layout,
        borderDash: dash,
        borderWidth: 2,
        pointRadius: 0,
        pointStyle: 'line' as const,
      })),
      ...marks.flatMap(({ label, readings, point }) => [
        {
          label,
          data: readings.map(({ x, y }) => ({ x, y })),
          showLine: false,
          borderColor: torch,
          backgroundColor: torch,
          borderDash: [],
          borderWidth: 2,
          pointRadius: 6,
          pointStyle: point,
        },
        // How sure each is: a line up and down.
        {
          label: '',
          data: readings.flatMap(({ x, y, u }): Point[] => [
            { x, y: y - u },
            { x, y: y + u },
            { x, y: null },
          ]),
          showLine: true,
          borderColor: torch,
          backgroundColor: torch,
          borderDash: [],
          borderWidth: 2,
          pointRadius: 0,
          pointStyle: 'line' as const,
        },
      ]),
    ],
  };
  return (
    <Box sx={{ height: 260 }}>
      <Scatter
        role="img"
        aria-label={label}
        data={data as never}
        options={{
          maintainAspectRatio: false,
          animation: false,
          scales: {
            x: {
              min: 0,
              title: { display: true, text: 'inside radius, in thicknesses', color: ink, font },
              ticks: { color: ink, font },
              grid: { color: rule },
            },
            y: {
              title: { display: true, text: y, color: ink, font },
              ticks: { color: ink, font },
              grid: { color: rule },
            },
          },
          plugins: {
            legend: {
              position: 'bottom',
              labels: {
                color: ink,
                font,
                usePointStyle: true,
                boxHeight: 7,
                filter: ({ text }) => text !== '',
              },
            },
          },
        }}
      />
    </Box>
  );
}
