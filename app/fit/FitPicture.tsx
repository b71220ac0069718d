import { outlineOf, segmentsOfEdge } from '#core/card/outline';
import type { FitRecord } from '#core/format/job';
import { offsetRight } from '#core/measure/segment';
import type { Segment } from '#core/measure/segment';
import type { Vec } from '#core/measure/vector';
import { along } from '#core/measure/vector';
import { outwardAlong, pointAlong, runLength } from '#core/weld/plugs';
import { useView } from '../drawing/Drawing';
import { EdgeTag, HoleMark, Pickable, usePathData } from '../drawing/marks';
import { hangTags } from '../drawing/tags';
import type { Pick } from '../shell/pieceContext';
import { usePiece } from '../shell/pieceContext';

/** Gaps are drawn this many times as wide as they are. */
const TIMES = 12;

type EdgeRecord = FitRecord['edges'][number];

/** The piece in its hole: grey steel, the neighbours lightly, every gap read drawn wider than it is. */
export function FitPicture({
  fit,
  pick,
  onPick,
}: {
  fit: FitRecord | null;
  pick: Pick;
  onPick: (pick: Pick) => void;
}) {
  const { pattern } = usePiece();
  const { px } = useView();
  const data = usePathData();
  const { path } = outlineOf(pattern);
  const runs = pattern.edges.map((edge) => segmentsOfEdge(pattern, edge));
  const hung = hangTags(runs, px, 62);
  return (
    <g>
      <path d={data(path)} fill="var(--zinc)" stroke="var(--zinc-line)" strokeWidth={2} strokeLinejoin="round" />
      {pattern.folds.map((fold) => {
        const at = (place: { side: string; at: number }) => {
          const side = path[pattern.sides.findIndex((s) => s.id === place.side)];
          return side && px(along(side.a, [side.b[0] - side.a[0], side.b[1] - side.a[1]], place.at));
        };
        const a = at(fold.from);
        const b = at(fold.to);
        return (
          a &&
          b && (
            <line
              key={fold.id}
              x1={a[0]}
              y1={a[1]}
              x2={b[0]}
              y2={b[1]}
              stroke="var(--zinc-deep)"
              strokeWidth={5}
              opacity={0.6}
            />
          )
        );
      })}
      {pattern.holes.map((hole) => (
        <HoleMark
          key={hole.id}
          at={[hole.x, hole.y]}
          diameterMm={hole.diameterMm}
          stroke="var(--zinc-line)"
          fill="var(--paper)"
          width={1.2}
        />
      ))}
      {pattern.edges.map((edge, i) => {
        const run = runs[i]!;
        const tag = hung[i];
        const record = fit?.edges.find((e) => e.edge === edge.id);
        const picked = pick?.kind === 'edge' && pick.id === edge.id;
        return (
          <Pickable
            key={edge.id}
            label={`Edge ${edge.letter}`}
            picked={picked}
            onPick={() => onPick({ kind: 'edge', id: edge.id })}
          >
            {record && <Gap run={run} record={record} />}
            <path
              d={data(run, false)}
              fill="none"
              stroke={picked ? 'var(--torch)' : 'transparent'}
              strokeWidth={picked ? 4 : 20}
            />
            {tag && <EdgeTag tag={tag} letter={edge.letter} picked={picked} />}
          </Pickable>
        );
      })}
      <text x={14} y={28} fontSize={15} fill="var(--pencil)" fontFamily="Barlow">
        Gaps drawn {TIMES} times as wide as they are
      </text>
    </g>
  );
}

/** The neighbour's edge along a run, stood off by the gaps that were read; ticks say where and whether each is right. */
function Gap({ run, record }: { run: readonly Segment[]; record: EdgeRecord }) {
  const { px } = useView();
  const data = usePathData();
  const read = record.stations.filter((s) => s.gapMm !== null).sort((a, b) => a.atMm - b.atMm);
  if (read.length === 0)
    return (
      <path
        d={data(
          run.map((s) => offsetRight(s, 4)),
          false,
        )}
        fill="none"
        stroke="var(--rule)"
        strokeWidth={2}
        strokeDasharray="6 6"
      />
    );
  const at = (mm: number, off: number): Vec => {
    const p = pointAlong(run, mm) ?? run[0]!.a;
    return along(p, outwardAlong(run, mm), off);
  };
  const total = runLength(run);
  const stood = (s: (typeof read)[number]) => px(at(s.atMm, s.gapMm! * TIMES));
  const first = read[0]!;
  const last = read[read.length - 1]!;
  const neighbour = [px(at(0, first.gapMm! * TIMES)), ...read.map(stood), px(at(total, last.gapMm! * TIMES))];
  return (
    <g>
      <polyline
        points={neighbour.map((p) => p.join(',')).join(' ')}
        fill="none"
        stroke="var(--zinc-deep)"
        strokeWidth={3.4}
      />
      {read.map((s) => {
        const [x1, y1] = px(at(s.atMm, 0));
        const [x2, y2] = stood(s);
        const over = s.gapMm! - record.targetMm;
        const off = Math.abs(over) > record.toleranceMm + 1e-9;
        const colour = !off ? 'var(--good)' : over > 0 ? 'var(--wide)' : 'var(--tight)';
        return (
          <g key={s.atMm}>
            <line
              x1={x1}
              y1={y1}
              x2={x2}
              y2={y2}
              stroke={colour}
              strokeWidth={2.4}
              strokeDasharray={off ? undefined : '3 3'}
            />
            {/* Round when right, a wedge outward when wide, a bar when tight: not by colour alone. */}
            {!off ? (
              <circle cx={x2} cy={y2} r={4} fill={colour} />
            ) : (
              <rect
                x={x2 - 5}
                y={y2 - 5}
                width={10}
                height={10}
                fill={colour}
                transform={over > 0 ? `rotate(45 ${x2} ${y2})` : undefined}
              />
            )}
          </g>
        );
      })}
    </g>
  );
}
