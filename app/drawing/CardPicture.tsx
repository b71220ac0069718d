import { holeSize } from '../frame/markingWords';
import { memo } from 'react';
import type { ReactNode } from 'react';
import { movingWays } from '#core/card/faces';
import { endsOfFold } from '#core/card/foldPlace';
import { outlineOf, segmentsOfEdge } from '#core/card/outline';
import type { PatternDoc } from '#core/card/pattern';
import { beadLine } from '#core/card/beadPath';
import type { Flange, Fold } from '#core/card/pattern';
import { besideRun } from '#core/measure/run';
import type { Segment } from '#core/measure/segment';
import { directionAt, pointAt, segmentLength } from '#core/measure/segment';
import type { Vec } from '#core/measure/vector';
import { mix, right } from '#core/measure/vector';
import { widthsOf } from '#core/card/flangeWidths';
import { ramped } from '#core/measure/ramp';
import { usePreferences } from '../frame/preferences';
import { PHONE_PX, useView } from './Drawing';
import {
  Datum,
  EdgeTag,
  Figure,
  Hinge,
  HoleMark,
  Pickable,
  Threads,
  leftOf,
  usePathData,
} from './marks';
import type { Pick } from './pick';
import { BeadMark } from './shapeMarks';
import { hangTags, tagHalfWidth } from './tags';

type Props = {
  pattern: PatternDoc;
  pick: Pick;
  onPick?: (pick: Pick) => void;
  lengths?: boolean;
  tags?: boolean;
  /** Laid on the face of the card, under its lines and tags. */
  onFace?: ReactNode;
};

