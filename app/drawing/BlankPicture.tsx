import { strainAlong } from '#core/blank/bead/section';
import type { BlankFlange } from '#core/blank/blank';
import { outlinePath } from '#core/blank/blank';
import { alongFlange } from '#core/blank/flange/along';
import type { Development } from '#core/blank/fold/developed';
import { bendRegion } from '#core/blank/fold/region';
import { MAX_CORNERS, markingOut } from '#core/blank/markingOut';
import { mapOf } from '#core/card/crownStands';
import { segmentsOfEdge } from '#core/card/outline';
import type { Edge, PatternDoc } from '#core/card/pattern';
import { box } from '#core/measure/path';
import type { Segment } from '#core/measure/segment';
import { mix } from '#core/measure/vector';
import type { PlugCentres } from '#core/weld/plugs';
import { rampAt } from '#core/measure/ramp';
import { usePreferences } from '../frame/preferences';
import { useView } from './Drawing';
import { EdgeTag, Figure, Hinge, HoleMark, Pickable, Threads, usePathData } from './marks';
import type { Pick } from './pick';
import { BeadMark, StrainMarks } from './shapeMarks';
import { WorkMap } from './WorkMap';
import { hangTags, tagHalfWidth } from './tags';

type Props = {
  development: Development;
  pattern: PatternDoc;
  plugs: readonly PlugCentres[];
  pick: Pick;
  onPick?: (pick: Pick) => void;
  tags?: boolean;
  /** Corner numbers, as the table of the outline calls them. */
  numbered?: boolean;
};

/** The blank as steel in layout blue, with everything to scribe on it bright through the dye. */
export function BlankPicture({
  development,
  pattern,
  plugs,
  pick,
  onPick,
  tags = true,
  numbered,
}: Props) {
  const view = useView();
  const { px } = view;
  const { show, brief } = usePreferences();
  const data = usePathData();
  const cut = development.outline.map((p) => p.segment);
  const scribed = 'var(--scribe)';
  // A fold or a bead put on since moves what lies beyond it.
  const map = pattern.folds.length + pattern.beads.length === 0 ? mapOf(pattern) : null;
  const notes = development.edges.map(({ allowance }) =>
    allowance.addMm > 0 ? `+${brief(allowance.addMm)}` : undefined,
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
      <path
        d={data(cut)}
        fill="var(--layout)"
        stroke="var(--zinc-deep)"
        strokeWidth={2.4}
        strokeLinejoin="round"
      />
      {development.folds.map((fold) => (
        <path key={fold.id} d={data(bendRegion(fold))} fill="var(--layout-deep)" />
      ))}
      <g stroke="var(--scribe-soft)" strokeWidth={1.2} strokeDasharray="3 4" fill="none">
        {development.lines
          .filter((line) => line.of.kind !== 'fold')
          .map((line, i) => (
            <path key={i} d={data(line.path, false)} />
          ))}
      </g>
      {map && <WorkMap map={map} bright ground="var(--layout)" figures={tags} />}
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
            <path className="hit" d={data(edge.cut, false)} fill="none" />
            {picked && (
              <path d={data(edge.cut, false)} fill="none" stroke="var(--torch)" strokeWidth={4} />
            )}
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
            <line className="hit" {...rule(fold.centre)} />
            <line {...rule(fold.tangents[0])} stroke={scribed} strokeWidth={1.2} />
            <line {...rule(fold.tangents[1])} stroke={scribed} strokeWidth={1.2} />
            <line
              {...rule(fold.centre)}
              stroke="var(--scribe-soft)"
              strokeWidth={0.9}
              strokeDasharray="14 4 2 4"
            />
            <line
              {...rule(fold.brake)}
              stroke={colour}
              strokeWidth={picked ? 3.4 : 2.6}
              strokeDasharray="12 5"
            />
            <Hinge
              at={middle}
              across={fold.across}
              toward={fold.toward}
              colour={colour}
              ground="var(--layout)"
            />
            <Figure
              at={mix(fold.centre[0], fold.centre[1], 0.5)}
              text={`${i + 1} · ${fold.bend.angleDeg}°`}
              colour={scribed}
              ground="var(--layout)"
            />
          </Pickable>
        );
      })}
      {development.beads.map((bead, i) => {
        const picked = pick?.kind === 'bead' && pick.id === bead.id;
        const onCard = pattern.beads.find(({ id }) => id === bead.id);
        if (!onCard) return null;
        return (
          <Pickable
            key={bead.id}
            label={`Bead ${i + 1}, adds ${show(bead.addsMm, 2)}`}
            picked={picked}
            onPick={onPick && (() => onPick({ kind: 'bead', id: bead.id }))}
          >
            {bead.runs.map((run, k) => (
              <path key={k} className="hit" d={data(run, false)} fill="none" />
            ))}
            <BeadMark
              runs={bead.runs}
              section={onCard.section}
              strain={strainAlong(onCard, bead.size.heightMm)}
              bright
              widthMm={bead.flatMm}
              thicknessMm={1}
              toward={bead.toward}
              colour={picked ? 'var(--torch)' : scribed}
              ground="var(--layout-deep)"
              picked={picked}
            />
          </Pickable>
        );
      })}
      {development.edges.map((edge, i) => (
        <FlangeStrain
          key={`strain ${edge.id}`}
          edge={pattern.edges[i]!}
          pattern={pattern}
          flange={edge.allowance.flange}
          run={edge.net}
        />
      ))}
      {development.holes.map((hole, i) => {
        const { flare } = hole;
        const stroke = pick?.id === hole.id ? 'var(--torch)' : scribed;
        const mark = (
          <HoleMark
            at={hole.centre}
            diameterMm={hole.diameterMm}
            form={hole.form}
            stroke={stroke}
            fill="var(--hole-ground)"
          />
        );
        if (!flare) return <g key={hole.id}>{mark}</g>;
        const [x, y] = px(hole.centre);
        return (
          <Pickable
            key={hole.id}
            label={`Hole ${i + 1}, flared: first ${show(hole.diameterMm)}`}
            picked={pick?.kind === 'hole' && pick.id === hole.id}
            onPick={onPick && (() => onPick({ kind: 'hole', id: hole.id }))}
          >
            <circle
              cx={x}
              cy={y}
              r={(flare.insideMm / 2) * view.scale}
              fill="none"
              stroke={stroke}
              strokeWidth={1.4}
              strokeDasharray="3 4"
            />
            {mark}
          </Pickable>
        );
      })}
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
      {numbered && <CornerNumbers blank={development} />}
      <title>{`Blank of ${pattern.edges.length} edges`}</title>
    </g>
  );
}

