import Box from '@mui/material/Box';
import Typography from '@mui/material/Typography';
import type { Figure } from '#core/surface/mesh/figures';
import { AngleField } from '../../forms/AngleField';
import { Choice } from '../../forms/Choice';
import { FigureField } from '../../forms/FigureField';
import { LengthField } from '../../forms/LengthField';
import { FIELD_WORDS, FIGURES_OF } from './crownWords';

const KINDS = Object.keys(FIGURES_OF) as Figure['kind'][];
const ENDS = ['from', 'to'] as const;

/** What a panel is and its figures. */
export function FigureFields({
  figure,
  onChange,
}: {
  figure: Figure;
  onChange: (figure: Figure) => void;
}) {
  const { name: _name, about } = FIGURES_OF[figure.kind];
  const put = (change: object) => onChange({ ...figure, ...change } as Figure);
  return (
    <>
      <Choice
        label="What it is like"
        value={figure.kind}
        onChange={(kind) => onChange(FIGURES_OF[kind].figure)}
        options={KINDS.map((kind) => [kind, FIGURES_OF[kind].name] as const)}
      />
      <Typography variant="body2">{about}</Typography>
      <Box sx={{ display: 'grid', gridTemplateColumns: '1fr 1fr', gap: 1.4, alignItems: 'end' }}>
        {Object.entries(figure).map(([name, value]) => {
          if (typeof value !== 'number') return null;
          const label = FIELD_WORDS[name] ?? name;
          if (name === 'shrinkPct')
            return (
              <FigureField
                key={name}
                label={label}
                value={value}
                unit="%"
                min={0.1}
                max={30}
                wrong="A share, from 0.1 to 30 %."
                onChange={(pct) => put({ [name]: pct })}
              />
            );
          if (name.endsWith('Deg'))
            return (
              <AngleField
                key={name}
                label={label}
                angleDeg={value}
                min={name === 'arcDeg' ? 1 : -180}
                max={name === 'arcDeg' ? 350 : 270}
                wrong={name === 'arcDeg' ? 'Degrees, from 1 to 350.' : 'Degrees, from −180 to 270.'}
                onChange={(deg) => put({ [name]: deg })}
              />
            );
          return (
            <LengthField
              key={name}
              label={label}
              mm={value}
              min={1}
              max={20_000}
              onChange={(mm) => mm !== null && put({ [name]: mm })}
            />
          );
        })}
        {figure.kind === 'blend' &&
          ENDS.flatMap((end) =>
            (['alongMm', 'acrossMm'] as const).map((name) => (
              <LengthField
                key={`${end} ${name}`}
                label={`${FIELD_WORDS[name]}, ${end === 'from' ? 'one end' : 'the other'}`}
                mm={figure[end][name]}
                empty="straight"
                signed
                max={20_000}
                onChange={(mm) => put({ [end]: { ...figure[end], [name]: mm === 0 ? null : mm } })}
              />
            )),
          )}
      </Box>
    </>
  );
}
