import UploadFile from '@mui/icons-material/UploadFile';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { useMemo, useState } from 'react';
import type { DrawnLayer } from '#core/card/drawn';
import type { Loop } from '#core/card/drawn';
import { edgesOf, layersOf, mended } from '#core/card/drawn';
import { emptyPattern } from '#core/card/emptyPattern';
import { lettered, patternParts } from '#core/card/outline';
import type { CutOut } from '#core/card/cutOut';
import { holePath } from '#core/card/holeForm';
import type { PatternDoc } from '#core/card/pattern';
import { box, boxOf, inside, points } from '#core/measure/path';
import type { Segment } from '#core/measure/segment';
import { flattened, isStraight } from '#core/measure/segment';
import type { Vec } from '#core/measure/vector';
import { Drawing, useView } from '../../drawing/Drawing';
import { usePathData } from '../../drawing/marks';
import { Choice } from '../../forms/Choice';
import { usePreferences } from '../../frame/preferences';
import { newId } from '../../frame/newId';
import type { Drawing as Read } from './drawingFile';
import { CURVE_SHARE } from './drawingFile';
import { readDrawing } from './readDrawing';
import { foldedAlong, marksAlong } from '../photograph/traced';
import { WayInFoot } from './WayInFoot';

type Role = 'outline' | 'holes' | 'folds' | 'marks' | 'leave';
const ROLES: readonly (readonly [Role, string])[] = [
  ['outline', 'The outline'],
  ['holes', 'Holes'],
  ['folds', 'Folds'],
  ['marks', 'Lines to scribe'],
  ['leave', 'Leave it out'],
];
const UNITS: readonly (readonly [string, string])[] = [
  ['1', 'Millimetres'],
  ['25.4', 'Inches'],
  ['10', 'Centimetres'],
  [String(25.4 / 96), 'Pixels, 96 to the inch'],
  [String(25.4 / 72), 'Points, 72 to the inch'],
];
/** As many loops are offered as the piece. */
const MAX_LOOPS = 12;

type Got = { name: string; read: Read };

/**
 * A card from a drawing: which layer is outline, holes or folds, how large its units are, which
 * loop is the piece.
 */