/** Where the rim of a flange is gathered and stretched, by the marks for it. */
function FlangeStrain({
  edge,
  pattern,
  flange,
  run,
}: {
  edge: Edge;
  pattern: PatternDoc;
  flange: BlankFlange | undefined;
  run: readonly Segment[];
}) {
  const { scale } = useView();
  if (!flange || !edge.flange || flange.made === 'lip') return null;
  const { stretches } = alongFlange(segmentsOfEdge(pattern, edge), flange, edge.flange.landMm);
  // In the middle of the flange; of a straight angle on the leg that lies on the panel.
  const outMm =
    flange.made === 'pulled'
      ? -edge.flange.landMm / 2
      : rampAt(flange.fold, 0.5) + rampAt(flange.flat, 0.5) / 2;
  return <StrainMarks run={run} strained={stretches} insidePx={-outMm * scale} bright />;
}

/**
 * The corners of the outline by number, just inside the metal, where there are few enough to be
 * marked out by hand.
 */
function CornerNumbers({ blank }: { blank: Development }) {
  const { px } = useView();
  const { corners } = markingOut(blank);
  if (corners.length > MAX_CORNERS) return null;
  const bounds = box(outlinePath(blank));
  const middle = mix([bounds.minX, bounds.minY], [bounds.maxX, bounds.maxY], 0.5);
  return (
    <g pointerEvents="none">
      {corners.map(({ number, point }) => {
        const [x, y] = px(point);
        const [mx, my] = px(middle);
        const far = Math.hypot(mx - x, my - y) || 1;
        return (
          <text
            key={number}
            x={x + ((mx - x) / far) * NUMBER_PX}
            y={y + ((my - y) / far) * NUMBER_PX + 5}
            textAnchor="middle"
            className="figure"
            fontSize={15}
            fontWeight={600}
            fill="var(--scribe)"
          >
            {number}
          </text>
        );
      })}
    </g>
  );
}

/** How far inside its corner a number stands, pixels. */
const NUMBER_PX = 16;
