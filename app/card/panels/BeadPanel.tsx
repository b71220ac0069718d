import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { dieFor } from '#core/blank/bead/byDie';
import { setBead, without } from '#core/card/edit';
import { beadLine, foldsAcross } from '#core/card/beadPath';
import { byLetter } from '#core/card/outline';
import type { Bead, BeadPath } from '#core/card/pattern';
import { runLength } from '#core/measure/run';
import { usualLength } from '#core/measure/length';
import { Choice } from '../../forms/Choice';
import { FigureField } from '../../forms/FigureField';
import { LengthField } from '../../forms/LengthField';
import { usePreferences } from '../../frame/preferences';
import { AT_FOLDS_WORDS } from '../../frame/words';
import { usePick, usePiece } from '../../piece/pieceContext';
import { BeadMeeting } from '../../piece/BeadMeeting';
import { SectionFields } from '../../forms/SectionFields';
import { useBeadsBeside } from '../../piece/useBeadsBeside';

/** Chosen where nothing is. */
const [NONE, BETWEEN] = ['none', 'between'];

/**
 * A bead at the card stage: where it runs, what it looks like cut across, and what is done where
 * folds cross it.
 */
export function BeadPanel({ bead }: { bead: Bead }) {
  const { patternEditor, pattern, shop } = usePiece();
  const { setPick } = usePick();
  const { show, unit } = usePreferences();
  const set = (change: Partial<Omit<Bead, 'id'>>) =>
    patternEditor.edit(setBead(pattern, bead.id, change), `bead ${bead.id}`);
  const { path, section } = bead;
  const line = beadLine(pattern, bead);
  const crossed = line ? foldsAcross(pattern, line) : [];
  const put = (next: BeadPath) => set({ path: next });
  const point = (end: 'from' | 'to', axis: 0 | 1, mm: number) => {
    if (path.kind !== 'between') return;
    const at: [number, number] = [...path[end]];
    at[axis] = mm;
    put({ ...path, [end]: at });
  };
  return (
    <>
      <Box sx={{ display: 'flex', alignItems: 'baseline', gap: 1 }}>
        <Typography variant="h2">Bead {pattern.beads.indexOf(bead) + 1}</Typography>
        {line && <Typography className="figure">{show(runLength(line.run))}</Typography>}
      </Box>
      <Choice
        label="It runs"
        value={path.kind === 'along' ? path.edge : BETWEEN}
        onChange={(edge) => {
          if (edge !== BETWEEN)
            put({
              kind: 'along',
              edge,
              inMm: path.kind === 'along' ? path.inMm : usualLength(30, unit),
              startMm: 0,
              endMm: 0,
            });
          else if (line)
            put({
              kind: 'between',
              from: [...line.run[0]!.a],
              to: [...line.run.at(-1)!.b],
              bulge: line.run.length === 1 ? line.run[0]!.bulge : 0,
            });
        }}
        options={[
          ...byLetter(pattern.edges).map(({ id, letter }) => [id, `Along edge ${letter}`] as const),
          [BETWEEN, 'Between two places'] as const,
        ]}
      />
      {path.kind === 'along' ? (
        <>
          <LengthField
            label="Its middle lies in from the edge"
            mm={path.inMm}
            min={0.1}
            onChange={(mm) => mm && put({ ...path, inMm: mm })}
          />
          <Box sx={{ display: 'grid', gridTemplateColumns: '1fr 1fr', gap: 1 }}>
            <LengthField
              label="Stops short at its start"
              mm={path.startMm}
              min={0}
              onChange={(mm) => mm !== null && put({ ...path, startMm: mm })}
            />
            <LengthField
              label="and at its end"
              mm={path.endMm}
              min={0}
              onChange={(mm) => mm !== null && put({ ...path, endMm: mm })}
            />
          </Box>
        </>
      ) : (
        (['from', 'to'] as const).map((end) => (
          <Box key={end} sx={{ display: 'grid', gridTemplateColumns: '1fr 1fr', gap: 1 }}>
            <LengthField
              label={end === 'from' ? 'From: across' : 'To: across'}
              signed
              mm={path[end][0]}
              onChange={(mm) => mm !== null && point(end, 0, mm)}
            />
            <LengthField
              label="up"
              signed
              mm={path[end][1]}
              onChange={(mm) => mm !== null && point(end, 1, mm)}
            />
          </Box>
        ))
      )}
      <Choice
        label="Die"
        value={dieFor(section, shop.beadTools)?.id ?? NONE}
        onChange={(id) => {
          const tool = shop.beadTools.find((one) => one.id === id);
          if (tool) set({ section: tool.section });
        }}
        options={[
          [NONE, 'A section of its own'] as const,
          ...shop.beadTools.map(({ id, name }) => [id, name] as const),
        ]}
      />
      <SectionFields section={section} onChange={(next) => set({ section: next })} />
      <Choice
        label="It stands"
        value={bead.toward}
        onChange={(toward) => set({ toward })}
        options={[
          ['face', 'Toward you'],
          ['back', 'Away'],
        ]}
      />
      <FigureField
        label="Share of its take-up that draws the edges in"
        value={bead.drawsIn === null ? null : bead.drawsIn * 100}
        min={0}
        max={100}
        unit="%"
        wrong="A share from 0 (it all stretches) to 100 %."
        onChange={(share) => set({ drawsIn: share / 100 })}
      />
      {bead.drawsIn !== null && (
        <Button color="inherit" onClick={() => set({ drawsIn: null })}>
          Take the shop’s, or the usual
        </Button>
      )}
      <LengthField
        label="The finished panel’s radius along it (empty: flat)"
        mm={bead.acrossRadiusMm}
        min={1}
        empty="flat"
        onChange={(acrossRadiusMm) => set({ acrossRadiusMm })}
      />
      {bead.acrossRadiusMm !== null && (
        <Choice
          label="On that curve the bead stands"
          value={bead.acrossOn ?? NONE}
          onChange={(on) => set({ acrossOn: on === NONE ? null : (on as Bead['acrossOn']) })}
          options={[
            [NONE, 'Not said yet'],
            ['outside', 'On the outside'],
            ['inside', 'On the inside'],
          ]}
        />
      )}
      {crossed.length > 0 && (
        <Choice
          label="Where a fold crosses it"
          value={bead.atFolds ?? NONE}
          onChange={(at) => set({ atFolds: at === NONE ? null : (at as Bead['atFolds']) })}
          options={[
            [NONE, 'Not said yet'] as const,
            ...Object.entries(AT_FOLDS_WORDS).map(([at, said]) => [at, said] as const),
          ]}
        />
      )}
      <BeadMeets bead={bead} onChange={(meets) => set({ meets })} />
      <Button
        variant="outlined"
        onClick={() => {
          setPick(null);
          patternEditor.edit(without(pattern, bead.id));
        }}
      >
        Take this bead off
      </Button>
    </>
  );
}

/** The bead of another piece that this one carries on. */
function BeadMeets({ bead, onChange }: { bead: Bead; onChange: (meets: Bead['meets']) => void }) {
  const { id } = usePiece();
  const beside = useBeadsBeside(id);
  if (beside.length === 0) return null;
  const keyOf = ({ piece, bead: other }: (typeof beside)[number]) => `${piece} ${other.id}`;
  const now = bead.meets ? `${bead.meets.piece} ${bead.meets.bead}` : '';
  return (
    <>
      <Choice
        label="Carries on"
        value={beside.some((one) => keyOf(one) === now) ? now : NONE}
        onChange={(key) => {
          const found = beside.find((one) => keyOf(one) === key);
          onChange(found ? { piece: found.piece, bead: found.bead.id } : null);
        }}
        options={[
          [NONE, 'No bead of another piece'] as const,
          ...beside.map((one) => [keyOf(one), `“${one.name}”, bead ${one.number}`] as const),
        ]}
      />
      <BeadMeeting bead={bead} />
    </>
  );
}
