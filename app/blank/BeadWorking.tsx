import Box from '@mui/material/Box';
import Typography from '@mui/material/Typography';
import { byDie, dieFor, packingStrip } from '#core/blank/bead/byDie';
import type { BlankBead } from '#core/blank/blank';
import { outlinePath } from '#core/blank/blank';
import type { Development } from '#core/blank/fold/developed';
import { beadLine, foldsAcross } from '#core/card/beadPath';
import type { Bead } from '#core/card/pattern';
import { runLength } from '#core/measure/run';
import { Told } from '../frame/Told';
import { usePreferences } from '../frame/preferences';
import { AT_FOLDS_WORDS, DRAWN_BY_WORDS } from '../frame/words';
import { BeadMeeting } from '../piece/BeadMeeting';
import { usePiece } from '../piece/pieceContext';

/** A bead on the blank: what it takes, what the blank gains for it, passes and die, and what a curve or a fold asks. */
export function BeadWorking({ bead, blank, number, development }: { bead: Bead; blank: BlankBead; number: number; development: Development }) {
  const { pattern, facts, shop } = usePiece();
  const { show, showThin } = usePreferences();
  const { size } = blank;
  const die = dieFor(bead.section, shop.beadTools);
  const run = die && byDie(blank, die, outlinePath(development));
  const line = beadLine(pattern, bead);
  const crossed = line ? foldsAcross(pattern, line) : [];
  const packing = packingStrip(bead.section, facts.thicknessMm);
  const edge = bead.path.kind === 'along' ? pattern.edges.find(({ id }) => bead.path.kind === 'along' && id === bead.path.edge) : undefined;
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
    <Box component="section" aria-label={`Working of bead ${number}`} sx={{ display: 'grid', gap: 1 }}>
      <Typography variant="h2">Bead {number}</Typography>
      <Box>
        {rows.map(([name, said]) => (
          <Box key={name} sx={{ display: 'flex', justifyContent: 'space-between', py: 0.4, borderBottom: '1px dotted var(--rule)' }}>
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
          <b>Scribe</b> its middle and set the fence <b className="figure">{show(bead.path.inMm)}</b> from edge {edge.letter} as finished; on the blank
          the dashed lines are its middle and creases.
        </Typography>
      )}
      {run ? (
        <Typography>
          <b className="figure">{run.passes === 1 ? '1 pass' : `${run.passes} passes`}</b> with “{run.die.name}”, {showThin(run.die.depthPerPassMm)} deeper each.
        </Typography>
      ) : (
        <Told>No die of this shop makes this section: give it one on the shop’s page, or hammer it over a form.</Told>
      )}
      {run?.tooTightMm != null && <Told>Its curve of {show(run.tooTightMm)} is tighter than “{run.die.name}” follows ({show(run.die.leastRadiusMm)}): make it by hand over a form, or take a smaller roller.</Told>}
      {run?.outOfReachMm != null && <Told>It lies {show(run.outOfReachMm)} from the nearer rim, “{run.die.name}” reaches {show(run.die.throatMm)}: bead it before the sheet is folded or welded on, in a deeper machine, or by hand.</Told>}
      {bead.acrossRadiusMm !== null && (
        <Box sx={{ borderLeft: '5px solid var(--layout)', pl: 1.5 }}>
          <Typography>
            On a panel of {show(bead.acrossRadiusMm)} radius its top is <b className="figure">{((size.heightMm / bead.acrossRadiusMm) * 100).toFixed(2)} %</b>{' '}
            {bead.acrossOn === null ? 'longer or shorter' : bead.acrossOn === 'outside' ? 'longer' : 'shorter'} than the panel beside it:{' '}
            <b className="figure">{show((size.heightMm / bead.acrossRadiusMm) * longMm, 2)}</b> over its length.
          </Typography>
          <Typography variant="body2" sx={{ color: 'var(--pencil)' }}>
            {bead.acrossOn === null && 'Say under Card which side of the curve it stands on: on the outside its top is stretched, on the inside it is gathered. '}
            {bead.acrossOn === 'outside' && 'Stretch it by so much along its top, where the chevrons stand; or gather the panel beside it. '}
            {bead.acrossOn === 'inside' && 'Gather it by so much along its top, where the chevrons stand; or stretch the panel beside it. '}
            Else the panel straightens itself.
          </Typography>
        </Box>
      )}
      {crossed.map(({ fold: id }) => (
        <Typography key={id}>
          <b>Where {fold(id)} crosses:</b>{' '}
          {bead.atFolds === null ? 'not said yet.' : `${AT_FOLDS_WORDS[bead.atFolds].toLowerCase()}.`}
          {(bead.atFolds === 'packed' || bead.atFolds === null) &&
            (packing ? ` A strip ${showThin(packing.thickMm)} thick and ${show(packing.wideMm)} wide fills it.` : ' No flat strip fits it: pack it with rod, or stop it short.')}
          {bead.atFolds === 'stopped' && ` It ends ${show(size.widthMm)} before the bend begins.`}
        </Typography>
      ))}
      <BeadMeeting bead={bead} />
    </Box>
  );
} // prettier-ignore