/** The card as card: manila on the bench, pencil lines, tags tied to its edges. */
export function CardPicture({
  pattern,
  pick,
  onPick,
  lengths: wanted = true,
  tags = true,
  onFace,
}: Props) {
  const view = useView();
  // On a phone there is room for the letters only; the lengths stand in the table under the
  // drawing.
  const lengths = wanted && view.width >= PHONE_PX;
  const { px, scale } = view;
  const { show, brief } = usePreferences();
  const data = usePathData();
  const { path } = outlineOf(pattern);
  const datum = pattern.corners[0];
  const pencil = 'var(--card-pencil)';
  const moving = movingWays(pattern);
  const runs = pattern.edges.map((edge) => segmentsOfEdge(pattern, edge));
  const longs = runs.map((run) => run.reduce((sum, s) => sum + segmentLength(s), 0));
  const figures = longs.map((mm) => brief(mm));
  const isPicked = (id: string) => pick?.kind === 'edge' && pick.id === id;
  const hung = tags
    ? hangTags(
        pattern.edges.map((edge, i) =>
          // Edges too short to be told apart get their tag when they are picked.
          longs[i]! * scale >= 16 || isPicked(edge.id)
            ? {
                run: runs[i]!,
                away: 34,
                halfWidth: tagHalfWidth(edge.letter, lengths ? figures[i] : undefined),
              }
            : null,
        ),
        path,
        view,
      )
    : [];
  return (
    <g>
      <path d={data(path)} fill="var(--shadow)" transform="translate(5 7)" />
      <path
        d={data(path)}
        data-touch="face"
        fill="var(--manila)"
        stroke="var(--manila-edge)"
        strokeWidth={3.5}
        strokeLinejoin="round"
      />
      {onFace}
      <path d={data(path)} fill="none" stroke={pencil} strokeWidth={1.1} strokeLinejoin="round" />
      {pattern.edges.map(
        ({ id, flange }) =>
          flange && (
            <FlangeLine
              key={`flange ${id}`}
              run={segmentsOfEdge(
                pattern,
                pattern.edges.find((e) => e.id === id)!,
              )}
              flange={flange}
            />
          ),
      )}
      <Threads tags={hung} />
      {pattern.edges.map((edge, i) => {
        const tag = hung[i];
        return (
          <CardEdge
            key={edge.id}
            id={edge.id}
            letter={edge.letter}
            d={data(runs[i]!, false)}
            said={show(longs[i]!)}
            picked={isPicked(edge.id)}
            note={lengths ? figures[i] : undefined}
            // Written out, so that an edge that did not move is not drawn again while a corner is
            // dragged.
            tag={tag ? [...tag.anchor, ...tag.out, ...tag.at].join(' ') : null}
            onPick={onPick}
          />
        );
      })}
      {pattern.folds.map((fold, i) => {
        const ends = endsOfFold(pattern, fold);
        if (!ends) return null;
        const [[ax, ay], [bx, by]] = ends;
        const [acrossX, acrossY] = moving[i] ?? leftOf(...ends);
        return (
          <CardFold
            key={fold.id}
            {...{ ax, ay, bx, by, acrossX, acrossY }}
            id={fold.id}
            number={i + 1}
            angleDeg={fold.angleDeg}
            rolled={fold.convention.endsWith('rolled')}
            toward={fold.toward}
            picked={pick?.kind === 'fold' && pick.id === fold.id}
            onPick={onPick}
          />
        );
      })}
      {pattern.marks.map(({ id, name, from, to }) => {
        const [[x1, y1], [x2, y2]] = [px(from), px(to)];
        return (
          <line
            key={id}
            x1={x1}
            y1={y1}
            x2={x2}
            y2={y2}
            stroke={pencil}
            strokeWidth={1.2}
            strokeDasharray="1 3"
          >
            <title>{name || 'Line to scribe'}</title>
          </line>
        );
      })}
      {pattern.beads.map((bead, i) => {
        const line = beadLine(pattern, bead);
        const picked = pick?.kind === 'bead' && pick.id === bead.id;
        if (!line) return null;
        return (
          <Pickable
            key={bead.id}
            label={`Bead ${i + 1}`}
            picked={picked}
            onPick={onPick && (() => onPick({ kind: 'bead', id: bead.id }))}
          >
            <path className="hit" d={data(line.run, false)} fill="none" />
            <BeadMark
              runs={[line.run]}
              section={bead.section}
              widthMm={bead.section.kind === 'step' ? bead.section.depthMm : bead.section.widthMm}
              thicknessMm={1}
              toward={bead.toward}
              colour={picked ? 'var(--torch)' : pencil}
              ground="var(--manila)"
              picked={picked}
            />
          </Pickable>
        );
      })}
      {pattern.holes.map((hole, i) => {
        const picked = pick?.kind === 'hole' && pick.id === hole.id;
        return (
          <Pickable
            key={hole.id}
            label={`Hole ${i + 1}, ${holeSize(hole, show)}`}
            picked={picked}
            onPick={onPick && (() => onPick({ kind: 'hole', id: hole.id }))}
          >
            <HoleMark
              at={[hole.x, hole.y]}
              diameterMm={hole.diameterMm}
              form={hole.form}
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

/**
 * Where a flange is turned, or its rim: a dashed line beside the edge, with the hinge on the side
 * that moves.
 */
function FlangeLine({ run, flange }: { run: readonly Segment[]; flange: Flange }) {
  const data = usePathData();
  const sign = flange.card === 'fold' ? 1 : -1;
  const beside = besideRun(
    run,
    ramped(widthsOf(flange), (mm) => sign * mm),
  );
  const [first] = flange.card === 'fold' ? run : beside;
  if (!first) return null;
  return (
    <g pointerEvents="none">
      <path
        d={data(beside, false)}
        fill="none"
        stroke="var(--card-pencil)"
        strokeWidth={1.5}
        strokeDasharray={flange.card === 'fold' ? '2 4' : '11 4'}
      />
      <Hinge
        at={pointAt(first, 0.3)}
        across={right(directionAt(first, 0.3))}
        toward={flange.toward}
        colour="var(--card-pencil)"
        ground="var(--manila)"
      />
    </g>
  );
}

/** A fold by its figures, mm on the card, so that one that did not move rests while others do. */
const CardFold = memo(function CardFold({
  id,
  number,
  ax,
  ay,
  bx,
  by,
  acrossX,
  acrossY,
  angleDeg,
  rolled,
  toward,
  picked,
  onPick,
}: {
  id: string;
  number: number;
  ax: number;
  ay: number;
  bx: number;
  by: number;
  acrossX: number;
  acrossY: number;
  angleDeg: number;
  rolled: boolean;
  toward: Fold['toward'];
  picked: boolean;
  onPick?: (pick: Pick) => void;
}) {
  const { px } = useView();
  const [a, b]: [Vec, Vec] = [
    [ax, ay],
    [bx, by],
  ];
  const [[x1, y1], [x2, y2]] = [px(a), px(b)];
  const colour = picked ? 'var(--torch)' : 'var(--card-pencil)';
  return (
    <Pickable
      label={`Fold ${number}, ${angleDeg}°`}
      picked={picked}
      onPick={onPick && (() => onPick({ kind: 'fold', id }))}
    >
      <line className="hit" x1={x1} y1={y1} x2={x2} y2={y2} />
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
      <Hinge
        at={mix(a, b, 0.22)}
        across={[acrossX, acrossY]}
        toward={toward}
        colour={colour}
        ground="var(--manila)"
      />
      <Figure
        at={mix(a, b, 0.5)}
        text={`${number} · ${angleDeg}°`}
        colour={colour}
        ground="var(--manila)"
      />
    </Pickable>
  );
});

type CardEdgeProps = {
  id: string;
  letter: string;
  d: string;
  said: string;
  picked: boolean;
  note: string | undefined;
  tag: string | null;
  onPick?: (pick: Pick) => void;
};

/** One edge of the card, to be picked, with its tag where there is room for it. */
const CardEdge = memo(function CardEdge({
  id,
  letter,
  d,
  said,
  picked,
  note,
  tag,
  onPick,
}: CardEdgeProps) {
  const [ax = 0, ay = 0, ox = 0, oy = 0, x = 0, y = 0] = tag?.split(' ').map(Number) ?? [];
  return (
    <Pickable
      label={`Edge ${letter}, ${said}`}
      picked={picked}
      onPick={onPick && (() => onPick({ kind: 'edge', id }))}
    >
      {picked && (
        <path d={d} fill="none" stroke="var(--torch)" strokeWidth={4} strokeLinecap="round" />
      )}
      <path className="hit" data-touch="edge" d={d} fill="none" strokeLinecap="round" />
      {tag && (
        <EdgeTag
          tag={{ anchor: [ax, ay], out: [ox, oy], at: [x, y] }}
          letter={letter}
          picked={picked}
          note={note}
        />
      )}
    </Pickable>
  );
});
