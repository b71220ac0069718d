import { useState } from 'react';
import type { Shop } from '#core/blank/shopSchema';
import { sectionOf } from '#core/machine/brake';
import { degrees } from '#core/measure/angle';
import type { Vec } from '#core/measure/vector';
import { distance } from '#core/measure/vector';
import { Drawing, useView } from '../drawing/Drawing';
import { usePreferences } from '../frame/preferences';

type ShopBrake = Shop['brakes'][number];

/**
 * What can be taken hold of in a section: the height of the beam, the lean of the front, the rear
 * of bar and bed, the apron.
 */
type Grip = 'height' | 'lean' | 'depth' | 'bed' | 'apron';

/** Reach of a fingertip, pixels. */
const REACH_PX = 26;

function gripsOf(brake: ShopBrake): { grip: Grip; at: Vec }[] {
  const { noseHeightMm: high, noseDepthMm: deep, noseRakeDeg, apronMm, bedMm = deep } = brake;
  const up = Math.min(high, reachOf(brake)) * 0.5;
  const back = Math.min(Math.tan((noseRakeDeg * Math.PI) / 180) * up, deep * 0.75);
  return [
    ...(brake.noseMm ? [] : [{ grip: 'lean' as const, at: [-back, up] as Vec }]),
    { grip: 'height', at: [-reachOf(brake) * 0.75, Math.min(high, reachOf(brake))] },
    { grip: 'depth', at: [-Math.min(deep, reachOf(brake)), up * 0.4] },
    { grip: 'bed', at: [-Math.min(bedMm, reachOf(brake)), -reachOf(brake) * 0.36] },
    { grip: 'apron', at: [apronMm, -reachOf(brake) * 0.36] },
  ];
}

const whole = (mm: number, least: number, most = 20_000) =>
  Math.round(Math.min(most, Math.max(least, mm)));

/** The figures as a grip is drawn to a place. */
function drawn(grip: Grip, [x, z]: Vec): Partial<ShopBrake> {
  switch (grip) {
    case 'height':
      return { noseHeightMm: whole(z, 1) };
    case 'depth':
      return { noseDepthMm: whole(-x, 1) };
    case 'bed':
      return { bedMm: whole(-x, 0) };
    case 'apron':
      return { apronMm: whole(x, 0) };
    case 'lean':
      return { noseRakeDeg: whole(degrees(Math.atan2(-x, Math.max(1, z))), 0, 85) };
  }
}

/** A machine in section: its figures are changed by drawing at the rings. */
export function BrakeSection({
  brake,
  change,
}: {
  brake: ShopBrake;
  change: (next: Partial<ShopBrake>) => void;
}) {
  const [held, hold] = useState<Grip | null>(null);
  return (
    <Drawing
      bounds={boundsOf(brake)}
      ground="blank"
      label={`${brake.name} in section`}
      onDown={(p, scale) => {
        const near = gripsOf(brake)
          .map((one) => ({ ...one, off: distance(one.at, p) * scale }))
          .sort((a, b) => a.off - b.off)[0]!;
        hold(near.off <= REACH_PX ? near.grip : null);
        return near.off <= REACH_PX;
      }}
      onMove={(p) => held && change(drawn(held, p))}
      onUp={() => hold(null)}
    >
      <Section brake={brake} held={held} />
    </Drawing>
  );
}

/** The sheet as it is drawn in a section, mm thick. */
const SHEET_MM = 1.5;
const reachOf = ({ noseHeightMm, noseDepthMm }: ShopBrake) =>
  Math.max(40, Math.min(180, Math.max(noseHeightMm, noseDepthMm) + 20));
/**
 * Maximum depth at which the bench is drawn to scale, in reaches; a lower one is drawn there, with
 * its depth.
 */
const BENCH_REACHES = 1.6;
const benchAt = (brake: ShopBrake): number | null =>
  brake.benchMm === undefined
    ? null
    : -SHEET_MM - Math.min(brake.benchMm, BENCH_REACHES * reachOf(brake));
const boundsOf = (brake: ShopBrake) => {
  const reach = reachOf(brake);
  const bench = benchAt(brake);
  return {
    minX: -reach,
    maxX: reach * 0.7,
    minY: Math.min(-reach * 0.5, bench === null ? 0 : bench - reach * 0.15),
    maxY: reach,
  };
};

function Section({ brake, held: inHand }: { brake: ShopBrake; held: Grip | null }) {
  const { px, scale } = useView();
  const { show } = usePreferences();
  const found = sectionOf(brake, SHEET_MM);
  if (!found.ok) return null;
  const far = 3 * reachOf(brake);
  const held = (value: number) => Math.max(-far, Math.min(far, value));
  const path = (polygon: readonly Vec[]) =>
    `M${polygon.map(([x, z]) => px([held(x), held(z)]).join(' ')).join('L')}Z`;
  const [[x1, y], [x2]] = [px([-far, -SHEET_MM / 2]), px([reachOf(brake) * 0.6, 0])];
  // The bench is drawn as a line: it may be far below.
  const parts = found.parts.filter(({ name }) => name !== 'bench');
  const bench = benchAt(brake);
  const [left, top] = px([-1.4 * reachOf(brake), bench ?? 0]);
  const [rear] = px([-(brake.bedMm ?? brake.noseDepthMm), 0]);
  return (
    <g>
      {parts.map(({ name, section }, i) => (
        <path
          key={i}
          d={path(section)}
          fill={name === 'apron' ? 'var(--zinc)' : 'var(--zinc-deep)'}
          stroke="var(--ink)"
          strokeWidth={1.2}
          opacity={name === 'beam' ? 0.55 : 0.9}
        />
      ))}
      {bench !== null && (
        <>
          <line
            x1={left}
            x2={x2}
            y1={top}
            y2={top}
            stroke="var(--ink)"
            strokeWidth={2.5}
            strokeDasharray={brake.benchMm! > -bench ? '10 7' : undefined}
          />
          <text
            x={rear - 10}
            y={top - 9}
            textAnchor="end"
            fontSize={15}
            fill="var(--ink)"
            className="condensed"
          >
            bench or floor{brake.benchMm! > -bench ? `, ${show(brake.benchMm!)} down` : ''}
          </text>
        </>
      )}
      <line
        x1={x1}
        y1={y}
        x2={x2}
        y2={y}
        stroke="var(--layout)"
        strokeWidth={Math.max(3, SHEET_MM * scale)}
      />
      {parts.map(({ name, section }, i) => {
        if (parts.findIndex((one) => one.name === name) !== i) return null;
        const near = section.map(([x, z]): Vec => [
          Math.max(-0.9 * reachOf(brake), x),
          Math.max(-0.4 * reachOf(brake), Math.min(0.9 * reachOf(brake), z)),
        ]);
        const [cx, cy] = px([
          near.reduce((sum, p) => sum + p[0], 0) / near.length,
          near.reduce((sum, p) => sum + p[1], 0) / near.length,
        ]);
        return (
          <text
            key={name}
            x={cx}
            y={cy}
            textAnchor="middle"
            fontSize={15}
            fill="var(--ink)"
            className="condensed"
          >
            {name}
          </text>
        );
      })}
      {gripsOf(brake).map(({ grip, at }) => {
        const [cx, cy] = px(at);
        return (
          <circle
            key={grip}
            cx={cx}
            cy={cy}
            r={9}
            fill={inHand === grip ? 'var(--torch)' : 'var(--panel)'}
            stroke="var(--torch)"
            strokeWidth={3}
            style={{ cursor: 'grab' }}
          />
        );
      })}
    </g>
  );
}