export function FromFile({
  onDone,
  onBack,
}: {
  onDone: (card: PatternDoc) => void;
  onBack: () => void;
}) {
  const { show } = usePreferences();
  const [got, setGot] = useState<Got | null>(null);
  const [wrong, setWrong] = useState<string | null>(null);
  const [unit, setUnit] = useState<string | null>(null);
  const [roles, setRoles] = useState<Record<string, Role>>({});
  const [piece, setPiece] = useState(0);
  const perUnit = unit === null ? (got?.read.unitMm ?? null) : Number(unit);
  const read = useMemo(
    () => (got ? mended(scaled(got.read, perUnit ?? 1)) : NOTHING),
    [got, perUnit],
  );
  const layers = useMemo(() => layersOf(read.drawn), [read]);
  const roleOf = (layer: DrawnLayer) => roles[layer.name] ?? likely(layer, layers);
  const of = (role: Role) => layers.filter((layer) => roleOf(layer) === role);
  const loops = of('outline')
    .flatMap((layer) => layer.loops)
    .sort((a, b) => sizeOf(b.path) - sizeOf(a.path));
  const chosen = loops[Math.min(piece, loops.length - 1)] ?? null;
  const isOuter = (loop: Loop) =>
    !loops.some((other) => other !== loop && within(loop.path, other.path));
  const isIn = (path: readonly Segment[]) => chosen !== null && within(path, chosen.path);
  const others = [
    ...loops.filter((loop) => loop !== chosen),
    ...of('holes').flatMap((layer) => layer.loops),
  ].filter(({ path }) => isIn(path));
  const holes = others.flatMap(({ hole }) => hole ?? []);
  const folds = [...of('folds').flatMap((layer) => layer.open)].filter((run) => run.length === 1);
  const marks = of('marks')
    .flatMap((layer) => [...layer.open, ...layer.loops.map(({ path }) => path)])
    .flatMap((run) => run.flatMap(bitsOf));
  const open = of('outline').reduce((sum, layer) => sum + layer.open.length, 0);
  const choose = async (file: File) => {
    const read = await readDrawing(file.name, await file.text());
    const bad = 'wrong' in read;
    setWrong(bad ? `${file.name}: ${read.wrong}` : null);
    // Nothing is half taken: what was read before stays until there is another that can be read.
    if (bad) return;
    setGot({ name: file.name, read });
    setUnit(null);
    setRoles({});
    setPiece(0);
  };
  const make = () => {
    const made = card();
    if (made) onDone(made);
  };
  const card = (): PatternDoc | null => {
    if (!chosen || perUnit === null) return null;
    const parts = patternParts(chosen.path, newId);
    const doc = {
      ...emptyPattern(),
      ...parts,
      edges: joinedEdges(parts, edgesOf(chosen.path, read.drawn)),
    };
    const made = {
      ...doc,
      marks: marksAlong(marks.slice(0, MAX_MARKS), newId),
      holes: holes.map(({ at: [x, y], diameterMm, form }) => ({
        id: newId(),
        x,
        y,
        diameterMm,
        form,
      })),
    };
    return foldedAlong(
      made,
      folds.map(([run]) => [run!.a, run!.b] as const),
      newId,
    );
  };
  const all = layers.flatMap((layer) => [...layer.loops.map(({ path }) => path), ...layer.open]);
  const bounds =
    all.length > 0
      ? boxOf(all.flatMap((run) => points(run)))
      : { minX: 0, minY: 0, maxX: 300, maxY: 200 };
  return (
    <Box
      sx={{ flex: 1, minHeight: 0, display: 'flex', flexDirection: { xs: 'column', md: 'row' } }}
    >
      <Box sx={{ flex: 1, position: 'relative', minHeight: 260 }}>
        <Drawing bounds={bounds} ground="card" label="What the file holds">
          <Runs runs={all} chosen={chosen?.path ?? null} holes={holes} folds={folds} />
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
        <Typography variant="h2">From a drawing</Typography>
        <Button
          component="label"
          variant={got ? 'outlined' : 'contained'}
          size="large"
          startIcon={<UploadFile />}
        >
          {got ? 'Another file' : 'Choose a DXF, SVG or CSV file'}
          <input
            type="file"
            accept=".dxf,.svg,.csv,.tsv,.txt,image/svg+xml,text/csv"
            hidden
            aria-label="The drawing"
            onChange={(event) => {
              const file = event.target.files?.[0];
              if (file) void choose(file);
              event.target.value = '';
            }}
          />
        </Button>
        {wrong && (
          <Box
            role="alert"
            sx={{ p: 1.2, bgcolor: 'var(--torch-ground)', borderLeft: '5px solid var(--torch)' }}
          >
            {wrong}
          </Box>
        )}
        {got && (
          <Choice
            label={
              got.read.unitMm === null
                ? 'The file does not say how large it is. Its figures are'
                : 'Its figures are, as the file says'
            }
            value={unit ?? SAID}
            options={[[SAID, unitSaid(got.read.unitMm)] as const, ...UNITS]}
            onChange={(next) => setUnit(next === SAID ? null : next)}
          />
        )}
        {layers.map((layer) => (
          <Choice
            key={layer.name}
            label={`${layer.name}: ${holds(layer)}`}
            value={roleOf(layer)}
            options={ROLES}
            onChange={(role) => setRoles({ ...roles, [layer.name]: role })}
          />
        ))}
        {loops.length > 1 && loops.filter((loop) => !loop.hole || isOuter(loop)).length > 1 && (
          <Choice
            label="Which is the piece"
            value={String(piece)}
            onChange={(next) => setPiece(Number(next))}
            options={loops
              .slice(0, MAX_LOOPS)
              .map(({ path }, i) => [String(i), sizeSaid(path, show)] as const)}
          />
        )}
        {got && (
          <Typography>
            {chosen && perUnit !== null
              ? `${chosen.path.length} sides, ${sizeSaid(chosen.path, show)}; ${many(holes.length, 'hole')}, ${many(folds.length, 'line')} to fold${marks.length > 0 ? `, ${marks.length} to scribe` : ''}. Curves are lines and arcs within ${show(CURVE_SHARE * reach(bounds))}.`
              : chosen
                ? 'Say what its figures are.'
                : 'No closed loop is on the layer of the outline: choose another layer for it, or close the outline where it was drawn.'}
          </Typography>
        )}
        {(read.empty > 0 || read.doubled > 0) && (
          <Note>
            Put right:{' '}
            {[
              read.doubled > 0 ? `${many(read.doubled, 'line')} drawn twice` : '',
              read.empty > 0 ? `${many(read.empty, 'line')} of no length` : '',
            ]
              .filter(Boolean)
              .join(', ')}{' '}
            left out.
          </Note>
        )}
        {marks.length > MAX_MARKS && (
          <Note>Only {MAX_MARKS} lines to scribe are taken: leave out what is not needed.</Note>
        )}
        {open > 0 && chosen && (
          <Note>
            {open === 1 ? 'One line' : `${open} lines`} on the layer of the outline close no loop
            and are left out.
          </Note>
        )}
        {others.length > holes.length && (
          <Note>
            Cut-outs that are neither round nor slots nor squares are left out (
            {others.length - holes.length}): mark them on the print.
          </Note>
        )}
        {got && got.read.passedOver.length > 0 && (
          <Note>
            Not read: {got.read.passedOver.join(', ').toLowerCase()}. Take them apart into lines and
            arcs where they matter.
          </Note>
        )}
        <WayInFoot onMake={got && chosen && perUnit !== null ? make : null} onBack={onBack} />
      </Box>
    </Box>
  );
}

