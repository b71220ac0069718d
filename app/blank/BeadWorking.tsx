import Box from '@mui/material/Box';
import Typography from '@mui/material/Typography';
import { byDie, dieFor, packingStrip } from '#core/blank/bead/byDie';
import { endsAlong, mitresOf } from '#core/blank/bead/mitre';
import type { BlankBead } from '#core/blank/blank';
import { outlinePath } from '#core/blank/blank';
import type { Development } from '#core/blank/fold/developed';
import { beadLine, foldsAcross } from '#core/card/beadPath';
import type { Bead } from '#core/card/pattern';
import { runLength } from '#core/measure/run';
import { distance } from '#core/measure/vector';
import { Told } from '../frame/Told';
import { usePreferences } from '../frame/preferences';
import { AT_FOLDS_WORDS, DRAWN_BY_WORDS } from '../frame/words';
import { BeadMeeting } from '../piece/BeadMeeting';
import { usePiece } from '../piece/pieceContext';

/**
 * A bead on the blank: what it takes, what the blank gains for it, passes and die, and what a curve
 * or a fold asks.
 */
export function BeadWorking({
  bead,
  blank,
  number,
  development,
}: {
  bead: Bead;
  blank: BlankBead;
  number: number;
  development: Development;
}) {
  const { pattern, facts, shop } = usePiece();
  const { show, showThin } = usePreferences();
  const { size } = blank;
  const die = dieFor(bead.section, shop.beadTools);
  const run = die && byDie(blank, die, outlinePath(development));
  const line = beadLine(pattern, bead);
  const crossed = line ? foldsAcross(pattern, line) : [];
  const packing = packingStrip(bead.section, facts.thicknessMm);
  const edge =
    bead.path.kind === 'along'
      ? pattern.edges.find(({ id }) => bead.path.kind === 'along' && id === bead.path.edge)
      : undefined;
  const longMm = blank.runs.reduce((sum, one) => sum + runLength(one), 0);
  const rows: [string, string][] = [
    ['Over the surface', `${show(size.widthMm)} wide, ${showThin(size.heightMm)} high`],
    ['Metal across it', show(size.developedMm, 2)],
    ['Take-up', show(size.takeUpMm, 2)],
    ['The blank gains', `${show(blank.addsMm, 2)}, ${Math.round(blank.drawsIn * 100)} % of it`],
    ['The rest stretches', `${(blank.stretch * 100).toFixed(1)} %`],
    ['Long', show(longMm)],
  ];
  const fold = (id: string) => `fold ${pattern.folds.findIndex((one) => one.id === id) + 1}`;
  return (
    <Box
      component="section"
      aria-label={`Working of bead ${number}`}
      sx={{ display: 'grid', gap: 1 }}
    >
      <Typography variant="h2">Bead {number}</Typography>
      <Box>
        {rows.map(([name, said]) => (
          <Box
            key={name}
            sx={{
              display: 'flex',
              justifyContent: 'space-between',
              py: 0.4,
              borderBottom: '1px dotted var(--rule)',
            }}
          >
            <span>{name}</span>
            <span className="figure">{said}</span>
          </Box>
        ))}
      </Box>
      <Typography variant="caption" sx={{ color: 'var(--pencil)' }}>
        Exact geometry of its section; the share {DRAWN_BY_WORDS[blank.by]}.
      </Typography>
      {edge && bead.path.kind === 'along' && (
        <Typography>
          <b>Scribe</b> its middle and set the fence{' '}
          <b className="figure">{show(bead.path.inMm)}</b> from edge {edge.letter} as finished; on
          the blank the dashed lines are its middle and creases.
        </Typography>
      )}
      {run ? (
        <Typography>
          <b className="figure">{run.passes === 1 ? '1 pass' : `${run.passes} passes`}</b> with “
          {run.die.name}”, {showThin(run.die.depthPerPassMm)} deeper each.
        </Typography>
      ) : (
        <Told>
          No die of this shop makes this section: give it one on the shop’s page, or hammer it over
          a form.
        </Told>
      )}
      {run?.tooTightMm != null && (
        <Told>
          Its curve of {show(run.tooTightMm)} is tighter than “{run.die.name}” follows (
          {show(run.die.leastRadiusMm)}): make it by hand over a form, or take a smaller roller.
        </Told>
      )}
      {run?.outOfReachMm != null && (
        <Told>
          It lies {show(run.outOfReachMm)} from the nearer rim, “{run.die.name}” reaches{' '}
          {show(run.die.throatMm)}: bead it before the sheet is folded or welded on, in a deeper
          machine, or by hand.
        </Told>
      )}
      {bead.acrossRadiusMm !== null && (
        <Box sx={{ borderLeft: '5px solid var(--layout)', pl: 1.5 }}>
          <Typography>
            On a panel of {show(bead.acrossRadiusMm)} radius its top is{' '}
            <b className="figure">{((size.heightMm / bead.acrossRadiusMm) * 100).toFixed(2)} %</b>{' '}
            {bead.acrossOn === null
              ? 'longer or shorter'
              : bead.acrossOn === 'outside'
                ? 'longer'
                : 'shorter'}{' '}
            than the panel beside it:{' '}
            <b className="figure">{show((size.heightMm / bead.acrossRadiusMm) * longMm, 2)}</b> over
            its length.
          </Typography>
          <Typography variant="body2" sx={{ color: 'var(--pencil)' }}>
            {bead.acrossOn === null &&
              'Say under Card which side of the curve it stands on: on the outside its top is stretched, on the inside it is gathered. '}
            {bead.acrossOn === 'outside' &&
              'Stretch it by that length along its top, where the chevrons stand; or gather the panel beside it. '}
            {bead.acrossOn === 'inside' &&
              'Gather it by that length along its top, where the chevrons stand; or stretch the panel beside it. '}
            Else the panel straightens itself.
          </Typography>
        </Box>
      )}
      {crossed.map(({ fold: id }) => (
        <Typography key={id}>
          <b>Where {fold(id)} crosses:</b>{' '}
          {bead.atFolds === null
            ? 'not said yet.'
            : `${AT_FOLDS_WORDS[bead.atFolds].toLowerCase()}.`}
          {(bead.atFolds === 'packed' || bead.atFolds === null) &&
            (packing
              ? ` A strip ${showThin(packing.thickMm)} thick and ${show(packing.wideMm)} wide fills it.`
              : ' No flat strip fits it: pack it with rod, or stop it short.')}
          {bead.atFolds === 'stopped' && ` It ends ${show(size.widthMm)} before the bend begins.`}
        </Typography>
      ))}
      <Corners bead={bead} blank={blank} development={development} />
      <BeadMeeting bead={bead} />
    </Box>
  );
}

