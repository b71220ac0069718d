import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { useState } from 'react';
import { Link, useRevalidator } from 'react-router';
import { shareDrawn } from '#core/blank/bead/tested';
import { strainPerBite } from '#core/shape/bites';
import type { ShapeStep } from '#core/shape/shapeStep';
import { FigureField } from '../forms/FigureField';
import { Choice } from '../forms/Choice';
import { LengthField } from '../forms/LengthField';
import { useDraft } from '../forms/useDraft';
import { usePost } from '../forms/usePost';
import { Told } from '../frame/Told';
import { usePreferences } from '../frame/preferences';
import { problemSentence } from '../frame/sentences';
import { usePiece } from '../piece/pieceContext';

/** A steel rule is read to about half a millimetre. */
const RULE_MM = 0.5;
const CALIPER_MM = 0.1;

/** Where the readings of a test piece go: to the shop's figures, and at once into this piece. */
export function TestReadings({ step, onKept }: { step: ShapeStep; onKept: () => void }) {
  if (step.what === 'test-strip') return <StripReading step={step} onKept={onKept} />;
  if (step.what === 'test-bead') return <BeadReading step={step} onKept={onKept} />;
  if (step.what === 'test-bend')
    return (
      <Button component={Link} to="/shop/learnt" variant="outlined">
        Write the test bend down
      </Button>
    );
  return null;
}

function useReadings(onKept: () => void) {
  const { revalidate } = useRevalidator();
  return usePost<object>('/shop/readings', () => {
    onKept();
    void revalidate();
  });
}

type StripDraft = {
  lengthMm: number;
  bites: number;
  afterMm: number | null;
  tool: string;
  at: string | null;
};

function StripReading({ step, onKept }: { step: ShapeStep; onKept: () => void }) {
  const { id, facts, metal, shop, pattern } = usePiece();
  const { show } = usePreferences();
  const way = step.reason === 'shrink-not-proven' ? 'shrink' : 'stretch';
  const tools = shop.edgeTools.filter(({ does }) => does === way || does === 'both');
  const { lengthMm = 150, bites = 10, widthMm = 25 } = step.figures;
  const { draft, set, drop } = useDraft<StripDraft>(`strip ${id} ${step.key}`, {
    lengthMm,
    bites,
    afterMm: null,
    tool: tools[0]?.id ?? '',
    at: null,
  });
  const post = useReadings(onKept);
  const read = draft.afterMm === null ? null : strainPerBite({ ...draft, afterMm: draft.afterMm });
  const wrongWay = read?.ok === true && (way === 'shrink') !== read.strainPerBite < 0;
  const keep = async () => {
    if (draft.afterMm === null) return;
    const at = draft.at ?? new Date().toISOString();
    set({ at });
    const reading = {
      metal: metal.id,
      thicknessMm: facts.thicknessMm,
      tool: draft.tool || null,
      piece: id,
      at,
      widthMm,
      lengthMm: draft.lengthMm,
      bites: draft.bites,
      afterMm: draft.afterMm,
      uMm: RULE_MM,
    };
    if (await post.send({ intent: 'add', of: { list: 'bites', reading } })) drop();
  };
  return (
    <Box
      component="section"
      aria-label="Readings of the test strip"
      sx={{ display: 'grid', gap: 1.2 }}
    >
      {tools.length > 0 && (
        <Choice
          label="Worked with"
          value={draft.tool}
          onChange={(tool) => set({ tool })}
          options={tools.map(({ id: tool, name }) => [tool, name] as const)}
        />
      )}
      <Box sx={{ display: 'grid', gridTemplateColumns: '1fr 1fr', gap: 1 }}>
        <LengthField
          label="Edge before"
          mm={draft.lengthMm}
          min={1}
          onChange={(mm) => mm && set({ lengthMm: mm, at: null })}
        />
        <FigureField
          label="Bites"
          value={draft.bites}
          min={1}
          max={10_000}
          unit=""
          wrong="How many bites it got: a whole number."
          onChange={(n) => set({ bites: Math.round(n), at: null })}
        />
      </Box>
      <LengthField
        label="Edge after"
        mm={draft.afterMm}
        min={1}
        digits={2}
        big
        onChange={(afterMm) => set({ afterMm, at: null })}
      />
      {read && !read.ok && <Told>{problemSentence(read.problems[0]!, pattern, show)}</Told>}
      {wrongWay && (
        <Told>
          It got {way === 'shrink' ? 'longer' : 'shorter'}: this step asks for a strip that is{' '}
          {way === 'shrink' ? 'shrunk' : 'stretched'}.
        </Told>
      )}
      {read?.ok && !wrongWay && (
        <Typography role="status">
          One bite:{' '}
          <b className="figure">
            {Math.abs(
              (Math.log(draft.afterMm! / draft.lengthMm) * draft.lengthMm) / draft.bites,
            ).toFixed(2)}{' '}
            mm
          </b>
          . The plan will count by that.
        </Typography>
      )}
      <Button
        variant="contained"
        disabled={!read?.ok || wrongWay || post.state === 'busy'}
        onClick={() => void keep()}
      >
        Keep the reading
      </Button>
      {post.problem && <Told>{post.problem}</Told>}
    </Box>
  );
}