const Note = ({ children }: { children: React.ReactNode }) => (
  <Typography variant="body2" sx={{ color: 'var(--pencil)' }}>
    {children}
  </Typography>
);

const scaled = (read: Read, by: number) =>
  read.drawn.map(({ layer, run, ...rest }) => ({
    ...rest,
    layer,
    run: run.map(({ a, b, bulge }): Segment => ({
      a: [a[0] * by, a[1] * by],
      b: [b[0] * by, b[1] * by],
      bulge,
    })),
  }));

const NOTHING = mended([]);

/** The unit as the file says it. */
const SAID = 'said';
const unitSaid = (unitMm: number | null): string =>
  unitMm === null
    ? 'Choose …'
    : (UNITS.find(([mm]) => Math.abs(Number(mm) - unitMm) < 1e-6)?.[1] ??
      `${Number(unitMm.toPrecision(4))} mm to one`);

/** The edges of a card whose sides are joined to edges as said, lettered anew. */
const joinedEdges = (
  { edges }: Pick<PatternDoc, 'edges'>,
  groups: readonly (readonly number[])[],
): PatternDoc['edges'] =>
  lettered(
    groups.map((sides) => ({
      ...edges[sides[0]!]!,
      sides: sides.flatMap((i) => edges[i]!.sides),
    })),
  );

const many = (count: number, of: string) => `${count} ${of}${count === 1 ? '' : 's'}`;

/** Maximum number of lines to scribe on a card. */
const MAX_MARKS = 1000;
/** A line as it is, an arc as straight bits. */
const bitsOf = (s: Segment): (readonly [Vec, Vec])[] => {
  const at = [...(isStraight(s) ? [s.a] : flattened(s, 0.1)), s.b];
  return at.slice(1).map((b, i) => [at[i]!, b] as const);
};

const sizeOf = (path: readonly Segment[]) => {
  const { minX, maxX, minY, maxY } = box([...path]);
  return (maxX - minX) * (maxY - minY);
};
const reach = ({ minX, maxX, minY, maxY }: ReturnType<typeof boxOf>) =>
  Math.hypot(maxX - minX, maxY - minY);
const sizeSaid = (path: readonly Segment[], show: (mm: number) => string) => {
  const { minX, maxX, minY, maxY } = box([...path]);
  return `${show(maxX - minX)} by ${show(maxY - minY)}`;
};

/** Whether one path lies in another: loops of a drawing do not cross, so all its corners do. */
function within(path: readonly Segment[], around: readonly Segment[]): boolean {
  const polygon = points(around);
  return path.every(({ a }) => inside(a, polygon));
}

const holds = ({ loops, open }: DrawnLayer) =>
  [loops.length > 0 ? `${loops.length} closed` : '', open.length > 0 ? `${open.length} open` : '']
    .filter(Boolean)
    .join(', ') || 'nothing';

/**
 * What a layer most likely is: the outline where the largest loop is, holes where all are holes,
 * folds where nothing closes.
 */
function likely(layer: DrawnLayer, layers: readonly DrawnLayer[]): Role {
  const largest = (one: DrawnLayer) => (one.loops[0] ? sizeOf(one.loops[0].path) : 0);
  if (layer.loops.length > 0 && layers.every((other) => largest(other) <= largest(layer)))
    return 'outline';
  if (layer.loops.length > 0 && layer.loops.every(({ hole }) => hole)) return 'holes';
  return layer.loops.length === 0 && layer.open.length > 0 ? 'folds' : 'leave';
}

type RunsProps = {
  runs: readonly Segment[][];
  chosen: readonly Segment[] | null;
  holes: readonly CutOut[];
  folds: readonly Segment[][];
};

function Runs({ runs, chosen, holes, folds }: RunsProps) {
  const { px, scale } = useView();
  const data = usePathData();
  return (
    <g fill="none">
      {chosen && (
        <path d={data(chosen)} fill="var(--manila)" stroke="var(--manila-edge)" strokeWidth={3} />
      )}
      {runs.map((run, i) => (
        <path
          key={i}
          d={data(run, false)}
          stroke="var(--card-pencil)"
          strokeWidth={1.2}
          opacity={0.55}
        />
      ))}
      {chosen && <path d={data(chosen)} stroke="var(--torch)" strokeWidth={2.4} />}
      {holes.map(({ at, ...hole }, i) => {
        const path = holePath(at, hole);
        const [cx, cy] = px(at);
        return path ? (
          <path key={i} d={data(path)} stroke="var(--torch)" strokeWidth={2.2} />
        ) : (
          <circle
            key={i}
            cx={cx}
            cy={cy}
            r={(hole.diameterMm / 2) * scale}
            stroke="var(--torch)"
            strokeWidth={2.2}
          />
        );
      })}
      {folds.map((run, i) => (
        <path
          key={i}
          d={data(run, false)}
          stroke="var(--torch)"
          strokeWidth={2.2}
          strokeDasharray="11 4"
        />
      ))}
    </g>
  );
}
