import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Stack from '@mui/material/Stack';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import { useState } from 'react';
import { MOST_TOOLS } from '#core/blank/limits';
import type { Shop } from '#core/blank/shopSchema';
import { cut } from '#core/card/cut';
import { usualLength } from '#core/measure/length';
import { FoldAway } from '../frame/FoldAway';
import { usePreferences } from '../frame/preferences';
import { Choice } from '../forms/Choice';
import { LengthField } from '../forms/LengthField';
import { SectionFields } from '../forms/SectionFields';

type EdgeTool = Shop['edgeTools'][number];
type BeadTool = Shop['beadTools'][number];

type Props = {
  edgeTools: readonly EdgeTool[];
  beadTools: readonly BeadTool[];
  onChange: (change: Partial<Pick<Shop, 'edgeTools' | 'beadTools'>>) => void;
};

const newId = () => crypto.randomUUID().slice(0, 8);

const DOES_WORDS: Record<EdgeTool['does'], string> = {
  shrink: 'Shrinks',
  stretch: 'Stretches',
  both: 'Does both',
};

/** What edges are gathered and stretched with, and the dies for beads. */
export function ShapeTools({ edgeTools, beadTools, onChange }: Props) {
  const { unit, show, showThin } = usePreferences();
  // The tool that was added last is open: its figures are what is wanted next.
  const [added, setAdded] = useState<string | null>(null);
  const addEdge = () => {
    const id = newId();
    setAdded(id);
    const throatMm = usualLength(25, unit);
    onChange({ edgeTools: [...edgeTools, { id, name: 'Hand shrinker', does: 'both', throatMm }] });
  };
  const addBead = () => {
    const id = newId();
    setAdded(id);
    const fresh: BeadTool = {
      id,
      name: 'Round die',
      section: {
        kind: 'arc',
        widthMm: usualLength(8, unit),
        heightMm: usualLength(2.5, unit),
      },
      depthPerPassMm: usualLength(1, unit),
      leastRadiusMm: usualLength(100, unit),
      throatMm: usualLength(450, unit),
    };
    onChange({ beadTools: [...beadTools, fresh] });
  };
  return (
    <Box
      component="section"
      id="shaping"
      aria-label="Shaping tools"
      sx={{ mt: 4, p: 2.5, bgcolor: 'var(--panel)', border: '1.5px solid var(--rule)' }}
    >
      <Typography variant="h2">Shrinkers, stretchers and dies</Typography>
      <Typography sx={{ mb: 2, maxWidth: 720 }}>
        What a bite or a pass of each does is measured on test pieces, at the Shape stop of a piece.
      </Typography>
      <Box
        sx={{
          display: 'grid',
          gridTemplateColumns: { md: '1fr 1fr' },
          gap: 3,
          alignItems: 'start',
        }}
      >
        <Stack spacing={1}>
          <Typography variant="h3">For edges</Typography>
          {edgeTools.map((tool) => (
            <FoldAway
              key={tool.id}
              title={`${tool.name} · ${DOES_WORDS[tool.does].toLowerCase()} · ${show(tool.throatMm)} in`}
              open={tool.id === added}
            >
              <EdgeToolFields
                tool={tool}
                onChange={(change) =>
                  onChange({
                    edgeTools: edgeTools.map((one) => (one === tool ? { ...one, ...change } : one)),
                  })
                }
                onOff={() => onChange({ edgeTools: edgeTools.filter((one) => one !== tool) })}
              />
            </FoldAway>
          ))}
          <Button
            variant="outlined"
            sx={{ alignSelf: 'flex-start' }}
            disabled={edgeTools.length >= MOST_TOOLS}
            onClick={addEdge}
          >
            Another for edges
          </Button>
        </Stack>
        <Stack spacing={1}>
          <Typography variant="h3">Dies for beads</Typography>
          {beadTools.map((tool) => (
            <FoldAway
              key={tool.id}
              title={`${tool.name} · ${showThin(tool.depthPerPassMm)} a pass`}
              open={tool.id === added}
            >
              <BeadToolFields
                tool={tool}
                onChange={(change) =>
                  onChange({
                    beadTools: beadTools.map((one) => (one === tool ? { ...one, ...change } : one)),
                  })
                }
                onOff={() => onChange({ beadTools: beadTools.filter((one) => one !== tool) })}
              />
            </FoldAway>
          ))}
          <Button
            variant="outlined"
            sx={{ alignSelf: 'flex-start' }}
            disabled={beadTools.length >= MOST_TOOLS}
            onClick={addBead}
          >
            Another die
          </Button>
        </Stack>
      </Box>
    </Box>
  );
}

type Fields<Tool> = {
  tool: Tool;
  onChange: (change: Partial<Tool>) => void;
  onOff: () => void;
};

function EdgeToolFields({ tool, onChange, onOff }: Fields<EdgeTool>) {
  return (
    <Box role="group" aria-label={tool.name} sx={{ display: 'grid', gap: 1 }}>
      <TextField
        label="Name"
        value={tool.name}
        onChange={(event) => onChange({ name: cut(event.target.value, 60) })}
      />
      <Box sx={{ display: 'grid', gridTemplateColumns: '1fr 1fr', gap: 1 }}>
        <Choice
          label="It"
          value={tool.does}
          onChange={(does) => onChange({ does })}
          options={Object.entries(DOES_WORDS) as [EdgeTool['does'], string][]}
        />
        <LengthField
          label="Reaches in"
          mm={tool.throatMm}
          min={1}
          onChange={(mm) => mm && onChange({ throatMm: mm })}
        />
      </Box>
      <TakeOff name={tool.name} onOff={onOff} />
    </Box>
  );
}

function BeadToolFields({ tool, onChange, onOff }: Fields<BeadTool>) {
  return (
    <Box role="group" aria-label={tool.name} sx={{ display: 'grid', gap: 1 }}>
      <TextField
        label="Name"
        value={tool.name}
        onChange={(event) => onChange({ name: cut(event.target.value, 60) })}
      />
      <SectionFields section={tool.section} onChange={(section) => onChange({ section })} />
      <Box sx={{ display: 'grid', gridTemplateColumns: 'repeat(3, 1fr)', gap: 1 }}>
        <LengthField
          label="Deeper each pass"
          mm={tool.depthPerPassMm}
          min={0.01}
          thin
          onChange={(mm) => mm && onChange({ depthPerPassMm: mm })}
        />
        <LengthField
          label="Least radius"
          mm={tool.leastRadiusMm}
          min={0}
          onChange={(mm) => mm !== null && onChange({ leastRadiusMm: mm })}
        />
        <LengthField
          label="Throat"
          mm={tool.throatMm}
          min={1}
          onChange={(mm) => mm && onChange({ throatMm: mm })}
        />
      </Box>
      <TakeOff name={tool.name} onOff={onOff} />
    </Box>
  );
}

const TakeOff = ({ name, onOff }: { name: string; onOff: () => void }) => (
  <Button color="inherit" sx={{ justifySelf: 'start' }} onClick={onOff}>
    Take “{name}” off
  </Button>
);
