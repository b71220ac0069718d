import Box from '@mui/material/Box';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import { useMemo } from 'react';
import { countingIds } from '#core/card/kinds';
import type { PatternDoc } from '#core/card/pattern';
import type { ShapeKind } from '#core/card/shape/figures';
import { ROLLED, SHAPES, cardOfShape, shaped } from '#core/card/shape/figures';
import { boxOf } from '#core/measure/path';
import { points } from '#core/measure/path';
import { CardPicture } from '../../drawing/CardPicture';
import { Drawing } from '../../drawing/Drawing';
import { AngleField } from '../../forms/AngleField';
import { Choice } from '../../forms/Choice';
import { LengthField } from '../../forms/LengthField';
import { useDraft } from '../../forms/useDraft';
import { Told } from '../../frame/Told';
import { usePreferences } from '../../frame/preferences';
import { problemSentence } from '../../frame/sentences';
import { usePiece } from '../../piece/pieceContext';
import { newId } from '../../frame/newId';
import { WayInFoot } from './WayInFoot';

const SHAPE_WORDS: Record<ShapeKind, { name: string; about: string }> = {
  disc: { name: 'Disc', about: 'To fill a round hole, or as a blank for a cap.' },
  ring: { name: 'Ring', about: 'A flat ring, cut out of sheet.' },
  strip: { name: 'Strip', about: 'A plain strip: for a hem, a backing, a test bend.' },
  'washer-plate': { name: 'Washer plate', about: 'A plate with a hole in its middle.' },
  gusset: {
    name: 'Gusset',
    about: 'A square corner’s gusset, its two points blunted so that they can be welded round.',
  },
  angle: { name: 'Angle', about: 'One fold along. Both legs are measured over the outside.' },
  channel: { name: 'Channel', about: 'Two folds the same way, measured over the outside.' },
  hat: { name: 'Hat', about: 'A top hat: two brims, two walls, a top.' },
  tray: {
    name: 'Tray',
    about: 'Four sides folded up, its corners open. The bottom is measured over the outside.',
  },
  box: {
    name: 'Box with lid',
    about:
      'A tray whose back goes on as a lid with a flap. The flap goes down outside the front wall: the lid is deeper than the bottom by the thickness of the sheet.',
  },
  'leaning-cone': {
    name: 'Cone that leans',
    about:
      'Rolled, not folded: between two level circles, the one beside the other. Its seam is its shortest side.',
  },
  'elbow-end': {
    name: 'Elbow of segments: an end',
    about:
      'A paper wrap or a sheet once round the tube, square at one end, its left edge at the throat. An elbow has two.',
  },
  'elbow-middle': {
    name: 'Elbow of segments: between',
    about:
      'A paper wrap or a sheet once round the tube, both ends cut alike, its left edge at the throat. An elbow has two fewer than it has pieces.',
  },
  frustum: {
    name: 'Cone or funnel',
    about: 'Rolled, not folded: a sector. A second end of 0 makes a cone with a point.',
  },
  'square-to-round': {
    name: 'Square to round',
    about:
      'From a rectangle up to a circle, parted in the middle of one side. The lines are scribed and bent a little each; their angles stand beside them on the print and at Blank under what to scribe. Its face is the outside.',
  },
  'tube-notch': {
    name: 'Tube end onto a tube',
    about:
      'Once round the tube, of paper or as the sheet it is rolled from: its left edge goes to the side of the sharp angle. Cut straight through the wall along the curved edge.',
  },
  'tube-cut': {
    name: 'Tube cut at an angle',
    about:
      'Once round the tube, of paper or as the sheet it is rolled from: its left edge goes to the longest side. Cut along the curved edge.',
  },
};

const FIGURE_WORDS: Record<string, string> = {
  diameterMm: 'Diameter',
  outsideMm: 'Outside diameter',
  insideMm: 'Inside diameter',
  longMm: 'Length',
  wideMm: 'Width',
  holeMm: 'Hole, across',
  highMm: 'Height',
  bluntMm: 'Points blunted to',
  firstMm: 'One leg',
  secondMm: 'The other leg',
  turnedDeg: 'Folded through',
  webMm: 'Across the back',
  flangeMm: 'Each flange',
  deepMm: 'Depth',
  roundMm: 'Round end, across',
  lidMm: 'Lid, deep',
  flapMm: 'Flap',
  radiusMm: 'Radius of the bend, to the axis',
  bendDeg: 'Bend in all',
  pieces: 'Pieces in all',
  topMm: 'Top',
  wallMm: 'Wall',
  brimMm: 'Each brim',
  lowerMm: 'One end, across',
  upperMm: 'The other end, across',
  heightMm: 'Height between them',
  tubeMm: 'Tube, across',
  ontoMm: 'The other tube, outside across',
  angleDeg: 'Angle',
  offsetMm: 'Axes pass each other by',
  paperMm: 'Paper below the cut, at least',
};
const KINDS = Object.keys(SHAPES) as ShapeKind[];

