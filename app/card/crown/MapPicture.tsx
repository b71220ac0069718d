import { useMemo } from 'react';
import { drawnMap } from '#core/surface/panel/drawnMap';
import type { LaidPanel } from '#core/surface/panel/laidPanel';
import type { Strip } from '#core/surface/flatten/strips';
import type { Vec } from '#core/measure/vector';
import { useView } from '../../drawing/Drawing';
import { EdgeTag, Threads, usePathData } from '../../drawing/marks';
import { WorkMap } from '../../drawing/WorkMap';
import { hangTags, tagHalfWidth } from '../../drawing/tags';
import type { Outlines } from './useLaid';

/**
 * The blank as steel with what has to be done to it: marks closer where there is more, lines of
 * equal stretch and shrink.
 */
export function MapPicture({
  laid,
  strips,
  outlines,
  letters,
}: {
  laid: LaidPanel;
  strips: readonly Strip[];
  outlines: Outlines | null;
  letters: readonly string[];
}) {
  const view = useView();
  const { px } = view;
  const map = useMemo(() => drawnMap(laid, [0, 0]), [laid]);
  const data = usePathData();
  const { path } = laid.outline;
  const tags = hangTags(
    laid.outline.edges.map(({ first, count }, i) => ({
      run: path.slice(first, first + count),
      away: 30,
      halfWidth: tagHalfWidth(letters[i]!),
    })),
    path,
    view,
  );
  const line = (places: readonly Vec[], closed: boolean) =>
    `M${places
      .map((p) =>
        px(p)
          .map((x) => x.toFixed(1))
          .join(','),
      )
      .join('L')}${closed ? 'Z' : ''}`;
  return (
    <g>
      <path d={data(path)} fill="var(--shadow)" transform="translate(4 6)" />
      <path
        d={data(path)}
        fill="var(--zinc)"
        stroke="var(--zinc-line)"
        strokeWidth={2}
        strokeLinejoin="round"
      />
      <WorkMap map={map} />
      {strips.map(({ line: places }, i) => {
        const [first, last] = [px(places[0]!), px(places[places.length - 1]!)];
        return (
          <line
            key={i}
            x1={first[0]}
            y1={first[1]}
            x2={last[0]}
            y2={last[1]}
            stroke="var(--ink)"
            strokeWidth={1}
            strokeDasharray="2 5"
          />
        );
      })}
      {outlines?.map(({ balance, line: places }) => (
        <path
          key={balance}
          d={line(places, true)}
          fill="none"
          stroke={balance === 0 ? 'var(--stretch)' : balance === 1 ? 'var(--shrink)' : 'var(--ink)'}
          strokeWidth={2}
          strokeDasharray={balance === 0 ? '3 4' : balance === 1 ? '12 5' : undefined}
        />
      ))}
      {laid.overlaps.slice(0, 20).map((at, i) => {
        const [x, y] = px(at);
        return (
          <circle key={i} cx={x} cy={y} r={9} fill="none" stroke="var(--torch)" strokeWidth={3} />
        );
      })}
      <Threads tags={tags} />
      {tags.map(
        (tag, i) => tag && <EdgeTag key={i} tag={tag} letter={letters[i]!} picked={false} />,
      )}
    </g>
  );
}
