import type { LayerCut } from '#core/survey/pieceSurvey';
import { LAYERS } from '#core/survey/kinds';
import { inOneLine } from '#core/survey/layerCuts';
import { usePreferences } from '../frame/preferences';
import { LAYER_WORDS } from '../piece/road/surveyWords';

const [WIDTH, ROW, LEFT, TOP] = [640, 46, 150, 22];

/**
 * The layers of a section from the outside in, and where each is cut, measured in from one edge.
 */
export function LayerPicture({
  cuts,
  edge,
  letter,
  apartMm,
}: {
  cuts: readonly LayerCut[];
  edge: string;
  letter: string;
  apartMm: number;
}) {
  const { show } = usePreferences();
  const here = cuts.filter((cut) => cut.edge === edge);
  const layers = LAYERS.filter((layer) => here.some((cut) => cut.layer === layer));
  const reach = Math.max(apartMm * 2, ...here.map(({ inMm }) => Math.abs(inMm) + apartMm));
  const least = Math.min(0, ...here.map(({ inMm }) => inMm - apartMm / 2));
  const x = (mm: number) => LEFT + ((mm - least) / (reach - least)) * (WIDTH - LEFT - 20);
  const near = inOneLine(here, apartMm);
  const height = TOP + layers.length * ROW + 14;
  const y = (layer: string) => TOP + layers.findIndex((one) => one === layer) * ROW;
  return (
    <svg
      viewBox={`0 0 ${WIDTH} ${height}`}
      width="100%"
      style={{ display: 'block', background: 'var(--bench-top)' }}
      role="img"
      aria-label={here
        .map(({ layer, inMm }) => `${LAYER_WORDS[layer]} cut ${show(inMm)} in from edge ${letter}`)
        .join('; ')}
    >
      <line
        x1={x(0)}
        x2={x(0)}
        y1={4}
        y2={height - 4}
        stroke="var(--ink)"
        strokeWidth={1.5}
        strokeDasharray="2 4"
      />
      <text x={x(0) + 5} y={15} fontSize={14} fill="var(--ink)">
        edge {letter}
      </text>
      {layers.map((layer) => (
        <g key={layer}>
          <text x={8} y={y(layer) + 22} fontSize={15} fontWeight={600} fill="var(--ink)">
            {LAYER_WORDS[layer]}
          </text>
          <rect
            x={LEFT}
            y={y(layer) + 6}
            width={WIDTH - LEFT}
            height={22}
            fill="var(--zinc)"
            stroke="var(--zinc-deep)"
          />
          {here
            .filter((cut) => cut.layer === layer)
            .map((cut, i) => (
              <g key={i}>
                <path
                  d={`M${x(cut.inMm) - 5} ${y(layer)}l10 34`}
                  stroke="var(--bench-top)"
                  strokeWidth={9}
                />
                <path
                  d={`M${x(cut.inMm) - 5} ${y(layer)}l10 34`}
                  stroke="var(--torch)"
                  strokeWidth={3}
                />
                <text
                  x={x(cut.inMm) + 10}
                  y={y(layer) + 44}
                  fontSize={14}
                  fill="var(--ink)"
                  className="figure"
                >
                  {show(cut.inMm)}
                </text>
              </g>
            ))}
        </g>
      ))}
      {near.map(({ layers: [a, b], apartMm: apart }) => (
        <text
          key={`${a}${b}`}
          x={WIDTH - 8}
          y={y(b) + 2}
          fontSize={15}
          fontWeight={700}
          textAnchor="end"
          fill="var(--torch)"
          className="figure"
        >
          ⚠ {show(apart)} apart
        </text>
      ))}
    </svg>
  );
}