/** `measured` null: as is usual for the shape. */
type Draft = {
  kind: ShapeKind;
  figures: Record<string, number>;
  measured: 'outside' | 'inside' | 'wrap' | null;
};

/**
 * A card made from figures, without a template: what is made, its figures, and the card as it will
 * be.
 */
export function FromFigures({
  onDone,
  onBack,
}: {
  onDone: (card: PatternDoc) => void;
  onBack: () => void;
}) {
  const { id, pattern, facts } = usePiece();
  const { show, showThin } = usePreferences();
  const { draft, set, drop } = useDraft<Draft>(`figures ${id}`, {
    kind: 'strip',
    figures: {},
    measured: null,
  });
  const { kind, figures } = draft;
  const measured = draft.measured ?? (ROLLED[kind] === 'sheet' ? 'outside' : 'wrap');
  const { thicknessMm } = facts;
  const usual: Record<string, number> = SHAPES[kind];
  const found = useMemo(
    () =>
      shaped(kind, figures, ROLLED[kind] && measured !== 'wrap' ? { thicknessMm, measured } : null),
    [kind, figures, measured, thicknessMm],
  );
  const preview = useMemo(() => (found.ok ? cardOfShape(found, countingIds('p')) : null), [found]);
  const bounds = found.ok ? boxOf(points(found.path)) : { minX: 0, minY: 0, maxX: 300, maxY: 200 };
  const make = () => {
    if (!found.ok) return;
    drop();
    onDone(cardOfShape(found, newId));
  };
  const put = (name: string, value: number) => set({ figures: { ...figures, [name]: value } });
  return (
    <Box
      sx={{ flex: 1, minHeight: 0, display: 'flex', flexDirection: { xs: 'column', md: 'row' } }}
    >
      <Box sx={{ flex: 1, position: 'relative', minHeight: 260 }}>
        <Drawing bounds={bounds} ground="card" label="The card that these figures make">
          {preview && <CardPicture pattern={preview} pick={null} />}
        </Drawing>
      </Box>
      <Box
        component="aside"
        aria-label="Drawer"
        sx={{
          flex: { md: '0 0 440px' },
          bgcolor: 'var(--panel)',
          borderLeft: { md: '1.5px solid var(--rule)' },
          p: 2.5,
          overflowY: 'auto',
          display: 'grid',
          gap: 1.6,
          alignContent: 'start',
        }}
      >
        <Typography variant="h2">From figures</Typography>
        <Choice
          label="What is made"
          value={kind}
          onChange={(next) => set({ kind: next, figures: {}, measured: null })}
          options={KINDS.map((one) => [one, SHAPE_WORDS[one].name] as const)}
        />
        <Typography>{SHAPE_WORDS[kind].about}</Typography>
        {ROLLED[kind] && (
          <Choice
            label="Diameters and widths are of"
            value={measured}
            onChange={(next) => set({ measured: next })}
            options={[
              ['outside', `The outside, rolled from this sheet (${showThin(thicknessMm)})`],
              ['inside', `The inside, rolled from this sheet (${showThin(thicknessMm)})`],
              ['wrap', 'What a paper wrap goes round'],
            ]}
          />
        )}
        <Box sx={{ display: 'grid', gridTemplateColumns: '1fr 1fr', gap: 1.4, alignItems: 'end' }}>
          {Object.entries(usual).map(([name, standard]) => {
            const value = figures[name] ?? standard;
            const label =
              kind === 'leaning-cone' && name === 'offsetMm'
                ? 'Middles beside each other by'
                : (FIGURE_WORDS[name] ?? name);
            return name === 'pieces' ? (
              <TextField
                key={name}
                label={label}
                type="number"
                value={value}
                slotProps={{ htmlInput: { min: 2, max: 40, step: 1 } }}
                onChange={(event) => put(name, Number(event.target.value))}
              />
            ) : name.endsWith('Deg') ? (
              <AngleField
                key={name}
                label={label}
                angleDeg={value}
                min={1}
                max={170}
                wrong="Degrees, from 1 to 170."
                onChange={(deg) => put(name, deg)}
              />
            ) : (
              <LengthField
                key={name}
                label={label}
                mm={value}
                signed={name === 'offsetMm'}
                min={name === 'offsetMm' ? -20_000 : 0}
                max={20_000}
                onChange={(mm) => mm !== null && put(name, mm)}
              />
            );
          })}
        </Box>
        {!found.ok &&
          found.problems.map((problem, i) => (
            <Told key={i}>
              {problemSentence(
                { ...problem, about: problem.about?.map((name) => FIGURE_WORDS[name] ?? name) },
                pattern,
                show,
              )}
            </Told>
          ))}
        <WayInFoot onMake={preview ? make : null} onBack={onBack} />
      </Box>
    </Box>
  );
}