/** Length over which a bead runs out before another one, in bead widths (common practice). */
const RUN_OUT_WIDTHS = 3;

/** Where it runs into another bead of the piece: the mitre, or how far before it has to end. */
function Corners({
  bead,
  blank,
  development,
}: {
  bead: Bead;
  blank: BlankBead;
  development: Development;
}) {
  const { pattern } = usePiece();
  const { show } = usePreferences();
  const number = (id: string) => pattern.beads.findIndex((one) => one.id === id) + 1;
  const { widthMm } = blank.size;
  const corners = mitresOf(development.beads).filter(({ beads }) => beads.includes(bead.id));
  const into = development.beads.filter((other) => other.id !== bead.id && endsAlong(blank, other));
  const runOut = show(RUN_OUT_WIDTHS * widthMm);
  return (
    <>
      {corners.map(({ beads, turnDeg, line: mitre, alike }) => {
        const other = beads.find((id) => id !== bead.id)!;
        return (
          <Typography key={other}>
            <b>At the corner with bead {number(other)}</b>{' '}
            {mitre === null
              ? alike
                ? 'it runs straight on.'
                : 'it runs straight on with another section: blend the two by hand over a form.'
              : alike
                ? `they turn by ${Math.abs(turnDeg).toFixed(0)}°: the mitre is scribed on the blank, ${show(distance(...mitre), 1)} long. Stop both rollers at it and finish the corner over a form; or end one ${runOut} short and let it run out.`
                : `they are unlike and make no mitre: end one ${runOut} short and let it run out, or make the corner by hand over a form.`}
          </Typography>
        );
      })}
      {into.map((other) => (
        <Typography key={other.id}>
          <b>It ends at bead {number(other.id)}:</b> stop it {runOut} short and let it run out, or
          work the join by hand over a form.
        </Typography>
      ))}
    </>
  );
}
