import { segmentsOfEdge, outlineOf } from '#core/card/outline';
import type { FitRecord } from '#core/format/job';
import { outwardAlong, pointAlong } from '#core/measure/run';
import type { Segment } from '#core/measure/segment';
import type { Vec } from '#core/measure/vector';
import { along } from '#core/measure/vector';
import { useView } from '../drawing/Drawing';
import { NEIGHBOUR_PX, Neighbour, SteelPicture, hasNeighbour } from '../drawing/SteelPicture';
import { EdgeTag, GapMark, Pickable, Threads, usePathData } from '../drawing/marks';
import type { Pick } from '../drawing/pick';
import { hangTags, tagHalfWidth } from '../drawing/tags';
import { usePiece } from '../piece/pieceContext';

/** Enlargement of gaps as drawn: the largest of these that keeps the widest within reach. */
const FACTORS = [20, 12, 8, 5, 3, 2, 1];
const WIDEST_PX = 74;
/** A gap that nobody has read yet is drawn as a thin line. */
const UNREAD_PX = 4;

type EdgeRecord = FitRecord['edges'][number];
type Read = { atMm: number; gapMm: number };

const readingsOf = (record: EdgeRecord | undefined): Read[] =>
  (record?.stations ?? [])
    .flatMap(({ atMm, gapMm }) => (gapMm === null ? [] : [{ atMm, gapMm }]))
    .sort((a, b) => a.atMm - b.atMm);

/**
 * The gap `mm` along an edge, interpolated linearly between readings and constant beyond the last.
 */
function gapAt(readings: readonly Read[], mm: number): number {
  const after = readings.findIndex((r) => r.atMm >= mm);
  if (after === 0) return readings[0]!.gapMm;
  if (after < 0) return readings[readings.length - 1]!.gapMm;
  const [a, b] = [readings[after - 1]!, readings[after]!];
  return a.gapMm + ((b.gapMm - a.gapMm) * (mm - a.atMm)) / Math.max(1e-9, b.atMm - a.atMm);
}

/**
 * The piece in its hole: grey steel, the neighbours lightly, every gap read drawn wider than it is.
 */
export function FitPicture({
  fit,
  pick,
  onPick,
}: {
  fit: FitRecord | null;
  pick: Pick;
  onPick: (pick: Pick) => void;
}) {
  const { pattern, meets } = usePiece();
  const view = useView();
  const data = usePathData();
  const runs = pattern.edges.map((edge) => segmentsOfEdge(pattern, edge));
  const records = pattern.edges.map((edge) => fit?.edges.find((e) => e.edge === edge.id));
  const readings = records.map(readingsOf);
  const widest = Math.max(0.5, ...readings.flat().map((r) => Math.abs(r.gapMm)));
  const times = FACTORS.find((factor) => factor * widest * view.scale <= WIDEST_PX) ?? 1;
  const gapPx = (i: number) => (mm: number) =>
    readings[i]!.length > 0 ? gapAt(readings[i]!, mm) * times * view.scale : UNREAD_PX;
  const hung = hangTags(
    pattern.edges.map((edge, i) => {
      const beyond = Math.max(0, ...readings[i]!.map((r) => r.gapMm * times * view.scale));
      const stands = hasNeighbour(edge, meets(edge.id)) || readings[i]!.length > 0;
      return {
        run: runs[i]!,
        away: stands ? beyond + NEIGHBOUR_PX + 26 : 34,
        halfWidth: tagHalfWidth(edge.letter),
      };
    }),
    outlineOf(pattern).path,
    view,
  );
  return (
    <SteelPicture pattern={pattern}>
      {pattern.edges.map((edge, i) =>
        hasNeighbour(edge, meets(edge.id)) || readings[i]!.length > 0 ? (
          <Neighbour key={edge.id} run={runs[i]!} name={meets(edge.id)} gapPx={gapPx(i)} />
        ) : null,
      )}
      <Threads tags={hung} />
      {pattern.edges.map((edge, i) => {
        const tag = hung[i];
        const record = records[i];
        const picked = pick?.kind === 'edge' && pick.id === edge.id;
        return (
          <Pickable
            key={edge.id}
            label={`Edge ${edge.letter}`}
            picked={picked}
            onPick={() => onPick({ kind: 'edge', id: edge.id })}
          >
            {record && (
              <Ticks run={runs[i]!} record={record} readings={readings[i]!} times={times} />
            )}
            <path className="hit" d={data(runs[i]!, false)} fill="none" />
            {picked && (
              <path d={data(runs[i]!, false)} fill="none" stroke="var(--torch)" strokeWidth={4} />
            )}
            {tag && <EdgeTag tag={tag} letter={edge.letter} picked={picked} />}
          </Pickable>
        );
      })}
      <text x={14} y={28} fontSize={15} fill="var(--pencil)" fontFamily="Barlow">
        {times === 1
          ? 'Gaps drawn as wide as they are'
          : `Gaps drawn ${times} times as wide as they are`}
      </text>
    </SteelPicture>
  );
}

/**
 * A tick across the gap at each station read: whether it is right, wide or tight, not by colour
 * alone.
 */
function Ticks({
  run,
  record,
  readings,
  times,
}: {
  run: readonly Segment[];
  record: EdgeRecord;
  readings: readonly Read[];
  times: number;
}) {
  const { px } = useView();
  const at = (mm: number, off: number): Vec => {
    const p = pointAlong(run, mm) ?? run[0]!.a;
    return px(along(p, outwardAlong(run, mm), off));
  };
  return (
    <g>
      {readings.map((s) => {
        const [x1, y1] = at(s.atMm, 0);
        const [x2, y2] = at(s.atMm, s.gapMm * times);
        const over = s.gapMm - record.targetMm;
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
            <GapMark state={!off ? 'right' : over > 0 ? 'wide' : 'tight'} x={x2} y={y2} />
          </g>
        );
      })}
    </g>
  );
}
