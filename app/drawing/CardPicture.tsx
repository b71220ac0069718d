import { outlineOf, pointOfPlace, segmentsOfEdge } from '#core/card/outline';
import type { PatternDoc } from '#core/card/pattern';
import { segmentLength } from '#core/measure/segment';
import { mix } from '#core/measure/vector';
import type { Pick } from '../shell/pieceContext';
import { usePreferences } from '../shell/preferences';
import { useView } from './Drawing';
import { Datum, EdgeTag, Figure, Hinge, HoleMark, Pickable, leftOf, usePathData } from './marks';
import { hangTags } from './tags';

type Props = { pattern: PatternDoc; pick: Pick; onPick?: (pick: Pick) => void; lengths?: boolean; tags?: boolean };

/** The card as card: manila on the bench, pencil lines, tags tied to its edges. */
export function CardPicture({ pattern, pick, onPick, lengths = true, tags = true }: Props) {
  const { px, scale } = useView();
  const { show } = usePreferences();
  const data = usePathData();
  const { path } = outlineOf(pattern);
  const datum = pattern.corners[0];
  const pencil = 'var(--card-pencil)';
  const runs = pattern.edges.map((edge) => segmentsOfEdge(pattern, edge));
  const hung = tags ? hangTags(runs, px, 40) : [];
  return (
    <g>
      <path d={data(path)} fill="var(--shadow)" transform="translate(5 7)" style={{ filter: 'blur(5px)' }} />
      <path
        d={data(path)}
        fill="var(--manila)"
        stroke="var(--manila-edge)"
        strokeWidth={3.5}
        strokeLinejoin="round"
      />
      <path d={data(path)} fill="none" stroke={pencil} strokeWidth={1.1} strokeLinejoin="round" />
      {pattern.edges.map((edge, i) => {
        const run = runs[i]!;
        const tag = hung[i];
        const picked = pick?.kind === 'edge' && pick.id === edge.id;
        const length = run.reduce((sum, s) => sum + segmentLength(s), 0);
        const small = length * scale < 34;
        return (
          <Pickable
            key={edge.id}
            label={`Edge ${edge.letter}, ${show(length)}`}
            picked={picked}
            onPick={onPick && (() => onPick({ kind: 'edge', id: edge.id }))}
          >
            <path
              d={data(run, false)}
              fill="none"
              stroke={picked ? 'var(--torch)' : 'transparent'}
              strokeWidth={picked ? 4 : 18}
              strokeLinecap="round"
            />
            {picked && <path d={data(run, false)} fill="none" stroke="transparent" strokeWidth={18} />}
            {tag && (!small || picked) && (
              <EdgeTag
                tag={tag}
                letter={edge.letter}
                picked={picked}
                note={lengths && !small ? show(length) : undefined}
              />
            )}
          </Pickable>
        );
      })}
      {pattern.folds.map((fold, i) => {
        const a = pointOfPlace(pattern, fold.from);
        const b = pointOfPlace(pattern, fold.to);
        if (!a || !b) return null;
        const picked = pick?.kind === 'fold' && pick.id === fold.id;
        const colour = picked ? 'var(--torch)' : pencil;
        const [x1, y1] = px(a);
        const [x2, y2] = px(b);
        const across = leftOf(a, b);
        const rolled = fold.made.endsWith('rolled');
        return (
          <Pickable
            key={fold.id}
            label={`Fold ${i + 1}, ${fold.angleDeg}°`}
            picked={picked}
            onPick={onPick && (() => onPick({ kind: 'fold', id: fold.id }))}
          >
            <line x1={x1} y1={y1} x2={x2} y2={y2} stroke="transparent" strokeWidth={20} />
            <line
              x1={x1}
              y1={y1}
              x2={x2}
              y2={y2}
              stroke="var(--manila-edge)"
              strokeWidth={rolled ? 9 : 4}
              opacity={0.55}
            />
            <line
              x1={x1}
              y1={y1}
              x2={x2}
              y2={y2}
              stroke={colour}
              strokeWidth={picked ? 2.6 : 1.5}
              strokeDasharray={rolled ? '2 5' : '11 4'}
            />
            <Hinge at={mix(a, b, 0.22)} across={across} toward={fold.toward} colour={colour} ground="var(--manila)" />
            <Figure
              at={mix(a, b, 0.5)}
              text={`${i + 1} · ${fold.angleDeg}°`}
              colour={colour}
              ground="var(--manila)"
            />
          </Pickable>
        );
      })}
      {pattern.holes.map((hole, i) => {
        const picked = pick?.kind === 'hole' && pick.id === hole.id;
        return (
          <Pickable
            key={hole.id}
            label={`Hole ${i + 1}, ${show(hole.diameterMm)}`}
            picked={picked}
            onPick={onPick && (() => onPick({ kind: 'hole', id: hole.id }))}
          >
            <HoleMark
              at={[hole.x, hole.y]}
              diameterMm={hole.diameterMm}
              stroke={picked ? 'var(--torch)' : pencil}
              fill="var(--bench-top)"
              width={picked ? 3 : 1.5}
            />
          </Pickable>
        );
      })}
      {datum && <Datum at={[datum.x, datum.y]} colour={pencil} />}
    </g>
  );
}
