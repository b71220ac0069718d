import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import { MOST_TOOLS } from '#core/blank/limits';
import type { Shop } from '#core/blank/shopSchema';
import { cut } from '#core/card/cut';
import { usualLength } from '#core/measure/length';
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

/** What edges are gathered and stretched with, and the dies for beads. */
export function ShapeTools({ edgeTools, beadTools, onChange }: Props) {
  const { unit } = usePreferences();
  const setEdge = (id: string, change: Partial<EdgeTool>) =>
    onChange({ edgeTools: edgeTools.map((one) => (one.id === id ? { ...one, ...change } : one)) });
  const setBead = (id: string, change: Partial<BeadTool>) =>
    onChange({ beadTools: beadTools.map((one) => (one.id === id ? { ...one, ...change } : one)) });
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
        <Box>
          <Typography variant="h3">For edges</Typography>
          {edgeTools.map((tool) => (
            <Box
              key={tool.id}
              role="group"
              aria-label={tool.name}
              sx={{
                display: 'grid',
                gridTemplateColumns: { sm: '1.4fr 1fr 1fr auto' },
                gap: 1,
                alignItems: 'end',
                mb: 1.5,
              }}
            >
              <TextField
                label="Name"
                value={tool.name}
                onChange={(event) => setEdge(tool.id, { name: cut(event.target.value, 60) })}
              />
              <Choice
                label="It"
                value={tool.does}
                onChange={(does) => setEdge(tool.id, { does })}
                options={[
                  ['shrink', 'Shrinks'],
                  ['stretch', 'Stretches'],
                  ['both', 'Does both'],
                ]}
              />
              <LengthField
                label="Reaches in"
                mm={tool.throatMm}
                min={1}
                onChange={(mm) => mm && setEdge(tool.id, { throatMm: mm })}
              />
              <Button
                color="inherit"
                aria-label={`Take ${tool.name} off`}
                onClick={() =>
                  onChange({ edgeTools: edgeTools.filter(({ id }) => id !== tool.id) })
                }
              >
                Off
              </Button>
            </Box>
          ))}
          <Button
            variant="outlined"
            disabled={edgeTools.length >= MOST_TOOLS}
            onClick={() =>
              onChange({
                edgeTools: [
                  ...edgeTools,
                  {
                    id: newId(),
                    name: 'Hand shrinker',
                    does: 'both',
                    throatMm: usualLength(25, unit),
                  },
                ],
              })
            }
          >
            Another for edges
          </Button>
        </Box>
        <Box>
          <Typography variant="h3">Dies for beads</Typography>
          {beadTools.map((tool) => (
            <Box
              key={tool.id}
              role="group"
              aria-label={tool.name}
              sx={{ display: 'grid', gap: 1, mb: 2, pb: 2, borderBottom: '1px solid var(--rule)' }}
            >
              <TextField
                label="Name"
                value={tool.name}
                onChange={(event) => setBead(tool.id, { name: cut(event.target.value, 60) })}
              />
              <SectionFields
                section={tool.section}
                onChange={(section) => setBead(tool.id, { section })}
              />
              <Box sx={{ display: 'grid', gridTemplateColumns: 'repeat(3, 1fr)', gap: 1 }}>
                <LengthField
                  label="Deeper each pass"
                  mm={tool.depthPerPassMm}
                  min={0.01}
                  thin
                  onChange={(mm) => mm && setBead(tool.id, { depthPerPassMm: mm })}
                />
                <LengthField
                  label="Least radius"
                  mm={tool.leastRadiusMm}
                  min={0}
                  onChange={(mm) => mm !== null && setBead(tool.id, { leastRadiusMm: mm })}
                />
                <LengthField
                  label="Throat"
                  mm={tool.throatMm}
                  min={1}
                  onChange={(mm) => mm && setBead(tool.id, { throatMm: mm })}
                />
              </Box>
              <Button
                color="inherit"
                sx={{ justifySelf: 'start' }}
                onClick={() =>
                  onChange({ beadTools: beadTools.filter(({ id }) => id !== tool.id) })
                }
              >
                Take “{tool.name}” off
              </Button>
            </Box>
          ))}
          <Button
            variant="outlined"
            disabled={beadTools.length >= MOST_TOOLS}
            onClick={() =>
              onChange({
                beadTools: [
                  ...beadTools,
                  {
                    id: newId(),
                    name: 'Round die',
                    section: {
                      kind: 'arc',
                      widthMm: usualLength(8, unit),
                      heightMm: usualLength(2.5, unit),
                    },
                    depthPerPassMm: usualLength(1, unit),
                    leastRadiusMm: usualLength(100, unit),
                    throatMm: usualLength(450, unit),
                  },
                ],
              })
            }
          >
            Another die
          </Button>
        </Box>
      </Box>
    </Box>
  );
}
