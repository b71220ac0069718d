import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Stack from '@mui/material/Stack';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import type { CardMark, PatternDoc } from '#core/card/pattern';
import { LengthField } from '../../forms/LengthField';
import { usePreferences } from '../../frame/preferences';
import { usePick, usePiece } from '../../piece/pieceContext';
import { newFold } from '../hand/newFold';
import { newId } from '../../frame/newId';
import { foldBetween } from '../photograph/traced';

/** More than these are told in one line: they come from a development or a drawing. */
const MAX_SHOWN = 12;

/** Lines to scribe: what each is for, where it runs, and whether it is folded along instead. */
export function MarkList({ pattern }: { pattern: PatternDoc }) {
  const { patternEditor } = usePiece();
  const { setPick } = usePick();
  const { show } = usePreferences();
  const { marks } = pattern;
  const change = (id: string, next: Partial<CardMark>) =>
    patternEditor.edit(
      { ...pattern, marks: marks.map((one) => (one.id === id ? { ...one, ...next } : one)) },
      id,
    );
  const without = (id: string) => marks.filter((one) => one.id !== id);
  return (
    <Box component="section" aria-label="Lines to scribe">
      <Typography variant="h3">Lines to scribe</Typography>
      {marks.length > MAX_SHOWN ? (
        <>
          <Typography>
            {marks.length} lines, scribed on the blank and printed with their names.
          </Typography>
          <Button
            variant="outlined"
            size="small"
            onClick={() => patternEditor.edit({ ...pattern, marks: [] })}
          >
            Take all of them off
          </Button>
        </>
      ) : (
        <Stack component="ol" spacing={1.5} sx={{ listStyle: 'none', p: 0, m: 0, mt: 1 }}>
          {marks.map((mark, i) => {
            const { from, to } = mark;
            const path = foldBetween(pattern, [from, to]);
            return (
              <Box
                component="li"
                key={mark.id}
                aria-label={`Line ${i + 1}`}
                sx={{ display: 'grid', gap: 1 }}
              >
                <TextField
                  label={`${i + 1} · ${show(Math.hypot(to[0] - from[0], to[1] - from[1]))}, for`}
                  value={mark.name}
                  size="small"
                  slotProps={{ htmlInput: { maxLength: 60 } }}
                  onChange={(event) => change(mark.id, { name: event.target.value })}
                />
                <Box sx={{ display: 'grid', gridTemplateColumns: '1fr 1fr', gap: 1 }}>
                  {(['from', 'to'] as const).flatMap((end) =>
                    [0, 1].map((axis) => (
                      <LengthField
                        key={`${end} ${axis}`}
                        label={`${end === 'from' ? 'From' : 'To'}, ${axis === 0 ? 'across' : 'up'}`}
                        mm={mark[end][axis]!}
                        signed
                        digits={2}
                        onChange={(mm) => {
                          const [x, y] = mark[end];
                          if (mm !== null)
                            change(mark.id, { [end]: axis === 0 ? [mm, y] : [x, mm] });
                        }}
                      />
                    )),
                  )}
                </Box>
                <Stack direction="row" spacing={1}>
                  {path && (
                    <Button
                      variant="outlined"
                      size="small"
                      onClick={() => {
                        const id = newId();
                        const folds = [...pattern.folds, newFold(pattern, id, path)];
                        patternEditor.edit({ ...pattern, folds, marks: without(mark.id) });
                        setPick({ kind: 'fold', id });
                      }}
                    >
                      Fold along it
                    </Button>
                  )}
                  <Button
                    variant="outlined"
                    size="small"
                    onClick={() => patternEditor.edit({ ...pattern, marks: without(mark.id) })}
                  >
                    Take line {i + 1} off
                  </Button>
                </Stack>
              </Box>
            );
          })}
        </Stack>
      )}
    </Box>
  );
}