type BeadDraft = { wideMm: number; wideAfterMm: number | null; passes: number; at: string | null };

function BeadReading({ step, onKept }: { step: ShapeStep; onKept: () => void }) {
  const { id, facts, metal, pattern, development } = usePiece();
  const { show } = usePreferences();
  const bead = pattern.beads.find((one) => one.id === step.about[0]);
  const { wideMm = 72 } = step.figures;
  const { draft, set, drop } = useDraft<BeadDraft>(`bead test ${id} ${step.key}`, {
    wideMm,
    wideAfterMm: null,
    passes: 3,
    at: null,
  });
  const post = useReadings(onKept);
  const [bad, setBad] = useState(false);
  const blank = development.ok
    ? development.development.beads.find((one) => one.id === bead?.id)
    : undefined;
  if (!bead) return null;
  const test =
    draft.wideAfterMm === null
      ? null
      : {
          thicknessMm: facts.thicknessMm,
          section: bead.section,
          wideMm: draft.wideMm,
          wideAfterMm: draft.wideAfterMm,
          uMm: CALIPER_MM,
        };
  const share = test && shareDrawn(test);
  const keep = async () => {
    if (!test || !share) return setBad(true);
    const at = draft.at ?? new Date().toISOString();
    set({ at });
    const reading = { metal: metal.id, tool: null, piece: id, at, passes: draft.passes, ...test };
    if (await post.send({ intent: 'add', of: { list: 'beadTests', reading } })) drop();
  };
  return (
    <Box
      component="section"
      aria-label="Readings of the test piece"
      sx={{ display: 'grid', gap: 1.2 }}
    >
      <Box sx={{ display: 'grid', gridTemplateColumns: '1fr 1fr', gap: 1 }}>
        <LengthField
          label="Wide before"
          mm={draft.wideMm}
          min={1}
          digits={2}
          onChange={(mm) => mm && set({ wideMm: mm, at: null })}
        />
        <LengthField
          label="Wide after"
          mm={draft.wideAfterMm}
          min={1}
          digits={2}
          onChange={(wideAfterMm) => set({ wideAfterMm, at: null })}
        />
      </Box>
      <FigureField
        label="Passes it took"
        value={draft.passes}
        min={1}
        max={100}
        unit=""
        wrong="How many passes it took: a whole number."
        onChange={(n) => set({ passes: Math.round(n), at: null })}
      />
      {test && !share && (
        <Told>
          So much cannot be drawn in by this bead ({show(step.figures.takeUpMm ?? 0, 2)} is its
          whole take-up): measure the piece square to the bead, before and after.
        </Told>
      )}
      {share && blank && (
        <Typography role="status">
          <b className="figure">{Math.round(share.value * 100)} %</b> draws in: the blank gains{' '}
          <b className="figure">{show(share.value * blank.size.takeUpMm, 2)}</b> for this bead,{' '}
          {show(blank.addsMm, 2)} until now.
        </Typography>
      )}
      {bad && !test && <Told>Measure it after the bead is rolled.</Told>}
      <Button
        variant="contained"
        disabled={!share || post.state === 'busy'}
        onClick={() => void keep()}
      >
        Keep the reading
      </Button>
      {post.problem && <Told>{post.problem}</Told>}
    </Box>
  );
}
