import type { Development } from '#core/blank/fold/developed';
import { bendRegion } from '#core/blank/fold/region';
import type { PatternDoc } from '#core/card/pattern';
import { offsetRight } from '#core/measure/segment';
import { mix } from '#core/measure/vector';
import type { PlugCentres } from '#core/weld/plugs';
import type { Pick } from '../shell/pieceContext';
import { usePreferences } from '../shell/preferences';
import { useView } from './Drawing';
import { EdgeTag, Figure, Hinge, HoleMark, Pickable, Threads, usePathData } from './marks';
import { hangTags, tagHalfWidth } from './tags';

type Props = {
  development: Development;
  pattern: PatternDoc;
  plugs: readonly PlugCentres[];
  pick: Pick;
  onPick?: (pick: Pick) => void;
  tags?: boolean;
};

/** The blank as steel in layout blue, with everything to scribe on it bright through the dye. */
export function BlankPicture({ development, pattern, plugs, pick, onPick, tags = true }: Props) {
  const view = useView();
  const { px } = view;
  const { show, bare } = usePreferences();
  const data = usePathData();
  const cut = development.outline.map((p) => p.segment);
  const scribed = 'var(--scribe)';
  const notes = development.edges.map(({ allowance }) =>
    allowance.addMm > 0 ? `+${bare(allowance.addMm)}` : undefined,
  );
  const hung = tags
    ? hangTags(
        development.edges.map((edge, i) => ({
          run: edge.cut,
          away: 34,
          halfWidth: tagHalfWidth(edge.letter, notes[i]),
        })),
        cut,
        view,
      )
    : [];
  const rule = (ends: readonly [readonly [number, number], readonly [number, number]]) => {
    const [x1, y1] = px(ends[0]);
    const [x2, y2] = px(ends[1]);
    return { x1, y1, x2, y2 };
  };
  return (
    <g>
      <path d={data(cut)} fill="var(--shadow)" transform="translate(4 6)" />
      <path d={data(cut)} fill="var(--layout)" stroke="var(--zinc-deep)" strokeWidth={2.4} strokeLinejoin="round" />
      {development.folds.map((fold) => (
        <path key={fold.id} d={data(bendRegion(fold))} fill="var(--layout-deep)" />
      ))}
      {development.edges.map((edge) => (
        <g key={edge.id} stroke="var(--scribe-soft)" strokeWidth={1.2} strokeDasharray="3 4" fill="none">
          {edge.allowance.lines.map(({ outMm }, i) => (
            <path
              key={i}
              d={data(
                edge.net.map((s) => offsetRight(s, outMm)),
                false,
              )}
            />
          ))}
        </g>
      ))}
      <Threads tags={hung} />
      {development.edges.map((edge, i) => {
        const tag = hung[i];
        const picked = pick?.kind === 'edge' && pick.id === edge.id;
        const adds = edge.allowance.addMm;
        return (
          <Pickable
            key={edge.id}
            label={`Edge ${edge.letter}${adds > 0 ? `, ${show(adds)} added` : ''}`}
            picked={picked}
            onPick={onPick && (() => onPick({ kind: 'edge', id: edge.id }))}
          >
            <path
              d={data(edge.cut, false)}
              fill="none"
              stroke={picked ? 'var(--torch)' : 'transparent'}
              strokeWidth={picked ? 4 : 18}
            />
            {tag && <EdgeTag tag={tag} letter={edge.letter} picked={picked} note={notes[i]} />}
          </Pickable>
        );
      })}
      {development.folds.map((fold, i) => {
        const picked = pick?.kind === 'fold' && pick.id === fold.id;
        const colour = picked ? 'var(--torch)' : scribed;
        const middle = mix(fold.centre[0], fold.centre[1], 0.22);
        return (
          <Pickable
            key={fold.id}
            label={`Fold ${i + 1}, ${fold.bend.angleDeg}°, takes ${show(fold.allowance.deductionMm, 2)}`}
            picked={picked}
            onPick={onPick && (() => onPick({ kind: 'fold', id: fold.id }))}
          >
            <line {...rule(fold.centre)} stroke="transparent" strokeWidth={22} />
            <line {...rule(fold.tangents[0])} stroke={scribed} strokeWidth={1.2} />
            <line {...rule(fold.tangents[1])} stroke={scribed} strokeWidth={1.2} />
            <line {...rule(fold.centre)} stroke="var(--scribe-soft)" strokeWidth={0.9} strokeDasharray="14 4 2 4" />
            <line {...rule(fold.brake)} stroke={colour} strokeWidth={picked ? 3.4 : 2.6} strokeDasharray="12 5" />
            <Hinge at={middle} across={fold.across} toward={fold.toward} colour={colour} ground="var(--layout)" />
            <Figure
              at={mix(fold.centre[0], fold.centre[1], 0.5)}
              text={`${i + 1} · ${fold.bend.angleDeg}°`}
              colour={colour}
              ground="var(--layout)"
            />
          </Pickable>
        );
      })}
      {development.holes.map((hole) => (
        <HoleMark
          key={hole.id}
          at={hole.centre}
          diameterMm={hole.diameterMm}
          stroke={pick?.id === hole.id ? 'var(--torch)' : scribed}
          fill="var(--hole-ground)"
        />
      ))}
      {plugs.flatMap((run) =>
        run.centres.map((at, i) => (
          <HoleMark
            key={`${run.edge}${i}`}
            at={at}
            diameterMm={run.holeMm}
            stroke={scribed}
            fill="var(--layout-deep)"
            width={1.2}
          />
        )),
      )}
      <title>{`Blank of ${pattern.edges.length} edges`}</title>
    </g>
  );
}
