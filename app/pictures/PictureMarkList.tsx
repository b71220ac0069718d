import DeleteOutlined from '@mui/icons-material/DeleteOutlined';
import Box from '@mui/material/Box';
import IconButton from '@mui/material/IconButton';
import TextField from '@mui/material/TextField';
import { cut } from '#core/card/cut';
import type { PictureMark } from '#core/picture/marks';

const WORDS: Record<PictureMark['kind'], string> = {
  pin: 'Pin',
  ring: 'Ring',
  arrow: 'Arrow',
  line: 'Line',
};

/**
 * The marks of a picture in words: each can be named, found and taken off here, without a steady
 * hand.
 */
export function MarkList({
  marks,
  picked,
  onPick,
  onChange,
  onRemove,
}: {
  marks: readonly PictureMark[];
  picked: string | null;
  onPick: (id: string | null) => void;
  onChange: (id: string, to: (mark: PictureMark) => PictureMark) => void;
  onRemove: (id: string) => void;
}) {
  if (marks.length === 0) return null;
  return (
    <Box
      component="ul"
      aria-label="Marks"
      sx={{ listStyle: 'none', m: 0, mt: 1.5, p: 0, display: 'grid', gap: 1 }}
    >
      {marks.map((mark, i) => (
        <Box
          component="li"
          key={mark.id}
          sx={{
            display: 'flex',
            gap: 1,
            alignItems: 'flex-end',
            pl: 1,
            borderLeft: `5px solid ${mark.id === picked ? 'var(--torch)' : 'transparent'}`,
          }}
        >
          <TextField
            label={`${WORDS[mark.kind]} ${i + 1}`}
            placeholder="Name it"
            value={mark.name}
            onFocus={() => onPick(mark.id)}
            onChange={(event) =>
              onChange(mark.id, (now) => ({ ...now, name: cut(event.target.value, 80) }))
            }
            fullWidth
          />
          <IconButton
            aria-label={`Take off ${WORDS[mark.kind].toLowerCase()} ${i + 1}`}
            onClick={() => onRemove(mark.id)}
          >
            <DeleteOutlined />
          </IconButton>
        </Box>
      ))}
    </Box>
  );
}
