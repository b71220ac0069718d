import { outlineOf, segmentsOfEdge } from '#core/card/outline';
import { outwardAlong, pointAlong } from '#core/measure/run';
import type { Vec } from '#core/measure/vector';
import { along } from '#core/measure/vector';
import { useView } from '../drawing/Drawing';
import { NEIGHBOUR_PX, Neighbour, SteelPicture, hasNeighbour } from '../drawing/SteelPicture';
import { EdgeTag, Pickable, Threads, usePathData } from '../drawing/marks';
import type { Pick } from '../drawing/pick';
import { hangTags, tagHalfWidth } from '../drawing/tags';
import { usePiece } from './pieceContext';
import type { Seam } from '#core/weld/seams';

/** How far off the neighbour is drawn, pixels. */
const SEAM_PX = 5;

/** The piece in its hole with every tack and plug: numbered rings to make, filled ones made. */
export function WeldPicture({
  seams,
  pick,
  onPick,
}: {
  seams: readonly Seam[];
  pick: Pick;
  onPick: (pick: Pick) => void;
}) {
  const { pattern, meets } = usePiece();
  const data = usePathData();
  const view = useView();
  const runs = pattern.edges.map((edge) => segmentsOfEdge(pattern, edge));
  const hung = hangTags(
    pattern.edges.map((edge, i) => ({
      run: runs[i]!,
      away: hasNeighbour(edge, meets(edge.id)) ? NEIGHBOUR_PX + 30 : 36,
      halfWidth: tagHalfWidth(edge.letter),
    })),
    outlineOf(pattern).path,
    view,
  );
  return (
    <SteelPicture pattern={pattern}>
      {pattern.edges.map((edge, i) =>
        hasNeighbour(edge, meets(edge.id)) ? (
          <Neighbour key={edge.id} run={runs[i]!} name={meets(edge.id)} gapPx={() => SEAM_PX} />
        ) : null,
      )}
      <Threads tags={hung} />
      {pattern.edges.map((edge, i) => {
        const run = runs[i]!;
        const tag = hung[i];
        const picked = pick?.kind === 'edge' && pick.id === edge.id;
        const seam = seams.find((s) => s.edge.id === edge.id);
        return (
          <Pickable
            key={edge.id}
            label={`Edge ${edge.letter}${seam ? '' : ', not welded'}`}
            picked={picked}
            onPick={() => onPick({ kind: 'edge', id: edge.id })}
          >
            <path className="hit" d={data(run, false)} fill="none" />
            <path
              d={data(run, false)}
              fill="none"
              stroke={picked ? 'var(--torch)' : seam ? 'var(--zinc-line)' : 'var(--zinc-deep)'}
              strokeWidth={picked ? 5 : seam ? 3.4 : 1.4}
              strokeDasharray={seam ? undefined : '4 5'}
            />
            {tag && <EdgeTag tag={tag} letter={edge.letter} picked={picked} />}
          </Pickable>
        );
      })}
      {seams.map((seam) => (
        <Spots key={seam.edge.id} seam={seam} picked={pick?.id === seam.edge.id} />
      ))}
    </SteelPicture>
  );
}

function Spots({ seam, picked }: { seam: Seam; picked: boolean }) {
  const { px, scale } = useView();
  const at = (mm: number, off: number): Vec | null => {
    const p = pointAlong(seam.run, mm);
    return p && along(p, outwardAlong(seam.run, mm), off);
  };
  // As large as their spacing allows; numbers only where there is room for them.
  const spots = seam.plugs.length > 0 ? seam.plugs : seam.tacks;
  const r = Math.max(
    3,
    Math.min(picked ? 11 : 8, ((seam.lengthMm / Math.max(1, spots.length)) * scale) / 2 - 1),
  );
  return (
    <g pointerEvents="none">
      {spots.map((mm, i) => {
        const made = seam.plugs.length > 0 ? seam.plugsDone.has(i + 1) : seam.tacksDone.has(i + 1);
        const p = at(mm, seam.plugs.length > 0 ? -7 / scale : 0);
        if (!p) return null;
        const [x, y] = px(p);
        return (
          <g key={i}>
            {seam.plugs.length > 0 ? (
              <circle
                cx={x}
                cy={y}
                r={r}
                fill={made ? 'var(--zinc-line)' : 'var(--paper)'}
                stroke="var(--zinc-line)"
                strokeWidth={2}
              />
            ) : (
              <rect
                x={x - r}
                y={y - r}
                width={2 * r}
                height={2 * r}
                rx={4}
                fill={made ? 'var(--zinc-line)' : 'var(--paper)'}
                stroke="var(--zinc-line)"
                strokeWidth={2}
              />
            )}
            {r >= 7 && (
              <text
                x={x}
                y={y + 4}
                textAnchor="middle"
                className="figure"
                fontSize={picked ? 12 : 10}
                fontWeight={500}
                fill={made ? 'var(--paper)' : 'var(--ink)'}
              >
                {i + 1}
              </text>
            )}
          </g>
        );
      })}
    </g>
  );
}
