import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Table from '@mui/material/Table';
import TableBody from '@mui/material/TableBody';
import TableCell from '@mui/material/TableCell';
import TableHead from '@mui/material/TableHead';
import TableRow from '@mui/material/TableRow';
import Typography from '@mui/material/Typography';
import { useState } from 'react';
import type { BlankEdge } from '#core/blank/blank';
import type { FlangeAlong, FlangeRemedies } from '#core/blank/flange/along';
import { alongFlange, remediesOf } from '#core/blank/flange/along';
import type { SeparateFlange } from '#core/blank/flange/separateFlange';
import { radiiAlong, separateFlangeOf } from '#core/blank/flange/separateFlange';
import type { Segment } from '#core/measure/segment';
import { sheetMetal } from '#core/blank/fold/practice';
import { setEdge } from '#core/card/edit';
import { segmentsOfEdge } from '#core/card/outline';
import type { Edge, Flange } from '#core/card/pattern';
import type { Limit } from '#core/metal/forming';
import { edgeThickness, wrinklingStrain } from '#core/metal/forming';
import { rimVerdict } from '#core/metal/rim';
import { biteLearnt, bitesOver } from '#core/shape/biteStrips';
import { strainForRadius } from '#core/shape/pulledCurve';
import { widthsOf } from '#core/card/flangeWidths';
import { mostOfRamp } from '#core/measure/ramp';
import { widthsSaid } from '../frame/widthsSaid';
import { ChevronSign } from '../drawing/shapeMarks';
import { Choice } from '../forms/Choice';
import { LengthField } from '../forms/LengthField';
import { FoldAway } from '../frame/FoldAway';
import { Told } from '../frame/Told';
import { usePreferences } from '../frame/preferences';
import { FLANGE_WORDS, LIMIT_WORDS } from '../frame/words';
import { usePiece } from '../piece/pieceContext';
import { StripPiece } from './StripPiece';

const pct = (strain: number) => `${strain > 0 ? '+' : '−'}${Math.abs(strain * 100).toFixed(1)} %`;

/**
 * A flange round a curve: what its edge must gain or lose, where, in how many bites, and what can
 * be done beyond the limit.
 */
export function FlangePanel({ edge, blank }: { edge: Edge; blank: BlankEdge }) {
  const { pattern, patternEditor, metal, facts, shop } = usePiece();
  const { show, brief, thin, unit } = usePreferences();
  const { flange } = blank.allowance;
  if (!flange || !edge.flange) return null;
  const { landMm } = edge.flange;
  const along = alongFlange(segmentsOfEdge(pattern, edge), flange, landMm);
  const forming = sheetMetal(metal, facts.thicknessMm, shop).forming!;
  const strip = separateFlangeOf(segmentsOfEdge(pattern, edge), flange, landMm);
  const strained = along.stretches.filter(({ kind }) => kind !== 'plain');
  const worst = strained.flatMap(
    (stretch) =>
      remediesOf(stretch, along, stretch.strain > 0 ? forming.stretch : forming.shrink) ?? [],
  );
  return (
    <Box
      component="section"
      aria-label={`The flange of edge ${edge.letter}`}
      sx={{ display: 'grid', gap: 1.2 }}
    >
      <Typography variant="h2">The flange of edge {edge.letter}</Typography>
      <Typography>
        {FLANGE_WORDS[flange.made].title}: {widthsSaid(widthsOf(edge.flange), show)} wide,{' '}
        {flange.bend.angleDeg}° {flange.toward === 'face' ? 'toward you' : 'away'}.
      </Typography>
      {strip && <StripBlank strip={strip} edge={edge} flange={edge.flange} />}
      {along.way !== 'lip' && (
        <Verdict
          along={along}
          forming={forming}
          ok={worst.length === 0}
          wide={mostOfRamp(flange.flat)}
        />
      )}
      {worst.length > 0 && flange.made !== 'lip' && (
        <Remedies
          all={worst}
          along={along}
          flange={edge.flange}
          beyondMm={mostOfRamp(widthsOf(edge.flange)) - mostOfRamp(flange.flat)}
          onFlange={(next) => patternEditor.edit(setEdge(pattern, edge.id, { flange: next }))}
        />
      )}
      {strained.length > 0 && (
        <Table size="small" aria-label="Where it is gathered and stretched">
          <TableHead>
            <TableRow>
              <TableCell>Along, {unit === 'mm' ? 'mm' : 'in'}</TableCell>
              <TableCell align="right">Rim</TableCell>
              <TableCell align="right">In all</TableCell>
              <TableCell align="right">Thick</TableCell>
              <TableCell align="right">Bites</TableCell>
            </TableRow>
          </TableHead>
          <TableBody>
            {strained.map((s) => {
              const learnt = biteLearnt(
                shop,
                metal,
                facts.thicknessMm,
                s.strain > 0 ? 'stretch' : 'shrink',
              );
              const bites = learnt && bitesOver(s.changeMm / s.freeMm, s.freeMm, learnt);
              return (
                <TableRow key={s.fromMm}>
                  <TableCell className="figure">
                    {brief(s.fromMm, 0)}–{brief(s.toMm, 0)}
                  </TableCell>
                  <TableCell align="right" className="figure" sx={{ whiteSpace: 'nowrap' }}>
                    <ChevronSign shrink={s.strain < 0} /> {pct(s.strain)}
                  </TableCell>
                  <TableCell align="right" className="figure">
                    {s.changeMm > 0 ? '+' : '−'}
                    {brief(Math.abs(s.changeMm))}
                  </TableCell>
                  <TableCell align="right" className="figure">
                    {thin(edgeThickness(facts.thicknessMm, s.strain))}
                  </TableCell>
                  <TableCell align="right" className="figure">
                    {bites ? `${bites.bites} ± ${Math.max(1, Math.round(bites.u))}` : '?'}
                  </TableCell>
                </TableRow>
              );
            })}
          </TableBody>
        </Table>
      )}
      {strained.length > 0 && along.way !== 'lip' && <BitesSaid along={along} />}
      <FoldAway title="What a worked edge does to a strip">
        <PulledCurve />
      </FoldAway>
    </Box>
  );
}

