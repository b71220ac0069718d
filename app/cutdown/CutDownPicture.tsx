import { edgeLength, outlineOf, segmentsOfEdge } from '#core/card/outline';
import type { PatternDoc } from '#core/card/pattern';
import { outwardAlong, pointAlong, runLength } from '#core/measure/run';
import type { Vec } from '#core/measure/vector';
import { along } from '#core/measure/vector';
import { useView } from '../drawing/Drawing';
import { NEIGHBOUR_PX, Neighbour, SteelPicture, hasNeighbour } from '../drawing/SteelPicture';
import { EdgeTag, Figure, Pickable, Threads, usePathData } from '../drawing/marks';
import type { Pick } from '../drawing/pick';
import { hangTags, tagHalfWidth } from '../drawing/tags';
import { usePreferences } from '../frame/preferences';

/** How far off the neighbour is drawn, pixels. */
const SEAM_PX = 5;
/** A length clear of its edge, pixels: half as wide and half as high as it is written, and a gap. */
const [HALF_WIDE_PX, HALF_HIGH_PX, CLEAR_PX] = [46, 12, 12];
const clearPx = ([x, y]: Vec): number =>
  CLEAR_PX + HALF_WIDE_PX * Math.abs(x) + HALF_HIGH_PX * Math.abs(y);

/** A piece that was not made here: its edges with their letters and lengths, and what they meet. */
export function CutDownPicture({
  pattern,
  meets,
  wrongAt,
  pick,
  onPick,
}: {
  pattern: PatternDoc;
  meets: (edge: string) => string;
  /** Edges at which something is wrong with it. */
  wrongAt: ReadonlySet<string>;
  pick: Pick;
  onPick?: (pick: Pick) => void;
}) {
  const { show } = usePreferences();
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
        const wrong = wrongAt.has(edge.id);
        const half = runLength(run) / 2;
        const middle = pointAlong(run, half);
        const out = outwardAlong(run, half);
        return (
          <Pickable
            key={edge.id}
            label={`Edge ${edge.letter}${wrong ? ', a fault is open' : ''}`}
            picked={picked}
            onPick={() => onPick?.({ kind: 'edge', id: edge.id })}
          >
            <path className="hit" d={data(run, false)} fill="none" />
            <path
              d={data(run, false)}
              fill="none"
              stroke={picked || wrong ? 'var(--torch)' : 'var(--zinc-line)'}
              strokeWidth={picked ? 5 : 3}
              strokeDasharray={wrong ? '10 6' : undefined}
            />
            {middle && (
              <Figure
                at={along(middle, out, -clearPx(out) / view.scale)}
                text={show(edgeLength(pattern, edge))}
                colour="var(--ink)"
                ground="var(--zinc)"
              />
            )}
            {tag && <EdgeTag tag={tag} letter={edge.letter} picked={picked} />}
          </Pickable>
        );
      })}
      {pattern.source === 'lengths' && (
        <text x={14} y={28} fontSize={15} fill="var(--pencil)" fontFamily="Barlow">
          Drawn from its lengths alone
        </text>
      )}
    </SteelPicture>
  );
}
