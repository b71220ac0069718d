import { useMemo } from 'react';
import type { Development } from '#core/blank/fold/developed';
import { placeIn } from '#core/blank/fold/order/contact';
import { sliceOf, wallsOf } from '#core/blank/fold/order/slice';
import type { Brake } from '#core/machine/brake';
import { sectionOf } from '#core/machine/brake';
import type { Vec } from '#core/measure/vector';
import { Drawing, useView } from '../drawing/Drawing';
import type { Shown } from '../folding/ordering';

type Props = Shown & {
  development: Development;
  brake: Brake;
  anglesDeg: readonly number[];
  turnedAfter: readonly string[];
  share: number;
};

/**
 * A fold in section, square to its line: the machine, the piece as it is held, and as it swings up;
 * where it hits is ringed.
 */
export function OrderPicture(given: Props) {
  const { noseHeightMm, noseDepthMm } = given.brake;
  const reach = Math.max(60, Math.min(160, noseHeightMm + 20));
  // What hits can stand far from the line: then that far is shown.
  const far = given.hit ? wallsAndCuts(given).map(([, z]) => z) : [];
  const up = Math.min(DRAWN_MM, Math.max(reach, ...far));
  const bounds = {
    minX: -Math.max(reach, noseDepthMm + 30),
    maxX: reach,
    minY: -reach * 0.45,
    maxY: up,
  };
  return (
    <Drawing
      bounds={bounds}
      ground="blank"
      label={`Fold ${given.step.fold + 1} in the machine, in section`}
    >
      <Section {...given} />
    </Drawing>
  );
}

/** Farther than this nothing of a machine is drawn, mm. */
const DRAWN_MM = 400;

const sliceAt = ({ made, anglesDeg, turnedAfter, hit }: Props, deg: number) => ({
  made,
  anglesDeg,
  turnedAfter,
  deg,
  alongMm: hit?.alongMm,
});
const wallsAndCuts = (given: Props): Vec[] => {
  const at = sliceAt(given, given.step.angleDeg * given.share);
  return [
    ...sliceOf(given.development, given.step, at).flatMap(({ from, to }) => [from, to]),
    ...wallsOf(given.development, given.step, at).flatMap(({ rim }) => rim),
  ];
};

function Section(given: Props) {
  const { development, brake, step, hit, share } = given;
  const { px, scale } = useView();
  const t = development.folds[step.fold]!.bend.thicknessMm;
  const parts = useMemo(() => {
    const found = sectionOf(brake, t);
    return found.ok ? found.parts : [];
  }, [brake, t]);
  const at = (deg: number) => sliceOf(development, step, sliceAt(given, deg));
  const path = (polygon: readonly Vec[]) =>
    `M${polygon.map(([x, z]) => px([Math.max(-DRAWN_MM, Math.min(DRAWN_MM, x)), Math.max(-DRAWN_MM, Math.min(DRAWN_MM, z))]).join(' ')).join('L')}Z`;
  const wide = Math.max(3, t * scale);
  const lines = (deg: number, faint: boolean) =>
    at(deg).map(({ from, to, held }, i) => {
      const [[x1, y1], [x2, y2]] = [px(from), px(to)];
      if (faint && held) return null;
      const stroke = held ? 'var(--layout)' : 'var(--torch)';
      return (
        <line
          key={`${deg} ${i}`}
          x1={x1}
          y1={y1}
          x2={x2}
          y2={y2}
          stroke={stroke}
          strokeWidth={wide}
          strokeLinecap="round"
          opacity={faint ? 0.22 : 1}
        />
      );
    });
  // Walls at the ends of the line stand along the section: they are seen beyond it.
  const walls = wallsOf(development, step, sliceAt(given, step.angleDeg * share));
  // Where something is in the way the part it runs into is told by the search; the longest way
  // through it is ringed.
  const edges = [
    ...at(step.angleDeg * share),
    ...walls.flatMap(({ rim }) => rim.map((from, i) => ({ from, to: rim[(i + 1) % rim.length]! }))),
  ];
  const named = parts.filter(
    ({ name }) => name === hit?.of || (name === 'beam' && hit?.of === 'way out'),
  );
  const [touched] = edges
    .flatMap(({ from, to }) => named.flatMap(({ section }) => placeIn(section, from, to, t) ?? []))
    .sort((a, b) => b.longMm - a.longMm);
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
      {walls.map(({ rim, held }, i) => (
        <path
          key={`wall ${i}`}
          d={path(rim)}
          fill={held ? 'var(--layout)' : 'var(--torch)'}
          fillOpacity={0.14}
          stroke={held ? 'var(--layout)' : 'var(--torch)'}
          strokeWidth={1.6}
          strokeDasharray="7 4"
        />
      ))}
      {lines(0, true)}
      {lines(step.angleDeg * 0.5, true)}
      {lines(step.angleDeg * share, false)}
      {touched && (
        <Ring at={px(touched.middle)} r={Math.max(16, (touched.longMm * scale) / 2 + 8)} />
      )}
    </g>
  );
}

const Ring = ({ at: [x, y], r }: { at: Vec; r: number }) => (
  <circle
    cx={x}
    cy={y}
    r={r}
    fill="none"
    stroke="var(--torch)"
    strokeWidth={3.5}
    strokeDasharray="9 5"
    aria-label="Hits here"
  />
);