function Verdict({
  along,
  forming,
  ok,
  wide,
}: {
  along: FlangeAlong;
  forming: { stretch: Limit; shrink: Limit; elongation: number };
  ok: boolean;
  wide: number;
}) {
  const { facts } = usePiece();
  const { mostStretch, mostShrink } = along;
  if (mostStretch === 0 && mostShrink === 0)
    return <Typography>Nothing is strained along it: it is a fold.</Typography>;
  const { cracking } = rimVerdict({
    strain: mostStretch,
    thicknessMm: facts.thicknessMm,
    thinning: forming.stretch,
    elongation: forming.elongation,
    hole: null,
  });
  const line = (strain: number, limit: Limit) => (
    <Typography key={limit.why} sx={{ fontSize: '1.1rem' }}>
      The rim must {strain > 0 ? 'stretch' : 'shrink'} by{' '}
      <b className="figure">{Math.abs(strain * 100).toFixed(1)} %</b> where it is most;{' '}
      <span className="figure">{Math.abs(limit.strain * 100).toFixed(1)} %</span> is{' '}
      {LIMIT_WORDS[limit.why]}.
    </Typography>
  );
  return (
    <Box role="status" sx={{ borderLeft: `5px solid var(${ok ? '--good' : '--torch'})`, pl: 1.5 }}>
      {mostStretch > 0 && line(mostStretch, forming.stretch)}
      {mostStretch > 0 && (
        <Typography variant="body2">
          It cracks from about{' '}
          <span className="figure">{(cracking.strain * 100).toFixed(1)} %</span> on:{' '}
          {LIMIT_WORDS[cracking.why]}.
        </Typography>
      )}
      {mostShrink < 0 && line(mostShrink, forming.shrink)}
      {mostShrink < 0 && along.way === 'tipped' && (
        <Typography variant="body2" sx={{ color: 'var(--pencil)' }}>
          So wide a flange buckles by itself at{' '}
          {Math.abs(wrinklingStrain(facts.thicknessMm, wide) * 100).toFixed(2)} % (Timoshenko &
          Gere): that is no limit of the work, but it must be gathered bite by bite.
        </Typography>
      )}
    </Box>
  );
}

/** A flange narrower than this in the flat is not offered, mm. */
const MIN_MM = 2;

