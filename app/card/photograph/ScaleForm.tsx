import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Stack from '@mui/material/Stack';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import type { Scale } from '#core/picture/findFrame';
import type { Paper } from '#core/picture/scaleFrame';
import { CORNERS, RIM, scaleFrame } from '#core/picture/scaleFrame';
import { Choice } from '../../forms/Choice';
import { LengthField } from '../../forms/LengthField';

export type ScaleDraft = {
  by: 'paper' | 'corners' | 'scan';
  paper: Paper;
  /** What the marks measure on the paper over all, where the printer did not print true. */
  printedWideMm: number | null;
  printedHighMm: number | null;
  /** Tapes between the corner cards: round the card, then across it. */
  tapesMm: (number | null)[];
  dpi: number;
};

const PAPERS: readonly (readonly [Paper, string])[] = [
  ['a4', 'A4'],
  ['a3', 'A3'],
  ['letter', 'Letter'],
  ['tabloid', 'Tabloid'],
];
const TAPES = [
  [0, 1],
  [1, 2],
  [2, 3],
  [3, 0],
  [0, 2],
] as const;

/** What tells the scale, as the look at a picture takes it; null while something is missing. */
export function scaleGiven({
  by,
  paper,
  printedWideMm,
  printedHighMm,
  tapesMm,
  dpi,
}: ScaleDraft): Scale | null {
  if (by === 'scan') return dpi > 0 ? { kind: 'scan', dpi } : null;
  if (by === 'corners') {
    if (tapesMm.some((mm) => mm === null)) return null;
    return {
      kind: 'corners',
      tapes: TAPES.map(([i, j], k) => ({ from: CORNERS[i], to: CORNERS[j], mm: tapesMm[k]! })),
    };
  }
  const { widthMm, heightMm } = scaleFrame(paper);
  const drawn = [widthMm - 2 * RIM, heightMm - 2 * RIM] as const;
  const printedMm =
    printedWideMm || printedHighMm
      ? ([printedWideMm ?? drawn[0], printedHighMm ?? drawn[1]] as const)
      : null;
  return { kind: 'paper', paper, printedMm };
}

/**
 * How large things in the picture are: a printed frame, four corner cards and the tapes between
 * them, or a scanner.
 */
export function ScaleForm({
  draft,
  set,
}: {
  draft: ScaleDraft;
  set: (change: Partial<ScaleDraft>) => void;
}) {
  const { by, paper } = draft;
  const { widthMm, heightMm } = scaleFrame(paper);
  return (
    <>
      <Choice
        label="What tells its scale"
        value={by}
        onChange={(next) => set({ by: next })}
        options={[
          ['paper', 'The printed frame, for a card that fits on it'],
          ['corners', 'Four corner cards and a tape, for a larger one'],
          ['scan', 'A flat-bed scanner'],
        ]}
      />
      {by === 'paper' && (
        <>
          <Choice
            label="Paper of the frame"
            value={paper}
            onChange={(next) => set({ paper: next })}
            options={PAPERS}
          />
          <Stack direction="row" spacing={1} useFlexGap sx={{ flexWrap: 'wrap' }}>
            <Button
              variant="outlined"
              component="a"
              href={`/scale-frame.pdf?paper=${paper}`}
              download
            >
              Print the frame
            </Button>
            <Button
              variant="outlined"
              component="a"
              href={`/scale-frame.pdf?paper=${paper}&middle=dark`}
              download
            >
              With a dark middle, for white card
            </Button>
          </Stack>
          <Typography variant="body2" sx={{ color: 'var(--pencil)' }}>
            Print at 100 %. Lay the card inside the marks, flat, and photograph it from above with
            all four corners in the picture.
          </Typography>
          <Typography variant="body2">
            Measure the marks over all once. Where they are not this, your printer is out: write
            what they are.
          </Typography>
          <Box sx={{ display: 'grid', gridTemplateColumns: '1fr 1fr', gap: 1.4 }}>
            <LengthField
              label="Across"
              mm={draft.printedWideMm ?? widthMm - 2 * RIM}
              min={20}
              onChange={(mm) => set({ printedWideMm: mm })}
            />
            <LengthField
              label="Up"
              mm={draft.printedHighMm ?? heightMm - 2 * RIM}
              min={20}
              onChange={(mm) => set({ printedHighMm: mm })}
            />
          </Box>
        </>
      )}
      {by === 'corners' && (
        <>
          <Button
            variant="outlined"
            component="a"
            href="/scale-frame.pdf?cards=1"
            download
            sx={{ justifySelf: 'start' }}
          >
            Print the corner cards
          </Button>
          <Typography variant="body2" sx={{ color: 'var(--pencil)' }}>
            Cut them apart, lay them round the card on the bench, one to four in turn, and tape
            between the outer corners of their black angles. Then do not move them.
          </Typography>
          <Box sx={{ display: 'grid', gridTemplateColumns: '1fr 1fr', gap: 1.4 }}>
            {TAPES.map(([i, j], k) => (
              <LengthField
                key={k}
                label={`${CORNERS[i]} to ${CORNERS[j]}${k === 4 ? ', across' : ''}`}
                mm={draft.tapesMm[k] ?? null}
                min={20}
                onChange={(mm) =>
                  set({ tapesMm: draft.tapesMm.map((old, at) => (at === k ? mm : old)) })
                }
              />
            ))}
          </Box>
        </>
      )}
      {by === 'scan' && (
        <TextField
          label="Dots to the inch"
          type="number"
          value={draft.dpi}
          onChange={(event) => set({ dpi: Number(event.target.value) })}
          helperText="As the scanner was set. The card must not touch the rim of the picture."
        />
      )}
    </>
  );
}
