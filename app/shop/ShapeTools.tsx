import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Stack from '@mui/material/Stack';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import { useState } from 'react';
import type { ComponentType } from 'react';
import { MAX_TOOLS } from '#core/blank/limits';
import type { Shop } from '#core/blank/shopSchema';
import { cut } from '#core/card/cut';
import { usualLength } from '#core/measure/length';
import { newId } from '../frame/newId';
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
        <ToolList
          heading="For edges"
          tools={edgeTools}
          titleOf={({ name, does, throatMm }) =>
            `${name} · ${DOES_WORDS[does].toLowerCase()} · ${show(throatMm)} in`
          }
          Fields={EdgeToolFields}
          added={added}
          more="Another for edges"
          onMore={addEdge}
          onChange={(next) => onChange({ edgeTools: next })}
        />
        <ToolList
          heading="Dies for beads"
          tools={beadTools}
          titleOf={({ name, depthPerPassMm }) => `${name} · ${showThin(depthPerPassMm)} a pass`}
          Fields={BeadToolFields}
          added={added}
          more="Another die"
          onMore={addBead}
          onChange={(next) => onChange({ beadTools: next })}
        />
      </Box>
    </Box>
  );
}

/** Tools of one kind, a line each, their figures behind it. `added`: the one that is open at first. */
function ToolList<Tool extends { id: string; name: string }>({
  heading,
  tools,
  titleOf,
  Fields,
  added,
  more,
  onMore,
  onChange,
}: {
  heading: string;
  tools: readonly Tool[];
  titleOf: (tool: Tool) => string;
  Fields: ComponentType<Fields<Tool>>;
  added: string | null;
  more: string;
  onMore: () => void;
  onChange: (tools: Tool[]) => void;
}) {
  return (
    <Stack spacing={1}>
      <Typography variant="h3">{heading}</Typography>
      {tools.map((tool) => (
        <FoldAway key={tool.id} title={titleOf(tool)} open={tool.id === added}>
          <Box role="group" aria-label={tool.name} sx={{ display: 'grid', gap: 1 }}>
            <TextField
              label="Name"
              value={tool.name}
              onChange={(event) =>
                onChange(put(tools, { ...tool, name: cut(event.target.value, 60) }))
              }
            />
            <Fields
              tool={tool}
              onChange={(change) => onChange(put(tools, { ...tool, ...change }))}
            />
            <Button
              color="inherit"
              sx={{ justifySelf: 'start' }}
              onClick={() => onChange(tools.filter((one) => one !== tool))}
            >
              Take “{tool.name}” off
            </Button>
          </Box>
        </FoldAway>
      ))}
      <Button
        variant="outlined"
        sx={{ alignSelf: 'flex-start' }}
        disabled={tools.length >= MAX_TOOLS}
        onClick={onMore}
      >
        {more}
      </Button>
    </Stack>
  );
}

const put = <Tool extends { id: string }>(tools: readonly Tool[], tool: Tool): Tool[] =>
  tools.map((one) => (one.id === tool.id ? tool : one));

type Fields<Tool> = { tool: Tool; onChange: (change: Partial<Tool>) => void };

function EdgeToolFields({ tool, onChange }: Fields<EdgeTool>) {
  return (
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
  );
}

function BeadToolFields({ tool, onChange }: Fields<BeadTool>) {
  return (
    <>
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
    </>
  );
}
