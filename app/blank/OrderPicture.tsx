import { useMemo } from 'react';
import type { Development } from '#core/blank/fold/developed';
import { placeIn } from '#core/blank/fold/order/contact';
import { sliceOf } from '#core/blank/fold/order/slice';
import type { Brake } from '#core/machine/brake';
import { sectionOf } from '#core/machine/brake';
import type { Vec } from '#core/measure/vector';
import { Drawing, useView } from '../drawing/Drawing';
import type { Shown } from './ordering';

type Props = Shown & { development: Development; brake: Brake; anglesDeg: readonly number[]; share: number };

/** A fold in section, square to its line: the machine, the piece as it is held, and as it swings up; where it hits is ringed. */
export function OrderPicture(given: Props) {
  const { noseHeightMm, noseDepthMm } = given.brake;
  const reach = Math.max(60, Math.min(160, noseHeightMm + 20));
  const bounds = { minX: -Math.max(reach, noseDepthMm + 30), maxX: reach, minY: -reach * 0.45, maxY: reach };
  return (
    <Drawing bounds={bounds} ground="blank" label={`Fold ${given.step.fold + 1} in the machine, in section`}>
      <Section {...given} />
    </Drawing>
  );
}

/** Farther than this nothing of a machine is drawn, mm. */
const DRAWN_MM = 400;

function Section({ development, brake, step, made, hit, anglesDeg, share }: Props) {
  const { px, scale } = useView();
  const t = development.folds[step.fold]!.bend.thicknessMm;
  const parts = useMemo(() => {
    const found = sectionOf(brake, t);
    return found.ok ? found.parts : [];
  }, [brake, t]);
  const at = (deg: number) => sliceOf(development, step, { made, anglesDeg, deg, alongMm: hit?.alongMm });
  const path = (polygon: readonly Vec[]) =>
    `M${polygon.map(([x, z]) => px([Math.max(-DRAWN_MM, Math.min(DRAWN_MM, x)), Math.max(-DRAWN_MM, Math.min(DRAWN_MM, z))]).join(' ')).join('L')}Z`;
  const wide = Math.max(3, t * scale);
  const lines = (deg: number, faint: boolean) =>
    at(deg).map(({ from, to, held }, i) => {
      const [[x1, y1], [x2, y2]] = [px(from), px(to)];
      if (faint && held) return null;
      const stroke = held ? 'var(--layout)' : 'var(--torch)';
      return <line key={`${deg} ${i}`} x1={x1} y1={y1} x2={x2} y2={y2} stroke={stroke} strokeWidth={wide} strokeLinecap="round" opacity={faint ? 0.22 : 1} />;
    });
  // Where something is in the way the part it runs into is told by the search; all places at which the piece is in it are ringed.
  const touched = hit ? at(step.angleDeg * share).flatMap(({ from, to }) => parts.filter(({ name }) => name !== 'apron' || share === 0).flatMap(({ section }) => placeIn(section, from, to, t) ?? [])) : [];
  return (
    <g>
      {parts.map(({ name, section }, i) => (
        <path key={i} d={path(section)} fill={name === 'apron' ? 'var(--zinc)' : 'var(--zinc-deep)'} stroke="var(--ink)" strokeWidth={1.2} opacity={name === 'beam' ? 0.55 : 0.9} />
      ))}
      {lines(0, true)}
      {lines(step.angleDeg * 0.5, true)}
      {lines(step.angleDeg * share, false)}
      {touched.map(({ middle, longMm }, i) => {
        const [x, y] = px(middle);
        return <circle key={i} cx={x} cy={y} r={Math.max(14, (longMm * scale) / 2 + 8)} fill="none" stroke="var(--torch)" strokeWidth={3.5} strokeDasharray="9 5" aria-label="Hits here" />;
      })}
    </g>
  );
} // prettier-ignore
