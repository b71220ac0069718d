import Box from '@mui/material/Box';
import Dialog from '@mui/material/Dialog';
import DialogContent from '@mui/material/DialogContent';
import Typography from '@mui/material/Typography';
import type { ReactNode } from 'react';
import { StopMark } from '../frame/StopMark';
import { KEY_CARD } from '../frame/keys';
import { Chevrons } from './shapeMarks';
import { Datum, EdgeTag, GapMark, GoneMark, Hinge, HoleMark, Threads } from './marks';

const ink = 'var(--ink)';
const TAG = { anchor: [6, 34], out: [0, -1], at: [52, 16] } as const;
const line = (dash: string | undefined, width = 1.8, y = 20) => (
  <line x1={6} y1={y} x2={82} y2={y} stroke={ink} strokeWidth={width} strokeDasharray={dash} />
);
const gap = (shape: ReactNode) => (
  <>
    <line x1={6} y1={32} x2={82} y2={32} stroke={ink} strokeWidth={2} />
    <line x1={44} y1={32} x2={44} y2={12} stroke={ink} strokeWidth={2} />
    {shape}
  </>
);

/**
 * Every mark of the drawings, drawn by the same code that draws them there; docs/marks.md says the
 * same in words.
 */
const MARKS: [ReactNode, string][] = [
  [
    <g key="tag">
      <Threads tags={[TAG]} />
      <EdgeTag tag={TAG} letter="B" note="170" picked={false} />
    </g>,
    'an edge: its letter, what belongs to it',
  ],
  [
    <Datum key="datum" at={[44, 4]} colour={ink} />,
    'the datum corner: letters run clockwise from it',
  ],
  [line('11 4'), 'a fold, the card creased sharp'],
  [line('2 5', 2.4), 'a fold, the card rolled round'],
  [
    <g key="bend">
      <rect x={6} y={15} width={76} height={10} fill="var(--rule)" />
      {line(undefined, 1.2, 15)}
      {line('14 4 2 4', 0.9)}
      {line(undefined, 1.2, 25)}
    </g>,
    'the bend on the blank: its tangents and its middle',
  ],
  [line('12 5', 3), 'the brake line: the edge of the clamping bar'],
  [
    <g key="hinges">
      <Hinge at={[24, 20]} across={[0, -1]} toward="face" colour={ink} ground="var(--panel)" />
      <Hinge at={[62, 20]} across={[0, -1]} toward="back" colour={ink} ground="var(--panel)" />
    </g>,
    'the side that moves: filled toward you, hollow away',
  ],
  [
    <HoleMark key="hole" at={[44, 20]} diameterMm={24} stroke={ink} fill="var(--panel)" />,
    'a hole or plug, to centre-pop',
  ],
  [line('3 4', 1.4), 'where a joint’s strip begins, or steps'],
  [
    <g key="bead">
      {line('16 4 3 4', 1.4)}
      <path d="M22 20H32Q44 2 56 20H66" fill="var(--panel)" stroke={ink} strokeWidth={2.4} />
    </g>,
    'a bead: its own section stands on it',
  ],
  [
    <g key="strain">
      <Chevrons at={[24, 20]} turn={0} shrink />
      <Chevrons at={[62, 20]} turn={0} shrink={false} />
    </g>,
    'gather here, stretch here: closer where there is more',
  ],
  [
    <g key="welds" stroke={ink} strokeWidth={2}>
      <circle cx={16} cy={20} r={9} fill="var(--panel)" />
      <circle cx={38} cy={20} r={9} fill={ink} />
      <rect x={52} y={11} width={18} height={18} rx={4} fill="var(--panel)" />
      <rect x={74} y={11} width={18} height={18} rx={4} fill={ink} />
    </g>,
    'plugs and tacks: open to do, filled made',
  ],
  [
    <g key="gone">
      <GoneMark at={[26, 20]} unit={1} good />
      <GoneMark at={[62, 20]} unit={1} good={false} />
    </g>,
    'a reference that is cut away; in torch orange where it could not be put back',
  ],
  [gap(<GapMark state="right" x={44} y={12} />), 'a gap that is right'],
  [gap(<GapMark state="wide" x={44} y={12} />), 'a gap too wide'],
  [gap(<GapMark state="tight" x={44} y={12} />), 'a gap too tight'],
  [
    <g key="flush">
      <GapMark state="proud" x={30} y={20} r={6} />
      <GapMark state="low" x={58} y={20} r={6} />
    </g>,
    'an edge that stands proud, or low',
  ],
];

/** What the keys do and what the marks mean. */
export default function KeyCard({ open, onClose }: { open: boolean; onClose: () => void }) {
  return (
    <Dialog open={open} onClose={onClose} aria-labelledby="key-card" maxWidth="md">
      <DialogContent tabIndex={0}>
        <Box
          sx={{
            display: 'grid',
            gridTemplateColumns: { sm: '1fr 1.15fr' },
            columnGap: 5,
            rowGap: 2,
          }}
        >
          <Box>
            <Typography variant="h2" id="key-card">
              Key card
            </Typography>
            <table style={{ borderSpacing: '0 9px' }}>
              <tbody>
                {KEY_CARD.map(([key, does]) => (
                  <tr key={key}>
                    <td
                      className="figure"
                      style={{ whiteSpace: 'nowrap', fontWeight: 500, paddingRight: 16 }}
                    >
                      {key}
                    </td>
                    <td>{does}</td>
                  </tr>
                ))}
              </tbody>
            </table>
            <Typography variant="h3" sx={{ mt: 2 }}>
              On the road
            </Typography>
            {(
              [
                ['next', 'to do next'],
                ['attention', 'needs attention'],
                ['done', 'done'],
                ['ahead', 'still ahead'],
                ['unseen', 'not looked at'],
                ['overtaken', 'overtaken by what was done or changed since'],
              ] as const
            ).map(([state, said]) => (
              <Box key={state} sx={{ display: 'flex', gap: 1.2, alignItems: 'center', mt: 0.8 }}>
                <StopMark state={state} /> {said}
              </Box>
            ))}
          </Box>
          {/* A phone has no keys: what the marks mean comes first there. */}
          <Box component="section" aria-label="Marks" sx={{ order: { xs: -1, sm: 0 } }}>
            <Typography variant="h2">Marks</Typography>
            {MARKS.map(([mark, said]) => (
              <Box
                key={said}
                sx={{ display: 'flex', gap: 2, alignItems: 'center', lineHeight: 1.2 }}
              >
                <svg width="98" height="40" aria-hidden style={{ flex: 'none' }}>
                  {mark}
                </svg>
                {said}
              </Box>
            ))}
          </Box>
        </Box>
      </DialogContent>
    </Dialog>
  );
}