/** A flange nowhere wider than `mm`. */
const narrowed = (flange: Flange, mm: number): Flange => ({
  ...flange,
  widthMm: Math.min(flange.widthMm, mm),
  endWidthMm: flange.endWidthMm === null ? null : Math.min(flange.endWidthMm, mm),
  ...(flange.between && {
    between: flange.between.map(([share, wide]) => [share, Math.min(wide, mm)] as [number, number]),
  }),
});

/**
 * What can be done about a flange beyond what its metal takes, each with a touch. `beyondMm`: a
 * finished width less the same in the flat.
 */
function Remedies({
  all,
  along,
  flange,
  beyondMm,
  onFlange,
}: {
  all: readonly FlangeRemedies[];
  along: FlangeAlong;
  flange: Flange;
  beyondMm: number;
  onFlange: (next: Flange) => void;
}) {
  const { show } = usePreferences();
  const widestMm = Math.max(0, Math.min(...all.map((one) => one.widestMm)));
  const opened = all.flatMap(({ openedDeg }) => openedDeg ?? []);
  const cuts = all.flatMap(({ notches, limit, fromMm, toMm }) =>
    notches
      ? [
          <li key={fromMm}>
            {all.length > 1 && `from ${show(fromMm, 0)} to ${show(toMm, 0)} along it: `}
            {notches.count === 1 ? 'one cut' : `${notches.count} cuts`}{' '}
            <span className="figure">{show(notches.deepMm)}</span> deep,{' '}
            {notches.count > 1 && `${show(notches.apartMm)} apart, `}
            each {limit.strain > 0 ? 'opening' : 'cut out'}{' '}
            <span className="figure">{show(notches.opensMm)}</span> wide at the rim
          </li>,
        ]
      : [],
  );
  const list = (
    <Box component="ul" sx={{ m: 0, pl: 2.5 }}>
      {cuts}
    </Box>
  );
  if (flange.how === 'notched')
    return (
      <Box>
        <b>Notch it:</b>
        {list}
        Weld the cuts when it stands, then planish.
      </Box>
    );
  // Rounded down, so that what is taken is within the limit.
  const least = Math.floor(widestMm * 10) / 10;
  const degrees = opened.length > 0 ? Math.floor(Math.min(...opened)) : null;
  const acts: { label: string; next: Flange }[] = [
    ...(least >= MIN_MM
      ? [
          along.way === 'pulled'
            ? { label: `Its leg ${show(least)} wide`, next: { ...flange, landMm: least } }
            : {
                label: `Make it ${show(least + beyondMm)} wide`,
                next: narrowed(flange, least + beyondMm),
              },
        ]
      : []),
    ...(degrees !== null && degrees >= 1
      ? [{ label: `Turn it ${degrees}° only`, next: { ...flange, turnDeg: degrees } }]
      : []),
    ...(cuts.length > 0
      ? [{ label: 'Notch it', next: { ...flange, how: 'notched' as const } }]
      : []),
    ...(along.way === 'pulled'
      ? []
      : [{ label: 'A lip of its own, welded on', next: { ...flange, how: 'lip' as const } }]),
  ];
  return (
    <Told>
      Beyond that in one piece. Any one of these will do:
      <Box component="ul" sx={{ m: 0, pl: 2.5 }}>
        <li>
          {along.way === 'pulled' ? 'the leg on the panel no wider than ' : 'no wider than '}
          <b className="figure">{show(widestMm)}</b>
          {along.way === 'pulled'
            ? ''
            : ' in the flat beyond the line; what is beyond is a lip welded on'}
        </li>
        {degrees !== null && (
          <li>
            turned no farther than <b className="figure">{degrees}°</b>
          </li>
        )}
        {cuts.length > 0 && <li>notched, the cuts welded after:{list}</li>}
      </Box>
      <Box sx={{ display: 'flex', flexWrap: 'wrap', gap: 0.8, mt: 1 }}>
        {acts.map(({ label, next }) => (
          <Button key={label} variant="outlined" size="small" onClick={() => onFlange(next)}>
            {label}
          </Button>
        ))}
      </Box>
    </Told>
  );
}

