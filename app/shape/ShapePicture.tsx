import { strainAlong } from '#core/blank/bead/section';
import { alongFlange } from '#core/blank/flange/along';
import { beadLine } from '#core/card/beadPath';
import { mapOf } from '#core/card/crownStands';
import { endsOfFold } from '#core/card/foldPlace';
import { segmentsOfEdge } from '#core/card/outline';
import { rampAt, ramped } from '#core/measure/ramp';
import { besideRun, partOfRun } from '#core/measure/run';
import type { ShapeStep } from '#core/shape/shapeStep';
import type { DrawnMap } from '#core/surface/panel/drawnMap';
import { SteelPicture } from '../drawing/SteelPicture';
import { useView } from '../drawing/Drawing';
import { EdgeTag, Threads, usePathData } from '../drawing/marks';
import { BeadMark, StrainMarks } from '../drawing/shapeMarks';
import { WorkMap } from '../drawing/WorkMap';
import { hangTags, tagHalfWidth } from '../drawing/tags';
import { usePiece } from '../piece/pieceContext';

/**
 * The piece as grey steel with its beads, and where its rims are gathered and stretched; what the
 * step is about in torch. `tracks` of a tool stand in place of the marks.
 */
export function ShapePicture({
  step,
  tracks,
}: {
  step: ShapeStep | null;
  tracks: DrawnMap['tracks'] | null;
}) {
  const { pattern, development, facts } = usePiece();
  const view = useView();
  const data = usePathData();
  const about = new Set(step?.about ?? []);
  const blank = development.ok ? development.development : null;
  const runs = pattern.edges.map((edge) => segmentsOfEdge(pattern, edge));
  const map = mapOf(pattern);
  // Raising is about what is stretched, gathering an edge about what is gathered there.
  const changeMm =
    step?.what === 'strain' ? (step.figures as { changeMm?: number }).changeMm : undefined;
  const shows = (way: 'stretch' | 'shrink') =>
    step?.what === 'raise'
      ? way === 'stretch'
      : changeMm === undefined || changeMm > 0 === (way === 'stretch');
  const hung = hangTags(
    pattern.edges.map((edge, i) => ({
      run: runs[i]!,
      away: 40,
      halfWidth: tagHalfWidth(edge.letter),
    })),
    runs.flat(),
    view,
  );
  return (
    <SteelPicture pattern={pattern}>
      {map && (
        <WorkMap
          figures={tracks?.[0]?.tool !== 'hammer'}
          map={
            step
              ? {
                  lines: map.lines.filter((line) => shows(line.way)),
                  marks:
                    tracks && tracks.length > 0 ? [] : map.marks.filter((mark) => shows(mark.way)),
                  tracks: [],
                }
              : map
          }
        />
      )}
      {tracks?.map(({ tool, places }, i) => (
        <polyline
          key={`track ${i}`}
          points={places
            .map((p) =>
              view
                .px(p)
                .map((x) => x.toFixed(1))
                .join(','),
            )
            .join(' ')}
          fill="none"
          pointerEvents="none"
          stroke="var(--torch)"
          strokeLinecap="round"
          strokeWidth={tool === 'hammer' ? 5 : 2}
          strokeDasharray={tool === 'hammer' ? '0.1 13' : tool === 'smooth' ? '2 5' : undefined}
        />
      ))}
      {pattern.edges.map((edge, i) => {
        const flange = blank?.edges[i]?.allowance.flange;
        if (!flange || !edge.flange) return null;
        const along = alongFlange(runs[i]!, flange, edge.flange.landMm);
        const outer = besideRun(
          runs[i]!,
          ramped(flange.fold, (mm, share) => mm + rampAt(flange.flat, share)),
        );
        const { fromMm, toMm } =
          step?.what === 'strain' && about.has(edge.id)
            ? (step.figures as { fromMm: number; toMm: number })
            : { fromMm: 0, toMm: 0 };
        return (
          <g key={edge.id}>
            <path
              d={data(outer, false)}
              fill="none"
              stroke="var(--pencil)"
              strokeWidth={1.6}
              strokeDasharray="3 4"
            />
            {about.has(edge.id) && (
              <path
                d={data(toMm > fromMm ? partOfRun(runs[i]!, fromMm, toMm) : runs[i]!, false)}
                fill="none"
                stroke="var(--torch)"
                strokeWidth={6}
                strokeLinecap="round"
              />
            )}
            <StrainMarks run={runs[i]!} strained={along.stretches} insidePx={16} />
          </g>
        );
      })}
      {pattern.folds.map((fold) => {
        const ends = about.has(fold.id) ? endsOfFold(pattern, fold) : null;
        return (
          ends && (
            <path
              key={fold.id}
              d={data([{ a: ends[0], b: ends[1], bulge: 0 }], false)}
              stroke="var(--torch)"
              strokeWidth={5}
            />
          )
        );
      })}
      {pattern.beads.map((bead) => {
        const line = beadLine(pattern, bead);
        const size = blank?.beads.find(({ id }) => id === bead.id)?.size;
        if (!line || !size) return null;
        const picked = about.has(bead.id);
        return (
          <BeadMark
            key={bead.id}
            runs={[line.run]}
            section={bead.section}
            widthMm={size.widthMm}
            thicknessMm={facts.thicknessMm}
            toward={bead.toward}
            colour={picked ? 'var(--torch)' : 'var(--zinc-line)'}
            ground="var(--zinc-shine)"
            picked={picked}
            strain={strainAlong(bead, size.heightMm)}
          />
        );
      })}
      {pattern.holes
        .filter(({ id }) => about.has(id))
        .map((hole) => {
          const [x, y] = view.px([hole.x, hole.y]);
          return (
            <circle
              key={hole.id}
              cx={x}
              cy={y}
              r={(hole.diameterMm / 2) * view.scale + 5}
              fill="none"
              stroke="var(--torch)"
              strokeWidth={4}
            />
          );
        })}
      <Threads tags={hung} />
      {pattern.edges.map(
        (edge, i) =>
          hung[i] && (
            <EdgeTag key={edge.id} tag={hung[i]} letter={edge.letter} picked={about.has(edge.id)} />
          ),
      )}
    </SteelPicture>
  );
}