/** How a lip is cut along its weld so that it only has to be rolled. */
function weldSaid(weld: readonly Segment[], show: (mm: number) => string): string {
  const radii = radiiAlong(weld);
  const [first = null] = radii;
  if (radii.length === 1 && first === null) return 'Roll it to the curve: nothing is strained.';
  if (radii.length === 1)
    return `Cut it as part of a flat ring of ${show(first!)} radius along the weld: it rolls to the curve without being strained.`;
  return `Cut it along the weld in arcs from the panel’s end of it on: ${radii.map((r) => (r === null ? 'straight' : show(r))).join(', ')}. It rolls to the curve without being strained.`;
}

function StripBlank({
  strip,
  edge,
  flange,
}: {
  strip: SeparateFlange;
  edge: Edge;
  flange: Flange;
}) {
  const { show } = usePreferences();
  return (
    <Box sx={{ borderLeft: '5px solid var(--layout)', pl: 1.5 }}>
      <Typography>
        <b>Cut apart:</b> a strip <b className="figure">{show(strip.lengthMm)}</b> long,{' '}
        <b className="figure">{widthsSaid(strip.widths, show)}</b> wide.
      </Typography>
      {strip.kind === 'angle' ? (
        <Typography>
          Middle of the fold <span className="figure">{show(strip.foldInMm)}</span> in from the side
          that lies on the panel; fold it straight, then pull it round along that side.
          {Math.abs(strip.standing) > 0.002 &&
            ` The standing leg changes by ${pct(strip.standing)} at its rim as well.`}
        </Typography>
      ) : (
        <Typography>{weldSaid(strip.weld, show)}</Typography>
      )}
      <StripPiece strip={strip} edge={edge} flange={flange} />
    </Box>
  );
}

function BitesSaid({ along }: { along: FlangeAlong }) {
  const { metal, facts, shop } = usePiece();
  const { show } = usePreferences();
  const ways = [
    ...(along.mostStretch > 0 ? (['stretch'] as const) : []),
    ...(along.mostShrink < 0 ? (['shrink'] as const) : []),
  ];
  return (
    <>
      {ways.map((way) => {
        const learnt = biteLearnt(shop, metal, facts.thicknessMm, way);
        return (
          <Typography key={way} variant="body2" sx={{ color: 'var(--pencil)' }}>
            {learnt
              ? `By ${learnt.strips === 1 ? 'one strip' : `${learnt.strips} strips`} bitten in this shop: ${show(Math.abs(learnt.perBiteMm), 2)} a bite. Spread them evenly, from both ends in turn.`
              : `No strip of this sheet was ${way === 'shrink' ? 'shrunk' : 'stretched'} and measured here: the Shape stop asks for one first.`}
          </Typography>
        );
      })}
    </>
  );
}

/** What radius a worked edge makes, and the reverse. */
function PulledCurve() {
  const [widthMm, setWidth] = useState(25);
  const [radiusMm, setRadius] = useState(900);
  const [edge, setEdge] = useState<'stretched' | 'shrunk'>('shrunk');
  const found = strainForRadius(widthMm, radiusMm, edge);
  return (
    <Box sx={{ display: 'grid', gap: 1 }}>
      <Box sx={{ display: 'grid', gridTemplateColumns: '1fr 1fr', gap: 1 }}>
        <LengthField
          label="Strip wide"
          mm={widthMm}
          min={1}
          onChange={(mm) => mm && setWidth(mm)}
        />
        <LengthField
          label="To lie on a radius of"
          mm={radiusMm}
          min={1}
          onChange={(mm) => mm && setRadius(mm)}
        />
      </Box>
      <Choice
        label="The other edge is"
        value={edge}
        onChange={setEdge}
        options={[
          ['shrunk', 'Shrunk: it comes inside'],
          ['stretched', 'Stretched: it comes outside'],
        ]}
      />
      {found.ok ? (
        <Typography role="status">
          To bend this strip to that radius, {edge === 'shrunk' ? 'shrink' : 'stretch'} its edge by{' '}
          <b className="figure">{Math.abs(found.strain * 100).toFixed(2)} %</b>: over a metre{' '}
          <span className="figure">{Math.abs(found.strain * 1000).toFixed(1)} mm</span>.
        </Typography>
      ) : (
        <Told>
          The radius must be larger than the strip is wide: the shrunk edge would close to nothing.
        </Told>
      )}
    </Box>
  );
}
